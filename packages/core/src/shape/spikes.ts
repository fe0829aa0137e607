/**
 * In: a path. Out: the same without tails: short segments that run past a place and back again, or back and forth, by nearly
 * the same way. An offset has them where its outline is bent about as tightly as the distance.
 */
import { type CachedSegment, cachedSegments } from '../plane/cached-segment.ts';
import type { Path, Step } from '../plane/path.ts';
import { distance, dot } from '../plane/point.ts';
import { directionOn, nearestOnSegment, type Segment, segmentLength, splitSegment } from '../plane/segment.ts';

/**
 * What follows begins where a tail began, or what comes before ends where it ended.
 * @param max the longest of them, and a hundredth of it the farthest that both ways may lie apart, mm
 */
export function removeSpikes(path: Path, max: number): Path {
  const known = cachedSegments(path);
  const atTurn = turnsOf(known);
  if (!atTurn.includes(1)) return path;
  const steps: MarkedStep[] = known.map(({ from, segment }, k) => ({ from, segment, atTurn: atTurn[k] === 1 }));
  for (let k = 0; steps.length > 3 && k < steps.length; k++) {
    const { atTurn, from, segment } = steps[k] as MarkedStep;
    if (!atTurn || distance(from, segment.to) > max || segmentLength(from, segment) > max) continue;
    if (tookTail(steps, k, max / 100)) k = Math.max(-1, k - 3);
  }
  const [first] = steps as [MarkedStep];
  return { ...path, start: first.from, segments: steps.map(({ segment }) => segment) };
}

/** Takes the tail at a place out of the steps; false where it is none. */
function tookTail(steps: MarkedStep[], k: number, apart: number): boolean {
  const [last, next] = [(k + steps.length - 1) % steps.length, (k + 1) % steps.length];
  const [before, tail, after] = [steps[last], steps[k], steps[next]] as [MarkedStep, MarkedStep, MarkedStep];
  if (turnsRound(tail, after)) {
    const { distance: off, t } = nearestOnSegment(after.from, after.segment, tail.from);
    if (off > apart) return false;
    if (t >= 1) return tookBoth(steps, k);
    const part = t > 0 ? (splitSegment(after.from, after.segment, t)[1] as Segment) : after.segment;
    steps[next] = { from: tail.from, segment: part, atTurn: true };
  } else {
    if (!turnsRound(before, tail)) return false;
    const { distance: off, t } = nearestOnSegment(before.from, before.segment, tail.segment.to);
    if (off > apart || t <= 0) return false;
    const part = t < 1 ? (splitSegment(before.from, before.segment, t)[0] as Segment) : before.segment;
    steps[last] = { from: before.from, segment: { ...part, to: tail.segment.to }, atTurn: true };
  }
  steps.splice(k, 1);
  return true;
}

/** Takes a tail out that comes back by the whole of the next step, and that step with it. */
function tookBoth(steps: MarkedStep[], k: number): boolean {
  if (steps.length < 5) return false;
  const [last, next] = [(k + steps.length - 1) % steps.length, (k + 1) % steps.length];
  const [before, after] = [steps[last], steps[next]] as [MarkedStep, MarkedStep];
  steps[last] = { ...before, segment: { ...before.segment, to: after.segment.to } };
  for (const gone of [next, k].sort((a, b) => b - a)) steps.splice(gone, 1);
  return true;
}

interface MarkedStep extends Step {
  /** Whether it begins or ends where the path turns round. */
  readonly atTurn: boolean;
}

/** 1 for every segment that begins or ends where the path turns round. */
function turnsOf(known: readonly CachedSegment[]): Uint8Array {
  const n = known.length;
  const atTurn = new Uint8Array(n);
  for (let k = 0; k < n; k++) {
    const next = (k + 1) % n;
    if (dot((known[k] as CachedSegment).endTangent, (known[next] as CachedSegment).startTangent) > -roundTurn) continue;
    atTurn[k] = 1;
    atTurn[next] = 1;
  }
  return atTurn;
}

/** A path turns round where it turns by more than two thirds of a half turn: the cosine of what is left. */
const roundTurn = 0.5;
const turnsRound = (before: Step, after: Step): boolean =>
  dot(directionOn(before.from, before.segment, 1), directionOn(after.from, after.segment, 0)) < -roundTurn;
