'use client';
/**
 * The mill: the programs are sent to it one after another, tools are put in as it asks for them, and it measures what it has milled.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import type { MillingSettings, MillPlan } from '@nuvet/core/milling';
import { shift } from '@nuvet/core/plane';
import { useMemo, useState } from 'react';
import { useJob } from '@/job/job-store';
import type { MillMeasured } from '@/shared/machine-seen';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { maker } from '@/workers/maker.client';
import { MachineRun } from '../machine/MachineRun';
import { useCutter } from '../machine/use-cutter';
import type { PanelProps } from '../process-view';

const say = words.cnc;

export function MillPanel({ open, pieces, jobId, hasCutter, isStopped }: PanelProps<MillingSettings, MillPlan>) {
  const { plan, settings, entry, estimate, notes } = open;
  const title = useJob((s) => s.job.name);
  const toSheet = useMemo(() => plan && shift(plan.stock.minX, plan.stock.minY), [plan]);
  const cutter = useCutter(jobId, entry.id, toSheet);
  const [feed, setFeed] = useState(100);
  if (!hasCutter)
    return (
      <Alert severity="info" variant="outlined">
        {say.noMill}
      </Alert>
    );
  return (
    <>
      <MachineRun
        title={say.theMill}
        about={say.millAbout}
        begin={say.millIt}
        onWhat={say.onTheStock}
        seconds={estimate?.seconds ?? null}
        canBegin={!isStopped && plan !== null && plan.runs.length > 0 && !notes.some(({ isFailure }) => isFailure)}
        cutter={cutter}
        onBegun={() => feed !== 100 && void cutter.feed(feed)}
        job={() => maker().standIn(entry.process, { title, pieces, settings, machine: entry.machine, stock: open.stock }, plan)}
      >
        <Box sx={{ mt: 1 }}>
          <Typography variant="caption" color="textSecondary" id="feed-override">
            {say.feedOverride(feed)}
          </Typography>
          <Slider
            aria-labelledby="feed-override"
            size="small"
            min={10}
            max={200}
            step={10}
            value={feed}
            onChange={(_, value) => setFeed(value as number)}
            onChangeCommitted={(_, value) => cutter.seen && !cutter.seen.isWhole && void cutter.feed(value as number)}
          />
        </Box>
      </MachineRun>
      {cutter.seen?.measured && <Measured {...cutter.seen.measured} />}
    </>
  );
}

function Measured({ cellMm, gougedMm2, deepestMm, floors, edges }: MillMeasured) {
  const cut = edges.filter(({ cutShare }) => cutShare > 0);
  const farthest = cut.reduce((most, { offMm }) => (Math.abs(offMm) > Math.abs(most) ? offMm : most), 0);
  return (
    <Section title={say.milledMeasured}>
      <Reading name={say.gouges} tone={gougedMm2 > 0 ? 'error' : undefined}>
        {gougedMm2 > 0 ? say.gougedBy(gougedMm2.toFixed(2), deepestMm.toFixed(2)) : say.none}
      </Reading>
      {floors.length > 0 && (
        <Reading name={say.floorOff}>{say.millimetres(Math.max(...floors.map(({ worstMm }) => worstMm)).toFixed(3))}</Reading>
      )}
      {cut.length > 0 && <Reading name={say.edgesOff}>{say.millimetres(farthest.toFixed(3))}</Reading>}
      <Typography variant="caption" color="textSecondary">
        {say.measuredOn(cellMm.toFixed(2))}
      </Typography>
    </Section>
  );
}
