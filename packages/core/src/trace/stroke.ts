/**
 * A drawn line as it was read from the picture: the points of its middle, its width, and what its ends join.
 */
import type { Point } from '../plane/point.ts';

/** A stroke: runs joined where they run on, with where its ends must lie; null where they are free. */
export interface Stroke {
  readonly points: Float64Array;
  readonly width: number;
  readonly closed: boolean;
  readonly isDashed: boolean;
  /** Which of several inks it is drawn with; 0 where there is one. */
  readonly kind: number;
  readonly ends: readonly [StrokeEnd, StrokeEnd];
}

export interface StrokeEnd {
  readonly at: Point;
  readonly out: Point;
  /** Where the end must lie; null where it is free. */
  readonly target: Point | null;
  /** Whether it is to lie on another stroke that runs through. */
  readonly isOnThrough: boolean;
}

/** Points, x and y in turn, from one end or the other. */
export function walkedFrom(points: Float64Array, side: 0 | 1): number[] {
  if (side === 0) return Array.from(points);
  const turned: number[] = [];
  for (let k = points.length - 2; k >= 0; k -= 2) turned.push(points[k] as number, points[k + 1] as number);
  return turned;
}
