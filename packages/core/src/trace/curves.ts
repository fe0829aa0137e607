/**
 * In: a stretch of a contour with fixed ends and, where it goes on smoothly, fixed directions there.
 * Out: the cubic curve nearest to it.
 * Rests on: Schneider 1990, "An algorithm for automatically fitting digitized curves" (least squares for the handles,
 * Newton steps for the places of the points) for a first curve, with handles left free at corners; then Wang, Pottmann &
 * Liu 2006, "Fitting B-spline curves to point clouds by curvature-based squared distance minimization": the distances
 * across the curve alone are brought down, as Gauss-Newton steps are, so that few rounds are enough.
 */

import { solveSymmetric } from '../numeric/linear-solve.ts';
import { norm, type Point } from '../plane/point.ts';
import type { CubicSegment } from '../plane/segment.ts';
import type { EdgeModel } from './edge-model.ts';
import { parameters } from './parameters.ts';
import type { SampledContour } from './sampled-contour.ts';

/** An end of a curve: where it lies, which way the contour runs there (null at a corner), and its contour index. */
export interface CurveEnd {
  readonly at: Point;
  readonly direction: Point | null;
  readonly index: number;
  /** Points this near to the end, in steps, are blurred by a corner and not counted. */
  readonly blurMargin: number;
}

/** How carefully a curve is fitted: more points than so many tell a single cubic nothing new. */
export interface Care {
  readonly points: number;
  readonly rounds: number;
}
const careful: Care = { points: 64, rounds: 8 };

export interface Attempt {
  readonly cubic: CubicSegment;
  /** Whether it keeps within the limits. */
  readonly fits: boolean;
  /** Of the points' distances from it, px. */
  readonly rms: number;
}

/** Places of the points that are being fitted, and where along the curve they lie: handed on from fit to fit. */
const [xs, ys, ts] = [new Float64Array(careful.points), new Float64Array(careful.points), new Float64Array(careful.points)];

/** One cubic from `start` to `end`, whose index is larger. */
export function fitCubic(sampled: SampledContour, edgeModel: EdgeModel, start: CurveEnd, end: CurveEnd, care = careful): Attempt {
  const first = start.index + Math.max(1, start.blurMargin);
  const last = end.index - Math.max(1, end.blurMargin);
  const stride = Math.max(1, Math.ceil((last - first + 1) / care.points));
  const count = Math.max(0, Math.floor((last - first) / stride) + 1);
  if (count < 3) return { cubic: bridge(start, end), fits: true, rms: 0 };
  for (let k = 0; k < count; k++) {
    const index = sampled.wrap(first + k * stride);
    xs[k] = sampled.xs[index] as number;
    ys[k] = sampled.ys[index] as number;
  }
  const reach = longestOfRun * placeByChord(start.at, end.at, count);
  let best: Attempt | null = null;
  let bestRms = Infinity;
  for (let round = 0; round < care.rounds; round++) {
    const nearest: CubicSegment =
      best && count >= enoughAcross ? acrossSquares(start, end, best.cubic, count) : leastSquares(start, end, count);
    const cubic = withinReach(nearest, start.at, reach);
    // Far from the curve one step does not bring a point to its place.
    if (bestRms > 3 * edgeModel.rms) placeByNewton(start.at, cubic, count);
    const { rms, worst } = placeByNewton(start.at, cubic, count);
    const fits = worst <= edgeModel.worst && rms <= edgeModel.rms;
    if (rms < bestRms) {
      const gained = bestRms - rms;
      bestRms = rms;
      best = { cubic, fits, rms };
      // Once it fits, further rounds only polish.
      if (fits && gained < 0.1 * rms) break;
    } else if (round > maxWorse) break;
    // Once the points have found their places what is many limits off comes to nothing.
    const { limits, share } = hopeless[round] ?? lastHope;
    if (bestRms > Math.max(limits * edgeModel.rms, share * (last - first))) break;
  }
  return best as Attempt;
}

/** So many limits off, or such a share of its length, round by round, a curve is given up. */
const hopeless = [
  { limits: 40, share: 0.03 },
  { limits: 40, share: 0.03 },
  { limits: 25, share: 0.015 },
  { limits: 10, share: 0.004 },
];
const lastHope = { limits: 3, share: 0 };
const maxWorse = parameters.maxCurveWorse;

const toward = (from: Point, to: Point): Point => ({ x: from.x + (to.x - from.x) / 3, y: from.y + (to.y - from.y) / 3 });

/** The plain curve between two ends: handles a third of the way. */
function bridge(start: CurveEnd, end: CurveEnd): CubicSegment {
  const third = norm(end.at.x - start.at.x, end.at.y - start.at.y) / 3;
  const [d1, d2] = [start.direction, end.direction];
  return {
    kind: 'cubic',
    c1: d1 ? { x: start.at.x + d1.x * third, y: start.at.y + d1.y * third } : toward(start.at, end.at),
    c2: d2 ? { x: end.at.x - d2.x * third, y: end.at.y - d2.y * third } : toward(end.at, start.at),
    to: end.at,
  };
}

const longestOfRun = parameters.longestHandleOfRun;

function withinReach(cubic: CubicSegment, from: Point, reach: number): CubicSegment {
  const shortened = (handle: Point, at: Point): Point => {
    const length = norm(handle.x - at.x, handle.y - at.y);
    const share = reach / length;
    return length > reach ? { x: at.x + (handle.x - at.x) * share, y: at.y + (handle.y - at.y) * share } : handle;
  };
  const [c1, c2] = [shortened(cubic.c1, from), shortened(cubic.c2, cubic.to)];
  return c1 === cubic.c1 && c2 === cubic.c2 ? cubic : { ...cubic, c1, c2 };
}

/** @returns the length of the way from point to point, ends included, px */
function placeByChord(from: Point, to: Point, count: number): number {
  let gone = 0;
  let [x, y] = [from.x, from.y];
  for (let k = 0; k < count; k++) {
    gone += norm((xs[k] as number) - x, (ys[k] as number) - y);
    ts[k] = gone;
    [x, y] = [xs[k] as number, ys[k] as number];
  }
  const total = gone + norm(to.x - x, to.y - y);
  for (let k = 0; k < count; k++) ts[k] = (ts[k] as number) / total;
  return total;
}

/**
 * The handles that bring the curve nearest to the points at their places. Unknowns: along a fixed direction the
 * handle's length, at a corner both its coordinates.
 */
function leastSquares(start: CurveEnd, end: CurveEnd, count: number): CubicSegment {
  // Three sums over the points and four with what the ends leave over are enough for every product of unknowns.
  let [s11, s12, s22, r1x, r1y, r2x, r2y] = [0, 0, 0, 0, 0, 0, 0];
  const [p0, p3] = [start.at, end.at];
  for (let k = 0; k < count; k++) {
    const t = ts[k] as number;
    const u = 1 - t;
    const b1 = 3 * u * u * t;
    const b2 = 3 * u * t * t;
    const near = u * u * u + b1;
    const far = b2 + t * t * t;
    const ex = (xs[k] as number) - near * p0.x - far * p3.x;
    const ey = (ys[k] as number) - near * p0.y - far * p3.y;
    s11 += b1 * b1;
    s12 += b1 * b2;
    s22 += b2 * b2;
    r1x += b1 * ex;
    r1y += b1 * ey;
    r2x += b2 * ex;
    r2y += b2 * ey;
  }
  const sums = { s11, s12, s22, r1x, r1y, r2x, r2y };
  return start.direction && end.direction
    ? betweenDirections(start, end, start.direction, end.direction, sums)
    : withFreeHandles(start, end, sums);
}

interface Sums {
  readonly s11: number;
  readonly s12: number;
  readonly s22: number;
  readonly r1x: number;
  readonly r1y: number;
  readonly r2x: number;
  readonly r2y: number;
}

/** Handles shorter than this share of the chord are not meant. */
const shortestHandle = 0.02;

function betweenDirections(start: CurveEnd, end: CurveEnd, d1: Point, d2: Point, sums: Sums): CubicSegment {
  const cosine = -(d1.x * d2.x + d1.y * d2.y);
  const mixed = sums.s12 * cosine;
  const det = sums.s11 * sums.s22 - mixed * mixed;
  if (!(Math.abs(det) > 1e-12 * sums.s11 * sums.s22)) return bridge(start, end);
  const first = d1.x * sums.r1x + d1.y * sums.r1y;
  const second = -(d2.x * sums.r2x + d2.y * sums.r2y);
  const m = (first * sums.s22 - second * mixed) / det;
  const n = (second * sums.s11 - first * mixed) / det;
  const min = shortestHandle * norm(end.at.x - start.at.x, end.at.y - start.at.y);
  if (m < min || n < min) return bridge(start, end);
  return {
    kind: 'cubic',
    c1: { x: start.at.x + m * d1.x, y: start.at.y + m * d1.y },
    c2: { x: end.at.x - n * d2.x, y: end.at.y - n * d2.y },
    to: end.at,
  };
}

/** At least one end is a corner: its handle has two unknowns. */
function withFreeHandles(start: CurveEnd, end: CurveEnd, { s11, s12, s22, r1x, r1y, r2x, r2y }: Sums): CubicSegment {
  const [d1, d2] = [start.direction, end.direction];
  const columns = handleColumns(d1, d2);
  const weight = (a: number, b: number) => (a !== b ? s12 : a === 0 ? s11 : s22);
  const matrix = columns.map((p) => columns.map((q) => weight(p.handle, q.handle) * (p.x * q.x + p.y * q.y)));
  const solved = solveSymmetric(
    matrix,
    columns.map((p) => (p.handle === 0 ? p.x * r1x + p.y * r1y : p.x * r2x + p.y * r2y)),
  );
  if (!solved) return bridge(start, end);
  const min = shortestHandle * norm(end.at.x - start.at.x, end.at.y - start.at.y);
  if ((d1 && (solved[0] as number) < min) || (d2 && (solved[d1 ? 1 : 2] as number) < min)) return bridge(start, end);
  const handle = (which: number, origin: Point): Point =>
    columns.reduce(
      (p, c, k) => (c.handle === which ? { x: p.x + c.x * (solved[k] as number), y: p.y + c.y * (solved[k] as number) } : p),
      origin,
    );
  const [c1, c2] = [handle(0, start.at), handle(1, end.at)];
  return {
    kind: 'cubic',
    c1: d1 ? c1 : forward(c1, start.at, end.at),
    c2: d2 ? c2 : forward(c2, end.at, start.at),
    to: end.at,
  };
}

const enoughAcross = parameters.enoughAcross;
const longestHandle = parameters.longestHandle;

const alongWeight = parameters.alongWeight;

/** The cubic's handles moved so that, to first order, the points lie nearest across it. */
function acrossSquares(start: CurveEnd, end: CurveEnd, cubic: CubicSegment, count: number): CubicSegment {
  const { c1, c2, to: p3 } = cubic;
  const p0 = start.at;
  const [d1, d2] = [start.direction, end.direction];
  const move = d1 && d2 ? moveAlong(p0, cubic, d1, d2, count) : moveFreely(p0, cubic, handleColumns(d1, d2), count);
  if (!move) return cubic;
  const chord = norm(p3.x - p0.x, p3.y - p0.y);
  const moved = (from: Point, by: Point, at: Point, direction: Point | null): Point => {
    const to = { x: from.x + by.x, y: from.y + by.y };
    if (!direction) return forward(to, at, at === p0 ? p3 : p0);
    const length = (to.x - at.x) * direction.x + (to.y - at.y) * direction.y;
    const kept = Math.max(shortestHandle * chord, Math.min(longestHandle * chord, length));
    return kept === length ? to : { x: at.x + kept * direction.x, y: at.y + kept * direction.y };
  };
  return { kind: 'cubic', c1: moved(c1, move[0], p0, d1), c2: moved(c2, move[1], p3, d2 && { x: -d2.x, y: -d2.y }), to: p3 };
}

/** Both handles stay on their directions: two unknowns. */
function moveAlong(p0: Point, { c1, c2, to: p3 }: CubicSegment, d1: Point, d2: Point, count: number): [Point, Point] | null {
  let [s11, s12, s22, r1, r2] = [0, 0, 0, 0, 0];
  const cosine = -(d1.x * d2.x + d1.y * d2.y);
  const keep = 1 - alongWeight;
  for (let k = 0; k < count; k++) {
    const t = ts[k] as number;
    const u = 1 - t;
    const [uu, ut, tt] = [u * u, u * t, t * t];
    const [b0, b1, b2, b3] = [u * uu, 3 * u * ut, 3 * t * ut, t * tt];
    const ex = b0 * p0.x + b1 * c1.x + b2 * c2.x + b3 * p3.x - (xs[k] as number);
    const ey = b0 * p0.y + b1 * c1.y + b2 * c2.y + b3 * p3.y - (ys[k] as number);
    const vx = uu * (c1.x - p0.x) + 2 * ut * (c2.x - c1.x) + tt * (p3.x - c2.x);
    const vy = uu * (c1.y - p0.y) + 2 * ut * (c2.y - c1.y) + tt * (p3.y - c2.y);
    const size = Math.sqrt(vx * vx + vy * vy) || 1;
    const off = (vx * ey - vy * ex) / size;
    const first = (b1 * (vx * d1.y - vy * d1.x)) / size;
    const second = (-b2 * (vx * d2.y - vy * d2.x)) / size;
    s11 += keep * first * first + alongWeight * b1 * b1;
    s12 += keep * first * second + alongWeight * b1 * b2 * cosine;
    s22 += keep * second * second + alongWeight * b2 * b2;
    r1 -= keep * first * off + alongWeight * b1 * (d1.x * ex + d1.y * ey);
    r2 -= keep * second * off - alongWeight * b2 * (d2.x * ex + d2.y * ey);
  }
  const det = s11 * s22 - s12 * s12;
  if (!(det > 1e-14 * s11 * s22)) return null;
  const [m, n] = [(r1 * s22 - r2 * s12) / det, (r2 * s11 - r1 * s12) / det];
  return [
    { x: m * d1.x, y: m * d1.y },
    { x: -n * d2.x, y: -n * d2.y },
  ];
}

/** At least one handle is free: three unknowns or four. */
function moveFreely(p0: Point, { c1, c2, to: p3 }: CubicSegment, columns: readonly Column[], count: number): [Point, Point] | null {
  const n = columns.length;
  const [sums, right] = [new Float64Array(n * n), new Float64Array(n)];
  const across = new Float64Array(n);
  for (let k = 0; k < count; k++) {
    const t = ts[k] as number;
    const u = 1 - t;
    const [b0, b1, b2, b3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    const ex = b0 * p0.x + b1 * c1.x + b2 * c2.x + b3 * p3.x - (xs[k] as number);
    const ey = b0 * p0.y + b1 * c1.y + b2 * c2.y + b3 * p3.y - (ys[k] as number);
    const vx = u * u * (c1.x - p0.x) + 2 * u * t * (c2.x - c1.x) + t * t * (p3.x - c2.x);
    const vy = u * u * (c1.y - p0.y) + 2 * u * t * (c2.y - c1.y) + t * t * (p3.y - c2.y);
    const size = Math.sqrt(vx * vx + vy * vy) || 1;
    const [nx, ny] = [-vy / size, vx / size];
    const off = nx * ex + ny * ey;
    for (let i = 0; i < n; i++) {
      const p = columns[i] as Column;
      const b = p.handle === 0 ? b1 : b2;
      across[i] = b * (nx * p.x + ny * p.y);
      right[i] = (right[i] as number) - (1 - alongWeight) * (across[i] as number) * off - alongWeight * b * (p.x * ex + p.y * ey);
      for (let j = 0; j <= i; j++) {
        const q = columns[j] as Column;
        const both = b * (q.handle === 0 ? b1 : b2) * (p.x * q.x + p.y * q.y);
        const slot = i * n + j;
        sums[slot] = (sums[slot] as number) + (1 - alongWeight) * (across[i] as number) * (across[j] as number) + alongWeight * both;
      }
    }
  }
  const matrix = columns.map((_, i) => columns.map((__, j) => sums[Math.max(i, j) * n + Math.min(i, j)] as number));
  const solved = solveSymmetric(matrix, [...right]);
  if (!solved) return null;
  const by = (which: 0 | 1): Point =>
    columns.reduce((p, c, k) => (c.handle === which ? { x: p.x + c.x * (solved[k] as number), y: p.y + c.y * (solved[k] as number) } : p), {
      x: 0,
      y: 0,
    });
  return [by(0), by(1)];
}

const shortChord = parameters.shortChord;

/** A free handle as it is, or a third of the way where it would lead a short curve backwards. */
function forward(handle: Point, at: Point, other: Point): Point {
  const [dx, dy] = [other.x - at.x, other.y - at.y];
  const isBackward = (handle.x - at.x) * dx + (handle.y - at.y) * dy < 0;
  return isBackward && dx * dx + dy * dy < shortChord * shortChord ? toward(at, other) : handle;
}

/** How an unknown moves a handle, the first (0) or the second (1). */
interface Column {
  readonly handle: 0 | 1;
  readonly x: number;
  readonly y: number;
}

/** Along a fixed direction a handle has one unknown, at a corner two. */
function handleColumns(d1: Point | null, d2: Point | null): Column[] {
  const free = (handle: 0 | 1): Column[] => [{ handle, x: 1, y: 0 }, { handle, x: 0, y: 1 }]; // biome-ignore format: one line
  return [...(d1 ? [{ handle: 0, ...d1 } as const] : free(0)), ...(d2 ? [{ handle: 1, x: -d2.x, y: -d2.y } as const] : free(1))];
}

const longestStep = parameters.longestCurveStep;

/** One Newton step for every point's place, and how far the points then lie from the curve. */
function placeByNewton(p0: Point, s: CubicSegment, count: number): { rms: number; worst: number } {
  const { c1, c2, to: p3 } = s;
  // The curve as polynomials, for speed.
  const [ax, ay] = [p3.x - 3 * c2.x + 3 * c1.x - p0.x, p3.y - 3 * c2.y + 3 * c1.y - p0.y];
  const [bx, by] = [3 * (c2.x - 2 * c1.x + p0.x), 3 * (c2.y - 2 * c1.y + p0.y)];
  const [cx, cy] = [3 * (c1.x - p0.x), 3 * (c1.y - p0.y)];
  let [sum, worst] = [0, 0];
  for (let k = 0; k < count; k++) {
    let t = ts[k] as number;
    let ex = ((ax * t + bx) * t + cx) * t + p0.x - (xs[k] as number);
    let ey = ((ay * t + by) * t + cy) * t + p0.y - (ys[k] as number);
    const [vx, vy] = [(3 * ax * t + 2 * bx) * t + cx, (3 * ay * t + 2 * by) * t + cy];
    const bend = vx * vx + vy * vy + ex * (6 * ax * t + 2 * bx) + ey * (6 * ay * t + 2 * by);
    if (bend > 0) {
      const step = (ex * vx + ey * vy) / bend;
      t = Math.min(1, Math.max(0, t - Math.max(-longestStep, Math.min(longestStep, step))));
      ts[k] = t;
      ex = ((ax * t + bx) * t + cx) * t + p0.x - (xs[k] as number);
      ey = ((ay * t + by) * t + cy) * t + p0.y - (ys[k] as number);
    }
    const squared = ex * ex + ey * ey;
    sum += squared;
    if (squared > worst) worst = squared;
  }
  return { rms: Math.sqrt(sum / count), worst: Math.sqrt(worst) };
}
