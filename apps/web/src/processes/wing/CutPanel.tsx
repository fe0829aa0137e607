'use client';
/** The cut: how wide the wire melts at which speed, how fast it goes, where the towers stand. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { mostReadings, type WingPlan, type WingSettings } from '@nuvet/core/foam';
import { printBoth } from '@nuvet/core/length';
import { papers } from '@nuvet/core/make';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { inTime } from '../cut/cut-sections';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';

const say = words.wing;
const within = (low: number, high: number, value: number): number => Math.max(low, Math.min(high, value));
const paperWords = Object.fromEntries(Object.entries(papers).map(([name, [w, h]]) => [name, words.makeReady.paperSize(name, w, h)]));

export function CutPanel({ open: { settings, set, plan } }: PanelProps<WingSettings, WingPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { burn } = settings;
  const change = (k: number, by: Partial<(typeof burn)[0]>) => set({ burn: burn.map((one, n) => (n === k ? { ...one, ...by } : one)) });
  return (
    <>
      <Section title={say.burn}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
          {say.burnAbout}
        </Typography>
        <Box sx={{ display: 'grid', gap: 1 }}>
          {burn.map((one, k) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: cuts are told apart by their place in the list
            <Box key={k} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr auto', gap: 1, alignItems: 'start' }}>
              <Measure
                label={say.burnWide(k + 1)}
                mm={one.burnMm}
                unit={unit}
                range="from zero"
                onMm={(mm) => change(k, { burnMm: within(0, 20, mm) })}
              />
              <NumberField
                label={say.burnAt}
                value={one.mmPerMin}
                digits={0}
                unit={say.mmPerMin}
                onNumber={(n) => change(k, { mmPerMin: within(1, 50_000, n) })}
              />
              <IconButton aria-label={say.removeBurn(k + 1)} size="small" onClick={() => set({ burn: burn.filter((_, n) => n !== k) })}>
                <DeleteOutlined fontSize="small" />
              </IconButton>
            </Box>
          ))}
        </Box>
        {burn.length < mostReadings && (
          <Button
            size="small"
            startIcon={<AddOutlined />}
            onClick={() => set({ burn: [...burn, { burnMm: burn.at(-1)?.burnMm ?? 0.8, mmPerMin: Math.round((burn.at(-1)?.mmPerMin ?? 2 * settings.feedMmPerMin) / 2) }] })} // biome-ignore format: one line
            sx={{ mt: 0.75 }}
          >
            {say.addBurn}
          </Button>
        )}
      </Section>
      <Section title={say.speed}>
        <Box sx={{ mt: 1 }}>
          <Row>
            <NumberField
              label={say.feed}
              value={settings.feedMmPerMin}
              digits={0}
              unit={say.mmPerMin}
              onNumber={(n) => set({ feedMmPerMin: within(10, 5000, n) })}
            />
            <NumberField
              label={say.fastest}
              value={settings.fastestMmPerMin}
              digits={0}
              unit={say.mmPerMin}
              onNumber={(n) => set({ fastestMmPerMin: within(10, 50_000, n) })}
            />
          </Row>
        </Box>
      </Section>
      <Section title={say.towers}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <Measure label={say.between} mm={settings.betweenMm} unit={unit} onMm={(mm) => set({ betweenMm: within(10, 20_000, mm) })} />
            <Measure
              label={say.toFoam}
              mm={settings.toFoamMm}
              unit={unit}
              range="from zero"
              placeholder={say.inMiddle}
              onEmpty={() => set({ toFoamMm: null })}
              onMm={(mm) => set({ toFoamMm: within(0, 20_000, mm) })}
            />
          </Row>
          <Row>
            <Pick
              label={say.tipSide}
              value={settings.isTipLeft ? 'left' : 'right'}
              words={say.tipSides}
              onPick={(side) => set({ isTipLeft: side === 'left' })}
            />
            <Pick label={say.axes} value={settings.axes} words={say.axesWords} onPick={(axes) => set({ axes })} />
          </Row>
          <Pick
            label={say.pair}
            value={settings.isPair ? 'yes' : 'no'}
            words={say.pairs}
            onPick={(word) => set({ isPair: word === 'yes' })}
          />
          <Pick
            label={say.paper}
            value={papers[settings.paper] ? settings.paper : 'A4'}
            words={paperWords}
            onPick={(paper) => set({ paper })}
          />
        </Box>
      </Section>
      <PlanFault />
      {plan && <PlanNotes notes={plan.notes} />}
      {plan && (
        <Section title={say.comesTo}>
          <Reading name={say.block}>{say.blockSize(printBoth(plan.block.lengthMm, unit), printBoth(plan.block.heightMm, unit))}</Reading>
          <Reading name={say.time}>{inTime(60 * plan.cut.minutes)}</Reading>
          <Reading name={say.mass}>{say.grams(plan.massG.toFixed(0))}</Reading>
          <NumberField
            label={say.density}
            value={settings.density}
            digits={1}
            unit="kg/m³"
            onNumber={(n) => set({ density: within(5, 1000, n) })}
          />
        </Section>
      )}
    </>
  );
}
