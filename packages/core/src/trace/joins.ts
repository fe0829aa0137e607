/**
 * In: two neighbouring parts of an outline. Out: where they join, and with which direction.
 * Rests on: least-squares lines and parabolas through what softness has not blurred; the place where they meet, no farther out than
 * that explains.
 */
import { crossing, distance, norm, type Point, turnBetween } from '../plane/point.ts';
import { type EdgeModel, farthestTip } from './edge-model.ts';
import { type LocalCurve, localCurve, meeting } from './local-curve.ts';
import { placeReach } from './optimal-segmentation.ts';
import { parameters } from './parameters.ts';
import type { SampledContour } from './sampled-contour.ts';

/** A part of the outline: straight or curved, from contour index `first` to `last`. */
export interface Part {
  readonly kind: 'line' | 'curve';
  readonly first: number;
  readonly last: number;
}

/** How two neighbouring parts join. */
export interface Join {
  readonly at: Point;
  /** The common direction, or null at a corner. */
  readonly direction: Point | null;
  /** Points to either side of a corner that its softness blurs. */
  readonly blurMargin: number;
}

/** How a part joins the next one. @param corners points to either side of every corner that its softness blurs */
export function joinAfter(sampled: SampledContour, edgeModel: EdgeModel, a: Part, b: Part, corners: Map<number, number>): Join {
  const blurMargin = corners.get(sampled.wrap(a.last)) ?? 0;
  if (blurMargin > 0) return cornerJoin(sampled, edgeModel, a, b, blurMargin);
  if (a.kind === 'line' && b.kind === 'line') return cornerJoin(sampled, edgeModel, a, b, edgeModel.gap);
  if (a.kind === 'curve' && b.kind === 'curve') {
    const reach = placeReach(sampled, edgeModel);
    const local = localCurve(sampled, a.last, a.last - reach, a.last + reach);
    return { at: local.at, direction: local.direction, blurMargin: 0 };
  }
  const line = a.kind === 'line' ? lineOf(sampled, a, corners) : lineOf(sampled, b, corners);
  const along = line.dx * (sampled.x(a.last) - line.x) + line.dy * (sampled.y(a.last) - line.y);
  return {
    at: { x: line.x + line.dx * along, y: line.y + line.dy * along },
    direction: { x: line.dx, y: line.dy },
    blurMargin: 0,
  };
}

/** The line through a straight part, its blurred ends left out. */
function lineOf(sampled: SampledContour, part: Part, corners: Map<number, number>) {
  const room = Math.floor((part.last - part.first) / 4);
  const trim = (k: number) => Math.min(room, corners.get(sampled.wrap(k)) ?? 0);
  return sampled.line(part.first + trim(part.first), part.last - trim(part.last));
}

/** The corner where the contours of two parts meet, read from what softness has not blurred. */
function cornerJoin(sampled: SampledContour, edgeModel: EdgeModel, a: Part, b: Part, blurMargin: number): Join {
  const side = (part: Part, index: number, sign: 1 | -1, straight: boolean): LocalCurve => {
    const length = part.last - part.first;
    const trim = Math.min(blurMargin, Math.floor(length / 4));
    const reach = part.kind === 'line' ? length - 2 * trim : Math.min(length - trim - 1, straight ? edgeModel.arm : 14 + 2 * edgeModel.arm);
    const [near, far] = [index + sign * trim, index + sign * (trim + Math.max(1, reach))];
    return localCurve(sampled, index, Math.min(near, far), Math.max(near, far), straight || part.kind === 'line');
  };
  const [curved, straight] = [false, true].map((isStraight) => [side(a, a.last, -1, isStraight), side(b, b.first, 1, isStraight)]) as [
    [LocalCurve, LocalCurve],
    [LocalCurve, LocalCurve],
  ];
  // Where sides run nearly alike their bends do not meet, but their directions do; and a bend read beside a corner may run astray.
  const [u, v] = straight;
  const places = [
    { at: meeting(...curved), sides: curved },
    { at: crossing(u.at, u.direction, v.at, v.direction), sides: straight },
  ].flatMap(({ at, sides: [before, after] }) =>
    at ? [{ at, beyond: offCorner(sampled, a.last, at) - farthestTip(edgeModel, turnBetween(before.direction, after.direction)) }] : [],
  );
  const found = places.find(({ beyond }) => beyond <= 0) ?? places.toSorted((p, q) => p.beyond - q.beyond)[0];
  const farthest = farthestCorner(edgeModel);
  const seen = { x: sampled.x(a.last), y: sampled.y(a.last) };
  const isClear = found && found.beyond <= parameters.cornerBeyond && distance(found.at, seen) <= farthest;
  return { at: isClear ? found.at : seen, direction: null, blurMargin };
}

/** No corner lies farther than this from where it is seen, px. */
export const farthestCorner = ({ blur, noise, worst }: EdgeModel): number => 4 + 8 * blur + 4 * noise + worst;

/** How far a place lies from the contour about a corner, px. */
function offCorner(sampled: SampledContour, index: number, { x, y }: Point): number {
  let min = Infinity;
  for (let k = index - parameters.shallowCornerSeen; k <= index + parameters.shallowCornerSeen; k++)
    min = Math.min(min, norm(sampled.x(k) - x, sampled.y(k) - y));
  return min;
}
