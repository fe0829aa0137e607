'use client';
/** The hot wire: the program is sent to it, it cuts the panel, and measures what it has left. */
import Alert from '@mui/material/Alert';
import type { WingPlan, WingSettings } from '@nuvet/core/foam';
import { identity } from '@nuvet/core/plane';
import { useJob } from '@/job/job-store';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { maker } from '@/workers/maker.client';
import { MachineRun } from '../machine/MachineRun';
import { useCutter } from '../machine/use-cutter';
import type { PanelProps } from '../process-view';

const say = words.wing;

export function WirePanel({ open, pieces, jobId, hasCutter, isStopped }: PanelProps<WingSettings, WingPlan>) {
  const { plan, settings, entry } = open;
  const title = useJob((s) => s.job.name);
  const cutter = useCutter(jobId, entry.id, plan ? identity : null);
  if (!hasCutter || !plan)
    return (
      <Alert severity="info" variant="outlined">
        {hasCutter ? say.planFirst : say.noWire}
      </Alert>
    );
  const [wired] = cutter.seen?.wired ?? [];
  return (
    <>
      <MachineRun
        title={say.theWire}
        about={say.wireAbout}
        begin={say.cutIt}
        atWork={say.isCutting}
        onWhat={say.onTheBlock}
        seconds={60 * plan.cut.minutes}
        canBegin={!isStopped}
        cutter={cutter}
        job={() => maker().standIn(entry.process, { title, pieces, settings, machine: entry.machine, stock: open.stock }, plan)}
      />
      {wired && (
        <Section title={say.measured}>
          <Reading name={say.rootOff}>{say.millimetres(wired.leftOffMm.toFixed(3))}</Reading>
          <Reading name={say.middleOff}>{say.millimetres(wired.middleOffMm.toFixed(3))}</Reading>
          <Reading name={say.tipOff}>{say.millimetres(wired.rightOffMm.toFixed(3))}</Reading>
        </Section>
      )}
    </>
  );
}
