/**
 * In: places that a spline goes through. Out: the cubics of the spline with continuous curvature through them, by the lengths of its chords, its ends
 * in directions that are said or that the first and last places show; where it is closed, alike.
 * Rests on: Piegl & Tiller 1997, ch. 9: global interpolation with end derivatives, directions by five places (eq. 9.29, 9.31, 9.32).
 */
import { solveCyclic, solveTridiagonal } from '../numeric/tridiagonal.ts';
import { cross, distance, type Point, subtract, unitVector } from '../plane/point.ts';
import type { CubicSegment } from '../plane/segment.ts';

export interface EndDirections {
  readonly start: Point | null;
  readonly end: Point | null;
}

/** Null where there are fewer than two places. */
export function splineThrough(
  points: readonly Point[],
  isClosed: boolean,
  { start, end }: EndDirections,
): { start: Point; segments: CubicSegment[] } | null {
  const apart = points.filter((p, k) => k === 0 || distance(p, points[k - 1] as Point) > 0);
  const first = apart[0];
  if (isClosed && first && apart.length > 2 && distance(first, apart.at(-1) as Point) > 0) apart.push(first);
  if (!first || apart.length < 2) return null;
  const isRound = isClosed && apart.length > 3;
  const h = apart.slice(1).map((p, k) => distance(p, apart[k] as Point));
  const slopes = (of: (p: Point) => number, from: number, to: number): number[] => {
    const v = apart.map(of);
    const step = h.map((length, k) => ((v[k + 1] as number) - (v[k] as number)) / length);
    if (isRound) {
      const n = h.length;
      const before = (k: number): number => (k + n - 1) % n;
      const rows = Array.from({ length: n }, (_, k) => k);
      const found = solveCyclic(
        rows.map((k) => h[k] as number),
        rows.map((k) => 2 * ((h[before(k)] as number) + (h[k] as number))),
        rows.map((k) => h[before(k)] as number),
        rows.map((k) => 3 * ((h[k] as number) * (step[before(k)] as number) + (h[before(k)] as number) * (step[k] as number))),
      );
      return [...found, found[0] as number];
    }
    const last = h.length;
    const isInner = (k: number): boolean => k > 0 && k < last;
    const rows = Array.from({ length: last + 1 }, (_, k) => k);
    return solveTridiagonal(
      rows.map((k) => (isInner(k) ? (h[k] as number) : 0)),
      rows.map((k) => (isInner(k) ? 2 * ((h[k - 1] as number) + (h[k] as number)) : 1)),
      rows.map((k) => (isInner(k) ? (h[k - 1] as number) : 0)),
      rows.map((k) => (isInner(k) ? 3 * ((h[k] as number) * (step[k - 1] as number) + (h[k - 1] as number) * (step[k] as number)) : k === 0 ? from : to)), // biome-ignore format: one line
    );
  };
  const from = unitVector(start && Math.hypot(start.x, start.y) > 0 ? start : directionAtStart(apart));
  const to = unitVector(end && Math.hypot(end.x, end.y) > 0 ? end : backward(directionAtStart(apart.toReversed())));
  const dx = slopes(({ x }) => x, from.x, to.x);
  const dy = slopes(({ y }) => y, from.y, to.y);
  const segments = h.map((length, k): CubicSegment => {
    const [p, q] = [apart[k] as Point, apart[k + 1] as Point];
    const third = length / 3;
    return {
      kind: 'cubic',
      c1: { x: p.x + third * (dx[k] as number), y: p.y + third * (dy[k] as number) },
      c2: { x: q.x - third * (dx[k + 1] as number), y: q.y - third * (dy[k + 1] as number) },
      to: q,
    };
  });
  return { start: first, segments };
}

const backward = ({ x, y }: Point): Point => ({ x: -x, y: -y });

/** By the first three places, as if the run of chords went on before them as it goes on between. */
function directionAtStart(points: readonly Point[]): Point {
  const [p0, p1, p2] = points as [Point, Point, Point | undefined];
  const q1 = subtract(p1, p0);
  if (!p2) return q1;
  const q2 = subtract(p2, p1);
  const q0 = { x: 2 * q1.x - q2.x, y: 2 * q1.y - q2.y };
  const before = { x: 2 * q0.x - q1.x, y: 2 * q0.y - q1.y };
  const [u, v] = [Math.abs(cross(before, q0)), Math.abs(cross(q1, q2))];
  const share = u + v > 0 ? u / (u + v) : 0.5;
  return { x: (1 - share) * q0.x + share * q1.x, y: (1 - share) * q0.y + share * q1.y };
}
