/**
 * In: ways along an edge or line, held one after another. Out: one fitted path along them, like any other traced one.
 * Rests on: the live-wire's ways to a part of a pixel (raster/placed-way.ts), the outline fit.
 */
import type { Path } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import type { GreyPicture } from '../raster/grey.ts';
import type { Followed } from '../raster/live-wire.ts';
import { placedWay } from '../raster/placed-way.ts';
import { openPathAlong, outlineAlong } from './outline.ts';

/** What a photograph's edges are taken to be softened by, px. */
const softnessPx = 1;
const leastRoughnessPx = 0.05;

/**
 * @param way from pixel to pixel, px
 * @param closed whether it ends where it began
 */
export function fittedWay(picture: GreyPicture, way: readonly Point[], follow: Followed, closed: boolean, tolerancePx: number): Path {
  const placed = placedWay(picture, way, follow);
  return closed
    ? outlineAlong(placed, softnessPx, leastRoughnessPx, tolerancePx)
    : openPathAlong(placed, [null, null], softnessPx, leastRoughnessPx, tolerancePx);
}
