/**
 * In: a path. Out: the same without the points that say nothing, and which those were.
 */
import { type Path, pathLength, type Step, stepsOf } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { nearestOnSegment, type Segment } from '../plane/segment.ts';

const isShort = ({ from, segment }: Step, within: number): boolean =>
  distance(from, segment.to) < within &&
  (segment.kind === 'line' || pathLength({ start: from, segments: [segment], closed: false }) < within);

/** Whether all the points between lie on the straight from one to the other, in order. */
function lieOnLine(from: Point, between: readonly Point[], to: Point, within: number): boolean {
  const whole: Segment = { kind: 'line', to };
  let before = 0;
  return between.every((p) => {
    const near = nearestOnSegment(from, whole, p);
    const isNext = near.t > before && near.t < 1;
    before = near.t;
    return isNext && near.distance < within;
  });
}

/**
 * A path without the points that change nothing: steps of no length, and points on a straight.
 * @param within how far a point may lie from the straight, in the path's unit
 */
export function withoutNeedless(path: Path, within: number): { path: Path; gone: Point[] } {
  const kept: (Step & { readonly through: readonly Point[] })[] = [];
  const gone: Point[] = [];
  const isStraight = (a: Step, b: Step): boolean => a.segment.kind === 'line' && b.segment.kind === 'line';
  for (const step of stepsOf(path)) {
    const last = kept.at(-1);
    if (last && isShort(step, within)) {
      kept[kept.length - 1] = { ...last, segment: { ...last.segment, to: step.segment.to } };
      gone.push(step.from);
    } else if (last && isStraight(last, step) && lieOnLine(last.from, [...last.through, step.from], step.segment.to, within)) {
      kept[kept.length - 1] = { from: last.from, segment: step.segment, through: [...last.through, step.from] };
      gone.push(step.from);
    } else kept.push({ ...step, through: [] });
  }
  const [first, last] = [kept[0], kept.at(-1)];
  if (path.closed && first && last && kept.length > 3 && isStraight(last, first)) {
    const through = [...last.through, first.from, ...first.through];
    if (lieOnLine(last.from, through, first.segment.to, within)) {
      gone.push(first.from);
      kept.shift();
      kept[kept.length - 1] = { from: last.from, segment: first.segment, through };
    }
  }
  if (gone.length === 0) return { path, gone };
  return { path: { start: (kept[0] as Step).from, segments: kept.map((s) => s.segment), closed: path.closed }, gone };
}
