/**
 * In: a picture that a lens has bent. Out: the same as a lens that bends nothing would show it, and where it lies against the picture as it was.
 * Rests on: cubic convolution (Keys 1981).
 */
import { bent, type Lens, unbent } from '../plane/lens.ts';
import type { Point } from '../plane/point.ts';
import { greyFromRgb } from './grey.ts';
import type { Pixels } from './pixels.ts';

export interface UnbentPicture {
  readonly pixels: Pixels;
  /** From a place in the picture as it was to the same in this one. */
  at(p: Point): Point;
}

/** A side grows by no more than this. */
const mostGrowth = 1.4;

export function unbentPixels({ width, height, grey, colour }: Pixels, lens: Lens): UnbentPicture {
  const rim = Array.from({ length: 33 }, (_, k) => k / 32).flatMap((t) => [{ x: t * width, y: 0 }, { x: t * width, y: height }, { x: 0, y: t * height }, { x: width, y: t * height }]).map((p) => unbent(lens, p)); // biome-ignore format: one line
  const span = (of: (p: Point) => number, size: number): [number, number] => {
    const [low, high] = [Math.floor(Math.min(...rim.map(of))), Math.ceil(Math.max(...rim.map(of)))];
    const most = Math.floor((size * (mostGrowth - 1)) / 2);
    return [Math.max(low, -most), Math.min(high, size + most)];
  };
  const [minX, maxX] = span(({ x }) => x, width);
  const [minY, maxY] = span(({ y }) => y, height);
  const [wide, high] = [maxX - minX, maxY - minY];
  const channels = colour ? 3 : 1;
  const source = colour ?? grey;
  const made = new Uint8Array(wide * high * channels);
  const weights = [new Float64Array(4), new Float64Array(4)] as const;
  for (let row = 0; row < high; row++)
    for (let column = 0; column < wide; column++) {
      const { x, y } = bent(lens, { x: minX + column + 0.5, y: minY + row + 0.5 });
      const [u, v] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
      cubicWeights(x - 0.5 - u, weights[0]);
      cubicWeights(y - 0.5 - v, weights[1]);
      for (let channel = 0; channel < channels; channel++) {
        let sum = 0;
        for (let j = 0; j < 4; j++) {
          const line = Math.min(height - 1, Math.max(0, v - 1 + j)) * width;
          let across = 0;
          for (let i = 0; i < 4; i++) across += (weights[0][i] as number) * (source[(line + Math.min(width - 1, Math.max(0, u - 1 + i))) * channels + channel] as number); // biome-ignore format: one line
          sum += (weights[1][j] as number) * across;
        }
        made[(row * wide + column) * channels + channel] = Math.min(255, Math.max(0, Math.round(sum)));
      }
    }
  const at = (p: Point): Point => {
    const { x, y } = unbent(lens, p);
    return { x: x - minX, y: y - minY };
  };
  return {
    pixels: { width: wide, height: high, grey: colour ? greyFromRgb(made, wide, high).grey : made, colour: colour ? made : null },
    at,
  };
}

function cubicWeights(t: number, to: Float64Array): void {
  to[0] = ((-0.5 * t + 1) * t - 0.5) * t;
  to[1] = (1.5 * t - 2.5) * t * t + 1;
  to[2] = ((-1.5 * t + 2) * t + 0.5) * t;
  to[3] = (0.5 * t - 0.5) * t * t;
}
