'use client';
/**
 * What the light table shows that is not part of the job: view, tool in hand, marks half made, selection, a trace that
 * is still being tried out.
 */
import type { JobTrace } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import type { LiveWireTarget, Snap } from '@nuvet/core/raster';
import type { Symmetry } from '@nuvet/core/trace';
import type { MarkKind } from '@nuvet/core/trueup';
import { create } from 'zustand';
import type { DeviationSeen, RelationSeen } from '@/workers/tracer.worker';
import type { Size, View } from './view';

/** A mark to make, or something else that takes places on the picture. */
export type Tool =
  | Exclude<MarkKind, 'scale-card'>
  | 'datum'
  | 'crop-box'
  | 'crop-outline'
  | 'move-picture'
  | 'this-one'
  | 'along-edge'
  | 'limit-box'
  | 'limit-outline'
  | 'pick-colour';

/** A point of a mark: which mark, and which of its points. */
export interface MarkPoint {
  readonly markId: string;
  readonly index: number;
}

/** A mark that Nuvet found and a click accepts; pixels of the original picture. */
export interface Ghost {
  readonly id: string;
  readonly kind: 'level' | 'frame' | 'known-length' | 'plumb';
  readonly points: readonly Point[];
  readonly word: string;
}

/** Pixels of the raster. */
export interface LiveWirePath {
  readonly follow: LiveWireTarget;
  /** What has been held, from click to click. */
  readonly held: readonly (readonly Point[])[];
  /** From the last click to the pointer. */
  readonly next: readonly Point[];
  readonly start: Point | null;
}

export interface TableState {
  readonly view: View | null;
  readonly screen: Size;
  /** The picture that is worked on; null takes the first. */
  readonly activeId: string | null;
  readonly tool: Tool | null;
  /** Places taken so far for a mark in the making, pixels of the original picture. */
  readonly taken: readonly Point[];
  /** A mark's points while one is dragged, pixels of the original picture. */
  readonly dragged: { readonly markId: string; readonly points: readonly Point[] } | null;
  /** Where a picture is dragged to. */
  readonly draggedPlace: { readonly pictureId: string; readonly place: Point } | null;
  readonly selected: MarkPoint | null;
  /** Where the pointer is, screen pixels; null when it is elsewhere. */
  readonly pointer: Point | null;
  /** What the next click would take: a feature of the picture near the pointer, pixels of the raster. */
  readonly snap: Snap | null;
  readonly ghosts: readonly Ghost[];
  readonly hoveredPiece: string | null;
  readonly selectedPiece: string | null;
  /** How far the outlines lie from the picture's edge, while that is looked at. */
  readonly deviation: DeviationSeen | null;
  /** The axis or centre of a symmetry that is being looked at. */
  readonly symmetry: Symmetry | null;
  /** What segments nearly are to one another, while that is looked at; those refused by their key. */
  readonly relations: { readonly seen: readonly RelationSeen[]; readonly refused: readonly string[] } | null;
  /** The path along an edge that is being led. */
  readonly liveWire: LiveWirePath;
  /** Places that a tool of the trace took, for the stage to act on; pixels of the original picture. */
  readonly handedOver: { readonly tool: 'limit' | 'pick-colour'; readonly points: readonly Point[] } | null;
  readonly preview: JobTrace | null;
  /** Whether the docket is drawn aside, in a narrow window. */
  readonly isDocketAside: boolean;
  /** What Alt and Shift do, for fingers: ignore snapping; add to what is selected. */
  readonly isFree: boolean;
  readonly isAdding: boolean;
  /** The mark whose first statement is asked for next. */
  readonly asked: string | null;
  /** Opacity while its slider moves. */
  readonly opacity: number | null;
  /** Whether a picture under perspective is shown as it was photographed. */
  readonly asPhotographed: boolean;
  /** Ends a mark of as many points as one likes; null where nothing is being taken. */
  readonly endPlaces: (() => void) | null;
  /** A picture hidden or shown only while its key is held. */
  readonly peeked: string | null;
}

export const useTable = create<TableState>(() => ({
  view: null,
  screen: { width: 0, height: 0 },
  activeId: null,
  tool: null,
  taken: [],
  dragged: null,
  draggedPlace: null,
  selected: null,
  pointer: null,
  snap: null,
  ghosts: [],
  hoveredPiece: null,
  selectedPiece: null,
  deviation: null,
  symmetry: null,
  relations: null,
  liveWire: { follow: 'edge', held: [], next: [], start: null },
  handedOver: null,
  preview: null,
  isDocketAside: false,
  isFree: false,
  isAdding: false,
  asked: null,
  opacity: null,
  asPhotographed: false,
  endPlaces: null,
  peeked: null,
}));

export const setTable = useTable.setState;

/** A job that is opened begins with a table of its own; only the window's size and what is drawn aside stay. */
export const resetTable = (): void => {
  const { screen, isDocketAside } = useTable.getState();
  useTable.setState({ ...useTable.getInitialState(), screen, isDocketAside }, true);
};

/** Puts the tool in hand away or takes another; what was half made is let go. */
export const takeTool = (tool: Tool | null): void =>
  setTable(({ liveWire }) => ({
    tool,
    taken: [],
    dragged: null,
    draggedPlace: null,
    snap: null,
    liveWire: { ...emptyLiveWire, follow: liveWire.follow },
  }));

export const emptyLiveWire: Omit<LiveWirePath, 'follow'> = { held: [], next: [], start: null };

/** Whether a click is to ignore snapping, by key or by the switch for fingers. */
export const ignoresSnapping = (event: { readonly altKey: boolean }): boolean => event.altKey || useTable.getState().isFree;

/** Whether a click adds to what is selected. */
export const addsToSelection = (event: { readonly shiftKey: boolean }): boolean => event.shiftKey || useTable.getState().isAdding;
