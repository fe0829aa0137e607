/**
 * In: closed paths in pixels. Out: how much of each pixel they cover, 0 to 1, exact for their chords.
 * Rests on: the picture halved again and again, each outline clipped to both halves (Sutherland & Hodgman 1974) until a single pixel
 * is left, and the area of what is left there by the shoelace formula. The product's own rasteriser sums along rows instead: the one
 * judges the other.
 * Outer outlines and holes must run opposite ways, and pieces must not overlap. Chords within 0.004 pixel of the path.
 */
import { type Path, polygonOf } from '@nuvet/core/plane';

const chordTolerancePx = 0.004;
/** What rounding leaves of areas, square pixels. */
const nothing = 1e-9;

/** x and y in turn, of which the first `length` count. */
interface Polygon {
  xy: Float64Array;
  length: number;
}

/** Two of them for each depth, used again and again. */
const scratch: Polygon[] = [];

function scratchAt(depth: number, room: number): Polygon {
  scratch[depth] ??= { xy: new Float64Array(64), length: 0 };
  const polygon = scratch[depth] as Polygon;
  if (polygon.xy.length < room) polygon.xy = new Float64Array(2 * room);
  return polygon;
}

export function coverageOf(paths: readonly Path[], width: number, height: number): Float32Array {
  const covered = new Float64Array(width * height);
  for (const path of paths) {
    const corners = polygonOf(path, chordTolerancePx);
    const xy = new Float64Array(2 * corners.length);
    corners.forEach(({ x, y }, k) => {
      xy[2 * k] = x;
      xy[2 * k + 1] = y;
    });
    let whole: Polygon = { xy, length: xy.length };
    const edges: [0 | 1, number, 1 | -1][] = [[0, 0, 1], [0, width, -1], [1, 0, 1], [1, height, -1]]; // biome-ignore format: one line
    edges.forEach(([axis, limit, side], k) => {
      whole = clipped(whole, axis, limit, side, k);
    });
    spread(whole, 0, 0, width, height, covered, width, edges.length);
  }
  const coverage = new Float32Array(covered.length);
  for (let p = 0; p < coverage.length; p++) if (covered[p] !== 0) coverage[p] = Math.min(1, Math.abs(covered[p] as number));
  return coverage;
}

/** Adds what a polygon covers of each pixel from x to right and y to bottom, in which all of it lies. */
function spread(
  polygon: Polygon,
  x: number,
  y: number,
  right: number,
  bottom: number,
  covered: Float64Array,
  width: number,
  depth: number,
): void {
  // Clipping leaves edges that run there and back along the limits, about nothing.
  if (polygon.length < 6 || isFlat(polygon, 0) || isFlat(polygon, 1)) return;
  const area = signedArea(polygon);
  const w = right - x;
  const h = bottom - y;
  if (w === 1 && h === 1) {
    covered[y * width + x] = (covered[y * width + x] as number) + area;
    return;
  }
  if (w * h - Math.abs(area) < nothing) {
    for (let row = y; row < bottom; row++)
      for (let p = row * width + x; p < row * width + right; p++) covered[p] = (covered[p] as number) + Math.sign(area);
    return;
  }
  const axis = w >= h ? 0 : 1;
  const middle = axis === 0 ? x + (w >> 1) : y + (h >> 1);
  const before = clipped(polygon, axis, middle, -1, depth);
  if (axis === 0) spread(before, x, y, middle, bottom, covered, width, depth + 1);
  else spread(before, x, y, right, middle, covered, width, depth + 1);
  const after = clipped(polygon, axis, middle, 1, depth);
  if (axis === 0) spread(after, middle, y, right, bottom, covered, width, depth + 1);
  else spread(after, x, middle, right, bottom, covered, width, depth + 1);
}

/** The part of a polygon on one side of a level or plumb line: where the coordinate (0 x, 1 y) is above the limit, or below it. */
function clipped(polygon: Polygon, axis: 0 | 1, limit: number, side: 1 | -1, depth: number): Polygon {
  const { xy, length: n } = polygon;
  let isAllIn = true;
  let isAllOut = true;
  for (let k = axis; k < n; k += 2) {
    const off = ((xy[k] as number) - limit) * side;
    if (off > 0) isAllOut = false;
    else if (off < 0) isAllIn = false;
  }
  if (isAllIn) return polygon;
  const made = scratchAt(depth, 2 * n);
  made.length = 0;
  if (isAllOut) return made;
  const kept = made.xy;
  const other = 1 - axis;
  let count = 0;
  let a = xy[n - 2 + axis] as number;
  let b = xy[n - 2 + other] as number;
  for (let k = 0; k < n; k += 2) {
    const c = xy[k + axis] as number;
    const d = xy[k + other] as number;
    const isIn = (c - limit) * side >= 0;
    if ((a - limit) * side >= 0 !== isIn) {
      kept[count + axis] = limit;
      kept[count + other] = b + ((limit - a) / (c - a)) * (d - b);
      count += 2;
    }
    if (isIn) {
      kept[count + axis] = c;
      kept[count + other] = d;
      count += 2;
    }
    a = c;
    b = d;
  }
  made.length = count;
  return made;
}

/** Whether all corners have the same x, or y. */
function isFlat({ xy, length: n }: Polygon, axis: 0 | 1): boolean {
  const first = xy[axis];
  for (let k = axis + 2; k < n; k += 2) if (xy[k] !== first) return false;
  return true;
}

function signedArea({ xy, length: n }: Polygon): number {
  // From the first corner on, so that what is small is not lost in what is far away.
  const ox = xy[0] as number;
  const oy = xy[1] as number;
  let sum = 0;
  for (let k = 2; k + 3 < n; k += 2) {
    sum += ((xy[k] as number) - ox) * ((xy[k + 3] as number) - oy) - ((xy[k + 2] as number) - ox) * ((xy[k + 1] as number) - oy);
  }
  return sum / 2;
}
