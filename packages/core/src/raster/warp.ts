/**
 * In: a picture's pixels and a projection from the wanted picture back to it. Out: the wanted picture.
 * Rests on: cubic convolution (Keys 1981, a = -1/2) at 256 phases, in WebAssembly (warp-block.ts); where the picture shrinks, on the level of a box
 * pyramid that is as coarse (Williams 1983), so that every pixel of the original counts; the projection is exact at
 * every eighth pixel of a row and straight between.
 */

import { norm } from '../plane/point.ts';
import { affineAt, type Projection } from '../plane/projection.ts';
import { outside, type Pixels, type WarpPlan } from './pixels.ts';
import { warpBlock } from './warp-block.ts';

const blockPx = 128;

/**
 * The wanted picture, made a band of rows at a time; yields the share done, 0 to 1. Grey is interpolated; colour is
 * that of the nearest pixel, brought to the interpolated grey, which the eye cannot tell from colour interpolated.
 * @param from the first row to make, and `to` the row after the last, so that several workers can share a picture
 */
export function* warped(source: Pixels, plan: WarpPlan, from = 0, to = plan.heightPx): Generator<number, Pixels> {
  const { widthPx, toOriginal } = plan;
  const levels = [source];
  const count = widthPx * (to - from);
  const grey = new Uint8Array(count).fill(outside);
  const out: Pixels = { width: widthPx, height: to - from, grey, colour: source.colour && new Uint8Array(3 * count).fill(outside) };
  for (let y0 = from; y0 < to; y0 += blockPx) {
    const y1 = Math.min(to, y0 + blockPx);
    for (let x0 = 0; x0 < widthPx; x0 += blockPx) {
      const x1 = Math.min(widthPx, x0 + blockPx);
      const level = levelFor(toOriginal, (x0 + x1) / 2, (y0 + y1) / 2);
      while (levels.length <= level) levels.push(halved(levels.at(-1) as Pixels));
      warpBlock(levels[level] as Pixels, 2 ** -level, plan, out, from, { x0, x1, y0, y1 });
    }
    yield (y1 - from) / (to - from);
  }
  return out;
}

/** How often the picture is halved before it is drawn from: by the lesser shrinking of the two directions. */
function levelFor(p: Projection, x: number, y: number): number {
  const { a, b, c, d } = affineAt(p, { x, y });
  const shrink = Math.min(norm(a, b), norm(c, d));
  return Math.max(0, Math.min(8, Math.floor(Math.log2(shrink) + 0.4)));
}

/** Half as large each way; a pixel is the mean of four. */
function halved({ width, height, grey, colour }: Pixels): Pixels {
  return {
    width: Math.max(1, width >> 1),
    height: Math.max(1, height >> 1),
    grey: halvedBytes(grey, width, height, 1),
    colour: colour && halvedBytes(colour, width, height, 3),
  };
}

/** Half as large each way, rounded down; `channels` bytes a pixel. */
export function halvedBytes(data: Uint8Array, width: number, height: number, channels: number): Uint8Array {
  const [w, h] = [Math.max(1, width >> 1), Math.max(1, height >> 1)];
  const out = new Uint8Array(w * h * channels);
  const right = width > 1 ? channels : 0;
  const down = height > 1 ? width * channels : 0;
  for (let y = 0, q = 0; y < h; y++) {
    // From pixel to pixel of a row by two, from channel to channel by one.
    for (let at = 2 * y * width * channels, end = at + 2 * w * channels; at < end; at += channels) {
      for (let channel = 0; channel < channels; channel++, at++, q++) {
        out[q] =
          ((data[at] as number) + (data[at + right] as number) + (data[at + down] as number) + (data[at + right + down] as number) + 2) >>
          2;
      }
    }
  }
  return out;
}
