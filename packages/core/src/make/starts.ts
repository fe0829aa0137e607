/**
 * In: a closed way of the tool. Out: where it may start, parts of it by their lengths, and what is left out where bridges hold
 * the piece or a line is perforated.
 */
import type { Cutting } from '../job/setup.ts';
import {
  circleOf,
  directionOn,
  distance,
  nearestOnPath,
  type Path,
  type Point,
  pathLength,
  pointOn,
  type Segment,
  segmentLength,
  splitPath,
  stepsOf,
} from '../plane/index.ts';
import { cornersOf } from '../shape/index.ts';

/** A corner that turns by this much hides the mark of a start, radians. */
const hidingTurn = 0.35;

/** Where a closed way may start: its corners, the sharpest first; of a smooth one the joints of its segments. */
export function startPlaces(path: Path, start: Cutting['start']): Point[] {
  if (start !== 'corner') return [nearestOnPath(path, start).point];
  const corners = cornersOf(path)
    .filter(({ turn }) => Math.abs(turn) > hidingTurn)
    .sort((a, b) => Math.abs(b.turn) - Math.abs(a.turn));
  return corners.length > 0 ? corners.map(({ at }) => at) : stepsOf(path).map(({ from }) => from);
}

/** The same closed path, started at a place on it. */
export function startedAt(path: Path, at: Point): Path {
  const { index, t } = nearestOnPath(path, at);
  const { from, segment } = stepsOf(path)[index] as ReturnType<typeof stepsOf>[0];
  const isEnd = distance(at, segment.to) < 1e-7;
  const isStart = distance(at, from) < 1e-7;
  if (isStart || isEnd) {
    const k = isStart ? index : (index + 1) % path.segments.length;
    const segments = [...path.segments.slice(k), ...path.segments.slice(0, k)];
    return { start: (path.segments.at(k - 1) as Segment).to, segments, closed: true };
  }
  return { ...(splitPath(path, index, t)[0] as Path), closed: true };
}

/** The part of a path from one length along it to another; beyond a closed path's end it goes on from the start. */
export function partAlong(path: Path, from: number, to: number): Path {
  const segments: Segment[] = [];
  let start: Point | null = null;
  let at = 0;
  const steps = stepsOf(path);
  const rounds = path.closed ? Math.max(1, Math.ceil(to / Math.max(pathLength(path), 1e-9))) : 1;
  for (let round = 0; round < rounds; round++) {
    for (const { from: p, segment } of steps) {
      const length = segmentLength(p, segment);
      const [a, b] = [Math.max(0, from - at), Math.min(length, to - at)];
      at += length;
      if (b - a <= 1e-9 || length === 0) continue;
      const open: Path = { start: p, segments: [segment], closed: false };
      const tail = a > 1e-9 ? (splitPath(open, 0, shareAt(p, segment, a, length))[1] as Path) : open;
      const left = length - a;
      const part =
        b - a < left - 1e-9 ? (splitPath(tail, 0, shareAt(tail.start, tail.segments[0] as Segment, b - a, left))[0] as Path) : tail;
      start ??= part.start;
      segments.push(...part.segments);
    }
  }
  return { start: start ?? path.start, segments, closed: false };
}

/** Which `t` lies so far along a segment: of lines and arcs the share of the length, of others by halving. */
function shareAt(from: Point, segment: Segment, length: number, whole: number): number {
  if (segment.kind === 'line' || segment.kind === 'arc') return length / whole;
  let [low, high] = [0, 1];
  for (let k = 0; k < 40; k++) {
    const middle = (low + high) / 2;
    const [first] = splitPath({ start: from, segments: [segment], closed: false }, 0, middle);
    if (pathLength(first as Path) < length) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Where a way may be left uncut: straight, or bent no more tightly than this many bridge widths. */
const widestBend = 3;

/** Lengths along a way, in its middle, where bridges stand: evenly, moved off corners and tight bends. */
export function tabPlaces(path: Path, { count, spacingMm, widthMm }: Cutting['tabs']): number[] {
  const length = pathLength(path);
  const wanted = spacingMm > 0 ? Math.floor(length / spacingMm) : count;
  const most = Math.floor(length / (4 * widthMm));
  const n = Math.min(wanted, most);
  if (n < 1) return [];
  const spots = calmLengths(path, widthMm);
  const taken: number[] = [];
  for (let k = 0; k < n; k++) {
    const ideal = ((k + 0.5) * length) / n;
    const free = spots.filter((s) => taken.every((t) => Math.min(Math.abs(t - s), length - Math.abs(t - s)) >= 2 * widthMm));
    if (free.length === 0) break;
    taken.push(free.reduce((best, s) => (Math.abs(s - ideal) < Math.abs(best - ideal) ? s : best)));
  }
  return taken.sort((a, b) => a - b);
}

/** Lengths along a path about which it is calm for more than a bridge's width. */
function calmLengths(path: Path, widthMm: number): number[] {
  const calm: number[] = [];
  let at = 0;
  for (const { from, segment } of stepsOf(path)) {
    const length = segmentLength(from, segment);
    if (length > 2 * widthMm) {
      const steps = Math.min(40, Math.max(1, Math.floor(length / widthMm)));
      for (let k = 0; k < steps; k++) {
        const t = (k + 0.5) / steps;
        const s = t * length;
        if (s > widthMm && length - s > widthMm && radiusAt(from, segment, t) > widestBend * widthMm) calm.push(at + s);
      }
    }
    at += length;
  }
  return calm;
}

function radiusAt(from: Point, segment: Segment, t: number): number {
  if (segment.kind === 'line') return Infinity;
  if (segment.kind === 'arc') return circleOf(from, segment).radius;
  const step = 0.02;
  const [a, b] = [Math.max(0, t - step), Math.min(1, t + step)];
  const [d, e] = [directionOn(from, segment, a), directionOn(from, segment, b)];
  const turn = Math.abs(Math.atan2(d.x * e.y - d.y * e.x, d.x * e.x + d.y * e.y));
  return distance(pointOn(from, segment, a), pointOn(from, segment, b)) / Math.max(turn, 1e-9);
}

/** A way without the parts where bridges stand; between them in order of travel. */
export function withoutTabs(path: Path, places: readonly number[], gapMm: number): Path[] {
  if (places.length === 0) return [path];
  const length = pathLength(path);
  const gaps = places.map((s) => [s - gapMm / 2, s + gapMm / 2] as const);
  return gaps.map(([, end], k) => {
    const next = gaps[k + 1] ?? [(gaps[0] as readonly [number, number])[0] + length, 0];
    return partAlong(path, end, next[0]);
  });
}

/** The parts of a line that are cut where it is perforated: evenly, what is left between just as wide as asked, an open line's ends cut. */
export function perforated(path: Path, { cutMm, leftMm }: Cutting['perforation']): Path[] {
  const length = path.closed ? pathLength(path) : pathLength(path) + leftMm;
  const count = Math.max(1, Math.round(length / (cutMm + leftMm)));
  const pitch = length / count;
  if (pitch <= leftMm) return [path];
  return Array.from({ length: count }, (_, k) => partAlong(path, k * pitch, (k + 1) * pitch - leftMm));
}
