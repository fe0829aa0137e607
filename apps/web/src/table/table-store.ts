'use client';
/**
 * What the light table shows that is not part of the job: view, tool in hand, marks half made, selection, a trace that
 * is still being tried out.
 */
import type { JobTrace } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import { create } from 'zustand';
import type { Size, View } from './view';

export type Tool = 'known-length' | 'level' | 'plumb' | 'check';

/** A mark's end: which mark, and which of its two ends. */
export interface MarkEnd {
  readonly markId: string;
  readonly end: 'a' | 'b';
}

interface TableState {
  readonly view: View | null;
  readonly screen: Size;
  readonly tool: Tool | null;
  /** The first end of a mark in the making, picture pixels. */
  readonly firstEnd: Point | null;
  /** A mark's ends while they are dragged, picture pixels. */
  readonly dragged: { readonly markId: string; readonly a: Point; readonly b: Point } | null;
  readonly selectedEnd: MarkEnd | null;
  /** Where the pointer is, screen pixels; null when it is elsewhere. */
  readonly pointer: Point | null;
  readonly hoveredPiece: string | null;
  readonly selectedPiece: string | null;
  readonly preview: JobTrace | null;
  /** The mark whose length is asked for next. */
  readonly asked: string | null;
  /** Opacity while its slider moves. */
  readonly opacity: number | null;
}

export const useTable = create<TableState>(() => ({
  view: null,
  screen: { width: 0, height: 0 },
  tool: null,
  firstEnd: null,
  dragged: null,
  selectedEnd: null,
  pointer: null,
  hoveredPiece: null,
  selectedPiece: null,
  preview: null,
  asked: null,
  opacity: null,
}));

export const setTable = useTable.setState;

/** Puts the tool in hand away or takes another; what was half made is let go. */
export const takeTool = (tool: Tool | null): void => setTable({ tool, firstEnd: null, dragged: null });
