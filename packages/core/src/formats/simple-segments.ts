/**
 * In: a segment or a path. Out: it told with lines and circular arcs only, or with straight lines only, within a tolerance; what
 * is a line or an arc already stays exact.
 */
import { cubicAsArcs } from '../plane/biarc.ts';
import { type Path, polygonOf } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { type ArcSegment, asCubics, type LineSegment, type Segment } from '../plane/segment.ts';

/** Lines and arcs along a segment, which leave it by at most `tolerance`. */
export function segmentAsArcs(from: Point, segment: Segment, tolerance: number): (LineSegment | ArcSegment)[] {
  if (segment.kind === 'line' || segment.kind === 'arc') return [segment];
  // Of the tolerance a tenth goes to the cubics that stand for an ellipse.
  const cubics = asCubics(from, segment, tolerance / 10);
  let start = from;
  return cubics.flatMap((cubic) => {
    const arcs = cubicAsArcs(start, cubic, 0.9 * tolerance);
    start = cubic.to;
    return arcs;
  });
}

/** A closed path comes back to its start. */
export function pathAsLines(path: Path, tolerance: number): Point[] {
  const points = polygonOf(path, tolerance);
  return path.closed ? [...points, path.start] : points;
}
