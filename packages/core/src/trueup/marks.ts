/**
 * In: what a person marks on a picture, in its pixels (x right, y down, a pixel's centre at +0.5), with what is stated
 * of it in mm.
 */
import type { Point } from '../plane/point.ts';

/**
 * What each kind of mark is made of: how many points at least and at most, and what is stated of it.
 * `check` kinds measure and pull nothing.
 */
export const markShapes = {
  'known-length': { least: 2, most: 2, stated: ['length'] },
  level: { least: 2, most: 2, stated: [] },
  plumb: { least: 2, most: 2, stated: [] },
  /** One leg's end, the corner, the other leg's end. */
  'right-angle': { least: 3, most: 3, stated: [] },
  /** The corners of a rectangle in turn; the first side is its width. */
  frame: { least: 4, most: 4, stated: ['width', 'height'] },
  /** Points on a circle's rim. */
  circle: { least: 3, most: 24, stated: ['diameter'] },
  /** The drawn part: corners of its convex hull. */
  box: { least: 3, most: 200, stated: ['width', 'height'] },
  /** The two sides of a passage, where it is narrowest. */
  clearance: { least: 2, most: 2, stated: ['diameter', 'play'] },
  /** The corners of the scale card's markers, four a marker; the check line is 100 mm where the card was printed true. */
  'scale-card': { least: 4, most: 16, stated: ['check line'] },
  check: { least: 2, most: 2, stated: ['length'] },
  /** One leg's end, the corner, the other leg's end; degrees are stated. */
  'check-angle': { least: 3, most: 3, stated: ['angle'] },
  'check-radius': { least: 3, most: 3, stated: ['radius'] },
  'check-along': { least: 2, most: 100, stated: ['length'] },
} as const satisfies Record<string, { least: number; most: number; stated: readonly string[] }>;

export type MarkKind = keyof typeof markShapes;
export type PullingKind = Exclude<MarkKind, 'check' | 'check-angle' | 'check-radius' | 'check-along'>;

/** How a drawn part fills its stated box: whole inside, covering it, or each side stretched to its own. */
export type BoxWay = 'contained' | 'covering' | 'each-side';

/** A mark that pulls, with all that is stated of it. */
export interface TrueUpMark {
  readonly kind: PullingKind;
  readonly id: string;
  readonly points: readonly Point[];
  /** In mm, in the order of `markShapes`; a play may be 0, all else is positive. */
  readonly stated: readonly number[];
  readonly way?: BoxWay;
  /** Where a scale card's points truly lie, mm on the card, y up. */
  readonly places?: readonly Point[];
}

export interface PictureSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** The ladder, plainest first. */
export const shapeModels = ['uniform', 'stretch', 'affine', 'perspective'] as const;
export type ShapeModel = (typeof shapeModels)[number];

/** How the picture comes to lie on the sheet apart from its marks. */
export interface Placing {
  /** Quarter turns counter-clockwise, 0 to 3. */
  readonly quarterTurns: number;
  /** Mirrored left to right, after the quarter turns. */
  readonly flipped: boolean;
  /** The point of the picture, in pixels, that lies on the sheet's origin; null: the lower left corner of its box. */
  readonly datum: Point | null;
  /** Where on the sheet that point comes to lie, mm. */
  readonly place: Point;
}
export const plainPlacing: Placing = { quarterTurns: 0, flipped: false, datum: null, place: { x: 0, y: 0 } };

/** Marks placed by hand are this far off, pixels, one deviation along each axis: common practice. */
export const handNoisePx = 0.7;
