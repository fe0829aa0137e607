/**
 * In: a path drawn by hand near the edge of something in a picture, and the ink's borders there. Out: the path, or a run of
 * it, led along the nearest border instead, fitted as any trace is.
 */
import { type Path, polygonOf } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { pointOf, withPointsMoved } from '../shape/points.ts';
import { nearestContour, stretchBetween } from './border-stretch.ts';
import { openPathAlong, outlineAlong } from './outline.ts';

/** What the kind of picture alone brings to a border's roughness, px. */
export const minNoisePx = 0.03;

export interface BorderSettings {
  /** Deviation of the Gaussian that softens the picture's edges, px. */
  readonly blur: number;
  readonly tolerancePx: number;
  /** Borders that lie farther away than this on the mean are something else, px. */
  readonly searchRadiusPx: number;
}

/**
 * @param path in pixels
 * @param run the first and the last of the run's points; null for the whole path, which must then be closed
 * @param contours closed borders, x and y in turn, px
 * @returns null where no border runs along it
 */
export function snapToEdge(
  path: Path,
  run: readonly [number, number] | null,
  contours: readonly Float64Array[],
  { blur, tolerancePx, searchRadiusPx }: BorderSettings,
): Path | null {
  const along = run ? partOf(path, run) : path;
  const looked = polygonOf(along, Math.max(0.5, tolerancePx));
  const border = nearestContour(looked, contours, searchRadiusPx);
  if (!border) return null;
  if (!run) return path.closed ? outlineAlong(border, blur, minNoisePx, tolerancePx) : null;
  const [a, b] = [looked[0] as Point, looked.at(-1) as Point];
  const sampled = stretchBetween(border, a, b, looked[looked.length >> 1] as Point);
  if (!sampled || sampled.length < 8) return null;
  const [from, to] = [
    { x: sampled[0] as number, y: sampled[1] as number },
    { x: sampled.at(-2) as number, y: sampled.at(-1) as number },
  ];
  const fitted = openPathAlong(sampled, [from, to], blur, minNoisePx, tolerancePx);
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
