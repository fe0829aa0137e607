/**
 * In: a scene. Out: a believable scan of it, in grey, with the transform that tells where everything really lies.
 * Rests on: exact coverage, a Gaussian for ink spread and optics together, value noise for paper grain, normal noise
 * for the sensor; all from one seed.
 */

import { apply, chain, type Point, shift, stretch, type Transform, transformedPath, turn } from '@nuvet/core/plane';
import { type GreyPicture, greyPicture } from '@nuvet/core/raster';
import { coverageOf } from './coverage.ts';
import { normalTable, randomFrom } from './random.ts';
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
  const width = Math.round(scene.widthMm * pxPerMm);
  const height = Math.round(scene.heightMm * pxPerMm);
  const toPixels = chain(
    shift(width / 2, height / 2),
    chain(stretch(pxPerMm, -pxPerMm), chain(turn((tiltDegrees * Math.PI) / 180), shift(-scene.widthMm / 2, -scene.heightMm / 2))),
  );
  const random = randomFrom(seed);
  const level = new Float32Array(width * height).fill(paper);
  const lay = (paths: Parameters<typeof coverageOf>[0], tone: number): void => {
    const coverage = coverageOf(
      paths.map((p) => transformedPath(p, toPixels)),
      width,
      height,
    );
    blur(coverage, width, height, softnessMm * pxPerMm);
    for (let p = 0; p < level.length; p++) level[p] = (level[p] as number) + (coverage[p] as number) * (tone - (level[p] as number));
  };
  if (scene.print?.length) lay(scene.print, print);
  lay(
    scene.pieces.flatMap(({ outer, holes }) => [outer, ...holes]),
    ink,
  );
  addGrain(level, width, height, grain, 0.7 * pxPerMm, random);
  const data = new Uint8Array(level.length);
  const normal = normalTable(random, 1 << 16);
  let state = (seed * 2654435761) >>> 0;
  for (let p = 0; p < data.length; p++) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    const value = (level[p] as number) + noise * (normal[state >>> 16] as number);
    data[p] = value < 0 ? 0 : value > 255 ? 255 : Math.round(value);
  }
  return { picture: greyPicture(data, width, height), toPixels, mmPerPx: 1 / pxPerMm, at: (p) => apply(toPixels, p) };
}

/** A Gaussian of deviation `sigma` pixels over rows, then columns, in place; the border counts as empty. */
function blur(cells: Float32Array, width: number, height: number, sigma: number): void {
  if (sigma <= 0) return;
  const reach = Math.ceil(3.5 * sigma);
  const weights = Array.from({ length: reach + 1 }, (_, k) => Math.exp(-(k * k) / (2 * sigma * sigma)));
  const total = weights.reduce((sum, w, k) => sum + (k === 0 ? w : 2 * w), 0);
  const kernel = weights.map((w) => w / total);
  const row = new Float32Array(width + 2 * reach);
  for (let y = 0; y < height; y++) {
    row.set(cells.subarray(y * width, (y + 1) * width), reach);
    for (let x = 0; x < width; x++) {
      let sum = (kernel[0] as number) * (row[x + reach] as number);
      for (let k = 1; k <= reach; k++) sum += (kernel[k] as number) * ((row[x + reach - k] as number) + (row[x + reach + k] as number));
      cells[y * width + x] = sum;
    }
  }
  // Columns in bands of rows kept aside, so that memory is read along rows.
  const before = Array.from({ length: reach + 1 }, () => new Float32Array(width));
  const empty = new Float32Array(width);
  for (let y = 0; y < height; y++) {
    (before[y % (reach + 1)] as Float32Array).set(cells.subarray(y * width, (y + 1) * width));
    const out = cells.subarray(y * width, (y + 1) * width);
    for (let x = 0; x < width; x++) out[x] = (out[x] as number) * (kernel[0] as number);
    for (let k = 1; k <= reach; k++) {
      const up = y - k >= 0 ? (before[(y - k) % (reach + 1)] as Float32Array) : empty;
      const down = y + k < height ? cells.subarray((y + k) * width, (y + k + 1) * width) : empty;
      const w = kernel[k] as number;
      for (let x = 0; x < width; x++) out[x] = (out[x] as number) + w * ((up[x] as number) + (down[x] as number));
    }
  }
}

/** Paper grain: random heights on a grid of `pitch` pixels, interpolated between. */
function addGrain(level: Float32Array, width: number, height: number, swing: number, pitch: number, random: () => number): void {
  const columns = Math.ceil(width / pitch) + 2;
  const grid = Float32Array.from({ length: columns * (Math.ceil(height / pitch) + 2) }, () => (random() - 0.5) * swing);
  for (let y = 0; y < height; y++) {
    const gy = y / pitch;
    const row = Math.floor(gy) * columns;
    const fy = gy - Math.floor(gy);
    for (let x = 0; x < width; x++) {
      const gx = x / pitch;
      const k = row + Math.floor(gx);
      const fx = gx - Math.floor(gx);
      const top = (grid[k] as number) * (1 - fx) + (grid[k + 1] as number) * fx;
      const bottom = (grid[k + columns] as number) * (1 - fx) + (grid[k + columns + 1] as number) * fx;
      level[y * width + x] = (level[y * width + x] as number) + top * (1 - fy) + bottom * fy;
    }
  }
}
