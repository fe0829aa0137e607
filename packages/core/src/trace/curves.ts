/**
 * In: a stretch of a course with fixed ends and, where it goes on smoothly, fixed directions there.
 * Out: cubic curves along it within the limits, joined with one tangent.
 * Rests on: Schneider 1990, "An algorithm for automatically fitting digitized curves" (least squares for the handles,
 * Newton steps for the places of the points), with handles left free at corners and neighbours joined again where
 * one curve serves for two.
 */
import type { Point } from '../plane/point.ts';
import type { CubicSegment } from '../plane/segment.ts';
import type { Course } from './course.ts';
import type { Grain } from './grain.ts';
import { solveSymmetric } from './linear.ts';
import { localCurve } from './local-curve.ts';

/** An end of a curve: where it lies, which way the course runs there (null at a corner), and its course index. */
export interface CurveEnd {
  readonly at: Point;
  readonly direction: Point | null;
  readonly index: number;
  /** Points this near to the end, in steps, are spoilt by a corner and not counted. */
  readonly spoilt: number;
}

interface Fitted {
  readonly start: CurveEnd;
  readonly end: CurveEnd;
  readonly cubic: CubicSegment;
}

/** More points than this tell a single cubic nothing new. */
const mostPoints = 72;

/** Cubics from `start` to `end`, whose index is larger. */
export function fitCurves(course: Course, grain: Grain, start: CurveEnd, end: CurveEnd): CubicSegment[] {
  return joined(course, grain, divided(course, grain, start, end)).map(({ cubic }) => cubic);
}

function divided(course: Course, grain: Grain, start: CurveEnd, end: CurveEnd): Fitted[] {
  const whole = fitOne(course, grain, start, end);
  const steps = end.index - start.index;
  const reach = Math.round(6 + 40 * Math.max(0, grain.roughness - 0.02));
  if (whole.fits || steps < 8) return [{ start, end, cubic: whole.cubic }];
  const edge = Math.max(3, Math.floor(steps / 5));
  const at = Math.min(end.index - edge, Math.max(start.index + edge, whole.worstIndex));
  const room = Math.min(reach, at - start.index - start.spoilt, end.index - end.spoilt - at);
  const local = localCurve(course, at, at - Math.max(2, room), at + Math.max(2, room));
  const middle: CurveEnd = { at: local.at, direction: local.direction, index: at, spoilt: 0 };
  return [...divided(course, grain, start, middle), ...divided(course, grain, middle, end)];
}

/** Neighbours replaced by one curve wherever that fits, in order of travel. */
function joined(course: Course, grain: Grain, curves: Fitted[]): Fitted[] {
  const result = [...curves];
  for (let k = 0; k + 1 < result.length; ) {
    const [a, b] = [result[k] as Fitted, result[k + 1] as Fitted];
    const one = fitOne(course, grain, a.start, b.end);
    if (one.fits) result.splice(k, 2, { start: a.start, end: b.end, cubic: one.cubic });
    else k++;
  }
  return result;
}

interface Attempt {
  cubic: CubicSegment;
  fits: boolean;
  worstIndex: number;
}

function fitOne(course: Course, grain: Grain, start: CurveEnd, end: CurveEnd): Attempt {
  const first = start.index + Math.max(1, start.spoilt);
  const last = end.index - Math.max(1, end.spoilt);
  const stride = Math.max(1, Math.ceil((last - first + 1) / mostPoints));
  const count = Math.max(0, Math.floor((last - first) / stride) + 1);
  if (count < 3) return { cubic: bridge(start, end), fits: true, worstIndex: (start.index + end.index) >> 1 };
  const [xs, ys, ts] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)];
  for (let k = 0; k < count; k++) {
    xs[k] = course.x(first + k * stride);
    ys[k] = course.y(first + k * stride);
  }
  placeByChord(start.at, end.at, xs, ys, ts);
  let cubic = bridge(start, end);
  let best: Attempt | null = null;
  let bestRms = Infinity;
  for (let round = 0; round < 8; round++) {
    cubic = leastSquares(start, end, xs, ys, ts);
    const { rms, worst, worstAt } = placeByNewton(start.at, cubic, xs, ys, ts);
    const fits = worst <= grain.worst && rms <= grain.rms;
    if (rms < bestRms) {
      const gained = bestRms - rms;
      bestRms = rms;
      best = { cubic, fits, worstIndex: first + worstAt * stride };
      // Once it fits, or is hopeless, further rounds only polish.
      if (fits && gained < 0.1 * rms) break;
      if (round >= 3 && !fits && rms > 3 * grain.rms) break;
    } else if (round >= 3) break;
  }
  return best as Attempt;
}

/** The plain curve between two ends: handles a third of the way. */
function bridge(start: CurveEnd, end: CurveEnd): CubicSegment {
  const third = Math.hypot(end.at.x - start.at.x, end.at.y - start.at.y) / 3;
  const toward = (from: Point, to: Point): Point => ({ x: from.x + (to.x - from.x) / 3, y: from.y + (to.y - from.y) / 3 });
  const [d1, d2] = [start.direction, end.direction];
  return {
    kind: 'cubic',
    c1: d1 ? { x: start.at.x + d1.x * third, y: start.at.y + d1.y * third } : toward(start.at, end.at),
    c2: d2 ? { x: end.at.x - d2.x * third, y: end.at.y - d2.y * third } : toward(end.at, start.at),
    to: end.at,
  };
}

function placeByChord(from: Point, to: Point, xs: Float64Array, ys: Float64Array, ts: Float64Array): void {
  let gone = 0;
  let [x, y] = [from.x, from.y];
  for (let k = 0; k < xs.length; k++) {
    gone += Math.hypot((xs[k] as number) - x, (ys[k] as number) - y);
    ts[k] = gone;
    [x, y] = [xs[k] as number, ys[k] as number];
  }
  const total = gone + Math.hypot(to.x - x, to.y - y);
  for (let k = 0; k < ts.length; k++) ts[k] = (ts[k] as number) / total;
}

/**
 * The handles that bring the curve nearest to the points at their places. Unknowns: along a fixed direction the
 * handle's length, at a corner both its coordinates.
 */
function leastSquares(start: CurveEnd, end: CurveEnd, xs: Float64Array, ys: Float64Array, ts: Float64Array): CubicSegment {
  const [d1, d2] = [start.direction, end.direction];
  // Columns: how each unknown moves the point in x and in y, as multiples of the first or second handle's weight.
  const columns = [
    ...(d1
      ? [{ handle: 0, x: d1.x, y: d1.y }]
      : [
          { handle: 0, x: 1, y: 0 },
          { handle: 0, x: 0, y: 1 },
        ]),
    ...(d2
      ? [{ handle: 1, x: -d2.x, y: -d2.y }]
      : [
          { handle: 1, x: 1, y: 0 },
          { handle: 1, x: 0, y: 1 },
        ]),
  ];
  // Three sums over the points are enough for every product of columns.
  let [s11, s12, s22, r1x, r1y, r2x, r2y] = [0, 0, 0, 0, 0, 0, 0];
  const [p0, p3] = [start.at, end.at];
  for (let k = 0; k < ts.length; k++) {
    const t = ts[k] as number;
    const u = 1 - t;
    const [b1, b2] = [3 * u * u * t, 3 * u * t * t];
    const [near, far] = [u * u * u + b1, b2 + t * t * t];
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
  const weight = (a: number, b: number) => (a !== b ? s12 : a === 0 ? s11 : s22);
  const matrix = columns.map((p) => columns.map((q) => weight(p.handle, q.handle) * (p.x * q.x + p.y * q.y)));
  const right = columns.map((p) => (p.handle === 0 ? p.x * r1x + p.y * r1y : p.x * r2x + p.y * r2y));
  const solved = solveSymmetric(matrix, right);
  if (!solved) return bridge(start, end);
  const chord = Math.hypot(p3.x - p0.x, p3.y - p0.y);
  const first = d1 ? 1 : 2;
  const tooShort = (length: number | undefined) => length !== undefined && length < 0.02 * chord;
  if ((d1 && tooShort(solved[0])) || (d2 && tooShort(solved[first]))) return bridge(start, end);
  const handle = (which: number, origin: Point): Point =>
    columns.reduce(
      (p, c, k) => (c.handle === which ? { x: p.x + c.x * (solved[k] as number), y: p.y + c.y * (solved[k] as number) } : p),
      origin,
    );
  return { kind: 'cubic', c1: handle(0, p0), c2: handle(1, p3), to: p3 };
}

/** One Newton step for every point's place, and how far the points then lie from the curve. */
function placeByNewton(
  p0: Point,
  s: CubicSegment,
  xs: Float64Array,
  ys: Float64Array,
  ts: Float64Array,
): { rms: number; worst: number; worstAt: number } {
  const { c1, c2, to: p3 } = s;
  // The curve as polynomials, for speed.
  const [ax, ay] = [p3.x - 3 * c2.x + 3 * c1.x - p0.x, p3.y - 3 * c2.y + 3 * c1.y - p0.y];
  const [bx, by] = [3 * (c2.x - 2 * c1.x + p0.x), 3 * (c2.y - 2 * c1.y + p0.y)];
  const [cx, cy] = [3 * (c1.x - p0.x), 3 * (c1.y - p0.y)];
  let [sum, worst, worstAt] = [0, 0, 0];
  for (let k = 0; k < ts.length; k++) {
    let t = ts[k] as number;
    let ex = ((ax * t + bx) * t + cx) * t + p0.x - (xs[k] as number);
    let ey = ((ay * t + by) * t + cy) * t + p0.y - (ys[k] as number);
    const [vx, vy] = [(3 * ax * t + 2 * bx) * t + cx, (3 * ay * t + 2 * by) * t + cy];
    const bend = vx * vx + vy * vy + ex * (6 * ax * t + 2 * bx) + ey * (6 * ay * t + 2 * by);
    if (bend > 0) {
      t = Math.min(1, Math.max(0, t - (ex * vx + ey * vy) / bend));
      ts[k] = t;
      ex = ((ax * t + bx) * t + cx) * t + p0.x - (xs[k] as number);
      ey = ((ay * t + by) * t + cy) * t + p0.y - (ys[k] as number);
    }
    const squared = ex * ex + ey * ey;
    sum += squared;
    if (squared > worst) [worst, worstAt] = [squared, k];
  }
  return { rms: Math.sqrt(sum / ts.length), worst: Math.sqrt(worst), worstAt };
}
