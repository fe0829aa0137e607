/// <reference path="./cdt2d.d.ts" />
/**
 * In: two sets of contours, the one within the other. Out: triangles over the area between them that have no other vertices than theirs: the
 * constrained Delaunay triangulation (Chew 1989), which joins the one contour to the other rather than to itself.
 */
import cdt2d from 'cdt2d';
import type { Point } from '../plane/index.ts';

export type Contour = readonly Point[];

export class RingError extends Error {}

/**
 * Triangles of the area that an odd number of the contours lies around, counter-clockwise.
 * @param isFlat whether all contours lie at one height: then any triangles will do
 * @returns places in all contours one after another, three a triangle
 * @throws RingError where contours meet, or all places lie on one line
 */
export function ringTriangles(contours: readonly Contour[], isFlat = false): Uint32Array {
  const points = contours.flat();
  const edges: [number, number][] = [];
  let first = 0;
  for (const contour of contours) {
    contour.forEach((_, k) => void edges.push([first + k, first + ((k + 1) % contour.length)]));
    first += contour.length;
  }
  const made: number[] = [];
  for (const [a, b, c] of cdt2d(
    points.map(({ x, y }) => [x, y] as const),
    edges,
    { delaunay: !isFlat, interior: true, exterior: false },
  )) {
    // biome-ignore format: one line
    const [p, q, r] = [points[a], points[b], points[c]] as [Point, Point, Point];
    if ((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x) > 0) made.push(a, b, c);
    else made.push(a, c, b);
  }
  // Every edge of a contour borders the area once.
  if (borderOf(made, points.length) !== edges.length) throw new RingError('contours meet');
  return Uint32Array.from(made);
}

/** How many edges of the triangles are there once. */
function borderOf(triangles: readonly number[], places: number): number {
  const once = new Set<number>();
  for (let k = 0; k < triangles.length; k += 3)
    for (let j = 0; j < 3; j++) {
      const [a, b] = [triangles[k + j] as number, triangles[k + ((j + 1) % 3)] as number];
      const key = Math.min(a, b) * places + Math.max(a, b);
      if (!once.delete(key)) once.add(key);
    }
  return once.size;
}
