/**
 * In: a way from pixel to pixel along an edge or a line. Out: the same way to a part of a pixel.
 * Rests on: greys read across the way; an edge lies halfway between those to either side, a line between its two borders.
 */
import { norm, type Point } from '../plane/point.ts';
import type { GreyPicture } from './grey.ts';
import { type LiveWireTarget, minSlope } from './live-wire.ts';

/** How far to either side of the way the edge or line is looked for, px. */
const sideReach = 2.5;
/** Lines are read across over so much to either side, px. */
const widestLine = 9;
/** Its offset is compared with those of so many pixels to either side. */
const evenReach = 3;
/** What differs from them by more has found something else, px. */
const leapPx = 1.8;

/**
 * The way moved onto the edge or line that it follows, to a part of a pixel.
 * @param path neighbouring pixels, px
 * @returns x and y in turn
 */
export function subpixelEdge(picture: GreyPicture, path: readonly Point[], follow: LiveWireTarget): Float64Array {
  const n = path.length;
  const at = (k: number): Point => path[Math.min(n - 1, Math.max(0, k))] as Point;
  const normals = path.map((_, k) => {
    const [a, b] = [at(k - 4), at(k + 4)];
    const size = norm(b.x - a.x, b.y - a.y) || 1;
    return { x: -(b.y - a.y) / size, y: (b.x - a.x) / size };
  });
  const even = path.map((_, k) => {
    let [x, y, count] = [0, 0, 0];
    for (let j = -3; j <= 3; j++) {
      if (k + j < 0 || k + j >= n) continue;
      x += at(k + j).x;
      y += at(k + j).y;
      count++;
    }
    return { x: x / count, y: y / count };
  });
  const offsets = even.map((p, k) => offsetAt(picture, p, normals[k] as Point, follow));
  const kept = offsets.map((own, k) => {
    const near = offsets.slice(Math.max(0, k - evenReach), k + evenReach + 1).filter((o): o is number => o !== null);
    const middle = near.length > 0 ? (near.toSorted((a, b) => a - b)[near.length >> 1] as number) : 0;
    return own !== null && Math.abs(own - middle) < leapPx ? own : middle;
  });
  const out = new Float64Array(2 * n);
  for (let k = 0; k < n; k++) {
    const offset = kept[k] as number;
    out[2 * k] = (even[k] as Point).x + offset * (normals[k] as Point).x;
    out[2 * k + 1] = (even[k] as Point).y + offset * (normals[k] as Point).y;
  }
  return out;
}

/** Greys along the normal are read in steps of this, px. */
const readStep = 0.5;

/** How far along the normal the edge or the middle of the line lies; null where there is nothing. */
function offsetAt(picture: GreyPicture, p: Point, n: Point, follow: LiveWireTarget): number | null {
  const searchRadius = follow === 'edge' ? sideReach + 1.5 : widestLine;
  const count = 2 * Math.round(searchRadius / readStep) + 1;
  const start = (-(count - 1) * readStep) / 2;
  const grey = Array.from({ length: count }, (_, k) =>
    greyBetween(picture, p.x + n.x * (start + k * readStep), p.y + n.y * (start + k * readStep)),
  );
  const found = follow === 'edge' ? steepestIn(grey) : middleIn(grey);
  return found === null ? null : start + readStep * found;
}

/** Where greys change fastest, halfway. */
function steepestIn(grey: readonly number[]): number | null {
  const middle = (grey.length - 1) / 2;
  let best = -1;
  let max = minSlope;
  for (let k = 2; k < grey.length - 2; k++) {
    const [a, b, c, d] = [grey[k - 2], grey[k - 1], grey[k + 1], grey[k + 2]] as [number, number, number, number];
    const slope = Math.abs(c + d - a - b) / 3;
    if (Math.abs(k - middle) * readStep > sideReach || slope < max) continue;
    best = k;
    max = slope;
  }
  return best < 0 ? null : halfwayNear(grey, best);
}

/** The middle between the two borders of the dark run nearest to the middle. */
function middleIn(grey: readonly number[]): number | null {
  const middle = (grey.length - 1) >> 1;
  const [dark, light] = [Math.min(...grey), Math.max(...grey)];
  if (light - dark < 3 * minSlope) return null;
  const level = (dark + light) / 2;
  let at = -1;
  for (let far = 0; far * readStep <= sideReach && at < 0; far++)
    at = (grey[middle + far] as number) < level ? middle + far : (grey[middle - far] as number) < level ? middle - far : -1;
  if (at < 0) return null;
  let [first, last] = [at, at];
  while (first > 0 && (grey[first] as number) < level) first--;
  while (last < grey.length - 1 && (grey[last] as number) < level) last++;
  if ((grey[first] as number) < level || (grey[last] as number) < level) return null;
  const crossed = (outer: number, inner: number) =>
    outer + ((inner - outer) * ((grey[outer] as number) - level)) / ((grey[outer] as number) - (grey[inner] as number));
  return (crossed(first, first + 1) + crossed(last, last - 1)) / 2;
}

/** Where greys pass halfway between those to either side of the steepest place: less rough than the steepest place itself. */
function halfwayNear(grey: readonly number[], steepest: number): number {
  const [low, high] = [grey[Math.max(0, steepest - 4)] as number, grey[Math.min(grey.length - 1, steepest + 4)] as number];
  const level = (low + high) / 2;
  for (let far = 0; far < 4; far++) {
    for (const k of [steepest + far, steepest - far - 1]) {
      const [a, b] = [grey[k] ?? Number.NaN, grey[k + 1] ?? Number.NaN];
      if ((a - level) * (b - level) <= 0 && a !== b) return k + (level - a) / (b - a);
    }
  }
  return steepest;
}

/** Bilinear between pixels' middles. */
function greyBetween({ width, height, data }: GreyPicture, x: number, y: number): number {
  const u = Math.min(width - 1.001, Math.max(0, x - 0.5));
  const v = Math.min(height - 1.001, Math.max(0, y - 0.5));
  const p = Math.floor(v) * width + Math.floor(u);
  const [fx, fy] = [u - Math.floor(u), v - Math.floor(v)];
  const above = (data[p] as number) * (1 - fx) + (data[p + 1] as number) * fx;
  const below = (data[p + width] as number) * (1 - fx) + (data[p + width + 1] as number) * fx;
  return above * (1 - fy) + below * fy;
}
