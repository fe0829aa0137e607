'use client';
/**
 * What drawing and correcting by hand need on the light table and do not keep in the job: the tray and tool in hand, what is
 * chosen, places half taken, and how the next thing is drawn.
 */
import type { DrawnSource, Purpose } from '@nuvet/core/job';
import type { Motif, MotifFit } from '@nuvet/core/motif';
import type { Path, Point } from '@nuvet/core/plane';
import type { SheetSnap } from '@nuvet/core/shape';
import { create } from 'zustand';

export const drawTools = ['outline', 'line', 'rectangle', 'circle', 'ellipse', 'arc', 'polygon', 'slot'] as const;
export type DrawTool = (typeof drawTools)[number];
export const correctTools = ['points', 'trim', 'join', 'corners', 'offset', 'combine', 'arrange', 'follow'] as const;
export type CorrectTool = (typeof correctTools)[number];
export type HandTool = DrawTool | CorrectTool;
export type Tray = 'find' | 'draw' | 'correct';

export const isDrawTool = (tool: HandTool | null): tool is DrawTool => (drawTools as readonly (HandTool | null)[]).includes(tool);

/** Points of one path of what is being corrected: 0 the outer one, then its holes. */
export interface ChosenPoints {
  readonly path: number;
  readonly indices: readonly number[];
}

export interface ChosenSegment {
  readonly path: number;
  readonly index: number;
}

interface HandState {
  readonly tray: Tray;
  readonly tool: HandTool | null;
  /** Ids of pieces; the last one is the one in question. */
  readonly chosen: readonly string[];
  /** The drawn outline that goes on, and at which end. */
  readonly goingOn: { readonly id: string; readonly end: 'start' | 'end' } | null;
  /** Places taken for a figure or an axis, mm on the sheet. */
  readonly places: readonly Point[];
  /** The place that a held click set for an arc's third point. */
  readonly through: Point | null;
  /** What the next click takes, mm on the sheet. */
  readonly aim: Point | null;
  readonly snap: SheetSnap | null;
  readonly points: ChosenPoints | null;
  readonly segment: ChosenSegment | null;
  /** The shape of what is dragged, as long as it is. */
  readonly shaped: { readonly pieceId: string; readonly source: DrawnSource; readonly paths: readonly Path[] } | null;
  /** What would be made by the panel that is open, shown before it is. */
  readonly sketch: readonly Path[];
  /** A box drawn over points to choose them, mm on the sheet. */
  readonly frame: { readonly a: Point; readonly b: Point } | null;
  /** What two or three clicks on the table are taken for. */
  readonly asking: 'axis' | 'centre' | 'cut' | 'datum' | 'motif' | null;
  /** The motif to place next, and what its two places mean. */
  readonly motif: Motif | null;
  readonly motifFit: MotifFit['kind'];
  /** What the next thing is drawn for. */
  readonly purpose: Purpose;
  readonly pointKind: 'corner' | 'curve';
  /** Directions in steps of so many degrees; null where they are free. */
  readonly lockDegrees: number | null;
  readonly gridMm: number | null;
  readonly typedLength: number | null;
  readonly typedAngle: number | null;
  readonly lineBy: 'ends' | 'across' | 'midway';
  readonly circleBy: 'centre' | 'two' | 'three' | 'touching';
  readonly arcBy: 'three' | 'leaving';
  readonly sides: number;
  readonly cornerRadius: number;
  readonly slot: { readonly width: number | null; readonly play: number; readonly ends: 'round' | 'flat' };
  readonly radius: number;
  readonly datum: Point | null;
  readonly shows: 'both' | 'outlines' | 'picture' | 'split';
  readonly hasComb: boolean;
}

export const useHand = create<HandState>(() => ({
  tray: 'find',
  tool: null,
  chosen: [],
  goingOn: null,
  places: [],
  through: null,
  aim: null,
  snap: null,
  points: null,
  segment: null,
  shaped: null,
  sketch: [],
  frame: null,
  asking: null,
  motif: null,
  motifFit: 'between',
  purpose: 'cut',
  pointKind: 'corner',
  lockDegrees: null,
  gridMm: null,
  typedLength: null,
  typedAngle: null,
  lineBy: 'ends',
  circleBy: 'centre',
  arcBy: 'three',
  sides: 6,
  cornerRadius: 0,
  slot: { width: null, play: 0.5, ends: 'flat' },
  radius: 10,
  datum: null,
  shows: 'both',
  hasComb: false,
}));

export const setHand = useHand.setState;
export const resetHand = (): void => useHand.setState(useHand.getInitialState(), true);

const release = {
  frame: null,
  goingOn: null,
  places: [],
  through: null,
  points: null,
  segment: null,
  shaped: null,
  asking: null,
  snap: null,
} as const;

/** Takes a tool, or puts it away; what was half taken is let go, what was drawn stays. */
export const takeHandTool = (tool: HandTool | null): void => setHand({ tool, ...release });

export const takeTray = (tray: Tray): void =>
  setHand({ tray, tool: tray === 'draw' ? 'outline' : tray === 'correct' ? 'points' : null, ...release });

/** One step back: places let go, the outline left as it stands, the tool put away, the choice let go. */
export function stepBack(): boolean {
  const { places, goingOn, through, asking, points, segment, tool, chosen } = useHand.getState();
  if (through) setHand({ through: null });
  else if (places.length > 0 || asking) setHand({ places: [], asking: null });
  else if (goingOn) setHand({ goingOn: null });
  else if (points || segment) setHand({ points: null, segment: null });
  else if (chosen.length > 0) setHand({ chosen: [] });
  else if (tool) setHand({ tool: null });
  else return false;
  return true;
}
