/**
 * In: open paths whose ends should meet, or paths that run too far or not far enough. Out: them joined, trimmed, extended
 * and cut; what is not touched stays as it is to the last digit.
 */
import { circleOf } from '../plane/arc.ts';
import { boxAroundBoxes } from '../plane/box.ts';
import { endOf, type Path, pathBox, polygonPath, reversedPath, type Step, splitPath, stepsOf } from '../plane/path.ts';
import { between, crossing, distance, type Point, subtract, turnBetween } from '../plane/point.ts';
import { directionOn, nearestOnSegment, pointOn, type Segment } from '../plane/segment.ts';
import { boxIndex } from './box-index.ts';
import { closedExactly, concatenated, splitAtPlaces } from './chains.ts';
import { combined, nested } from './combine.ts';
import { samePlaceMm, segmentCrossings } from './crossings.ts';
import { type CutPlace, pathCrossings, selfCrossings } from './path-crossings.ts';

/** An end of one of several open paths. */
export interface LooseEnd {
  readonly path: number;
  readonly which: 'start' | 'end';
  readonly at: Point;
  /** Where the path would go on beyond it, length 1. */
  readonly out: Point;
}

function looseEnds(paths: readonly Path[]): LooseEnd[] {
  return paths.flatMap((path, k): LooseEnd[] => {
    const steps = stepsOf(path);
    const [first, last] = [steps[0], steps.at(-1)];
    if (path.closed || !first || !last) return [];
    const back = directionOn(first.from, first.segment, 0);
    return [
      { path: k, which: 'start', at: path.start, out: { x: -back.x, y: -back.y } },
      { path: k, which: 'end', at: last.segment.to, out: directionOn(last.from, last.segment, 1) },
    ];
  });
}

export interface EndPair {
  readonly a: LooseEnd;
  readonly b: LooseEnd;
  readonly gapMm: number;
}

/** Which loose ends belong together: the nearest pairs first, each end once, none farther apart than `gapMm`. */
export function endPairs(paths: readonly Path[], gapMm: number): EndPair[] {
  const ends = looseEnds(paths);
  const index = boxIndex(ends.map(({ at: { x, y } }) => ({ minX: x, minY: y, maxX: x, maxY: y })), gapMm); // biome-ignore format: one line
  const pairs = ends
    .flatMap((a, k) =>
      (index?.search(a.at.x, a.at.y, a.at.x, a.at.y) ?? []).filter((l) => l > k).map((l) => pairOf(a, ends[l] as LooseEnd)),
    )
    .filter((pair) => pair.gapMm <= gapMm)
    .sort((p, q) => p.gapMm - q.gapMm);
  const used = new Set<LooseEnd>();
  return pairs.filter(({ a, b }) => {
    if (used.has(a) || used.has(b)) return false;
    used.add(a);
    used.add(b);
    return true;
  });
}

const pairOf = (a: LooseEnd, b: LooseEnd): EndPair => ({ a, b, gapMm: distance(a.at, b.at) });

export const bridgeKinds = ['meet', 'straight', 'smooth', 'fair'] as const;
/** Ends made to meet where their sides cross; bridged by a line; by a curve with one tangent; with one curvature, too. */
export type BridgeKind = (typeof bridgeKinds)[number];

/** How far a bridge's handles reach, as a share of the gap, at either end. */
export type Fullness = readonly [number, number];
export const plainFullness: Fullness = [0.4, 0.4];

/** Paths with their loose ends joined wherever they are no farther apart than `gapMm`. */
export function withEndsJoined(paths: readonly Path[], gapMm: number, how: BridgeKind, fullness: Fullness = plainFullness): Path[] {
  let now = [...paths];
  // Joining changes which path an end belongs to: one pair at a time.
  for (let pair = endPairs(now, gapMm)[0]; pair; pair = endPairs(now, gapMm)[0]) now = withPairJoined(now, pair, how, fullness);
  return now;
}

function withPairJoined(paths: readonly Path[], { a, b }: EndPair, how: BridgeKind, fullness: Fullness = plainFullness): Path[] {
  const first = asEnding(paths[a.path] as Path, a.which);
  if (a.path === b.path) {
    const closed = bridged(first, first, how, fullness);
    return paths.map((path, k) => (k === a.path ? closedExactly({ ...closed, closed: true }) : path));
  }
  const second = asStarting(paths[b.path] as Path, b.which);
  const one = bridged(first, second, how, fullness);
  return paths.flatMap((path, k) => (k === a.path ? [one] : k === b.path ? [] : [path]));
}

const asEnding = (path: Path, which: LooseEnd['which']): Path => (which === 'end' ? path : reversedPath(path));
const asStarting = (path: Path, which: LooseEnd['which']): Path => (which === 'start' ? path : reversedPath(path));

/** `a` led on into `b`; the same path twice closes it. */
function bridged(a: Path, b: Path, how: BridgeKind, fullness: Fullness): Path {
  const isSelf = a === b;
  const [from, to] = [endOf(a), b.start];
  const plain = (segments: readonly Segment[]): Path => ({
    start: a.start,
    segments: isSelf ? [...a.segments, ...segments] : [...a.segments, ...segments, ...b.segments],
    closed: isSelf,
  });
  if (distance(from, to) <= samePlaceMm) return plain([]);
  if (how === 'straight') return plain([{ kind: 'line', to }]);
  if (how === 'meet') return met(a, b);
  const [out, into] = [directionAtEnd(a), directionAtStart(b)];
  if (how === 'smooth') return plain([bridgeCubic(from, out, to, into, fullness)]);
  return plain(fairBridge(from, out, bendAtEnd(a), to, into, bendAtStart(b), fullness));
}

const directionAtEnd = (path: Path): Point => {
  const { from, segment } = stepsOf(path).at(-1) as Step;
  return directionOn(from, segment, 1);
};
const directionAtStart = (path: Path): Point => {
  const { from, segment } = stepsOf(path)[0] as Step;
  return directionOn(from, segment, 0);
};

function bridgeCubic(from: Point, out: Point, to: Point, into: Point, [f, g]: Fullness): Segment {
  const gap = distance(from, to);
  return {
    kind: 'cubic',
    c1: { x: from.x + out.x * f * gap, y: from.y + out.y * f * gap },
    c2: { x: to.x - into.x * g * gap, y: to.y - into.y * g * gap },
    to,
  };
}

/** Curvature of a segment at its end or start, left positive, 1/mm. */
function bend({ from, segment }: Step, t: 0 | 1): number {
  if (segment.kind === 'line') return 0;
  if (segment.kind === 'arc') return Math.sign(segment.sweep) / circleOf(from, segment).radius;
  const h = 1e-4;
  const [a, b] = t === 0 ? [0, h] : [1 - h, 1];
  const [p, q] = [directionOn(from, segment, a), directionOn(from, segment, b)];
  const near = nearestPart(from, segment, a, b);
  return near > 0 ? turnBetween(p, q) / near : 0;
}

function nearestPart(from: Point, segment: Segment, a: number, b: number): number {
  const steps = 4;
  let length = 0;
  let last = pointOn(from, segment, a);
  for (let k = 1; k <= steps; k++) {
    const next = pointOn(from, segment, a + ((b - a) * k) / steps);
    length += distance(last, next);
    last = next;
  }
  return length;
}

const bendAtEnd = (path: Path): number => bend(stepsOf(path).at(-1) as Step, 1);
const bendAtStart = (path: Path): number => bend(stepsOf(path)[0] as Step, 0);

/**
 * Three cubics that take over tangent and curvature at both ends and meet with both: the cubic spline on three even spans
 * has just as many unknowns as there are places, first and second derivatives at its ends (de Boor 1978); written as Bezier
 * curves by knot insertion.
 */
function fairBridge(from: Point, out: Point, k0: number, to: Point, into: Point, k1: number, [f, g]: Fullness): Segment[] {
  const gap = distance(from, to);
  const [m, n] = [3 * f * gap, 3 * g * gap];
  // Second derivatives across the way alone: they give the curvature, k times the speed squared.
  const [a0, a1] = [{ x: -out.y * k0 * m * m, y: out.x * k0 * m * m }, { x: -into.y * k1 * n * n, y: into.x * k1 * n * n }]; // biome-ignore format: one line
  const q1 = { x: from.x + (out.x * m) / 9, y: from.y + (out.y * m) / 9 };
  const q2 = { x: q1.x + (a0.x / 6 + out.x * m) / 4.5, y: q1.y + (a0.y / 6 + out.y * m) / 4.5 };
  const q4 = { x: to.x - (into.x * n) / 9, y: to.y - (into.y * n) / 9 };
  const q3 = { x: q4.x - (into.x * n - a1.x / 6) / 4.5, y: q4.y - (into.y * n - a1.y / 6) / 4.5 };
  const [b, c, d, e] = [between(q1, q2, 1 / 2), between(q2, q3, 1 / 3), between(q2, q3, 2 / 3), between(q3, q4, 1 / 2)];
  const [j1, j2] = [between(b, c, 1 / 2), between(d, e, 1 / 2)];
  return [
    { kind: 'cubic', c1: q1, c2: b, to: j1 },
    { kind: 'cubic', c1: c, c2: d, to: j2 },
    { kind: 'cubic', c1: e, c2: q4, to },
  ];
}

/** Both ends brought to where their sides cross; where they do not near by, to the middle between them. */
function met(a: Path, b: Path): Path {
  const isSelf = a === b;
  const [last, first] = [stepsOf(a).at(-1) as Step, stepsOf(b)[0] as Step];
  const [from, to] = [last.segment.to, first.from];
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  const crossed = crossing(from, directionOn(last.from, last.segment, 1), to, directionOn(first.from, first.segment, 0));
  const isPlain = last.segment.kind === 'line' && first.segment.kind === 'line';
  const at = isPlain && crossed && distance(crossed, middle) < 4 * distance(from, to) + samePlaceMm ? crossed : middle;
  const ended = withEndMoved(a, at);
  if (isSelf) return { ...withStartMoved(ended, at), closed: true };
  const started = withStartMoved(b, at);
  return concatenated([ended, started], false);
}

function withEndMoved(path: Path, at: Point): Path {
  const last = path.segments.at(-1) as Segment;
  const off = subtract(at, last.to);
  const moved: Segment =
    last.kind === 'cubic' ? { ...last, c2: { x: last.c2.x + off.x, y: last.c2.y + off.y }, to: at } : { ...last, to: at };
  return { ...path, segments: [...path.segments.slice(0, -1), moved] };
}

const withStartMoved = (path: Path, at: Point): Path => reversedPath(withEndMoved(reversedPath(path), at));

/**
 * What is left of a path when the stretch about a place is taken out, from one crossing with itself or others to the next.
 * Where nothing crosses it, nothing is left.
 */
export function trimmed(path: Path, place: { readonly segment: number; readonly t: number }, others: readonly Path[]): Path[] {
  const own = selfCrossings([path]);
  const { onA } = pathCrossings([path], others);
  const cuts: CutPlace[] = [...own, ...onA].filter(
    ({ at }) => path.closed || (distance(at, path.start) > samePlaceMm && distance(at, endOf(path)) > samePlaceMm),
  );
  if (cuts.length === 0) return [];
  const runs = splitAtPlaces(path, cuts);
  const step = stepsOf(path)[place.segment] as Step;
  const at = pointOn(step.from, step.segment, place.t);
  const away = (run: Path): number => Math.min(...stepsOf(run).map(({ from, segment }) => nearestOnSegment(from, segment, at).distance));
  const gone = runs.reduce((best, run) => (away(run) < away(best) ? run : best));
  const kept = runs.filter((run) => run !== gone);
  if (!path.closed) return joinedInOrder(kept);
  // The rest of a closed path goes on over its start.
  const k = runs.indexOf(gone);
  return joinedInOrder([...runs.slice(k + 1), ...runs.slice(0, k)]);
}

/** Runs that follow each other made one. */
function joinedInOrder(runs: readonly Path[]): Path[] {
  const made: Path[][] = [];
  for (const run of runs) {
    const last = made.at(-1);
    if (last && distance(endOf(last.at(-1) as Path), run.start) <= samePlaceMm) last.push(run);
    else made.push([run]);
  }
  return made.map((list) => concatenated(list, false));
}

/** An open path led on at one end, straight or along its circle, to the first thing that it meets; null where there is none. */
export function extended(path: Path, which: LooseEnd['which'], others: readonly Path[], farthestMm = 1e4): Path | null {
  if (path.closed) return null;
  if (which === 'start') {
    const turned = extended(reversedPath(path), 'end', others, farthestMm);
    return turned && reversedPath(turned);
  }
  const last = stepsOf(path).at(-1) as Step;
  const end = last.segment.to;
  if (last.segment.kind === 'arc') return extendedArc(path, last, others);
  const out = directionOn(last.from, last.segment, 1);
  const ray: Step = { from: end, segment: { kind: 'line', to: { x: end.x + out.x * farthestMm, y: end.y + out.y * farthestMm } } };
  const hit = firstHit(ray, others, end);
  if (!hit) return null;
  if (last.segment.kind === 'line') return { ...path, segments: [...path.segments.slice(0, -1), { kind: 'line', to: hit }] };
  return { ...path, segments: [...path.segments, { kind: 'line', to: hit }] };
}

function extendedArc(path: Path, { from, segment }: Step, others: readonly Path[]): Path | null {
  if (segment.kind !== 'arc') return null;
  const room = Math.sign(segment.sweep) * (2 * Math.PI - Math.abs(segment.sweep) - 1e-6);
  const { centre } = circleOf(from, segment);
  const onward: Step = { from: segment.to, segment: { kind: 'arc', to: turned(centre, segment.to, room), sweep: room } };
  const hit = firstHit(onward, others, segment.to);
  if (!hit) return null;
  const [p, q] = [subtract(segment.to, centre), subtract(hit, centre)];
  const turn = turnBetween(p, q);
  const more = turn * Math.sign(room) > 0 ? turn : turn + 2 * Math.PI * Math.sign(room);
  return { ...path, segments: [...path.segments.slice(0, -1), { kind: 'arc', to: hit, sweep: segment.sweep + more }] };
}

function turned(centre: Point, p: Point, by: number): Point {
  const [c, s, x, y] = [Math.cos(by), Math.sin(by), p.x - centre.x, p.y - centre.y];
  return { x: centre.x + c * x - s * y, y: centre.y + s * x + c * y };
}

function firstHit(ray: Step, others: readonly Path[], end: Point): Point | null {
  let best: { t: number; at: Point } | null = null;
  for (const other of others)
    for (const step of stepsOf(other))
      for (const { t, at } of segmentCrossings(ray, step)) if (distance(at, end) > 1e-5 && (!best || t < best.t)) best = { t, at };
  return best?.at ?? null;
}

/** An open path as two, a closed one opened, at a place on it. */
export function splitAt(path: Path, { segment, t }: { readonly segment: number; readonly t: number }): Path[] {
  const isJoint = t <= 1e-9 || t >= 1 - 1e-9;
  if (!isJoint) return splitPath(path, segment, t);
  const k = t >= 0.5 ? segment + 1 : segment;
  const { start, segments, closed } = path;
  const at = k === 0 ? start : (segments[k - 1] as Segment).to;
  if (closed) return [{ start: at, segments: [...segments.slice(k), ...segments.slice(0, k)], closed: false }];
  if (k === 0 || k === segments.length) return [path];
  return [{ start, segments: segments.slice(0, k), closed: false }, { start: at, segments: segments.slice(k), closed: false }]; // biome-ignore format: one line
}

/** A piece cut in two along a straight line: the parts to the left of it and those to the right. */
export function cutByLine(
  piece: { readonly outer: Path; readonly holes: readonly Path[] },
  a: Point,
  b: Point,
): { readonly left: { outer: Path; holes: Path[] }[]; readonly right: { outer: Path; holes: Path[] }[] } {
  const box = boxAroundBoxes([pathBox(piece.outer)]);
  const size = box ? 4 * (box.maxX - box.minX + box.maxY - box.minY) + distance(a, b) + distance(a, piece.outer.start) : 1;
  const length = distance(a, b);
  const d = { x: (b.x - a.x) / length, y: (b.y - a.y) / length };
  const at = (along: number, across: number): Point => ({ x: a.x + d.x * along - d.y * across, y: a.y + d.y * along + d.x * across });
  const half = (side: number): Path => {
    const corners = [at(-size, 0), at(size, 0), at(size, side * size), at(-size, side * size)];
    return polygonPath(side > 0 ? corners : corners.reverse());
  };
  const area = [piece.outer, ...piece.holes];
  return { left: nested(combined(area, [half(1)], 'keep-common')), right: nested(combined(area, [half(-1)], 'keep-common')) };
}
