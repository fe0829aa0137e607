/** Where the border between ink and paper lies. */
import { expect, it } from 'vitest';
import { pathBox, widthOf } from '../plane/index.ts';
import { greyPicture } from '../raster/index.ts';
import { plainTraceSettings, tracePicture } from './index.ts';

/** Two upright bars, 40 px wide, with soft edges, under light that falls off to the right by `fall` of itself. */
function barsUnderLight(fall: number) {
  const [width, height] = [600, 200];
  const [paper, ink, rampPx] = [235, 40, 5];
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = x + 0.5;
      const depth = Math.max(...[60, 500].map((left) => Math.min(at - left, left + 40 - at)), -rampPx);
      const within = Math.min(y + 0.5 - 40, 160 - (y + 0.5));
      const covered = Math.min(1, Math.max(0, Math.min(depth, within) / rampPx + 0.5));
      data[y * width + x] = Math.round((1 - fall * (at / width)) * (paper - covered * (paper - ink)));
    }
  return greyPicture(data, width, height);
}

/** Both edges together, px; with one level for the whole picture it is 2 at the strongest fall. */
const maxOffPx = 0.4;

it.each([0, 0.15, 0.3])('is half way between ink and paper near by, where the light falls off by %s', (fall) => {
  const { pieces } = tracePicture(barsUnderLight(fall), 0.1, plainTraceSettings);
  expect(pieces).toHaveLength(2);
  for (const { outer } of pieces) expect(Math.abs(widthOf(pathBox(outer)) - 40)).toBeLessThan(maxOffPx);
});

/** A thin frame on paper of a given brightness at every place. */
function frameOn(paperAt: (u: number, v: number) => number) {
  const side = 700;
  const data = Uint8Array.from({ length: side * side }, (_, p) => {
    const [x, y] = [p % side, Math.floor(p / side)];
    const off = Math.max(Math.abs(x - 349.5), Math.abs(y - 349.5));
    const grain = ((x * 31 + y * 57) % 11) - 5;
    return Math.round((off > 180 && off < 192 ? 0.17 : 1) * paperAt(x / side, y / side) + grain);
  });
  return greyPicture(data, side, side);
}

it('light that falls off so much is told', () => {
  expect(
    tracePicture(
      frameOn((u) => 235 * (1 - 0.6 * u)),
      0.1,
      plainTraceSettings,
    ).isUneven,
  ).toBe(true);
});

it.each([
  ['from one side to the other', (u: number) => 235 * (1 - 0.6 * u)],
  ['towards all corners', (u: number, v: number) => 235 * (1 - 0.9 * ((u - 0.5) ** 2 + (v - 0.5) ** 2))],
])('little ink is found under light that falls off %s, much as it does', (_, paperAt) => {
  const trace = tracePicture(frameOn(paperAt), 0.1, plainTraceSettings);
  expect(trace.pieces.map(({ holes }) => holes.length)).toEqual([1]);
  const [{ outer }] = trace.pieces as [(typeof trace.pieces)[0]];
  expect(Math.abs(widthOf(pathBox(outer)) - 384)).toBeLessThan(1);
});

it('a grey area with a sharp edge is no falling light', () => {
  const trace = tracePicture(frameOn((u) => (u < 0.5 ? 235 : 150)), 0.1, plainTraceSettings); // biome-ignore format: one line
  expect(trace.isUneven).toBe(false);
});
