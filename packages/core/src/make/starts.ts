/**
 * In: a closed way of the tool, travelled so that the waste lies on its right. Out: where it may start, the way led in and out
 * beside the piece, cut on over its start, and left out where bridges hold the piece.
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
import { cornersOf, windingAbout } from '../shape/index.ts';

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

/** Leads shorter than this are not worth having, mm. */
const leastLead = 0.1;

/**
 * A closed way with its lead-in, its overcut and its lead-out, as one open path. Leads lie in the waste, on the right; where
 * they would reach into material they are made shorter.
 * @param material outlines that no lead may enter
 */
export function ledInAndOut(path: Path, { lead, overcutMm }: Pick<Cutting, 'lead' | 'overcutMm'>, material: readonly Path[]): Path {
  const whole = pathLength(path);
  const over = Math.min(overcutMm, whole / 2);
  const way = over > 0 ? [...path.segments, ...partAlong(path, 0, over).segments] : [...path.segments];
  const [first] = stepsOf(path);
  if (!first) return path;
  const into = leadOf(path.start, directionOn(first.from, first.segment, 0), lead.kind, lead.inMm, material, 'in');
  const end = (way.at(-1) as Segment).to;
  const last = stepsOf({ start: path.start, segments: way, closed: false }).at(-1) as ReturnType<typeof stepsOf>[0];
  const out = leadOf(end, directionOn(last.from, last.segment, 1), lead.kind, lead.outMm, material, 'out');
  if (!into && !out && over === 0) return path;
  return {
    start: into?.start ?? path.start,
    segments: [...(into?.segments ?? []), ...way, ...(out?.segments ?? [])],
    closed: false,
  };
}

function leadOf(
  at: Point,
  direction: Point,
  kind: Cutting['lead']['kind'],
  wanted: number,
  material: readonly Path[],
  which: 'in' | 'out',
): Path | null {
  if (kind === 'none') return null;
  for (let size = wanted; size >= leastLead; size /= 2) {
    const lead = kind === 'line' ? straightLead(at, direction, size, which) : arcLead(at, direction, size, which);
    if (isInWaste(lead, at, material)) return lead;
  }
  return null;
}

/** At half a right angle from the right, so that the tool does not turn back on itself. */
function straightLead(at: Point, d: Point, size: number, which: 'in' | 'out'): Path {
  const way = which === 'in' ? -1 : 1;
  const far = { x: at.x + (size * (d.y + way * d.x)) / Math.SQRT2, y: at.y + (size * (-d.x + way * d.y)) / Math.SQRT2 };
  return which === 'in'
    ? { start: far, segments: [{ kind: 'line', to: at }], closed: false }
    : { start: at, segments: [{ kind: 'line', to: far }], closed: false };
}

/** A quarter of a circle that runs into the way, or out of it, without a corner. */
function arcLead(at: Point, d: Point, radius: number, which: 'in' | 'out'): Path {
  const way = which === 'in' ? -1 : 1;
  const far = { x: at.x + radius * (d.y + way * d.x), y: at.y + radius * (-d.x + way * d.y) };
  return which === 'in'
    ? { start: far, segments: [{ kind: 'arc', to: at, sweep: -Math.PI / 2 }], closed: false }
    : { start: at, segments: [{ kind: 'arc', to: far, sweep: -Math.PI / 2 }], closed: false };
}

function isInWaste(lead: Path, at: Point, material: readonly Path[]): boolean {
  const [{ from, segment }] = stepsOf(lead) as [ReturnType<typeof stepsOf>[0]];
  return [0, 0.25, 0.5, 0.75, 1].every((t) => {
    const p = pointOn(from, segment, t);
    if (distance(p, at) < 1e-6) return true;
    return windingAbout(material, p) === 0;
  });
}
