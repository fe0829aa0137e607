'use client';
/**
 * The whole rest in one go: trace, prove, and the file that was downloaded last. It stops at the first thing that a person should look
 * at, and says which.
 */
import { fitOf, type Job, type Picture, traceOf } from '@nuvet/core/job';
import { processesOf } from '@nuvet/core/processes';
import { findingsOf } from '@nuvet/core/proof';
import { useEffect } from 'react';
import { create } from 'zustand';
import { filesPanel, useProcesses } from '@/processes/open-process';
import { setMaking, useMaking } from '@/table/making-store';
import { useTable } from '@/table/table-store';
import { words } from '@/words';
import { told } from '@/words/told';
import { useJob } from '../job/job-store';
import { lastFile, useLastFile } from './make-ready/last-file';
import type { StageName } from './stage';

type Phase = 'idle' | 'trace' | 'prove' | 'file';

interface Finishing {
  readonly phase: Phase;
  /** Why it stopped before the end. */
  readonly doubt: string | null;
}

export const useFinishing = create<Finishing>(() => ({ phase: 'idle', doubt: null }));

export const finish = (): void => useFinishing.setState({ phase: 'trace', doubt: null });
export const stopFinishing = (doubt: string | null = null): void => useFinishing.setState({ phase: 'idle', doubt });

/** What the main button offers: its words name the file that comes out. */
export function useFinishWord(from: 'true-up' | 'trace'): string {
  const [first] = useProcesses();
  const name = useLastFile(first?.entry ?? null);
  return words.job.finish(from, first?.kind.files[name]?.word ?? '');
}

/** That the size rests on a resolution that can be trusted is no reason to stop. */
const noDoubt = new Set<string>(['size-from-file']);

const isTraced = (job: Job, picture: Picture): boolean => {
  const trace = traceOf(job, picture.id);
  const { a, b, e } = fitOf(picture).toSheet;
  return trace !== null && trace.toSheet.a === a && trace.toSheet.b === b && trace.toSheet.e === e;
};

/** Opens the files of the job's first process, and has the one that was downloaded last made. */
function askForFile(job: Job): void {
  const [first] = processesOf(job);
  setMaking({ processId: null, panel: filesPanel, wanted: first ? lastFile(first.entry) : null });
}

/** Leads from phase to phase; stands once in the page. */
export function Finisher({ picture, stage, onStage }: { picture: Picture | null; stage: StageName; onStage: (stage: StageName) => void }) {
  const phase = useFinishing((s) => s.phase);
  const job = useJob((s) => s.job);
  const isTrying = useTable((s) => s.preview !== null);
  const { faults, isProving, planned } = {
    faults: useMaking((s) => s.faults),
    isProving: useMaking((s) => s.isProving),
    planned: useMaking((s) => s.planned),
  };
  useEffect(() => {
    if (phase === 'idle') return;
    if (phase === 'trace') {
      if (stage !== 'trace' && stage !== 'prove') onStage('trace');
      else if (!picture || (isTraced(job, picture) && !isTrying)) {
        onStage('prove');
        useFinishing.setState({ phase: 'prove' });
      }
      return;
    }
    if (phase === 'prove') {
      if (isProving || faults === null) return;
      const [doubt] = findingsOf(job, faults).filter(({ code }) => !noDoubt.has(code));
      if (doubt) return stopFinishing(told(doubt.said, job.unit));
      askForFile(job);
      onStage('make-ready');
      useFinishing.setState({ phase: 'file' });
      return;
    }
    if (planned) stopFinishing();
  }, [phase, stage, picture, job, isTrying, faults, isProving, planned, onStage]);
  return null;
}
