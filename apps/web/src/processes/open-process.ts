'use client';
/**
 * The process of the job that is open in Make ready, with its plan as far as it is worked out.
 */
import { type JobProcess, processesOf, settingsOf } from '@nuvet/core/processes';
import { useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useJob } from '@/job/job-store';
import { setMaking, useMaking } from '@/table/making-store';
import type { OpenProcess } from './process-view';

/** The processes of the job that this page knows. */
export function useProcesses(): readonly JobProcess[] {
  const making = useJob((s) => s.job.making);
  return useMemo(() => processesOf({ making }), [making]);
}

/** The open one; the first where none was chosen. */
export function useOpenProcess(): OpenProcess | null {
  const processes = useProcesses();
  const stock = useJob((s) => s.job.making.stock);
  const run = useJob((s) => s.run);
  const { processId, planned } = useMaking(useShallow(({ processId, planned }) => ({ processId, planned })));
  const one = processes.find(({ entry }) => entry.id === processId) ?? processes[0];
  return useMemo(() => {
    if (!one) return null;
    const { entry, kind } = one;
    const own = planned?.processId === entry.id ? planned : null;
    return {
      entry,
      kind,
      settings: settingsOf(one),
      stock,
      plan: own?.plan ?? null,
      notes: own?.notes ?? [],
      estimate: own?.estimate ?? null,
      set: (change) => run({ do: 'set-process', id: entry.id, process: entry.process, change: change as typeof entry.settings }),
    };
  }, [one, planned, stock, run]);
}

export const filesPanel = 'files';

export const openProcess = (processId: string, panel: string | null = null): void => setMaking({ processId, panel, burnt: null });
