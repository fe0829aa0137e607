/**
 * In: a grey picture and four corners in it. Out: whether they are those of a light sheet on a darker ground, and what of it is
 * surely sheet.
 * Rests on: the greys on either side of each edge, their median along it.
 */
import { median } from '../numeric/median.ts';
import { crossing, distance, dot, middleOf, type Point, subtract } from '../plane/point.ts';
import type { GreyPicture } from './grey.ts';

/** Looked at along each edge, at so many places, so far from its ends, and this far to either side. */
const placesAlong = 41;
const fromEnds = 0.06;
const besidePx = 6;
/** A sheet is so much lighter than what it lies on, grey levels. */
const minContrast = 24;

/**
 * Whether the corners, in turn, are those of a sheet that stands out from its ground on all sides but one at most. The corners of a
 * drawn rectangle have paper on both sides.
 */
export function isSheetOnGround(picture: GreyPicture, corners: readonly Point[]): boolean {
  const middle = middleOf(corners);
  const seen = corners.flatMap((a, k) => {
    const steps = stepsAcross(picture, a, corners[(k + 1) % corners.length] as Point, middle);
    return steps.length < placesAlong / 2 ? [] : [median(steps) >= minContrast];
  });
  const standing = seen.filter(Boolean).length;
  return standing >= 2 && standing >= seen.length - 1;
}

/** How much lighter it is inside than outside, along an edge; nothing where the outside is not in the picture. */
function stepsAcross({ width, height, data }: GreyPicture, a: Point, b: Point, middle: Point): number[] {
  const long = distance(a, b);
  if (long < 4 * besidePx) return [];
  const inward = inwardOf(a, b, middle);
  const at = (x: number, y: number): number | null =>
    x < 0 || y < 0 || x >= width || y >= height ? null : (data[Math.floor(y) * width + Math.floor(x)] as number);
  const steps: number[] = [];
  for (let k = 0; k < placesAlong; k++) {
    const t = fromEnds + ((1 - 2 * fromEnds) * k) / (placesAlong - 1);
    const [x, y] = [a.x + t * (b.x - a.x), a.y + t * (b.y - a.y)];
    const inside = at(x + besidePx * inward.x, y + besidePx * inward.y);
    const outside = at(x - besidePx * inward.x, y - besidePx * inward.y);
    if (inside !== null && outside !== null) steps.push(inside - outside);
  }
  return steps;
}

/** The corners with every edge drawn in by so much, so that its softness and a mark's error stay outside; px. */
export function drawnIn(corners: readonly Point[], byPx: number): Point[] {
  const middle = middleOf(corners);
  const edges = corners.map((a, k) => {
    const b = corners[(k + 1) % corners.length] as Point;
    const inward = inwardOf(a, b, middle);
    return { at: { x: a.x + byPx * inward.x, y: a.y + byPx * inward.y }, along: { x: b.x - a.x, y: b.y - a.y } };
  });
  return edges.map((edge, k) => {
    const before = edges.at(k - 1) as (typeof edges)[number];
    return crossing(before.at, before.along, edge.at, edge.along) ?? edge.at;
  });
}

/** The unit normal of an edge that points to the side of a place. */
function inwardOf(a: Point, b: Point, to: Point): Point {
  const long = distance(a, b) || 1;
  const normal = { x: -(b.y - a.y) / long, y: (b.x - a.x) / long };
  const isInward = dot(normal, subtract(to, middleOf([a, b]))) > 0;
  return isInward ? normal : { x: -normal.x, y: -normal.y };
}
