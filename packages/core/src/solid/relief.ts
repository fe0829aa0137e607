/**
 * In: the grey of a picture, where it lies on the sheet, and which heights black and white stand for. Out: the surface over a box as a closed block,
 * down to a plane below it or up to one above it.
 */
import { apply, type Box, inverse, type Transform } from '../plane/index.ts';
import type { Mesh } from './mesh.ts';

/** A picture's grey, row by row from the top, 255 white, and how its pixels lie on the sheet. */
export interface GreyOnSheet {
  readonly pictureId: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly grey: Uint8Array;
  readonly toSheet: Transform;
}

export interface ReliefRule {
  readonly blackMm: number;
  readonly whiteMm: number;
  /** Standard deviation of the Gaussian that it is smoothed by, mm; 0 for none. */
  readonly smoothMm: number;
  /** Between two places of the surface, mm. */
  readonly stepMm: number;
}

/** Heights at the crossings of a grid, row by row from below. */
export interface ReliefSurface {
  readonly box: Box;
  readonly columns: number;
  readonly rows: number;
  readonly heights: Float64Array;
  /** Wider than asked where there would be too many places. */
  readonly stepMm: number;
}

/** A side of the grid has no more places than this. */
export const mostPlaces = 500;
/** A Gaussian is taken to this many of its standard deviations. */
const reach = 3;

/** Beyond the picture its edge goes on. */
export function reliefSurface(box: Box, picture: GreyOnSheet, { blackMm, whiteMm, smoothMm, stepMm: wantedMm }: ReliefRule): ReliefSurface {
  const [wide, high] = [box.maxX - box.minX, box.maxY - box.minY];
  const stepMm = Math.max(wantedMm, wide / (mostPlaces - 1), high / (mostPlaces - 1));
  const [columns, rows] = [Math.max(2, Math.ceil(wide / stepMm - 1e-9) + 1), Math.max(2, Math.ceil(high / stepMm - 1e-9) + 1)];
  const toPixels = inverse(picture.toSheet);
  const half = (stepMm * Math.sqrt(Math.abs(toPixels.a * toPixels.d - toPixels.b * toPixels.c))) / 2;
  const share = new Float64Array(columns * rows);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const at = apply(toPixels, { x: box.minX + (column * wide) / (columns - 1), y: box.minY + (row * high) / (rows - 1) });
      share[row * columns + column] = greyAbout(picture, at.x, at.y, half) / 255;
    }
  const sigma = [(smoothMm * (columns - 1)) / wide, (smoothMm * (rows - 1)) / high] as const;
  const smooth = smoothed(smoothed(share, columns, rows, 1, columns, sigma[0]), rows, columns, columns, 1, sigma[1]);
  return { box, columns, rows, heights: smooth.map((one) => blackMm + one * (whiteMm - blackMm)), stepMm };
}

/** The mean over a square of pixels, half a side to either side; where that is less than a pixel, between the four about it. */
function greyAbout({ widthPx, heightPx, grey }: GreyOnSheet, x: number, y: number, half: number): number {
  const at = (column: number, row: number): number => grey[Math.min(heightPx - 1, Math.max(0, row)) * widthPx + Math.min(widthPx - 1, Math.max(0, column))] as number; // biome-ignore format: one line
  if (half < 0.75) {
    const [u, v] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
    const [p, q] = [x - 0.5 - u, y - 0.5 - v];
    return (1 - q) * ((1 - p) * at(u, v) + p * at(u + 1, v)) + q * ((1 - p) * at(u, v + 1) + p * at(u + 1, v + 1));
  }
  let [sum, count] = [0, 0];
  for (let row = Math.round(y - half); row < Math.round(y + half); row++)
    for (let column = Math.round(x - half); column < Math.round(x + half); column++) {
      sum += at(column, row);
      count++;
    }
  return count > 0 ? sum / count : at(Math.floor(x), Math.floor(y));
}

/** Lines of so many places, `stride` apart, by a Gaussian; at the ends the last place goes on. */
function smoothed(values: Float64Array, length: number, lines: number, stride: number, between: number, sigma: number): Float64Array {
  if (sigma < 0.2) return values;
  // Beyond the line the last place goes on: farther than it is long nothing new comes.
  const far = Math.min(length, Math.ceil(reach * sigma));
  const weights = Array.from({ length: 2 * far + 1 }, (_, k) => Math.exp(-((k - far) ** 2) / (2 * sigma * sigma)));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const to = new Float64Array(values.length);
  for (let line = 0; line < lines; line++)
    for (let k = 0; k < length; k++) {
      let sum = 0;
      for (let j = -far; j <= far; j++) sum += (weights[j + far] as number) * (values[line * between + Math.min(length - 1, Math.max(0, k + j)) * stride] as number); // biome-ignore format: one line
      to[line * between + k * stride] = sum / whole;
    }
  return to;
}

/** Between the surface and a plane that lies all below it, or all above it. */
export function reliefBlock({ box, columns, rows, heights }: ReliefSurface, planeMm: number): Mesh {
  const isBelow = planeMm < (heights[0] as number);
  const border = borderOf(columns, rows);
  const count = columns * rows;
  const positions = new Float64Array(3 * (count + border.length + 1));
  const x = (column: number): number => box.minX + ((box.maxX - box.minX) * column) / (columns - 1);
  const y = (row: number): number => box.minY + ((box.maxY - box.minY) * row) / (rows - 1);
  for (let k = 0; k < count; k++) positions.set([x(k % columns), y(Math.floor(k / columns)), heights[k] as number], 3 * k);
  border.forEach((k, j) => void positions.set([x(k % columns), y(Math.floor(k / columns)), planeMm], 3 * (count + j)));
  const middle = count + border.length;
  positions.set([(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2, planeMm], 3 * middle);
  const triangles: number[] = [];
  for (let row = 0; row + 1 < rows; row++)
    for (let column = 0; column + 1 < columns; column++) {
      const a = row * columns + column;
      triangles.push(a, a + 1, a + columns + 1, a, a + columns + 1, a + columns);
    }
  border.forEach((k, j) => {
    const next = (j + 1) % border.length;
    triangles.push(count + j, count + next, border[next] as number, count + j, border[next] as number, k, middle, count + next, count + j);
  });
  const made = Uint32Array.from(triangles);
  // Seen from the plane above, all faces the other way.
  if (!isBelow) for (let t = 0; t < made.length; t += 3) [made[t + 1], made[t + 2]] = [made[t + 2] as number, made[t + 1] as number];
  return { positions, triangles: made };
}

/** The places along the border, counter-clockwise. */
function borderOf(columns: number, rows: number): number[] {
  const along = (from: number, step: number, count: number): number[] => Array.from({ length: count }, (_, k) => from + k * step);
  const last = columns * rows - 1;
  return [
    ...along(0, 1, columns - 1),
    ...along(columns - 1, columns, rows - 1),
    ...along(last, -1, columns - 1),
    ...along(last - columns + 1, -columns, rows - 1),
  ];
}
