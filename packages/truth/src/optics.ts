/**
 * What lies between a drawing and its picture: ink spread and lens as a Gaussian, paper grain as value noise, the
 * sensor's noise as normal numbers. All in place, on grey levels in floating point.
 */
import { normalTable, type Random } from './random.ts';

/** Grey levels as a sensor gives them: noise added, rounded to bytes. */
export function sensed(level: Float32Array, noise: number, random: Random, seed: number): Uint8Array {
  const data = new Uint8Array(level.length);
  const normal = normalTable(random, 1 << 16);
  let state = (seed * 2654435761) >>> 0;
  for (let p = 0; p < data.length; p++) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    const value = (level[p] as number) + noise * (normal[state >>> 16] as number);
    data[p] = value < 0 ? 0 : value > 255 ? 255 : Math.round(value);
  }
  return data;
}

/** Lays a tone over grey levels where something covers them, by its share of each pixel. */
export function layTone(level: Float32Array, coverage: Float32Array, tone: number): void {
  for (let p = 0; p < level.length; p++) {
    const share = coverage[p] as number;
    if (share !== 0) level[p] = (level[p] as number) + share * (tone - (level[p] as number));
  }
}

/** Weights of a Gaussian at 0, 1, 2 ... pixels from its middle; with their mirror images they add up to 1. */
function gaussian(sigma: number): Float64Array {
  const weights = Array.from({ length: Math.ceil(3.5 * sigma) + 1 }, (_, k) => Math.exp(-(k * k) / (2 * sigma * sigma)));
  const total = weights.reduce((sum, w, k) => sum + (k === 0 ? w : 2 * w), 0);
  return Float64Array.from(weights, (w) => w / total);
}

/**
 * A Gaussian of deviation `sigma` pixels over rows, then columns, in place; the border counts as empty. Where all that bears on a
 * pixel is alike, as over most of a sheet, it is worked out once.
 */
export function blur(cells: Float32Array, width: number, height: number, sigma: number): void {
  if (sigma <= 0) return;
  const kernel = gaussian(sigma);
  for (let y = 0; y < height; y++) blurRow(cells.subarray(y * width, (y + 1) * width), kernel);
  blurColumns(cells, width, height, kernel);
}

function blurRow(cells: Float32Array, kernel: Float64Array): void {
  const reach = kernel.length - 1;
  const width = cells.length;
  const row = new Float32Array(width + 2 * reach);
  row.set(cells, reach);
  const blurred = (middle: number): number => {
    let sum = (kernel[0] as number) * (row[middle] as number);
    for (let k = 1; k <= reach; k++) sum += (kernel[k] as number) * ((row[middle - k] as number) + (row[middle + k] as number));
    return sum;
  };
  // How many pixels up to the last that bears on this one are alike, and what such a run comes to.
  let run = 1;
  for (let k = 1; k < 2 * reach; k++) run = row[k] === row[k - 1] ? run + 1 : 1;
  let [alike, comesTo] = [Number.NaN, Number.NaN];
  for (let x = 0; x < width; x++) {
    const last = row[x + 2 * reach] as number;
    run = last === row[x + 2 * reach - 1] ? run + 1 : 1;
    if (run <= 2 * reach) cells[x] = blurred(x + reach);
    else {
      if (last !== alike) [alike, comesTo] = [last, blurred(x + reach)];
      cells[x] = comesTo;
    }
  }
}

/** Columns with as many rows kept aside as the rows above are still needed, so that memory is read along rows. */
function blurColumns(cells: Float32Array, width: number, height: number, kernel: Float64Array): void {
  const reach = kernel.length - 1;
  const rows = reach + 1;
  const above = new Float32Array(rows * width);
  const empty = new Float32Array(width);
  const ofAbove = Array.from({ length: rows }, (_, k) => above.subarray(k * width, (k + 1) * width));
  const rowAt = (y: number): Float32Array => (y < height ? cells.subarray(y * width, (y + 1) * width) : empty);
  const sum = new Float32Array(1);
  const blurred = (x: number, up: readonly Float32Array[], down: readonly Float32Array[]): number => {
    sum[0] = ((down[0] as Float32Array)[x] as number) * (kernel[0] as number);
    for (let k = 1; k <= reach; k++) {
      const beside = ((up[k] as Float32Array)[x] as number) + ((down[k] as Float32Array)[x] as number);
      sum[0] = (sum[0] as number) + (kernel[k] as number) * beside;
    }
    return sum[0] as number;
  };
  // For each column how many rows down to the last that bears on this one are alike; above the picture all is empty.
  const runs = new Int32Array(width).fill(2 * reach);
  const count = (row: Float32Array, before: Float32Array): void => {
    for (let x = 0; x < width; x++) runs[x] = row[x] === before[x] ? (runs[x] as number) + 1 : 1;
  };
  for (let k = 0; k < reach; k++) count(rowAt(k), k === 0 ? empty : rowAt(k - 1));
  let [alike, comesTo] = [Number.NaN, Number.NaN];
  for (let y = 0; y < height; y++) {
    const row = rowAt(y);
    count(rowAt(y + reach), y + reach === 0 ? empty : rowAt(y + reach - 1));
    (ofAbove[y % rows] as Float32Array).set(row);
    const up = Array.from({ length: rows }, (_, k) => (y - k >= 0 ? (ofAbove[(y - k) % rows] as Float32Array) : empty));
    const down = Array.from({ length: rows }, (_, k) => rowAt(y + k));
    for (let x = 0; x < width; x++) {
      const value = row[x] as number;
      if ((runs[x] as number) <= 2 * reach) row[x] = blurred(x, up, down);
      else {
        if (value !== alike) [alike, comesTo] = [value, blurred(x, up, down)];
        row[x] = comesTo;
      }
    }
  }
}

/** Paper grain: random heights on a grid of `pitch` pixels, interpolated between. */
export function addGrain(level: Float32Array, width: number, height: number, swing: number, pitch: number, random: () => number): void {
  const columns = Math.ceil(width / pitch) + 2;
  const grid = Float32Array.from({ length: columns * (Math.ceil(height / pitch) + 2) }, () => (random() - 0.5) * swing);
  const column = Int32Array.from({ length: width }, (_, x) => Math.floor(x / pitch));
  const share = Float64Array.from({ length: width }, (_, x) => x / pitch - Math.floor(x / pitch));
  for (let y = 0; y < height; y++) {
    const gy = y / pitch;
    const row = Math.floor(gy) * columns;
    const fy = gy - Math.floor(gy);
    for (let x = 0; x < width; x++) {
      const k = row + (column[x] as number);
      const fx = share[x] as number;
      const top = (grid[k] as number) * (1 - fx) + (grid[k + 1] as number) * fx;
      const bottom = (grid[k + columns] as number) * (1 - fx) + (grid[k + columns + 1] as number) * fx;
      level[y * width + x] = (level[y * width + x] as number) + top * (1 - fy) + bottom * fy;
    }
  }
}
