/**
 * In: a grey picture. Out: the hull of what is drawn in it, specks and the picture's rim left out; and the narrowest
 * passage between two places of it.
 */
import { distance, type Point } from '../plane/point.ts';
import { type Contour, contoursAt } from './contours.ts';
import { convexHull, simplerHull } from './convex-hull.ts';
import type { GreyPicture } from './grey.ts';
import { histogram, otsuThreshold } from './threshold.ts';

/** Specks are smaller than this share of the picture's shorter side, squared. */
const speckShare = 0.004;
const maxCorners = 120;

/** Contours of the ink, by Otsu's threshold; empty for a picture of one grey. */
export function inkContours(picture: GreyPicture): readonly Contour[] {
  const otsu = otsuThreshold(histogram(picture));
  if (!otsu) return [];
  const side = Math.max(3, speckShare * Math.min(picture.width, picture.height));
  return contoursAt(picture, otsu.value + 0.5, side * side).contours;
}

/** The convex hull of the ink that does not touch the picture's rim, in its pixels; null where there is none. */
export function contentHull({ width, height }: GreyPicture, contours: readonly Contour[]): Point[] | null {
  const inside = contours.filter(({ isHole, parent, points }) => !isHole && parent === -1 && !touchesRim(points, width, height));
  const points = inside.flatMap((c) => pairs(c.points));
  const hull = convexHull(points);
  return hull.length < 3 ? null : simplerHull(hull, maxCorners);
}

function touchesRim(points: Float64Array, width: number, height: number): boolean {
  for (let k = 0; k < points.length; k += 2) {
    const [x, y] = [points[k] as number, points[k + 1] as number];
    if (x < 1 || y < 1 || x > width - 1 || y > height - 1) return true;
  }
  return false;
}

const pairs = (points: Float64Array): Point[] =>
  Array.from({ length: points.length / 2 }, (_, k) => ({ x: points[2 * k] as number, y: points[2 * k + 1] as number }));

/**
 * The narrowest passage between what is drawn near `a` and what is drawn near `b`: its two sides, or null where one of
 * them is blank. Points of the border within four tenths of the distance from each place are looked at.
 */
export function narrowestPassage(contours: readonly Contour[], a: Point, b: Point): [Point, Point] | null {
  const reach = Math.max(6, 0.45 * distance(a, b));
  const near = (place: Point): Point[] => {
    const found: Point[] = [];
    for (const { points } of contours) {
      for (let k = 0; k < points.length; k += 2) {
        const p = { x: points[k] as number, y: points[k + 1] as number };
        if (distance(p, place) <= reach) found.push(p);
      }
    }
    return found;
  };
  const [first, second] = [near(a), near(b)];
  let best: [Point, Point] | null = null;
  let min = Infinity;
  for (const p of first) {
    for (const q of second) {
      const d = distance(p, q);
      // What lies between must be the passage: the other side is ahead, not beside.
      if (d < min && (q.x - p.x) * (b.x - a.x) + (q.y - p.y) * (b.y - a.y) > 0.5 * d * distance(a, b)) {
        min = d;
        best = [p, q];
      }
    }
  }
  return best;
}
