/**
 * In: a straight segment. Out: its measures and parts, all exact.
 */
import { type Box, boxAround } from './box.ts';
import { between, cross, distance, dot, type Point, subtract, toLeft, unitVector } from './point.ts';
import type { CurveOps, LineSegment, Nearest } from './segment-kinds.ts';
import { apply } from './transform.ts';

export function nearestOnLine(from: Point, s: LineSegment, p: Point): Nearest {
  const along = subtract(s.to, from);
  const size = dot(along, along);
  const t = size === 0 ? 0 : Math.min(1, Math.max(0, dot(subtract(p, from), along) / size));
  const point = between(from, s.to, t);
  return { t, point, distance: distance(point, p) };
}

function splitLine(from: Point, s: LineSegment, t: number): [LineSegment, LineSegment] {
  return [{ kind: 'line', to: between(from, s.to, t) }, s];
}

export const lineOps: CurveOps<LineSegment> = {
  point: (from, s, t) => between(from, s.to, t),
  derivative: (from, s) => subtract(s.to, from),
  direction: (from, s) => unitVector(subtract(s.to, from)),
  length: (from, s) => distance(from, s.to),
  area: (from, s) => cross(from, s.to) / 2,
  box: (from, s) => boxAround([from, s.to]) as Box,
  nearest: nearestOnLine,
  split: splitLine,
  reversed: (from) => ({ kind: 'line', to: from }),
  transformed: (_, s, t) => [{ kind: 'line', to: apply(t, s.to) }],
  asCubics: (from, s) => [{ kind: 'cubic', c1: between(from, s.to, 1 / 3), c2: between(from, s.to, 2 / 3), to: s.to }],
  asArcs: (_, s) => [s],
  offset: (from, s, by) => ({ kind: 'line', to: toLeft(s.to, unitVector(subtract(s.to, from)), by) }),
  bow: () => 0,
  advances: (from, s, d) => dot(subtract(s.to, from), d) > 1e-12,
  chordCount: () => 1,
};
