/**
 * In: a picture and an outline. Out: the picture with bare paper outside the outline.
 * Rests on: even-odd filling by rows, at pixel centres; the paper's grey by Otsu's threshold of the inside.
 */
import type { Point } from '../plane/point.ts';
import { type GreyPicture, greyPicture } from './grey.ts';
import type { ColourPicture } from './palette.ts';
import { otsuThreshold } from './threshold.ts';

/**
 * @param outline corners of a closed polygon, pixels
 * @param paperIsDark whether the light parts are the drawing
 */
export function onlyInside({ width, height, data }: GreyPicture, outline: readonly Point[], paperIsDark = false): GreyPicture {
  const counts = new Uint32Array(256);
  eachInside(width, height, outline, (from, to) => {
    for (let p = from; p < to; p++) counts[data[p] as number] = (counts[data[p] as number] as number) + 1;
  });
  const found = otsuThreshold(counts);
  const paper = found ? Math.round(paperIsDark ? found.ink : found.paper) : paperIsDark ? 0 : 255;
  return greyPicture(keptInside(data, width, height, 1, outline, paper), width, height);
}

/** The same of a picture in colour. */
export const coloursInside = ({ width, height, data }: ColourPicture, outline: readonly Point[]): ColourPicture => ({
  width,
  height,
  data: keptInside(data, width, height, 3, outline, 255),
});

function keptInside(
  data: Uint8Array,
  width: number,
  height: number,
  channels: number,
  outline: readonly Point[],
  fill: number,
): Uint8Array {
  const out = new Uint8Array(data.length).fill(fill);
  eachInside(width, height, outline, (from, to) => out.set(data.subarray(from * channels, to * channels), from * channels));
  return out;
}

/** The runs of pixels inside, row by row. */
function eachInside(width: number, height: number, outline: readonly Point[], take: (from: number, to: number) => void): void {
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
      if (to > from) take(y * width + from, y * width + to);
    }
  }
}
