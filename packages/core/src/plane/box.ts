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
  let box: Box | null = null;
  for (const p of points) {
    box = box
      ? {
          minX: Math.min(box.minX, p.x),
          minY: Math.min(box.minY, p.y),
          maxX: Math.max(box.maxX, p.x),
          maxY: Math.max(box.maxY, p.y),
        }
      : { minX: p.x, minY: p.y, maxX: p.x, maxY: p.y };
  }
  return box;
}

export function boxAroundBoxes(boxes: Iterable<Box>): Box | null {
  const corners: Point[] = [];
  for (const b of boxes) corners.push({ x: b.minX, y: b.minY }, { x: b.maxX, y: b.maxY });
  return boxAround(corners);
}

export const widthOf = (box: Box): number => box.maxX - box.minX;
export const heightOf = (box: Box): number => box.maxY - box.minY;
export const centreOf = (box: Box): Point => ({ x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 });
