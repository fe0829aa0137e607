'use client';
/** What the light table draws of the process that is open, and lets be dragged; and which of its panels is open. */
import type { Path } from '@nuvet/core/plane';
import { useMemo } from 'react';
import { useMaking } from '@/table/making-store';
import type { TableProcess } from '@/table/table-process';
import { drawLines } from './draw-lines';
import { filesPanel } from './open-process';
import type { OpenProcess, ProcessPanel } from './process-view';
import { processViews } from './registry';
import { nestPanel } from './sheets/nest-panel';

/** Those of the process itself, and those that it shares with others. */
export const panelsOf = ({ entry, kind }: Pick<OpenProcess, 'entry' | 'kind'>): readonly ProcessPanel[] => [...(processViews[entry.process]?.panels ?? []), ...(kind.cutsSheets ? [nestPanel] : [])]; // biome-ignore format: one line

/** The panel that is open of a process; the first where none of its own was chosen. Files have one that is the same for all. */
export function panelOf(open: OpenProcess, panel: string | null): ProcessPanel | null {
  if (panel === filesPanel) return null;
  const panels = panelsOf(open);
  return panels.find(({ name }) => name === panel) ?? panels[0] ?? null;
}

/** What the light table draws of it, and lets be dragged. @param sheet that pieces lie on, where they are laid out */
export function useTableProcess(open: OpenProcess | null, sheet: Path | null): TableProcess | null {
  const panel = useMaking((s) => s.panel);
  const drawings = useMaking((s) => s.drawings);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what it draws with has come in, where `drawings` has counted up
  return useMemo(() => {
    const shown = open && panelOf(open, panel);
    if (!open || !shown) return null;
    const { drag } = shown;
    const lines = shown.draw || open.plan === null ? [] : open.kind.drawing(open.plan);
    const frame = sheet ? [{ path: sheet, kind: 'frame' as const, purpose: null }] : [];
    return {
      draw: (canvas, view, pieces) => {
        drawLines(canvas, view, frame);
        return shown.draw ? shown.draw(canvas, view, open, pieces) : drawLines(canvas, view, lines);
      },
      handles: drag && open.plan !== null ? drag.handles(open.plan, open.settings) : [],
      click: (handle) => {
        const change = open.plan === null ? null : drag?.click?.(handle, open.plan, open.settings);
        if (change && Object.keys(change).length > 0) open.set(change);
      },
      drop: (dragged) => {
        const change = drag && open.plan !== null ? drag.to(dragged, open.plan, open.settings) : {};
        if (Object.keys(change).length > 0) open.set(change);
      },
    };
  }, [open, panel, drawings, sheet]);
}
