/**
 * In: a path: a start point and its segments, open or closed. Out: its measures, parts and images.
 * A closed path ends where it starts; its last segment says how it gets back.
 */
import { type Box, boxAround, boxAroundBoxes, boxDistance } from './box.ts';
import { type CachedSegment, cachedSegments } from './cached-segment.ts';
import { opsOf } from './curves.ts';
import { ellipseHalves } from './ellipse.ts';
import { distance, type Point } from './point.ts';
import { chordPoints, type Nearest, nearestOnSegment, reduced, type Segment, splitSegment, transformedSegment } from './segment.ts';
import { apply, type Transform } from './transform.ts';

export interface Path {
  readonly start: Point;
  readonly segments: readonly Segment[];
  readonly closed: boolean;
}

/** A segment of a path together with the point where it starts. */
export interface Step {
  readonly from: Point;
  readonly segment: Segment;
}

/** The path's segments, each with where it starts. */
export function stepsOf(path: Path): Step[] {
  let from = path.start;
  return path.segments.map((segment) => {
    const step = { from, segment };
    from = segment.to;
    return step;
  });
}

/** The path's steps in the kinds that a file or a machine takes; see `reduced`. */
export function reducedSteps<K extends Segment['kind']>(
  path: Path,
  kinds: readonly K[],
  tolerance: number,
): { readonly from: Point; readonly segment: Extract<Segment, { kind: K }> }[] {
  let start = path.start;
  return stepsOf(path).flatMap(({ from, segment }) =>
    reduced(from, segment, kinds, tolerance).map((part) => {
      const step = { from: start, segment: part };
      start = part.to;
      return step;
    }),
  );
}

export function pathLength(path: Path): number {
  return cachedSegments(path).reduce((sum, { length }) => sum + length, 0);
}

const areas = new WeakMap<Path, number>();

/** The area inside a closed path, counter-clockwise positive (y up); kept by identity. Refuses an open path. */
export function pathArea(path: Path): number {
  if (!path.closed) throw new RangeError('an open path has no area');
  let area = areas.get(path);
  if (area === undefined) {
    area = areaOf(path);
    areas.set(path, area);
  }
  return area;
}

function areaOf(path: Path): number {
  // Measured from the start, so that a small piece far from the origin keeps its digits.
  const { x, y } = path.start;
  let area = 0;
  for (const step of cachedSegments(path)) {
    const { from, segment } = step;
    area += ((from.x - x) * (segment.to.y - y) - (from.y - y) * (segment.to.x - x)) / 2 + step.areaBesideChord;
  }
  return area;
}

/** The tight box round the path: extremes of arcs and curves, not of their handles. */
export function pathBox(path: Path): Box {
  return boxAroundBoxes(cachedSegments(path).map(({ box }) => box)) ?? (boxAround([path.start]) as Box);
}

/**
 * The nearest place on a path: which segment, where on it, and how far; of several as near the first. Refuses a path without
 * segments. Only segments whose boxes come as near as the best so far are looked at, the nearest box first.
 */
export function nearestOnPath(path: Path, p: Point): Nearest & { readonly index: number } {
  const steps = cachedSegments(path);
  let [nearestBox, min] = [0, Infinity];
  for (let k = 0; k < steps.length; k++) {
    const away = boxDistance((steps[k] as CachedSegment).box, p);
    if (away < min) [nearestBox, min] = [k, away];
  }
  let best: (Nearest & { index: number }) | null = null;
  const look = (index: number): void => {
    const { from, segment, box } = steps[index] as CachedSegment;
    if (best && boxDistance(box, p) > best.distance) return;
    const near = nearestOnSegment(from, segment, p);
    if (!best || near.distance < best.distance || (near.distance === best.distance && index < best.index)) best = { ...near, index };
  };
  if (steps.length > 0) look(nearestBox);
  for (let k = 0; k < steps.length; k++) if (k !== nearestBox) look(k);
  if (!best) throw new RangeError('a path without segments has no nearest point');
  return best;
}

/** The same path with a point more: segment `index` is split at `t`, strictly between 0 and 1. */
export function withPoint(path: Path, index: number, t: number): Path {
  const step = stepsOf(path)[index];
  if (!step || !(t > 0 && t < 1)) throw new RangeError(`no place ${t} on segment ${index}`);
  const segments = [...path.segments];
  segments.splice(index, 1, ...splitSegment(step.from, step.segment, t));
  return { ...path, segments };
}

/** The two parts of an open path on either side of a place, or a closed path opened there (one part). */
export function splitPath(path: Path, index: number, t: number): Path[] {
  const { start, segments } = withPoint(path, index, t);
  const at = (segments[index] as Segment).to;
  const [before, after] = [segments.slice(0, index + 1), segments.slice(index + 1)];
  if (path.closed) return [{ start: at, segments: [...after, ...before], closed: false }];
  return [
    { start, segments: before, closed: false },
    { start: at, segments: after, closed: false },
  ];
}

/** A path whose curves do not cross themselves: where one does, its loop goes and a corner is left. */
export function withoutLoops(path: Path): Path {
  let isChanged = false;
  const segments = stepsOf(path).flatMap(({ from, segment }): Segment[] => {
    const loop = opsOf(segment).loop?.(from, segment);
    if (!loop) return [segment];
    isChanged = true;
    const [t, u] = loop;
    const [before] = splitSegment(from, segment, t);
    const [, after] = splitSegment(from, segment, u);
    return [before, after];
  });
  return isChanged ? { ...path, segments } : path;
}

export function reversedPath(path: Path): Path {
  return {
    start: path.segments.at(-1)?.to ?? path.start,
    segments: cachedSegments(path)
      .map((step) => step.reversed)
      .reverse(),
    closed: path.closed,
  };
}

/** The path in another plane; under a stretch arcs become cubics within `tolerance` of the new plane. */
export function transformedPath(path: Path, t: Transform, tolerance = 0.001): Path {
  return {
    start: apply(t, path.start),
    segments: stepsOf(path).flatMap(({ from, segment }) => transformedSegment(from, segment, t, tolerance)),
    closed: path.closed,
  };
}

/** Points whose chords leave the path by at most `tolerance`; a closed path does not repeat its start. */
export function polygonOf(path: Path, tolerance: number): Point[] {
  const points = [path.start];
  for (const { from, segment } of stepsOf(path)) points.push(...chordPoints(from, segment, tolerance));
  if (path.closed && points.length > 1 && distance(points.at(-1) as Point, path.start) < 1e-9) points.pop();
  return points;
}

/** The same, a closed path back at its start. */
export function chordsOf(path: Path, tolerance: number): Point[] {
  const points = polygonOf(path, tolerance);
  return path.closed ? [...points, path.start] : points;
}

/** The path that encloses the most, either way round; null for none. */
export const largestPath = (paths: readonly Path[]): Path | null =>
  paths.reduce<Path | null>((best, path) => (best === null || Math.abs(pathArea(path)) > Math.abs(pathArea(best)) ? path : best), null);

/** Where the sides of a closed polygon cross a level line: their x, in the sides' order. */
export const levelCrossings = (polygon: readonly Point[], y: number): number[] =>
  polygon.flatMap((a, k) => {
    const b = polygon[(k + 1) % polygon.length] as Point;
    return a.y > y !== b.y > y ? [a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)] : [];
  });

/** Whether a point lies inside a closed path (even-odd), to within `tolerance` of its border. */
export function isInside(path: Path, p: Point, tolerance = 0.001): boolean {
  const polygon = polygonOf(path, tolerance);
  let inside = false;
  let a = polygon.at(-1) as Point;
  for (const b of polygon) {
    if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
    a = b;
  }
  return inside;
}

/** Where it ends; of a closed path where it starts. */
export const endOf = (path: Path): Point => path.segments.at(-1)?.to ?? path.start;

/** A closed path of straight sides through the corners given. Refuses fewer than three. */
export function polygonPath(corners: readonly Point[]): Path {
  const [start, ...rest] = corners;
  if (!start || rest.length < 2) throw new RangeError('a polygon needs three corners');
  return { start, segments: [...rest, start].map((to) => ({ kind: 'line', to })), closed: true };
}

/** The sides of a box, counter-clockwise. */
export const rectanglePath = ({ minX, minY, maxX, maxY }: Box): Path =>
  polygonPath([
    { x: minX, y: minY },
    { x: maxX, y: minY },
    { x: maxX, y: maxY },
    { x: minX, y: maxY },
  ]);

/** A whole circle as two half arcs, counter-clockwise. */
export function circlePath(centre: Point, radius: number): Path {
  const [right, left] = [
    { x: centre.x + radius, y: centre.y },
    { x: centre.x - radius, y: centre.y },
  ];
  return {
    start: right,
    segments: [
      { kind: 'arc', to: left, sweep: Math.PI },
      { kind: 'arc', to: right, sweep: Math.PI },
    ],
    closed: true,
  };
}

/** A whole ellipse as two halves, counter-clockwise. */
export const ellipsePath = (centre: Point, a: number, b: number, angle: number): Path => ({
  ...ellipseHalves(centre, a, b, angle),
  closed: true,
});
