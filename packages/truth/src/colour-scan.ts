/**
 * In: areas of plain colour, the later over the earlier. Out: a believable scan of them in colour.
 * Rests on: the same coverage, softness and sensor as a grey scan (scan.ts), over three channels.
 */
import { type Path, transformedPath } from '@nuvet/core/plane';
import type { ColourPicture, Rgb } from '@nuvet/core/raster';
import { coverageOf } from './coverage.ts';
import { keptPixels } from './kept-scans.ts';
import { blur, sensed } from './optics.ts';
import { randomFrom } from './random.ts';
import { placementOnGlass, type ScanSettings } from './scan.ts';

export interface ColourArea {
  /** mm, y up; holes run the other way than outer outlines. */
  readonly paths: readonly Path[];
  readonly rgb: Rgb;
}

export interface ColourSheet {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly paper: Rgb;
  readonly areas: readonly ColourArea[];
}

type ColourScanSettings = Pick<ScanSettings, 'dpi' | 'tiltDegrees' | 'noise' | 'softnessMm' | 'seed'>;

export function scanColours(sheet: ColourSheet, { dpi, tiltDegrees = 0, noise = 5, softnessMm = 0.06, seed = 1 }: ColourScanSettings) {
  const { width, height, toPixels } = placementOnGlass(sheet, dpi, tiltDegrees);
  const data = keptPixels(['colours', sheet, { dpi, tiltDegrees, noise, softnessMm, seed }], () => {
    const coverages = sheet.areas.map(({ paths }) =>
      coverageOf(
        paths.map((p) => transformedPath(p, toPixels)),
        width,
        height,
      ),
    );
    const data = new Uint8Array(3 * width * height);
    const random = randomFrom(seed);
    for (let channel = 0; channel < 3; channel++) {
      const paper = sheet.paper[channel] as number;
      // Softness mixes what is laid out, so that no paper shines through where two areas meet; beyond the picture is paper.
      const level = new Float32Array(width * height);
      coverages.forEach((coverage, k) => {
        const tone = (sheet.areas[k] as ColourArea).rgb[channel] as number;
        for (let p = 0; p < level.length; p++)
          level[p] = (level[p] as number) + (coverage[p] as number) * (tone - paper - (level[p] as number));
      });
      blur(level, width, height, (softnessMm * dpi) / 25.4);
      const sensedLevel = sensed(
        level.map((v) => v + paper),
        noise,
        random,
        seed + channel,
      );
      for (let p = 0; p < sensedLevel.length; p++) data[3 * p + channel] = sensedLevel[p] as number;
    }
    return data;
  });
  const picture: ColourPicture = { width, height, data };
  return { picture, toPixels, mmPerPx: 25.4 / dpi };
}
