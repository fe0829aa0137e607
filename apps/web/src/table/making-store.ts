'use client';
/**
 * What proving and making ready show and do not keep in the job: faults found, the cut that is planned, pages, what a cutter has
 * burnt, and what is taken or dragged on the table.
 */
import type { CutPlan, FileKind, Tiling } from '@nuvet/core/make';
import type { Point } from '@nuvet/core/plane';
import type { Fault } from '@nuvet/core/proof';
import { create } from 'zustand';

/** The trays of making ready. */
export const makingTrays = ['cut', 'files', 'print', 'fold', 'cutter'] as const;
export type MakingTray = (typeof makingTrays)[number];

interface MakingState {
  /** Null while they are first looked for. */
  readonly faults: readonly Fault[] | null;
  /** Whether the outlines as they are now are still being looked over: then the faults are those of before. */
  readonly isProving: boolean;
  readonly tray: MakingTray;
  readonly plan: CutPlan | null;
  /** The file that is downloaded as soon as it can be made. */
  readonly wanted: FileKind | null;
  /** 0 to 1 while a cut is planned. */
  readonly planning: number | null;
  readonly tiling: Tiling | null;
  /** The finding that is looked at. */
  readonly places: readonly Point[];
  /** What two clicks on the table are taken for. */
  readonly asking: 'size' | 'bridge' | null;
  readonly taken: readonly Point[];
  readonly aim: Point | null;
  /** A bridge's end, or the pages, while they are dragged, on the sheet. */
  readonly draggedHold: { readonly id: string; readonly end: 'from' | 'to'; readonly at: Point } | null;
  readonly draggedPages: Point | null;
  /** Stretches that the cutter has burnt, on the sheet, and where its head is. */
  readonly burnt: {
    readonly stretches: readonly (readonly Point[])[];
    readonly head: Point;
    readonly isOver: boolean;
    readonly isDone: boolean;
  } | null;
}

export const useMaking = create<MakingState>(() => ({
  faults: null,
  isProving: true,
  tray: 'cut',
  plan: null,
  wanted: null,
  planning: null,
  tiling: null,
  places: [],
  asking: null,
  taken: [],
  aim: null,
  draggedHold: null,
  draggedPages: null,
  burnt: null,
}));

export const setMaking = useMaking.setState;

/** What is taken for is let go of. */
export const letMakingGo = (): void => setMaking({ asking: null, taken: [], aim: null, draggedHold: null, draggedPages: null, places: [] });
