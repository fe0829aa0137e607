/**
 * In: a grey picture. Out: it halved each way until no side is longer than asked for; for first looks.
 */
import { type GreyPicture, greyPicture } from './grey.ts';
import { halvedBytes } from './warp.ts';

/** @returns the picture, and how many of the first's pixels one of its own is wide */
export function downsample(picture: GreyPicture, longestPx: number): { readonly picture: GreyPicture; readonly factor: number } {
  let [small, factor] = [picture, 1];
  while (Math.max(small.width, small.height) > longestPx) {
    const { width, height, data } = small;
    small = greyPicture(halvedBytes(data, width, height, 1), Math.max(1, width >> 1), Math.max(1, height >> 1));
    factor *= 2;
  }
  return { picture: small, factor };
}
