/**
 * In: points of one plane. Out: points of another: x' = a x + c y + e, y' = b x + d y + f.
 * Rests on: the affine matrix as SVG and canvas write it.
 */
import { norm, type Point, point } from './point.ts';

export interface Transform {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
  readonly f: number;
}

export const identity: Transform = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };
export const shift = (x: number, y: number): Transform => ({ ...identity, e: x, f: y });
export const stretch = (sx: number, sy = sx): Transform => ({ ...identity, a: sx, d: sy });
/** A map about a place that it leaves where it is, as the map is about the origin. */
export const about = (p: Point, map: Transform): Transform => chain(shift(p.x, p.y), chain(map, shift(-p.x, -p.y)));
/** A turn about the origin, radians counter-clockwise where y is up. */
export const turn = (angle: number): Transform => ({
  a: Math.cos(angle),
  b: Math.sin(angle),
  c: -Math.sin(angle),
  d: Math.cos(angle),
  e: 0,
  f: 0,
});

/** First `inner`, then `outer`. */
export function chain(outer: Transform, inner: Transform): Transform {
  return {
    a: outer.a * inner.a + outer.c * inner.b,
    b: outer.b * inner.a + outer.d * inner.b,
    c: outer.a * inner.c + outer.c * inner.d,
    d: outer.b * inner.c + outer.d * inner.d,
    e: outer.a * inner.e + outer.c * inner.f + outer.e,
    f: outer.b * inner.e + outer.d * inner.f + outer.f,
  };
}

/** How much areas grow; negative where the plane is mirrored. */
export const determinant = (t: Transform): number => t.a * t.d - t.b * t.c;

/** The transform back. Refuses one that flattens the plane. */
export function inverse(t: Transform): Transform {
  const det = determinant(t);
  if (det === 0 || !Number.isFinite(det)) throw new RangeError('a transform that flattens the plane has no inverse');
  return {
    a: t.d / det,
    b: -t.b / det,
    c: -t.c / det,
    d: t.a / det,
    e: (t.c * t.f - t.d * t.e) / det,
    f: (t.b * t.e - t.a * t.f) / det,
  };
}

export const isIdentity = ({ a, b, c, d, e, f }: Transform): boolean => a === 1 && b === 0 && c === 0 && d === 1 && e === 0 && f === 0;

export function apply(t: Transform, p: Point): Point {
  return point(t.a * p.x + t.c * p.y + t.e, t.b * p.x + t.d * p.y + t.f);
}

/** Whether circles stay circles: a turn, a uniform scale, a mirror and a shift at most. */
export function isSimilarity(t: Transform): boolean {
  const size = norm(t.a, t.b) + norm(t.c, t.d);
  const turned = Math.abs(t.a - t.d) + Math.abs(t.b + t.c);
  const mirrored = Math.abs(t.a + t.d) + Math.abs(t.b - t.c);
  return Math.min(turned, mirrored) <= 1e-12 * size;
}

/** Whether it lays the plane on a line, or so nearly that nothing of an area is left. */
export function isFlat(t: Transform): boolean {
  const size = norm(t.a, t.b) ** 2 + norm(t.c, t.d) ** 2;
  return !(Math.abs(determinant(t)) > 1e-9 * size);
}

/** How much lengths grow under a similarity. */
export const scaleOf = (t: Transform): number => Math.sqrt(Math.abs(determinant(t)));
