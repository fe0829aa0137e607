'use client';
/** The body in space: how far its formers are drawn apart, where it is cut open, and what it all comes to. */
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import type { FoamPlan, FoamSettings } from '@nuvet/core/foam';
import { printBoth } from '@nuvet/core/length';
import { useJob } from '@/job/job-store';
import { Pick } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import type { PanelProps } from '../process-view';
import { setSpace, useSpace } from './space-store';

const say = words.foam;
/** As far as formers are drawn apart, as a share of the body's length over their number. */
const farthest = 1.5;

export function SpacePanel({ open: { plan } }: PanelProps<FoamSettings, FoamPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { apartMm, cutAtMm, hasFairBody } = useSpace();
  if (!plan) return <PlanFault />;
  const most = Math.round((farthest * plan.lengthMm) / Math.max(1, plan.slices.length));
  return (
    <>
      <Section title={say.space}>
        <Typography variant="body2" sx={{ mt: 1 }}>
          {say.apart}
        </Typography>
        <Slider
          aria-label={say.apart}
          size="small"
          min={0}
          max={most}
          value={Math.min(apartMm, most)}
          valueLabelDisplay="auto"
          valueLabelFormat={(mm) => printBoth(mm, unit)}
          onChange={(_, mm) => setSpace({ apartMm: mm as number })}
        />
        <Typography variant="body2">{say.cutOpenAt}</Typography>
        <Slider
          aria-label={say.cutOpenAt}
          size="small"
          min={0}
          max={Math.round(plan.lengthMm)}
          value={cutAtMm ?? 0}
          valueLabelDisplay="auto"
          valueLabelFormat={(mm) => printBoth(mm, unit)}
          onChange={(_, mm) => setSpace({ cutAtMm: mm === 0 ? null : (mm as number) })}
        />
        <Pick
          label={say.fairBody}
          value={hasFairBody ? 'shown' : 'hidden'}
          words={say.fairKinds}
          onPick={(word) => setSpace({ hasFairBody: word === 'shown' })}
        />
      </Section>
      <Section title={say.comesTo}>
        <Reading name={say.formers}>{plan.slices.length}</Reading>
        <Reading name={say.volume}>{say.litres((plan.bodyMm3 / 1e6).toFixed(2))}</Reading>
        <Reading name={say.foamIn}>{say.litres((plan.foamMm3 / 1e6).toFixed(2))}</Reading>
        <Reading name={say.mass}>{say.grams(plan.massG.toFixed(0))}</Reading>
        <Reading name={say.balance}>{say.fromNose(printBoth(plan.middleMm, unit))}</Reading>
      </Section>
    </>
  );
}
