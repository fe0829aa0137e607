/**
 * In: ways along an edge or line, held one after another. Out: one fitted path along them, like any other traced one.
 * Rests on: the live-wire's ways to a part of a pixel (raster/placed-way.ts), the outline fit.
 */
import type { Path } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import type { GreyPicture } from '../raster/grey.ts';
import type { LiveWireTarget } from '../raster/live-wire.ts';
import { subpixelEdge } from '../raster/subpixel-edge.ts';
import { openPathAlong, outlineAlong } from './outline.ts';

/** What a photograph's edges are taken to be softened by, px. */
const softnessPx = 1;
const minNoisePx = 0.05;

/**
 * @param path from pixel to pixel, px
 * @param closed whether it ends where it began
 */
export function pathAlongEdge(
  picture: GreyPicture,
  path: readonly Point[],
  follow: LiveWireTarget,
  closed: boolean,
  tolerancePx: number,
): Path {
  const placed = subpixelEdge(picture, path, follow);
  return closed
    ? outlineAlong(placed, softnessPx, minNoisePx, tolerancePx)
    : openPathAlong(placed, [null, null], softnessPx, minNoisePx, tolerancePx);
}
