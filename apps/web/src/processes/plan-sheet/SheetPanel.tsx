'use client';
/** The paper, the scale, the views, and what stands in the title block. */
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type PlanSheetSettings, type SheetPlan, type SheetScale, sheetPapers, sheetScales } from '@nuvet/core/drafting';
import { useEffect, useState } from 'react';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';

const say = words.planSheet;
const fitting = 'fitting';
const scaleWords = { [fitting]: say.fitting, ...Object.fromEntries(Object.keys(sheetScales).map((scale) => [scale, scale])) } as Record<SheetScale | typeof fitting, string>; // biome-ignore format: one line
const paperWords = Object.fromEntries(sheetPapers.map((paper) => [paper, paper])) as Record<PlanSheetSettings['paper'], string>;
const isShown = (is: boolean): 'yes' | 'no' => (is ? 'yes' : 'no');

export function SheetPanel({ open: { settings, set, plan, notes } }: PanelProps<PlanSheetSettings, SheetPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { detail } = settings;
  return (
    <>
      <PlanFault />
      <Section title={say.sheet}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <Pick label={say.paper} value={settings.paper} words={paperWords} onPick={(paper) => set({ paper })} />
            <Pick
              label={say.lies}
              value={settings.isLandscape ? 'wide' : 'upright'}
              words={say.ways}
              onPick={(way) => set({ isLandscape: way === 'wide' })}
            />
          </Row>
          <Pick
            label={say.scale}
            value={settings.scale ?? fitting}
            words={scaleWords}
            onPick={(scale) => set({ scale: scale === fitting ? null : scale })}
          />
          {plan && (
            <Typography variant="caption" color="textSecondary">
              {say.scaleIs(plan.scale)}
            </Typography>
          )}
        </Box>
      </Section>
      <PlanNotes notes={notes} />
      <Section title={say.views}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
          {say.viewsAbout}
        </Typography>
        <Box sx={{ display: 'grid', gap: 1.25 }}>
          <Row>
            <Pick
              label={say.topView}
              value={isShown(settings.hasTopView)}
              words={say.shown}
              onPick={(which) => set({ hasTopView: which === 'yes' })}
            />
            <Pick
              label={say.sideView}
              value={isShown(settings.hasSideView)}
              words={say.shown}
              onPick={(which) => set({ hasSideView: which === 'yes' })}
            />
          </Row>
          <Measure
            label={say.section}
            mm={settings.sectionAtMm}
            unit={unit}
            range="from zero"
            placeholder={say.noSection}
            onEmpty={() => set({ sectionAtMm: null })}
            onMm={(sectionAtMm) => set({ sectionAtMm })}
          />
          <Pick
            label={say.detail}
            value={detail ? 'circle' : 'none'}
            words={say.details}
            onPick={(which) => set({ detail: which === 'circle' ? { x: 0, y: 0, radiusMm: 8, times: 4 } : null })}
          />
          {detail && (
            <>
              <Row>
                <Measure label={say.detailX} mm={detail.x} unit={unit} range="any" onMm={(x) => set({ detail: { ...detail, x } })} />
                <Measure label={say.detailY} mm={detail.y} unit={unit} range="any" onMm={(y) => set({ detail: { ...detail, y } })} />
              </Row>
              <Row>
                <Measure
                  label={say.detailRadius}
                  mm={detail.radiusMm}
                  unit={unit}
                  least={0.5}
                  most={1000}
                  onMm={(radiusMm) => set({ detail: { ...detail, radiusMm } })}
                />
                <NumberField
                  label={say.detailTimes}
                  value={detail.times}
                  digits={1}
                  least={1.5}
                  most={20}
                  onNumber={(times) => set({ detail: { ...detail, times } })}
                />
              </Row>
            </>
          )}
        </Box>
      </Section>
      <Section title={say.titleBlock}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <Words label={say.number} value={settings.number} longest={40} onWords={(number) => set({ number })} />
            <Words label={say.revision} value={settings.revision} longest={20} onWords={(revision) => set({ revision })} />
          </Row>
          <Row>
            <Words label={say.drawnBy} value={settings.drawnBy} longest={60} onWords={(drawnBy) => set({ drawnBy })} />
            <Words label={say.date} value={settings.date} longest={20} onWords={(date) => set({ date })} />
          </Row>
          <Measure
            label={say.tolerance}
            mm={settings.toleranceMm}
            unit={unit}
            least={0.001}
            most={100}
            onMm={(toleranceMm) => set({ toleranceMm })}
          />
        </Box>
      </Section>
    </>
  );
}

/** A few words that count with Enter, or on leaving. */
function Words({ label, value, longest, onWords }: { label: string; value: string; longest: number; onWords: (words: string) => void }) {
  const [typed, setTyped] = useState(value);
  useEffect(() => setTyped(value), [value]);
  const settle = (): void => {
    const wanted = typed.trim().slice(0, longest);
    if (wanted !== value) onWords(wanted);
  };
  return (
    <TextField
      fullWidth
      label={label}
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={settle}
      onKeyDown={(event) => event.key === 'Enter' && settle()}
    />
  );
}
