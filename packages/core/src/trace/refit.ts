/**
 * In: an outline of which a hand has changed some segments, and the borders that it was traced from. Out: the outline with
 * all other segments fitted anew, by another tolerance say; what the hand changed stays as it is.
 */
import type { Path } from '../plane/path.ts';
import { polygonOf, stepsOf } from '../plane/path.ts';
import { dot, type Point } from '../plane/point.ts';
import { directionOn, type Segment } from '../plane/segment.ts';
import { nearestContour, stretchBetween } from './border-stretch.ts';
import { openPathAlong } from './outline.ts';
import { type BorderSettings, minNoisePx } from './snap-to-edge.ts';

export interface Refitted {
  readonly path: Path;
  /** Which of its segments are the hand's. */
  readonly touched: readonly number[];
}

/** Joints that turn less than this go on smoothly, as the cosine of the turn. */
const smooth = Math.cos(0.02);

interface Run {
  readonly first: number;
  readonly count: number;
}

/**
 * Outlines that a hand has not touched at all are left as they are: a new trace has them anyway.
 * @param path in pixels
 * @param touched the numbers of its segments that a hand has changed
 * @param contours closed borders, x and y in turn, px
 */
export function refittedBetween(
  path: Path,
  touched: readonly number[],
  contours: readonly Float64Array[],
  settings: BorderSettings,
): Refitted {
  const isTouched = new Set(touched);
  if (isTouched.size === 0 || isTouched.size >= path.segments.length) return { path, touched };
  const steps = stepsOf(path);
  // A closed outline begins with what the hand changed, so that no run passes its start.
  const turn = path.closed ? (touched[0] as number) : 0;
  const order = steps.map((_, k) => (turn + k) % steps.length);
  const segments: Segment[] = [];
  const now: number[] = [];
  for (let k = 0; k < order.length; ) {
    if (isTouched.has(order[k] as number)) {
      now.push(segments.length);
      segments.push((steps[order[k] as number] as (typeof steps)[0]).segment);
      k++;
      continue;
    }
    let count = 1;
    while (k + count < order.length && !isTouched.has(order[k + count] as number)) count++;
    segments.push(...refittedRun(path, order, { first: k, count }, contours, settings));
    k += count;
  }
  const start = (steps[order[0] as number] as (typeof steps)[0]).from;
  return { path: { start, segments, closed: path.closed }, touched: now };
}

function refittedRun(
  path: Path,
  order: readonly number[],
  { first, count }: Run,
  contours: readonly Float64Array[],
  settings: BorderSettings,
): readonly Segment[] {
  const steps = stepsOf(path);
  const stepAt = (k: number) => steps[order[(k + order.length) % order.length] as number] as (typeof steps)[0];
  const run = Array.from({ length: count }, (_, k) => stepAt(first + k));
  const was = run.map(({ segment }) => segment);
  const [begin, end] = [run[0] as (typeof steps)[0], run.at(-1) as (typeof steps)[0]];
  const along: Path = { start: begin.from, segments: was, closed: false };
  const looked = polygonOf(along, Math.max(0.5, settings.tolerancePx));
  const border = nearestContour(looked, contours, settings.searchRadiusPx);
  const sampled = border && stretchBetween(border, begin.from, end.segment.to, looked[looked.length >> 1] as Point);
  if (!sampled || sampled.length < 16) return was;
  const isEnd = (k: number) => !path.closed && (k < 0 || k >= order.length);
  const joint = (before: number, at: Point, inward: Point) => {
    const other = isEnd(before) ? null : stepAt(before);
    const direction = other && directionOn(other.from, other.segment, before < first ? 1 : 0);
    return { at, direction: direction && dot(direction, inward) > smooth ? direction : null };
  };
  const from = joint(first - 1, begin.from, directionOn(begin.from, begin.segment, 0));
  const to = joint(first + count, end.segment.to, directionOn(end.from, end.segment, 1));
  return openPathAlong(sampled, [from, to], settings.blur, minNoisePx, settings.tolerancePx).segments;
}
