/**
 * In: a closed contour in pixels. Out: few straight chords that keep within a tolerance of it: a first look, before curves are
 * fitted.
 * Rests on: Douglas & Peucker 1973, from the contour's two places farthest apart.
 */
import { type Path, polygonPath } from '../plane/path.ts';
import { norm } from '../plane/point.ts';

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
  const kept = [0];
  // A stack of stretches still to be looked at, the nearest on top.
  const stretches: [number, number][] = [[far, n], [0, far]]; // biome-ignore format: one line
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
  kept.pop();
  while (kept.length < 3) kept.push(Math.min(n - 1, (kept.at(-1) as number) + 1));
  return polygonPath(kept.map((k) => ({ x: x(k), y: y(k) })));
}
