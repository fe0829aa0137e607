/**
 * In: a drawn path and measures that it must keep: lengths, radii, angles, distances between its points. Out: the path with its
 * points moved as little as can be so that all of them hold; how far each is still off, where they contradict one another.
 * Rests on: Newton's method for fewer equations than unknowns, each step the shortest that meets the equations as they run just
 * there (Ben-Israel 1966, by the pseudoinverse); steps are halved while they lead away.
 */
import { Matrix, pseudoInverse } from 'ml-matrix';
import { circleOf } from '../plane/arc.ts';
import type { Path } from '../plane/path.ts';
import { distance, norm, type Point, turnBetween } from '../plane/point.ts';
import { directionOn, type Segment, segmentLength } from '../plane/segment.ts';
import { closedExactly } from './chains.ts';

/** `mm` null follows the stock's thickness; `play` is added to that. Points are counted from the start, 0; segments likewise. */
export type Dimension =
  | { readonly kind: 'length'; readonly segment: number; readonly mm: number | null; readonly play: number }
  | { readonly kind: 'radius'; readonly segment: number; readonly mm: number | null; readonly play: number }
  /** From the way into a point to the way out of it, radians, positive to the left. */
  | { readonly kind: 'turn'; readonly point: number; readonly turn: number }
  | { readonly kind: 'gap'; readonly a: number; readonly b: number; readonly mm: number | null; readonly play: number };

export interface SolvedDimensions {
  readonly path: Path;
  /** What each measure is still off, mm or radians; measures that the path has no place for are off by not a number. */
  readonly off: readonly number[];
}

const rounds = 60;
const closeEnough = 1e-10;

/**
 * A path that keeps its measures.
 * @param thicknessMm the stock's, for measures that follow it; those are let be while it is not known
 */
export function solveDimensions(path: Path, held: readonly Dimension[], thicknessMm: number | null): SolvedDimensions {
  const wanted = held.map((measure) => ({ measure, value: wantedOf(measure, thicknessMm) }));
  const used = wanted.filter(({ measure, value }) => value !== null && hasPlace(path, measure));
  const offOf = (p: Path): number[] =>
    wanted.map(({ measure, value }) => {
      if (!hasPlace(p, measure)) return Number.NaN;
      return value === null ? 0 : measured(p, measure) - value;
    });
  if (used.length === 0) return { path, off: offOf(path) };
  let form = formOf(path);
  const residuals = (f: Form): number[] => {
    const p = pathOf(path, f);
    return used.map(({ measure, value }) => weightOf(p, measure) * (measuredOr(p, measure) - (value as number)));
  };
  const size = (r: readonly number[]): number => Math.sqrt(r.reduce((sum, v) => sum + v * v, 0));
  let now = residuals(form);
  for (let round = 0; round < rounds && size(now) > closeEnough; round++) {
    const step = shortestStep(path, form, used.map(({ measure }) => measure), now); // biome-ignore format: one line
    let share = 1;
    let next = moved(form, step, share);
    let then = residuals(next);
    while (!(size(then) < size(now)) && share > 1e-4) {
      share /= 2;
      next = moved(form, step, share);
      then = residuals(next);
    }
    if (!(size(then) < size(now))) break;
    [form, now] = [next, then];
  }
  const made = pathOf(path, form);
  return { path: made, off: offOf(made) };
}

function wantedOf(measure: Dimension, thicknessMm: number | null): number | null {
  if (measure.kind === 'turn') return measure.turn;
  const mm = measure.mm ?? thicknessMm;
  return mm === null ? null : mm + measure.play;
}

/** A path's points and the sweeps of its arcs, as one row of figures. */
type Form = Float64Array;

const pointsIn = (path: Path): number => path.segments.length + (path.closed ? 0 : 1);

function formOf(path: Path): Form {
  const n = pointsIn(path);
  const form = new Float64Array(2 * n + path.segments.length);
  for (let k = 0; k < n; k++) {
    const p = k === 0 ? path.start : (path.segments[k - 1] as Segment).to;
    [form[2 * k], form[2 * k + 1]] = [p.x, p.y];
  }
  path.segments.forEach((s, k) => {
    form[2 * n + k] = s.kind === 'arc' ? s.sweep : 0;
  });
  return form;
}

const moved = (form: Form, step: Float64Array, share: number): Form => form.map((v, k) => v + share * (step[k] as number));

/** The path again; what was not moved stays the very same segment. */
function pathOf(path: Path, form: Form): Path {
  const n = pointsIn(path);
  const at = (k: number): Point => ({ x: form[2 * (k % n)] as number, y: form[2 * (k % n) + 1] as number });
  const was = (k: number): Point => (k % n === 0 ? path.start : (path.segments[(k % n) - 1] as Segment).to);
  const segments = path.segments.map((s, k): Segment => {
    const [from, to, a, b] = [was(k), was(k + 1), at(k), at(k + 1)];
    const isSame = from.x === a.x && from.y === a.y && to.x === b.x && to.y === b.y;
    if (s.kind === 'arc') return isSame && s.sweep === form[2 * n + k] ? s : { ...s, to: b, sweep: form[2 * n + k] as number };
    if (isSame) return s;
    if (s.kind === 'cubic') return { ...s, c1: { x: s.c1.x + a.x - from.x, y: s.c1.y + a.y - from.y }, c2: { x: s.c2.x + b.x - to.x, y: s.c2.y + b.y - to.y }, to: b }; // biome-ignore format: one line
    return { ...s, to: b };
  });
  const start = at(0);
  const made: Path = { start: start.x === path.start.x && start.y === path.start.y ? path.start : start, segments, closed: path.closed };
  return path.closed ? closedExactly(made) : made;
}

function stepAt(path: Path, k: number): { from: Point; segment: Segment } {
  return { from: k === 0 ? path.start : (path.segments[k - 1] as Segment).to, segment: path.segments[k] as Segment };
}

function hasPlace(path: Path, measure: Dimension): boolean {
  const n = pointsIn(path);
  const isPoint = (k: number): boolean => k >= 0 && k < n;
  // Parts of ellipses keep their course.
  const isFree = (k: number): boolean => path.segments[k] !== undefined && path.segments[k]?.kind !== 'ellipse';
  switch (measure.kind) {
    case 'length':
      return isFree(measure.segment);
    case 'radius':
      return path.segments[measure.segment]?.kind === 'arc';
    case 'turn':
      return isPoint(measure.point) && (path.closed || (measure.point > 0 && measure.point < n - 1));
    case 'gap':
      return isPoint(measure.a) && isPoint(measure.b) && measure.a !== measure.b;
  }
}

/** What a measure is on a path now, mm or radians; a radius of what is no arc is not a number. Points and segments must be there. */
export function measured(path: Path, measure: Dimension): number {
  const n = path.segments.length;
  if (measure.kind === 'gap') return distance(pointAt(path, measure.a), pointAt(path, measure.b));
  if (measure.kind === 'turn') {
    const [before, after] = [stepAt(path, (measure.point - 1 + n) % n), stepAt(path, measure.point % n)];
    return turnBetween(directionOn(before.from, before.segment, 1), directionOn(after.from, after.segment, 0));
  }
  const { from, segment } = stepAt(path, measure.segment);
  if (measure.kind === 'radius') return segment.kind === 'arc' ? circleOf(from, segment).radius : Number.NaN;
  return segmentLength(from, segment);
}

const pointAt = (path: Path, k: number): Point => (k === 0 ? path.start : (path.segments[k - 1] as Segment).to);

/** Far from a solution an arc may have no radius. */
const measuredOr = (path: Path, measure: Dimension): number => {
  const value = measured(path, measure);
  return Number.isFinite(value) ? value : 1e9;
};

/** Angles weigh what they move: the longer of both sides, mm. */
function weightOf(path: Path, measure: Dimension): number {
  if (measure.kind !== 'turn') return 1;
  const n = path.segments.length;
  const [before, after] = [stepAt(path, (measure.point - 1 + n) % n), stepAt(path, measure.point % n)];
  return Math.max(1e-3, distance(before.from, before.segment.to), distance(after.from, after.segment.to));
}

/** The places in the row that a measure depends on. */
function placesOf(path: Path, measure: Dimension): number[] {
  const [n, m] = [pointsIn(path), path.segments.length];
  const ofPoint = (k: number): number[] => [2 * (k % n), 2 * (k % n) + 1];
  const ofSegment = (k: number): number[] => [...ofPoint(k), ...ofPoint(k + 1), 2 * n + k];
  if (measure.kind === 'gap') return [...ofPoint(measure.a), ...ofPoint(measure.b)];
  if (measure.kind !== 'turn') return ofSegment(measure.segment);
  return [...new Set([...ofSegment((measure.point - 1 + m) % m), ...ofSegment(measure.point % m)])];
}

/** The least change of the row that meets the measures to the first order; sweeps count by the way that they move an arc. */
function shortestStep(path: Path, form: Form, used: readonly Dimension[], off: readonly number[]): Float64Array {
  const all = [...new Set(used.flatMap((measure) => placesOf(path, measure)))];
  const column = new Map(all.map((place, k) => [place, k]));
  const n = pointsIn(path);
  const here = pathOf(path, form);
  const scale = all.map((place) => (place < 2 * n ? 1 : arcScale(here, place - 2 * n)));
  const slopes = Matrix.zeros(used.length, all.length);
  used.forEach((measure, row) => {
    const weight = weightOf(here, measure);
    for (const place of placesOf(path, measure)) {
      const k = column.get(place) as number;
      const h = 1e-6 * (scale[k] as number);
      const value = (by: number): number => {
        const changed = form.slice();
        changed[place] = (changed[place] as number) + by;
        return measuredOr(pathOf(path, changed), measure);
      };
      slopes.set(row, k, ((weight * (value(h) - value(-h))) / (2 * h)) * (scale[k] as number));
    }
  });
  const solved = pseudoInverse(slopes).mmul(Matrix.columnVector([...off]));
  const step = new Float64Array(form.length);
  all.forEach((place, k) => {
    step[place] = -solved.get(k, 0) * (scale[k] as number);
  });
  return step;
}

/** By so many radians an arc's sweep changes where its middle moves by 1 mm, about; straight parts have none. */
function arcScale(path: Path, k: number): number {
  const { from, segment } = stepAt(path, k);
  if (segment.kind !== 'arc') return 1e-9;
  return 4 / Math.max(1e-3, norm(segment.to.x - from.x, segment.to.y - from.y));
}

/** Ends nearer than this are the same, mm. */
const sameMm = 1e-6;

/**
 * The measures of a path after an edit of it, by their new numbers: those whose points or segments are still there, also where
 * the path runs the other way round or starts elsewhere; where only places have changed the numbers stay.
 */
export function dimensionsCarried(before: Path, after: Path, held: readonly Dimension[]): Dimension[] {
  const isMovedOnly = before.segments.length === after.segments.length && before.closed === after.closed;
  const isAt = (p: Point, q: Point): boolean => distance(p, q) < sameMm;
  const pointNow = (k: number): number => {
    const p = pointAt(before, k);
    const found = Array.from({ length: pointsIn(after) }, (_, j) => j).findIndex((j) => isAt(pointAt(after, j), p));
    return found < 0 && isMovedOnly ? k : found;
  };
  const segmentOf = (k: number, isTurned: boolean): number => {
    const { from, segment } = stepAt(before, k);
    const [first, last] = isTurned ? [segment.to, from] : [from, segment.to];
    return after.segments.findIndex((s, j) => isAt(s.to, last) && isAt(stepAt(after, j).from, first));
  };
  const all = before.segments.map((_, k) => k);
  const isTurned = all.every((k) => segmentOf(k, false) < 0) && all.some((k) => segmentOf(k, true) >= 0);
  const segmentNow = (k: number): number => {
    const found = segmentOf(k, isTurned);
    return found < 0 && isMovedOnly ? k : found;
  };
  const carried = (measure: Dimension): Dimension => {
    if (measure.kind === 'gap') return { ...measure, a: pointNow(measure.a), b: pointNow(measure.b) };
    if (measure.kind === 'turn') return { ...measure, point: pointNow(measure.point), turn: isTurned ? -measure.turn : measure.turn };
    return { ...measure, segment: segmentNow(measure.segment) };
  };
  return held
    .filter((measure) => hasPlace(before, measure))
    .map(carried)
    .filter((measure) => placesIn(measure).every((k) => k >= 0));
}

const placesIn = (measure: Dimension): number[] =>
  measure.kind === 'gap' ? [measure.a, measure.b] : [measure.kind === 'turn' ? measure.point : measure.segment];
