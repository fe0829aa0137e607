/**
 * In: the corners of a course. Out: the same, those at tips that are cut off (a serif's end, a spike filed flat) as the two
 * corners that they are.
 * A flat end only a few pixels wide lies inside the windows that corners are found by. It shows because both sides, read
 * beyond it, meet farther out than softness explains, while a straight line joins them where the course turns.
 */
import { distance, norm, type Point, turnBetween } from '../plane/point.ts';
import type { Corner } from './corners.ts';
import type { Course } from './course.ts';
import { type Grain, retreat, smallestTurn } from './grain.ts';
import { type LocalCurve, localCurve, meeting } from './local-curve.ts';

/** How long the sides are read, points. */
const sideLength = 20;
const shortestSide = 8;
/** Flat ends shorter than this cannot be told from blur, px; on one-bit scans stairs look flat, too. */
const shortestFlat = 3;

/** @param doubtful places that turn sharply without being one corner */
export function withCutTips(course: Course, grain: Grain, corners: readonly Corner[], doubtful: readonly Corner[]): Corner[] {
  let kept = [...corners];
  for (const one of [...corners, ...doubtful]) {
    const pair = cutTip(course, grain, one, roomBeside(course, grain, kept, one, -1), roomBeside(course, grain, kept, one, 1));
    if (!pair) continue;
    const [first, second] = pair;
    const length = course.wrap(second.index - first.index);
    kept = [...kept.filter((k) => course.wrap(k.index - first.index + 4) > length + 8), first, second];
  }
  return kept;
}

/** How far a side may be read before the next corner, or an open course's end, points. */
function roomBeside(course: Course, grain: Grain, corners: readonly Corner[], { index }: Corner, way: 1 | -1): number {
  const near = 2 * (grain.gap + grain.arm);
  const toEnd = way > 0 ? course.count - 1 - index : index;
  const most = course.closed ? course.count >> 1 : toEnd;
  const apart = corners.map((k) => ({ on: course.wrap(way * (k.index - index)), back: course.wrap(way * (index - k.index)) }));
  return Math.min(most, ...apart.filter(({ on, back }) => Math.min(on, back) > near).map(({ on }) => on));
}

/** Both corners of a flat tip; null where the tip is pointed, or round. */
function cutTip(course: Course, grain: Grain, { index, turn }: Corner, roomBefore: number, roomAfter: number): [Corner, Corner] | null {
  const reach = 2 * (grain.gap + grain.arm);
  const near = reach + grain.gap;
  const [lengthBefore, lengthAfter] = [roomBefore, roomAfter].map((room) => Math.min(sideLength, room - near - grain.gap - grain.arm)) as [
    number,
    number,
  ];
  if (Math.min(lengthBefore, lengthAfter) < shortestSide) return null;
  const a = localCurve(course, index, index - near - lengthBefore, index - near);
  const b = localCurve(course, index, index + near, index + near + lengthAfter);
  const limit = 0.15 + 2 * grain.roughness;
  const isOn = (side: LocalCurve, k: number) => offsetFrom(side, { x: course.x(k), y: course.y(k) }) <= limit;
  let [leaves, joins] = [index - near, index + near];
  while (leaves < index + near && isOn(a, leaves + 1)) leaves++;
  while (joins > index - near && isOn(b, joins - 1)) joins--;
  if (joins - leaves < 5 || isExplained(course, grain, a, b, index, near)) return null;
  const [begins, ends] = flatStretch(course, a, b, Math.min(leaves, index) - 2, Math.max(joins, index) + 2);
  // What softness bends beside both corners is left out, as far as something stays.
  const spoilt = Math.min(grain.gap, (ends - begins - 3) >> 1);
  const [first, last] = [begins + spoilt, ends - spoilt];
  const flat = course.line(first, last);
  for (let k = first; k <= last; k++) if (Math.abs(course.offset(k, flat)) > limit) return null;
  const cap = localCurve(course, (first + last) >> 1, first, last, true);
  const [from, to] = [meeting(a, cap), meeting(cap, b)];
  if (!from || !to || distance(from, to) < shortestFlat + 30 * grain.stairs) return null;
  const corners = [{ at: from, into: a.directionAt(along(a, from)), out: flat }, { at: to, into: flat, out: b.directionAt(along(b, to)) }]; // biome-ignore format: a table
  const found = corners.map(({ at, into, out }) => cornerAt(course, grain, at, asDirection(into), asDirection(out), begins - 4, ends + 4));
  const [one, two] = found;
  if (!one || !two || Math.min(one.turn * Math.sign(turn), two.turn * Math.sign(turn)) < smallestTurn) return null;
  return two.index - one.index >= 3
    ? [
        { ...one, index: course.wrap(one.index) },
        { ...two, index: course.wrap(two.index) },
      ]
    : null;
}

/** Between so many places along each end of a flat tip the best are looked for, then about these. */
const flatPlaces = 24;

/** The indices between which a line, with the sides before and after it, comes nearest to the course. */
function flatStretch(course: Course, a: LocalCurve, b: LocalCurve, from: number, to: number): [number, number] {
  const count = to - from + 1;
  // Sums of squares up to every index, of what lies off the side before, and off the one after.
  const [onA, onB] = [new Float64Array(count + 1), new Float64Array(count + 1)];
  for (let k = 0; k < count; k++) {
    const p = { x: course.x(from + k), y: course.y(from + k) };
    onA[k + 1] = (onA[k] as number) + offsetFrom(a, p) ** 2;
    onB[k + 1] = (onB[k] as number) + offsetFrom(b, p) ** 2;
  }
  const line = course.line(from, to);
  const sumAt = (first: number, last: number): number => {
    const { rms } = course.line(first, last, line);
    const after = (onB[count] as number) - (onB[last + 1 - from] as number);
    return (onA[first - from] as number) + rms * rms * (last - first + 1) + after;
  };
  let best = { first: from, last: to, sum: Infinity };
  const look = (firsts: readonly [number, number], lasts: readonly [number, number], step: number): void => {
    for (let first = Math.max(from, firsts[0]); first <= Math.min(to - 3, firsts[1]); first += step) {
      for (let last = Math.max(first + 3, lasts[0]); last <= Math.min(to, lasts[1]); last += step) {
        const sum = sumAt(first, last);
        if (sum < best.sum) best = { first, last, sum };
      }
    }
  };
  const coarse = Math.max(1, Math.floor(count / flatPlaces));
  look([from, to], [from, to], coarse);
  const { first, last } = best;
  if (coarse > 1) look([first - coarse, first + coarse], [last - coarse, last + coarse], 1);
  return [best.first, best.last];
}

const asDirection = (d: Point | { dx: number; dy: number }): Point => ('dx' in d ? { x: d.dx, y: d.dy } : d);

/** Where along a local curve a place lies, from two rounds of projection. */
function along(curve: LocalCurve, p: Point): number {
  let u = curve.u;
  for (let round = 0; round < 3; round++) {
    const [at, d] = [curve.pointAt(u), curve.directionAt(u)];
    u += d.x * (p.x - at.x) + d.y * (p.y - at.y);
  }
  return u;
}

const offsetFrom = (curve: LocalCurve, p: Point): number => distance(curve.pointAt(along(curve, p)), p);

/** Whether both sides meet so near to the course that one soft corner explains it. */
function isExplained(course: Course, grain: Grain, a: LocalCurve, b: LocalCurve, index: number, near: number): boolean {
  const tip = meeting(a, b);
  if (!tip) return false;
  const [u, v] = [a.directionAt(along(a, tip)), b.directionAt(along(b, tip))];
  const halfAngle = (Math.PI - Math.abs(turnBetween(u, v))) / 2;
  return nearestIndex(course, tip, index - near, index + near).off <= 1.6 * retreat(grain, halfAngle) + 0.7 + 2 * grain.roughness;
}

function nearestIndex(course: Course, p: Point, first: number, last: number): { index: number; off: number } {
  let best = { index: first, off: Infinity };
  for (let k = first; k <= last; k++) {
    const off = norm(course.x(k) - p.x, course.y(k) - p.y);
    if (off < best.off) best = { index: k, off };
  }
  return best;
}

/** A corner where the course comes as near to it as softness lets it; null where it does not, as on a round tip. */
function cornerAt(course: Course, grain: Grain, at: Point, into: Point, out: Point, first: number, last: number): Corner | null {
  const turn = turnBetween(into, out);
  const { index, off } = nearestIndex(course, at, first, last);
  return off <= 1.3 * retreat(grain, (Math.PI - Math.abs(turn)) / 2) + 0.35 + 2 * grain.roughness ? { index, turn } : null;
}
