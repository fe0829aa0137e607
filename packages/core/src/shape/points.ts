/**
 * In: a path and what a person does to its points. Out: the path changed there, and nowhere else.
 */
import { cachedSegments } from '../plane/cached-segment.ts';
import { type Path, type Step, stepsOf } from '../plane/path.ts';
import { distance, dot, type Point, subtract, turnBetween, unitVector } from '../plane/point.ts';
import { asCubics, type CubicSegment, directionOn, pointOn, type Segment, transformedSegment } from '../plane/segment.ts';
import { shift } from '../plane/transform.ts';
import { closedExactly } from './chains.ts';

/** How many points a path has: a closed one as many as segments. */
export const pointCount = (path: Path): number => path.segments.length + (path.closed ? 0 : 1);

export const pointOf = (path: Path, index: number): Point => (index === 0 ? path.start : (path.segments[index - 1] as Segment).to);

/** The segments before and after a point; undefined beyond the ends of an open path. */
function aboutPoint(path: Path, index: number): { readonly before: number | undefined; readonly after: number | undefined } {
  const n = path.segments.length;
  const before = index > 0 ? index - 1 : path.closed ? n - 1 : undefined;
  return { before, after: index < n ? index : path.closed ? 0 : undefined };
}

const shifted = (p: Point, by: Point): Point => ({ x: p.x + by.x, y: p.y + by.y });

/** A path with some of its points moved; handles move along with their points, arcs keep their sweep. */
export function withPointsMoved(path: Path, indices: readonly number[], by: Point): Path {
  const moved = new Set(indices);
  const n = path.segments.length;
  const isMoved = (index: number) => moved.has(path.closed ? index % n : index);
  const segments = path.segments.map((segment, k): Segment => {
    const [first, last] = [isMoved(k), isMoved(k + 1)];
    if (!first && !last) return segment;
    if (first && last) return transformedSegment(pointOf(path, k), segment, shift(by.x, by.y), 0)[0] as Segment;
    const to = last ? shifted(segment.to, by) : segment.to;
    if (segment.kind === 'cubic')
      return { ...segment, c1: first ? shifted(segment.c1, by) : segment.c1, c2: last ? shifted(segment.c2, by) : segment.c2, to };
    return segment.kind === 'line' || segment.kind === 'arc' ? { ...segment, to } : segment;
  });
  // Other kinds, such as a part of an ellipse, cannot keep their course with one end moved: they become curves first.
  const follows: readonly Segment['kind'][] = ['line', 'arc', 'cubic'];
  const bent = path.segments.findIndex((s, k) => !follows.includes(s.kind) && isMoved(k) !== isMoved(k + 1));
  if (bent >= 0) return withPointsMoved(...asCurvesAt(path, bent, indices), by);
  const start = isMoved(0) ? shifted(path.start, by) : path.start;
  const made = { start, segments, closed: path.closed };
  return path.closed ? closedExactly(made) : made;
}

/** A segment written as cubics, and the indices of points counted anew. */
function asCurvesAt(path: Path, index: number, indices: readonly number[]): [Path, number[]] {
  const step = stepsOf(path)[index] as Step;
  const curves = asCubics(step.from, step.segment, 0.001);
  const segments = [...path.segments.slice(0, index), ...curves, ...path.segments.slice(index + 1)];
  return [{ ...path, segments }, indices.map((k) => (k > index ? k + curves.length - 1 : k))];
}

/** A handle of a cubic moved; where the point is smooth the other side's handle turns along. */
export function withHandleMoved(path: Path, segment: number, handle: 'c1' | 'c2', to: Point, isHeldSmooth = true): Path {
  const s = path.segments[segment];
  if (s?.kind !== 'cubic') return path;
  const wasSmooth = isHeldSmooth && isSmooth(path, handle === 'c1' ? segment : segment + 1);
  const segments = [...path.segments];
  segments[segment] = { ...s, [handle]: to };
  if (wasSmooth) {
    const n = segments.length;
    const other = handle === 'c1' ? (segment - 1 + n) % n : (segment + 1) % n;
    const opposite = segments[other];
    const hasOther = path.closed || (handle === 'c1' ? segment > 0 : segment < n - 1);
    const at = pointOf(path, handle === 'c1' ? segment : segment + 1);
    const away = unitVector(subtract(at, to));
    if (hasOther && opposite?.kind === 'cubic' && distance(at, to) > 1e-9) {
      const key = handle === 'c1' ? 'c2' : 'c1';
      const reach = distance(at, opposite[key]);
      segments[other] = { ...opposite, [key]: { x: at.x + away.x * reach, y: at.y + away.y * reach } };
    }
  }
  return { ...path, segments };
}

/** Whether the path runs on through a point with one tangent. */
export function isSmooth(path: Path, index: number): boolean {
  const steps = cachedSegments(path);
  const { before, after } = aboutPoint(path, path.closed ? index % path.segments.length : index);
  const [a, b] = [before === undefined ? undefined : steps[before], after === undefined ? undefined : steps[after]];
  if (!a || !b) return false;
  return Math.abs(turnBetween(a.endTangent, b.startTangent)) < 0.02;
}

/**
 * A segment dragged by a place on it: a line moves as a whole, a curve's handles follow so that the place comes to lie
 * where it was pulled.
 */
export function withSegmentPulled(path: Path, index: number, t: number, to: Point): Path {
  const step = stepsOf(path)[index];
  if (!step) return path;
  const by = subtract(to, pointOn(step.from, step.segment, t));
  if (step.segment.kind === 'line') return withPointsMoved(path, [index, path.closed ? (index + 1) % path.segments.length : index + 1], by);
  if (step.segment.kind === 'arc') {
    const through = arcThrough(step.from, to, step.segment.to);
    return through ? { ...path, segments: path.segments.map((s, k) => (k === index ? through : s)) } : path;
  }
  if (step.segment.kind !== 'cubic') return withSegmentPulled(asCurvesAt(path, index, [])[0], index, t, to);
  // Weights of the two handles at t; the change is shared out by them (common practice).
  const [w1, w2] = [3 * t * (1 - t) ** 2, 3 * t * t * (1 - t)];
  const sum = w1 * w1 + w2 * w2;
  if (sum < 1e-9) return path;
  const { c1, c2 } = step.segment;
  const pulled: CubicSegment = {
    ...step.segment,
    c1: { x: c1.x + (by.x * w1) / sum, y: c1.y + (by.y * w1) / sum },
    c2: { x: c2.x + (by.x * w2) / sum, y: c2.y + (by.y * w2) / sum },
  };
  return { ...path, segments: path.segments.map((s, k) => (k === index ? pulled : s)) };
}

/** The arc from one place to another through a third; null where they lie in one line. */
export function arcThrough(from: Point, through: Point, to: Point): Segment | null {
  const [u, v] = [subtract(through, from), subtract(to, through)];
  const turn = turnBetween(u, v);
  return Math.abs(turn) < 1e-9 ? null : { kind: 'arc', to, sweep: 2 * turn };
}

/** A path without some of its points: the neighbours follow the old course as well as one curve, or line, can. */
export function withoutPoints(path: Path, indices: readonly number[]): Path | null {
  let now: Path | null = path;
  for (const index of [...indices].sort((a, b) => b - a)) now = now && withoutPoint(now, index);
  return now;
}

function withoutPoint(path: Path, index: number): Path | null {
  const n = path.segments.length;
  if (path.closed && n <= 2) return null;
  if (!path.closed && (index === 0 || index === n)) {
    if (n < 2) return null;
    return index === n
      ? { ...path, segments: path.segments.slice(0, -1) }
      : { ...path, start: (path.segments[0] as Segment).to, segments: path.segments.slice(1) };
  }
  const opened = path.closed && index === 0 ? startMoved(path, 1) : path;
  const k = path.closed && index === 0 ? n - 1 : index;
  const steps = stepsOf(opened);
  const [a, b] = [steps[k - 1] as Step, steps[k] as Step];
  const segments = [...opened.segments];
  segments.splice(k - 1, 2, oneInstead([a, b]));
  return { ...opened, segments };
}

/** One segment for several: a line for lines, else the cubic nearest to their course with their outer tangents. */
function oneInstead(steps: readonly Step[]): Segment {
  const [first, last] = [steps[0] as Step, steps.at(-1) as Step];
  const to = last.segment.to;
  if (steps.every(({ segment }) => segment.kind === 'line')) return { kind: 'line', to };
  const points = steps.flatMap(({ from, segment }) => Array.from({ length: 16 }, (_, k) => pointOn(from, segment, (k + 1) / 16)));
  const [d0, d1] = [directionOn(first.from, first.segment, 0), directionOn(last.from, last.segment, 1)];
  return cubicAlong(first.from, d0, to, d1, points);
}

/** The cubic between two tangents nearest to some points in order: least squares for both handles (Schneider 1990). */
function cubicAlong(from: Point, d0: Point, to: Point, d1: Point, points: readonly Point[]): CubicSegment {
  const chord = distance(from, to);
  let cubic: CubicSegment = handles(from, d0, to, d1, chord / 3, chord / 3);
  let places = alongChords(from, points);
  for (let round = 0; round < 12; round++) {
    let [a11, a12, a22, r1, r2] = [0, 0, 0, 0, 0];
    points.forEach((p, k) => {
      const t = places[k] as number;
      const [b1, b2] = [3 * t * (1 - t) ** 2, 3 * t * t * (1 - t)];
      const [near, far] = [(1 - t) ** 3 + b1, t ** 3 + b2];
      const off = { x: p.x - near * from.x - far * to.x, y: p.y - near * from.y - far * to.y };
      a11 += b1 * b1;
      a12 -= b1 * b2 * dot(d0, d1);
      a22 += b2 * b2;
      r1 += b1 * dot(d0, off);
      r2 -= b2 * dot(d1, off);
    });
    const det = a11 * a22 - a12 * a12;
    if (Math.abs(det) < 1e-12) break;
    const [m, n] = [(r1 * a22 - r2 * a12) / det, (r2 * a11 - r1 * a12) / det];
    if (!(m > 0 && n > 0)) break;
    cubic = handles(from, d0, to, d1, m, n);
    places = places.map((t, k) => newtonStep(from, cubic, points[k] as Point, t));
  }
  return cubic;
}

const handles = (from: Point, d0: Point, to: Point, d1: Point, m: number, n: number): CubicSegment => ({
  kind: 'cubic',
  c1: { x: from.x + d0.x * m, y: from.y + d0.y * m },
  c2: { x: to.x - d1.x * n, y: to.y - d1.y * n },
  to,
});

function alongChords(from: Point, points: readonly Point[]): number[] {
  let [last, gone] = [from, 0];
  const lengths = points.map((p) => {
    gone += distance(last, p);
    last = p;
    return gone;
  });
  return lengths.map((length) => length / (gone || 1));
}

function newtonStep(from: Point, cubic: CubicSegment, p: Point, t: number): number {
  const off = subtract(pointOn(from, cubic, t), p);
  const h = 1e-4;
  const [low, high] = [Math.max(0, t - h), Math.min(1, t + h)];
  const d = subtract(pointOn(from, cubic, high), pointOn(from, cubic, low));
  const v = { x: d.x / (high - low), y: d.y / (high - low) };
  const square = dot(v, v);
  return square > 0 ? Math.min(1, Math.max(0, t - dot(off, v) / square)) : t;
}

/** A closed path that starts at another of its points. */
export function startMoved(path: Path, index: number): Path {
  if (!path.closed || index % path.segments.length === 0) return path;
  return { start: pointOf(path, index), segments: [...path.segments.slice(index), ...path.segments.slice(0, index)], closed: true };
}

/** A path broken at a point: a closed one opens, an open one falls in two. */
export function brokenAt(path: Path, index: number): Path[] {
  if (path.closed) return [{ ...startMoved(path, index), closed: false }];
  if (index <= 0 || index >= path.segments.length) return [path];
  return [
    { start: path.start, segments: path.segments.slice(0, index), closed: false },
    { start: pointOf(path, index), segments: path.segments.slice(index), closed: false },
  ];
}

/** A segment made another kind between the same ends: as near to its course as that kind can be. */
export function withSegmentAs(path: Path, index: number, kind: 'line' | 'arc' | 'cubic'): Path {
  const step = stepsOf(path)[index];
  if (!step || step.segment.kind === kind) return path;
  const { from, segment } = step;
  const { to } = segment;
  const middle = pointOn(from, segment, 0.5);
  const bowed = { x: middle.x - (to.y - from.y) * 0.15, y: middle.y + (to.x - from.x) * 0.15 };
  const made: readonly Segment[] =
    kind === 'line'
      ? [{ kind: 'line', to }]
      : kind === 'arc'
        ? [arcThrough(from, segment.kind === 'line' ? bowed : middle, to) ?? { kind: 'line', to }]
        : asCubics(from, segment, 0.002);
  return { ...path, segments: [...path.segments.slice(0, index), ...made, ...path.segments.slice(index + 1)] };
}

/** A corner made smooth: both sides become curves whose handles lie on one line, along the way to the neighbours. */
export function madeSmooth(path: Path, index: number): Path {
  const { before, after } = aboutPoint(path, index);
  if (before === undefined || after === undefined) return path;
  const curved = withSegmentAs(withSegmentAs(path, Math.max(before, after), 'cubic'), Math.min(before, after), 'cubic');
  const [a, b] = [curved.segments[before], curved.segments[after]];
  if (a?.kind !== 'cubic' || b?.kind !== 'cubic') return path;
  const at = pointOf(path, index);
  const from = pointOf(curved, before);
  const d = unitVector(subtract(b.to, from));
  const [back, on] = [distance(from, at) / 3, distance(at, b.to) / 3];
  const segments = [...curved.segments];
  segments[before] = { ...a, c2: { x: at.x - d.x * back, y: at.y - d.y * back } };
  segments[after] = { ...b, c1: { x: at.x + d.x * on, y: at.y + d.y * on } };
  return { ...curved, segments };
}

/** A smooth point made a corner: its handles point at the neighbours. */
export function madeCorner(path: Path, index: number): Path {
  const { before, after } = aboutPoint(path, index);
  const at = pointOf(path, index);
  const segments = [...path.segments];
  const a = before === undefined ? undefined : segments[before];
  const b = after === undefined ? undefined : segments[after];
  const third = (p: Point): Point => ({ x: at.x + (p.x - at.x) / 3, y: at.y + (p.y - at.y) / 3 });
  if (before !== undefined && a?.kind === 'cubic') segments[before] = { ...a, c2: third(pointOf(path, before)) };
  if (after !== undefined && b?.kind === 'cubic') segments[after] = { ...b, c1: third(b.to) };
  return { ...path, segments };
}
