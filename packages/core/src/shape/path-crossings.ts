/**
 * In: paths. Out: where they cross or touch themselves and one another; what was found is remembered, so that after a point
 * has moved only what lies about it is sought again.
 */
import { type CachedSegment, cachedSegments } from '../plane/cached-segment.ts';
import { opsOf } from '../plane/curves.ts';
import type { Path } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { pointOn } from '../plane/segment.ts';
import { boxIndex, flatBoxes } from './box-index.ts';
import { type Crossing, samePlaceMm, segmentCrossings } from './crossings.ts';

/** A place on one of several paths. */
export interface CutPlace {
  readonly path: number;
  readonly segment: number;
  readonly t: number;
  readonly at: Point;
}

interface Placed {
  readonly path: number;
  readonly index: number;
  readonly step: CachedSegment;
}

const placedSteps = (paths: readonly Path[]): Placed[] =>
  paths.flatMap((path, p) => cachedSegments(path).map((step, index) => ({ path: p, index, step })));

/** Where the paths of one list meet those of another: the same places told on either side. */
export function pathCrossings(a: readonly Path[], b: readonly Path[]): { readonly onA: CutPlace[]; readonly onB: CutPlace[] } {
  const [as, bs] = [placedSteps(a), placedSteps(b)];
  const [onA, onB]: [CutPlace[], CutPlace[]] = [[], []];
  const index = boxIndex(bs.map(({ step }) => step.box));
  for (const s of as) {
    const { minX, minY, maxX, maxY } = s.step.box;
    for (const k of index?.search(minX, minY, maxX, maxY) ?? []) {
      const other = bs[k] as Placed;
      for (const { t, u, at } of segmentCrossings(s.step, other.step)) {
        onA.push({ path: s.path, segment: s.index, t, at });
        onB.push({ path: other.path, segment: other.index, t: u, at });
      }
    }
  }
  return { onA, onB };
}

interface Meeting<Of> {
  readonly a: Of;
  readonly b: Of;
  readonly crossings: readonly Crossing[];
}

/** Pairs of segments that meet, as they were found last; they need not be sought again where neither has changed. */
export interface CrossingMemory {
  /** Every segment, with the one that follows it. */
  steps: ReadonlyMap<CachedSegment, CachedSegment | undefined>;
  meetings: readonly Meeting<CachedSegment>[];
}

export const noCrossingMemory = (): CrossingMemory => ({ steps: new Map(), meetings: [] });

/** Of more changed segments than one in so many all are sought anew, by an index of their boxes. */
const fewChanged = 16;

/**
 * Where paths cross or touch themselves and one another, neighbouring segments' common joints left out.
 * @param memory of the same paths before a change; it is brought up to date
 */
export function selfCrossings(paths: readonly Path[], memory: CrossingMemory = noCrossingMemory()): CutPlace[] {
  const steps = placedSteps(paths);
  const found: CutPlace[] = [];
  for (const s of steps) {
    const { loop, from, segment } = s.step;
    if (!loop) continue;
    const at = pointOn(from, segment, loop[0]);
    found.push(...loop.map((t): CutPlace => ({ path: s.path, segment: s.index, t, at })));
  }
  for (const { a, b, crossings } of meetingsOf(paths, steps, memory)) {
    for (const { t, u, at } of crossings) {
      if (isJoint(paths, a, b, at)) continue;
      found.push({ path: a.path, segment: a.index, t, at }, { path: b.path, segment: b.index, t: u, at });
    }
  }
  return found;
}

/** All pairs of segments that meet elsewhere than two that only go on from one another. */
function meetingsOf(paths: readonly Path[], steps: readonly Placed[], memory: CrossingMemory): readonly Meeting<Placed>[] {
  const now = new Map<CachedSegment, CachedSegment | undefined>();
  steps.forEach(({ path, index, step }, k) => {
    const isLast = index === (paths[path] as Path).segments.length - 1;
    now.set(step, isLast ? ((paths[path] as Path).closed ? steps[k - index]?.step : undefined) : steps[k + 1]?.step);
  });
  if (now.size < steps.length) {
    // Where one segment stands twice, its place does not follow from it.
    [memory.steps, memory.meetings] = [new Map(), []];
    return allMeetings(paths, steps);
  }
  const changed = changedSteps(paths, steps, now, memory.steps);
  const isSoughtAnew = changed.length * fewChanged > steps.length;
  const meetings = isSoughtAnew
    ? allMeetings(paths, steps)
    : [...stayingMeetings(steps, changed, memory), ...meetingsWith(paths, steps, changed)];
  [memory.steps, memory.meetings] = [now, meetings.map(({ a, b, crossings }) => ({ a: a.step, b: b.step, crossings }))];
  return meetings;
}

function stayingMeetings(steps: readonly Placed[], changed: readonly number[], { meetings }: CrossingMemory): Meeting<Placed>[] {
  const taking = new Set(meetings.flatMap(({ a, b }) => [a, b]));
  const staying = new Map(steps.filter(({ step }) => taking.has(step)).map((s) => [s.step, s]));
  for (const k of changed) staying.delete((steps[k] as Placed).step);
  return meetings.flatMap(({ a, b, crossings }) => {
    const [s, other] = [staying.get(a), staying.get(b)];
    return s && other ? [{ a: s, b: other, crossings }] : [];
  });
}

/** Positions of segments that are new, or whose neighbours are; an open path's first counts among them. */
function changedSteps(
  paths: readonly Path[],
  steps: readonly Placed[],
  now: CrossingMemory['steps'],
  then: CrossingMemory['steps'],
): number[] {
  const changed: number[] = [];
  steps.forEach(({ path, index, step }, k) => {
    const { closed, segments } = paths[path] as Path;
    const before = index > 0 ? steps[k - 1] : closed ? steps[k + segments.length - 1] : undefined;
    const stays = before && then.has(step) && then.get(step) === now.get(step) && then.get(before.step) === step;
    if (!stays) changed.push(k);
  });
  return changed;
}

function meetingOf(paths: readonly Path[], s: Placed, other: Placed): Meeting<Placed>[] {
  if (meetsOnlyAtJoint(paths, s, other)) return [];
  const crossings = segmentCrossings(s.step, other.step);
  return crossings.length > 0 ? [{ a: s, b: other, crossings }] : [];
}

function allMeetings(paths: readonly Path[], steps: readonly Placed[]): Meeting<Placed>[] {
  const index = boxIndex(steps.map(({ step }) => step.box));
  return steps.flatMap((s, k) => {
    const { minX, minY, maxX, maxY } = s.step.box;
    const beside = index?.search(minX, minY, maxX, maxY, (l) => l > k) ?? [];
    return beside.flatMap((l) => meetingOf(paths, s, steps[l] as Placed));
  });
}

/** The meetings in which one of the changed segments takes part, by looking at each other's boxes. */
function meetingsWith(paths: readonly Path[], steps: readonly Placed[], changed: readonly number[]): Meeting<Placed>[] {
  const isChanged = new Set(changed);
  const boxes = flatBoxes(steps.map(({ step }) => step));
  const found: Meeting<Placed>[] = [];
  for (const k of changed) {
    const s = steps[k] as Placed;
    const { minX, minY, maxX, maxY } = s.step.box;
    const [left, right, low, high] = [minX - samePlaceMm, maxX + samePlaceMm, minY - samePlaceMm, maxY + samePlaceMm];
    for (let l = 0, b = 0; l < steps.length; l++, b += 4) {
      if ((boxes[b] as number) > right || (boxes[b + 2] as number) < left) continue;
      if ((boxes[b + 1] as number) > high || (boxes[b + 3] as number) < low || l === k) continue;
      if (l > k) found.push(...meetingOf(paths, s, steps[l] as Placed));
      else if (!isChanged.has(l)) found.push(...meetingOf(paths, steps[l] as Placed, s));
    }
  }
  return found;
}

/**
 * Whether two segments are neighbours that both only go forward, seen along their joint: then they share that and nothing
 * else.
 */
function meetsOnlyAtJoint(paths: readonly Path[], a: Placed, b: Placed): boolean {
  if (a.path !== b.path) return false;
  const { closed, segments } = paths[a.path] as Path;
  const isNext = b.index === a.index + 1;
  if (!isNext && !(closed && a.index === 0 && b.index === segments.length - 1 && segments.length > 2)) return false;
  const [first, second] = isNext ? [a, b] : [b, a];
  const d = first.step.endTangent;
  return [first, second].every(({ step: { from, segment } }) => opsOf(segment).advances(from, segment, d));
}

/** Whether a place is where two neighbouring segments of one path join anyway. */
function isJoint(paths: readonly Path[], a: Placed, b: Placed, at: Point): boolean {
  if (a.path !== b.path) return false;
  const { closed, segments } = paths[a.path] as Path;
  const n = segments.length;
  if (b.index === a.index + 1 && distance(at, a.step.segment.to) <= samePlaceMm) return true;
  return closed && a.index === 0 && b.index === n - 1 && distance(at, a.step.from) <= samePlaceMm;
}
