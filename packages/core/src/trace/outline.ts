/**
 * In: a contour in pixels. Out: a closed path of lines and cubic curves along it, in pixels.
 * Corners part the course into runs; a run is one line, or straight stretches with curves between; lines meet in
 * their crossing, and everything else joins with one tangent.
 */

import { type Path, withoutLoops } from '../plane/path.ts';
import { crossing, distance, norm, type Point } from '../plane/point.ts';
import type { Segment } from '../plane/segment.ts';
import { withoutCornerLoops } from '../shape/corner-loops.ts';
import { withoutNeedless } from '../shape/needless.ts';
import { type Bend, type BendEnd, bendCost, fitBend, fitRound } from './bends.ts';
import { placeReach } from './cheapest-way.ts';
import { type Corner, findCorners } from './corners.ts';
import { Course } from './course.ts';
import { type Grain, grainOf, retreat } from './grain.ts';
import { type LocalCurve, localCurve, meeting } from './local-curve.ts';
import { costOf } from './segment-price.ts';
import { isStraight, type Stretch, straightStretches } from './straights.ts';
import { wholeFigure } from './whole-figures.ts';

/** A part of the outline: straight or curved, from course index `first` to `last`. */
interface Part {
  readonly kind: 'line' | 'curve';
  readonly first: number;
  readonly last: number;
}

/** How two neighbouring parts join. */
interface Join {
  readonly at: Point;
  /** The common direction, or null at a corner. */
  readonly direction: Point | null;
  /** Points to either side of a corner that its softness spoils. */
  readonly spoilt: number;
}

/**
 * @param contour x and y in turn, px, closed
 * @param softness deviation of the Gaussian that softens the picture's edges, px
 * @param leastRoughness what the kind of picture alone brings (stairs of a one-bit scan), px
 * @param tolerancePx largest distance of the outline from the contour
 */
export function outlineAlong(contour: Float64Array, softness: number, leastRoughness: number, tolerancePx: number): Path {
  const course = new Course(contour);
  const grain = grainOf(softness, Math.min(0.4, Math.max(leastRoughness, course.roughness())), tolerancePx);
  const found = wholeFigure(course, grain);
  if (found) return found;
  const whole = assembled(course, grain, partsOf(course, grain, findCorners(course, grain)));
  // About the tip of a spike a curve may be led into a loop, alone or with its neighbour: there is a corner instead.
  return withoutNeedless(withoutCornerLoops(withoutLoops(whole), cornerLoopPx), needlessPx).path;
}

/** Loops beside a corner that reach farther are no slip of the fit. */
const cornerLoopPx = 8;

/** A point between two straights that lies so near to their line changes nothing. */
const needlessPx = 0.03;

/** An end of an open course: where the path must end and, where it goes on smoothly, its direction of travel there. */
interface HeldEnd {
  readonly at: Point;
  readonly direction: Point | null;
}
/** Null where the course itself says it. */
export type PathEnd = Point | HeldEnd | null;
const held = (end: Point | HeldEnd): HeldEnd => ('at' in end ? end : { at: end, direction: null });

/**
 * The same along an open course.
 * @param points x and y in turn, px
 */
export function openPathAlong(
  points: Float64Array,
  ends: readonly [PathEnd, PathEnd],
  softness: number,
  leastRoughness: number,
  tolerancePx: number,
): Path {
  const course = new Course(points, false);
  const last = course.count - 1;
  const at = (index: number): Point => ({ x: course.x(index), y: course.y(index) });
  const [start, end] = [held(ends[0] ?? at(0)), held(ends[1] ?? at(last))];
  if (last < 4) return { start: start.at, segments: [{ kind: 'line', to: end.at }], closed: false };
  const grain = grainOf(softness, Math.min(0.4, Math.max(leastRoughness, course.roughness())), tolerancePx);
  const inner = findCorners(course, grain).filter(({ index }) => index > grain.gap + grain.arm && index < last - grain.gap - grain.arm);
  // The ends join nothing, as corners do; nothing beside them is spoilt.
  const spoilt = new Map([[0, 1], [last, 1], ...inner.map((c) => [c.index, spoiltBy(grain, c.turn)] as const)]); // biome-ignore format: one line
  const stops = [0, ...inner.map((c) => c.index), last];
  const parts = withoutFalseCorners(
    course,
    grain,
    stops.slice(1).flatMap((to, k) => partsOfRun(course, grain, stops[k] as number, to, (i) => spoilt.get(i) ?? 0)),
  );
  const joins = parts.slice(1).map((part, k) => joinAfter(course, grain, parts[k] as Part, part, spoilt));
  return withoutLoops(open(course, grain, parts, [{ ...start, spoilt: 1 }, ...joins, { ...end, spoilt: 1 }]));
}

/** Straight parts in a row that are one straight edge all told made one. */
function withoutFalseCorners(course: Course, grain: Grain, parts: readonly Part[]): Part[] {
  const kept: Part[] = [];
  for (const part of parts) {
    const before = kept.at(-1);
    if (before?.kind === 'line' && part.kind === 'line' && isStraight(course, grain, before.first + 1, part.last - 1)) {
      kept[kept.length - 1] = { kind: 'line', first: before.first, last: part.last };
    } else kept.push(part);
  }
  return kept;
}

/** Points beside a corner that its softness bends: more where the corner is sharp. */
function spoiltBy(grain: Grain, turn: number): number {
  const halfAngle = (Math.PI - Math.abs(turn)) / 2;
  return grain.gap + Math.ceil(1.5 * retreat(grain, halfAngle) - 0.8 * grain.softness);
}

/** Parts in order of travel, with the corners between; a smooth closed course is one part from a point to itself. */
function partsOf(course: Course, grain: Grain, corners: Corner[]): { parts: Part[]; corners: Map<number, number> } {
  const spoilt = new Map(corners.map((c) => [c.index, spoiltBy(grain, c.turn)]));
  const runs: [number, number][] = corners.map((c, k) => {
    const next = corners[k + 1]?.index ?? (corners[0] as Corner).index + course.count;
    return [c.index, next];
  });
  if (runs.length === 0) runs.push(smoothRun(course, grain));
  return {
    parts: runs.flatMap(([from, to]) => partsOfRun(course, grain, from, to, (k) => spoilt.get(course.wrap(k)) ?? 0)),
    corners: spoilt,
  };
}

/** Where to open a smooth closed course: inside its longest straight stretch, else at its farthest point. */
function smoothRun(course: Course, grain: Grain): [number, number] {
  const stretches = straightStretches(course, grain, 0, course.count - 1);
  const longest = stretches.reduce<Stretch | null>((a, b) => (a && a.last - a.first >= b.last - b.first ? a : b), null);
  // A stretch that passes the opening would be found in two halves: open at the end of the longest one.
  if (longest) return [longest.last, longest.last + course.count];
  const [x, y] = [course.xs.reduce((a, b) => a + b, 0) / course.count, course.ys.reduce((a, b) => a + b, 0) / course.count];
  let [best, farthest] = [0, 0];
  for (let k = 0; k < course.count; k++) {
    const d = norm(course.x(k) - x, course.y(k) - y);
    if (d > farthest) [best, farthest] = [k, d];
  }
  return [best, best + course.count];
}

function partsOfRun(course: Course, grain: Grain, from: number, to: number, spoiltAt: (k: number) => number): Part[] {
  const length = to - from;
  const trim = (k: number) => Math.min(spoiltAt(k), Math.floor(length / 4));
  const [first, last] = [from + trim(from), to - trim(to)];
  const hasCorners = spoiltAt(from) > 0;
  if (hasCorners && (length < 4 || isStraight(course, grain, first, last))) return [{ kind: 'line', first: from, last: to }];
  const stretches = straightStretches(course, grain, first, last);
  const plain: Part[] = [{ kind: 'curve', first: from, last: to }];
  if (stretches.length === 0) return plain;
  // A stretch that ends this near to a corner or to the next stretch reaches it.
  const near = grain.gap + (grain.arm >> 1);
  const mixed = stretchedOut(course, grain, stretches, from, hasCorners, near + trim(from), near);
  const at = (mixed.at(-1) as Part).last;
  if (to - at <= near + trim(to) && hasCorners) mixed[mixed.length - 1] = { ...(mixed.at(-1) as Part), last: to };
  else if (at < to) mixed.push({ kind: 'curve', first: at, last: to });
  return mixed.length > 1 && !isWorthwhile(course, grain, mixed, plain, spoiltAt)
    ? plain
    : withoutNeedlessLines(course, grain, mixed, spoiltAt);
}

/** Straight parts up to this many points are compared with a curve that does without them. */
const needlessLine = 60;

/** Short straight parts between curves left out where one curve tells the three more cheaply. */
function withoutNeedlessLines(course: Course, grain: Grain, parts: readonly Part[], spoiltAt: (k: number) => number): Part[] {
  const kept = [...parts];
  for (let k = 1; k + 1 < kept.length; k++) {
    const [before, line, after] = kept.slice(k - 1, k + 2) as [Part, Part, Part];
    if (line.kind !== 'line' || before.kind !== 'curve' || after.kind !== 'curve' || line.last - line.first > needlessLine) continue;
    const whole: Part = { kind: 'curve', first: before.first, last: after.last };
    if (isWorthwhile(course, grain, [before, line, after], [whole], spoiltAt)) continue;
    kept.splice(k - 1, 3, whole);
    k = Math.max(0, k - 2);
  }
  return kept;
}

/** Straight stretches as parts, those that nearly touch drawn on to where they meet, curves between the others. */
function stretchedOut(
  course: Course,
  grain: Grain,
  stretches: readonly Stretch[],
  from: number,
  hasCorners: boolean,
  nearStart: number,
  near: number,
): Part[] {
  const parts: Part[] = [];
  for (const [n, { first, last }] of stretches.entries()) {
    const before = stretches[n - 1];
    if (!before) {
      const reaches = hasCorners && first - from <= nearStart;
      if (!reaches && first > from) parts.push({ kind: 'curve', first: from, last: first });
      parts.push({ kind: 'line', first: reaches ? from : first, last });
      continue;
    }
    const meets = first - before.last <= near ? (before.last + first) >> 1 : null;
    const corner = shallowCorner(course, grain, before, stretches[n] as Stretch) ?? meets;
    if (corner !== null) parts[parts.length - 1] = { ...(parts.at(-1) as Part), last: corner };
    else parts.push({ kind: 'curve', first: before.last, last: first });
    parts.push({ kind: 'line', first: corner ?? first, last });
  }
  return parts;
}

/** So far beyond the end of a stretch, points, the corner that it meets the next one in may lie. */
const cornerReach = 24;

/**
 * Where two straight stretches meet in a corner too shallow to be seen as one: where lines through the points before it and
 * after it leave least over. Null where a curve lies between.
 */
function shallowCorner(course: Course, grain: Grain, a: Stretch, b: Stretch): number | null {
  if (b.first - a.last > 8 * (grain.gap + grain.arm)) return null;
  const least = 2 * grain.arm;
  let [corner, best] = [-1, Infinity];
  for (let k = Math.max(a.first + least, a.last - cornerReach); k <= Math.min(b.last - least, b.first + cornerReach); k++) {
    const [before, after] = [course.line(a.first, k - 1), course.line(k + 1, b.last)];
    const left = before.rms ** 2 * (k - a.first) + after.rms ** 2 * (b.last - k);
    if (left < best) [corner, best] = [k, left];
  }
  if (corner < 0) return null;
  const [before, after] = [course.line(a.first, corner - 1), course.line(corner + 1, b.last)];
  const limit = Math.max(0.2, 3 * grain.roughness);
  const met = crossing(before, { x: before.dx, y: before.dy }, after, { x: after.dx, y: after.dy });
  // Where lines hardly turn their crossing lies less surely along them, but as surely across.
  const turn = Math.abs(before.dx * after.dy - before.dy * after.dx);
  if (!met || norm(course.x(corner) - met.x, course.y(corner) - met.y) * turn > Math.max(0.3, turn)) return null;
  for (let k = a.first; k <= b.last; k++) if (Math.abs(course.offset(k, k < corner ? before : after)) > limit) return null;
  return corner;
}

/** Whether straight stretches make the run cheaper to tell. */
function isWorthwhile(course: Course, grain: Grain, mixed: Part[], plain: Part[], spoiltAt: (k: number) => number): boolean {
  const straight = mixed.reduce((sum, p) => sum + (p.kind === 'line' ? p.last - p.first : 0), 0);
  const [whole] = plain as [Part];
  if (straight > 0.5 * (whole.last - whole.first)) return true;
  const outer = (index: number): Join => {
    const spoilt = spoiltAt(index);
    const local = localCurve(course, index, index - (spoilt ? 0 : 4), index + 4);
    return spoilt ? { at: { x: course.x(index), y: course.y(index) }, direction: null, spoilt } : { ...local, spoilt: 0 };
  };
  const [start, end] = [outer(whole.first), outer(whole.last)];
  const cost = (parts: Part[]): number => {
    const joins = parts.slice(1).map((part, k) => joinAfter(course, grain, parts[k] as Part, part, new Map()));
    const all = [start, ...joins, end];
    return parts.reduce(
      (sum, { kind }, k) => sum + (kind === 'line' ? costOf.line : bendCost(course, grain, ...bendEnds(course, parts, all, k))),
      0,
    );
  };
  return cost(mixed) < cost(plain);
}

function assembled(course: Course, grain: Grain, { parts, corners }: ReturnType<typeof partsOf>): Path {
  const joins = parts.map((part, k) => joinAfter(course, grain, part, parts[(k + 1) % parts.length] as Part, corners));
  const [only] = parts;
  const around = joins.at(-1) as Join;
  if (parts.length === 1 && only?.kind === 'curve' && around.direction) {
    const { start, segments } = fitRound(course, grain, { ...around, index: only.first });
    return { start, segments, closed: true };
  }
  return { ...open(course, grain, parts, [around, ...joins]), closed: true };
}

/** A corner may have been seen so far from where its sides meet, points. */
const cornerSeen = 8;

/** The index whose point lies nearest to a corner's place, so that none beyond it counts for the side before it. */
function indexBeside(course: Course, at: Point, index: number, room: number): number {
  const reach = Math.min(cornerSeen, room);
  let [best, least] = [index, Infinity];
  for (let k = index - reach; k <= index + reach; k++) {
    const d = norm(course.x(k) - at.x, course.y(k) - at.y);
    if (d < least) [best, least] = [k, d];
  }
  return best;
}

/** What the bend of a part joins at its two ends. Where the first and the last join are the same one, the parts run round. */
function bendEnds(course: Course, parts: readonly Part[], joins: readonly Join[], k: number): [BendEnd, BendEnd] {
  const isRound = joins[0] === joins.at(-1);
  const kindAt = (n: number) => parts[isRound ? (n + parts.length) % parts.length : n]?.kind;
  const { first, last } = parts[k] as Part;
  const room = Math.floor((last - first) / 4);
  const end = (join: Join, index: number, beside: Part['kind'] | undefined): BendEnd => ({
    ...join,
    index: beside && join.direction === null ? indexBeside(course, join.at, index, room) : index,
    spoilt: Math.min(join.spoilt, room),
    slides: beside === 'line' && join.direction !== null,
  });
  return [end(joins[k] as Join, first, kindAt(k - 1)), end(joins[k + 1] as Join, last, kindAt(k + 1))];
}

/**
 * Parts drawn from join to join: one join more than parts. Where the first and the last join are the same one, so are
 * the places that bends beside straight edges move them to.
 */
function open(course: Course, grain: Grain, parts: readonly Part[], joins: readonly Join[]): Path {
  const isRound = joins[0] === joins.at(-1);
  const bends = parts.map(({ kind }, k): Bend | null =>
    kind === 'line' ? null : fitBend(course, grain, ...bendEnds(course, parts, joins, k)),
  );
  // An arc beside a straight edge says where the edge ends.
  const places = joins.map((join, k) => {
    const before = bends[isRound && k === 0 ? parts.length - 1 : k - 1];
    const after = bends[isRound && k === parts.length ? 0 : k];
    return before?.segments.at(-1)?.to ?? after?.start ?? join.at;
  });
  const segments = parts.flatMap((_, k): readonly Segment[] => bends[k]?.segments ?? [{ kind: 'line', to: places[k + 1] as Point }]);
  return { start: places[0] as Point, segments, closed: false };
}

function joinAfter(course: Course, grain: Grain, a: Part, b: Part, corners: Map<number, number>): Join {
  const spoilt = corners.get(course.wrap(a.last)) ?? 0;
  if (spoilt > 0) return cornerJoin(course, grain, a, b, spoilt);
  if (a.kind === 'line' && b.kind === 'line') return cornerJoin(course, grain, a, b, grain.gap);
  if (a.kind === 'curve' && b.kind === 'curve') {
    const reach = placeReach(course, grain);
    const local = localCurve(course, a.last, a.last - reach, a.last + reach);
    return { at: local.at, direction: local.direction, spoilt: 0 };
  }
  const line = a.kind === 'line' ? lineOf(course, a, corners) : lineOf(course, b, corners);
  const along = line.dx * (course.x(a.last) - line.x) + line.dy * (course.y(a.last) - line.y);
  return {
    at: { x: line.x + line.dx * along, y: line.y + line.dy * along },
    direction: { x: line.dx, y: line.dy },
    spoilt: 0,
  };
}

/** The line through a straight part, its spoilt ends left out. */
function lineOf(course: Course, part: Part, corners: Map<number, number>) {
  const room = Math.floor((part.last - part.first) / 4);
  const trim = (k: number) => Math.min(room, corners.get(course.wrap(k)) ?? 0);
  return course.line(part.first + trim(part.first), part.last - trim(part.last));
}

/** The corner where the courses of two parts meet, read from what softness has not spoilt. */
function cornerJoin(course: Course, grain: Grain, a: Part, b: Part, spoilt: number): Join {
  const local = (part: Part, index: number, way: 1 | -1, straight = part.kind === 'line'): LocalCurve => {
    const length = part.last - part.first;
    const trim = Math.min(spoilt, Math.floor(length / 4));
    const reach = part.kind === 'line' ? length - 2 * trim : Math.min(length - trim - 1, straight ? grain.arm : 14 + 2 * grain.arm);
    const [near, far] = [index + way * trim, index + way * (trim + Math.max(1, reach))];
    return localCurve(course, index, Math.min(near, far), Math.max(near, far), straight);
  };
  const seen = { x: course.x(a.last), y: course.y(a.last) };
  const farthest = 4 + 8 * grain.softness + 4 * grain.roughness + grain.worst;
  const isNear = (p: Point | null): p is Point => p !== null && distance(p, seen) <= farthest;
  const met = meeting(local(a, a.last, -1), local(b, b.first, 1));
  if (isNear(met)) return { at: met, direction: null, spoilt };
  // Where sides run nearly alike their bends do not meet, but their directions do.
  const [u, v] = [local(a, a.last, -1, true), local(b, b.first, 1, true)];
  const crossed = crossing(u.at, u.direction, v.at, v.direction);
  return { at: isNear(crossed) ? crossed : seen, direction: null, spoilt };
}
