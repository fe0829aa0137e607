/**
 * In: two segments. Out: where they cross, touch or run into each other.
 * Lines and arcs are met in closed form; curves by dividing boxes, settled by Newton steps. Ends that lie on the other
 * segment count, so that stretches which run on top of each other are cut where they begin and end.
 */
import { circleOf } from '../plane/arc.ts';
import { type CachedSegment, cachedSegment } from '../plane/cached-segment.ts';
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
  const sign = Math.sign(segment.sweep);
  const turned = sign * (Math.atan2(at.y - centre.y, at.x - centre.x) - startAngle);
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

const chordsKept = new WeakMap<CachedSegment, Chords>();

function chordsOf({ from, segment }: Step): Chords {
  const known = cachedSegment(from, segment);
  const kept = chordsKept.get(known);
  if (kept) return kept;
  const slack = chordShare * segmentLength(from, segment);
  const points = [from, ...chordPoints(from, segment, Math.max(1e-9, slack))];
  const n = points.length - 1;
  const chords = { list: points.slice(1).map((q, k) => ({ t0: k / n, t1: (k + 1) / n, p: points[k] as Point, q })), slack };
  chordsKept.set(known, chords);
  return chords;
}

/** A stretch of one curve beside one of another, each as its chord with how far the curve may leave that, mm. */
interface Facing {
  readonly c: Chord;
  readonly d: Chord;
  readonly bowC: number;
  readonly bowD: number;
  readonly depth: number;
}

function curveWithCurve(a: Step, b: Step): Crossing[] {
  const [as, bs] = [chordsOf(a), chordsOf(b)];
  const found: Crossing[] = [];
  const meet = (one: Facing): void => {
    const { c, d, bowC, bowD, depth } = one;
    const bow = bowC + bowD;
    if (!boxesMeet(c, d, bow) || isBeside(c, d, bow) || isBeside(d, c, bow)) return;
    const isLast = depth === deepest || Math.max(bowC, bowD) < samePlaceMm;
    if (isLast || isSingle(one)) {
      const settled = crossingAlong(a, b, c, d);
      if (settled && !found.some((f) => distance(f.at, settled.at) < samePlaceMm)) found.push(settled);
      // Newton's steps may have led to another crossing of the same two, or to none where they cross at a small angle.
      if (isLast || (settled && isOn(c, settled.t) && isOn(d, settled.u))) return;
    }
    if (bowC > bowD) for (const half of halves(a, c)) meet({ c: half, d, bowC: bowC / 4, bowD, depth: depth + 1 });
    else for (const half of halves(b, d)) meet({ c, d: half, bowC, bowD: bowD / 4, depth: depth + 1 });
  };
  for (const c of as.list) for (const d of bs.list) meet({ c, d, bowC: bowOf(a, as), bowD: bowOf(b, bs), depth: 0 });
  return found;
}

function crossingAlong(a: Step, b: Step, c: Chord, d: Chord): Crossing | null {
  const start = chordCrossing(c, d);
  return start && settledCrossing(a, b, c.t0 + start.t * (c.t1 - c.t0), d.t0 + start.u * (d.t1 - d.t0));
}

/** Whether a place lies on a chord's part of its segment, or hardly beyond it. */
const isOn = ({ t0, t1 }: Chord, t: number): boolean => t >= t0 - beyond * (t1 - t0) && t <= t1 + beyond * (t1 - t0);
/** Chords' lines that cross beyond their ends by this share of their length may still be of curves that cross. */
const beyond = 0.3;

/** How far a segment may leave its chords: a line does not. */
const bowOf = ({ segment }: Step, { slack }: Chords): number => (segment.kind === 'line' ? 0 : slack);

/** Whether a chord lies all on one side of another's line, farther than both curves bow. */
function isBeside(c: Chord, d: Chord, bow: number): boolean {
  const [x, y] = [d.q.x - d.p.x, d.q.y - d.p.y];
  const room = bow * norm(x, y);
  const [from, to] = [x * (c.p.y - d.p.y) - y * (c.p.x - d.p.x), x * (c.q.y - d.p.y) - y * (c.q.x - d.p.x)];
  return (from > room && to > room) || (from < -room && to < -room);
}

/**
 * Whether two curves can cross but once along their chords: these differ in direction by more than both turn. Of a long curve
 * the chords may leave it by as much as a short one is long; then nothing can be told.
 */
function isSingle({ c, d, bowC, bowD }: Facing): boolean {
  const [p, q] = [subtract(c.q, c.p), subtract(d.q, d.p)];
  const [m, n] = [norm(p.x, p.y), norm(q.x, q.y)];
  if (bowC + bowD > maxBow * Math.min(m, n)) return false;
  // A parabola that bows by b over a length l turns by 4 b / l to either side of its chord.
  return Math.abs(cross(p, q)) > turnRoom * (bowC / m + bowD / n) * m * n;
}
/** Of the shorter chord's length, as much as both may bow. */
const maxBow = 0.05;
/** For curves that are no parabolas. */
const turnRoom = 6;
/** Chords are halved so many times at most. */
const deepest = 14;

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
  return t > -beyond && t < 1 + beyond && u > -beyond && u < 1 + beyond ? { t, u } : null;
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
