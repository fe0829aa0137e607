/**
 * In: closed paths in pixels. Out: how much of each pixel they cover, 0 to 1, exact for their chords.
 * Rests on: signed-area accumulation along rows; chords within 0.004 pixel of the path.
 * Outer outlines and holes must run opposite ways, and pieces must not overlap.
 */
import { type Path, polygonOf } from '@nuvet/core/plane';

const chordTolerancePx = 0.004;

export function coverageOf(paths: readonly Path[], width: number, height: number): Float32Array {
  // A cell more on each row takes what lies to the right of the picture.
  const stride = width + 2;
  const cells = new Float32Array(stride * height);
  for (const path of paths) {
    const polygon = polygonOf(path, chordTolerancePx);
    let a = polygon.at(-1) as { x: number; y: number };
    for (const b of polygon) {
      addEdge(cells, stride, height, a.x, a.y, b.x, b.y);
      a = b;
    }
  }
  const coverage = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    let sum = 0;
    for (let x = 0; x < width; x++) {
      sum += cells[y * stride + x] as number;
      coverage[y * width + x] = Math.min(1, Math.abs(sum));
    }
  }
  return coverage;
}

/** Adds, for each row that an edge passes, the area to its right. */
function addEdge(cells: Float32Array, stride: number, height: number, x0: number, y0: number, x1: number, y1: number): void {
  if (y0 === y1) return;
  const sign = y0 < y1 ? 1 : -1;
  const [topX, topY, endX, endY] = y0 < y1 ? [x0, y0, x1, y1] : [x1, y1, x0, y0];
  const slope = (endX - topX) / (endY - topY);
  const first = Math.max(0, Math.floor(topY));
  const last = Math.min(height, Math.ceil(endY));
  for (let y = first; y < last; y++) {
    const [from, to] = [Math.max(y, topY), Math.min(y + 1, endY)];
    if (to <= from) continue;
    addSpan(cells, y * stride, stride - 2, topX + slope * (from - topY), topX + slope * (to - topY), sign * (to - from));
  }
}

/** Spreads the part of an edge within one row over the pixels that it passes. */
function addSpan(cells: Float32Array, row: number, width: number, xa: number, xb: number, rise: number): void {
  const left = Math.min(width, Math.max(0, Math.min(xa, xb)));
  const right = Math.min(width, Math.max(0, Math.max(xa, xb)));
  const [first, last] = [Math.floor(left), Math.floor(right)];
  if (first === last) {
    const share = 1 - ((left + right) / 2 - first);
    cells[row + first] = (cells[row + first] as number) + rise * share;
    cells[row + first + 1] = (cells[row + first + 1] as number) + rise * (1 - share);
    return;
  }
  const perPixel = rise / (right - left);
  for (let x = first; x <= last; x++) {
    const [a, b] = [Math.max(x, left), Math.min(x + 1, right)];
    const part = perPixel * (b - a);
    const share = 1 - ((a + b) / 2 - x);
    cells[row + x] = (cells[row + x] as number) + part * share;
    cells[row + x + 1] = (cells[row + x + 1] as number) + part * (1 - share);
  }
}
