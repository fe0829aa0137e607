/** A picture's pixels, and what a warp of them is to become. */
import type { Projection } from '../plane/projection.ts';

/** A picture in grey, and in colour where it has any: red, green and blue in turn. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly grey: Uint8Array;
  readonly colour: Uint8Array | null;
}

export interface WarpPlan {
  readonly widthPx: number;
  readonly heightPx: number;
  /** From the wanted picture's pixels to the original's; a pixel's centre at +0.5. */
  readonly toOriginal: Projection;
}

/** What lies outside the picture: paper. */
export const outside = 255;
