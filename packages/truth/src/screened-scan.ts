/**
 * In: a number. Out: figures printed in a tint, by dots as newspapers, office printers and old picture files have them, as a picture.
 * Rests on: amplitude-modulated screens with round dots at an angle; ordered dither (Bayer 1973); error diffusion (Floyd & Steinberg
 * 1976). A screen's dots are laid finer than the picture's pixels, as a printer does, and then seen by the scanner.
 */
import { type Path, transformedPath } from '@nuvet/core/plane';
import { type GreyPicture, greyPicture } from '@nuvet/core/raster';
import { coverageOf } from './coverage.ts';
import { plateScene, smoothScene, starScene } from './figures.ts';
import { blur, sensed } from './optics.ts';
import { randomFrom } from './random.ts';
import { placementOnGlass } from './scan.ts';
import type { Scene } from './scene.ts';

export interface ScreenedScan {
  readonly picture: GreyPicture;
  readonly mmPerPx: number;
  readonly screening: 'screen' | 'ordered' | 'diffused';
  /** How far apart dots lie, px; of a diffused picture about. */
  readonly periodPx: number;
  /** The share of the figures that is ink, 0 to 1. */
  readonly tint: number;
  readonly scene: Scene;
  /** The figures in the picture's pixels. */
  readonly outlines: readonly Path[];
}

const [paper, ink] = [232, 42];
/** Printer's dots to a pixel, each way. */
const finer = 3;
const bayer4 = [0, 8, 2, 10, 12, 4, 14, 6, 3, 11, 1, 9, 15, 7, 13, 5];

/** Every number gives another picture: what is printed, how finely, how darkly, and how it was screened. */
export function screenedScan(number: number): ScreenedScan {
  const random = randomFrom(5000 + number);
  const scene = [plateScene, starScene, smoothScene][number % 3] as Scene;
  const screening = (['screen', 'screen', 'screen', 'ordered', 'diffused'] as const)[number % 5] as ScreenedScan['screening'];
  const dpi = [150, 200, 300][Math.floor(random() * 3)] as number;
  const tint = 0.25 + 0.5 * random();
  const periodPx = screening === 'screen' ? 3.2 + 5 * random() : screening === 'ordered' ? 4 : 1 / Math.sqrt(Math.min(tint, 1 - tint));
  const angle = ([15, 45, 75, 0][Math.floor(random() * 4)] as number) * (Math.PI / 180);
  const { width, height, toPixels } = placementOnGlass(scene, dpi, 6 * random() - 3);
  const outlines = scene.pieces.flatMap(({ outer, holes }) => [outer, ...holes]).map((path) => transformedPath(path, toPixels));
  const level =
    screening === 'screen'
      ? screened(outlines, width, height, tint, periodPx, angle)
      : dithered(coverageOf(outlines, width, height), width, height, tint, screening);
  if (screening === 'screen') blur(level, width, height, 0.5 + 0.3 * random());
  const seen = level.map((share) => paper + share * (ink - paper));
  const picture = greyPicture(sensed(seen, screening === 'screen' ? 4 : 0, random, number + 1), width, height);
  return { picture, mmPerPx: 25.4 / dpi, screening, periodPx, tint, scene, outlines };
}

/** The share of ink in every pixel of a picture whose figures are printed by round dots. */
function screened(outlines: readonly Path[], width: number, height: number, tint: number, periodPx: number, angle: number): Float32Array {
  const large = { a: finer, b: 0, c: 0, d: finer, e: 0, f: 0 };
  const coverage = coverageOf(
    outlines.map((path) => transformedPath(path, large)),
    width * finer,
    height * finer,
  );
  const out = new Float32Array(width * height);
  const [c, s] = [Math.cos(angle) / (periodPx * finer), Math.sin(angle) / (periodPx * finer)];
  // Round dots of light about the corners of a cell once more than half of it is ink.
  const threshold = (x: number, y: number): number => {
    const [u, v] = [x * c - y * s, x * s + y * c];
    return 0.5 + (Math.cos(2 * Math.PI * u) + Math.cos(2 * Math.PI * v)) / 4;
  };
  for (let y = 0; y < height * finer; y++) {
    for (let x = 0; x < width * finer; x++) {
      const grey = tint * (coverage[y * width * finer + x] as number);
      if (grey > 0.001 && grey > 1 - threshold(x, y)) {
        const p = Math.floor(y / finer) * width + Math.floor(x / finer);
        out[p] = (out[p] as number) + 1 / finer ** 2;
      }
    }
  }
  return out;
}

/** Where a diffused pixel's rest goes, in sixteenths. */
const shares = [[1, 0, 7], [-1, 1, 3], [0, 1, 5], [1, 1, 1]] as const; // biome-ignore format: a table

/** One bit a pixel. */
function dithered(coverage: Float32Array, width: number, height: number, tint: number, way: 'ordered' | 'diffused'): Float32Array {
  const grey = coverage.map((share) => share * tint);
  if (way === 'ordered') {
    return grey.map((v, p) => (v > ((bayer4[4 * (Math.floor(p / width) % 4) + ((p % width) % 4)] as number) + 0.5) / 16 ? 1 : 0));
  }
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const p = y * width + x;
      const value = (grey[p] as number) >= 0.5 ? 1 : 0;
      const off = (grey[p] as number) - value;
      grey[p] = value;
      for (const [dx, dy, share] of shares) {
        if (x + dx < 0 || x + dx >= width || y + dy >= height) continue;
        const q = p + dx + dy * width;
        grey[q] = (grey[q] as number) + (off * share) / 16;
      }
    }
  }
  return grey;
}
