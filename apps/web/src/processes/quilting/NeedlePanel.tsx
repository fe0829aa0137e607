'use client';
/** The needle: the stitches are sent to it, it sews, asks for a bobbin, and measures what it has sewn against the drawn line. */
import Alert from '@mui/material/Alert';
import { shift } from '@nuvet/core/plane';
import { needleRimMm } from '@nuvet/core/processes';
import type { QuiltingSettings, QuiltPlan } from '@nuvet/core/quilting';
import { useMemo } from 'react';
import { useJob } from '@/job/job-store';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { maker } from '@/workers/maker.client';
import { MachineRun } from '../machine/MachineRun';
import { useCutter } from '../machine/use-cutter';
import type { PanelProps } from '../process-view';

const say = words.quilting;

export function NeedlePanel({ open, pieces, jobId, hasCutter, isStopped }: PanelProps<QuiltingSettings, QuiltPlan>) {
  const { plan, settings, entry } = open;
  const title = useJob((s) => s.job.name);
  const toQuilt = useMemo(() => (plan?.line ? shift(-needleRimMm, -needleRimMm) : null), [plan]);
  const cutter = useCutter(jobId, entry.id, toQuilt);
  if (!hasCutter || !plan?.line)
    return (
      <Alert severity="info" variant="outlined">
        {hasCutter ? say.lineFirst : say.noNeedle}
      </Alert>
    );
  const { sewn } = cutter.seen ?? {};
  return (
    <>
      <MachineRun
        title={say.theNeedle}
        about={say.needleAbout}
        begin={say.sewIt}
        atWork={say.isSewing}
        onWhat={say.onTheCloth}
        seconds={(plan.line.stitches / settings.line.stitchesPerMin) * 60}
        canBegin={!isStopped}
        cutter={cutter}
        job={() => maker().standIn(entry.process, { title, pieces, settings, machine: entry.machine, stock: open.stock }, plan)}
      />
      {sewn && (
        <Section title={say.sewnMeasured}>
          <Reading name={say.stitches}>{sewn.stitches.toLocaleString('en')}</Reading>
          <Reading name={say.holesOff}>{say.millimetres(sewn.offMm.toFixed(3))}</Reading>
          <Reading name={say.lineMissed}>{say.millimetres(sewn.missedMm.toFixed(3))}</Reading>
        </Section>
      )}
    </>
  );
}
