/**
 * In: a picture and an outline. Out: the picture with white paper outside the outline.
 * Rests on: even-odd filling by rows, at pixel centres.
 */
import type { Point } from '../plane/point.ts';
import { type GreyPicture, greyPicture } from './grey.ts';
import type { ColourPicture } from './palette.ts';

/** @param outline corners of a closed polygon, pixels */
export const onlyInside = ({ width, height, data }: GreyPicture, outline: readonly Point[]): GreyPicture =>
  greyPicture(keptInside(data, width, height, 1, outline), width, height);

/** The same of a picture in colour. */
export const coloursInside = ({ width, height, data }: ColourPicture, outline: readonly Point[]): ColourPicture => ({
  width,
  height,
  data: keptInside(data, width, height, 3, outline),
});

function keptInside(data: Uint8Array, width: number, height: number, channels: number, outline: readonly Point[]): Uint8Array {
  const out = new Uint8Array(data.length).fill(255);
  for (let y = 0; y < height; y++) {
    const crossings: number[] = [];
    let a = outline.at(-1) as Point;
    for (const b of outline) {
      const v = y + 0.5;
      if (a.y > v !== b.y > v) crossings.push(((b.x - a.x) * (v - a.y)) / (b.y - a.y) + a.x);
      a = b;
    }
    crossings.sort((p, q) => p - q);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const from = Math.max(0, Math.ceil((crossings[k] as number) - 0.5));
      const to = Math.min(width, Math.ceil((crossings[k + 1] as number) - 0.5));
      if (to > from) out.set(data.subarray((y * width + from) * channels, (y * width + to) * channels), (y * width + from) * channels);
    }
  }
  return out;
}
