/**
 * The tracer against outlines drawn by others: letters of Libre Baskerville and Work Sans (SIL Open Font License, read by
 * opentype.js) and Bootstrap Icons (MIT). The bench prints all of them; here are some, with slack.
 */
import type { Piece } from '@nuvet/core/job';
import { inverse, transformedPath } from '@nuvet/core/plane';
import { faultsOf } from '@nuvet/core/proof';
import { plainTraceSettings, tracePicture } from '@nuvet/core/trace';
import { deviationOf, scanScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import { icons, letters, type OutsideOutline } from '../../bench/outside-outlines.ts';

function traced({ scene, outlines }: OutsideOutline, dpi: number) {
  const scan = scanScene(scene, { dpi, noise: 4, seed: 5, softnessMm: 36 / dpi / 25.4 });
  const { pieces } = tracePicture(scan.picture, scan.mmPerPx, { ...plainTraceSettings, toleranceMm: 0.04, smallestMm: 0.4 });
  const paths = pieces.flatMap(({ outer, holes }) => [outer, ...holes]).map((path) => transformedPath(path, inverse(scan.toPixels)));
  return { paths, ...deviationOf(paths, outlines) };
}

const segments = (paths: readonly { segments: readonly unknown[] }[]) => paths.reduce((n, p) => n + p.segments.length, 0);

describe.each([...letters('libre-baskerville', 'AEOSkx'), ...letters('work-sans', 'GRSOat')])('the letter $name', (letter) => {
  const { paths, rmsMm, worstMm } = traced(letter, 600);
  it('has as many outlines as its font gives it', () => expect(paths).toHaveLength(letter.outlines.length));
  it('lies within 0.008 mm RMS and 0.05 mm at worst of the font’s own outline', () => {
    expect(rmsMm).toBeLessThan(0.008);
    expect(worstMm).toBeLessThan(0.05);
  });
  it('crosses itself nowhere', () => {
    const pieces = paths.map((outer, k): Piece => ({ id: `${k}`, name: letter.name, purpose: 'cut', leftOut: false, runsOff: false, outer, holes: [] })); // biome-ignore format: one line
    expect(
      pieces
        .flatMap((piece) => faultsOf([piece], { kerfMm: 0.1, thinnestMm: 0.01, clearanceMm: 0 }))
        .filter(({ code }) => code === 'crosses-itself'),
    ).toEqual([]);
  });
  it('takes no more segments than the font has', () => expect(segments(paths)).toBeLessThanOrEqual(segments(letter.outlines)));
});

it.each(icons(10))('$name is found with every hole, within 0.15 mm everywhere', (icon) => {
  const { paths, rmsMm, worstMm } = traced(icon, 800);
  expect(paths).toHaveLength(icon.outlines.length);
  expect(rmsMm).toBeLessThan(0.015);
  expect(worstMm).toBeLessThan(0.15);
  expect(segments(paths)).toBeLessThanOrEqual(1.15 * segments(icon.outlines));
});
