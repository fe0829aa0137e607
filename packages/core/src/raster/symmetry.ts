/**
 * In: a grey picture. Out: the axis that its drawn part is mirrored about, if it is.
 * Rests on: the axis goes through the middle of the ink's mass; of all directions the one whose mirror image covers
 * the ink best, refined by halving the step.
 */
import type { Point } from '../plane/point.ts';
import { type GreyPicture, greyPicture } from './grey.ts';
import { histogram, otsuThreshold } from './threshold.ts';
import { halvedBytes } from './warp.ts';

export interface MirrorAxis {
  /** Where the axis enters and leaves the ink's extent, pixels; the first end is the lower one. */
  readonly a: Point;
  readonly b: Point;
  /** The share of ink that its mirror image covers, 0 to 1. */
  readonly cover: number;
}

const smallPx = 420;
const minCover = 0.9;
const uprightWorth = 0.03;
/** Ink along more of the picture's rim is what a sheet lies on, and no drawing. */
const maxRim = 0.25;

/** Null where no axis covers nine tenths of the ink. */
export function mirrorAxis(picture: GreyPicture): MirrorAxis | null {
  let [small, scale] = [picture, 1];
  while (Math.max(small.width, small.height) > smallPx) {
    const { width, height, data } = small;
    small = greyPicture(halvedBytes(data, width, height, 1), Math.max(1, width >> 1), Math.max(1, height >> 1));
    scale *= 2;
  }
  const otsu = otsuThreshold(histogram(small));
  if (!otsu || otsu.paper - otsu.ink < 24) return null;
  const { width, height, data } = small;
  // How dark, 0 to 1, so that edges count by their share.
  const ink = Float32Array.from(data, (v) => Math.min(1, Math.max(0, (otsu.paper - v) / (otsu.paper - otsu.ink) - 0.2) / 0.6));
  const places: number[] = [];
  let [mass, mx, my] = [0, 0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const w = ink[y * width + x] as number;
      if (w < 0.5) continue;
      places.push(x + 0.5, y + 0.5);
      mass++;
      mx += x + 0.5;
      my += y + 0.5;
    }
  }
  if (mass < 60 || rimShare(ink, width, height) > maxRim) return null;
  const centre = { x: mx / mass, y: my / mass };
  const cover = (angle: number, shift: number): number => {
    const [c, s] = [Math.cos(2 * angle), Math.sin(2 * angle)];
    const [nx, ny] = [-Math.sin(angle) * shift, Math.cos(angle) * shift];
    let sum = 0;
    const skip = places.length > 40_000 ? 4 : 2;
    for (let k = 0; k < places.length; k += skip) {
      const [x, y] = [(places[k] as number) - centre.x - nx, (places[k + 1] as number) - centre.y - ny];
      sum += inkAt(ink, width, height, centre.x + nx + c * x + s * y - 0.5, centre.y + ny + s * x - c * y - 0.5);
    }
    return sum / (places.length / skip);
  };
  let best = { angle: 0, shift: 0, cover: 0 };
  for (let k = 0; k < 180; k++) {
    const angle = (Math.PI * k) / 180;
    // Of several axes one that lies nearly level or plumb is the one that is meant.
    const found = cover(angle, 0) + uprightWorth * Math.cos(4 * angle);
    if (found > best.cover) best = { angle, shift: 0, cover: found };
  }
  best = { ...best, cover: cover(best.angle, 0) };
  for (let step = 0.012, move = 2; step > 1e-5; step /= 2, move /= 2) {
    for (const [da, ds] of [
      [step, 0],
      [-step, 0],
      [0, move],
      [0, -move],
      [step, 0],
      [-step, 0],
    ] as const) {
      // biome-ignore format: one line
      const found = cover(best.angle + da, best.shift + ds);
      if (found > best.cover) best = { angle: best.angle + da, shift: best.shift + ds, cover: found };
    }
  }
  if (best.cover < minCover) return null;
  return { ...extentAlong(places, centre, best, scale), cover: best.cover };
}

/** The share of the picture's outermost pixels that are ink. */
function rimShare(ink: Float32Array, width: number, height: number): number {
  let inked = 0;
  for (let x = 0; x < width; x++) for (const y of [0, height - 1]) if ((ink[y * width + x] as number) >= 0.5) inked++;
  for (let y = 0; y < height; y++) for (const x of [0, width - 1]) if ((ink[y * width + x] as number) >= 0.5) inked++;
  return inked / (2 * (width + height));
}

function inkAt(ink: Float32Array, width: number, height: number, x: number, y: number): number {
  const [px, py] = [Math.floor(x), Math.floor(y)];
  if (px < 0 || py < 0 || px >= width - 1 || py >= height - 1) return 0;
  const [fx, fy, p] = [x - px, y - py, py * width + px];
  const top = (ink[p] as number) * (1 - fx) + (ink[p + 1] as number) * fx;
  return top * (1 - fy) + ((ink[p + width] as number) * (1 - fx) + (ink[p + width + 1] as number) * fx) * fy;
}

function extentAlong(places: readonly number[], centre: Point, { angle, shift }: { angle: number; shift: number }, scale: number) {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  let [low, high] = [Infinity, -Infinity];
  for (let k = 0; k < places.length; k += 2) {
    const t = ((places[k] as number) - centre.x) * c + ((places[k + 1] as number) - centre.y) * s;
    low = Math.min(low, t);
    high = Math.max(high, t);
  }
  const at = (t: number): Point => ({ x: (centre.x - s * shift + c * t) * scale, y: (centre.y + c * shift + s * t) * scale });
  const [p, q] = [at(low), at(high)];
  return p.y > q.y ? { a: p, b: q } : { a: q, b: p };
}
