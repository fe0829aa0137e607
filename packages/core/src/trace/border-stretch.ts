/**
 * In: places on or near the borders of ink. Out: the border that runs there, and the stretch of it between two of them.
 */
import type { Point } from '../plane/point.ts';

/** The contour that some places lie nearest to on the whole; null where it is not near them. */
export function nearestContour(places: readonly Point[], contours: readonly Float64Array[], reach: number): Float64Array | null {
  const few = places.filter((_, k) => k % Math.max(1, Math.floor(places.length / 24)) === 0);
  let best: { contour: Float64Array; off: number } | null = null;
  for (const contour of contours) {
    const offs = few.map((p) => Math.sqrt(nearestIndex(contour, p).square));
    const off = offs.reduce((sum, d) => sum + d, 0) / offs.length;
    // A corner may have been cut, or run past; on the whole it must lie near.
    const isNear = off <= reach && Math.max(...offs) <= 3 * reach;
    if (isNear && (!best || off < best.off)) best = { contour, off };
  }
  return best?.contour ?? null;
}

function nearestIndex(contour: Float64Array, p: Point): { index: number; square: number } {
  let [index, square] = [0, Infinity];
  for (let k = 0; 2 * k < contour.length; k++) {
    const d = ((contour[2 * k] as number) - p.x) ** 2 + ((contour[2 * k + 1] as number) - p.y) ** 2;
    if (d < square) [index, square] = [k, d];
  }
  return { index, square };
}

/** The stretch of a closed contour from beside one place to beside another that passes nearest to a third. */
export function stretchBetween(contour: Float64Array, a: Point, b: Point, through: Point): Float64Array | null {
  const n = contour.length / 2;
  const [i, j] = [nearestIndex(contour, a).index, nearestIndex(contour, b).index];
  if (i === j) return null;
  const walk = (sign: 1 | -1): Float64Array => {
    const count = (sign > 0 ? (j - i + n) % n : (i - j + n) % n) + 1;
    const points = new Float64Array(2 * count);
    for (let k = 0; k < count; k++) {
      const m = (((i + sign * k) % n) + n) % n;
      points[2 * k] = contour[2 * m] as number;
      points[2 * k + 1] = contour[2 * m + 1] as number;
    }
    return points;
  };
  const [on, back] = [walk(1), walk(-1)];
  return nearestIndex(on, through).square <= nearestIndex(back, through).square ? on : back;
}
