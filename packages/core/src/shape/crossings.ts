/**
 * In: two segments. Out: where they cross, touch or run into each other.
 * Lines and arcs are met in closed form; curves by dividing boxes, settled by Newton steps. Ends that lie on the other
 * segment count, so that stretches which run on top of each other are cut where they begin and end.
 */
import { circleOf } from '../plane/arc.ts';
import { type KnownStep, knownStep } from '../plane/known-step.ts';
import type { Step } from '../plane/path.ts';
import { cross, distance, dot, norm, type Point, subtract } from '../plane/point.ts';
import { chordPoints, nearestOnSegment, pointOn, segmentLength } from '../plane/segment.ts';

/** Places nearer than this are one, mm. */
export const samePlaceMm = 1e-6;

export interface Crossing {
  readonly at: Point;
  /** Where on the first and on the second segment, 0 to 1. */
  readonly t: number;
  readonly u: number;
}

/** All crossings of two segments, ends that lie on the other included, in order of the first. */
export function segmentCrossings(a: Step, b: Step, tolerance = samePlaceMm): Crossing[] {
  const found: Crossing[] = [];
  const take = (t: number, u: number, at: Point): void => {
    if (!found.some((c) => distance(c.at, at) <= tolerance)) found.push({ t, u, at });
  };
  for (const t of [0, 1]) {
    const at = t === 0 ? a.from : a.segment.to;
    const near = nearestOnSegment(b.from, b.segment, at);
    if (near.distance <= tolerance) take(t, near.t, at);
  }
  for (const u of [0, 1]) {
    const at = u === 0 ? b.from : b.segment.to;
    const near = nearestOnSegment(a.from, a.segment, at);
    if (near.distance <= tolerance) take(near.t, u, at);
  }
  for (const { t, u, at } of innerCrossings(a, b)) take(t, u, at);
  return found.sort((c, d) => c.t - d.t);
}

function innerCrossings(a: Step, b: Step): Crossing[] {
  const [k, l] = [a.segment.kind, b.segment.kind];
  if (k === 'line' && l === 'line') return lineWithLine(a, b);
  if (k === 'line' && l === 'arc') return lineWithArc(a, b);
  if (k === 'arc' && l === 'line') return lineWithArc(b, a).map(({ t, u, at }) => ({ t: u, u: t, at }));
  if (k === 'arc' && l === 'arc') return arcWithArc(a, b);
  return curveWithCurve(a, b);
}

function lineWithLine(a: Step, b: Step): Crossing[] {
  const [p, q] = [subtract(a.segment.to, a.from), subtract(b.segment.to, b.from)];
  const det = cross(p, q);
  const size = norm(p.x, p.y) * norm(q.x, q.y);
  if (Math.abs(det) < 1e-12 * size || size === 0) return [];
  const between = subtract(b.from, a.from);
  const [t, u] = [cross(between, q) / det, cross(between, p) / det];
  return inside(t) && inside(u) ? [{ t, u, at: { x: a.from.x + p.x * t, y: a.from.y + p.y * t } }] : [];
}

const inside = (t: number): boolean => t >= 0 && t <= 1;

/** Where on its arc a point of the circle lies: 0 to 1, or outside of that. */
function placeOnArc({ from, segment }: Step, at: Point): number {
  if (segment.kind !== 'arc') return -1;
  const { centre, startAngle } = circleOf(from, segment);
  const way = Math.sign(segment.sweep);
  const turned = way * (Math.atan2(at.y - centre.y, at.x - centre.x) - startAngle);
  const full = 2 * Math.PI;
  return (((turned % full) + full) % full) / Math.abs(segment.sweep);
}

function lineWithArc(a: Step, b: Step): Crossing[] {
  if (b.segment.kind !== 'arc') return [];
  const { centre, radius } = circleOf(b.from, b.segment);
  const d = subtract(a.segment.to, a.from);
  const length = norm(d.x, d.y);
  if (length === 0) return [];
  const from = subtract(a.from, centre);
  const along = -dot(from, d) / length;
  const off = cross(from, d) / length;
  const half = radius * radius - off * off;
  // A touch counts as one crossing where it is nearer than can be told.
  if (half < -2 * radius * samePlaceMm) return [];
  const reach = Math.sqrt(Math.max(0, half));
  return [...new Set([along - reach, along + reach])].flatMap((s) => {
    const t = s / length;
    const at = { x: a.from.x + d.x * t, y: a.from.y + d.y * t };
    const u = placeOnArc(b, at);
    return inside(t) && inside(u) ? [{ t, u, at }] : [];
  });
}

function arcWithArc(a: Step, b: Step): Crossing[] {
  if (a.segment.kind !== 'arc' || b.segment.kind !== 'arc') return [];
  const [c, d] = [circleOf(a.from, a.segment), circleOf(b.from, b.segment)];
  const apart = distance(c.centre, d.centre);
  if (apart < samePlaceMm) return [];
  const along = (apart * apart + c.radius * c.radius - d.radius * d.radius) / (2 * apart);
  const half = c.radius * c.radius - along * along;
  if (half < -2 * c.radius * samePlaceMm) return [];
  const reach = Math.sqrt(Math.max(0, half));
  const [x, y] = [(d.centre.x - c.centre.x) / apart, (d.centre.y - c.centre.y) / apart];
  return [...new Set([reach, -reach])].flatMap((r) => {
    const at = { x: c.centre.x + along * x - r * y, y: c.centre.y + along * y + r * x };
    const [t, u] = [placeOnArc(a, at), placeOnArc(b, at)];
    return inside(t) && inside(u) ? [{ t, u, at }] : [];
  });
}

/** Chords leave a curve by at most this share of its length before Newton's steps take over. */
const chordShare = 2e-3;

interface Chord {
  readonly t0: number;
  readonly t1: number;
  readonly p: Point;
  readonly q: Point;
}

interface Chords {
  readonly list: readonly Chord[];
  /** How far the curve may leave them, mm. */
  readonly slack: number;
}

const chordsKept = new WeakMap<KnownStep, Chords>();

function chordsOf({ from, segment }: Step): Chords {
  const known = knownStep(from, segment);
  const kept = chordsKept.get(known);
  if (kept) return kept;
  const slack = chordShare * segmentLength(from, segment);
  const points = [from, ...chordPoints(from, segment, Math.max(1e-9, slack))];
  const n = points.length - 1;
  const chords = { list: points.slice(1).map((q, k) => ({ t0: k / n, t1: (k + 1) / n, p: points[k] as Point, q })), slack };
  chordsKept.set(known, chords);
  return chords;
}

function curveWithCurve(a: Step, b: Step): Crossing[] {
  const [as, bs] = [chordsOf(a), chordsOf(b)];
  const found: Crossing[] = [];
  const meet = (c: Chord, d: Chord, bowC: number, bowD: number, depth: number): void => {
    const bow = bowC + bowD;
    if (!boxesMeet(c, d, bow) || isBeside(c, d, bow) || isBeside(d, c, bow)) return;
    // Of a long curve the chords may leave it by as much as a short one is long.
    const isCoarse = bow > mostBow * Math.min(distance(c.p, c.q), distance(d.p, d.q));
    const start = isCoarse ? null : chordCrossing(c, d);
    const settled = start && settledCrossing(a, b, c.t0 + start.t * (c.t1 - c.t0), d.t0 + start.u * (d.t1 - d.t0));
    if (settled) {
      if (!found.some((f) => distance(f.at, settled.at) < samePlaceMm)) found.push(settled);
      return;
    }
    // At a small angle a crossing lies far from where the chords cross, and Newton's steps may miss it.
    if (depth === deepest || Math.max(bowC, bowD) < samePlaceMm) return;
    if (bowC > bowD) for (const half of halves(a, c)) meet(half, d, bowC / 4, bowD, depth + 1);
    else for (const half of halves(b, d)) meet(c, half, bowC, bowD / 4, depth + 1);
  };
  for (const c of as.list) for (const d of bs.list) meet(c, d, bowOf(a, as), bowOf(b, bs), 0);
  return found;
}

/** How far a segment may leave its chords: a line does not. */
const bowOf = ({ segment }: Step, { slack }: Chords): number => (segment.kind === 'line' ? 0 : slack);

/** Whether a chord lies all on one side of another's line, farther than both curves bow. */
function isBeside(c: Chord, d: Chord, bow: number): boolean {
  const [x, y] = [d.q.x - d.p.x, d.q.y - d.p.y];
  const room = bow * norm(x, y);
  const [from, to] = [x * (c.p.y - d.p.y) - y * (c.p.x - d.p.x), x * (c.q.y - d.p.y) - y * (c.q.x - d.p.x)];
  return (from > room && to > room) || (from < -room && to < -room);
}

/** Chords that leave their curves by more of the shorter one's length are halved first, so many times at most. */
const mostBow = 0.05;
const deepest = 12;

function halves({ from, segment }: Step, { t0, t1, p, q }: Chord): [Chord, Chord] {
  const t = (t0 + t1) / 2;
  const middle = pointOn(from, segment, t);
  return [
    { t0, t1: t, p, q: middle },
    { t0: t, t1, p: middle, q },
  ];
}

const boxesMeet = (a: Chord, b: Chord, slack: number): boolean =>
  Math.min(a.p.x, a.q.x) - slack <= Math.max(b.p.x, b.q.x) &&
  Math.max(a.p.x, a.q.x) + slack >= Math.min(b.p.x, b.q.x) &&
  Math.min(a.p.y, a.q.y) - slack <= Math.max(b.p.y, b.q.y) &&
  Math.max(a.p.y, a.q.y) + slack >= Math.min(b.p.y, b.q.y);

/** Where two chords cross, with some room beyond their ends, since the curves bow; null for parallel ones. */
function chordCrossing(c: Chord, d: Chord): { t: number; u: number } | null {
  const [p, q] = [subtract(c.q, c.p), subtract(d.q, d.p)];
  const det = cross(p, q);
  if (Math.abs(det) < 1e-14 * norm(p.x, p.y) * norm(q.x, q.y)) return null;
  const between = subtract(d.p, c.p);
  const [t, u] = [cross(between, q) / det, cross(between, p) / det];
  return t > -0.3 && t < 1.3 && u > -0.3 && u < 1.3 ? { t, u } : null;
}

/** How a point moves along a segment, mm for the whole of `t`. */
function velocityOn({ from, segment }: Step, t: number): Point {
  const step = 1e-6;
  const [low, high] = [Math.max(0, t - step), Math.min(1, t + step)];
  const [p, q] = [pointOn(from, segment, low), pointOn(from, segment, high)];
  return { x: (q.x - p.x) / (high - low), y: (q.y - p.y) / (high - low) };
}

function settledCrossing(a: Step, b: Step, t0: number, u0: number): Crossing | null {
  let [t, u] = [Math.min(1, Math.max(0, t0)), Math.min(1, Math.max(0, u0))];
  for (let round = 0; round < 30; round++) {
    const off = subtract(pointOn(b.from, b.segment, u), pointOn(a.from, a.segment, t));
    const [p, q] = [velocityOn(a, t), velocityOn(b, u)];
    const det = cross(p, q);
    if (Math.abs(det) < 1e-12 * norm(p.x, p.y) * norm(q.x, q.y)) return null;
    const [dt, du] = [cross(off, q) / det, cross(off, p) / det];
    t = Math.min(1, Math.max(0, t + dt));
    u = Math.min(1, Math.max(0, u + du));
    if (Math.abs(dt) + Math.abs(du) < 1e-13) break;
  }
  const [p, q] = [pointOn(a.from, a.segment, t), pointOn(b.from, b.segment, u)];
  return distance(p, q) < samePlaceMm / 10 ? { t, u, at: p } : null;
}
