/**
 * In: a path and a distance. Out: the path set off by it, exact along lines and arcs, within a tolerance along curves; corners
 * round, mitred or cut square. It may cross itself.
 * Every segment is set off by itself and joined to the next. A curve's offset has at its ends the derivative P'(1 - d k), which
 * makes cubics through both ends; they are divided until they keep within the tolerance (Tiller & Hanson 1984).
 */
import { type CachedSegment, cachedSegments } from '../plane/cached-segment.ts';
import { derivativeOnCubic, secondDerivativeOnCubic } from '../plane/cubic.ts';
import { opsOf } from '../plane/curves.ts';
import { endOf, type Path } from '../plane/path.ts';
import { cross, crossing, distance, dot, norm, type Point, toLeft, turnBetween } from '../plane/point.ts';
import { asCubics, type CubicSegment, directionOn, pointOn, type Segment, splitSegment } from '../plane/segment.ts';
import { closedExactly } from './chains.ts';
import { samePlaceMm, segmentCrossings } from './crossings.ts';

export const cornerKinds = ['round', 'mitre', 'square'] as const;
export type CornerKind = (typeof cornerKinds)[number];

export interface OffsetSettings {
  readonly corners: CornerKind;
  /** Mitres that reach out farther than so many distances are cut square. */
  readonly mitreLimit: number;
  /** Largest distance of an offset curve from the exact one, mm. */
  readonly toleranceMm: number;
}

export const plainOffset: OffsetSettings = { corners: 'round', mitreLimit: 4, toleranceMm: 0.004 };

/** By so much a part of an offset may be nearer to its outline than it should, mm. */
export const nearnessSlack = ({ toleranceMm }: OffsetSettings): number => Math.max(10 * samePlaceMm, 1.5 * toleranceMm);

/** Offsets of neighbours that end so near to one another are joined where they are, mm. */
const hairMm = 1e-4;

const left = (d: Point, by: number): Point => ({ x: -d.y * by, y: d.x * by });
const moved = (p: Point, by: Point): Point => ({ x: p.x + by.x, y: p.y + by.y });

/** Every segment set off to the left by `by` and joined to the next; may cross itself. */
export function rawOffset(path: Path, by: number, settings: OffsetSettings): Path {
  const parts = cachedSegments(path)
    .filter(({ from, segment }) => segment.kind !== 'line' || distance(from, segment.to) > 0)
    .map((step) => ({ step, path: knownOffset(step, by, settings.toleranceMm) }));
  const count = parts.length;
  const joints = parts.map((part, k): Segment[] => {
    const next = parts[(k + 1) % count];
    if (!next || (k === count - 1 && !path.closed)) return [];
    const [from, to] = [endOf(part.path), next.path.start];
    if (distance(from, to) <= samePlaceMm / 10) return [];
    const { cut, between } = knownTurn(part, next, count > 1, by, settings);
    if (cut) [part.path, next.path] = cut;
    return between;
  });
  const segments: Segment[] = [];
  parts.forEach((part, k) => {
    segments.push(...part.path.segments, ...(joints[k] as Segment[]));
  });
  const raw: Path = { start: (parts[0] as (typeof parts)[0]).path.start, segments, closed: path.closed };
  return path.closed ? closedExactly(raw) : raw;
}

interface Part {
  readonly step: CachedSegment;
  readonly path: Path;
}

const offsetsKept = new WeakMap<CachedSegment, { readonly by: number; readonly toleranceMm: number; readonly path: Path }[]>();
/** Offsets of one segment that are kept: rings about an outline. */
const maxOffsets = 12;

/** As `offsetSegment` says, kept. */
function knownOffset(step: CachedSegment, by: number, toleranceMm: number): Path {
  let kept = offsetsKept.get(step);
  if (!kept) {
    kept = [];
    offsetsKept.set(step, kept);
  }
  const same = kept.find((k) => k.by === by && k.toleranceMm === toleranceMm);
  if (same) return same.path;
  const path = offsetSegment(step, by, toleranceMm);
  if (kept.length >= maxOffsets) kept.shift();
  kept.push({ by, toleranceMm, path });
  return path;
}

/** How two neighbours' offsets go on from one another: cut where they cross, or with something between. */
interface Turn {
  readonly cut: readonly [Path, Path] | null;
  readonly between: Segment[];
}

const turnsKept = new WeakMap<
  Path,
  { readonly b: Path; readonly mayCut: boolean; readonly settings: OffsetSettings; readonly turn: Turn }
>();

/** Kept for the same two offsets. */
function knownTurn(a: Part, b: Part, mayCut: boolean, by: number, settings: OffsetSettings): Turn {
  const kept = turnsKept.get(a.path);
  const { corners, mitreLimit } = settings;
  if (kept?.b === b.path && kept.mayCut === mayCut && kept.settings.corners === corners && kept.settings.mitreLimit === mitreLimit)
    return kept.turn;
  const cut = mayCut ? cutAtCrossing(a, b, by) : null;
  const between = cut ? [] : joint(a, b, by, settings);
  const turn = { cut, between };
  turnsKept.set(a.path, { b: b.path, mayCut, settings, turn });
  return turn;
}

/** Inside a corner two neighbours that cross once are cut there at once; null where they do not, or the corner is outer. */
function cutAtCrossing(a: Part, b: Part, by: number): [Path, Path] | null {
  const [p, q] = [a.path.segments.at(-1) as Segment, b.path.segments[0] as Segment];
  if (a.path.segments.length > 1 || b.path.segments.length > 1) return null;
  if (cross(a.step.endTangent, b.step.startTangent) * by <= 0) return null;
  const [end, start] = [endOf(a.path), b.path.start];
  if (distance(end, start) < hairMm) {
    // At so flat a corner no crossing can be found surely, nor is one needed: both ends move to their middle.
    const to = { x: (end.x + start.x) / 2, y: (end.y + start.y) / 2 };
    return [
      { ...a.path, segments: [{ ...p, to }] },
      { ...b.path, start: to, segments: [q] },
    ];
  }
  const found = segmentCrossings({ from: a.path.start, segment: p }, { from: b.path.start, segment: q });
  // Two segments that make a whole outline meet at both their joints: this one is late on the first and early on the second.
  const here = found.filter(({ t, u }) => found.length === 1 || (t > 0.5 && u < 0.5));
  const [met] = here;
  if (!met || here.length > 1 || met.t < 1e-9 || met.u > 1 - 1e-9) return null;
  const [before] = met.t < 1 - 1e-9 ? splitSegment(a.path.start, p, met.t) : [p];
  const after = met.u > 1e-9 ? splitSegment(b.path.start, q, met.u)[1] : q;
  return [
    { ...a.path, segments: [{ ...before, to: met.at }] },
    { ...b.path, start: met.at, segments: [after] },
  ];
}

/** What leads from the end of one offset segment to the start of the next, about the corner between. */
function joint({ step: before, path }: Part, { step: after, path: next }: Part, by: number, settings: OffsetSettings): Segment[] {
  const [from, to] = [endOf(path), next.start];
  if (distance(from, to) <= samePlaceMm / 10) return [];
  const [into, out] = [before.endTangent, after.startTangent];
  const turn = turnBetween(into, out);
  const isOuter = turn * by < 0;
  // Inside a corner so shallow that both end within the tolerance of each other they may not meet at all, bent as they are.
  const isShallow = !isOuter && Math.abs(by) * (1 - Math.cos(turn)) <= nearnessSlack(settings);
  if (isShallow && !doMeet(path, next)) return [{ kind: 'line', to }];
  // Else the way over it is cut off again, since it comes too near.
  if (!isOuter)
    return [
      { kind: 'line', to: before.segment.to },
      { kind: 'line', to },
    ];
  if (settings.corners === 'round') return [{ kind: 'arc', to, sweep: turn }];
  if (settings.corners === 'mitre') {
    const tip = crossing(from, into, to, out);
    const isNear = tip && distance(tip, before.segment.to) <= settings.mitreLimit * Math.abs(by) * (1 + 1e-9);
    if (tip && isNear)
      return [
        { kind: 'line', to: tip },
        { kind: 'line', to },
      ];
  }
  return squareCorner(before.segment.to, into, out, from, to, by);
}

const doMeet = (a: Path, b: Path): boolean =>
  cachedSegments(a).some((s) => cachedSegments(b).some((t) => segmentCrossings(s, t).length > 0));

/** A corner cut off at the distance itself, across the middle of the turn. */
function squareCorner(corner: Point, into: Point, out: Point, from: Point, to: Point, by: number): Segment[] {
  const [n, m] = [left(into, by), left(out, by)];
  const size = norm(n.x + m.x, n.y + m.y);
  if (size < 1e-9 * Math.abs(by)) {
    const far = { x: into.x * Math.abs(by), y: into.y * Math.abs(by) };
    return [
      { kind: 'line', to: moved(from, far) },
      { kind: 'line', to: moved(to, far) },
      { kind: 'line', to },
    ];
  }
  const d = { x: (n.x + m.x) / size, y: (n.y + m.y) / size };
  const middle = moved(corner, { x: d.x * Math.abs(by), y: d.y * Math.abs(by) });
  const across = { x: -d.y, y: d.x };
  const [a, b] = [crossing(from, into, middle, across), crossing(to, out, middle, across)];
  if (!a || !b) return [{ kind: 'line', to }];
  return [
    { kind: 'line', to: a },
    { kind: 'line', to: b },
    { kind: 'line', to },
  ];
}

/** One segment set off to its left. */
function offsetSegment({ from, segment, startTangent: d0 }: CachedSegment, by: number, toleranceMm: number): Path {
  const start = toLeft(from, d0, by);
  const exact = opsOf(segment).offset?.(from, segment, by);
  if (exact) return { start, segments: [exact], closed: false };
  const segments: Segment[] = [];
  let at = from;
  for (const cubic of asCubics(from, segment, toleranceMm / 20)) {
    for (const part of offsetCubic(at, withoutStubs(at, cubic), by, toleranceMm, 0)) segments.push(part);
    at = cubic.to;
  }
  return { start, segments, closed: false };
}

/** Handles shorter than this share of their curve are rounding, and point anywhere. */
const stubShare = 1e-9;

/** A cubic whose handles that are all but nothing are nothing: it would seem to turn about within them. */
function withoutStubs(from: Point, s: CubicSegment): CubicSegment {
  const [first, middle, last] = [distance(from, s.c1), distance(s.c1, s.c2), distance(s.c2, s.to)];
  const least = stubShare * (first + middle + last);
  return first > least && last > least ? s : { ...s, c1: first > least ? s.c1 : from, c2: last > least ? s.c2 : s.to };
}

/** The derivative of the offset curve at an end of a cubic: P'(1 - d k), k the curvature, left positive. */
function offsetDerivative(from: Point, s: CubicSegment, t: 0 | 1, by: number): Point {
  const [v, a] = [derivativeOnCubic(from, s, t), secondDerivativeOnCubic(from, s, t)];
  const size = norm(v.x, v.y);
  if (size < 1e-12) return { x: 0, y: 0 };
  const k = cross(v, a) / size ** 3;
  return { x: v.x * (1 - by * k), y: v.y * (1 - by * k) };
}

/** So often a curve is halved at most; one that turns round in a hairpin does so within a millionth of it. */
const deepest = 20;

/**
 * Where a cubic's offset turns back on its way, 0 to 1: where the curve is bent exactly as tightly as the distance. The offset
 * is cut there, so that what turns back is found to cross what came before it.
 */
function turnBack(from: Point, s: CubicSegment, by: number): number | null {
  // Of the sign of 1 - d k, and smooth where the curve stands still.
  const forth = (t: number): number => {
    const [v, a] = [derivativeOnCubic(from, s, t), secondDerivativeOnCubic(from, s, t)];
    return norm(v.x, v.y) ** 3 - by * cross(v, a);
  };
  for (let k = 0; k < turnPlaces; k++) {
    let [low, high] = [(k + turnMargin) / turnPlaces, (k + 1 - turnMargin) / turnPlaces];
    const isForth = forth(low) > 0;
    if (isForth === forth(high) > 0) continue;
    for (let round = 0; round < 40; round++) {
      const middle = (low + high) / 2;
      if (forth(middle) > 0 === isForth) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  }
  return null;
}
/** In how many parts of a cubic it is looked for, and how near to their ends no more, in parts of one. */
const turnPlaces = 4;
const turnMargin = 1e-4;

function offsetCubic(from: Point, s: CubicSegment, by: number, toleranceMm: number, depth: number): CubicSegment[] {
  const [d0, d1] = [directionOn(from, s, 0), directionOn(from, s, 1)];
  const [start, to] = [toLeft(from, d0, by), toLeft(s.to, d1, by)];
  const [v, w] = [offsetDerivative(from, s, 0, by), offsetDerivative(from, s, 1, by)];
  const made: CubicSegment = {
    kind: 'cubic',
    c1: { x: start.x + v.x / 3, y: start.y + v.y / 3 },
    c2: { x: to.x - w.x / 3, y: to.y - w.y / 3 },
    to,
  };
  const turnsAt = depth < deepest ? turnBack(from, s, by) : null;
  if (turnsAt === null && (depth >= deepest || (dot(d0, d1) > 0.2 && follows(from, s, start, made, by, toleranceMm)))) return [made];
  const [a, b] = splitSegment(from, s, turnsAt ?? 0.5) as [CubicSegment, CubicSegment];
  return [...offsetCubic(from, a, by, toleranceMm, depth + 1), ...offsetCubic(a.to, b, by, toleranceMm, depth + 1)];
}

/** Whether the made curve keeps to the exact offset, looked at across it: along it both run nearly alike. */
function follows(from: Point, s: CubicSegment, start: Point, made: CubicSegment, by: number, toleranceMm: number): boolean {
  return [0.15, 0.33, 0.5, 0.67, 0.85].every((t) => {
    const d = directionOn(from, s, t);
    const [exact, p] = [toLeft(pointOn(from, s, t), d, by), pointOn(start, made, t)];
    const [along, across] = [d.x * (p.x - exact.x) + d.y * (p.y - exact.y), d.x * (p.y - exact.y) - d.y * (p.x - exact.x)];
    // A slip along it counts by how much the curve could bend away meanwhile.
    return Math.abs(across) + Math.abs(along) * 0.02 <= toleranceMm / 2;
  });
}
