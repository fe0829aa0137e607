/**
 * In and out: boxes along the axes, in the unit of their points.
 */
import type { Point } from './point.ts';

export interface Box {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
}

/** The smallest box around points; null where there are none. */
export function boxAround(points: Iterable<Point>): Box | null {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y } of points) {
    minX = Math.min(minX, x);
    minY = Math.min(minY, y);
    maxX = Math.max(maxX, x);
    maxY = Math.max(maxY, y);
  }
  return minX > maxX ? null : { minX, minY, maxX, maxY };
}

export function boxAroundBoxes(boxes: Iterable<Box>): Box | null {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const box of boxes) {
    minX = Math.min(minX, box.minX);
    minY = Math.min(minY, box.minY);
    maxX = Math.max(maxX, box.maxX);
    maxY = Math.max(maxY, box.maxY);
  }
  return minX > maxX ? null : { minX, minY, maxX, maxY };
}

export const widthOf = (box: Box): number => box.maxX - box.minX;
export const heightOf = (box: Box): number => box.maxY - box.minY;
/** Whether a point lies in a box, or no farther than `room` beyond it on either axis. */
export const isInBox = ({ minX, minY, maxX, maxY }: Box, { x, y }: Point, room = 0): boolean =>
  x >= minX - room && x <= maxX + room && y >= minY - room && y <= maxY + room;
export const centreOf = (box: Box): Point => ({ x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 });

/** How far a point lies from a box; 0 inside. */
export function boxDistance({ minX, minY, maxX, maxY }: Box, { x, y }: Point): number {
  const [dx, dy] = [Math.max(minX - x, x - maxX, 0), Math.max(minY - y, y - maxY, 0)];
  return Math.sqrt(dx * dx + dy * dy);
}
