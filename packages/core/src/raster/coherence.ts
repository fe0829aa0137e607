/**
 * In: a grey picture of strokes whose ink is broken up. Out: the same smoothed along the strokes, so that a stroke's parts run together
 * while strokes side by side stay apart.
 * Rests on: the structure tensor, gathered over a neighbourhood (Kass & Witkin 1987), tells the direction and how sure it is;
 * coherence-enhancing smoothing goes as far along it as that allows (Weickert 1999), here as a Gaussian along the line of flow
 * (Cabral & Leedom 1993).
 */
import { gaussianSmoothed } from './gaussian.ts';
import { type GreyPicture, greyPicture } from './grey.ts';

/** How wide the Gaussians are, deviations in px. */
export interface Coherence {
  /** In all directions, before the direction is read. */
  readonly all: number;
  /** Along the strokes. */
  readonly along: number;
  /** The neighbourhood that a direction is read from. */
  readonly around: number;
  /** What is lighter is bare paper; farther from ink than the smoothing along strokes reaches it stays as it is. */
  readonly paper: number;
}

/** The direction is kept for squares of so many pixels. */
const cellPx = 3;
/** Where the direction is unsure smoothing goes this share of the way. */
const leastShare = 0.1;
/** The Gaussian ends after so many deviations. */
const reach = 2.2;

export function smoothedAlongStrokes(picture: GreyPicture, { all, along, around, paper }: Coherence): GreyPicture {
  const { width, height, data } = gaussianSmoothed(picture, all);
  const flow = flowOf({ width, height, data }, around);
  const isNear = cellsNearInk({ width, height, data }, paper, along);
  const out = new Uint8Array(data);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const p = y * width + x;
      const cell = Math.floor(y / cellPx) * flow.columns + Math.floor(x / cellPx);
      if (!isNear[cell]) continue;
      const sigma = along * (leastShare + (1 - leastShare) * (flow.sure[cell] as number));
      let [sum, weights] = [data[p] as number, 1];
      for (const sign of [1, -1]) {
        let [u, v, dx, dy] = [x, y, sign * (flow.dx[cell] as number), sign * (flow.dy[cell] as number)];
        for (let step = 1; step <= reach * sigma; step++) {
          u += dx;
          v += dy;
          const [i, j] = [Math.round(u), Math.round(v)];
          if (i < 0 || j < 0 || i >= width || j >= height) break;
          const weight = Math.exp(-(step * step) / (2 * sigma * sigma));
          sum += weight * (data[j * width + i] as number);
          weights += weight;
          const next = Math.floor(j / cellPx) * flow.columns + Math.floor(i / cellPx);
          const [nx, ny] = [flow.dx[next] as number, flow.dy[next] as number];
          const same = nx * dx + ny * dy < 0 ? -1 : 1;
          [dx, dy] = [same * nx, same * ny];
        }
      }
      out[p] = Math.round(sum / weights);
    }
  }
  return greyPicture(out, width, height);
}

/** Which cells have ink within reach. */
function cellsNearInk({ width, height, data }: GreyPicture, paper: number, within: number): Uint8Array {
  const [columns, rows] = [Math.ceil(width / cellPx), Math.ceil(height / cellPx)];
  const cells = Math.ceil(within / cellPx);
  const found = new Uint8Array(columns * rows);
  for (let p = 0; p < data.length; p++) {
    if ((data[p] as number) <= paper) found[Math.floor(Math.floor(p / width) / cellPx) * columns + Math.floor((p % width) / cellPx)] = 1;
  }
  const spread = (from: Uint8Array, count: number, step: number, lines: number, lineStep: number): Uint8Array => {
    const to = new Uint8Array(from.length);
    for (let line = 0; line < lines; line++) {
      // How many cells ago ink was met, on the way there and back.
      for (const [start, way] of [
        [0, 1],
        [count - 1, -1],
      ] as const) {
        // biome-ignore format: a table
        let since = cells + 1;
        for (let k = start; k >= 0 && k < count; k += way) {
          since = from[line * lineStep + k * step] ? 0 : since + 1;
          if (since <= cells) to[line * lineStep + k * step] = 1;
        }
      }
    }
    return to;
  };
  return spread(spread(found, columns, 1, rows, columns), rows, columns, columns, 1);
}

interface Flow {
  readonly columns: number;
  /** The direction along strokes, a unit vector a cell, and how sure it is, 0 to 1. */
  readonly dx: Float32Array;
  readonly dy: Float32Array;
  readonly sure: Float32Array;
}

function flowOf({ width, height, data }: GreyPicture, around: number): Flow {
  const [columns, rows] = [Math.ceil(width / cellPx), Math.ceil(height / cellPx)];
  const tensor = [0, 1, 2].map(() => new Float32Array(columns * rows)) as [Float32Array, Float32Array, Float32Array];
  const [xx, xy, yy] = tensor;
  for (let y = 1; y < height - 1; y++) {
    const row = Math.floor(y / cellPx) * columns;
    for (let x = 1; x < width - 1; x++) {
      const p = y * width + x;
      const gx = (data[p + 1] as number) - (data[p - 1] as number);
      const gy = (data[p + width] as number) - (data[p - width] as number);
      const q = row + Math.floor(x / cellPx);
      xx[q] = (xx[q] as number) + gx * gx;
      xy[q] = (xy[q] as number) + gx * gy;
      yy[q] = (yy[q] as number) + gy * gy;
    }
  }
  const [a, b, c] = tensor.map((one) => gathered(one, columns, rows, around / cellPx)) as typeof tensor;
  const [dx, dy, sure] = [0, 1, 2].map(() => new Float32Array(columns * rows)) as typeof tensor;
  for (let q = 0; q < dx.length; q++) {
    const [half, cross] = [((a[q] as number) - (c[q] as number)) / 2, b[q] as number];
    // Along the stroke the grey changes least: square to the direction of most change.
    const angle = Math.atan2(cross, half) / 2 + Math.PI / 2;
    dx[q] = Math.cos(angle);
    dy[q] = Math.sin(angle);
    const mean = ((a[q] as number) + (c[q] as number)) / 2;
    const share = mean > 0 ? Math.hypot(half, cross) / mean : 0;
    sure[q] = share * share;
  }
  return { columns, dx, dy, sure };
}

/** Every cell's value with those about it, weighted by a Gaussian. */
function gathered(values: Float32Array, columns: number, rows: number, sigma: number): Float32Array {
  const kernel = Array.from({ length: Math.ceil(2.5 * sigma) + 1 }, (_, k) => Math.exp((-k * k) / (2 * sigma * sigma)));
  const over = (from: Float32Array, count: number, step: number, lines: number, lineStep: number): Float32Array => {
    const to = new Float32Array(from.length);
    for (let line = 0; line < lines; line++) {
      for (let k = 0; k < count; k++) {
        let sum = 0;
        for (let d = 1 - kernel.length; d < kernel.length; d++) {
          if (k + d >= 0 && k + d < count) sum += (kernel[Math.abs(d)] as number) * (from[line * lineStep + (k + d) * step] as number);
        }
        to[line * lineStep + k * step] = sum;
      }
    }
    return to;
  };
  return over(over(values, columns, 1, rows, columns), rows, columns, columns, 1);
}
