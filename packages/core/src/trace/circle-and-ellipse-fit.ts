/**
 * In: a contour. Out: the circle or the ellipse that it is, or null.
 * Rests on: geometric least squares by Gauss-Newton (Gander, Golub & Strebel 1994), started from the contour's moments;
 * an ellipse is told only where a circle leaves more over than roughness explains.
 */

import { solveSymmetric } from '../numeric/linear-solve.ts';
import { circlePath, ellipsePath, type Path, reversedPath } from '../plane/path.ts';
import { norm } from '../plane/point.ts';
import type { EdgeModel } from './edge-model.ts';
import type { SampledContour } from './sampled-contour.ts';

/** More points tell a figure of five unknowns hardly more. */
const maxPoints = 360;
/** What is farther than this from the ellipse of its moments, px and as a share of its size, is none. */
const farthest = { px: 3, share: 0.2 };

export function wholeFigure(sampled: SampledContour, edgeModel: EdgeModel): Path | null {
  const points = pointsOf(sampled);
  const limit = Math.max(0.07, 1.35 * edgeModel.noise);
  const max = Math.min(edgeModel.worst, Math.max(0.4, 6 * edgeModel.noise));
  const { x: midX, y: midY, a: long, b: short, angle: turn } = momentsOf(points);
  const mean = (long + short) / 2;
  if (!isNearly(points, [midX, midY, long, short, turn])) return null;
  const circle = settled(points, [midX, midY, mean, mean, 0], 3, offCircle, limit);
  const oval = settled(points, [midX, midY, long, short, turn], 5, offOval, limit);
  // A circle leaves the same over as the ellipse that has two unknowns more; the smallest flattening seen is a tenth of a pixel.
  const isRound =
    circle !== null &&
    circle.rms <= limit &&
    (!oval || circle.rms <= 1.1 * oval.rms + 0.012 || Math.abs(oval.figure.a - oval.figure.b) < 0.12);
  if (isRound && circle.worst <= max) return orientedAs(sampled, circlePath({ x: circle.figure.x, y: circle.figure.y }, circle.figure.a));
  if (!oval || oval.rms > limit || oval.worst > max || Math.min(oval.figure.a, oval.figure.b) < 2) return null;
  const { x, y, a, b, angle } = oval.figure;
  return orientedAs(sampled, ellipsePath({ x, y }, a, b, angle));
}

interface Oval {
  readonly x: number;
  readonly y: number;
  readonly a: number;
  readonly b: number;
  readonly angle: number;
}

function pointsOf(sampled: SampledContour): { xs: Float64Array; ys: Float64Array } {
  const stride = Math.max(1, Math.ceil(sampled.count / maxPoints));
  const count = Math.floor(sampled.count / stride);
  const [xs, ys] = [new Float64Array(count), new Float64Array(count)];
  for (let k = 0; k < count; k++) {
    xs[k] = sampled.xs[k * stride] as number;
    ys[k] = sampled.ys[k * stride] as number;
  }
  return { xs, ys };
}

/** The ellipse with the points' second moments: those of an even ring are a^2/2 and b^2/2 about the axes, nearly. */
function momentsOf({ xs, ys }: { xs: Float64Array; ys: Float64Array }): Oval {
  const n = xs.length;
  let [x, y] = [0, 0];
  for (let k = 0; k < n; k++) {
    x += (xs[k] as number) / n;
    y += (ys[k] as number) / n;
  }
  let [xx, xy, yy] = [0, 0, 0];
  for (let k = 0; k < n; k++) {
    const [u, v] = [(xs[k] as number) - x, (ys[k] as number) - y];
    xx += (u * u) / n;
    xy += (u * v) / n;
    yy += (v * v) / n;
  }
  const [half, root] = [(xx + yy) / 2, norm((xx - yy) / 2, xy)];
  return { x, y, a: Math.sqrt(2 * (half + root)), b: Math.sqrt(2 * Math.max(1e-9, half - root)), angle: Math.atan2(2 * xy, xx - yy) / 2 };
}

interface Settled {
  readonly figure: Oval;
  readonly rms: number;
  readonly worst: number;
}

type Points = ReturnType<typeof pointsOf>;
export type Values = readonly [x: number, y: number, a: number, b: number, angle: number];
/** Writes how the distance of a point changes with every value, and gives the distance. */
export type DistanceFrom = (values: Values, x: number, y: number, slopes: Float64Array) => number;

export const offCircle: DistanceFrom = ([cx, cy, r], x, y, slopes) => {
  const [dx, dy] = [x - cx, y - cy];
  const radius = Math.sqrt(dx * dx + dy * dy) || 1e-12;
  slopes[0] = -dx / radius;
  slopes[1] = -dy / radius;
  slopes[2] = -1;
  return radius - r;
};

/** To first order (Sampson 1982), which a roughness of a pixel does not tell from the true distance. */
export const offOval: DistanceFrom = ([cx, cy, a, b, angle], x, y, slopes) => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const [dx, dy] = [x - cx, y - cy];
  const [p, q] = [c * dx + s * dy, c * dy - s * dx];
  const [pa, qb] = [p / (a * a), q / (b * b)];
  const steep = Math.sqrt(pa * pa + qb * qb) || 1e-12;
  slopes[0] = (s * qb - c * pa) / steep;
  slopes[1] = -(s * pa + c * qb) / steep;
  slopes[2] = (-p * pa) / a / steep;
  slopes[3] = (-q * qb) / b / steep;
  slopes[4] = (q * pa - p * qb) / steep;
  return (p * pa + q * qb - 1) / 2 / steep;
};

/** A figure that leaves so many limits over on one point in six is none. */
const farOff = 3;
const coarsely = 6;

/** Settled on one point in six first, which spares what is no such figure the rest; null where the points give none. */
function settled(points: Points, from: Values, size: 3 | 5, measure: DistanceFrom, limit: number): Settled | null {
  const few = settledOn(points, coarsely, from, size, measure);
  if (!few || few.rms > farOff * limit) return null;
  const { x, y, a, b, angle } = few.figure;
  return settledOn(points, 1, [x, y, a, b, angle], size, measure);
}

/** Gauss-Newton from `from` over the first `size` values, on one point in `stride`. */
function settledOn({ xs, ys }: Points, stride: number, from: Values, size: 3 | 5, measure: DistanceFrom): Settled | null {
  let values = from;
  let best: Settled | null = null;
  const slopes = new Float64Array(size);
  const matrix = new Float64Array(size * size);
  const right = new Float64Array(size);
  for (let round = 0; round < 10; round++) {
    matrix.fill(0);
    right.fill(0);
    let [squares, worst, count] = [0, 0, 0];
    for (let k = 0; k < xs.length; k += stride) {
      const off = measure(values, xs[k] as number, ys[k] as number, slopes);
      squares += off * off;
      worst = Math.max(worst, Math.abs(off));
      count++;
      for (let i = 0; i < size; i++) {
        const slope = slopes[i] as number;
        right[i] = (right[i] as number) - slope * off;
        for (let j = i; j < size; j++) matrix[i * size + j] = (matrix[i * size + j] as number) + slope * (slopes[j] as number);
      }
    }
    const rms = Math.sqrt(squares / count);
    if (!Number.isFinite(rms) || (best && rms >= best.rms)) return best;
    const isSettled = best !== null && rms > best.rms * (1 - 1e-5);
    const [x, y, a, b, angle] = values;
    best = { figure: { x, y, a, b: size === 3 ? a : b, angle }, rms, worst };
    const rows = Array.from({ length: size }, (_, i) =>
      Array.from({ length: size }, (_, j) => matrix[Math.min(i, j) * size + Math.max(i, j)] as number),
    );
    const move = isSettled ? null : solveSymmetric(rows, [...right]);
    if (!move) return best;
    values = values.map((v, k) => v + (move[k] ?? 0)) as unknown as Values;
    if (!(values[2] > 0.5 && values[3] > 0.5)) return best;
  }
  return best;
}

/** Whether every tenth point lies near an ellipse, which spares most figures the fit. */
function isNearly({ xs, ys }: Points, oval: Values): boolean {
  const slopes = new Float64Array(5);
  const limit = farthest.px + farthest.share * oval[2];
  for (let k = 0; k < xs.length; k += 10) if (Math.abs(offOval(oval, xs[k] as number, ys[k] as number, slopes)) > limit) return false;
  return true;
}

/** The path in the contour's own way of travel. */
function orientedAs(sampled: SampledContour, path: Path): Path {
  let area = 0;
  for (let k = 0; k < sampled.count; k++) area += sampled.x(k) * sampled.y(k + 1) - sampled.x(k + 1) * sampled.y(k);
  return area > 0 ? path : reversedPath(path);
}
