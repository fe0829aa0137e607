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
  const x = (k: number): number => contour[2 * (k % n)] as number;
  const y = (k: number): number => contour[2 * (k % n) + 1] as number;
  let [far, most] = [0, -1];
  for (let k = 1; k < n; k++) {
    const d = (x(k) - x(0)) ** 2 + (y(k) - y(0)) ** 2;
    if (d > most) [far, most] = [k, d];
  }
  const kept = [0];
  // A stack of stretches still to be looked at, the nearest on top.
  const stretches: [number, number][] = [[far, n], [0, far]]; // biome-ignore format: one line
  while (stretches.length > 0) {
    const [a, b] = stretches.pop() as [number, number];
    const [dx, dy] = [x(b) - x(a), y(b) - y(a)];
    const size = norm(dx, dy);
    let [at, off] = [-1, tolerance];
    for (let k = a + 1; k < b; k++) {
      const d = size > 0 ? Math.abs(dx * (y(k) - y(a)) - dy * (x(k) - x(a))) / size : norm(x(k) - x(a), y(k) - y(a));
      if (d > off) [at, off] = [k, d];
    }
    if (at < 0) kept.push(b);
    else stretches.push([at, b], [a, at]);
  }
  kept.pop();
  while (kept.length < 3) kept.push(Math.min(n - 1, (kept.at(-1) as number) + 1));
  return polygonPath(kept.map((k) => ({ x: x(k), y: y(k) })));
}
