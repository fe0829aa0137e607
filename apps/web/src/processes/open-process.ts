'use client';
/**
 * The process of the job that is open in Make ready, with its plan as far as it is worked out.
 */
import { type JobProcess, processesOf, settingsOf } from '@nuvet/core/processes';
import { useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useJob } from '@/job/job-store';
import { setMaking, useMaking } from '@/table/making-store';
import type { TableProcess } from '@/table/table-process';
import { drawLines } from './draw-lines';
import type { OpenProcess, ProcessPanel } from './process-view';
import { processViews } from './registry';

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

/** The panel that is open of a process; the first where none of its own was chosen. Files have one that is the same for all. */
export function panelOf(open: OpenProcess, panel: string | null): ProcessPanel | null {
  if (panel === filesPanel) return null;
  const { panels } = processViews[open.entry.process] ?? { panels: [] };
  return panels.find(({ name }) => name === panel) ?? panels[0] ?? null;
}

export const filesPanel = 'files';

/** What the light table draws of it, and lets be dragged. */
export function useTableProcess(open: OpenProcess | null): TableProcess | null {
  const panel = useMaking((s) => s.panel);
  return useMemo(() => {
    const shown = open && panelOf(open, panel);
    if (!open || !shown) return null;
    const { drag } = shown;
    const lines = shown.draw || open.plan === null ? [] : open.kind.drawing(open.plan);
    return {
      draw: (canvas, view, pieces) => (shown.draw ? shown.draw(canvas, view, open, pieces) : drawLines(canvas, view, lines)),
      handles: drag && open.plan !== null ? drag.handles(open.plan, open.settings) : [],
      click: (handle) => {
        const change = open.plan === null ? null : drag?.click?.(handle, open.plan, open.settings);
        if (change) open.set(change);
      },
      drop: (dragged) => drag && open.plan !== null && open.set(drag.to(dragged, open.plan, open.settings)),
    };
  }, [open, panel]);
}

export const openProcess = (processId: string, panel: string | null = null): void => setMaking({ processId, panel, burnt: null });
