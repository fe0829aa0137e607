/**
 * In: two segments, or paths. Out: where they cross, touch or run into each other.
 * Lines and arcs are met in closed form; curves by dividing boxes, settled by Newton steps. Ends that lie on the other
 * segment count, so that stretches which run on top of each other are cut where they begin and end.
 */
import Flatbush from 'flatbush';
import { circleOf } from '../plane/arc.ts';
import type { Box } from '../plane/box.ts';
import { type KnownStep, knownStep, knownSteps } from '../plane/known-step.ts';
import type { Path, Step } from '../plane/path.ts';
import { cross, distance, dot, norm, type Point, subtract } from '../plane/point.ts';
import { chordPoints, directionOn, nearestOnSegment, pointOn, segmentLength } from '../plane/segment.ts';

/** Places nearer than this are one, mm. */
export const samePlaceMm = 1e-6;

export interface Crossing {
  readonly at: Point;
  /** Where on the first and on the second segment, 0 to 1. */
  readonly t: number;
  readonly u: number;
}

/** All crossings of two segments, ends that lie on the other included, in order of the first. */
export function segmentCrossings(a: Step, b: Step, tolerance = samePlaceMm): Crossing[] {
  const found: Crossing[] = [];
  const take = (t: number, u: number, at: Point): void => {
    if (!found.some((c) => distance(c.at, at) <= tolerance)) found.push({ t, u, at });
  };
  for (const t of [0, 1]) {
    const at = t === 0 ? a.from : a.segment.to;
    const near = nearestOnSegment(b.from, b.segment, at);
    if (near.distance <= tolerance) take(t, near.t, at);
  }
  for (const u of [0, 1]) {
    const at = u === 0 ? b.from : b.segment.to;
    const near = nearestOnSegment(a.from, a.segment, at);
    if (near.distance <= tolerance) take(near.t, u, at);
  }
  for (const { t, u, at } of innerCrossings(a, b)) take(t, u, at);
  return found.sort((c, d) => c.t - d.t);
}

function innerCrossings(a: Step, b: Step): Crossing[] {
  const [k, l] = [a.segment.kind, b.segment.kind];
  if (k === 'line' && l === 'line') return lineWithLine(a, b);
  if (k === 'line' && l === 'arc') return lineWithArc(a, b);
  if (k === 'arc' && l === 'line') return lineWithArc(b, a).map(({ t, u, at }) => ({ t: u, u: t, at }));
  if (k === 'arc' && l === 'arc') return arcWithArc(a, b);
  return curveWithCurve(a, b);
}

function lineWithLine(a: Step, b: Step): Crossing[] {
  const [p, q] = [subtract(a.segment.to, a.from), subtract(b.segment.to, b.from)];
  const det = cross(p, q);
  const size = norm(p.x, p.y) * norm(q.x, q.y);
  if (Math.abs(det) < 1e-12 * size || size === 0) return [];
  const between = subtract(b.from, a.from);
  const [t, u] = [cross(between, q) / det, cross(between, p) / det];
  return inside(t) && inside(u) ? [{ t, u, at: { x: a.from.x + p.x * t, y: a.from.y + p.y * t } }] : [];
}

const inside = (t: number): boolean => t >= 0 && t <= 1;

/** Where on its arc a point of the circle lies: 0 to 1, or outside of that. */
function placeOnArc({ from, segment }: Step, at: Point): number {
  if (segment.kind !== 'arc') return -1;
  const { centre, startAngle } = circleOf(from, segment);
  const way = Math.sign(segment.sweep);
  const turned = way * (Math.atan2(at.y - centre.y, at.x - centre.x) - startAngle);
  const full = 2 * Math.PI;
  return (((turned % full) + full) % full) / Math.abs(segment.sweep);
}

function lineWithArc(a: Step, b: Step): Crossing[] {
  if (b.segment.kind !== 'arc') return [];
  const { centre, radius } = circleOf(b.from, b.segment);
  const d = subtract(a.segment.to, a.from);
  const length = norm(d.x, d.y);
  if (length === 0) return [];
  const from = subtract(a.from, centre);
  const along = -dot(from, d) / length;
  const off = cross(from, d) / length;
  const half = radius * radius - off * off;
  // A touch counts as one crossing where it is nearer than can be told.
  if (half < -2 * radius * samePlaceMm) return [];
  const reach = Math.sqrt(Math.max(0, half));
  return [...new Set([along - reach, along + reach])].flatMap((s) => {
    const t = s / length;
    const at = { x: a.from.x + d.x * t, y: a.from.y + d.y * t };
    const u = placeOnArc(b, at);
    return inside(t) && inside(u) ? [{ t, u, at }] : [];
  });
}

function arcWithArc(a: Step, b: Step): Crossing[] {
  if (a.segment.kind !== 'arc' || b.segment.kind !== 'arc') return [];
  const [c, d] = [circleOf(a.from, a.segment), circleOf(b.from, b.segment)];
  const apart = distance(c.centre, d.centre);
  if (apart < samePlaceMm) return [];
  const along = (apart * apart + c.radius * c.radius - d.radius * d.radius) / (2 * apart);
  const half = c.radius * c.radius - along * along;
  if (half < -2 * c.radius * samePlaceMm) return [];
  const reach = Math.sqrt(Math.max(0, half));
  const [x, y] = [(d.centre.x - c.centre.x) / apart, (d.centre.y - c.centre.y) / apart];
  return [...new Set([reach, -reach])].flatMap((r) => {
    const at = { x: c.centre.x + along * x - r * y, y: c.centre.y + along * y + r * x };
    const [t, u] = [placeOnArc(a, at), placeOnArc(b, at)];
    return inside(t) && inside(u) ? [{ t, u, at }] : [];
  });
}

/** Chords leave a curve by at most this share of its length before Newton's steps take over. */
const chordShare = 2e-3;

interface Chord {
  readonly t0: number;
  readonly t1: number;
  readonly p: Point;
  readonly q: Point;
}

interface Chords {
  readonly list: readonly Chord[];
  /** How far the curve may leave them, mm. */
  readonly slack: number;
}

const chordsKept = new WeakMap<KnownStep, Chords>();

function chordsOf({ from, segment }: Step): Chords {
  const known = knownStep(from, segment);
  const kept = chordsKept.get(known);
  if (kept) return kept;
  const slack = chordShare * segmentLength(from, segment);
  const points = [from, ...chordPoints(from, segment, Math.max(1e-9, slack))];
  const n = points.length - 1;
  const chords = { list: points.slice(1).map((q, k) => ({ t0: k / n, t1: (k + 1) / n, p: points[k] as Point, q })), slack };
  chordsKept.set(known, chords);
  return chords;
}

function curveWithCurve(a: Step, b: Step): Crossing[] {
  const [as, bs] = [chordsOf(a), chordsOf(b)];
  const slack = as.slack + bs.slack;
  const found: Crossing[] = [];
  for (const c of as.list) {
    for (const d of bs.list) {
      if (!boxesMeet(c, d, slack)) continue;
      const start = chordCrossing(c, d);
      if (!start) continue;
      const settled = settledCrossing(a, b, c.t0 + start.t * (c.t1 - c.t0), d.t0 + start.u * (d.t1 - d.t0));
      if (settled && !found.some((f) => distance(f.at, settled.at) < samePlaceMm)) found.push(settled);
    }
  }
  return found;
}

const boxesMeet = (a: Chord, b: Chord, slack: number): boolean =>
  Math.min(a.p.x, a.q.x) - slack <= Math.max(b.p.x, b.q.x) &&
  Math.max(a.p.x, a.q.x) + slack >= Math.min(b.p.x, b.q.x) &&
  Math.min(a.p.y, a.q.y) - slack <= Math.max(b.p.y, b.q.y) &&
  Math.max(a.p.y, a.q.y) + slack >= Math.min(b.p.y, b.q.y);

/** Where two chords cross, with some room beyond their ends, since the curves bow; null for parallel ones. */
function chordCrossing(c: Chord, d: Chord): { t: number; u: number } | null {
  const [p, q] = [subtract(c.q, c.p), subtract(d.q, d.p)];
  const det = cross(p, q);
  if (Math.abs(det) < 1e-14 * norm(p.x, p.y) * norm(q.x, q.y)) return null;
  const between = subtract(d.p, c.p);
  const [t, u] = [cross(between, q) / det, cross(between, p) / det];
  return t > -0.3 && t < 1.3 && u > -0.3 && u < 1.3 ? { t, u } : null;
}

/** How a point moves along a segment, mm for the whole of `t`. */
function velocityOn({ from, segment }: Step, t: number): Point {
  const step = 1e-6;
  const [low, high] = [Math.max(0, t - step), Math.min(1, t + step)];
  const [p, q] = [pointOn(from, segment, low), pointOn(from, segment, high)];
  return { x: (q.x - p.x) / (high - low), y: (q.y - p.y) / (high - low) };
}

function settledCrossing(a: Step, b: Step, t0: number, u0: number): Crossing | null {
  let [t, u] = [Math.min(1, Math.max(0, t0)), Math.min(1, Math.max(0, u0))];
  for (let round = 0; round < 30; round++) {
    const off = subtract(pointOn(b.from, b.segment, u), pointOn(a.from, a.segment, t));
    const [p, q] = [velocityOn(a, t), velocityOn(b, u)];
    const det = cross(p, q);
    if (Math.abs(det) < 1e-12 * norm(p.x, p.y) * norm(q.x, q.y)) return null;
    const [dt, du] = [cross(off, q) / det, cross(off, p) / det];
    t = Math.min(1, Math.max(0, t + dt));
    u = Math.min(1, Math.max(0, u + du));
    if (Math.abs(dt) + Math.abs(du) < 1e-13) break;
  }
  const [p, q] = [pointOn(a.from, a.segment, t), pointOn(b.from, b.segment, u)];
  return distance(p, q) < samePlaceMm / 10 ? { t, u, at: p } : null;
}

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
  readonly step: KnownStep;
}

const placedSteps = (paths: readonly Path[]): Placed[] =>
  paths.flatMap((path, p) => knownSteps(path).map((step, index) => ({ path: p, index, step })));

/** An index of boxes that answers with positions; null where there are none. */
export function boxIndex(boxes: readonly Box[], slack = samePlaceMm): Flatbush | null {
  if (boxes.length === 0) return null;
  const index = new Flatbush(boxes.length);
  for (const { minX, minY, maxX, maxY } of boxes) index.add(minX - slack, minY - slack, maxX + slack, maxY + slack);
  index.finish();
  return index;
}

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
  steps: ReadonlyMap<KnownStep, KnownStep | undefined>;
  meetings: readonly Meeting<KnownStep>[];
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
  const now = new Map<KnownStep, KnownStep | undefined>();
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

/** Least x, least y, largest x, largest y of each segment's box, one after another. */
export function flatBoxes(steps: readonly KnownStep[]): Float64Array {
  const boxes = new Float64Array(4 * steps.length);
  steps.forEach(({ box }, k) => {
    boxes[4 * k] = box.minX;
    boxes[4 * k + 1] = box.minY;
    boxes[4 * k + 2] = box.maxX;
    boxes[4 * k + 3] = box.maxY;
  });
  return boxes;
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
  const d = first.step.arrives;
  return goesForward(first.step, d) && goesForward(second.step, d);
}

/** Whether a segment moves on along a direction all the way: every leg of its handles does. */
function goesForward({ from, segment }: Step, d: Point): boolean {
  const on = (a: Point, b: Point): boolean => (b.x - a.x) * d.x + (b.y - a.y) * d.y > 1e-12;
  if (segment.kind === 'line') return on(from, segment.to);
  if (segment.kind === 'cubic') return on(from, segment.c1) && on(segment.c1, segment.c2) && on(segment.c2, segment.to);
  if (Math.abs(segment.sweep) > Math.PI / 2) return false;
  return dot(directionOn(from, segment, 0), d) > 1e-9 && dot(directionOn(from, segment, 1), d) > 1e-9;
}

/** Whether a place is where two neighbouring segments of one path join anyway. */
function isJoint(paths: readonly Path[], a: Placed, b: Placed, at: Point): boolean {
  if (a.path !== b.path) return false;
  const { closed, segments } = paths[a.path] as Path;
  const n = segments.length;
  if (b.index === a.index + 1 && distance(at, a.step.segment.to) <= samePlaceMm) return true;
  return closed && a.index === 0 && b.index === n - 1 && distance(at, a.step.from) <= samePlaceMm;
}
