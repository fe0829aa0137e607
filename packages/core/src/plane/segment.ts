/** In: where a segment starts, and the segment, of any kind. Out: its measures and its parts. */
import { cubicAsArcs } from './biarc.ts';
import type { Box } from './box.ts';
import { opsOf } from './curves.ts';
import type { Point } from './point.ts';
import type { ArcSegment, CubicSegment, LineSegment, Nearest, Segment } from './segment-kinds.ts';
import type { Transform } from './transform.ts';

export type { ArcSegment, CubicSegment, EllipseSegment, LineSegment, Nearest, Segment } from './segment-kinds.ts';

export const segmentLength = (from: Point, s: Segment): number => opsOf(s).length(from, s);

/** Half the integral of x dy - y dx: summed round a closed path it is the area, counter-clockwise positive. */
export const segmentArea = (from: Point, s: Segment): number => opsOf(s).area(from, s);

export const segmentBox = (from: Point, s: Segment): Box => opsOf(s).box(from, s);

export const pointOn = (from: Point, s: Segment, t: number): Point => opsOf(s).point(from, s, t);

/** The first derivative by `t`. */
export const derivativeOn = (from: Point, s: Segment, t: number): Point => opsOf(s).derivative(from, s, t);

/** The direction of travel at `t`, length 1. */
export const directionOn = (from: Point, s: Segment, t: number): Point => opsOf(s).direction(from, s, t);

export const nearestOnSegment = (from: Point, s: Segment, p: Point): Nearest => opsOf(s).nearest(from, s, p);

/** The two parts of a segment on either side of `t`; together they are the same curve. */
export const splitSegment = (from: Point, s: Segment, t: number): [Segment, Segment] => opsOf(s).split(from, s, t);

/** The same curve travelled from its end to `from`. */
export const reversedSegment = (from: Point, s: Segment): Segment => opsOf(s).reversed(from, s);

/** The segment under an affine map: exactly, but where the map lays the plane on a line; there within `tolerance`, in the new plane's unit. */
export const transformedSegment = (from: Point, s: Segment, t: Transform, tolerance: number): Segment[] =>
  opsOf(s).transformed(from, s, t, tolerance);

/** Points along the segment, its end included and its start left out, whose chords leave it by at most `tolerance`. */
export function chordPoints(from: Point, s: Segment, tolerance: number): Point[] {
  const count = opsOf(s).chordCount(from, s, tolerance);
  return Array.from({ length: count }, (_, k) => (k === count - 1 ? s.to : pointOn(from, s, (k + 1) / count)));
}

/** The segment as cubics that leave it by at most `tolerance`. */
export const asCubics = (from: Point, s: Segment, tolerance: number): CubicSegment[] => opsOf(s).asCubics(from, s, tolerance);

/** Lines and circular arcs along a segment, which leave it by at most `tolerance`; what is one already stays exact. */
export function asArcs(from: Point, s: Segment, tolerance: number): (LineSegment | ArcSegment)[] {
  const exact = opsOf(s).asArcs?.(from, s);
  if (exact) return exact;
  // A tenth of the tolerance goes to the cubics.
  let start = from;
  return asCubics(from, s, tolerance / 10).flatMap((cubic) => {
    const arcs = cubicAsArcs(start, cubic, 0.9 * tolerance);
    start = cubic.to;
    return arcs;
  });
}

/**
 * The segment in the kinds that a file or a machine can take: itself where it is one of them, else as arcs where they are taken, else
 * as cubics, else as chords, within `tolerance`.
 */
export function reduced<K extends Segment['kind']>(
  from: Point,
  s: Segment,
  kinds: readonly K[],
  tolerance: number,
): Extract<Segment, { kind: K }>[] {
  const takes = (kind: Segment['kind']): boolean => (kinds as readonly Segment['kind'][]).includes(kind);
  const made: readonly Segment[] = takes(s.kind)
    ? [s]
    : takes('cubic')
      ? asCubics(from, s, tolerance)
      : takes('arc')
        ? asArcs(from, s, tolerance)
        : chordPoints(from, s, tolerance).map((to) => ({ kind: 'line', to }));
  return made as Extract<Segment, { kind: K }>[];
}
