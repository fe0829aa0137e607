/**
 * In: a grey picture and the threshold that parts its ink from its paper. Out: whether the light falls off over it, and the same
 * picture with the border of ink brought to one level everywhere.
 * Rests on: the paper's mean in tiles, from one pixel in 64; the border half way between the ink and the paper near by.
 */
import type { GreyPicture } from './grey.ts';
import { borderLevelled, paperEvened } from './local-threshold.ts';
import { histogram, otsuThreshold, type Threshold } from './threshold.ts';

/** One pixel in this many is looked at, each way. */
const strideSamples = 8;
/** Tiles along the longer side. */
const tilesAcross = 24;
/** A tile tells of the paper where so much of it is paper, and so many samples. */
const minShare = 0.3;
const minSamples = 12;
/** Paper that varies by less than this share of the contrast moves no edge by more than a tenth of its softness. */
const evenShare = 0.08;

/** Whether the paper's brightness varies over the picture so much that one level would put edges off. */
export function isUnevenlyIlluminated({ width, height, data }: GreyPicture, { value, ink, paper }: Threshold): boolean {
  const side = Math.max(8 * strideSamples, Math.ceil(Math.max(width, height) / tilesAcross));
  const [columns, rows] = [Math.ceil(width / side), Math.ceil(height / side)];
  const [sums, papers, all] = [0, 1, 2].map(() => new Float64Array(columns * rows)) as [Float64Array, Float64Array, Float64Array];
  for (let y = strideSamples >> 1; y < height; y += strideSamples) {
    const row = Math.floor(y / side) * columns;
    for (let x = strideSamples >> 1; x < width; x += strideSamples) {
      const q = row + Math.floor(x / side);
      const v = data[y * width + x] as number;
      all[q] = (all[q] as number) + 1;
      if (v <= value) continue;
      papers[q] = (papers[q] as number) + 1;
      sums[q] = (sums[q] as number) + v;
    }
  }
  const means: number[] = [];
  for (const [q, n] of papers.entries()) if (n >= minSamples && n >= minShare * (all[q] as number)) means.push((sums[q] as number) / n);
  if (means.length < 4) return false;
  means.sort((a, b) => a - b);
  const at = (share: number) => means[Math.round(share * (means.length - 1))] as number;
  return at(0.95) - at(0.05) > evenShare * (paper - ink);
}

/**
 * The picture with its border of ink at 127.5 everywhere; what is ink stays as the one threshold tells it.
 * @param windowPx side of the window that ink and paper are compared over
 */
export const normalizeIllumination = (picture: GreyPicture, windowPx: number, { value }: Threshold): GreyPicture =>
  borderLevelled(picture, windowPx, value + 0.5);

/** A threshold that leaves less of the variance within its classes than this parts ink from paper as it stands. */
const surelyParted = 0.9;
/** Once the paper is equally bright, so much less of the variance is left within the classes, or so much more lies between them. */
const partedBetter = 0.5;
const contrastBetter = 1.3;
/** With less between ink and paper there is no ink, grey levels. */
const minInk = 40;

/**
 * The picture with its paper equally bright, where the light falls off so much that one threshold would cut through the paper; null
 * where it does not. What is large and dark alike stays as dark as it is.
 * @param windowPx side of the window, several times the width of lines
 */
export function withoutFalloff(
  picture: GreyPicture,
  windowPx: number,
  { parted, ink, paper }: Threshold,
): { grey: GreyPicture; found: Threshold } | null {
  const grey = parted < surelyParted ? paperEvened(picture, windowPx) : null;
  const found = grey && otsuThreshold(histogram(grey));
  if (!found || found.paper - found.ink < minInk || found.parted <= parted) return null;
  const isBetter = 1 - found.parted < partedBetter * (1 - parted) || found.paper - found.ink > contrastBetter * (paper - ink);
  return isBetter ? { grey, found } : null;
}
