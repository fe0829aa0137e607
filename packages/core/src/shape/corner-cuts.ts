/**
 * In: a path and which of its corners. Out: the path with these rounded, bevelled, or relieved for a round tool.
 * A round's centre is where both sides, set off by the radius, meet; that is solved on the segments themselves (Newton), so
 * that lines, arcs and curves are rounded alike.
 */
import { arcAbout } from '../plane/arc.ts';
import { type CachedSegment, cachedSegments } from '../plane/cached-segment.ts';
import type { Path, Step } from '../plane/path.ts';
import { add, cross, distance, dot, norm, type Point, subtract, turnBetween } from '../plane/point.ts';
import { directionOn, pointOn, type Segment, segmentLength, splitSegment } from '../plane/segment.ts';
import { closedExactly } from './chains.ts';

export const cornerCuts = ['round', 'bevel', 'dog-bone', 'tee'] as const;
export type CornerCut = (typeof cornerCuts)[number];

export interface PathCorner {
  /** The joint is the end of this segment. */
  readonly index: number;
  readonly at: Point;
  /** Radians, positive to the left. */
  readonly turn: number;
  /** Whether it points out of the area that the path goes round (counter-clockwise). */
  readonly isOuter: boolean;
}

/** Joints that turn by less are smooth, radians. */
const smoothTurn = 0.02;
const smoothSine = Math.sin(smoothTurn);

/** The corners of a path, in order of travel; an open path's ends are none. */
export function cornersOf(path: Path): PathCorner[] {
  const steps = cachedSegments(path);
  const corners: PathCorner[] = [];
  steps.forEach((step, index) => {
    const next = steps[index + 1] ?? (path.closed ? steps[0] : undefined);
    if (!next) return;
    const [into, out] = [step.endTangent, next.startTangent];
    if (dot(into, out) > 0 && Math.abs(cross(into, out)) < smoothSine) return;
    const turn = turnBetween(into, out);
    corners.push({ index, at: step.segment.to, turn, isOuter: turn > 0 });
  });
  return corners;
}

/** What replaces a corner: the sides up to `t` and from `u` on, with segments between. */
interface Cut {
  readonly t: number;
  readonly u: number;
  readonly between: readonly Segment[];
}

/**
 * A path with corners cut.
 * @param size the radius; of a bevel how much it takes off either side, mm
 * @param corners joints by the segment that ends there; those where it does not fit stay as they are
 * @returns the path, and the joints that were left because the size does not fit
 */
export function withCornersCut(
  path: Path,
  corners: readonly number[],
  size: number,
  how: CornerCut = 'round',
): { readonly path: Path; readonly left: number[] } {
  if (!(size > 0)) return { path, left: [...corners] };
  const steps = cachedSegments(path);
  const found = new Map(cornersOf(path).map((c) => [c.index, c]));
  const cuts = new Map<number, Cut>();
  const left: number[] = [];
  for (const index of corners) {
    const corner = found.get(index);
    if (!corner) continue;
    const [a, b] = [steps[index] as CachedSegment, (steps[index + 1] ?? steps[0]) as CachedSegment];
    const cut = knownCut(a, b, corner, size, how);
    if (cut) cuts.set(index, cut);
    else left.push(index);
  }
  // Two cuts on one side must leave something between them.
  const n = steps.length;
  for (const [index, cut] of cuts) {
    const before = cuts.get((index - 1 + n) % n);
    if (before && (path.closed || index > 0) && before.u > cut.t + 1e-12) {
      cuts.delete(index);
      left.push(index);
    }
  }
  return { path: rebuilt(path, steps, cuts), left };
}

function rebuilt(path: Path, steps: readonly CachedSegment[], cuts: ReadonlyMap<number, Cut>): Path {
  const n = steps.length;
  const segments: Segment[] = [];
  steps.forEach((step, k) => {
    const before = path.closed || k > 0 ? cuts.get((k - 1 + n) % n) : undefined;
    const after = cuts.get(k);
    if (!before && !after) segments.push(step.segment);
    else segments.push(...knownPart(step, before?.u ?? 0, after?.t ?? 1), ...(after?.between ?? []));
  });
  const wrapped = path.closed ? cuts.get(n - 1) : undefined;
  const first = steps[0] as Step;
  const start = wrapped ? pointOn(first.from, first.segment, wrapped.u) : path.start;
  const made: Path = { start, segments, closed: path.closed };
  return path.closed ? closedExactly(made) : made;
}

const parts = new WeakMap<CachedSegment, { readonly u: number; readonly t: number; readonly part: readonly Segment[] }>();

function knownPart(step: CachedSegment, u: number, t: number): readonly Segment[] {
  const kept = parts.get(step);
  if (kept && kept.u === u && kept.t === t) return kept.part;
  const part = partOf(step, u, t);
  parts.set(step, { u, t, part });
  return part;
}

/** The part of a segment between two places on it; none where they are one. */
function partOf({ from, segment }: Step, u: number, t: number): Segment[] {
  if (u <= 0 && t >= 1) return [segment];
  if (t - u < 1e-9) return [];
  const [, after] = u > 0 ? splitSegment(from, segment, u) : [segment, segment];
  if (t >= 1) return [after];
  const at = u > 0 ? pointOn(from, segment, u) : from;
  return [splitSegment(at, after, (t - u) / (1 - u))[0]];
}

const cutsKept = new WeakMap<
  CachedSegment,
  { readonly b: CachedSegment; readonly size: number; readonly how: CornerCut; readonly cut: Cut | null }
>();

/** As `cutAt` says, kept for the same two sides. */
function knownCut(a: CachedSegment, b: CachedSegment, corner: PathCorner, size: number, how: CornerCut): Cut | null {
  const kept = cutsKept.get(a);
  if (kept && kept.b === b && kept.size === size && kept.how === how) return kept.cut;
  const cut = cutAt(a, b, corner, size, how);
  cutsKept.set(a, { b, size, how, cut });
  return cut;
}

function cutAt(a: Step, b: Step, corner: PathCorner, size: number, how: CornerCut): Cut | null {
  if (how === 'round') return roundCut(a, b, corner.turn, size);
  if (how === 'bevel') return bevelCut(a, b, size);
  return corner.isOuter ? null : reliefCut(a, b, corner, size, how);
}

const inward = (d: Point, side: number): Point => ({ x: -d.y * side, y: d.x * side });

/** The round tangent to both sides; null where it does not fit on them. */
function roundCut(a: Step, b: Step, turn: number, radius: number): Cut | null {
  const side = Math.sign(turn);
  const reach = radius * Math.tan(Math.min(Math.abs(turn), 3.1) / 2);
  const [la, lb] = [segmentLength(a.from, a.segment), segmentLength(b.from, b.segment)];
  if (a.segment.kind === 'line' && b.segment.kind === 'line') {
    if (reach > la || reach > lb) return null;
    return { t: 1 - reach / la, u: reach / lb, between: [{ kind: 'arc', to: pointOn(b.from, b.segment, reach / lb), sweep: turn }] };
  }
  let [t, u] = [Math.max(0, 1 - reach / la), Math.min(1, reach / lb)];
  const centreFrom = (step: Step, at: number): Point => {
    const n = inward(directionOn(step.from, step.segment, at), side);
    const p = pointOn(step.from, step.segment, at);
    return { x: p.x + n.x * radius, y: p.y + n.y * radius };
  };
  const h = 1e-6;
  for (let round = 0; round < 40; round++) {
    const off = subtract(centreFrom(b, u), centreFrom(a, t));
    if (norm(off.x, off.y) < 1e-11) break;
    const [t0, u0] = [Math.min(1 - h, Math.max(h, t)), Math.min(1 - h, Math.max(h, u))];
    const slope = (step: Step, at: number): Point => {
      const d = subtract(centreFrom(step, at + h), centreFrom(step, at - h));
      return { x: d.x / (2 * h), y: d.y / (2 * h) };
    };
    const [p, q] = [slope(a, t0), slope(b, u0)];
    const det = cross(p, q);
    if (Math.abs(det) < 1e-14) return null;
    t += Math.max(-0.4, Math.min(0.4, cross(off, q) / det));
    u += Math.max(-0.4, Math.min(0.4, cross(off, p) / det));
    if (t < -0.5 || t > 1.5 || u < -0.5 || u > 1.5) return null;
  }
  const [c, d] = [centreFrom(a, t), centreFrom(b, u)];
  if (distance(c, d) > 1e-8 || t < -1e-9 || t > 1 || u < 0 || u > 1 + 1e-9) return null;
  const sweep = turnBetween(directionOn(a.from, a.segment, t), directionOn(b.from, b.segment, u));
  if (sweep * side <= 0) return null;
  return { t, u, between: [{ kind: 'arc', to: pointOn(b.from, b.segment, u), sweep }] };
}

function bevelCut(a: Step, b: Step, size: number): Cut | null {
  const [t, u] = [placeAlong(a, segmentLength(a.from, a.segment) - size), placeAlong(b, size)];
  if (t === null || u === null) return null;
  return { t, u, between: [{ kind: 'line', to: pointOn(b.from, b.segment, u) }] };
}

/** Where a segment has gone a length from its start, 0 to 1; null beyond its ends. */
export function placeAlong({ from, segment }: Step, length: number): number | null {
  const whole = segmentLength(from, segment);
  if (length < -1e-9 || length > whole + 1e-9) return null;
  if (segment.kind === 'line' || segment.kind === 'arc') return Math.min(1, Math.max(0, length / whole));
  let [low, high] = [0, 1];
  for (let round = 0; round < 50; round++) {
    const middle = (low + high) / 2;
    if (segmentLength(from, splitSegment(from, segment, Math.max(1e-12, middle))[0]) < length) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * Room for a round tool in a square inner corner, so that a square part fits (common practice): a dog-bone's circle goes
 * through the corner on its bisector, a tee's through the corner along the side that follows.
 */
function reliefCut(a: Step, b: Step, { at, turn }: PathCorner, radius: number, how: 'dog-bone' | 'tee'): Cut | null {
  if (a.segment.kind !== 'line' || b.segment.kind !== 'line') return null;
  const [back, on] = [reversed(directionOn(a.from, a.segment, 1)), directionOn(b.from, b.segment, 0)];
  const [la, lb] = [segmentLength(a.from, a.segment), segmentLength(b.from, b.segment)];
  if (how === 'tee') {
    if (2 * radius > lb) return null;
    const to = { x: at.x + on.x * 2 * radius, y: at.y + on.y * 2 * radius };
    return { t: 1, u: (2 * radius) / lb, between: [{ kind: 'arc', to, sweep: Math.sign(turn) * Math.PI }] };
  }
  const half = (Math.PI - Math.abs(turn)) / 2;
  const reach = 2 * radius * Math.cos(half);
  if (reach > la || reach > lb) return null;
  const bisector = add(back, on);
  const size = norm(bisector.x, bisector.y);
  const centre = { x: at.x + (bisector.x / size) * radius, y: at.y + (bisector.y / size) * radius };
  const from = { x: at.x + back.x * reach, y: at.y + back.y * reach };
  const to = { x: at.x + on.x * reach, y: at.y + on.y * reach };
  // From side to side through the corner itself, the long way about the centre.
  const sweep = Math.sign(turn) * (2 * Math.PI - 4 * half);
  const arc = arcAbout(centre, from, sweep);
  return { t: 1 - reach / la, u: reach / lb, between: [{ ...arc, to }] };
}

const reversed = (d: Point): Point => ({ x: -d.x, y: -d.y });

/** The largest size that fits all of the corners at once, to a thousandth of a millimetre; 0 where none does. */
export function largestCut(path: Path, corners: readonly number[], how: CornerCut = 'round'): number {
  if (corners.length === 0) return 0;
  const fits = (size: number) => withCornersCut(path, corners, size, how).left.length === 0;
  let [low, high] = [0, 1e-3];
  while (fits(high) && high < 1e5) [low, high] = [high, high * 2];
  while (high - low > 5e-4) {
    const middle = (low + high) / 2;
    if (fits(middle)) low = middle;
    else high = middle;
  }
  return low;
}
