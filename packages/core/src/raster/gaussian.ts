/**
 * In: a grey picture. Out: the same smoothed by a Gaussian.
 * Rests on: three running means, over rows and over columns (Wells 1986).
 */
import { type GreyPicture, greyPicture } from './grey.ts';

/** @param sigma deviation of the Gaussian, px */
export function gaussianSmoothed({ width, height, data }: GreyPicture, sigma: number): GreyPicture {
  let from = data;
  for (const reach of boxReaches(sigma)) {
    const [across, to] = [new Uint8Array(data.length), new Uint8Array(data.length)];
    for (let y = 0; y < height; y++) runningMean(from, across, y * width, 1, width, reach);
    for (let x = 0; x < width; x++) runningMean(across, to, x, width, height, reach);
    from = to;
  }
  return greyPicture(from, width, height);
}

/** How far three running means reach that together spread as a Gaussian does. */
function boxReaches(sigma: number): number[] {
  const least = Math.max(0, Math.floor((Math.sqrt(4 * sigma * sigma + 1) - 1) / 2));
  const variance = (reach: number) => ((2 * reach + 1) ** 2 - 1) / 12;
  // As many of the wider as bring the sum of variances nearest.
  const wider = Math.round((sigma * sigma - 3 * variance(least)) / (variance(least + 1) - variance(least)));
  return [0, 1, 2].map((k) => (k < wider ? least + 1 : least));
}

/** The mean over `reach` to either side along a row or a column; what lies beyond its ends is as at them. */
function runningMean(from: Uint8Array, to: Uint8Array, start: number, step: number, count: number, reach: number): void {
  const size = 2 * reach + 1;
  const at = (k: number): number => from[start + Math.max(0, Math.min(count - 1, k)) * step] as number;
  let sum = 0;
  for (let k = -reach; k <= reach; k++) sum += at(k);
  for (let k = 0; k < count; k++) {
    to[start + k * step] = (sum / size + 0.5) | 0;
    sum += at(k + reach + 1) - at(k - reach);
  }
}
