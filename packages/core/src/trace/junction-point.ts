/**
 * In: the last points of the contours that come together at a junction. Out: the one place where they meet.
 * Rests on: the line through each contour's end (Pearson 1901); the least squares of the distances from all of them.
 */
import type { Path } from '../plane/path.ts';
import { crossing, distance, type Point } from '../plane/point.ts';

/** An end of a run: where its last sure point lies and the direction out of it. */
export interface RunEnd {
  readonly node: number;
  readonly at: Point;
  readonly out: Point;
}

/** Place and outward direction of an end, by the line through its last points. */
export function runEndOf(points: Float64Array, side: 0 | 1, node: number, reach: number): RunEnd {
  const n = points.length / 2;
  const count = Math.min(n, reach);
  const pick = (k: number): Point => {
    const i = side === 0 ? k : n - 1 - k;
    return { x: points[2 * i] as number, y: points[2 * i + 1] as number };
  };
  let [x, y] = [0, 0];
  for (let k = 0; k < count; k++) {
    x += pick(k).x / count;
    y += pick(k).y / count;
  }
  let [xx, xy, yy] = [0, 0, 0];
  for (let k = 0; k < count; k++) {
    const [u, v] = [pick(k).x - x, pick(k).y - y];
    xx += u * u;
    xy += u * v;
    yy += v * v;
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const [first, last] = [pick(0), pick(count - 1)];
  let out = { x: Math.cos(angle), y: Math.sin(angle) };
  if (out.x * (first.x - last.x) + out.y * (first.y - last.y) < 0) out = { x: -out.x, y: -out.y };
  // The mean line read beside the first point, which alone is rough.
  const along = out.x * (first.x - x) + out.y * (first.y - y);
  return { node, at: { x: x + along * out.x, y: y + along * out.y }, out };
}

/** Where an end comes to lie: on the line that runs through, or where all ends of the junction meet best. */
export function meetingPlace(end: RunEnd, all: readonly RunEnd[], through: readonly (readonly [RunEnd, RunEnd])[], width: number): Point {
  const limit = 4 * width + 4;
  for (const [a, b] of through) {
    const met = crossing(end.at, end.out, a.at, { x: b.at.x - a.at.x, y: b.at.y - a.at.y });
    if (met && distance(met, end.at) < limit) return met;
  }
  // Least squares of the distances from every end's line.
  let [xx, xy, yy, rx, ry] = [0, 0, 0, 0, 0];
  for (const { at, out } of all) {
    const c = -out.y * at.x + out.x * at.y;
    xx += out.y * out.y;
    xy -= out.x * out.y;
    yy += out.x * out.x;
    rx -= out.y * c;
    ry += out.x * c;
  }
  const det = xx * yy - xy * xy;
  const met = { x: (rx * yy - ry * xy) / det, y: (ry * xx - rx * xy) / det };
  if (det > 1e-3 && distance(met, end.at) < limit) return met;
  const n = all.length;
  return { x: all.reduce((s, e) => s + e.at.x, 0) / n, y: all.reduce((s, e) => s + e.at.y, 0) / n };
}

/** A path with its ends put where they meet; null leaves one. */
export function withEnds(path: Path, start: Point | null, end: Point | null): Path {
  const segments = [...path.segments];
  const last = segments.at(-1);
  if (end && last) segments[segments.length - 1] = { ...last, to: end };
  return { ...path, start: start ?? path.start, segments };
}
