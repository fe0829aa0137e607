/**
 * In: a number. Out: figures sketched in pencil, chalk or crayon on rough paper, as a scan: the grain of the paper breaks the strokes up,
 * the pressure comes and goes, some are smudged, some drawn over twice or three times.
 * Rests on: paper as heights of value noise; graphite stays where the paper stands higher than the pressure lets the pencil pass over.
 */
import { type Path, pathBox, transformedPath } from '@nuvet/core/plane';
import { type GreyPicture, greyPicture } from '@nuvet/core/raster';
import { coverageOf } from './coverage.ts';
import { penStroke } from './line-figures.ts';
import { addGrain, blur, sensed } from './optics.ts';
import { type Random, randomFrom } from './random.ts';
import { placementOnGlass } from './scan.ts';
import { curveThrough, ellipse, polar, regularPolygon, roundedRectangle, star } from './shapes.ts';

export interface PencilScan {
  readonly picture: GreyPicture;
  readonly mmPerPx: number;
  readonly name: string;
  readonly strokeMm: number;
  /** How often every line was drawn. */
  readonly times: number;
  /** The middles of the lines in the picture's pixels; all are closed. */
  readonly lines: readonly Path[];
}

const [widthMm, heightMm] = [90, 70];

const figures: readonly { name: string; lines: (random: Random) => Path[] }[] = [
  { name: 'ring', lines: (r) => [ellipse({ x: 45, y: 35 }, 18 + 8 * r(), 18 + 8 * r())] },
  { name: 'plate', lines: (r) => [roundedRectangle(14, 12, 62, 46, 5 + 6 * r()), ellipse({ x: 45, y: 35 }, 9, 9)] },
  { name: 'star', lines: (r) => [star({ x: 45, y: 35 }, 5 + Math.floor(3 * r()), 28, 15, r())] },
  { name: 'pebble', lines: (r) => [curveThrough(Array.from({ length: 7 }, (_, k) => { const p = polar({ x: 45, y: 35 }, (k * 2 * Math.PI) / 7, 18 + 10 * r()); return [p.x, p.y] as const; }))] },
  { name: 'two', lines: (r) => [regularPolygon({ x: 24, y: 36 }, 3 + Math.floor(4 * r()), 16, r()), ellipse({ x: 64, y: 34 }, 15, 10 + 6 * r(), r())] },
]; // biome-ignore format: a figure a line

/** Every number gives another sketch. */
export function pencilScan(number: number): PencilScan {
  const random = randomFrom(900 + number);
  const { name, lines: drawn } = figures[number % figures.length] as (typeof figures)[0];
  const dpi = [200, 300, 300, 400][Math.floor(4 * random())] as number;
  const { width, height, toPixels } = placementOnGlass({ widthMm, heightMm }, dpi, 4 * random() - 2);
  const pxPerMm = dpi / 25.4;
  const meant = drawn(random);
  const strokeMm = 0.6 + 0.5 * random();
  const times = [1, 1, 2, 3][Math.floor(4 * random())] as number;
  const grain = heights(width, height, pxPerMm * (0.14 + 0.1 * random()), random);
  const pressure = new Float32Array(width * height).fill(0.62 + 0.2 * random());
  addGrain(pressure, width, height, 0.25, pxPerMm * 9, random);
  const graphite = new Float32Array(width * height);
  const shakes = meant.map(() => [0, 1, 2, 3].map(() => (times === 1 ? 0 : random() - 0.5)));
  for (let k = 0; k < times; k++) {
    // A hand that draws a line again goes by it on both sides.
    const again = meant.map((path, n) => shaken(path, shakes[n] as readonly number[], [1, -1, 0][k % 3] as number));
    const strokes = again.map((path) => penStroke(transformedPath(path, toPixels), strokeMm * pxPerMm));
    const coverage = coverageOf(strokes.flatMap(({ outer, holes }) => [outer, ...holes]), width, height); // biome-ignore format: one line
    blur(coverage, width, height, 0.1 * pxPerMm);
    for (let p = 0; p < graphite.length; p++) {
      const over = ((coverage[p] as number) * (pressure[p] as number) - (grain[p] as number)) / 0.12;
      graphite[p] = Math.max(graphite[p] as number, Math.max(0, Math.min(1, over + 0.5)) * Math.min(1, 2 * (coverage[p] as number)));
    }
  }
  const smudge = Float32Array.from(graphite);
  blur(smudge, width, height, 0.9 * pxPerMm);
  const [dark, smudged] = [110 + 70 * random(), random() < 0.5 ? 0 : 45 * random()];
  const level = graphite.map((share, p) => 236 - dark * share - smudged * (smudge[p] as number));
  blur(level, width, height, 0.045 * pxPerMm);
  edgesFilled(level, width, height);
  const picture = greyPicture(sensed(level, 4, random, number + 1), width, height);
  return { picture, mmPerPx: 25.4 / dpi, name, strokeMm, times, lines: meant.map((path) => transformedPath(path, toPixels)) };
}

/** Blurring counts what lies outside as empty: the picture's rim is paper. */
function edgesFilled(level: Float32Array, width: number, height: number): void {
  const rim = 6;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) if (Math.min(x, y, width - 1 - x, height - 1 - y) < rim) level[y * width + x] = 236;
}

/** Heights of rough paper, 0 to 1, most of them near the middle. */
function heights(width: number, height: number, pitch: number, random: Random): Float32Array {
  const level = new Float32Array(width * height).fill(0.5);
  addGrain(level, width, height, 0.9, pitch, random);
  addGrain(level, width, height, 0.45, 2.3 * pitch, random);
  return level;
}

/** How far a line that is drawn again goes by it, mm. */
const offMm = 0.6;

/** A line drawn again by hand: a little larger or smaller, turned, and moved. */
function shaken(path: Path, shake: readonly number[], side: number): Path {
  const [larger, turned, right, up] = shake.map((share) => share * side * offMm) as [number, number, number, number];
  const box = pathBox(path);
  const [x, y] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  const [c, s] = [(1 + larger / 40) * Math.cos(turned / 40), (1 + larger / 40) * Math.sin(turned / 40)];
  return transformedPath(path, { a: c, b: s, c: -s, d: c, e: x - c * x + s * y + right, f: y - s * x - c * y + up });
}
