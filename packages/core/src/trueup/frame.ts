/**
 * In: a frame whose four corners may have been marked crosswise. Out: the same with its corners in turn.
 * Of the three ways to go round four places only one does not cross itself; which of its sides is the stated width follows from
 * their lengths.
 */

import { cross, distance, type Point } from '../plane/point.ts';
import type { TrueUpMark } from './mark-kinds.ts';

const between = (a: Point, b: Point): Point => ({ x: b.x - a.x, y: b.y - a.y });

/** Whether four places turn the same way at each corner. */
function isConvex(p: readonly Point[]): boolean {
  const turns = p.map((at, k) => {
    const [next, after] = [p[(k + 1) % 4] as Point, p[(k + 2) % 4] as Point];
    return Math.sign(cross(between(at, next), between(next, after)));
  });
  return turns.every((turn) => turn === turns[0]);
}

/** The very mark where its corners are in turn already, or in no order that makes a rectangle. */
export function cornersInTurn(mark: TrueUpMark): TrueUpMark {
  const [a, b, c, d] = mark.points as [Point, Point, Point, Point];
  if (isConvex([a, b, c, d])) return mark;
  const round = [
    [a, c, b, d],
    [a, b, d, c],
  ].find(isConvex) as [Point, Point, Point, Point] | undefined;
  if (!round) return mark;
  const [width, height] = mark.stated as [number, number];
  // Either of the sides that meet in the first corner may be the width.
  const [p, q, r, s] = round;
  const level = distance(p, q) + distance(r, s);
  const plumb = distance(q, r) + distance(s, p);
  const isTurned = Math.abs(Math.log((level / plumb) * (height / width))) > Math.abs(Math.log((plumb / level) * (height / width)));
  return { ...mark, points: isTurned ? [p, s, r, q] : round };
}
