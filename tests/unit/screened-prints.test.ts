/** Figures printed or dithered in dots, against their outlines; and pictures that only look like it. */
import { transformedPath } from '@nuvet/core/plane';
import { greyPicture } from '@nuvet/core/raster';
import { findInk, plainTraceSettings, tracePicture } from '@nuvet/core/trace';
import { deviationOf, nestingOf, randomFrom, screenedScan } from '@nuvet/truth';
import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';

const settings = { ...plainTraceSettings, smallestMm: 1.5 };

describe('a tint of dots', () => {
  // Screens of 3.9 to 6.8 px, an ordered dither, a diffused one.
  it.each([102, 103, 105, 107, 109, 111])('is traced as the figures that it fills (%d)', (number) => {
    const { picture, mmPerPx, screening, periodPx, scene, outlines } = screenedScan(number);
    const { pieces, dotPitch } = tracePicture(picture, mmPerPx, settings);
    expect(nestingOf(pieces)).toEqual(nestingOf(scene.pieces));
    expect(dotPitch).not.toBeNull();
    if (screening === 'screen') expect(Math.abs((dotPitch ?? 0) / periodPx - 1)).toBeLessThan(0.1);
    const onSheet = { a: mmPerPx, b: 0, c: 0, d: mmPerPx, e: 0, f: 0 };
    const placed = (path: (typeof outlines)[0]) => transformedPath(path, onSheet);
    const traced = pieces.flatMap(({ outer, holes }) => [outer, ...holes]).map(placed);
    // A border that cuts through dots is as uncertain as a share of their distance.
    expect(deviationOf(traced, outlines.map(placed)).rmsMm).toBeLessThan(0.2 * Math.max(2, periodPx) * mmPerPx);
  });

  it('is traced dot by dot where that is asked for', () => {
    const { picture, mmPerPx } = screenedScan(107);
    const { pieces, dotPitch } = tracePicture(picture, mmPerPx, { ...settings, smallestMm: 0.05, keepsTexture: true });
    expect(dotPitch).toBeNull();
    expect(pieces.length).toBeGreaterThan(200);
  });
});

const side = 600;

/** Black shapes on white, drawn by resvg, with noise. */
function drawn(body: string) {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${side}" height="${side}"><path d="M0 0H${side}V${side}H0Z" fill="#fff"/>${body}</svg>`;
  const { pixels } = new Resvg(svg).render();
  const random = randomFrom(3);
  return greyPicture(
    Uint8Array.from({ length: side * side }, (_, p) => 30 + 0.8 * (pixels[4 * p] as number) + 6 * (random() - 0.5)),
    side,
    side,
  );
}

describe('no dots of a print are', () => {
  const at = randomFrom(8);
  const places = Array.from({ length: 2500 }, () => [side * at(), side * at(), 0.6 + 1.5 * at()]);
  // Strokes of several widths, two or three to a letter, as in small print.
  const rows = Array.from({ length: 38 }, (_, row) => {
    const strokes: string[] = [];
    for (let x = 4; x < side - 12; x += 3 + 9 * at()) strokes.push(`M${x} ${8 + 16 * row + 3 * at()}h${2 + 3 * at()}v${4 + 4 * at()}h-2z`);
    return strokes.join('');
  });
  it.each([
    ['specks at random', places.map(([x, y, r]) => `<circle cx="${x}" cy="${y}" r="${r}"/>`).join('')],
    ['small letters in rows', `<path d="${rows.join('')}"/>`],
    [
      'dashes',
      `<path stroke="#000" stroke-width="3" stroke-dasharray="8 6" d="${Array.from({ length: 15 }, (_, k) => `M5 ${20 + 40 * k}H595`).join('')}"/>`,
    ],
  ])('%s', (_, body) => {
    const ink = findInk(drawn(body), 25.4 / 300, { threshold: 'auto', inverted: false, smallestMm: 1, keepsTexture: false });
    expect(ink.dropped).toBeGreaterThan(100);
    expect(ink.dotPitch).toBeNull();
  });
});
