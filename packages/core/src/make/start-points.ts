/** In: a closed outline to cut. Out: where it may start, and the same outline started there. */

import { distance, nearestOnPath, type Path, type Point, type Segment, splitPath, stepsOf } from '../plane/index.ts';
import { cornersOf } from '../shape/index.ts';
import type { Cutting } from './cutting.ts';

/** A corner that turns by this much hides the mark of a start, radians. */
const hidingTurn = 0.35;

/** Where a closed cut may start: its corners, the sharpest first; of a smooth one the joints of its segments. */
export function startPoints(path: Path, start: Cutting['start']): Point[] {
  if (start !== 'corner') return [nearestOnPath(path, start).point];
  const corners = cornersOf(path)
    .filter(({ turn }) => Math.abs(turn) > hidingTurn)
    .sort((a, b) => Math.abs(b.turn) - Math.abs(a.turn));
  return corners.length > 0 ? corners.map(({ at }) => at) : stepsOf(path).map(({ from }) => from);
}

/** The same closed path, started at a place on it. */
export function startedAt(path: Path, at: Point): Path {
  const { index, t } = nearestOnPath(path, at);
  const { from, segment } = stepsOf(path)[index] as ReturnType<typeof stepsOf>[0];
  const isEnd = distance(at, segment.to) < 1e-7;
  const isStart = distance(at, from) < 1e-7;
  if (isStart || isEnd) {
    const k = isStart ? index : (index + 1) % path.segments.length;
    const segments = [...path.segments.slice(k), ...path.segments.slice(0, k)];
    return { start: (path.segments.at(k - 1) as Segment).to, segments, closed: true };
  }
  return { ...(splitPath(path, index, t)[0] as Path), closed: true };
}
