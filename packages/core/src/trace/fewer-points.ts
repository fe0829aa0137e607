/** In: a run of a path. Out: the same contour with fewer points, fitted anew within a tolerance. */
import { type Path, type Step, stepsOf, transformedPath } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { chordPoints, pointOn, type Segment, segmentLength } from '../plane/segment.ts';
import { stretch } from '../plane/transform.ts';
import { openPathAlong } from './outline.ts';

/**
 * A run of a path fitted anew along its own contour, with fewer points.
 * @param first and `last` are points of the path, `last` after `first`
 * @param toleranceMm how far it may leave the old contour
 */
export function withFewerPoints(path: Path, first: number, last: number, toleranceMm: number): Path {
  const steps = stepsOf(path).slice(first, last);
  if (steps.length < 2) return path;
  const length = steps.reduce((sum, { from, segment }) => sum + segmentLength(from, segment), 0);
  const pitch = Math.max(length / 4000, Math.min(toleranceMm, length / 200));
  const points = [(steps[0] as Step).from, ...steps.flatMap(({ from, segment }) => evenly(from, segment, pitch))];
  const ends = [points[0] as Point, points.at(-1) as Point] as const;
  const scale = 1 / pitch;
  const scaled = (p: Point): Point => ({ x: p.x * scale, y: p.y * scale });
  const fitted = openPathAlong(
    Float64Array.from(points.flatMap((p) => [p.x * scale, p.y * scale])),
    [scaled(ends[0]), scaled(ends[1])],
    0.1,
    0.005,
    toleranceMm * scale,
  );
  if (fitted.segments.length >= steps.length) return path;
  const made = transformedPath(fitted, stretch(pitch)).segments;
  const kept: Segment[] = [...made.slice(0, -1), { ...(made.at(-1) as Segment), to: ends[1] }];
  return { ...path, segments: [...path.segments.slice(0, first), ...kept, ...path.segments.slice(last)] };
}

/** Places along a segment about so far apart, its end with them. */
function evenly(from: Point, segment: Segment, pitch: number): Point[] {
  const count = Math.max(1, Math.round(segmentLength(from, segment) / pitch));
  if (segment.kind === 'line')
    return Array.from({ length: count }, (_, k) => (k === count - 1 ? segment.to : pointOn(from, segment, (k + 1) / count)));
  const fine = chordPoints(from, segment, pitch / 50);
  return fine.length >= count ? fine : Array.from({ length: count }, (_, k) => pointOn(from, segment, (k + 1) / count));
}
