/**
 * In: points on a circle's rim. Out: its centre and radius.
 * Rests on: Kasa 1976 (algebraic least squares), points centred first.
 */
import type { Point } from '../plane/point.ts';

/** Refuses nothing: points in one line give a very large circle. */
export function centreOfRim(points: readonly Point[]): { x: number; y: number; radius: number } {
  const n = points.length;
  const [mx, my] = [points.reduce((s, p) => s + p.x, 0) / n, points.reduce((s, p) => s + p.y, 0) / n];
  let [uu, uv, vv, uq, vq, q] = [0, 0, 0, 0, 0, 0];
  for (const p of points) {
    const [u, v] = [p.x - mx, p.y - my];
    const r = u * u + v * v;
    uu += u * u;
    uv += u * v;
    vv += v * v;
    uq += u * r;
    vq += v * r;
    q += r;
  }
  const det = uu * vv - uv * uv || 1e-12 * (uu + vv) ** 2 || 1;
  const [x, y] = [(uq * vv - vq * uv) / (2 * det), (vq * uu - uq * uv) / (2 * det)];
  return { x: mx + x, y: my + y, radius: Math.sqrt(q / n + x * x + y * y) };
}
