/**
 * In: a scene. Out: a believable scan of it, in grey, with the transform that tells where everything really lies.
 * Rests on: exact coverage, a Gaussian for ink spread and optics together, value noise for paper grain, normal noise
 * for the sensor; all from one seed.
 */

import { apply, chain, type Point, shift, stretch, type Transform, transformedPath, turn } from '@nuvet/core/plane';
import { type GreyPicture, greyPicture } from '@nuvet/core/raster';
import { coverageOf } from './coverage.ts';
import { keptPixels } from './kept-scans.ts';
import { addGrain, blur, layTone, sensed } from './optics.ts';
import { randomFrom } from './random.ts';
import type { Scene } from './scene.ts';

export interface ScanSettings {
  readonly dpi: number;
  /** How far the paper lies turned on the glass, degrees counter-clockwise. */
  readonly tiltDegrees?: number;
  /** Deviation of the sensor's noise, grey levels. */
  readonly noise?: number;
  /** Deviation of ink spread and optics, mm. */
  readonly softnessMm?: number;
  /** Largest swing of the paper's grain, grey levels. */
  readonly grain?: number;
  readonly paper?: number;
  readonly ink?: number;
  readonly print?: number;
  readonly seed?: number;
}

export interface Scan {
  readonly picture: GreyPicture;
  /** From the sheet (mm, y up) to the picture (pixels, y down). */
  readonly toPixels: Transform;
  readonly mmPerPx: number;
  /** A point of the sheet in pixels. */
  at(p: Point): Point;
}

const defaults = { tiltDegrees: 0, noise: 5, softnessMm: 0.06, grain: 4, paper: 234, ink: 40, print: 168, seed: 1 };

/** Scans a scene with the paper filling the glass. */
export function scanScene(scene: Scene, settings: ScanSettings): Scan {
  const { dpi, tiltDegrees, noise, softnessMm, grain, paper, ink, print, seed } = { ...defaults, ...settings };
  const pxPerMm = dpi / 25.4;
  const { width, height, toPixels } = placementOnGlass(scene, dpi, tiltDegrees);
  const settled = { dpi, tiltDegrees, noise, softnessMm, grain, paper, ink, print, seed };
  const pixels = keptPixels(['scan', scene.widthMm, scene.heightMm, scene.pieces, scene.print ?? [], settled], () => {
    const random = randomFrom(seed);
    const level = new Float32Array(width * height).fill(paper);
    const lay = (paths: Parameters<typeof coverageOf>[0], tone: number): void => {
      const coverage = coverageOf(
        paths.map((p) => transformedPath(p, toPixels)),
        width,
        height,
      );
      blur(coverage, width, height, softnessMm * pxPerMm);
      layTone(level, coverage, tone);
    };
    if (scene.print?.length) lay(scene.print, print);
    lay(
      scene.pieces.flatMap(({ outer, holes }) => [outer, ...holes]),
      ink,
    );
    addGrain(level, width, height, grain, 0.7 * pxPerMm, random);
    return sensed(level, noise, random, seed);
  });
  return {
    picture: greyPicture(pixels, width, height),
    toPixels,
    mmPerPx: 1 / pxPerMm,
    at: (p) => apply(toPixels, p),
  };
}

/** Where a sheet comes to lie in the picture when it fills the glass, turned about its middle. */
export function placementOnGlass({ widthMm, heightMm }: Pick<Scene, 'widthMm' | 'heightMm'>, dpi: number, tiltDegrees: number) {
  const pxPerMm = dpi / 25.4;
  const [width, height] = [Math.round(widthMm * pxPerMm), Math.round(heightMm * pxPerMm)];
  const upright = chain(turn((tiltDegrees * Math.PI) / 180), shift(-widthMm / 2, -heightMm / 2));
  return { width, height, toPixels: chain(shift(width / 2, height / 2), chain(stretch(pxPerMm, -pxPerMm), upright)) };
}
