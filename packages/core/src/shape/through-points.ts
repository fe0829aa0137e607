/**
 * In: points that a curve should pass. Out: the smooth path through them, as cubics.
 * Rests on: centripetal Catmull-Rom splines (Catmull & Rom 1974; that parameters by the square root of the distance give
 * neither loops nor cusps: Yuksel, Schaefer & Keyser 2011), each span written as a Bezier curve.
 */
import { type CachedSegment, cachedSegments } from '../plane/cached-segment.ts';
import type { Path } from '../plane/path.ts';
import { distance, type Point, turnBetween } from '../plane/point.ts';
import type { CubicSegment, Segment } from '../plane/segment.ts';

/** The cubic from `b` to `c` on the way from `a` to `d`. */
export function spanBetween(a: Point, b: Point, c: Point, d: Point): CubicSegment {
  const [t1, t2, t3] = [Math.sqrt(distance(a, b)), Math.sqrt(distance(b, c)), Math.sqrt(distance(c, d))];
  const tangent = (p: Point, q: Point, r: Point, u: number, v: number, key: 'x' | 'y'): number => {
    if (u < 1e-9) return (r[key] - q[key]) / v;
    if (v < 1e-9) return (q[key] - p[key]) / u;
    return (q[key] - p[key]) / u - (r[key] - p[key]) / (u + v) + (r[key] - q[key]) / v;
  };
  const at = (key: 'x' | 'y') => [b[key] + (t2 * tangent(a, b, c, t1, t2, key)) / 3, c[key] - (t2 * tangent(b, c, d, t2, t3, key)) / 3];
  const [x, y] = [at('x') as [number, number], at('y') as [number, number]];
  return { kind: 'cubic', c1: { x: x[0], y: y[0] }, c2: { x: x[1], y: y[1] }, to: c };
}

/** A point that an outline is drawn through: it turns there sharply, or runs through in a curve. */
export interface DrawnPoint {
  readonly at: Point;
  readonly corner: boolean;
  /** Of an arc through three points the one that the path passes on its way here. */
  readonly through?: Point;
  /** Handles pulled by hand, as places. */
  readonly before?: Point;
  readonly after?: Point;
}

/** The path through drawn points: straight between corners, arcs where a third point says so, else smooth. */
export function pathThrough(points: readonly DrawnPoint[], closed: boolean): Path | null {
  const [first] = points;
  if (!first || points.length < 2) return null;
  const n = points.length;
  const count = closed ? n : n - 1;
  const pointAt = (k: number): DrawnPoint | undefined => (closed ? points[(k + n) % n] : points[k]);
  const segments = Array.from({ length: count }, (_, k): Segment => {
    const [b, c] = [pointAt(k) as DrawnPoint, pointAt(k + 1) as DrawnPoint];
    return knownBetween(pointAt(k - 1), b, c, pointAt(k + 2));
  });
  return { start: first.at, segments, closed };
}

/** The drawn points that a path goes through, so that it can be drawn on from either end; null where it holds an ellipse. */
export function pointsAlong(path: Path): DrawnPoint[] | null {
  if (path.segments.some(({ kind }) => kind === 'ellipse')) return null;
  const steps = cachedSegments(path);
  const count = steps.length + (path.closed ? 0 : 1);
  return Array.from({ length: count }, (_, k): DrawnPoint => {
    const [before, after] = [steps[path.closed ? (k - 1 + count) % count : k - 1], steps[k]];
    const kept = after && told.get(after);
    if (kept && kept.before === before) return kept.point;
    const point = pointWhere(before, after);
    if (after) told.set(after, { before, point });
    return point;
  });
}

/** The point that a segment set out from last, and the segment that led there. */
const told = new WeakMap<CachedSegment, { readonly before: CachedSegment | undefined; readonly point: DrawnPoint }>();

const pointWhere = (before: CachedSegment | undefined, after: CachedSegment | undefined): DrawnPoint => ({
  at: after?.from ?? (before as CachedSegment).segment.to,
  corner: true,
  ...(before?.segment.kind === 'arc' ? { through: before.middle } : {}),
  ...(before?.segment.kind === 'cubic' ? { before: before.segment.c2 } : {}),
  ...(after?.segment.kind === 'cubic' ? { after: after.segment.c1 } : {}),
});

/** Points of an open outline in the order of the way back: handles change places, arcs' places go with their arcs. */
export function reversedPoints(points: readonly DrawnPoint[]): DrawnPoint[] {
  return points
    .map(({ at, corner, before, after }, k): DrawnPoint => {
      const through = points[k + 1]?.through;
      return { at, corner, ...(through && { through }), ...(after && { before: after }), ...(before && { after: before }) };
    })
    .reverse();
}

/** Between which points a segment into this one was laid last. */
const laid = new WeakMap<DrawnPoint, { readonly of: readonly (DrawnPoint | undefined)[]; readonly segment: Segment }>();

/** As `segmentBetween` says, kept for the same points, so that segments far from one that moves stay the same. */
function knownBetween(a: DrawnPoint | undefined, b: DrawnPoint, c: DrawnPoint, d: DrawnPoint | undefined): Segment {
  const kept = laid.get(c);
  if (kept && kept.of[0] === a && kept.of[1] === b && kept.of[2] === d) return kept.segment;
  const segment = segmentBetween(a, b, c, d);
  laid.set(c, { of: [a, b, d], segment });
  return segment;
}

function segmentBetween(a: DrawnPoint | undefined, b: DrawnPoint, c: DrawnPoint, d: DrawnPoint | undefined): Segment {
  if (c.through) {
    const [u, v] = [
      { x: c.through.x - b.at.x, y: c.through.y - b.at.y },
      { x: c.at.x - c.through.x, y: c.at.y - c.through.y },
    ];
    const turn = turnBetween(u, v);
    return Math.abs(turn) < 1e-9 ? { kind: 'line', to: c.at } : { kind: 'arc', to: c.at, sweep: 2 * turn };
  }
  const isStraight = b.corner && c.corner && !b.after && !c.before;
  if (isStraight) return { kind: 'line', to: c.at };
  // Beyond a corner the curve knows nothing: there it starts as if the span went on by itself.
  const plain = spanBetween(b.corner ? b.at : (a?.at ?? b.at), b.at, c.at, c.corner ? c.at : (d?.at ?? c.at));
  return { ...plain, c1: b.after ?? plain.c1, c2: c.before ?? plain.c2 };
}
