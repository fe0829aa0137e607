/**
 * In: outlines and an axis, a centre or a grid. Out: them with their images; where images meet they are joined, where they
 * overlap they are united.
 */
import { cachedSegments } from '../plane/cached-segment.ts';
import { endOf, type Path, pathArea, pathLength, reversedPath, stepsOf } from '../plane/path.ts';
import { distance, type Point, subtract, unitVector } from '../plane/point.ts';
import { directionOn, pointOn, type Segment, segmentLength } from '../plane/segment.ts';
import { apply, chain, isIdentity, shift, type Transform, turn } from '../plane/transform.ts';
import { closedExactly, joinChains } from './chains.ts';
import { counterClockwise, nested, overlapsUnited } from './combine.ts';
import { placeAlong } from './corner-cuts.ts';
import { merged } from './merging.ts';

/** The mirror image about the line through two places. */
export function mirrorAbout(a: Point, b: Point): Transform {
  const d = unitVector(subtract(b, a));
  const [c, s] = [d.x * d.x - d.y * d.y, 2 * d.x * d.y];
  const back = shift(-a.x, -a.y);
  return chain(shift(a.x, a.y), chain({ a: c, b: s, c: s, d: -c, e: 0, f: 0 }, back));
}

export const turnAbout = (centre: Point, angle: number): Transform =>
  chain(shift(centre.x, centre.y), chain(turn(angle), shift(-centre.x, -centre.y)));

/** Images that a mirror makes: the outline itself and its image. */
export const mirrorImages = (a: Point, b: Point): Transform[] => [shift(0, 0), mirrorAbout(a, b)];

/**
 * Images about a centre: `count` turned ones; with `mirrored` each has its mirror image beside it, about the line from the
 * centre in direction `axis` (radians).
 */
export function turnedImages(centre: Point, count: number, mirrored: boolean, axis = 0): Transform[] {
  const far = { x: centre.x + Math.cos(axis), y: centre.y + Math.sin(axis) };
  const mirror = mirrorAbout(centre, far);
  return Array.from({ length: count }, (_, k) => turnAbout(centre, (2 * Math.PI * k) / count)).flatMap((image) =>
    mirrored ? [image, chain(image, mirror)] : [image],
  );
}

export interface Copies {
  readonly paths: Path[];
  /** Ends that no other end meets: places and how far the nearest other end is, mm. */
  readonly gaps: { readonly at: Point; readonly gapMm: number }[];
}

/** Under a stretch arcs become curves that leave them by at most this, mm. */
const imageToleranceMm = 0.001;

/** How far ends of images may lie apart to count as meeting, mm. */
const meetMm = 1e-4;

/** The images of outlines, joined where their ends meet, and united where closed ones overlap or touch along a side. */
export function joinedImages(paths: readonly Path[], images: readonly Transform[], meet = meetMm): Copies {
  const [drawnOpen, drawnClosed] = [paths.filter(({ closed }) => !closed), paths.filter(({ closed }) => closed)];
  const imagesOfAll = (drawn: readonly Path[]): Path[][] => images.map((image) => drawn.map((path) => imageOf(path, image)));
  const open = unevenlyJoined(imagesOfAll(drawnOpen).flat(), meet);
  const areas = areasOf(drawnClosed).flatMap((area) => imagesOfAll(area).map(asArea));
  const loops = open.filter(({ closed }) => closed).map((path) => [counterClockwise(path)]);
  const left = open.filter((path) => !path.closed);
  return { paths: [...overlapsUnited([...areas, ...loops]), ...left].map(merged), gaps: gapsOf(left) };
}

/** Closed outlines as areas, each with the holes that lie in it. */
const areasOf = (closed: readonly Path[]): Path[][] =>
  closed.length < 2 ? closed.map((path) => [counterClockwise(path)]) : nested(closed).map(({ outer, holes }) => [outer, ...holes]);

/** The image of an area, turned round again where it was mirrored. */
const asArea = (image: Path[]): Path[] => (pathArea(image[0] as Path) < 0 ? image.map(reversedPath) : image);

/** As `transformedPath` says, every segment's image kept. */
const imageOf = (path: Path, by: Transform): Path => ({
  start: apply(by, path.start),
  segments: imagesOf(path, by),
  closed: path.closed,
});
function imagesOf(path: Path, by: Transform): readonly Segment[] {
  if (isIdentity(by)) return path.segments;
  const segments: Segment[] = [];
  for (const step of cachedSegments(path)) segments.push(...step.imageBy(by, imageToleranceMm));
  return segments;
}

/** Open lines joined end to end, turned round where that is needed. */
function unevenlyJoined(paths: readonly Path[], meet: number): Path[] {
  let now: Path[] = joinChains(paths, meet);
  for (let changed = true; changed; ) {
    changed = false;
    const open = now.filter((path) => !path.closed);
    for (const path of open) {
      const other = open.find((q) => q !== path && (distance(endOf(q), endOf(path)) <= meet || distance(q.start, path.start) <= meet));
      if (!other) continue;
      const turned = reversedPath(other);
      const isAfter = distance(turned.start, endOf(path)) <= meet;
      const [first, second] = isAfter ? [path, turned] : [turned, path];
      const one: Path = { start: first.start, segments: [...first.segments, ...second.segments], closed: false };
      const isClosed = distance(endOf(one), one.start) <= meet;
      now = [...now.filter((p) => p !== path && p !== other), isClosed ? closedExactly({ ...one, closed: true }) : one];
      now = joinChains(now, meet);
      changed = true;
      break;
    }
  }
  return now.map((path) =>
    !path.closed && path.segments.length > 1 && distance(endOf(path), path.start) <= meet ? closedExactly({ ...path, closed: true }) : path,
  );
}

function gapsOf(open: readonly Path[]): Copies['gaps'] {
  const ends = open.flatMap((path) => [path.start, endOf(path)]);
  return ends.map((at, k) => ({ at, gapMm: Math.min(Infinity, ...ends.filter((_, l) => l !== k).map((other) => distance(at, other))) }));
}

/** Shifts of a row, or a grid: columns to the right, rows upward, at even steps. */
export const gridImages = (columns: number, rows: number, stepX: number, stepY: number): Transform[] =>
  Array.from({ length: columns * rows }, (_, k) => shift((k % columns) * stepX, Math.floor(k / columns) * stepY));

/** Images at even steps along a path, starting at its start; turned with it where that is asked. */
export function imagesAlong(path: Path, count: number, from: Point, isTurning: boolean): Transform[] {
  const total = pathLength(path);
  const spans = path.closed ? count : Math.max(1, count - 1);
  return Array.from({ length: count }, (_, k) => {
    const { at, direction } = stationAt(path, (total * k) / spans);
    const home = shift(at.x - from.x, at.y - from.y);
    return isTurning ? chain(home, turnAbout(from, Math.atan2(direction.y, direction.x))) : home;
  });
}

/** The place that a length along a path leads to, and the direction there; beyond the ends the ends. */
export function stationAt(path: Path, length: number): { at: Point; direction: Point } {
  const steps = stepsOf(path);
  let gone = 0;
  for (const [k, { from, segment }] of steps.entries()) {
    const size = segmentLength(from, segment);
    if (length <= gone + size + 1e-12 || k === steps.length - 1) {
      const t = placeAlong({ from, segment }, Math.max(0, Math.min(size, length - gone))) ?? 1;
      return { at: pointOn(from, segment, t), direction: directionOn(from, segment, t) };
    }
    gone += size;
  }
  throw new RangeError('a path without segments has no stations');
}
