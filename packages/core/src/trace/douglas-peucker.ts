/**
 * In: a closed contour in pixels. Out: few straight chords that keep within a tolerance of it: a first look, before curves are
 * fitted.
 * Rests on: Douglas & Peucker 1973, from the contour's two places farthest apart.
 */
import { type Path, polygonPath } from '../plane/path.ts';
import { norm, type Point } from '../plane/point.ts';

/**
 * @param contour x and y in turn, at least three points
 * @param tolerance largest distance of a point of the contour from the chords, px
 */
export function chordsAlong(contour: Float64Array, tolerance: number): Path {
  const n = contour.length / 2;
  const x = (k: number): number => contour[k < n ? 2 * k : 0] as number;
  const y = (k: number): number => contour[k < n ? 2 * k + 1 : 1] as number;
  let [far, max] = [0, -1];
  for (let k = 1; k < n; k++) {
    const d = (x(k) - x(0)) ** 2 + (y(k) - y(0)) ** 2;
    if (d > max) [far, max] = [k, d];
  }
  const kept = placesKept(contour, tolerance, [[far, n], [0, far]]); // biome-ignore format: one line
  kept.pop();
  while (kept.length < 3) kept.push(Math.min(n - 1, (kept.at(-1) as number) + 1));
  return polygonPath(kept.map((k) => ({ x: x(k), y: y(k) })));
}

/** The ends of few chords along an open contour, its own end the last of them. */
export const openChords = (contour: Float64Array, tolerance: number): Point[] =>
  placesKept(contour, tolerance, [[0, contour.length / 2 - 1]])
    .slice(1)
    .map((k) => ({ x: contour[2 * k] as number, y: contour[2 * k + 1] as number }));

/** Where chords begin and end, from the first point on. @param stretches still to be looked at, the first of them last */
function placesKept(contour: Float64Array, tolerance: number, stretches: [number, number][]): number[] {
  const n = contour.length / 2;
  const x = (k: number): number => contour[k < n ? 2 * k : 0] as number;
  const y = (k: number): number => contour[k < n ? 2 * k + 1 : 1] as number;
  const kept = [0];
  while (stretches.length > 0) {
    const [a, b] = stretches.pop() as [number, number];
    const [dx, dy] = [x(b) - x(a), y(b) - y(a)];
    const size = norm(dx, dy);
    const [ax, ay] = [x(a), y(a)];
    let [at, off] = [-1, tolerance];
    for (let k = a + 1; k < b; k++) {
      const [px, py] = [(contour[2 * k] as number) - ax, (contour[2 * k + 1] as number) - ay];
      const d = size > 0 ? Math.abs(dx * py - dy * px) / size : norm(px, py);
      if (d > off) {
        at = k;
        off = d;
      }
    }
    if (at < 0) kept.push(b);
    else stretches.push([at, b], [a, at]);
  }
  return kept;
}
