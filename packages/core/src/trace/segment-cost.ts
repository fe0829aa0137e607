/**
 * In: two places on a contour. Out: what a line, an arc or a cubic from one to the other costs, if it keeps within the limits.
 * What it takes to tell a segment is weighed with what it leaves over, in the manner of a description length.
 */
import { norm, type Point } from '../plane/point.ts';
import { type Care, type CurveEnd, fitCubic } from './curves.ts';
import type { EdgeModel } from './edge-model.ts';
import { parameters } from './parameters.ts';
import type { SampledContour } from './sampled-contour.ts';

/** The kinds that a way is made of. */
export const kinds = ['line', 'arc', 'cubic'] as const;
export type Kind = (typeof kinds)[number];

/** What it takes to tell a segment, against a line. */
export const modelCost: Record<Kind, number> = { line: parameters.costOfLine, arc: parameters.costOfArc, cubic: parameters.costOfCubic };
const residualCost = parameters.residualCost;
/** For comparing ways; the segments taken are fitted with more care. */
const quick: Care = { points: 24, rounds: 6 };

/** Between places so near a line, or an arc so flat, is left to the curves. */
export const impossible = Number.MAX_VALUE;

/**
 * What a segment of a kind costs from one place to another; infinite where it does not keep within the limits, and
 * `impossible` where it is too short to tell.
 */
export function fitCost(sampled: SampledContour, edgeModel: EdgeModel, kind: Kind, a: CurveEnd, b: CurveEnd): number {
  if (kind === 'cubic') {
    const { fits, rms } = fitCubic(sampled, edgeModel, a, b, quick);
    return fits ? modelCost.cubic + residualCost * (rms / edgeModel.rms) ** 2 : Infinity;
  }
  const limits = arcLimits(edgeModel);
  const rms = kind === 'line' ? lineBetween(sampled, a, b, limits) : arcBetween(sampled, a, b, limits);
  if (rms === impossible) return impossible;
  return rms === null ? Infinity : modelCost[kind] + residualCost * (rms / limits.rms) ** 2;
}

const minLine = parameters.minLine;
const minSweep = parameters.minArcSweep;
export const maxSweep = parameters.maxArcSweep;

interface ArcLimits {
  readonly rms: number;
  readonly worst: number;
  /** How far an arc may leave the contour's direction at its ends, radians. */
  readonly angle: number;
}

export const arcLimits = ({ noise, worst }: EdgeModel): ArcLimits => ({
  rms: Math.max(parameters.arcRmsAtLeast, parameters.arcRmsOfNoise * noise),
  worst: Math.min(worst, Math.max(parameters.arcWorstAtLeast, parameters.arcWorstOfNoise * noise)),
  angle: parameters.arcAngle + parameters.arcAngleOfNoise * noise,
});

const maxPoints = parameters.costPoints;

/** How far the contour leaves the straight line between two places, root mean square; null where it is not straight. */
function lineBetween(sampled: SampledContour, a: CurveEnd, b: CurveEnd, limits: ArcLimits): number | null {
  const [dx, dy] = [b.at.x - a.at.x, b.at.y - a.at.y];
  const size = norm(dx, dy);
  const [first, last] = [a.index + Math.max(1, a.blurMargin), b.index - Math.max(1, b.blurMargin)];
  if (last - first < minLine) return impossible;
  if (!(size > 0)) return null;
  for (const { direction } of [a, b]) {
    if (direction && Math.abs(direction.x * dy - direction.y * dx) > limits.angle * size) return null;
  }
  const stride = Math.max(1, Math.ceil((last - first + 1) / maxPoints));
  let [squares, count, worst] = [0, 0, 0];
  for (let k = first; k <= last; k += stride) {
    const off = (dx * (sampled.y(k) - a.at.y) - dy * (sampled.x(k) - a.at.x)) / size;
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
 * How far the contour leaves the arc through two places that lies nearest to it, root mean square; null where none keeps
 * within the limits. In the chord's own frame a circle through (-h, 0) and (h, 0) is x^2 + y^2 - 2 c y = h^2: its one
 * unknown c follows from least squares at once.
 */
function arcBetween(sampled: SampledContour, a: CurveEnd, b: CurveEnd, limits: ArcLimits): number | null {
  const [dx, dy] = [b.at.x - a.at.x, b.at.y - a.at.y];
  const chord = norm(dx, dy);
  if (chord < 1e-9) return impossible;
  const along = Math.atan2(dy, dx);
  const into = a.direction && wrapped(along - angleOf(a.direction));
  const out = b.direction && wrapped(angleOf(b.direction) - along);
  // Both ends must turn alike, as they do on an arc.
  if (into !== null && out !== null) {
    const sweep = into + out;
    if (Math.abs(into - out) > 2 * limits.angle + 0.04 * Math.abs(sweep)) return null;
    if (Math.abs(sweep) < minSweep) return impossible;
    if (Math.abs(sweep) > maxSweep) return null;
  }
  const first = a.index + Math.max(1, a.blurMargin);
  const last = b.index - Math.max(1, b.blurMargin);
  const stride = Math.max(1, Math.ceil((last - first + 1) / maxPoints));
  const [ux, uy] = [dx / chord, dy / chord];
  const [midX, midY, half] = [(a.at.x + b.at.x) / 2, (a.at.y + b.at.y) / 2, chord / 2];
  let [yy, yr, sum, count] = [0, 0, 0, 0];
  for (let k = first; k <= last; k += stride) {
    const [px, py] = [sampled.x(k) - midX, sampled.y(k) - midY];
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
  if (Math.abs(sweep) < minSweep) return impossible;
  if (Math.abs(sweep) > maxSweep) return null;
  const off = (turn: number | null) => turn !== null && Math.abs(turn - sweep / 2) > limits.angle + 0.02 * Math.abs(sweep);
  if (off(into) || off(out)) return null;
  const [centreX, centreY] = [midX - uy * rise, midY + ux * rise];
  let squares = 0;
  for (let k = first; k <= last; k += stride) {
    const [px, py] = [sampled.x(k) - centreX, sampled.y(k) - centreY];
    const left = Math.sqrt(px * px + py * py) - radius;
    if (Math.abs(left) > limits.worst) return null;
    squares += left * left;
  }
  const rms = Math.sqrt(squares / count);
  return rms <= limits.rms ? rms : null;
}
