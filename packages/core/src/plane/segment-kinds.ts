/**
 * The kinds of segment as plain data: a line, a circular arc, a part of an ellipse, a cubic Bezier curve. A segment starts where the
 * one before it ends. What a kind can do stands in its own file and in the table of `curves.ts`.
 */
import type { Box } from './box.ts';
import type { Point } from './point.ts';
import type { Transform } from './transform.ts';

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

/** What can be done with a kind of segment. `from` is where the segment starts, `t` runs from 0 to 1 along it. */
export interface CurveOps<S extends Segment> {
  point(from: Point, s: S, t: number): Point;
  /** The first derivative by `t`. */
  derivative(from: Point, s: S, t: number): Point;
  /** The direction of travel, length 1, also where the derivative vanishes. */
  direction(from: Point, s: S, t: number): Point;
  length(from: Point, s: S): number;
  /** Half the integral of x dy - y dx. */
  area(from: Point, s: S): number;
  box(from: Point, s: S): Box;
  nearest(from: Point, s: S, p: Point): Nearest;
  /** The two parts on either side of `t`; together they are the same curve. */
  split(from: Point, s: S, t: number): [S, S];
  /** The same curve travelled from its end to `from`. */
  reversed(from: Point, s: S): S;
  /** Under an affine map: exactly, where the plane is not laid on a line; else within `tolerance` in the new plane's unit. */
  transformed(from: Point, s: S, t: Transform, tolerance: number): Segment[];
  /** Cubics that leave it by at most `tolerance`. */
  asCubics(from: Point, s: S, tolerance: number): CubicSegment[];
  /** As lines and circular arcs, exactly; kinds without it go by way of cubics. */
  asArcs?(from: Point, s: S): (LineSegment | ArcSegment)[];
  /** The segment `by` to the left of travel, exactly, also past its centre; kinds without it are fitted by way of cubics. */
  offset?(from: Point, s: S, by: number): Segment;
  /** The most that it leaves its chord by, or more; infinite where no bound is known. */
  bow(from: Point, s: S): number;
  /** Whether it moves on along a direction all the way. */
  advances(from: Point, s: S, direction: Point): boolean;
  /** The two values of `t` where it crosses itself; kinds without it never do. */
  loop?(from: Point, s: S): readonly [number, number] | null;
  /** The point that it runs about, of kinds that have one. */
  centre?(from: Point, s: S): Point;
  /** How many chords, of equal parts of `t`, stay within `tolerance`. */
  chordCount(from: Point, s: S, tolerance: number): number;
}
