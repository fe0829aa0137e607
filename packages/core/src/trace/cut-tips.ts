/**
 * In: the corners of a contour. Out: the same, those at tips that are cut off (a serif's end, a spike filed flat) as the two
 * corners that they are.
 * A flat end only a few pixels wide lies inside the windows that corners are found by. It shows because both sides, read
 * beyond it, meet farther out than softness explains, while a straight line joins them where the contour turns.
 */
import { distance, norm, type Point, turnBetween } from '../plane/point.ts';
import type { Corner } from './corner.ts';
import { type EdgeModel, farthestTip, smallestTurn, tipShrinkage } from './edge-model.ts';
import { type LocalCurve, localCurve, meeting } from './local-curve.ts';
import { parameters } from './parameters.ts';
import type { SampledContour } from './sampled-contour.ts';

const sideLength = parameters.tipSideLength;
const shortestSide = parameters.tipShortestSide;
const shortestNarrowSide = parameters.tipShortestNarrowSide;
const shortestFlat = parameters.tipShortestFlat;

/** @param doubtful places that turn sharply without being one corner */
export function withCutTips(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  corners: readonly Corner[],
  doubtful: readonly Corner[],
): Corner[] {
  let kept = [...corners];
  const near = 2 * (edgeModel.gap + edgeModel.arm);
  const closer = edgeModel.gap + 3;
  const isDoubtful = new Set(doubtful);
  for (const one of [...corners, ...doubtful]) {
    const room = (side: 1 | -1, least: number) => roomBeside(sampled, kept, one, side, least);
    const wide = cutTip(sampled, edgeModel, one, room(-1, near), room(1, near));
    const found = wide ?? (isDoubtful.has(one) ? unresolvedTip(sampled, edgeModel, one, room(-1, closer), room(1, closer)) : null);
    const [first, last] = [found?.[0], found?.at(-1)];
    if (!found || !first || !last) continue;
    const length = sampled.wrap(last.index - first.index);
    kept = [...kept.filter((k) => sampled.wrap(k.index - first.index + 4) > length + 8), ...found];
  }
  return kept;
}

/** The corners of a tip too narrow for its sides to be read beyond all that a window blurs; null where it is round. */
const unresolvedTip = (
  sampled: SampledContour,
  edgeModel: EdgeModel,
  one: Corner,
  roomBefore: number,
  roomAfter: number,
): Corner[] | null =>
  narrowTip(sampled, edgeModel, one, roomBefore, roomAfter) ??
  (isPointed(sampled, edgeModel, one) ? [{ ...one, isUnresolved: true }] : null);

/** Whether a sharp turn is over within a few points, as no round tip's is that shows. */
function isPointed(sampled: SampledContour, { gap, arm, aliasing }: EdgeModel, { index, turn }: Corner): boolean {
  if (aliasing > parameters.tipNarrowAliasing || Math.abs(turn) < parameters.tipPointedTurn) return false;
  const turned = (from: number): number => {
    const [before, after] = [sampled.line(index - from - arm, index - from), sampled.line(index + from, index + from + arm)];
    return Math.abs(turnBetween(asDirection(before), asDirection(after)));
  };
  return turned(gap + 1) > parameters.tipPointedShare * turned(gap + arm);
}

/** How far a side may be read before the next corner farther off than `near`, or an open contour's end, points. */
function roomBeside(sampled: SampledContour, corners: readonly Corner[], { index }: Corner, sign: 1 | -1, near: number): number {
  const toEnd = sign > 0 ? sampled.count - 1 - index : index;
  const max = sampled.closed ? sampled.count >> 1 : toEnd;
  const apart = corners.map((k) => ({ on: sampled.wrap(sign * (k.index - index)), back: sampled.wrap(sign * (index - k.index)) }));
  return Math.min(max, ...apart.filter(({ on, back }) => Math.min(on, back) > near).map(({ on }) => on));
}

/** Both corners of a flat tip; null where the tip is pointed, or round. */
function cutTip(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  tip: Corner,
  roomBefore: number,
  roomAfter: number,
): [Corner, Corner] | null {
  const near = 2 * (edgeModel.gap + edgeModel.arm) + edgeModel.gap;
  const lengths = [roomBefore, roomAfter].map((room) => Math.min(sideLength, room - near - edgeModel.gap - edgeModel.arm));
  const [before, after] = lengths as [number, number];
  if (Math.min(before, after) < shortestSide) return null;
  const { index } = tip;
  const a = localCurve(sampled, index, index - near - before, index - near);
  const b = localCurve(sampled, index, index + near, index + near + after);
  return flatBetween(sampled, edgeModel, tip, a, b, near);
}

/**
 * The same where the next corner lies so near that a side is too short to be read beyond all that a window blurs, as at the teeth of a
 * small wheel: with straight sides, read as near to the tip as they can be.
 */
function narrowTip(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  tip: Corner,
  roomBefore: number,
  roomAfter: number,
): [Corner, Corner] | null {
  if (edgeModel.aliasing > parameters.tipNarrowAliasing) return null;
  const { gap, arm } = edgeModel;
  const { index } = tip;
  for (let near = gap + 3; near <= 2 * (gap + arm); near++) {
    const [before, after] = [roomBefore, roomAfter].map((room) => Math.min(sideLength, room - near - gap)) as [number, number];
    if (Math.min(before, after) < shortestNarrowSide) return null;
    const isStraight = (first: number, last: number) => sampled.line(first, last).rms <= edgeModel.rms;
    if (!isStraight(index - near - before, index - near) || !isStraight(index + near, index + near + after)) continue;
    const a = localCurve(sampled, index, index - near - before, index - near, true);
    const b = localCurve(sampled, index, index + near, index + near + after, true);
    const found = flatBetween(sampled, edgeModel, tip, a, b, near);
    if (found) return found;
  }
  return null;
}

/** Both corners of what lies flat between two sides that are read from `near` on, points. */
function flatBetween(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  { index, turn }: Corner,
  a: LocalCurve,
  b: LocalCurve,
  near: number,
): [Corner, Corner] | null {
  const limit = parameters.tipOnSidePx + parameters.tipOnSideNoise * edgeModel.noise;
  const isOn = (side: LocalCurve, k: number) => offsetFrom(side, { x: sampled.x(k), y: sampled.y(k) }) <= limit;
  let [leaves, joins] = [index - near, index + near];
  while (leaves < index + near && isOn(a, leaves + 1)) leaves++;
  while (joins > index - near && isOn(b, joins - 1)) joins--;
  if (joins - leaves < parameters.tipFlatPoints || isExplained(sampled, edgeModel, a, b, index, near)) return null;
  const [begins, ends] = flatStretch(sampled, a, b, Math.min(leaves, index) - 2, Math.max(joins, index) + 2);
  // What softness bends beside both corners is left out, as far as something stays.
  const blurMargin = Math.min(edgeModel.gap, (ends - begins - 3) >> 1);
  const [first, last] = [begins + blurMargin, ends - blurMargin];
  const flat = sampled.line(first, last);
  for (let k = first; k <= last; k++) if (Math.abs(sampled.offset(k, flat)) > limit) return null;
  const cap = localCurve(sampled, (first + last) >> 1, first, last, true);
  const [from, to] = [meeting(a, cap), meeting(cap, b)];
  if (!from || !to || distance(from, to) < shortestFlat + parameters.tipFlatAliasing * edgeModel.aliasing) return null;
  const corners = [{ at: from, into: a.directionAt(along(a, from)), out: flat }, { at: to, into: flat, out: b.directionAt(along(b, to)) }]; // biome-ignore format: a table
  const found = corners.map(({ at, into, out }) =>
    cornerAt(sampled, edgeModel, at, asDirection(into), asDirection(out), begins - 4, ends + 4),
  );
  const [one, two] = found;
  if (!one || !two || Math.min(one.turn * Math.sign(turn), two.turn * Math.sign(turn)) < smallestTurn) return null;
  return two.index - one.index >= 3
    ? [
        { ...one, index: sampled.wrap(one.index) },
        { ...two, index: sampled.wrap(two.index) },
      ]
    : null;
}

const flatPlaces = parameters.tipFlatPlaces;

/** The indices between which a line, with the sides before and after it, comes nearest to the contour. */
function flatStretch(sampled: SampledContour, a: LocalCurve, b: LocalCurve, from: number, to: number): [number, number] {
  const count = to - from + 1;
  // Sums of squares up to every index, of what lies off the side before, and off the one after.
  const [onA, onB] = [new Float64Array(count + 1), new Float64Array(count + 1)];
  for (let k = 0; k < count; k++) {
    const p = { x: sampled.x(from + k), y: sampled.y(from + k) };
    onA[k + 1] = (onA[k] as number) + offsetFrom(a, p) ** 2;
    onB[k + 1] = (onB[k] as number) + offsetFrom(b, p) ** 2;
  }
  const line = sampled.line(from, to);
  const sumAt = (first: number, last: number): number => {
    const { rms } = sampled.line(first, last, line);
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

/** Whether both sides meet so near to the contour that one soft corner explains it. */
function isExplained(sampled: SampledContour, edgeModel: EdgeModel, a: LocalCurve, b: LocalCurve, index: number, near: number): boolean {
  const tip = meeting(a, b);
  if (!tip) return false;
  const [u, v] = [a.directionAt(along(a, tip)), b.directionAt(along(b, tip))];
  const halfAngle = (Math.PI - Math.abs(turnBetween(u, v))) / 2;
  return (
    nearestIndex(sampled, tip, index - near, index + near).off <=
    parameters.tipExplainedShrinkage * tipShrinkage(edgeModel, halfAngle) +
      parameters.tipExplainedPx +
      parameters.tipExplainedNoise * edgeModel.noise
  );
}

function nearestIndex(sampled: SampledContour, p: Point, first: number, last: number): { index: number; off: number } {
  let best = { index: first, off: Infinity };
  for (let k = first; k <= last; k++) {
    const off = norm(sampled.x(k) - p.x, sampled.y(k) - p.y);
    if (off < best.off) best = { index: k, off };
  }
  return best;
}

/** A corner where the contour comes as near to it as softness lets it; null where it does not, as on a round tip. */
function cornerAt(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  at: Point,
  into: Point,
  out: Point,
  first: number,
  last: number,
): Corner | null {
  const turn = turnBetween(into, out);
  const { index, off } = nearestIndex(sampled, at, first, last);
  return off <= farthestTip(edgeModel, turn) ? { index, turn } : null;
}
