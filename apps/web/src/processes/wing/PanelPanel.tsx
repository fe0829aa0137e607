'use client';
/** The panel: its sections, its sizes, what is glued on, and slots for spars. */
import Box from '@mui/material/Box';
import { mostSpars, type WingPlan, type WingSettings } from '@nuvet/core/foam';
import { useJob } from '@/job/job-store';
import { FieldRows } from '@/ui/FieldRows';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';
import { SectionPick } from './SectionPick';

const say = words.wing;

export function PanelPanel({ open: { settings, set, plan }, pieces }: PanelProps<WingSettings, WingPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { spars } = settings;
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
            <Measure
              label={say.rootChord}
              mm={settings.rootChordMm}
              unit={unit}
              least={5}
              most={5000}
              onMm={(mm) => set({ rootChordMm: mm })}
            />
            <Measure
              label={say.tipChord}
              mm={settings.tipChordMm}
              unit={unit}
              least={5}
              most={5000}
              onMm={(mm) => set({ tipChordMm: mm })}
            />
          </Row>
          <Row>
            <Measure label={say.span} mm={settings.spanMm} unit={unit} least={5} most={10_000} onMm={(mm) => set({ spanMm: mm })} />
            <Measure
              label={say.sweep}
              mm={settings.sweepMm}
              unit={unit}
              range="any"
              least={-10_000}
              most={10_000}
              onMm={(mm) => set({ sweepMm: mm })}
            />
          </Row>
          <Row>
            <Measure
              label={say.rise}
              mm={settings.riseMm}
              unit={unit}
              range="any"
              least={-10_000}
              most={10_000}
              onMm={(mm) => set({ riseMm: mm })}
            />
            <NumberField
              label={say.washout}
              value={settings.washout}
              digits={2}
              unit="°"
              least={-45}
              most={45}
              onNumber={(n) => set({ washout: n })}
            />
          </Row>
        </Box>
      </Section>
      <Section title={say.allowances}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Measure label={say.sheeting} mm={settings.skinMm} unit={unit} range="from zero" most={50} onMm={(mm) => set({ skinMm: mm })} />
          <Row>
            <Measure
              label={say.leading}
              mm={settings.leadingMm}
              unit={unit}
              range="from zero"
              most={500}
              onMm={(mm) => set({ leadingMm: mm })}
            />
            <Measure
              label={say.trailing}
              mm={settings.trailingMm}
              unit={unit}
              range="from zero"
              most={500}
              onMm={(mm) => set({ trailingMm: mm })}
            />
          </Row>
        </Box>
      </Section>
      <Section title={say.spars}>
        <FieldRows
          list={spars}
          most={mostSpars}
          fields={2}
          onList={(to) => set({ spars: to })}
          onAdd={() => set({ spars: [...spars, { at: 0.3, side: 'upper', widthMm: 6, depthMm: 4 }] })}
          addWord={say.addSpar}
          removeWord={say.removeSpar}
        >
          {(spar, onChange, k) => (
            <>
              <NumberField
                label={say.spar(k + 1)}
                value={100 * spar.at}
                digits={1}
                unit="%"
                least={2}
                most={98}
                onNumber={(n) => onChange({ ...spar, at: n / 100 })}
              />
              <Pick label={say.side} value={spar.side} words={say.sides} onPick={(side) => onChange({ ...spar, side })} />
              <Measure
                label={say.wide}
                mm={spar.widthMm}
                unit={unit}
                least={0.2}
                most={500}
                onMm={(mm) => onChange({ ...spar, widthMm: mm })}
              />
              <Measure
                label={say.deep}
                mm={spar.depthMm}
                unit={unit}
                least={0.2}
                most={500}
                onMm={(mm) => onChange({ ...spar, depthMm: mm })}
              />
            </>
          )}
        </FieldRows>
      </Section>
      {plan && <PlanNotes notes={plan.notes} />}
    </>
  );
}
