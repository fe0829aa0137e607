/**
 * In: a picture in colour. Out: the few colours that it is made of, by how much of it they cover.
 * Rests on: a histogram of calm places only, so that the mixed colours along borders do not count; its peaks by mean
 * shift in CIELAB (Comaniciu & Meer 2002).
 */
import { type Lab, labDistance, labOf, type Rgb } from './cielab.ts';

/** A picture in colour: three bytes a pixel, red, green and blue, rows from the top. */
export interface ColourPicture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

export interface Swatch {
  readonly rgb: Rgb;
  /** Of the picture's calm places, 0 to 1. */
  readonly share: number;
}

/** Places further apart than this in colour, summed over the channels of two neighbours, belong to a border. */
const calm = 60;
/** What lies this near to a peak moves it. */
const shiftReach = 9;
/** What lies this near to a peak is of its colour. */
const claimReach = 16;
/** Colours that cover less are dirt. */
const minShare = 0.0015;
const maxSwatches = 12;
/** So many places are looked at. */
const samples = 1_000_000;

interface Bin {
  readonly rgb: Rgb;
  readonly lab: Lab;
  readonly count: number;
}

/** The commonest first. */
export function coloursIn(picture: ColourPicture): Swatch[] {
  const bins = calmBins(picture);
  const total = bins.reduce((sum, { count }) => sum + count, 0);
  let left = [...bins].sort((a, b) => b.count - a.count);
  const found: Swatch[] = [];
  while (left.length > 0 && found.length < maxSwatches) {
    const peak = shifted((left[0] as Bin).lab, left);
    const own = left.filter((bin) => labDistance(bin.lab, peak) < claimReach || bin === left[0]);
    const count = own.reduce((sum, bin) => sum + bin.count, 0);
    left = left.filter((bin) => !own.includes(bin));
    if (count < minShare * total) continue;
    const near = own.filter((bin) => labDistance(bin.lab, peak) < shiftReach);
    const mean = (near.length > 0 ? near : own).reduce(
      (sum, { rgb, count: n }) => [sum[0] + rgb[0] * n, sum[1] + rgb[1] * n, sum[2] + rgb[2] * n, sum[3] + n] as const,
      [0, 0, 0, 0] as readonly [number, number, number, number],
    );
    found.push({ rgb: [mean[0] / mean[3], mean[1] / mean[3], mean[2] / mean[3]], share: count / total });
  }
  return found.sort((a, b) => b.share - a.share);
}

/** Calm places counted in cubes of eight levels a side. */
function calmBins({ width, height, data }: ColourPicture): Bin[] {
  const sums = new Float64Array(4 * 32768);
  const stride = Math.max(1, Math.floor(Math.sqrt((width * height) / samples)));
  const apart = (p: number, q: number): number =>
    Math.abs((data[p] as number) - (data[q] as number)) +
    Math.abs((data[p + 1] as number) - (data[q + 1] as number)) +
    Math.abs((data[p + 2] as number) - (data[q + 2] as number));
  for (let y = 0; y < height; y += stride) {
    for (let x = 0; x < width; x += stride) {
      const p = 3 * (y * width + x);
      const right = 3 * (y * width + Math.min(width - 1, x + 2));
      const below = 3 * (Math.min(height - 1, y + 2) * width + x);
      if (apart(p, right) > calm || apart(p, below) > calm) continue;
      const [r, g, b] = [data[p] as number, data[p + 1] as number, data[p + 2] as number];
      const bin = 4 * (((r >> 3) << 10) | ((g >> 3) << 5) | (b >> 3));
      sums[bin] = (sums[bin] as number) + r;
      sums[bin + 1] = (sums[bin + 1] as number) + g;
      sums[bin + 2] = (sums[bin + 2] as number) + b;
      sums[bin + 3] = (sums[bin + 3] as number) + 1;
    }
  }
  const bins: Bin[] = [];
  for (let k = 0; k < sums.length; k += 4) {
    const count = sums[k + 3] as number;
    if (count === 0) continue;
    const rgb: Rgb = [(sums[k] as number) / count, (sums[k + 1] as number) / count, (sums[k + 2] as number) / count];
    bins.push({ rgb, lab: labOf(rgb), count });
  }
  return bins;
}

/** A place of CIELAB moved to where the colours about it are densest. */
function shifted(from: Lab, bins: readonly Bin[]): Lab {
  let at = from;
  for (let round = 0; round < 8; round++) {
    let [l, a, b, n] = [0, 0, 0, 0];
    for (const { lab, count } of bins) {
      if (labDistance(lab, at) >= shiftReach) continue;
      l += lab[0] * count;
      a += lab[1] * count;
      b += lab[2] * count;
      n += count;
    }
    if (n === 0) break;
    const next: Lab = [l / n, a / n, b / n];
    const moved = labDistance(next, at);
    at = next;
    if (moved < 0.05) break;
  }
  return at;
}
