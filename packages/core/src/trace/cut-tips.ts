/**
 * In: the corners of a contour. Out: the same, those at tips that are cut off (a serif's end, a spike filed flat) as the two
 * corners that they are.
 * A flat end only a few pixels wide lies inside the windows that corners are found by. It shows because both sides, read
 * beyond it, meet farther out than softness explains, while a straight line joins them where the contour turns.
 */
import { distance, norm, type Point, turnBetween } from '../plane/point.ts';
import type { Corner } from './corner.ts';
import { type EdgeModel, smallestTurn, tipShrinkage } from './edge-model.ts';
import { type LocalCurve, localCurve, meeting } from './local-curve.ts';
import { parameters } from './parameters.ts';
import type { SampledContour } from './sampled-contour.ts';

const sideLength = parameters.tipSideLength;
const shortestSide = parameters.tipShortestSide;
const shortestFlat = parameters.tipShortestFlat;

/** @param doubtful places that turn sharply without being one corner */
export function withCutTips(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  corners: readonly Corner[],
  doubtful: readonly Corner[],
): Corner[] {
  let kept = [...corners];
  for (const one of [...corners, ...doubtful]) {
    const pair = cutTip(
      sampled,
      edgeModel,
      one,
      roomBeside(sampled, edgeModel, kept, one, -1),
      roomBeside(sampled, edgeModel, kept, one, 1),
    );
    if (!pair) continue;
    const [first, second] = pair;
    const length = sampled.wrap(second.index - first.index);
    kept = [...kept.filter((k) => sampled.wrap(k.index - first.index + 4) > length + 8), first, second];
  }
  return kept;
}

/** How far a side may be read before the next corner, or an open contour's end, points. */
function roomBeside(sampled: SampledContour, edgeModel: EdgeModel, corners: readonly Corner[], { index }: Corner, sign: 1 | -1): number {
  const near = 2 * (edgeModel.gap + edgeModel.arm);
  const toEnd = sign > 0 ? sampled.count - 1 - index : index;
  const max = sampled.closed ? sampled.count >> 1 : toEnd;
  const apart = corners.map((k) => ({ on: sampled.wrap(sign * (k.index - index)), back: sampled.wrap(sign * (index - k.index)) }));
  return Math.min(max, ...apart.filter(({ on, back }) => Math.min(on, back) > near).map(({ on }) => on));
}

/** Both corners of a flat tip; null where the tip is pointed, or round. */
function cutTip(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  { index, turn }: Corner,
  roomBefore: number,
  roomAfter: number,
): [Corner, Corner] | null {
  const reach = 2 * (edgeModel.gap + edgeModel.arm);
  const near = reach + edgeModel.gap;
  const [lengthBefore, lengthAfter] = [roomBefore, roomAfter].map((room) =>
    Math.min(sideLength, room - near - edgeModel.gap - edgeModel.arm),
  ) as [number, number];
  if (Math.min(lengthBefore, lengthAfter) < shortestSide) return null;
  const a = localCurve(sampled, index, index - near - lengthBefore, index - near);
  const b = localCurve(sampled, index, index + near, index + near + lengthAfter);
  const limit = parameters.tipOnSidePx + parameters.tipOnSideNoise * edgeModel.noise;
  const isOn = (side: LocalCurve, k: number) => offsetFrom(side, { x: sampled.x(k), y: sampled.y(k) }) <= limit;
  let [leaves, joins] = [index - near, index + near];
  while (leaves < index + near && isOn(a, leaves + 1)) leaves++;
  while (joins > index - near && isOn(b, joins - 1)) joins--;
  if (joins - leaves < 5 || isExplained(sampled, edgeModel, a, b, index, near)) return null;
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
  return off <= 1.3 * tipShrinkage(edgeModel, (Math.PI - Math.abs(turn)) / 2) + 0.35 + 2 * edgeModel.noise ? { index, turn } : null;
}
