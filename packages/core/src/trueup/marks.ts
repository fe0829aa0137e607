/**
 * In: what a person marks on a picture, in its pixels (x right, y down, a pixel's centre at +0.5), with what is stated
 * of it in mm.
 */
import type { Point } from '../plane/point.ts';

/** How a drawn part fills its stated box: whole inside, covering it, or each side stretched to its own. */
export type BoxFit = 'contained' | 'covering' | 'each-side';

/** What a mark tells, of whatever kind. */
export interface MarkFacts {
  readonly points: readonly Point[];
  /** In mm, in the order of its kind's `stated`; a play may be 0, all else is positive. */
  readonly stated: readonly number[];
  readonly boxFit?: BoxFit;
  /** Where a scale card's points truly lie, mm on the card, y up. */
  readonly places?: readonly Point[];
}

export interface PictureSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** The models, plainest first. */
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
