/**
 * In: a straight segment. Out: its measures and parts, all exact.
 */
import { type Box, boxAround } from './box.ts';
import { between, cross, distance, dot, type Point, subtract, unitVector } from './point.ts';
import type { LineSegment, Nearest } from './segment.ts';
import { apply, type Transform } from './transform.ts';

export const lineLength = (from: Point, s: LineSegment): number => distance(from, s.to);
export const lineArea = (from: Point, s: LineSegment): number => cross(from, s.to) / 2;
export const lineBox = (from: Point, s: LineSegment): Box => boxAround([from, s.to]) as Box;
export const pointOnLine = (from: Point, s: LineSegment, t: number): Point => between(from, s.to, t);
export const directionOnLine = (from: Point, s: LineSegment): Point => unitVector(subtract(s.to, from));
export const transformedLine = (s: LineSegment, t: Transform): LineSegment => ({ kind: 'line', to: apply(t, s.to) });

export function nearestOnLine(from: Point, s: LineSegment, p: Point): Nearest {
  const along = subtract(s.to, from);
  const size = dot(along, along);
  const t = size === 0 ? 0 : Math.min(1, Math.max(0, dot(subtract(p, from), along) / size));
  const point = between(from, s.to, t);
  return { t, point, distance: distance(point, p) };
}

export function splitLine(from: Point, s: LineSegment, t: number): [LineSegment, LineSegment] {
  return [{ kind: 'line', to: between(from, s.to, t) }, s];
}
