'use client';
/** The cut: how wide the wire melts at which speed, how fast it goes, where the towers stand. */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { mostReadings, type WingPlan, type WingSettings } from '@nuvet/core/foam';
import { printBoth } from '@nuvet/core/length';
import { papers } from '@nuvet/core/make';
import { useJob } from '@/job/job-store';
import { FieldRows } from '@/ui/FieldRows';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { inTime } from '../cut/cut-sections';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';

const say = words.wing;
const paperWords = Object.fromEntries(Object.entries(papers).map(([name, [w, h]]) => [name, words.makeReady.paperSize(name, w, h)]));

export function CutPanel({ open: { settings, set, plan } }: PanelProps<WingSettings, WingPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { burn } = settings;
  return (
    <>
      <Section title={say.burn}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
          {say.burnAbout}
        </Typography>
        <FieldRows
          list={burn}
          most={mostReadings}
          fields={2}
          onList={(to) => set({ burn: to })}
          onAdd={() =>
            set({
              burn: [
                ...burn,
                { burnMm: burn.at(-1)?.burnMm ?? 0.8, mmPerMin: Math.round((burn.at(-1)?.mmPerMin ?? 2 * settings.feedMmPerMin) / 2) },
              ],
            })
          }
          addWord={say.addBurn}
          removeWord={say.removeBurn}
        >
          {(one, onChange, k) => (
            <>
              <Measure
                label={say.burnWide(k + 1)}
                mm={one.burnMm}
                unit={unit}
                range="from zero"
                most={20}
                onMm={(mm) => onChange({ ...one, burnMm: mm })}
              />
              <NumberField
                label={say.burnAt}
                value={one.mmPerMin}
                digits={0}
                unit={say.mmPerMin}
                least={1}
                most={50_000}
                onNumber={(n) => onChange({ ...one, mmPerMin: n })}
              />
            </>
          )}
        </FieldRows>
      </Section>
      <Section title={say.speed}>
        <Box sx={{ mt: 1 }}>
          <Row>
            <NumberField
              label={say.feed}
              value={settings.feedMmPerMin}
              digits={0}
              unit={say.mmPerMin}
              least={10}
              most={5000}
              onNumber={(n) => set({ feedMmPerMin: n })}
            />
            <NumberField
              label={say.fastest}
              value={settings.fastestMmPerMin}
              digits={0}
              unit={say.mmPerMin}
              least={10}
              most={50_000}
              onNumber={(n) => set({ fastestMmPerMin: n })}
            />
          </Row>
        </Box>
      </Section>
      <Section title={say.towers}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <Measure
              label={say.between}
              mm={settings.betweenMm}
              unit={unit}
              least={10}
              most={20_000}
              onMm={(mm) => set({ betweenMm: mm })}
            />
            <Measure
              label={say.toFoam}
              mm={settings.toFoamMm}
              unit={unit}
              range="from zero"
              placeholder={say.inMiddle}
              onEmpty={() => set({ toFoamMm: null })}
              most={20_000}
              onMm={(mm) => set({ toFoamMm: mm })}
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
            least={5}
            most={1000}
            onNumber={(n) => set({ density: n })}
          />
        </Section>
      )}
    </>
  );
}
