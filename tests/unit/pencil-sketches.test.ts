/** Lines sketched on rough paper, against their middles; and ragged ink that is no pencil. */
import { type Path, transformedPath } from '@nuvet/core/plane';
import { greyPicture } from '@nuvet/core/raster';
import { findInk, plainTraceSettings, tracePicture } from '@nuvet/core/trace';
import { deviationOf, linesScene, pencilScan, randomFrom, scanScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';

const middles = { ...plainTraceSettings, take: 'line-middle' } as const;

describe('a line that grain breaks up', () => {
  // Drawn once, twice and three times.
  it.each([3, 5, 14, 38])('has one middle (%d)', (number) => {
    const { picture, mmPerPx, lines } = pencilScan(number);
    const { pieces, isGrainy } = tracePicture(picture, mmPerPx, middles);
    expect(isGrainy).toBe(true);
    expect(pieces.every(({ outer }) => outer.closed)).toBe(true);
    const paths = pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
    expect(paths).toHaveLength(lines.length);
    const onSheet = { a: mmPerPx, b: 0, c: 0, d: mmPerPx, e: 0, f: 0 };
    const placed = (path: Path) => transformedPath(path, onSheet);
    expect(deviationOf(paths.map(placed), lines.map(placed)).rmsMm).toBeLessThan(0.1);
  });

  it('is one band, with both its edges', () => {
    const { picture, mmPerPx } = pencilScan(5);
    const { pieces } = tracePicture(picture, mmPerPx, plainTraceSettings);
    expect(pieces.map(({ holes }) => holes.length)).toEqual([1]);
  });

  it('stays as it is where that is asked for', () => {
    const { picture, mmPerPx } = pencilScan(5);
    const { pieces, isGrainy } = tracePicture(picture, mmPerPx, { ...plainTraceSettings, keepsTexture: true });
    expect(isGrainy).toBe(false);
    expect(pieces.length).toBeGreaterThan(1);
  });
});

describe('no grain is', () => {
  const inkOf = (picture: Parameters<typeof findInk>[0], mmPerPx: number) =>
    findInk(picture, mmPerPx, { threshold: 'auto', inverted: false, smallestMm: 1, keepsTexture: false });

  it('what a noisy scan of clean lines shows', () => {
    const scan = scanScene(linesScene, { dpi: 150, noise: 14, grain: 16 });
    expect(inkOf(scan.picture, scan.mmPerPx).isGrainy).toBe(false);
  });

  it('the ragged edge of torn paper, among specks', () => {
    const side = 700;
    const random = randomFrom(11);
    const data = new Uint8Array(side * side).fill(235);
    const tear = Array.from({ length: side }, () => 0);
    for (let y = 1; y < side; y++) tear[y] = 0.9 * (tear[y - 1] as number) + 6 * (random() - 0.5);
    for (let y = 100; y < 600; y++) data.fill(40, y * side + 150 + Math.round(tear[y] as number), y * side + 550 + Math.round(2 * (tear[side - y] as number))); // biome-ignore format: one line
    for (let k = 0; k < 60; k++) {
      const p = Math.floor(90 * random()) * side + Math.floor((side - 3) * random());
      for (const q of [p, p + 1, p + side, p + side + 1]) data[q] = 60;
    }
    const ink = inkOf(greyPicture(data, side, side), 0.1);
    expect(ink.dropped).toBeGreaterThan(20);
    expect(ink.isGrainy).toBe(false);
    expect(ink.contours).toHaveLength(1);
  });
});
