/**
 * In: the parts of an outline with the segments fitted to them. Out: a path of these; where a part's segments stray from the contour,
 * of others that hold to it.
 */
import type { Path } from '../plane/path.ts';
import { distance, norm, type Point } from '../plane/point.ts';
import { pointOn, type Segment } from '../plane/segment.ts';
import { type Bend, fitBend } from './bends.ts';
import { openChords } from './douglas-peucker.ts';
import type { EdgeModel } from './edge-model.ts';
import { farthestCorner, type Join, type Part } from './joins.ts';
import { parameters } from './parameters.ts';
import type { SampledContour } from './sampled-contour.ts';

/** The segments of all parts from place to place; a part whose segments leave the contour is drawn anew, holding to it. */
export function pathAlong(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  parts: readonly Part[],
  joins: readonly Join[],
  found: readonly Point[],
  bends: readonly (Bend | null)[],
): Path {
  const isRound = joins[0] === joins.at(-1);
  const farthest = farthestCorner(edgeModel);
  const stops = [(parts[0] as Part).first, ...parts.map(({ last }) => last)];
  const offs = found.map((place, k) => {
    const beside = isRound ? [parts.at(k - 1), parts[k % parts.length]] : [parts[k - 1], parts[k]];
    return Math.min(...beside.map((part) => (part ? offPart(sampled, part, place) : Infinity)));
  });
  // What slides along an edge may end anywhere on it, but not off the contour.
  const isLost = offs.map((off) => off > farthest);
  const places = found.map((place, k) => {
    const index = stops[k] as number;
    return isLost[k] ? { x: sampled.x(index), y: sampled.y(index) } : place;
  });
  if (isRound) places[places.length - 1] = places[0] as Point;
  const segments = parts.flatMap((part, k): readonly Segment[] => {
    const [from, to] = [places[k] as Point, places[k + 1] as Point];
    const own = bends[k]?.segments ?? [{ kind: 'line' as const, to }];
    const near = [offs[k] as number, offs[k + 1] as number] as const;
    const isHeld = isLost[k] || isLost[k + 1] || !keepsToContour(sampled, edgeModel, part, from, own, near);
    return isHeld ? heldSegments(sampled, edgeModel, part, from, to) : own;
  });
  return { start: places[0] as Point, segments, closed: false };
}

/** How far a place lies from the contour of a part, px. */
function offPart(sampled: SampledContour, { first, last }: Part, { x, y }: Point): number {
  let min = Infinity;
  for (let k = first; k <= last; ) {
    const d = norm(sampled.x(k) - x, sampled.y(k) - y);
    min = Math.min(min, d);
    k += Math.max(1, Math.floor(d - min));
  }
  return min;
}

/** Segments are looked at in so many places each. */
const placesLookedAt = 6;

/**
 * Whether the segments of a part stay by the contour; beside its ends, which may be corners that softness keeps the contour back from,
 * they need not.
 */
function keepsToContour(
  sampled: SampledContour,
  edgeModel: EdgeModel,
  { first, last }: Part,
  start: Point,
  segments: readonly Segment[],
  [offStart, offEnd]: readonly [number, number],
): boolean {
  const limit = parameters.strayOfWorst * edgeModel.worst + parameters.strayPx;
  const end = (segments.at(-1) as Segment).to;
  let from = start;
  for (const segment of segments) {
    for (let n = 1; n <= placesLookedAt; n++) {
      const p = pointOn(from, segment, n / (placesLookedAt + 1));
      if (distance(p, start) < 2 * offStart + 2 || distance(p, end) < 2 * offEnd + 2) continue;
      if (!isWithin(sampled, first - strayReach, last + strayReach, p, limit)) return false;
    }
    from = segment.to;
  }
  return true;
}

/** Points beyond a part that its segments may run beside: what slides along an edge ends on it. */
const strayReach = 24;

function isWithin(sampled: SampledContour, from: number, to: number, { x, y }: Point, limit: number): boolean {
  const [first, last] = sampled.closed ? [from, to] : [Math.max(0, from), Math.min(sampled.count - 1, to)];
  for (let k = first; k <= last; ) {
    const d = norm(sampled.x(k) - x, sampled.y(k) - y);
    if (d <= limit) return true;
    // The contour comes no nearer than a pixel a step.
    k += Math.max(1, Math.floor(d - limit));
  }
  return false;
}

/** A part drawn by the contour alone: curves that join nothing smoothly, or chords where these stray, too. */
function heldSegments(sampled: SampledContour, edgeModel: EdgeModel, part: Part, from: Point, to: Point): Segment[] {
  const { first, last } = part;
  const [start, end] = [from, to].map((at, k) => ({ at, direction: null, blurMargin: 1, index: k === 0 ? first : last, slides: false }));
  if (start && end && last - first > 8) {
    const { segments } = fitBend(sampled, edgeModel, start, end);
    const offs = [offPart(sampled, part, from), offPart(sampled, part, to)] as const;
    if (segments.length > 0 && keepsToContour(sampled, edgeModel, part, from, segments, offs)) return segments;
  }
  const points = Float64Array.from({ length: 2 * (last - first + 1) }, (_, k) => (k % 2 === 0 ? sampled.x(first + (k >> 1)) : sampled.y(first + (k >> 1)))); // biome-ignore format: one line
  points.set([from.x, from.y], 0);
  points.set([to.x, to.y], points.length - 2);
  return openChords(points, edgeModel.worst).map((at) => ({ kind: 'line', to: at }));
}
