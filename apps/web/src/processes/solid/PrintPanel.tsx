'use client';
/** What the solid holds and weighs, and what printing it takes by figures that are typed. */
import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import type { SolidPlan, SolidSettings } from '@nuvet/core/solid';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { inTime } from '../cut/cut-sections';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';
import { setSolidSpace, useSolidSpace } from './solid-space-store';

const say = words.solid;

export function PrintPanel({ open: { settings, set, plan, notes } }: PanelProps<SolidSettings, SolidPlan>) {
  const unit = useJob((s) => s.job.unit);
  const cutAtMm = useSolidSpace((s) => s.cutAtMm);
  return (
    <>
      <PlanFault />
      {plan && (
        <Section title={say.comesTo}>
          <Reading name={say.size}>
            {say.sizeOf(
              ...([0, 1, 2].map((axis) => ((plan.max[axis] as number) - (plan.min[axis] as number)).toFixed(2)) as [
                string,
                string,
                string,
              ]),
            )}
          </Reading>
          <Reading name={say.volume}>{say.millilitres((plan.volumeMm3 / 1000).toFixed(2))}</Reading>
          <Reading name={say.mass}>{say.grams(plan.massG.toFixed(1))}</Reading>
          <Reading name={say.filament}>{say.metres(plan.filamentM.toFixed(2))}</Reading>
          <Reading name={say.time}>{inTime(plan.seconds)}</Reading>
          <Reading name={say.layers}>{plan.layers.toLocaleString('en')}</Reading>
          <Reading name={say.triangles}>
            {plan.parts.reduce((sum, { mesh }) => sum + mesh.triangles.length / 3, 0).toLocaleString('en')}
          </Reading>
          <Typography variant="body2" sx={{ mt: 1 }}>
            {say.section}
          </Typography>
          <Slider
            aria-label={say.section}
            size="small"
            min={0}
            max={100}
            value={cutAtMm === null ? 100 : (100 * (cutAtMm - plan.min[2])) / Math.max(1e-6, plan.max[2] - plan.min[2])}
            valueLabelDisplay="auto"
            valueLabelFormat={(share) => printBoth(plan.min[2] + (share / 100) * (plan.max[2] - plan.min[2]), unit)}
            onChange={(_, share) =>
              setSolidSpace({ cutAtMm: share === 100 ? null : plan.min[2] + ((share as number) / 100) * (plan.max[2] - plan.min[2]) })
            }
          />
        </Section>
      )}
      <Section title={say.print}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1.5 }}>
          {say.commonPractice}
        </Typography>
        <Box sx={{ display: 'grid', gap: 1.25 }}>
          <Row>
            <NumberField
              label={say.density}
              value={settings.density}
              digits={2}
              unit="g/cm³"
              least={0.1}
              most={25}
              onNumber={(density) => set({ density })}
            />
            <Measure label={say.layer} mm={settings.layerMm} unit={unit} least={0.01} most={5} onMm={(layerMm) => set({ layerMm })} />
          </Row>
          <Row>
            <Measure
              label={say.filamentWide}
              mm={settings.filamentMm}
              unit={unit}
              least={0.1}
              most={10}
              onMm={(filamentMm) => set({ filamentMm })}
            />
            <NumberField
              label={say.flow}
              value={settings.flowMm3PerS}
              digits={2}
              unit="mm³/s"
              least={0.05}
              most={1000}
              onNumber={(flowMm3PerS) => set({ flowMm3PerS })}
            />
          </Row>
        </Box>
      </Section>
      <PlanNotes notes={notes} />
    </>
  );
}
