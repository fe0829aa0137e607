/**
 * In: a path drawn by hand near the edge of something in a picture, and the ink's borders there. Out: the path, or a run of
 * it, led along the nearest border instead, fitted as any trace is.
 */
import { type Path, polygonOf } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { pointOf, withPointsMoved } from '../shape/points.ts';
import { openPathAlong, outlineAlong } from './outline.ts';

/** What the kind of picture alone brings to a border's roughness, px. */
const leastRoughnessPx = 0.03;

export interface BorderSettings {
  /** Deviation of the Gaussian that softens the picture's edges, px. */
  readonly softness: number;
  readonly tolerancePx: number;
  /** Borders that lie farther away than this on the mean are something else, px. */
  readonly reachPx: number;
}

/**
 * @param path in pixels
 * @param run the first and the last of the run's points; null for the whole path, which must then be closed
 * @param contours closed borders, x and y in turn, px
 * @returns null where no border runs along it
 */
export function closerToBorders(
  path: Path,
  run: readonly [number, number] | null,
  contours: readonly Float64Array[],
  { softness, tolerancePx, reachPx }: BorderSettings,
): Path | null {
  const along = run ? partOf(path, run) : path;
  const looked = polygonOf(along, Math.max(0.5, tolerancePx));
  const border = nearestContour(looked, contours, reachPx);
  if (!border) return null;
  if (!run) return path.closed ? outlineAlong(border, softness, leastRoughnessPx, tolerancePx) : null;
  const [a, b] = [looked[0] as Point, looked.at(-1) as Point];
  const course = stretchBetween(border, a, b, looked[looked.length >> 1] as Point);
  if (!course || course.length < 8) return null;
  const [from, to] = [
    { x: course[0] as number, y: course[1] as number },
    { x: course.at(-2) as number, y: course.at(-1) as number },
  ];
  const fitted = openPathAlong(course, [from, to], softness, leastRoughnessPx, tolerancePx);
  const [first, last] = run;
  const moved = withPointsMoved(withPointsMoved(path, [first], away(a, from)), [last], away(b, to));
  const segments = [...moved.segments.slice(0, first), ...fitted.segments, ...moved.segments.slice(last)];
  return { ...moved, start: first === 0 ? from : moved.start, segments };
}

const away = (a: Point, b: Point): Point => ({ x: b.x - a.x, y: b.y - a.y });

const partOf = (path: Path, [first, last]: readonly [number, number]): Path => ({
  start: pointOf(path, first),
  segments: path.segments.slice(first, last),
  closed: false,
});

/** The contour that some places lie nearest to on the whole; null where it is not near them. */
function nearestContour(places: readonly Point[], contours: readonly Float64Array[], reach: number): Float64Array | null {
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
function stretchBetween(contour: Float64Array, a: Point, b: Point, through: Point): Float64Array | null {
  const n = contour.length / 2;
  const [i, j] = [nearestIndex(contour, a).index, nearestIndex(contour, b).index];
  if (i === j) return null;
  const walk = (way: 1 | -1): Float64Array => {
    const count = (way > 0 ? (j - i + n) % n : (i - j + n) % n) + 1;
    const points = new Float64Array(2 * count);
    for (let k = 0; k < count; k++) {
      const m = (((i + way * k) % n) + n) % n;
      points[2 * k] = contour[2 * m] as number;
      points[2 * k + 1] = contour[2 * m + 1] as number;
    }
    return points;
  };
  const [on, back] = [walk(1), walk(-1)];
  return nearestIndex(on, through).square <= nearestIndex(back, through).square ? on : back;
}
