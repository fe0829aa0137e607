/**
 * In: the lengths and turns of a way, a speed and an acceleration. Out: how long it takes: speeds rise and fall evenly
 * (trapezoid profile), and corners are taken as fast as a small rounding of them would allow.
 * Rests on: constant acceleration, v² = u² + 2as; at a corner the speed of an arc that leaves it by `roundingMm`,
 * v² = a r with r = d sin(h) / (1 - sin(h)), h half the angle between the legs.
 */
import { directionOn, type Path, type Point, segmentLength, stepsOf } from '../plane/index.ts';

/** How far a corner may be thought rounded, mm: common practice for small cutters. */
const roundingMm = 0.02;

export interface Leg {
  readonly lengthMm: number;
  /** Directions at its start and end, length 1. */
  readonly from: Point;
  readonly to: Point;
}

export const legsOf = (path: Path): Leg[] =>
  stepsOf(path).map(({ from, segment }) => ({
    lengthMm: segmentLength(from, segment),
    from: directionOn(from, segment, 0),
    to: directionOn(from, segment, 1),
  }));

/** Seconds for legs travelled one after another, from rest to rest; speeds mm/s, accelerations mm/s². */
export function travelTime(legs: readonly Leg[], speed: number, acceleration: number): number {
  const n = legs.length;
  if (n === 0 || !(speed > 0) || !(acceleration > 0)) return 0;
  const limits = new Float64Array(n + 1);
  for (let k = 1; k < n; k++) limits[k] = cornerSpeed((legs[k - 1] as Leg).to, (legs[k] as Leg).from, speed, acceleration);
  for (let k = 1; k <= n; k++)
    limits[k] = Math.min(limits[k] as number, Math.sqrt((limits[k - 1] as number) ** 2 + 2 * acceleration * (legs[k - 1] as Leg).lengthMm));
  for (let k = n - 1; k >= 0; k--)
    limits[k] = Math.min(limits[k] as number, Math.sqrt((limits[k + 1] as number) ** 2 + 2 * acceleration * (legs[k] as Leg).lengthMm));
  return legs.reduce(
    (sum, { lengthMm }, k) => sum + trapezoid(lengthMm, limits[k] as number, limits[k + 1] as number, speed, acceleration),
    0,
  );
}

function cornerSpeed(into: Point, out: Point, speed: number, acceleration: number): number {
  const cosine = Math.min(1, Math.max(-1, into.x * out.x + into.y * out.y));
  // Of the angle between the legs half, from the turn: sin(h) = cos(turn / 2).
  const sine = Math.sqrt((1 + cosine) / 2);
  if (sine > 1 - 1e-9) return speed;
  return Math.min(speed, Math.sqrt((acceleration * roundingMm * sine) / (1 - sine)));
}

/** Seconds for a length that is entered at `u` and left at `v`, mm/s, with `top` never passed. */
export function trapezoid(length: number, u: number, v: number, top: number, acceleration: number): number {
  if (length <= 0) return 0;
  const peak = Math.min(top, Math.sqrt((2 * acceleration * length + u * u + v * v) / 2));
  const ramps = (peak * peak - u * u + peak * peak - v * v) / (2 * acceleration);
  return (peak - u + peak - v) / acceleration + Math.max(0, length - ramps) / peak;
}
