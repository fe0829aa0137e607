/**
 * Traced outlines drawn again by somebody else: filled by librsvg (inside sharp) at the scan's own pixels, they must cover
 * what was ink in the scan, pixel by pixel.
 */
import { pathData } from '@nuvet/core/formats';
import { pathLength } from '@nuvet/core/plane';
import type { GreyPicture } from '@nuvet/core/raster';
import { plainTraceSettings, type TracedPiece, tracePicture } from '@nuvet/core/trace';
import { demoJobs, fullSheetScene, plateScene, type ScanSettings, type Scene, scanScene, smoothScene, starScene } from '@nuvet/truth';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';

/** How much of every pixel the pieces cover, 0 to 255. */
async function covered(pieces: readonly TracedPiece[], { width, height }: GreyPicture): Promise<Uint8Array> {
  // Path data turn y over about a height; pieces lie with y down already.
  const paths = pieces.map(({ outer, holes }) => `<path fill-rule="evenodd" d="${[outer, ...holes].map((p) => pathData(p, 0)).join(' ')}"/>`); // biome-ignore format: one line
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#fff"/><g transform="scale(1 -1)">${paths.join('')}</g></svg>`;
  const { data } = await sharp(Buffer.from(svg), { unlimited: true }).greyscale().raw().toBuffer({ resolveWithObject: true });
  return Uint8Array.from(data, (v) => 255 - v);
}

interface Again {
  /** Pixels that are ink in one and paper in the other, a pixel of border: noise and grain of the paper make some. */
  readonly wrong: number;
  /** How much more or less ink, as the width of a rim all round, px. */
  readonly rimPx: number;
}

async function drawnAgain(scene: Scene, scan: ScanSettings): Promise<Again> {
  const { picture, mmPerPx } = scanScene(scene, scan);
  const { pieces, threshold } = tracePicture(picture, mmPerPx, { ...plainTraceSettings, toleranceMm: 0.05 });
  const cover = await covered(pieces, picture);
  const borderPx = pieces.reduce((sum, { outer, holes }) => sum + [outer, ...holes].reduce((s, p) => s + pathLength(p), 0), 0);
  let [wrong, more] = [0, 0];
  picture.data.forEach((grey, k) => {
    const [was, is] = [grey <= threshold, (cover[k] as number) >= 128];
    if (was !== is) wrong++;
    more += Number(is) - Number(was);
  });
  return { wrong: wrong / borderPx, rimPx: Math.abs(more) / borderPx };
}

describe('a trace filled by librsvg', () => {
  it.each([
    ['a plate with holes', plateScene, { dpi: 300, tiltDegrees: 0.7, seed: 4 }],
    ['free shapes', smoothScene, { dpi: 300, tiltDegrees: -1.3, seed: 5 }],
    ['a star', starScene, { dpi: 300, tiltDegrees: 2.1, seed: 6 }],
    ['150 shapes', fullSheetScene(), { dpi: 200, tiltDegrees: 0.4, seed: 7 }],
    ...demoJobs.filter(({ take }) => take === 'shape').map(({ name, scene, scan }) => [name, scene, scan] as const),
  ] as const)('covers the ink of %s', async (_, scene, scan) => {
    const { wrong, rimPx } = await drawnAgain(scene, scan);
    expect(wrong).toBeLessThan(0.08);
    expect(rimPx).toBeLessThan(0.015);
  });
});
