import { describe, expect, it } from 'vitest';
import { asProjection, type Projection, project } from '../plane/projection.ts';
import type { Pixels } from './pixels.ts';
import { warped } from './warp.ts';

function run(source: Pixels, widthPx: number, heightPx: number, toOriginal: Projection): Pixels {
  const steps = warped(source, { widthPx, heightPx, toOriginal });
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

/** Cubic convolution as Keys 1981 gives it, equation 4 with a = -1/2. */
function keys(distance: number): number {
  const s = Math.abs(distance);
  if (s < 1) return 1.5 * s ** 3 - 2.5 * s ** 2 + 1;
  return s < 2 ? -0.5 * s ** 3 + 2.5 * s ** 2 - 4 * s + 2 : 0;
}

function keysAt({ width, height, grey }: Pixels, x: number, y: number): number {
  const [u, v] = [x - 0.5, y - 0.5];
  let sum = 0;
  for (let j = Math.floor(v) - 1; j <= Math.floor(v) + 2; j++)
    for (let i = Math.floor(u) - 1; i <= Math.floor(u) + 2; i++) {
      const [a, b] = [Math.max(0, Math.min(width - 1, i)), Math.max(0, Math.min(height - 1, j))];
      sum += keys(u - i) * keys(v - j) * (grey[b * width + a] as number);
    }
  return Math.max(0, Math.min(255, sum));
}

const [width, height] = [300, 220];
const waves: Pixels = {
  width,
  height,
  grey: Uint8Array.from({ length: width * height }, (_, k) => 128 + 90 * Math.sin((k % width) / 9) * Math.cos(Math.floor(k / width) / 13)),
  colour: null,
};
const tilt = { ...asProjection({ a: 0.95, b: 0.12, c: -0.12, d: 0.97, e: 20, f: -14 }), g: 2e-4, h: -3e-4 };

describe('pictures laid flat', () => {
  it('agrees with cubic convolution in floating point, up to the rim', () => {
    const made = run(waves, 280, 240, tilt);
    let worst = 0;
    let drawn = 0;
    for (let y = 0; y < made.height; y++)
      for (let x = 0; x < made.width; x++) {
        const at = project(tilt, { x: x + 0.5, y: y + 0.5 });
        if (at.x < 0 || at.y < 0 || at.x > width || at.y > height) continue;
        drawn++;
        worst = Math.max(worst, Math.abs((made.grey[y * made.width + x] as number) - keysAt(waves, at.x, at.y)));
      }
    expect(drawn).toBeGreaterThan(40000);
    // A phase is 1/256 of a pixel, and the steepest slope here is 10 levels a pixel.
    expect(worst).toBeLessThan(1.2);
  });

  it('is paper wherever the picture does not reach, a pixel beyond the rim and beyond the horizon', () => {
    const black: Pixels = { width, height, grey: new Uint8Array(width * height), colour: null };
    const made = run(black, 320, 240, asProjection({ a: 1, b: 0, c: 0, d: 1, e: -10, f: -7 }));
    made.grey.forEach((value, k) => {
      const [x, y] = [(k % 320) - 10, Math.floor(k / 320) - 7];
      if (x >= 0 && y >= 0 && x < width && y < height) expect(value).toBe(0);
      else if (x < -1 || y < -1 || x > width || y > height) expect(value).toBe(255);
    });
    // The horizon runs down the middle: behind it lies nothing.
    const half = run(black, 200, 200, { ...asProjection({ a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 }), g: -0.01, i: 1 });
    for (let y = 0; y < 200; y++) for (let x = 100; x < 200; x++) expect(half.grey[y * 200 + x]).toBe(255);
    expect(half.grey[50 * 200 + 20]).toBe(0);
  });

  it('keeps flat colours as they are', () => {
    const colour = new Uint8Array(3 * width * height).map((_, k) => [200, 60, 17][k % 3] as number);
    const flat: Pixels = { width, height, grey: new Uint8Array(width * height).fill(101), colour };
    const made = run(flat, 260, 200, asProjection({ a: 1, b: 0.02, c: -0.02, d: 1, e: 20, f: 10 }));
    const at = 100 * 260 + 120;
    expect(made.grey[at]).toBe(101);
    expect([...(made.colour as Uint8Array).subarray(3 * at, 3 * at + 3)]).toEqual([200, 60, 17]);
    for (let k = 0; k < made.grey.length; k++) expect(made.grey[k] === 101 || made.grey[k] === 255).toBe(true);
  });
});
