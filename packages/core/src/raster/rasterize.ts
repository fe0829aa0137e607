/**
 * In: areas, in pixels. Out: a grey picture of them, dark on white, each pixel as dark as the share of it that is covered.
 * Rests on: signed areas gathered along each row and summed up from left to right, as font rasterisers do (R. Levien 2016,
 * font-rs; from memory); chords leave arcs and curves by at most a 250th of a pixel.
 */
import { type Path, polygonOf } from '../plane/path.ts';

const chordPx = 0.004;

/**
 * @param paths closed, in pixels, x right, y down; holes run the other way round than what is about them
 * @returns 255 for paper, 0 for what is covered
 */
export function rasterize(paths: readonly Path[], width: number, height: number): Uint8Array {
  const sums = new Float32Array(width * height + 2);
  for (const path of paths) {
    const points = polygonOf(path, chordPx);
    points.forEach((p, k) => {
      const q = points[(k + 1) % points.length] as { x: number; y: number };
      addEdge(sums, width, height, p.x, p.y, q.x, q.y);
    });
  }
  const grey = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    let sum = 0;
    for (let x = 0; x < width; x++) {
      sum += sums[y * width + x] as number;
      grey[y * width + x] = Math.round(255 * (1 - Math.min(1, Math.abs(sum))));
    }
  }
  return grey;
}

function addEdge(sums: Float32Array, width: number, height: number, ax: number, ay: number, bx: number, by: number): void {
  if (ay === by) return;
  const [sign, x0, y0, x1, y1] = ay < by ? [1, ax, ay, bx, by] : [-1, bx, by, ax, ay];
  const slope = (x1 - x0) / (y1 - y0);
  const top = Math.max(0, Math.floor(y0));
  const end = Math.min(height, Math.ceil(y1));
  for (let row = top; row < end; row++) {
    const [from, to] = [Math.max(y0, row), Math.min(y1, row + 1)];
    const tall = to - from;
    if (tall <= 0) continue;
    addSpan(sums, row * width, width, x0 + (from - y0) * slope, x0 + (to - y0) * slope, sign * tall);
  }
}

/** An edge's part within one row: `area` is its height, signed; it is spread over the pixels that it passes. */
function addSpan(sums: Float32Array, start: number, width: number, u: number, v: number, area: number): void {
  const [left, right] = u < v ? [u, v] : [v, u];
  const clamp = (x: number): number => Math.min(width, Math.max(0, x));
  const first = Math.floor(clamp(left));
  if (right - left < 1e-9 || Math.ceil(clamp(right)) <= first + 1) {
    const middle = (clamp(left) + clamp(right)) / 2 - first;
    put(sums, start, width, first, area * (1 - middle));
    put(sums, start, width, first + 1, area * middle);
    return;
  }
  // Coverage to the right of the edge, pixel by pixel, from the exact integral of it.
  const share = (x: number): number => {
    const t = Math.min(1, Math.max(0, (x - left) / (right - left)));
    return x <= left ? 0 : x >= right ? x - (left + right) / 2 : (t * t * (right - left)) / 2;
  };
  let before = 0;
  for (let x = first; x <= Math.ceil(clamp(right)); x++) {
    const covered = share(x + 1) - share(x);
    put(sums, start, width, x, area * (covered - before));
    before = covered;
  }
}

function put(sums: Float32Array, start: number, width: number, x: number, value: number): void {
  if (x < width) sums[start + x] = (sums[start + x] as number) + value;
}
