/**
 * In: a stretch of a contour that follows arcs and lines one after another, and what it joins at its ends. Out: those, each
 * tangent to the next, nearest to the contour as a whole.
 * Rests on: Levenberg-Marquardt over the first place and direction and every arc's bend and length, so that
 * tangency holds by construction; what the far end must meet is weighted until it is met.
 */

import { type Limits, levenbergMarquardt } from '../numeric/levenberg-marquardt.ts';
import { norm, type Point, subtract } from '../plane/point.ts';
import type { ArcSegment, LineSegment } from '../plane/segment.ts';
import type { CurveEnd } from './curves.ts';
import { parameters } from './parameters.ts';
import type { SampledContour } from './sampled-contour.ts';

/** `along`: may move along its direction; `across`: may move across it and turn; `none`: a corner, or held. */
export interface ChainEnd extends CurveEnd {
  readonly freedom: 'along' | 'across' | 'none';
}

export interface ArcChain {
  readonly start: Point;
  readonly segments: (ArcSegment | LineSegment)[];
  /** Of the contour's distances from it, px. */
  readonly rms: number;
}

interface ArcShape {
  /** Radians a pixel; positive turns as `sweep` does. */
  readonly bend: number;
  readonly length: number;
}

const maxPoints = parameters.chainPoints;
const endWeight = parameters.chainEndWeight;
const turnWeight = parameters.chainTurnWeight;
const looseness = parameters.chainLooseness;

const hopeless = parameters.chainHopeless;
const holdWeight = parameters.chainHoldWeight;

const besideEdge = parameters.chainBesideEdge;

/**
 * @param maxRms what a chain may leave at most, px, to be of use
 * @returns null where it leaves much more
 */
export function settleChain(
  sampled: SampledContour,
  start: ChainEnd,
  end: ChainEnd,
  inner: readonly CurveEnd[],
  isStraight: readonly boolean[],
  maxRms: number,
): ArcChain | null {
  const stops = [start, ...inner, end];
  const shapes = stops.slice(1).map((next, k) => shapeBetween(sampled, stops[k] as CurveEnd, next, isStraight[k] === true));
  const chord = subtract((stops[1] as CurveEnd).at, start.at);
  const [first] = shapes as [ArcShape];
  const heading = Math.atan2(chord.y, chord.x) - (first.bend * first.length) / 2;
  // Unknowns: how far the start moves, its heading, then each arc's bend (times 100, to weigh as the rest) and length.
  const isKept = start.direction !== null && start.freedom !== 'across';
  const angle = isKept && start.direction ? Math.atan2(start.direction.y, start.direction.x) : heading;
  const values = [0, angle, ...shapes.flatMap(({ bend, length }) => [100 * bend, length])];
  const free = values.map((_, k) => (k === 0 ? start.freedom !== 'none' : k === 1 ? !isKept : k % 2 === 1 || !isStraight[(k - 2) / 2]));
  const points = pointsOf(sampled, stops);
  const count = points.xs.length + 3;
  const guess = [...values];
  const lengths = [0, ...shapes.map((_, k) => 3 + 2 * k)];
  const settled = (tightness: number): number => {
    const squares = settle(values, free, count + lengths.length, (v, into) => {
      residualsOf(v, start, end, points, tightness, into);
      // Where nothing else says how long a part is, as of a line between edges that it is in line with, it stays as it was.
      for (const [n, k] of lengths.entries()) into[count + n] = holdWeight * ((v[k] as number) - (guess[k] as number));
    });
    return Math.sqrt(squares / Math.max(1, points.xs.length));
  };
  // What the end must meet is loose at first: a stiff end leaves only a narrow, bent valley to the best chain. What is far
  // off even so is farther off once the end is met.
  if (settled(looseness) > hopeless * maxRms) return null;
  const rms = settled(1);
  return { ...read(values, start, end), rms };
}

/** A first guess of the arc between two places, from how far the contour bows in the middle. */
function shapeBetween(sampled: SampledContour, a: CurveEnd, b: CurveEnd, isStraight: boolean): ArcShape {
  const chord = subtract(b.at, a.at);
  const size = norm(chord.x, chord.y);
  const middle = (a.index + b.index) >> 1;
  const bow = (chord.x * (sampled.y(middle) - a.at.y) - chord.y * (sampled.x(middle) - a.at.x)) / size;
  const sweep = isStraight ? 0 : -4 * Math.atan2(2 * bow, size);
  const length = Math.abs(sweep) < 1e-6 ? size : (size * (sweep / 2)) / Math.sin(sweep / 2);
  return { bend: sweep / length, length };
}

/** Points of the contour, each with the arc that it belongs to. */
interface ChainPoints {
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  readonly arcs: Int32Array;
}

function pointsOf(sampled: SampledContour, stops: readonly CurveEnd[]): ChainPoints {
  const total = (stops.at(-1) as CurveEnd).index - (stops[0] as CurveEnd).index;
  const stride = Math.max(1, Math.ceil(total / maxPoints));
  const [xs, ys, arcs]: [number[], number[], number[]] = [[], [], []];
  for (const [arc, stop] of stops.slice(1).entries()) {
    const before = stops[arc] as CurveEnd;
    // Next to a joint a point may belong to either side.
    const margin = Math.min(3, Math.floor((stop.index - before.index) / 6));
    const [from, to] = [before.index + Math.max(margin, before.blurMargin), stop.index - Math.max(margin, stop.blurMargin)];
    for (let k = from; k <= to; k += stride) {
      xs.push(sampled.x(k));
      ys.push(sampled.y(k));
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
  const direction = start.freedom === 'along' ? d : { x: -d.y, y: d.x };
  return { x: start.at.x + moved * direction.x, y: start.at.y + moved * direction.y, angle };
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

const limits: Limits = { maxSteps: 14, maxAttempts: 6, settledShare: 1e-7, settled: 1e-12, nearlyShare: 0, minDamping: 1e-9 };
/** Derivatives are taken over this change of a value. */
const difference = 1e-5;

/** Moves the free values to where the squares of the residuals are least, and gives their sum. */
function settle(
  values: number[],
  free: readonly boolean[],
  count: number,
  residuals: (values: readonly number[], into: Float64Array) => void,
): number {
  const indices = values.map((_, k) => k).filter((k) => free[k]);
  const slopes = indices.map(() => new Float64Array(count));
  const at = (place: number[]): { values: number[]; off: Float64Array; squares: number } => {
    const off = new Float64Array(count);
    residuals(place, off);
    return { values: place, off, squares: dotted(off, off) };
  };
  const found = levenbergMarquardt(
    at(values),
    {
      normalEquations: ({ values: place, off }) => {
        const n = indices.length;
        for (const [i, k] of indices.entries()) {
          const slope = slopes[i] as Float64Array;
          const held = place[k] as number;
          place[k] = held + difference;
          residuals(place, slope);
          place[k] = held;
          for (let j = 0; j < count; j++) slope[j] = ((slope[j] as number) - (off[j] as number)) / difference;
        }
        const information = new Float64Array(n * n);
        const gradient = new Float64Array(n);
        for (let i = 0; i < n; i++) {
          gradient[i] = -dotted(slopes[i] as Float64Array, off);
          for (let j = 0; j <= i; j++)
            information[i * n + j] = information[j * n + i] = dotted(slopes[i] as Float64Array, slopes[j] as Float64Array);
        }
        return { information, gradient };
      },
      moved: ({ values: place }, step) => {
        const next = [...place];
        for (const [i, k] of indices.entries()) next[k] = (next[k] as number) + (step[i] as number);
        return at(next);
      },
    },
    limits,
  );
  values.splice(0, values.length, ...found.values);
  return found.squares;
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
