'use client';
/** The job's layout on sheets as it stands: whether it still holds, and the pieces of the sheet in hand. */
import { isLaid, type Piece, piecesOnSheet, type SheetLayout } from '@nuvet/core/job';
import { type Path, rectanglePath } from '@nuvet/core/plane';
import { useMemo } from 'react';
import { useJob } from '@/job/job-store';
import { useMaking } from '@/table/making-store';
import type { OpenProcess } from '../process-view';

/** The layout where the pieces still are as they were laid out; null where they are cut as drawn. */
export function useLayout(open: Pick<OpenProcess, 'kind'> | null, drawn: readonly Piece[]): SheetLayout | null {
  const layout = useJob((s) => s.job.making.layout);
  return useMemo(() => (open?.kind.cutsSheets && isLaid(drawn, layout) ? layout : null), [open?.kind.cutsSheets, drawn, layout]);
}

export const sheetsIn = (layout: SheetLayout): number => layout.laid?.sheets.length ?? 0;

/** The outline of the sheet in hand; null where nothing is laid out. */
export function useSheetOutline(layout: SheetLayout | null): Path | null {
  const sheet = useMaking((s) => s.sheet);
  return useMemo(() => {
    const kind = layout?.laid?.sheets[Math.min(sheet, sheetsIn(layout) - 1)];
    const one = kind === undefined ? undefined : layout?.sheets[kind];
    return one ? (one.leftover?.outline ?? rectanglePath({ minX: 0, minY: 0, maxX: one.widthMm, maxY: one.heightMm })) : null;
  }, [layout, sheet]);
}

/** The pieces of the sheet in hand; those that were handed over where nothing is laid out. */
export function useSheetInHand(layout: SheetLayout | null, drawn: readonly Piece[]): readonly Piece[] {
  const sheet = useMaking((s) => s.sheet);
  return useMemo(() => (layout ? piecesOnSheet(drawn, layout, Math.min(sheet, sheetsIn(layout) - 1)) : drawn), [layout, drawn, sheet]);
}
