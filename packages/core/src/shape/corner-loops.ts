/**
 * In: a path. Out: the same without the small loops in which neighbours run across each other beside the corner where they
 * meet: both end where they cross.
 */
import { type Path, type Step, stepsOf } from '../plane/path.ts';
import { distance, dot, subtract } from '../plane/point.ts';
import { directionOn, type Segment, segmentLength, splitSegment } from '../plane/segment.ts';
import { samePlaceMm, segmentCrossings } from './crossings.ts';

/** Neighbours that turn less at their joint, as the cosine of 17 degrees, do not come across each other there. */
const bluntest = Math.cos(0.3);

/** @param reach the farthest that a crossing may lie from its corner, in the path's unit */
export function withoutCornerLoops(path: Path, reach: number): Path {
  const steps: Step[] = [...stepsOf(path)];
  for (let k = 0; k < steps.length; k++) {
    if (!path.closed && k + 1 === steps.length) break;
    const [a, b] = [steps[k], steps[(k + 1) % steps.length]] as [Step, Step];
    if (a === b || !mayLoop(a, b)) continue;
    // What is shorter than the loop may lie in it as a whole.
    const isShort = segmentLength(b.from, b.segment) < reach && steps.length > 2 && (path.closed || k + 2 < steps.length);
    if (cutAt(steps, k, 1, reach) || !isShort) continue;
    cutAt(steps, k, 2, reach);
  }
  const [first] = steps;
  return first ? { ...path, start: first.from, segments: steps.map(({ segment }) => segment) } : path;
}

/** Whether there is a corner between two neighbours, or one of them comes to their joint, or leaves it, from behind. */
function mayLoop(a: Step, b: Step): boolean {
  const [into, out] = [directionOn(a.from, a.segment, 1), directionOn(b.from, b.segment, 0)];
  const isCorner = dot(into, out) < bluntest;
  return isCorner || dot(into, subtract(a.segment.to, a.from)) < 0 || dot(out, subtract(b.segment.to, b.from)) < 0;
}

/** Cuts two steps, so many apart, off where they cross near the first one's end; false where they do not. */
function cutAt(steps: Step[], k: number, apart: 1 | 2, reach: number): boolean {
  const next = (k + apart) % steps.length;
  const [a, b] = [steps[k], steps[next]] as [Step, Step];
  if (a.segment.kind === 'line' && b.segment.kind === 'line' && apart === 1) return false;
  const corner = a.segment.to;
  const [found] = segmentCrossings(a, b).filter(({ at, t, u }) => {
    const off = distance(at, corner);
    return off > samePlaceMm && off <= reach && t > 0 && u < 1;
  });
  if (!found) return false;
  const { at, t, u } = found;
  const before: Segment = t < 1 ? { ...splitSegment(a.from, a.segment, t)[0], to: at } : a.segment;
  const after = u > 0 ? splitSegment(b.from, b.segment, u)[1] : b.segment;
  steps[k] = { from: a.from, segment: before };
  steps[next] = { from: at, segment: after };
  if (apart === 2) steps.splice((k + 1) % steps.length, 1);
  return true;
}
