/**
 * In: outlines, and the axis that they are to be mirrored about. Out: what is mirrored: one half of them, or all with
 * loose ends led on to the axis or cut off at it, so that each meets its image.
 */
import { endOf, type Path, reversedPath, stepsOf } from '../plane/path.ts';
import { cross, distance, dot, type Point, subtract, unitVector } from '../plane/point.ts';
import { pointOn, type Segment } from '../plane/segment.ts';
import { concatenated, splitAtPlaces } from './chains.ts';
import { nested } from './combine.ts';
import { cutByLine, extended } from './joining.ts';
import { pathCrossings } from './path-crossings.ts';

/** Seen along the axis from its first place to its second. */
export type HalfSide = 'left' | 'right';

/** What lies no farther from the axis than this lies on it, mm. */
const onAxisMm = 1e-6;
/** An end may go so many times its distance to meet the axis along its own course; a slanter one goes straight across. */
const maxSlant = 3;

interface Axis {
  readonly side: (p: Point) => number;
  readonly foot: (p: Point) => Point;
  /** A straight path along it, past everything. */
  readonly line: Path;
}

/**
 * @param keeps the half that is kept, seen from `a` to `b`; null keeps all
 * @param reachMm loose ends no farther from the axis are led on to it, and tails no farther beyond it are cut off
 */
export function halfAtAxis(paths: readonly Path[], a: Point, b: Point, keeps: HalfSide | null, reachMm: number): Path[] {
  if (!keeps && reachMm <= 0) return [...paths];
  const axis = axisThrough(a, b, paths);
  const halves = keeps ? halvesOf(paths, a, b, axis, keeps) : paths;
  if (reachMm <= 0) return [...halves];
  return halves.map((path) => (path.closed ? path : reversedPath(endAtAxis(reversedPath(endAtAxis(path, axis, reachMm)), axis, reachMm))));
}

function axisThrough(a: Point, b: Point, paths: readonly Path[]): Axis {
  const d = unitVector(subtract(b, a));
  const along = (p: Point): number => dot(d, subtract(p, a));
  const at = (t: number): Point => ({ x: a.x + t * d.x, y: a.y + t * d.y });
  let farthest = 1;
  for (const path of paths)
    for (const { from, segment } of stepsOf(path)) for (const p of hull(from, segment)) farthest = Math.max(farthest, distance(p, a));
  const reach = 2 * farthest;
  return {
    side: (p) => cross(d, subtract(p, a)),
    foot: (p) => at(along(p)),
    line: { start: at(-reach), segments: [{ kind: 'line', to: at(reach) }], closed: false },
  };
}

const hull = (from: Point, segment: Segment): Point[] =>
  segment.kind === 'cubic' ? [from, segment.c1, segment.c2, segment.to] : [from, pointOn(from, segment, 0.5), segment.to];

/** The side of the axis that most of a path lies on: that of its place farthest from the axis; 0 along the axis. */
function sideOf(path: Path, { side }: Axis): number {
  const offs = stepsOf(path).flatMap(({ from, segment }) => [0.25, 0.5, 0.75, 1].map((t) => side(pointOn(from, segment, t))));
  const max = offs.reduce((best, off) => (Math.abs(off) > Math.abs(best) ? off : best), 0);
  return Math.abs(max) <= onAxisMm ? 0 : Math.sign(max);
}

/** Areas cut along the axis, and the stretches of open paths on one side of it; what runs along the axis is on neither. */
function halvesOf(paths: readonly Path[], a: Point, b: Point, axis: Axis, keeps: HalfSide): Path[] {
  const areas = nested(paths.filter(({ closed }) => closed)).flatMap((piece) => cutByLine(piece, a, b)[keeps]);
  const kept = keeps === 'left' ? 1 : -1;
  const open = paths
    .filter(({ closed }) => !closed)
    .flatMap((path) => splitAtPlaces(path, pathCrossings([path], [axis.line]).onA).filter((run) => sideOf(run, axis) === kept));
  return [...areas.flatMap(({ outer, holes }) => [outer, ...holes]), ...open];
}

/** An open path whose end meets the axis, where that lies within reach. */
function endAtAxis(path: Path, axis: Axis, reachMm: number): Path {
  const own = sideOf(path, axis);
  if (own === 0) return path;
  const trimmed = withoutTail(path, axis, own, reachMm);
  const end = endOf(trimmed);
  const off = Math.abs(axis.side(end));
  if (off <= onAxisMm) return withEnd(trimmed, axis.foot(end));
  if (off > reachMm) return trimmed;
  const longer = extended(trimmed, 'end', [axis.line], maxSlant * off);
  if (longer && distance(endOf(longer), end) <= maxSlant * off) return withEnd(longer, axis.foot(endOf(longer)));
  return { ...trimmed, segments: [...trimmed.segments, { kind: 'line', to: axis.foot(end) }] };
}

/** Without what comes after the last passing of the axis, where that stays within reach beyond it. */
function withoutTail(path: Path, axis: Axis, own: number, reachMm: number): Path {
  if (axis.side(endOf(path)) * own >= -onAxisMm) return path;
  const { onA } = pathCrossings([path], [axis.line]);
  const runs = splitAtPlaces(path, onA);
  const tail = runs.at(-1);
  if (runs.length < 2 || !tail) return path;
  const farthest = Math.max(...stepsOf(tail).flatMap(({ from, segment }) => hull(from, segment).map((p) => Math.abs(axis.side(p)))));
  return farthest <= reachMm ? concatenated(runs.slice(0, -1), false) : path;
}

function withEnd(path: Path, to: Point): Path {
  const last = path.segments.at(-1) as Segment;
  return { ...path, segments: [...path.segments.slice(0, -1), { ...last, to }] };
}
