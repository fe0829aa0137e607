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

/** A Gaussian of deviation `sigma` pixels over rows, then columns, in place; the border counts as empty. */
export function blur(cells: Float32Array, width: number, height: number, sigma: number): void {
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
export function addGrain(level: Float32Array, width: number, height: number, swing: number, pitch: number, random: () => number): void {
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
