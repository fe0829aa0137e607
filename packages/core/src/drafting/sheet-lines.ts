/** What a plan sheet is drawn of: lines of kinds, texts and dimensions, all in millimetres of the paper, y up. */
import type { Path, Point } from '../plane/index.ts';

/**
 * Widths and dashes, mm. ISO 128-2:2020 (from memory): continuous wide for outlines, dashed narrow for what is hidden (12 d and 3 d), long-dashed
 * dotted narrow for centre lines (24 d, 3 d, a dot, 3 d), continuous narrow for dimensions and hatching; wide is twice narrow.
 */
export const lineLooks = {
  visible: { widthMm: 0.5, dashMm: [] },
  hidden: { widthMm: 0.25, dashMm: [3, 0.75] },
  centre: { widthMm: 0.25, dashMm: [6, 0.75, 0.25, 0.75] },
  dimension: { widthMm: 0.25, dashMm: [] },
  hatch: { widthMm: 0.18, dashMm: [] },
  frame: { widthMm: 0.7, dashMm: [] },
} as const satisfies Record<string, { widthMm: number; dashMm: readonly number[] }>;
export type LineKind = keyof typeof lineLooks;

export interface SheetStroke {
  readonly path: Path;
  readonly kind: LineKind;
}

export interface SheetText {
  readonly text: string;
  readonly at: Point;
  readonly heightMm: number;
  readonly anchor: 'start' | 'middle' | 'end';
  /** Counter-clockwise, degrees. */
  readonly degrees: number;
}

/** A dimension as it is drawn: what it measures is the outlines' own. */
export interface DrawnDimension {
  /** By which it is moved and left out. */
  readonly name: string;
  readonly kind: 'horizontal' | 'vertical' | 'diameter' | 'radius' | 'angle';
  /** mm, or degrees. */
  readonly value: number;
  readonly text: SheetText;
  /** What it is between, on the paper: of a circle its middle and a place on it. */
  readonly from: Point;
  readonly to: Point;
  /** A place on the dimension's own line. */
  readonly line: Point;
  readonly strokes: readonly Path[];
  /** Filled heads. */
  readonly arrows: readonly Path[];
}

/** Heights of letters, mm. ISO 3098-1:2015 (from memory): 2.5, 3.5, 5 and 7. */
export const letters = { small: 2.5, plain: 3.5, title: 5 } as const;

/** A letter is no wider than so much of its height, as a rule (common practice, for upright letters without serifs). */
const letterShare = 0.64;
export const textWidth = (text: string, heightMm: number): number => letterShare * heightMm * text.length;
