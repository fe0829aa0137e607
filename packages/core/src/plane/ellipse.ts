/**
 * In: a part of an ellipse, given by its centre, its half diameter conjugate to the one through its start, and its sweep.
 * Out: its measures and parts.
 * Rests on: the ellipse as the affine image of a circle: c + u cos a + v sin a with conjugate half diameters u and v
 * (Apollonius), so that every affine map of it is the map of three points; lengths by Gauss-Legendre quadrature.
 */
import { gaussLegendre } from '../numeric/quadrature.ts';
import { type Box, boxAround } from './box.ts';
import { cross, distance, dot, norm, type Point, subtract, unitVector } from './point.ts';
import type { CubicSegment, CurveOps, EllipseSegment, Nearest } from './segment-kinds.ts';
import { apply, type Transform } from './transform.ts';

/** Half axes, the longer one first, and the angle of the longer one. */
export interface Axes {
  readonly major: number;
  readonly minor: number;
  /** Radians counter-clockwise from x, -pi/2 to pi/2. */
  readonly angle: number;
}

/** The half diameter through the segment's start. */
const firstOf = (from: Point, s: EllipseSegment): Point => subtract(from, s.centre);

function placeAt(from: Point, s: EllipseSegment, angle: number): Point {
  const u = firstOf(from, s);
  const [c, d] = [Math.cos(angle), Math.sin(angle)];
  return { x: s.centre.x + u.x * c + s.v.x * d, y: s.centre.y + u.y * c + s.v.y * d };
}

function velocityAt(from: Point, s: EllipseSegment, angle: number): Point {
  const u = firstOf(from, s);
  const [c, d] = [Math.cos(angle), Math.sin(angle)];
  return { x: s.v.x * c - u.x * d, y: s.v.y * c - u.y * d };
}

export function axesOf(from: Point, s: EllipseSegment): Axes {
  const u = firstOf(from, s);
  // The longest of c + u cos a + v sin a: tan 2a = 2 u.v / (u.u - v.v).
  const a = Math.atan2(2 * dot(u, s.v), dot(u, u) - dot(s.v, s.v)) / 2;
  const long = subtract(placeAt(from, s, a), s.centre);
  const short = subtract(placeAt(from, s, a + Math.PI / 2), s.centre);
  const angle = Math.atan2(long.y, long.x);
  const [major, minor] = [norm(long.x, long.y), norm(short.x, short.y)];
  return { major, minor, angle: angle - Math.PI * Math.round(angle / Math.PI) };
}

/** Whether it runs counter-clockwise (y up). */
export const turnsLeft = (from: Point, s: EllipseSegment): boolean => cross(firstOf(from, s), s.v) > 0;

/** A whole ellipse as two halves, counter-clockwise, from one end of its first axis. */
export function ellipseHalves(centre: Point, a: number, b: number, angle: number): { start: Point; segments: EllipseSegment[] } {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const start = { x: centre.x + a * c, y: centre.y + a * s };
  const far = { x: centre.x - a * c, y: centre.y - a * s };
  const v = { x: -b * s, y: b * c };
  return {
    start,
    segments: [
      { kind: 'ellipse', to: far, centre, v, sweep: Math.PI },
      { kind: 'ellipse', to: start, centre, v: { x: -v.x, y: -v.y }, sweep: Math.PI },
    ],
  };
}

const pointOnEllipse = (from: Point, s: EllipseSegment, t: number): Point => placeAt(from, s, s.sweep * t);
const directionOnEllipse = (from: Point, s: EllipseSegment, t: number): Point => unitVector(velocityAt(from, s, s.sweep * t));

/** The length, to 1e-9 of itself for axes up to 20 to 1. */
function ellipseLength(from: Point, s: EllipseSegment): number {
  const parts = Math.max(1, Math.ceil((16 * s.sweep) / Math.PI));
  const step = s.sweep / parts;
  const speed = (angle: number): number => {
    const { x, y } = velocityAt(from, s, angle);
    return norm(x, y);
  };
  return Array.from({ length: parts }, (_, k) => gaussLegendre(8, k * step, (k + 1) * step, speed)).reduce((sum, part) => sum + part, 0);
}

/** Half the integral of x dy - y dx. */
const ellipseArea = (from: Point, s: EllipseSegment): number =>
  (cross(s.centre, subtract(s.to, from)) + cross(firstOf(from, s), s.v) * s.sweep) / 2;

function ellipseBox(from: Point, s: EllipseSegment): Box {
  const u = firstOf(from, s);
  const stops = [Math.atan2(s.v.x, u.x), Math.atan2(s.v.y, u.y)].flatMap((a) => [a, a + Math.PI]);
  const whole = 2 * Math.PI;
  const inside = stops.map((a) => ((a % whole) + whole) % whole).filter((a) => a < s.sweep);
  return boxAround([from, s.to, ...inside.map((a) => placeAt(from, s, a))]) as Box;
}

/** The nearest point: the best of evenly spread places, settled by Newton's method. */
function nearestOnEllipse(from: Point, s: EllipseSegment, p: Point): Nearest {
  const count = Math.max(4, Math.ceil((24 * s.sweep) / Math.PI));
  const step = s.sweep / count;
  let best: Nearest = { t: 0, point: from, distance: distance(from, p) };
  for (let k = 1; k <= count; k++) {
    const point = k === count ? s.to : placeAt(from, s, k * step);
    const d = distance(point, p);
    if (d < best.distance) best = { t: k / count, point, distance: d };
  }
  let angle = best.t * s.sweep;
  const [low, high] = [Math.max(0, angle - step), Math.min(s.sweep, angle + step)];
  for (let round = 0; round < 30; round++) {
    const away = subtract(placeAt(from, s, angle), p);
    const velocity = velocityAt(from, s, angle);
    const inward = subtract(s.centre, placeAt(from, s, angle));
    const bend = dot(velocity, velocity) + dot(away, inward);
    const next = Math.max(
      low,
      Math.min(high, bend > 0 ? angle - dot(away, velocity) / bend : angle - Math.sign(dot(away, velocity)) * step),
    );
    if (Math.abs(next - angle) < 1e-14) break;
    angle = next;
  }
  const point = placeAt(from, s, angle);
  const d = distance(point, p);
  return d < best.distance ? { t: angle / s.sweep, point, distance: d } : best;
}

export function splitEllipse(from: Point, s: EllipseSegment, t: number): [EllipseSegment, EllipseSegment] {
  const middle = pointOnEllipse(from, s, t);
  return [
    { ...s, to: middle, sweep: s.sweep * t },
    { ...s, v: velocityAt(from, s, s.sweep * t), sweep: s.sweep * (1 - t) },
  ];
}

function reversedEllipse(from: Point, s: EllipseSegment): EllipseSegment {
  const { x, y } = velocityAt(from, s, s.sweep);
  return { ...s, to: from, v: { x: -x, y: -y } };
}

/** The segment under any affine map: an ellipse again. */
function transformedEllipse(s: EllipseSegment, t: Transform): EllipseSegment {
  const v = { x: t.a * s.v.x + t.c * s.v.y, y: t.b * s.v.x + t.d * s.v.y };
  return { kind: 'ellipse', to: apply(t, s.to), centre: apply(t, s.centre), v, sweep: s.sweep };
}

/**
 * Cubics that leave the ellipse by at most `tolerance`.
 * Rests on: those of the unit circle (Goldapp 1991), mapped as the ellipse is; the map lengthens no distance by more
 * than the longer half axis.
 */
function ellipseAsCubics(from: Point, s: EllipseSegment, tolerance: number): CubicSegment[] {
  const { major } = axesOf(from, s);
  const widest = (Math.PI / 2) * Math.min(1, (tolerance / (2.7253e-4 * major)) ** (1 / 6));
  const count = Math.max(1, Math.ceil(s.sweep / widest - 1e-9));
  const step = s.sweep / count;
  const handle = (4 / 3) * Math.tan(step / 4);
  return Array.from({ length: count }, (_, k) => {
    const reached = (angle: number, reach: number): Point => {
      const [at, v] = [placeAt(from, s, angle), velocityAt(from, s, angle)];
      return { x: at.x + reach * v.x, y: at.y + reach * v.y };
    };
    const to = k === count - 1 ? s.to : placeAt(from, s, (k + 1) * step);
    return { kind: 'cubic', c1: reached(k * step, handle), c2: reached((k + 1) * step, -handle), to };
  });
}

/** How many chords of equal angle stay within `tolerance`: a chord's error is at most (1/8) max |B''| da^2. */
function chordCount(from: Point, s: EllipseSegment, tolerance: number): number {
  const { major } = axesOf(from, s);
  return Math.max(1, Math.ceil(s.sweep / Math.min(Math.PI / 4, Math.sqrt((8 * tolerance) / major))));
}

export const ellipseOps: CurveOps<EllipseSegment> = {
  point: pointOnEllipse,
  derivative: (from, s, t) => {
    const { x, y } = velocityAt(from, s, s.sweep * t);
    return { x: s.sweep * x, y: s.sweep * y };
  },
  direction: directionOnEllipse,
  length: ellipseLength,
  area: ellipseArea,
  box: ellipseBox,
  nearest: nearestOnEllipse,
  split: splitEllipse,
  reversed: reversedEllipse,
  transformed: (_, s, t) => [transformedEllipse(s, t)],
  asCubics: ellipseAsCubics,
  bow: () => Infinity,
  advances: (from, s, d) => s.sweep <= Math.PI / 2 && [0, 1].every((t) => dot(directionOnEllipse(from, s, t), d) > 1e-9),
  centre: (_, s) => s.centre,
  chordCount,
};
