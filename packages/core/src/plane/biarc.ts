/**
 * In: a cubic curve. Out: arcs and lines that follow it within a tolerance, with one tangent throughout.
 * Rests on: Bolton 1975, "Biarc curves": two arcs that meet with one tangent, here with equal tangent lengths.
 */
import { circleOf } from './arc.ts';
import { directionOnCubic, nearestOnCubic, pointOnCubic, splitCubic } from './cubic.ts';
import { opsOf } from './curves.ts';
import { cross, distance, dot, type Point, subtract, turnBetween } from './point.ts';
import type { ArcSegment, CubicSegment, LineSegment } from './segment-kinds.ts';

/** Arcs flatter than this over their length are lines, in the curve's unit. */
const flatness = 1e-5;
/** Curves that turn more are divided first, radians. */
const widestTurn = 1.6;

/** Arcs and lines along a cubic, which leave it by at most `tolerance` (more than 0). */
export function cubicAsArcs(from: Point, s: CubicSegment, tolerance: number): (ArcSegment | LineSegment)[] {
  if (!(tolerance > 0)) throw new RangeError('the tolerance must be more than zero');
  return divided(from, s, tolerance, 0);
}

function divided(from: Point, s: CubicSegment, tolerance: number, depth: number): (ArcSegment | LineSegment)[] {
  const size = distance(from, s.c1) + distance(s.c1, s.c2) + distance(s.c2, s.to);
  if (size <= tolerance || depth > 12) return [{ kind: 'line', to: s.to }];
  const arcs = biarc(from, directionOnCubic(from, s, 0), s.to, directionOnCubic(from, s, 1));
  if (arcs && handleTurn(from, s) < widestTurn && follows(from, s, arcs, tolerance)) return arcs;
  const [first, second] = splitCubic(from, s, 0.5);
  return [...divided(from, first, tolerance, depth + 1), ...divided(first.to, second, tolerance, depth + 1)];
}

/** How far the handles' polygon turns in all, radians: a bound on what the curve can hide between places looked at. */
function handleTurn(from: Point, { c1, c2, to }: CubicSegment): number {
  const legs = [subtract(c1, from), subtract(c2, c1), subtract(to, c2)].filter((leg) => dot(leg, leg) > 0);
  return legs.slice(1).reduce((sum, leg, k) => sum + Math.abs(turnBetween(legs[k] as Point, leg)), 0);
}

/** Two arcs from `p` leaving along `d` to `q` arriving along `e`; null where there are none of less than a half turn. */
function biarc(p: Point, d: Point, q: Point, e: Point): (ArcSegment | LineSegment)[] | null {
  const v = subtract(q, p);
  const sum = dot(v, d) + dot(v, e);
  const bend = 2 * (1 - dot(d, e));
  const square = dot(v, v);
  const reach = bend < 1e-12 ? (sum > 0 ? square / (2 * sum) : -1) : (-sum + Math.sqrt(sum * sum + bend * square)) / bend;
  if (!(reach > 0) || reach > 10 * Math.sqrt(square)) return null;
  const joint = { x: (p.x + q.x + reach * (d.x - e.x)) / 2, y: (p.y + q.y + reach * (d.y - e.y)) / 2 };
  const chord = subtract(joint, p);
  const last = subtract(q, joint);
  const sweeps = [2 * turnBetween(d, chord), 2 * turnBetween(last, e)] as const;
  if (sweeps.some((sweep) => Math.abs(sweep) > Math.PI)) return null;
  return [part(p, joint, sweeps[0]), part(joint, q, sweeps[1])];
}

function part(from: Point, to: Point, sweep: number): ArcSegment | LineSegment {
  const sagitta = (distance(from, to) / 2) * Math.tan(Math.abs(sweep) / 4);
  return sagitta < flatness ? { kind: 'line', to } : { kind: 'arc', to, sweep };
}

/** Whether curve and arcs keep within the tolerance of each other, looked at along both. */
function follows(from: Point, s: CubicSegment, arcs: (ArcSegment | LineSegment)[], tolerance: number): boolean {
  const [first, second] = arcs as [ArcSegment | LineSegment, ArcSegment | LineSegment];
  const limit = 0.9 * tolerance;
  const [toFirst, toSecond] = [distanceTo(from, first), distanceTo(first.to, second)];
  for (let k = 1; k < 16; k++) {
    const p = pointOnCubic(from, s, k / 16);
    if (toFirst(p) > limit && toSecond(p) > limit) return false;
  }
  return [0.25, 0.5, 0.75].every(
    (t) =>
      nearestOnCubic(from, s, opsOf(first).point(from, first, t)).distance <= limit &&
      nearestOnCubic(from, s, opsOf(second).point(first.to, second, t)).distance <= limit,
  );
}

/** How far places lie from a line, or from an arc of less than a half turn. */
function distanceTo(from: Point, s: ArcSegment | LineSegment): (p: Point) => number {
  if (s.kind === 'line') return (p) => opsOf(s).nearest(from, s, p).distance;
  const { centre, radius } = circleOf(from, s);
  const side = Math.sign(s.sweep);
  const [a, b] = [subtract(from, centre), subtract(s.to, centre)];
  return (p) => {
    const v = subtract(p, centre);
    const isBeside = side * cross(a, v) >= 0 && side * cross(v, b) >= 0;
    return isBeside ? Math.abs(Math.hypot(v.x, v.y) - radius) : Math.min(distance(p, from), distance(p, s.to));
  };
}
