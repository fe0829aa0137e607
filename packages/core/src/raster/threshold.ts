/**
 * In: a grey picture. Out: its histogram, and the threshold that parts ink from paper.
 * Rests on: Otsu 1979, "A threshold selection method from gray-level histograms".
 */
import type { GreyPicture } from './grey.ts';

/** A histogram is taken from so many pixels, evenly over the picture: more would not move it. */
const enoughPixels = 4e6;

/** How many of the pixels have each of the 256 grey values; of a large picture whole rows are left out evenly. */
export function histogram(picture: GreyPicture): Uint32Array {
  // Four tables in turn, so that runs of one value do not wait for each other.
  const [a, b, c, d] = [new Uint32Array(256), new Uint32Array(256), new Uint32Array(256), new Uint32Array(256)];
  const { data, width, height } = picture;
  const skip = Math.max(1, Math.floor(data.length / enoughPixels));
  for (let y = 0; y < height; y += skip) {
    const end = (y + 1) * width;
    let p = y * width;
    for (; p + 3 < end; p += 4) {
      a[data[p] as number] = (a[data[p] as number] as number) + 1;
      b[data[p + 1] as number] = (b[data[p + 1] as number] as number) + 1;
      c[data[p + 2] as number] = (c[data[p + 2] as number] as number) + 1;
      d[data[p + 3] as number] = (d[data[p + 3] as number] as number) + 1;
    }
    for (; p < end; p++) a[data[p] as number] = (a[data[p] as number] as number) + 1;
  }
  const counts = a.map((n, v) => n + (b[v] as number) + (c[v] as number) + (d[v] as number));
  return counts;
}

export interface Threshold {
  /** Values up to and with this one are ink. */
  readonly value: number;
  /** The mean grey of ink and of paper. */
  readonly ink: number;
  readonly paper: number;
  /** The share of all variance that lies between the two classes, 0 to 1: near 0 there is nothing to part. */
  readonly parted: number;
}

/** Otsu's threshold; where a run of values is equally good, its middle. Null for a picture of one grey. */
export function otsuThreshold(counts: Uint32Array): Threshold | null {
  let [total, sum, squares] = [0, 0, 0];
  for (let v = 0; v < 256; v++) {
    const n = counts[v] as number;
    total += n;
    sum += v * n;
    squares += v * v * n;
  }
  const variance = squares / total - (sum / total) ** 2;
  if (!(variance > 0)) return null;
  let [below, sumBelow, best] = [0, 0, -1];
  let [first, last] = [0, 0];
  for (let v = 0; v < 255; v++) {
    below += counts[v] as number;
    sumBelow += v * (counts[v] as number);
    const above = total - below;
    if (below === 0 || above === 0) continue;
    const gap = sumBelow / below - (sum - sumBelow) / above;
    const score = (below / total) * (above / total) * gap * gap;
    if (score > best * (1 + 1e-12)) {
      best = score;
      first = v;
      last = v;
    } else if (v === last + 1 && score >= best * (1 - 1e-12)) last = v;
  }
  return { ...classMeans(counts, Math.floor((first + last) / 2)), parted: best / variance };
}

/** The mean grey on either side of a threshold set by hand. */
export function classMeans(counts: Uint32Array, value: number): { value: number; ink: number; paper: number } {
  const side = (from: number, to: number, ifEmpty: number) => {
    let [n, sum] = [0, 0];
    for (let v = from; v <= to; v++) {
      n += counts[v] as number;
      sum += v * (counts[v] as number);
    }
    return n > 0 ? sum / n : ifEmpty;
  };
  return { value, ink: side(0, value, 0), paper: side(value + 1, 255, 255) };
}

/** Whether nearly all pixels (99.9 %) have one of two greys: a one-bit scan, whose edges are stairs. */
export function isBilevel(counts: Uint32Array): boolean {
  const sorted = Array.from(counts).sort((a, b) => b - a);
  const total = sorted.reduce((a, b) => a + b, 0);
  return (sorted[0] as number) + (sorted[1] as number) >= 0.999 * total;
}
