/**
 * In: a mark and its points in some plane. Out: the lengths that it claims, each with what it comes to in that plane.
 */
import { boxAround, heightOf, widthOf } from '../plane/box.ts';
import { distance, type Point } from '../plane/point.ts';
import { centreOfRim } from './circle.ts';
import type { TrueUpMark } from './marks.ts';

export interface Claim {
  /** Which of the mark's statements. */
  readonly index: number;
  /** mm; a clearance claims its diameter and play together. */
  readonly stated: number;
  /** In the plane's unit. */
  readonly measured: number;
}

const sideOf = (points: readonly Point[], i: number, j: number) => distance(points[i] as Point, points[j] as Point);
const claim = (index: number, stated: number, measured: number): Claim => ({ index, stated, measured });

/** Lines, corners and the scale card claim none. Of a box that is not stretched only the side that touches is claimed. */
export function claimsOf({ kind, stated, way }: TrueUpMark, points: readonly Point[]): Claim[] {
  const [first = 0, second = 0] = stated;
  switch (kind) {
    case 'known-length':
      return [claim(0, first, sideOf(points, 0, 1))];
    case 'clearance':
      return [claim(0, first + second, sideOf(points, 0, 1))];
    case 'frame':
      return [
        claim(0, first, (sideOf(points, 0, 1) + sideOf(points, 2, 3)) / 2),
        claim(1, second, (sideOf(points, 1, 2) + sideOf(points, 3, 0)) / 2),
      ];
    case 'circle':
      return [claim(0, first, 2 * centreOfRim(points).radius)];
    case 'box': {
      const box = boxAround(points) as NonNullable<ReturnType<typeof boxAround>>;
      const both = [claim(0, first, widthOf(box)), claim(1, second, heightOf(box))] as const;
      return way === 'each-side' ? [...both] : [touching(both, way === 'covering')];
    }
    default:
      return [];
  }
}

/** The side that a drawn part touches its box with: the relatively longer one inside it, the shorter one over it. */
export function touching<T extends { readonly stated: number; readonly measured: number }>(
  [wide, high]: readonly [T, T],
  isCovering: boolean,
): T {
  const isWideLonger = wide.measured / wide.stated > high.measured / high.stated;
  return isWideLonger === isCovering ? high : wide;
}
