/**
 * In: a cubic Bezier curve. Out: its measures and parts.
 * Rests on: Gauss-Legendre quadrature (area exact, length to 1e-6 by halving), de Casteljau's split,
 * branch and bound with Newton's iteration for the nearest point.
 */
import { gaussLegendre } from '../numeric/quadrature.ts';
import { type Box, boxAround } from './box.ts';
import { nearestOnLine } from './line.ts';
import { between, cross, distance, dot, norm, type Point, subtract, unitVector } from './point.ts';
import type { CubicSegment, CurveOps, Nearest } from './segment-kinds.ts';
import { apply, type Transform } from './transform.ts';

export function pointOnCubic(from: Point, s: CubicSegment, t: number): Point {
  const u = 1 - t;
  const [k0, k1, k2, k3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return {
    x: k0 * from.x + k1 * s.c1.x + k2 * s.c2.x + k3 * s.to.x,
    y: k0 * from.y + k1 * s.c1.y + k2 * s.c2.y + k3 * s.to.y,
  };
}

/** The first derivative by `t`. */
export function derivativeOnCubic(from: Point, s: CubicSegment, t: number): Point {
  const u = 1 - t;
  const [k0, k1, k2] = [3 * u * u, 6 * u * t, 3 * t * t];
  return {
    x: k0 * (s.c1.x - from.x) + k1 * (s.c2.x - s.c1.x) + k2 * (s.to.x - s.c2.x),
    y: k0 * (s.c1.y - from.y) + k1 * (s.c2.y - s.c1.y) + k2 * (s.to.y - s.c2.y),
  };
}

/** The second derivative by `t`. */
export function secondDerivativeOnCubic(from: Point, s: CubicSegment, t: number): Point {
  const at = (p0: number, p1: number, p2: number, p3: number) => 6 * ((1 - t) * (p2 - 2 * p1 + p0) + t * (p3 - 2 * p2 + p1));
  return { x: at(from.x, s.c1.x, s.c2.x, s.to.x), y: at(from.y, s.c1.y, s.c2.y, s.to.y) };
}

/** The direction of travel; where a handle has no length, the direction that the curve takes up from there. */
export function directionOnCubic(from: Point, s: CubicSegment, t: number): Point {
  const v = derivativeOnCubic(from, s, t);
  const size = distance(from, s.c1) + distance(s.c1, s.c2) + distance(s.c2, s.to);
  if (norm(v.x, v.y) > 1e-9 * size) return unitVector(v);
  const ahead = t < 0.5 ? [s.c1, s.c2, s.to] : [s.c2, s.c1, from];
  const end = t < 0.5 ? from : s.to;
  const next = ahead.find((p) => distance(p, end) > 1e-9 * size) ?? end;
  return unitVector(t < 0.5 ? subtract(next, end) : subtract(end, next));
}

function lengthBetween(from: Point, s: CubicSegment, t0: number, t1: number): number {
  return gaussLegendre(8, t0, t1, (t) => {
    const { x, y } = derivativeOnCubic(from, s, t);
    return norm(x, y);
  });
}

/** The length, to 1e-6 of itself: halved until the halves agree with the whole. */
function cubicLength(from: Point, s: CubicSegment): number {
  const size = distance(from, s.c1) + distance(s.c1, s.c2) + distance(s.c2, s.to);
  const refine = (t0: number, t1: number, whole: number, depth: number): number => {
    const middle = (t0 + t1) / 2;
    const [first, second] = [lengthBetween(from, s, t0, middle), lengthBetween(from, s, middle, t1)];
    if (depth === 0 || Math.abs(first + second - whole) <= 1e-9 * size) return first + second;
    return refine(t0, middle, first, depth - 1) + refine(middle, t1, second, depth - 1);
  };
  return refine(0, 1, lengthBetween(from, s, 0, 1), 24);
}

/** Half the integral of x dy - y dx: a polynomial of degree 5, so that three nodes give it exactly. */
function cubicArea(from: Point, s: CubicSegment): number {
  return gaussLegendre(3, 0, 1, (t) => cross(pointOnCubic(from, s, t), derivativeOnCubic(from, s, t))) / 2;
}

/** The values of `t` inside (0, 1) where one coordinate of the curve turns back. */
function turningPoints(p0: number, p1: number, p2: number, p3: number): number[] {
  const a = p3 - 3 * p2 + 3 * p1 - p0;
  const b = 2 * (p2 - 2 * p1 + p0);
  const c = p1 - p0;
  const inside = (t: number) => t > 0 && t < 1;
  const scale = Math.abs(a) + Math.abs(b) + Math.abs(c);
  if (Math.abs(a) <= 1e-14 * scale) return b === 0 ? [] : [-c / b].filter(inside);
  const root = b * b - 4 * a * c;
  if (root < 0) return [];
  const q = -(b + Math.sign(b || 1) * Math.sqrt(root)) / 2;
  return [q / a, q === 0 ? 0 : c / q].filter(inside);
}

function cubicBox(from: Point, s: CubicSegment): Box {
  const stops = [...turningPoints(from.x, s.c1.x, s.c2.x, s.to.x), ...turningPoints(from.y, s.c1.y, s.c2.y, s.to.y)];
  return boxAround([from, s.to, ...stops.map((t) => pointOnCubic(from, s, t))]) as Box;
}

/**
 * The nearest point, by branch and bound: a stretch lies within (1/8) max |B''| dt^2 of its chord, so that most are
 * ruled out by their chord alone; what is left is nearly straight, where Newton settles it.
 */
export function nearestOnCubic(from: Point, s: CubicSegment, p: Point): Nearest {
  const ends = [
    { t: 0, point: from, distance: distance(from, p) },
    { t: 1, point: s.to, distance: distance(s.to, p) },
  ] as const;
  let best: Nearest = ends[0].distance <= ends[1].distance ? ends[0] : ends[1];
  const bend = largestBend(from, s);
  const size = distance(from, s.c1) + distance(s.c1, s.c2) + distance(s.c2, s.to);
  const slowest = leastSpeed(from, s);
  // Nearer than it is bent the square of the distance is convex along it: there is one nearest place, and Newton goes there.
  if (slowest > 0 && slowest ** 2 > bend * (best.distance + size)) {
    const found = slideToNearest(from, s, p, nearestOnLine(from, { kind: 'line', to: s.to }, p).t, 1);
    return found.distance < best.distance ? found : best;
  }
  const search = (t0: number, a: Point, t1: number, b: Point): void => {
    const sagitta = (bend * (t1 - t0) ** 2) / 8;
    if (nearestOnLine(a, { kind: 'line', to: b }, p).distance - sagitta >= best.distance) return;
    const middle = (t0 + t1) / 2;
    if (sagitta < 1e-5 * size || t1 - t0 < 1e-5) {
      const found = slideToNearest(from, s, p, middle, (t1 - t0) / 2);
      if (found.distance < best.distance) best = found;
      return;
    }
    const m = pointOnCubic(from, s, middle);
    const isFirstNearer = distance(a, p) < distance(b, p);
    if (isFirstNearer) search(t0, a, middle, m);
    search(middle, m, t1, b);
    if (!isFirstNearer) search(t0, a, middle, m);
  };
  search(0, from, 1, s.to);
  return best;
}

/** No speed along it is less than the least of its handles' and the span between them along the chord (the derivative's convex hull). */
function leastSpeed(from: Point, s: CubicSegment): number {
  const [dx, dy] = [s.to.x - from.x, s.to.y - from.y];
  const chord = Math.sqrt(dx * dx + dy * dy);
  if (chord === 0) return 0;
  const along = (a: Point, b: Point): number => (b.x - a.x) * dx + (b.y - a.y) * dy;
  return (3 * Math.min(along(from, s.c1), along(s.c1, s.c2), along(s.c2, s.to))) / chord;
}

/** The largest second derivative: it is linear in t, so one of its ends. */
function largestBend(from: Point, s: CubicSegment): number {
  const bend = (a: Point, b: Point, c: Point) => 6 * norm(a.x - 2 * b.x + c.x, a.y - 2 * b.y + c.y);
  return Math.max(bend(from, s.c1, s.c2), bend(s.c1, s.c2, s.to));
}

function slideToNearest(from: Point, s: CubicSegment, p: Point, start: number, reach: number): Nearest {
  let [low, high] = [Math.max(0, start - reach), Math.min(1, start + reach)];
  let t = start;
  for (let round = 0; round < 60; round++) {
    const away = subtract(pointOnCubic(from, s, t), p);
    const v = derivativeOnCubic(from, s, t);
    const slope = dot(away, v);
    if (slope > 0) high = t;
    else low = t;
    const bend = dot(v, v) + dot(away, secondDerivativeOnCubic(from, s, t));
    let next = bend > 0 ? t - slope / bend : (low + high) / 2;
    if (!(next >= low && next <= high)) next = (low + high) / 2;
    if (Math.abs(next - t) < 1e-14) break;
    t = next;
  }
  const point = pointOnCubic(from, s, t);
  return { t, point, distance: distance(point, p) };
}

export function splitCubic(from: Point, s: CubicSegment, t: number): [CubicSegment, CubicSegment] {
  const [p01, p12, p23] = [between(from, s.c1, t), between(s.c1, s.c2, t), between(s.c2, s.to, t)];
  const [p012, p123] = [between(p01, p12, t), between(p12, p23, t)];
  const middle = between(p012, p123, t);
  return [
    { kind: 'cubic', c1: p01, c2: p012, to: middle },
    { kind: 'cubic', c1: p123, c2: p23, to: s.to },
  ];
}

function transformedCubic(s: CubicSegment, t: Transform): CubicSegment {
  return { kind: 'cubic', c1: apply(t, s.c1), c2: apply(t, s.c2), to: apply(t, s.to) };
}

/**
 * How many chords of equal `t` stay within `tolerance` of the curve.
 * Rests on: a chord's error is at most (1/8) max |B''| dt^2 (de Boor 1978).
 */
function chordCount(from: Point, s: CubicSegment, tolerance: number): number {
  const bend = largestBend(from, s);
  return Math.max(1, Math.ceil(Math.sqrt(bend / (8 * tolerance))));
}

/**
 * Where a cubic crosses itself: the two places, 0 to 1, or null. With B(t) = a t³ + b t² + c t + d two places that are one satisfy
 * a (p² - q) + b p + c = 0 with p their sum and q their product; p follows from the part of it across a, q from that along a.
 */
function cubicLoop(from: Point, s: CubicSegment): readonly [number, number] | null {
  const x = powersOf(from.x, s.c1.x, s.c2.x, s.to.x);
  const y = powersOf(from.y, s.c1.y, s.c2.y, s.to.y);
  const across = x.b * y.a - y.b * x.a;
  const square = x.a * x.a + y.a * y.a;
  if (Math.abs(across) < 1e-12 || square < 1e-18) return null;
  const p = -(x.c * y.a - y.c * x.a) / across;
  const q = p * p + ((x.b * p + x.c) * x.a + (y.b * p + y.c) * y.a) / square;
  const root = p * p - 4 * q;
  if (!(root > 1e-12)) return null;
  const [t, u] = [(p - Math.sqrt(root)) / 2, (p + Math.sqrt(root)) / 2];
  return t > 1e-9 && u < 1 - 1e-9 ? [t, u] : null;
}

const powersOf = (p: number, q: number, r: number, z: number): { a: number; b: number; c: number } => ({
  a: z - 3 * r + 3 * q - p,
  b: 3 * (r - 2 * q + p),
  c: 3 * (q - p),
});

export const cubicOps: CurveOps<CubicSegment> = {
  point: pointOnCubic,
  derivative: derivativeOnCubic,
  direction: directionOnCubic,
  length: cubicLength,
  area: cubicArea,
  box: cubicBox,
  nearest: nearestOnCubic,
  split: splitCubic,
  reversed: (from, s) => ({ kind: 'cubic', c1: s.c2, c2: s.c1, to: from }),
  transformed: (_, s, t) => [transformedCubic(s, t)],
  asCubics: (_, s) => [s],
  // (1/8) max |B''| over its whole length (de Boor 1978).
  bow: (from, s) => largestBend(from, s) / 8,
  advances: (from, { c1, c2, to }, d) => [subtract(c1, from), subtract(c2, c1), subtract(to, c2)].every((leg) => dot(leg, d) > 1e-12),
  loop: cubicLoop,
  chordCount,
};
