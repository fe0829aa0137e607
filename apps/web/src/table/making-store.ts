'use client';
/**
 * What proving and making ready show and do not keep in the job: faults found, the process that is open and its plan, what a cutter has
 * burnt, and what is taken or dragged on the table.
 */
import type { Point } from '@nuvet/core/plane';
import type { Fault } from '@nuvet/core/proof';
import { create } from 'zustand';
import type { Planned } from '@/workers/maker.worker';
import type { Dragged } from './table-process';

interface MakingState {
  /** Null while they are first looked for. */
  readonly faults: readonly Fault[] | null;
  /** Whether the outlines as they are now are still being looked over: then the faults are those of before. */
  readonly isProving: boolean;
  /** The process of the job that is open, by its id, and the panel of it that is; null is the first. */
  readonly processId: string | null;
  readonly panel: string | null;
  /** Of pieces laid out on sheets the sheet in hand, from 0. */
  readonly sheet: number;
  /** The plan of the process that is open, and whose it is. */
  readonly planned: (Planned & { readonly processId: string }) | null;
  /** Why there is none. */
  readonly planFault: string | null;
  /** 0 to 1 while it is planned. */
  readonly planning: number | null;
  /** The file that is downloaded as soon as it can be made, by its name in the process. */
  readonly wanted: string | null;
  /** The finding that is looked at. */
  readonly places: readonly Point[];
  /** What two clicks on the table are taken for. */
  readonly asking: 'size' | 'bridge' | null;
  readonly taken: readonly Point[];
  readonly aim: Point | null;
  /** A bridge's end while it is dragged, on the sheet. */
  readonly draggedBridge: { readonly id: string; readonly end: 'from' | 'to'; readonly at: Point } | null;
  /** What the process lets be dragged, and where it has come to on the sheet. */
  readonly dragged: Dragged | null;
  /** Stretches that the cutter has burnt, on the sheet, and where its head is. */
  readonly burnt: {
    readonly stretches: readonly (readonly Point[])[];
    readonly head: Point;
    readonly isOver: boolean;
    readonly isDone: boolean;
  } | null;
  /** Counts up as what the process draws with comes in from elsewhere: a picture that was loaded, say. */
  readonly drawings: number;
}

export const useMaking = create<MakingState>(() => ({
  faults: null,
  isProving: true,
  processId: null,
  panel: null,
  sheet: 0,
  planned: null,
  planFault: null,
  planning: null,
  wanted: null,
  places: [],
  asking: null,
  taken: [],
  aim: null,
  draggedBridge: null,
  dragged: null,
  burnt: null,
  drawings: 0,
}));

export const setMaking = useMaking.setState;
export const drawAnew = (): void => useMaking.setState(({ drawings }) => ({ drawings: drawings + 1 }));
export const resetMaking = (): void => useMaking.setState(useMaking.getInitialState(), true);

/** What is taken for is let go of. */
export const letMakingGo = (): void => setMaking({ asking: null, taken: [], aim: null, draggedBridge: null, dragged: null, places: [] });
