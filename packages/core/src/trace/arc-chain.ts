/**
 * In: a stretch of a course that follows arcs and lines one after another, and what it joins at its ends. Out: those, each
 * tangent to the next, nearest to the course as a whole.
 * Rests on: Levenberg 1944, Marquardt 1963, over the first place and direction and every arc's bend and length, so that
 * tangency holds by construction; what the far end must meet is weighted until it is met.
 */
import { norm, type Point, subtract } from '../plane/point.ts';
import type { ArcSegment, LineSegment } from '../plane/segment.ts';
import type { Course } from './course.ts';
import type { CurveEnd } from './curves.ts';
import { solveSymmetric } from './linear.ts';

/** `along`: may move along its direction; `across`: may move across it and turn; `none`: a corner, or held. */
export interface ChainEnd extends CurveEnd {
  readonly freedom: 'along' | 'across' | 'none';
}

export interface ArcChain {
  readonly start: Point;
  readonly segments: (ArcSegment | LineSegment)[];
  /** Of the course's distances from it, px. */
  readonly rms: number;
}

interface ArcShape {
  /** Radians a pixel; positive turns as `sweep` does. */
  readonly bend: number;
  readonly length: number;
}

const mostPoints = 160;
/** What a pixel off the end's place weighs against one off the course. */
const endWeight = 300;
/** And a radian off its direction. */
const turnWeight = 3000;
/** By so much both weigh less while the chain is first settled. */
const looseness = 0.01;

/** A chain that leaves so many times what it may, settled loosely, is given up. */
const hopeless = 2;

/** Only points so near to the straight edge beside a chain lie on it, px: of a hairpin both ends point the same way. */
const besideEdge = 4;

/**
 * @param mostRms what a chain may leave at most, px, to be of use
 * @returns null where it leaves much more
 */
export function settleChain(
  course: Course,
  start: ChainEnd,
  end: ChainEnd,
  inner: readonly CurveEnd[],
  isStraight: readonly boolean[],
  mostRms: number,
): ArcChain | null {
  const stops = [start, ...inner, end];
  const shapes = stops.slice(1).map((next, k) => shapeBetween(course, stops[k] as CurveEnd, next, isStraight[k] === true));
  const chord = subtract((stops[1] as CurveEnd).at, start.at);
  const [first] = shapes as [ArcShape];
  const heading = Math.atan2(chord.y, chord.x) - (first.bend * first.length) / 2;
  // Unknowns: how far the start moves, its heading, then each arc's bend (times 100, to weigh as the rest) and length.
  const isKept = start.direction !== null && start.freedom !== 'across';
  const angle = isKept && start.direction ? Math.atan2(start.direction.y, start.direction.x) : heading;
  const values = [0, angle, ...shapes.flatMap(({ bend, length }) => [100 * bend, length])];
  const free = values.map((_, k) => (k === 0 ? start.freedom !== 'none' : k === 1 ? !isKept : k % 2 === 1 || !isStraight[(k - 2) / 2]));
  const points = pointsOf(course, stops);
  const settled = (tightness: number): number => {
    const squares = settle(values, free, points.xs.length + 3, (v, into) => residualsOf(v, start, end, points, tightness, into));
    return Math.sqrt(squares / Math.max(1, points.xs.length));
  };
  // What the end must meet is loose at first: a stiff end leaves only a narrow, bent valley to the best chain. What is far
  // off even so is farther off once the end is met.
  if (settled(looseness) > hopeless * mostRms) return null;
  const rms = settled(1);
  return { ...read(values, start, end), rms };
}

/** A first guess of the arc between two places, from how far the course bows in the middle. */
function shapeBetween(course: Course, a: CurveEnd, b: CurveEnd, isStraight: boolean): ArcShape {
  const chord = subtract(b.at, a.at);
  const size = norm(chord.x, chord.y);
  const middle = (a.index + b.index) >> 1;
  const bow = (chord.x * (course.y(middle) - a.at.y) - chord.y * (course.x(middle) - a.at.x)) / size;
  const sweep = isStraight ? 0 : -4 * Math.atan2(2 * bow, size);
  const length = Math.abs(sweep) < 1e-6 ? size : (size * (sweep / 2)) / Math.sin(sweep / 2);
  return { bend: sweep / length, length };
}

/** Points of the course, each with the arc that it belongs to. */
interface ChainPoints {
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  readonly arcs: Int32Array;
}

function pointsOf(course: Course, stops: readonly CurveEnd[]): ChainPoints {
  const total = (stops.at(-1) as CurveEnd).index - (stops[0] as CurveEnd).index;
  const stride = Math.max(1, Math.ceil(total / mostPoints));
  const [xs, ys, arcs]: [number[], number[], number[]] = [[], [], []];
  for (const [arc, stop] of stops.slice(1).entries()) {
    const before = stops[arc] as CurveEnd;
    // Next to a joint a point may belong to either side.
    const margin = Math.min(3, Math.floor((stop.index - before.index) / 6));
    const [from, to] = [before.index + Math.max(margin, before.spoilt), stop.index - Math.max(margin, stop.spoilt)];
    for (let k = from; k <= to; k += stride) {
      xs.push(course.x(k));
      ys.push(course.y(k));
      arcs.push(arc);
    }
  }
  return { xs: Float64Array.from(xs), ys: Float64Array.from(ys), arcs: Int32Array.from(arcs) };
}

interface Pose {
  x: number;
  y: number;
  angle: number;
}

function startOf(values: readonly number[], start: ChainEnd): Pose {
  const [moved, angle] = values as [number, number];
  const d = start.direction;
  if (!d || start.freedom === 'none') return { ...start.at, angle };
  const way = start.freedom === 'along' ? d : { x: -d.y, y: d.x };
  return { x: start.at.x + moved * way.x, y: start.at.y + moved * way.y, angle };
}

/** Where an arc that starts at a pose ends. */
function after({ x, y, angle }: Pose, bend: number, length: number): Pose {
  const next = angle + bend * length;
  if (Math.abs(bend) < 1e-9) return { x: x + length * Math.cos(angle), y: y + length * Math.sin(angle), angle: next };
  return { x: x + (Math.sin(next) - Math.sin(angle)) / bend, y: y - (Math.cos(next) - Math.cos(angle)) / bend, angle: next };
}

/** Puts the residuals of points and end into a list that has room for three more than points; unused places are 0. */
function residualsOf(
  values: readonly number[],
  start: ChainEnd,
  end: ChainEnd,
  { xs, ys, arcs }: ChainPoints,
  tightness: number,
  into: Float64Array,
): void {
  let pose = startOf(values, start);
  const lastArc = values.length / 2 - 2;
  for (let arc = 0, k = 0; arc <= lastArc; arc++) {
    const [bend, length] = [(values[2 + 2 * arc] as number) / 100, values[3 + 2 * arc] as number];
    const next = after(pose, bend, length);
    const [c, s, cEnd, sEnd] = [Math.cos(pose.angle), Math.sin(pose.angle), Math.cos(next.angle), Math.sin(next.angle)];
    const slidesFrom = arc === 0 && start.freedom === 'along';
    const slidesTo = arc === lastArc && end.freedom === 'along';
    for (; arcs[k] === arc; k++) {
      const [dx, dy] = [(xs[k] as number) - pose.x, (ys[k] as number) - pose.y];
      const side = c * dy - s * dx;
      // What lies on a straight edge beside the chain counts by its distance from that.
      if (slidesFrom && c * dx + s * dy < 0 && Math.abs(side) < besideEdge) {
        into[k] = side;
        continue;
      }
      if (slidesTo) {
        const [ex, ey] = [(xs[k] as number) - next.x, (ys[k] as number) - next.y];
        const beside = cEnd * ey - sEnd * ex;
        if (cEnd * ex + sEnd * ey > 0 && Math.abs(beside) < besideEdge) {
          into[k] = beside;
          continue;
        }
      }
      // From the circle (1 - |1 - bend n|) / bend, with n from the centre; so written it is exact for small bends too.
      const u = bend * (dx * dx + dy * dy) - 2 * side;
      into[k] = u / (1 + Math.sqrt(Math.max(0, 1 + bend * u)));
    }
    pose = next;
  }
  const [dx, dy] = [pose.x - end.at.x, pose.y - end.at.y];
  const [onPlace, onTurn] = [tightness * endWeight, tightness * turnWeight];
  const d = end.direction;
  const [one, two, three] = d ? offEnd(pose, end.freedom, d, dx, dy) : [dx, dy, 0];
  into.set([onPlace * one, onPlace * two, onTurn * three], xs.length);
}

/** How far a pose is off an end that has a direction: two distances, and an angle. */
function offEnd({ angle }: Pose, freedom: ChainEnd['freedom'], d: Point, dx: number, dy: number): [number, number, number] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const turned = () => Math.atan2(d.x * s - d.y * c, d.x * c + d.y * s);
  if (freedom === 'along') return [d.x * dy - d.y * dx, 0, turned()];
  if (freedom === 'across') return [d.x * dx + d.y * dy, 0, 0];
  return [dx, dy, turned()];
}

/** Moves the free values to where the squares of the residuals are least, and gives their sum. */
function settle(
  values: number[],
  free: readonly boolean[],
  count: number,
  residuals: (values: readonly number[], into: Float64Array) => void,
): number {
  const indices = values.map((_, k) => k).filter((k) => free[k]);
  let [now, tried] = [new Float64Array(count), new Float64Array(count)];
  const slopes = indices.map(() => new Float64Array(count));
  residuals(values, now);
  let squares = dotted(now, now);
  let damping = 1e-4;
  for (let round = 0; round < 14; round++) {
    for (const [i, k] of indices.entries()) {
      const step = 1e-5;
      const [held, slope] = [values[k] as number, slopes[i] as Float64Array];
      values[k] = held + step;
      residuals(values, slope);
      values[k] = held;
      for (let j = 0; j < count; j++) slope[j] = ((slope[j] as number) - (now[j] as number)) / step;
    }
    const products = slopes.map((a) => slopes.map((b) => dotted(a, b)));
    const downhill = slopes.map((a) => -dotted(a, now));
    let won = 0;
    for (let attempt = 0; attempt < 6; attempt++) {
      const damped = products.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) : v)));
      const move = solveSymmetric(damped, [...downhill]);
      damping *= 10;
      if (!move) continue;
      const next = [...values];
      indices.forEach((k, i) => {
        next[k] = (next[k] as number) + (move[i] as number);
      });
      residuals(next, tried);
      const nextSquares = dotted(tried, tried);
      if (!(nextSquares < squares)) continue;
      won = squares - nextSquares;
      [now, tried, squares] = [tried, now, nextSquares];
      values.splice(0, values.length, ...next);
      damping = Math.max(1e-9, damping / 100);
      break;
    }
    if (won <= 1e-7 * squares + 1e-12) break;
  }
  return squares;
}

function dotted(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += (a[k] as number) * (b[k] as number);
  return sum;
}

function read(values: readonly number[], start: ChainEnd, end: ChainEnd): Omit<ArcChain, 'rms'> {
  let pose = startOf(values, start);
  const begin = { x: pose.x, y: pose.y };
  const segments: (ArcSegment | LineSegment)[] = [];
  for (let k = 2; k < values.length; k += 2) {
    const [bend, length] = [(values[k] as number) / 100, values[k + 1] as number];
    pose = after(pose, bend, length);
    const to = { x: pose.x, y: pose.y };
    segments.push(bend === 0 ? { kind: 'line', to } : { kind: 'arc', to, sweep: bend * length });
  }
  const last = segments.at(-1) as ArcSegment | LineSegment;
  // What is left of the weighted end is far below what can be seen: it is met exactly.
  const d = end.direction;
  const off = subtract(last.to, end.at);
  const along = d ? d.x * off.x + d.y * off.y : 0;
  const to =
    d && end.freedom === 'along'
      ? { x: end.at.x + along * d.x, y: end.at.y + along * d.y }
      : d && end.freedom === 'across'
        ? { x: last.to.x - along * d.x, y: last.to.y - along * d.y }
        : end.at;
  segments[segments.length - 1] = { ...last, to };
  return { start: begin, segments };
}
