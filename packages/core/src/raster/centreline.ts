/**
 * In: a grey picture and a rough contour along a drawn line. Out: the line's exact middle and its width.
 * Rests on: on the normal at every pixel of the contour, where grey crosses the level to either side, between pixels;
 * the middle is half way. What is much wider than the line is elsewhere belongs to a junction or a corner and is left out.
 */

import { norm } from '../plane/point.ts';
import type { GreyPicture } from './grey.ts';

export interface Centreline {
  /** x and y in turn, px; fewer than two points where nothing of the line could be read. */
  readonly points: Float64Array;
  /** For every point its place along the rough contour, in steps of it. */
  readonly places: Float64Array;
  /** The median width, px. */
  readonly width: number;
}

/** @param rough x and y in turn, about a pixel apart */
export function centreline(picture: GreyPicture, level: number, rough: Float64Array, closed: boolean, roughWidth: number): Centreline {
  let sampled = smoothed(rough, closed, Math.max(2, Math.round(roughWidth / 2)));
  let found: Centreline = { points: sampled, places: new Float64Array(0), width: roughWidth };
  for (let round = 0; round < 2; round++) {
    found = readAcross(picture, level, sampled, closed, found.width);
    if (found.points.length < 6) return found;
    if (round === 0) sampled = filledIn(sampled, found);
  }
  return found;
}

/** The mean over `reach` points to either side; near open ends over as many as there are. */
function smoothed(points: Float64Array, closed: boolean, reach: number): Float64Array {
  const n = points.length / 2;
  const out = new Float64Array(points.length);
  for (let k = 0; k < n; k++) {
    const room = closed ? Math.min(reach, (n - 1) >> 1) : Math.min(reach, k, n - 1 - k);
    let [x, y] = [0, 0];
    for (let i = k - room; i <= k + room; i++) {
      const j = ((i % n) + n) % n;
      x += points[2 * j] as number;
      y += points[2 * j + 1] as number;
    }
    out[2 * k] = x / (2 * room + 1);
    out[2 * k + 1] = y / (2 * room + 1);
  }
  return out;
}

function readAcross(picture: GreyPicture, level: number, sampled: Float64Array, closed: boolean, roughWidth: number): Centreline {
  const n = sampled.length / 2;
  const [xs, ys, widths] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  const reach = Math.max(3, 1.6 * roughWidth + 2);
  const span = 3;
  for (let k = 0; k < n; k++) {
    const [a, b] = closed ? [(k - span + n) % n, (k + span) % n] : [Math.max(0, k - span), Math.min(n - 1, k + span)];
    const [dx, dy] = [
      (sampled[2 * b] as number) - (sampled[2 * a] as number),
      (sampled[2 * b + 1] as number) - (sampled[2 * a + 1] as number),
    ];
    const size = norm(dx, dy) || 1;
    const [x, y] = [sampled[2 * k] as number, sampled[2 * k + 1] as number];
    const [left, right] = [
      edgeAlong(picture, level, x, y, -dy / size, dx / size, reach),
      edgeAlong(picture, level, x, y, dy / size, -dx / size, reach),
    ];
    widths[k] = left + right;
    const shift = (left - right) / 2;
    xs[k] = x - (dy / size) * shift;
    ys[k] = y + (dx / size) * shift;
  }
  const sorted = widths.filter(Number.isFinite).sort();
  const width = sorted[sorted.length >> 1] ?? Number.NaN;
  const kept: number[] = [];
  const places: number[] = [];
  // Thinned lines lean towards a corner where the drawn one ends squarely.
  const unsure = closed ? 0 : Math.min(Math.ceil(roughWidth), n >> 2);
  const window = Math.round(4 * roughWidth);
  const often = n > 4 * window ? Math.max(1, window >> 4) : 1;
  let local = Number.NaN;
  for (let k = unsure; k < n - unsure; k++) {
    // From one place to the next the median hardly changes.
    if ((k - unsure) % often === 0 || Number.isNaN(local)) local = medianNear(widths, k, window, closed);
    if (!(Math.abs((widths[k] as number) - local) <= Math.max(0.5, 0.1 * local))) continue;
    kept.push(xs[k] as number, ys[k] as number);
    places.push(k);
  }
  return { points: Float64Array.from(kept), places: Float64Array.from(places), width };
}

/** Of so many places on either side the median is taken. */
const medianOver = 12;
/** Room for the values of one median, in order; whole strides may leave a few places more. */
const ordered = new Float64Array(4 * medianOver + 4);

function medianNear(values: Float64Array, k: number, reach: number, closed: boolean): number {
  const n = values.length;
  const stride = Math.max(1, Math.floor(reach / medianOver));
  let count = 0;
  for (let i = k - reach; i <= k + reach; i += stride) {
    const v = values[closed ? ((i % n) + n) % n : i];
    if (v === undefined || !Number.isFinite(v)) continue;
    let at = count++;
    for (; at > 0 && (ordered[at - 1] as number) > v; at--) ordered[at] = ordered[at - 1] as number;
    ordered[at] = v;
  }
  return count > 0 ? (ordered[count >> 1] as number) : Number.NaN;
}

/** How far the ink reaches from a place in a direction, px; NaN where it reaches farther than `reach`, or there is none. */
export function edgeAlong(picture: GreyPicture, level: number, x: number, y: number, dx: number, dy: number, reach: number): number {
  const sure = surelyInk(picture, level, x, y, dx, dy, reach);
  let before = greyAt(picture, x + sure * dx, y + sure * dy);
  if (before >= level) return Number.NaN;
  for (let d = sure + 0.5; d <= reach; d += 0.5) {
    const here = greyAt(picture, x + d * dx, y + d * dy);
    if (here >= level) return d - 0.5 + (0.5 * (level - before)) / (here - before);
    before = here;
  }
  return Number.NaN;
}

/** How far the ink surely reaches, by the pixels met in strides; a stride less, so that what follows begins within it. */
function surelyInk(
  { width, height, data }: GreyPicture,
  level: number,
  x: number,
  y: number,
  dx: number,
  dy: number,
  reach: number,
): number {
  let sure = 0;
  for (let d = stridePx; d <= reach; d += stridePx) {
    const [i, j] = [Math.floor(x + d * dx), Math.floor(y + d * dy)];
    if (i < 0 || j < 0 || i >= width || j >= height || (data[j * width + i] as number) >= level) break;
    sure = d;
  }
  return Math.max(0, sure - stridePx);
}

/** No gap across a line that is narrower counts as its edge, px. */
const stridePx = 1.5;

/** Between four pixels' centres; paper outside. */
function greyAt({ width, height, data }: GreyPicture, x: number, y: number): number {
  const [u, v] = [x - 0.5, y - 0.5];
  const [i, j] = [Math.floor(u), Math.floor(v)];
  if (i < 0 || j < 0 || i >= width - 1 || j >= height - 1) return 255;
  const [s, t] = [u - i, v - j];
  const p = j * width + i;
  const top = (data[p] as number) + s * ((data[p + 1] as number) - (data[p] as number));
  const low = (data[p + width] as number) + s * ((data[p + width + 1] as number) - (data[p + width] as number));
  return top + t * (low - top);
}

/** The contour with the places that were read moved to the middle, the rest between them as they lay. */
function filledIn(sampled: Float64Array, { points, places }: Centreline): Float64Array {
  const out = sampled.slice();
  places.forEach((place, k) => {
    out[2 * place] = points[2 * k] as number;
    out[2 * place + 1] = points[2 * k + 1] as number;
  });
  return out;
}
