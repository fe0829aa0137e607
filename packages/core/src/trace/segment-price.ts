/**
 * In: two places on a course. Out: what a line, an arc or a cubic from one to the other costs, if it keeps within the limits.
 * What it takes to tell a segment is weighed with what it leaves over, in the manner of a description length.
 */
import { norm, type Point } from '../plane/point.ts';
import type { Segment } from '../plane/segment.ts';
import type { Course } from './course.ts';
import { type Care, type CurveEnd, fitCubic } from './curves.ts';
import type { Grain } from './grain.ts';

/** The kinds that a way is made of. */
export const kinds = ['line', 'arc', 'cubic'] as const;
export type Kind = (typeof kinds)[number];

/** What it takes to tell a segment, against a line. */
export const costOf: Record<Segment['kind'], number> = { line: 1, arc: 2.2, ellipse: 3, cubic: 3 };
/** What a segment that uses its limit up costs more. */
const leftOverCost = 0.4;
/** For comparing ways; the segments taken are fitted with more care. */
const quick: Care = { points: 24, rounds: 6 };

/** Between places so near a line, or an arc so flat, is left to the curves. */
export const tooShort = Number.MAX_VALUE;

/**
 * What a segment of a kind costs from one place to another; infinite where it does not keep within the limits, and
 * `tooShort` where it is too short to tell.
 */
export function priceOf(course: Course, grain: Grain, kind: Kind, a: CurveEnd, b: CurveEnd): number {
  if (kind === 'cubic') {
    const { fits, rms } = fitCubic(course, grain, a, b, quick);
    return fits ? costOf.cubic + leftOverCost * (rms / grain.rms) ** 2 : Infinity;
  }
  const limits = arcLimits(grain);
  const rms = kind === 'line' ? lineBetween(course, a, b, limits) : arcBetween(course, a, b, limits);
  if (rms === tooShort) return tooShort;
  return rms === null ? Infinity : costOf[kind] + leftOverCost * (rms / limits.rms) ** 2;
}

/** Shorter lines beside curves are left to these, points. */
const leastLine = 24;
/** Arcs that turn less are left to the curves, radians; ones that turn more are doubtful. */
const leastSweep = 0.2;
export const mostSweep = 5.5;

interface ArcLimits {
  readonly rms: number;
  readonly worst: number;
  /** How far an arc may leave the course's direction at its ends, radians. */
  readonly angle: number;
}

export const arcLimits = ({ roughness, worst }: Grain): ArcLimits => ({
  rms: Math.max(0.08, 1.4 * roughness),
  worst: Math.min(worst, Math.max(0.35, 5 * roughness)),
  angle: 0.012 + 0.35 * roughness,
});

/** More points tell a line or an arc nothing new. */
const mostPoints = 20;

/** How far the course leaves the straight line between two places, root mean square; null where it is not straight. */
function lineBetween(course: Course, a: CurveEnd, b: CurveEnd, limits: ArcLimits): number | null {
  const [dx, dy] = [b.at.x - a.at.x, b.at.y - a.at.y];
  const size = norm(dx, dy);
  const [first, last] = [a.index + Math.max(1, a.spoilt), b.index - Math.max(1, b.spoilt)];
  if (last - first < leastLine) return tooShort;
  if (!(size > 0)) return null;
  for (const { direction } of [a, b]) {
    if (direction && Math.abs(direction.x * dy - direction.y * dx) > limits.angle * size) return null;
  }
  const stride = Math.max(1, Math.ceil((last - first + 1) / mostPoints));
  let [squares, count, worst] = [0, 0, 0];
  for (let k = first; k <= last; k += stride) {
    const off = (dx * (course.y(k) - a.at.y) - dy * (course.x(k) - a.at.x)) / size;
    squares += off * off;
    worst = Math.max(worst, Math.abs(off));
    count++;
  }
  const rms = Math.sqrt(squares / count);
  return rms <= limits.rms && worst <= limits.worst ? rms : null;
}

const angleOf = (d: Point): number => Math.atan2(d.y, d.x);
const wrapped = (angle: number): number => angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));

/**
 * How far the course leaves the arc through two places that lies nearest to it, root mean square; null where none keeps
 * within the limits. In the chord's own frame a circle through (-h, 0) and (h, 0) is x^2 + y^2 - 2 c y = h^2: its one
 * unknown c follows from least squares at once.
 */
function arcBetween(course: Course, a: CurveEnd, b: CurveEnd, limits: ArcLimits): number | null {
  const [dx, dy] = [b.at.x - a.at.x, b.at.y - a.at.y];
  const chord = norm(dx, dy);
  if (chord < 1e-9) return tooShort;
  const along = Math.atan2(dy, dx);
  const into = a.direction && wrapped(along - angleOf(a.direction));
  const out = b.direction && wrapped(angleOf(b.direction) - along);
  // Both ends must turn alike, as they do on an arc.
  if (into !== null && out !== null) {
    const sweep = into + out;
    if (Math.abs(into - out) > 2 * limits.angle + 0.04 * Math.abs(sweep)) return null;
    if (Math.abs(sweep) < leastSweep) return tooShort;
    if (Math.abs(sweep) > mostSweep) return null;
  }
  const first = a.index + Math.max(1, a.spoilt);
  const last = b.index - Math.max(1, b.spoilt);
  const stride = Math.max(1, Math.ceil((last - first + 1) / mostPoints));
  const [ux, uy] = [dx / chord, dy / chord];
  const [midX, midY, half] = [(a.at.x + b.at.x) / 2, (a.at.y + b.at.y) / 2, chord / 2];
  let [yy, yr, sum, count] = [0, 0, 0, 0];
  for (let k = first; k <= last; k += stride) {
    const [px, py] = [course.x(k) - midX, course.y(k) - midY];
    const y = ux * py - uy * px;
    yy += y * y;
    yr += y * (px * px + py * py - half * half);
    sum += y;
    count++;
  }
  if (!(yy > 0)) return null;
  const rise = yr / (2 * yy);
  const radius = Math.sqrt(rise * rise + half * half);
  // The bow lies on the side of the points; above the centre it is less than half a circle.
  const side = Math.sign(sum);
  const sweep = -2 * side * Math.atan2(half, -side * rise);
  if (Math.abs(sweep) < leastSweep) return tooShort;
  if (Math.abs(sweep) > mostSweep) return null;
  const off = (turn: number | null) => turn !== null && Math.abs(turn - sweep / 2) > limits.angle + 0.02 * Math.abs(sweep);
  if (off(into) || off(out)) return null;
  const [centreX, centreY] = [midX - uy * rise, midY + ux * rise];
  let squares = 0;
  for (let k = first; k <= last; k += stride) {
    const [px, py] = [course.x(k) - centreX, course.y(k) - centreY];
    const left = Math.sqrt(px * px + py * py) - radius;
    if (Math.abs(left) > limits.worst) return null;
    squares += left * left;
  }
  const rms = Math.sqrt(squares / count);
  return rms <= limits.rms ? rms : null;
}
