/**
 * In: a smooth run of a contour, from one corner to the next. Out: the stretches in it that are straight.
 * A stretch is straight when no line-like bow is left in its inner part: a chord of an arc that just passes the
 * distance limit keeps half of its bow there, a true edge keeps none.
 */
import { bendJumps, jumpArm } from './bend-jumps.ts';
import type { EdgeModel } from './edge-model.ts';
import { parameters } from './parameters.ts';
import type { SampledContour, StretchLine } from './sampled-contour.ts';

export interface Stretch {
  /** Course indices, both in; `last` may pass the contour's end. */
  readonly first: number;
  readonly last: number;
  readonly line: StretchLine;
}

/** Shorter stretches are left to the curves, in points. */
const shortest = (edgeModel: EdgeModel): number => Math.max(16, 2 * (edgeModel.gap + edgeModel.arm));

/** Whether the whole stretch is one straight edge. */
export function isStraight(sampled: SampledContour, edgeModel: EdgeModel, first: number, last: number): boolean {
  const line = sampled.line(first, last);
  if (line.rms > edgeModel.rms) return false;
  for (let k = first; k <= last; k++) if (Math.abs(sampled.offset(k, line)) > edgeModel.worst) return false;
  return Math.abs(bowOf(sampled, first, last)) <= bowLimit(edgeModel);
}

const bowLimit = (edgeModel: EdgeModel): number => Math.max(0.14, 1.2 * edgeModel.noise, 0.8 * edgeModel.rms);

/** Height of the parabola that fits the points' offsets from their line best, end to middle, px. */
function bowOf(sampled: SampledContour, first: number, last: number): number {
  const line = sampled.line(first, last);
  const n = last - first + 1;
  // Offsets against the second Legendre polynomial on even steps.
  let [sum, norm] = [0, 0];
  for (let k = 0; k < n; k++) {
    const u = n > 1 ? (2 * k) / (n - 1) - 1 : 0;
    const p2 = 1.5 * u * u - 0.5;
    sum += p2 * sampled.offset(first + k, line);
    norm += p2 * p2;
  }
  return norm > 0 ? (1.5 * sum) / norm : 0;
}

/** The straight stretches within points `from` to `to`, in order, none overlapping. */
export function straightStretches(sampled: SampledContour, edgeModel: EdgeModel, from: number, to: number): Stretch[] {
  const min = shortest(edgeModel);
  if (to - from < min) return [];
  const reach = reaches(sampled, Math.max(0.12, 1.6 * edgeModel.noise), from, to);
  const taken: Stretch[] = [];
  // The longest stretch first, then what is free before it and after it.
  for (const free: [number, number][] = [[from, to]]; free.length > 0; ) {
    const [lowest, highest] = free.pop() as [number, number];
    let [first, last] = [lowest, lowest];
    for (let k = lowest; k <= highest - min; k++) {
      const end = Math.min(highest, reach[k - from] as number);
      if (end - k > last - first) [first, last] = [k, end];
    }
    if (last - first < min) continue;
    free.push([lowest, first - 1], [last + 1, highest]);
    const stretch = settled(sampled, edgeModel, first, last, [from, to]);
    // A stretch that is cut short has not had the length in which an arc would show its bow.
    const enough = first === lowest || last === highest ? 2.5 * min : min;
    if (stretch && stretch.last - stretch.first >= enough) taken.push(stretch);
  }
  return taken.sort((a, b) => a.first - b.first);
}

/** For each start, the farthest point up to which the line's rms stays within the limit. */
function reaches(sampled: SampledContour, limit: number, from: number, to: number): Int32Array {
  const reach = new Int32Array(to - from + 1);
  const line: StretchLine = { x: 0, y: 0, dx: 1, dy: 0, rms: 0 };
  let last = from + 2;
  for (let first = from; first <= to; first++) {
    last = Math.max(last, Math.min(to, first + 2));
    while (last < to && sampled.line(first, last + 1, line).rms <= limit) last++;
    reach[first - from] = sampled.line(first, last, line).rms <= limit ? last : first;
  }
  return reach;
}

const overrun = parameters.straightOverrun;

/** The stretch with the beginnings of neighbouring curves taken off its ends; null where it bows. */
function settled(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  first: number,
  last: number,
  run: readonly [number, number],
): Stretch | null {
  const margin = Math.floor((last - first) * 0.15);
  let [a, b] = [first + margin, last - margin];
  if (Math.abs(bowOf(sampled, a, b)) > Math.max(0.1, 0.8 * edgeModel.noise)) return null;
  const inner = sampled.line(a, b);
  const limit = Math.max(0.1, 1.5 * edgeModel.noise);
  // The mean of eleven points, so that one grain of dust does not end an edge; none from beyond a corner.
  const near = (k: number): boolean => {
    const [min, max] = [Math.max(run[0], k - 5), Math.min(run[1], k + 5)];
    let sum = 0;
    for (let i = min; i <= max; i++) sum += sampled.offset(i, inner);
    return Math.abs(sum) <= limit * (max - min + 1);
  };
  while (a > first && near(a - 1)) a--;
  while (b < last && near(b + 1)) b++;
  // A bend shows only some points after it began; where it begins at once, that place is known.
  if (a > first) a = jumpNear(sampled, edgeModel, a, -1, run) ?? Math.min(a + overrun, first + margin);
  if (b < last) b = jumpNear(sampled, edgeModel, b, 1, run) ?? Math.max(b - overrun, last - margin);
  return { first: a, last: b, line: sampled.line(a, b) };
}

/** Where a bend that goes on begins at once near the end of a stretch; null where none does, as at a corner. */
function jumpNear(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  end: number,
  sign: 1 | -1,
  [min, max]: readonly [number, number],
): number | null {
  const arm = jumpArm(edgeModel);
  const jumps = bendJumps(sampled, edgeModel, Math.max(min, end - 4 * arm), Math.min(max, end + 4 * arm));
  const near = jumps.filter((k) => Math.abs(k - end) <= 3 * overrun).sort((a, b) => Math.abs(a - end) - Math.abs(b - end));
  const [jump] = near;
  if (jump === undefined || jump + 3 * sign * arm < min || jump + 3 * sign * arm > max) return null;
  const line = (n: number): StretchLine => {
    const [from, to] = [jump + n * sign * arm, jump + (n + 1) * sign * arm];
    return sampled.line(Math.min(from, to), Math.max(from, to));
  };
  const [one, two, three] = [line(0), line(1), line(2)];
  const [first, second] = [one.dx * two.dy - one.dy * two.dx, two.dx * three.dy - two.dy * three.dx];
  return first * second > 0 && Math.min(Math.abs(first), Math.abs(second)) > 0.5 * Math.max(Math.abs(first), Math.abs(second))
    ? jump
    : null;
}
