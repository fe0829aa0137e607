'use client';
/**
 * The cutter: the program is sent to it, the sheet burns on the table, and the cut piece is measured against its outline.
 */
import Alert from '@mui/material/Alert';
import Typography from '@mui/material/Typography';
import type { CutMeasured } from '@nuvet/core/files';
import { type CutPlan, toMachine } from '@nuvet/core/make';
import { inverse } from '@nuvet/core/plane';
import type { LaserSettings } from '@nuvet/core/processes';
import { useEffect, useMemo, useState } from 'react';
import { useJob } from '@/job/job-store';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { maker } from '@/workers/maker.client';
import { MachineRun } from '../machine/MachineRun';
import { useCutter } from '../machine/use-cutter';
import type { PanelProps } from '../process-view';

export function CutterPanel({ open, pieces, jobId, hasCutter, isStopped }: PanelProps<LaserSettings, CutPlan>) {
  const { plan, settings, entry, estimate } = open;
  const title = useJob((s) => s.job.name);
  const box = plan?.box ?? null;
  const toSheet = useMemo(() => box && inverse(toMachine(box, entry.machine)), [box, entry.machine]);
  const cutter = useCutter(jobId, entry.id, toSheet);
  const { seen, stretches } = cutter;
  const [measured, setMeasured] = useState<CutMeasured | null>(null);
  const isCut = seen?.status === 'done' && seen.isWhole;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once the program has ended, what was burnt is complete
  useEffect(() => {
    setMeasured(null);
    if (!isCut || !plan) return;
    let isWanted = true;
    void maker()
      .measured(pieces, plan, stretches, settings.kerfMm)
      .then((found) => isWanted && setMeasured(found));
    return () => {
      isWanted = false;
    };
  }, [isCut, plan]);
  if (!hasCutter)
    return (
      <Alert severity="info" variant="outlined">
        {words.makeReady.noCutterIsConnectedToThis}
      </Alert>
    );
  return (
    <>
      <MachineRun
        title={words.makeReady.theCutter}
        about={words.makeReady.aStandInThatCutsA}
        begin={words.makeReady.cutIt}
        onWhat={words.makeReady.onTheSheet}
        seconds={plan ? (estimate?.seconds ?? 0) : null}
        canBegin={!isStopped && plan !== null && plan.runs.length > 0}
        cutter={cutter}
        job={() => maker().standIn(entry.process, { title, pieces, settings, machine: entry.machine, stock: open.stock }, plan)}
      />
      {measured && (
        <Section title={words.makeReady.theCutPieceMeasured}>
          <Reading name={words.makeReady.largestDeviation}>{words.makeReady.deviation(measured.largestMm.toFixed(3))}</Reading>
          <Typography variant="caption" color="textSecondary">
            {words.makeReady.measuredFromPath((100 * measured.share).toFixed(0))}
          </Typography>
        </Section>
      )}
    </>
  );
}
