/**
 * In: a stretch of a contour. Out: the parabola that it follows, to read a place, a direction or a crossing from.
 * Rests on: least squares for v = c0 + c1 u + c2 u^2 in the frame of the stretch's own line.
 */

import { solveSymmetric } from '../numeric/linear-solve.ts';
import { crossing, norm, type Point } from '../plane/point.ts';
import type { SampledContour } from './sampled-contour.ts';

export interface LocalCurve {
  /** The place on the parabola beside the asked-for index, and the direction of travel there. */
  readonly at: Point;
  readonly direction: Point;
  readonly pointAt: (u: number) => Point;
  readonly directionAt: (u: number) => Point;
  readonly u: number;
}

/** The parabola through points `first` to `last`, read at `index`; with `straight` its bend is held at zero. */
export function localCurve(sampled: SampledContour, index: number, first: number, last: number, straight = false): LocalCurve {
  const line = sampled.line(first, last);
  const [dx, dy] = [line.dx, line.dy];
  const along = (k: number) => dx * (sampled.x(k) - line.x) + dy * (sampled.y(k) - line.y);
  let coefficients = [0, 0, 0];
  if (!straight && last - first >= 4) {
    const sums = new Float64Array(5);
    const right = [0, 0, 0];
    for (let k = first; k <= last; k++) {
      const u = along(k);
      const v = sampled.offset(k, line);
      let power = 1;
      for (let p = 0; p < 5; p++) {
        sums[p] = (sums[p] as number) + power;
        if (p < 3) right[p] = (right[p] as number) + v * power;
        power *= u;
      }
    }
    const matrix = [0, 1, 2].map((row) => [0, 1, 2].map((column) => sums[row + column] as number));
    coefficients = solveSymmetric(matrix, right) ?? coefficients;
  }
  const [c0, c1, c2] = coefficients as [number, number, number];
  const pointAt = (u: number): Point => {
    const v = c0 + (c1 + c2 * u) * u;
    return { x: line.x + dx * u - dy * v, y: line.y + dy * u + dx * v };
  };
  const directionAt = (u: number): Point => {
    const slope = c1 + 2 * c2 * u;
    const size = norm(1, slope);
    return { x: (dx - dy * slope) / size, y: (dy + dx * slope) / size };
  };
  const u = along(index);
  return { at: pointAt(u), direction: directionAt(u), pointAt, directionAt, u };
}

/** Where two local curves meet near their asked-for places: Newton from the crossing of tangents; null if they do not. */
export function meeting(a: LocalCurve, b: LocalCurve): Point | null {
  let [u, w] = [a.u, b.u];
  for (let round = 0; round < 12; round++) {
    const [pa, da, pb, db] = [a.pointAt(u), a.directionAt(u), b.pointAt(w), b.directionAt(w)];
    const p = crossing(pa, da, pb, db);
    if (!p) return null;
    const [stepU, stepW] = [(p.x - pa.x) * da.x + (p.y - pa.y) * da.y, (p.x - pb.x) * db.x + (p.y - pb.y) * db.y];
    u += stepU;
    w += stepW;
    if (Math.abs(stepU) + Math.abs(stepW) < 1e-6) return a.pointAt(u);
    if (!(Math.abs(u - a.u) + Math.abs(w - b.u) < 200)) return null;
  }
  return null;
}
