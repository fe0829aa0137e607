/**
 * In: where a segment starts, and the segment: a line, a circular arc, a part of an ellipse or a cubic curve.
 * Out: its measures and its parts; each kind is worked out in its own file (line, arc, ellipse, cubic).
 */
import * as arc from './arc.ts';
import type { Box } from './box.ts';
import * as cubic from './cubic.ts';
import * as ellipse from './ellipse.ts';
import * as line from './line.ts';
import type { Point } from './point.ts';
import { isFlat, isSimilarity, type Transform } from './transform.ts';

export interface LineSegment {
  readonly kind: 'line';
  readonly to: Point;
}

/** A part of a circle; `sweep` in radians, counter-clockwise positive (y up), more than 0 and less than a full turn. */
export interface ArcSegment {
  readonly kind: 'arc';
  readonly to: Point;
  readonly sweep: number;
}

export interface CubicSegment {
  readonly kind: 'cubic';
  readonly c1: Point;
  readonly c2: Point;
  readonly to: Point;
}

/**
 * A part of an ellipse. `v` is the half diameter conjugate to the one from the centre to the start, so that the ellipse
 * is c + (start - c) cos a + v sin a; `sweep` is that angle's, radians, more than 0 and less than a full turn.
 */
export interface EllipseSegment {
  readonly kind: 'ellipse';
  readonly to: Point;
  readonly centre: Point;
  readonly v: Point;
  readonly sweep: number;
}

export type Segment = LineSegment | ArcSegment | EllipseSegment | CubicSegment;

/** A place on a segment: `t` from 0 to 1, the point, and how far it is from what was asked about. */
export interface Nearest {
  readonly t: number;
  readonly point: Point;
  readonly distance: number;
}

export function segmentLength(from: Point, s: Segment): number {
  if (s.kind === 'line') return line.lineLength(from, s);
  if (s.kind === 'ellipse') return ellipse.ellipseLength(from, s);
  return s.kind === 'arc' ? arc.arcLength(from, s) : cubic.cubicLength(from, s);
}

/** Half the integral of x dy - y dx: summed round a closed path it is the area, counter-clockwise positive. */
export function segmentArea(from: Point, s: Segment): number {
  if (s.kind === 'line') return line.lineArea(from, s);
  if (s.kind === 'ellipse') return ellipse.ellipseArea(from, s);
  return s.kind === 'arc' ? arc.arcArea(from, s) : cubic.cubicArea(from, s);
}

export function segmentBox(from: Point, s: Segment): Box {
  if (s.kind === 'line') return line.lineBox(from, s);
  if (s.kind === 'ellipse') return ellipse.ellipseBox(from, s);
  return s.kind === 'arc' ? arc.arcBox(from, s) : cubic.cubicBox(from, s);
}

export function pointOn(from: Point, s: Segment, t: number): Point {
  if (s.kind === 'line') return line.pointOnLine(from, s, t);
  if (s.kind === 'ellipse') return ellipse.pointOnEllipse(from, s, t);
  return s.kind === 'arc' ? arc.pointOnArc(from, s, t) : cubic.pointOnCubic(from, s, t);
}

/** The direction of travel at `t`, length 1. */
export function directionOn(from: Point, s: Segment, t: number): Point {
  if (s.kind === 'line') return line.directionOnLine(from, s);
  if (s.kind === 'ellipse') return ellipse.directionOnEllipse(from, s, t);
  return s.kind === 'arc' ? arc.directionOnArc(from, s, t) : cubic.directionOnCubic(from, s, t);
}

export function nearestOnSegment(from: Point, s: Segment, p: Point): Nearest {
  if (s.kind === 'line') return line.nearestOnLine(from, s, p);
  if (s.kind === 'ellipse') return ellipse.nearestOnEllipse(from, s, p);
  return s.kind === 'arc' ? arc.nearestOnArc(from, s, p) : cubic.nearestOnCubic(from, s, p);
}

/** The two parts of a segment on either side of `t`; together they are the same curve. */
export function splitSegment(from: Point, s: Segment, t: number): [Segment, Segment] {
  if (s.kind === 'line') return line.splitLine(from, s, t);
  if (s.kind === 'ellipse') return ellipse.splitEllipse(from, s, t);
  return s.kind === 'arc' ? arc.splitArc(from, s, t) : cubic.splitCubic(from, s, t);
}

/** The same curve travelled from its end to `from`. */
export function reversedSegment(from: Point, s: Segment): Segment {
  if (s.kind === 'line') return { kind: 'line', to: from };
  if (s.kind === 'arc') return { kind: 'arc', to: from, sweep: -s.sweep };
  if (s.kind === 'ellipse') return ellipse.reversedEllipse(from, s);
  return { kind: 'cubic', c1: s.c2, c2: s.c1, to: from };
}

/**
 * The segment in another plane, exactly: under a stretch an arc becomes a part of an ellipse. Only where a transform lays the plane
 * on a line does it become cubics, within `tolerance`, in the unit of the new plane.
 */
export function transformedSegment(from: Point, s: Segment, t: Transform, tolerance: number): Segment[] {
  if (s.kind === 'line') return [line.transformedLine(s, t)];
  if (s.kind === 'cubic') return [cubic.transformedCubic(s, t)];
  if (s.kind === 'ellipse') return [ellipse.transformedEllipse(s, t)];
  if (isSimilarity(t)) return [arc.transformedArc(s, t)];
  if (!isFlat(t)) return [arc.stretchedArc(from, s, t)];
  return arc.arcAsCubics(from, s, tolerance / arc.largestStretch(t)).map((c) => cubic.transformedCubic(c, t));
}

/** Points along the segment, its end included and its start left out, whose chords leave it by at most `tolerance`. */
export function chordPoints(from: Point, s: Segment, tolerance: number): Point[] {
  if (s.kind === 'line') return [s.to];
  const count = chordCount(from, s, tolerance);
  return Array.from({ length: count }, (_, k) => (k === count - 1 ? s.to : pointOn(from, s, (k + 1) / count)));
}

function chordCount(from: Point, s: Exclude<Segment, LineSegment>, tolerance: number): number {
  if (s.kind === 'ellipse') return ellipse.chordCount(from, s, tolerance);
  return s.kind === 'arc' ? arc.chordCount(from, s, tolerance) : cubic.chordCount(from, s, tolerance);
}

/** A curved segment as cubics that leave it by at most `tolerance`. */
export function asCubics(from: Point, s: Exclude<Segment, LineSegment>, tolerance: number): CubicSegment[] {
  if (s.kind === 'cubic') return [s];
  return s.kind === 'arc' ? arc.arcAsCubics(from, s, tolerance) : ellipse.ellipseAsCubics(from, s, tolerance);
}
