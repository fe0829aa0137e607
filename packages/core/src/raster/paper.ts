/**
 * In: a photograph that shows a whole sheet of paper on something darker. Out: the sheet's four corners, sub-pixel.
 * Rests on: Otsu's threshold on a small copy, the largest bright part's hull, straight lines through the strongest
 * edge along each side (least squares, outliers left out).
 */
import { crossing, distance, norm, type Point } from '../plane/point.ts';
import { contoursAt } from './contours.ts';
import { convexHull, polygonArea, simplerHull } from './convex-hull.ts';
import { downsample } from './downsample.ts';
import { edgeLine } from './edge-line.ts';
import { type GreyPicture, greyPicture } from './grey.ts';
import { histogram, otsuThreshold } from './threshold.ts';

const smallPx = 900;
const minShare = 0.15;
const maxShare = 0.97;

/** The corners in turn, seen on screen clockwise from the upper left; null where no sheet stands out. */
export function paperCorners(picture: GreyPicture): [Point, Point, Point, Point] | null {
  const { picture: small, factor: scale } = downsample(picture, smallPx);
  const otsu = otsuThreshold(histogram(small));
  if (!otsu || otsu.paper - otsu.ink < 25) return null;
  // Contours go round what is dark: turned over, the paper is.
  const turned = greyPicture(
    small.data.map((v) => 255 - v),
    small.width,
    small.height,
  );
  const largest = contoursAt(turned, 255 - otsu.value - 0.5, 100)
    .contours.filter((c) => !c.isHole)
    .sort((a, b) => b.area - a.area)[0];
  const whole = small.width * small.height;
  if (!largest || largest.area < minShare * whole || largest.area > maxShare * whole) return null;
  const points = Array.from({ length: largest.points.length / 2 }, (_, k) => ({
    x: largest.points[2 * k] as number,
    y: largest.points[2 * k + 1] as number,
  }));
  const rough = simplerHull(convexHull(points), 4);
  if (rough.length !== 4 || polygonArea(rough) < 0.9 * largest.area || polygonArea(rough) > 1.15 * largest.area) return null;
  if (rough.some((p) => p.x < 2 || p.y < 2 || p.x > small.width - 2 || p.y > small.height - 2)) return null;
  const corners = rough.map((p) => ({ x: p.x * scale, y: p.y * scale }));
  const sides = corners.map((p, k) => edgeLine(picture, p, corners[(k + 1) % 4] as Point, 3 * scale + 3));
  const fine = sides.map((side, k) => {
    const before = sides.at(k - 1);
    return side && before ? crossing(before.at, before.along, side.at, side.along) : null;
  });
  if (fine.some((p, k) => !p || distance(p, corners[k] as Point) > 12 * scale)) return null;
  return fromUpperLeft(fine as Point[]);
}

function fromUpperLeft(corners: readonly Point[]): [Point, Point, Point, Point] {
  const middle = { x: corners.reduce((s, p) => s + p.x, 0) / 4, y: corners.reduce((s, p) => s + p.y, 0) / 4 };
  const turn = (p: Point) => Math.atan2(p.y - middle.y, p.x - middle.x);
  const clockwise = corners.toSorted((a, b) => turn(a) - turn(b));
  const first = clockwise.reduce((best, p, k) => (p.x + p.y < (clockwise[best] as Point).x + (clockwise[best] as Point).y ? k : best), 0);
  return [0, 1, 2, 3].map((k) => clockwise[(first + k) % 4] as Point) as [Point, Point, Point, Point];
}

/** Side lengths of sheets, mm: ISO 216 and the American ones (ANSI/ASME Y14.1). */
export const sheetSizes: readonly { readonly name: string; readonly longMm: number; readonly shortMm: number }[] = [
  { name: 'A4', longMm: 297, shortMm: 210 },
  { name: 'A3', longMm: 420, shortMm: 297 },
  { name: 'A5', longMm: 210, shortMm: 148 },
  { name: 'US Letter', longMm: 279.4, shortMm: 215.9 },
  { name: 'US Legal', longMm: 355.6, shortMm: 215.9 },
  { name: 'US Tabloid', longMm: 431.8, shortMm: 279.4 },
];

/**
 * How much longer a rectangle's first side is than its second, from its four corners as a camera sees them.
 * Rests on: Zhang & He 2007, "Whiteboard scanning and image enhancement": the optical axis runs through the picture's
 * middle; where opposite sides are parallel in the picture, the ratio is that of the sides.
 */
export function sideRatio([m1, m2, m4, m3]: readonly [Point, Point, Point, Point], size: { width: number; height: number }): number {
  const plain = (distance(m1, m2) + distance(m3, m4)) / (distance(m2, m4) + distance(m3, m1));
  const at = (p: Point) => [p.x - size.width / 2, p.y - size.height / 2, 1] as const;
  const [a, b, c, d] = [at(m1), at(m2), at(m3), at(m4)];
  const outer = (u: readonly number[], v: readonly number[]) =>
    [
      (u[1] as number) * (v[2] as number) - (u[2] as number) * (v[1] as number),
      (u[2] as number) * (v[0] as number) - (u[0] as number) * (v[2] as number),
      (u[0] as number) * (v[1] as number) - (u[1] as number) * (v[0] as number),
    ] as const;
  const dot = (u: readonly number[], v: readonly number[]) => u.reduce((s, w, k) => s + w * (v[k] as number), 0);
  const ad = outer(a, d);
  const [k2, k3] = [dot(ad, c) / dot(outer(b, d), c), dot(ad, b) / dot(outer(c, d), b)];
  const n2 = b.map((v, k) => k2 * v - (a[k] as number)) as [number, number, number];
  const n3 = c.map((v, k) => k3 * v - (a[k] as number)) as [number, number, number];
  const f2 = -(n2[0] * n3[0] + n2[1] * n3[1]) / (n2[2] * n3[2]);
  const diagonal = norm(size.width, size.height);
  // Nearly parallel sides tell nothing of the focal length; then the view is nearly straight down.
  if (!Number.isFinite(f2) || f2 < (0.3 * diagonal) ** 2 || f2 > (6 * diagonal) ** 2) return plain;
  return Math.sqrt((n2[0] ** 2 / f2 + n2[1] ** 2 / f2 + n2[2] ** 2) / (n3[0] ** 2 / f2 + n3[1] ** 2 / f2 + n3[2] ** 2));
}

/** Rectangles longer or shorter than their standard by more than this share are another size. */
const ratioSlack = 0.05;

/** The standard sheets that four corners can be, the likeliest first, and whether their first side is the long one. */
export function sheetsFor(corners: readonly [Point, Point, Point, Point], size: { width: number; height: number }) {
  const ratio = sideRatio(corners, size);
  const off = (s: (typeof sheetSizes)[number]) => Math.abs(Math.log(Math.max(ratio, 1 / ratio) / (s.longMm / s.shortMm)));
  const fitting = sheetSizes.filter((s) => off(s) < ratioSlack).toSorted((a, b) => off(a) - off(b));
  return { isFirstLong: ratio > 1, sheets: fitting };
}
