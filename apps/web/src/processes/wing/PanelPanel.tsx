'use client';
/** The panel: its sections, its sizes, what is glued on, and slots for spars. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { mostSpars, type WingPlan, type WingSettings } from '@nuvet/core/foam';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';
import { SectionPick } from './SectionPick';

const say = words.wing;
const within = (low: number, high: number, value: number): number => Math.max(low, Math.min(high, value));

export function PanelPanel({ open: { settings, set, plan }, pieces }: PanelProps<WingSettings, WingPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { spars } = settings;
  const change = (k: number, by: Partial<(typeof spars)[0]>) =>
    set({ spars: spars.map((spar, n) => (n === k ? { ...spar, ...by } : spar)) });
  return (
    <>
      <Section title={say.sections}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <SectionPick label={say.root} section={settings.root} pieces={pieces} onSection={(root) => root && set({ root })} />
          <SectionPick label={say.tip} section={settings.tip} pieces={pieces} none={say.asRoot} onSection={(tip) => set({ tip })} />
        </Box>
      </Section>
      <PlanFault />
      <Section title={say.sizes}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <Measure label={say.rootChord} mm={settings.rootChordMm} unit={unit} onMm={(mm) => set({ rootChordMm: within(5, 5000, mm) })} />
            <Measure label={say.tipChord} mm={settings.tipChordMm} unit={unit} onMm={(mm) => set({ tipChordMm: within(5, 5000, mm) })} />
          </Row>
          <Row>
            <Measure label={say.span} mm={settings.spanMm} unit={unit} onMm={(mm) => set({ spanMm: within(5, 10_000, mm) })} />
            <Measure
              label={say.sweep}
              mm={settings.sweepMm}
              unit={unit}
              range="any"
              onMm={(mm) => set({ sweepMm: within(-10_000, 10_000, mm) })}
            />
          </Row>
          <Row>
            <Measure
              label={say.rise}
              mm={settings.riseMm}
              unit={unit}
              range="any"
              onMm={(mm) => set({ riseMm: within(-10_000, 10_000, mm) })}
            />
            <NumberField
              label={say.washout}
              value={settings.washout}
              digits={2}
              unit="°"
              onNumber={(n) => set({ washout: within(-45, 45, n) })}
            />
          </Row>
        </Box>
      </Section>
      <Section title={say.allowances}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Measure
            label={say.sheeting}
            mm={settings.skinMm}
            unit={unit}
            range="from zero"
            onMm={(mm) => set({ skinMm: within(0, 50, mm) })}
          />
          <Row>
            <Measure
              label={say.leading}
              mm={settings.leadingMm}
              unit={unit}
              range="from zero"
              onMm={(mm) => set({ leadingMm: within(0, 500, mm) })}
            />
            <Measure
              label={say.trailing}
              mm={settings.trailingMm}
              unit={unit}
              range="from zero"
              onMm={(mm) => set({ trailingMm: within(0, 500, mm) })}
            />
          </Row>
        </Box>
      </Section>
      <Section title={say.spars}>
        <Box sx={{ display: 'grid', gap: 1 }}>
          {spars.map((spar, k) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: slots are told apart by their place in the list
            <Box key={k} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr auto', gap: 1, alignItems: 'start' }}>
              <NumberField
                label={say.spar(k + 1)}
                value={100 * spar.at}
                digits={1}
                unit="%"
                onNumber={(n) => change(k, { at: within(0.02, 0.98, n / 100) })}
              />
              <Pick label={say.side} value={spar.side} words={say.sides} onPick={(side) => change(k, { side })} />
              <IconButton aria-label={say.removeSpar(k + 1)} size="small" onClick={() => set({ spars: spars.filter((_, n) => n !== k) })}>
                <DeleteOutlined fontSize="small" />
              </IconButton>
              <Measure label={say.wide} mm={spar.widthMm} unit={unit} onMm={(mm) => change(k, { widthMm: within(0.2, 500, mm) })} />
              <Measure label={say.deep} mm={spar.depthMm} unit={unit} onMm={(mm) => change(k, { depthMm: within(0.2, 500, mm) })} />
            </Box>
          ))}
        </Box>
        {spars.length < mostSpars && (
          <Button
            size="small"
            startIcon={<AddOutlined />}
            onClick={() => set({ spars: [...spars, { at: 0.3, side: 'upper', widthMm: 6, depthMm: 4 }] })}
            sx={{ mt: 0.75 }}
          >
            {say.addSpar}
          </Button>
        )}
      </Section>
      {plan && <PlanNotes notes={plan.notes} />}
    </>
  );
}
