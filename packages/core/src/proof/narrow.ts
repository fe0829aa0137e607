/**
 * In: outlines of pieces. Out: where material is thinner than it may be, and where holes, slots and gaps are narrower than the tool.
 * The medial axis is nowhere built: its radius is least where two places of the border face each other across an empty disc
 * (Blum 1967, "A transformation for extracting new descriptors of shape"), and those pairs are looked for among segments that
 * come near.
 */

import { directionOn, distance, type LineSegment, nearestOnSegment, type Path, type Point, pointOn, type Step } from '../plane/index.ts';
import { boxIndex, nearnessTo } from '../shape/index.ts';
import { areNeighbours, type PlacedBorder as Border, lengthOf, placedBorders } from './borders.ts';

/** A pair of places that face each other. */
export interface Narrow {
  readonly a: Point;
  readonly b: Point;
  readonly widthMm: number;
  /** Whether material lies between them. */
  readonly isWeb: boolean;
}

/** Borders with the material on the left of both face each other only where they run against each other. */
const mayFace = (a: Border, b: Border): boolean => !(a.isGentle && b.isGentle && a.chord.x * b.chord.x + a.chord.y * b.chord.y > 0.3);

/** Nearer places touch: that is a crossing, or a doubled line. */
const touchMm = 0.02;

/**
 * The narrow places between outlines of pieces, the narrowest first; outer ones counter-clockwise, holes clockwise.
 * @param limitMm wider ones are not looked for
 */
export function narrowPlaces(paths: readonly Path[], limitMm: number): Narrow[] {
  if (!(limitMm > 0)) return [];
  const borders = placedBorders(paths);
  const lengths = paths.map(lengthOf);
  const index = boxIndex(borders.map((b) => b.box), 0); // biome-ignore format: one line
  const isNearer = nearnessTo(paths);
  const found: Narrow[] = [];
  borders.forEach((a, k) => {
    const { minX, minY, maxX, maxY } = a.box;
    index?.search(minX - limitMm, minY - limitMm, maxX + limitMm, maxY + limitMm, (l) => {
      const b = borders[l] as Border;
      if (l <= k || !mayFace(a, b) || areNeighboursIn(paths, a, b)) return false;
      const narrow = narrowBetween(paths, a, b, a.path === b.path ? (lengths[a.path] as number) : Infinity, limitMm);
      if (narrow && !isNearer(middleOfPair(narrow), (narrow.widthMm / 2) * (1 - 1e-6) - 1e-9)) found.push(narrow);
      return false;
    });
  });
  return apart(found.sort((p, q) => p.widthMm - q.widthMm));
}

function areNeighboursIn(paths: readonly Path[], a: Border, b: Border): boolean {
  const { closed, segments } = paths[a.path] as Path;
  return areNeighbours(a, b, closed, segments.length - 1);
}

/** Where two segments face each other nearer than the limit, with material or nothing between on both sides. */
function narrowBetween(paths: readonly Path[], a: Border, b: Border, whole: number, limitMm: number): Narrow | null {
  const near = nearestPair(a, b, limitMm);
  if (near.widthMm >= limitMm || near.widthMm < touchMm) return null;
  if (whole < Infinity && alongBetween(a, near.t, b, near.u, whole) < 2 * near.widthMm) return null;
  const side = sideOf(paths, a, near.t, near.b);
  if (side === null || side !== sideOf(paths, b, near.u, near.a)) return null;
  return { a: near.a, b: near.b, widthMm: near.widthMm, isWeb: side === 'material' };
}

/** How far it is along the outline from one place to the other, the shorter way. */
function alongBetween(a: Border, t: number, b: Border, u: number, whole: number): number {
  const along = Math.abs(b.along + u * b.length - a.along - t * a.length);
  return Math.min(along, whole - along);
}

/** Places that stand for the same narrow: within a few widths only the narrowest is told. */
function apart(found: readonly Narrow[]): Narrow[] {
  const kept: Narrow[] = [];
  for (const one of found) {
    const reach = 4 * one.widthMm;
    if (!kept.some((k) => k.isWeb === one.isWeb && distance(k.a, one.a) + distance(k.b, one.b) < 2 * reach)) kept.push(one);
  }
  return kept;
}

interface Pair {
  readonly t: number;
  readonly u: number;
  readonly a: Point;
  readonly b: Point;
  readonly widthMm: number;
}

/** The places of two segments that lie nearest one another; of parallel ones the middle of where they face. */
function nearestPair(a: Border, b: Border, limitMm: number): Pair {
  if (a.segment.kind === 'line' && b.segment.kind === 'line') return linePair(a, b);
  const chords = linePair(a, b);
  // Gentle ones are nearest about where their chords are, or the ends of either; others may face in several places.
  const besideEnds = [b.from, b.segment.to].map((end) => nearestOnSegment(a.from, a.segment, end).t);
  const starts = [chords.t, ...besideEnds, ...(a.isGentle && b.isGentle ? [] : [0.5, 0, 1, 0.25, 0.75])];
  let best: Pair | null = null;
  for (const [k, start] of starts.entries()) {
    if (starts.slice(0, k).some((t) => Math.abs(t - start) < 1e-3)) continue;
    const found = settledPair(a, b, start, limitMm);
    if (!best || found.widthMm < best.widthMm - 1e-9) best = found;
  }
  return best ?? chords;
}

/**
 * From a place on one segment across to the other and back, until nothing comes nearer. Sides that run nearly alike are
 * neared by ever smaller steps: after every two their limit is foretold (Steffensen 1933; Aitken 1926).
 */
function settledPair(a: Border, b: Border, start: number, limitMm: number): Pair {
  const across = (t: number): Pair => {
    const near = nearestOnSegment(b.from, b.segment, pointOn(a.from, a.segment, t));
    const back = nearestOnSegment(a.from, a.segment, near.point);
    return { t: back.t, u: near.t, a: back.point, b: near.point, widthMm: back.distance };
  };
  let now = across(start);
  for (let round = 0; round < 20; round++) {
    const next = across(now.t);
    const after = across(next.t);
    const gained = now.widthMm - after.widthMm;
    // Steps grow shorter by a share each time: what cannot reach the limit any more is let go.
    if (round > 1 && after.widthMm - 20 * gained > limitMm) return after;
    const bend = after.t - 2 * next.t + now.t;
    const told = Math.min(1, Math.max(0, now.t - (next.t - now.t) ** 2 / bend));
    const foretold = Math.abs(bend) > 1e-14 ? across(told) : after;
    const better = foretold.widthMm < after.widthMm ? foretold : after;
    if (Math.abs(better.t - now.t) < 1e-10) return better;
    now = better;
  }
  return now;
}

/** Of straight segments, or of the chords of curved ones. */
function linePair(a: Border, b: Border): Pair {
  const p: LineSegment = { kind: 'line', to: a.segment.to };
  const q: LineSegment = { kind: 'line', to: b.segment.to };
  const ends: { t: number; u: number; d: number }[] = [];
  for (const t of [0, 1]) {
    const near = nearestOnSegment(b.from, q, t === 0 ? a.from : p.to);
    ends.push({ t, u: near.t, d: near.distance });
  }
  for (const u of [0, 1]) {
    const near = nearestOnSegment(a.from, p, u === 0 ? b.from : q.to);
    ends.push({ t: near.t, u, d: near.distance });
  }
  ends.sort((p, q) => p.d - q.d);
  const [first, second] = ends as [(typeof ends)[0], (typeof ends)[0]];
  const isParallel = second.d - first.d < 1e-6 && Math.abs(second.t - first.t) * a.length > 1e-6;
  const [t, u] = isParallel ? [(first.t + second.t) / 2, (first.u + second.u) / 2] : [first.t, first.u];
  return { t, u, a: pointOn(a.from, p, t), b: pointOn(b.from, q, u), widthMm: first.d };
}

/** How far a direction may point along the outline and still face across it, cosine. */
const acrossCosine = 0.02;

/**
 * What lies towards another place from a place on a border: material, or nothing; null where moving along the outline
 * would come nearer, so that this is no narrowest place.
 */
function sideOf(paths: readonly Path[], { path, index, from, segment }: Border, t: number, other: Point): 'material' | 'nothing' | null {
  const at = pointOn(from, segment, t);
  const size = distance(at, other);
  const d = { x: (other.x - at.x) / size, y: (other.y - at.y) / size };
  const isAtStart = t < 1e-6;
  const isAtEnd = t > 1 - 1e-6;
  let [into, out] = [directionOn(from, segment, t), directionOn(from, segment, t)];
  if (isAtStart || isAtEnd) {
    const { segments, closed } = paths[path] as Path;
    const n = segments.length;
    const other = isAtStart ? index - 1 : index + 1;
    if (!closed && (other < 0 || other >= n)) return null;
    const neighbour = stepAt(paths[path] as Path, (other + n) % n);
    if (isAtStart) into = directionOn(neighbour.from, neighbour.segment, 1);
    else out = directionOn(neighbour.from, neighbour.segment, 0);
  }
  if (out.x * d.x + out.y * d.y > acrossCosine || -(into.x * d.x + into.y * d.y) > acrossCosine) return null;
  // Material lies left of the way: counter-clockwise from where it goes on to where it came from.
  const full = 2 * Math.PI;
  const turned = (p: Point): number => ((Math.atan2(out.x * p.y - out.y * p.x, out.x * p.x + out.y * p.y) % full) + full) % full;
  return turned(d) < turned({ x: -into.x, y: -into.y }) ? 'material' : 'nothing';
}

const stepAt = (path: Path, index: number): Step => ({
  from: index === 0 ? path.start : (path.segments[index - 1] as Path['segments'][0]).to,
  segment: path.segments[index] as Path['segments'][0],
});

export const middleOfPair = ({ a, b }: Narrow): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
