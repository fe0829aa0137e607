/**
 * In: points. Out: their convex hull.
 * Rests on: Andrew 1979 (monotone chain).
 */
import { cross, type Point, subtract } from '../plane/point.ts';

/** Corners of the hull in turn; fewer than three where all points lie in one line. */
export function convexHull(points: readonly Point[]): Point[] {
  const sorted = points.toSorted((a, b) => a.x - b.x || a.y - b.y);
  const half = (list: readonly Point[]): Point[] => {
    const chain: Point[] = [];
    for (const p of list) {
      while (chain.length > 1 && cross(subtract(chain.at(-1) as Point, chain.at(-2) as Point), subtract(p, chain.at(-1) as Point)) <= 0)
        chain.pop();
      chain.push(p);
    }
    chain.pop();
    return chain;
  };
  return sorted.length < 3 ? sorted : [...half(sorted), ...half(sorted.toReversed())];
}

/** The area of a polygon of corners in turn, either way round. */
export const polygonArea = (corners: readonly Point[]): number =>
  Math.abs(corners.reduce((sum, p, k) => sum + cross(p, corners[(k + 1) % corners.length] as Point), 0)) / 2;

/** The same hull with at most `max` corners: those that add least area go first. */
export function simplerHull(hull: readonly Point[], max: number): Point[] {
  const kept = [...hull];
  while (kept.length > max) {
    let [at, min] = [0, Infinity];
    kept.forEach((p, k) => {
      const [a, b] = [kept.at(k - 1) as Point, kept[(k + 1) % kept.length] as Point];
      const area = Math.abs(cross(subtract(p, a), subtract(b, a)));
      if (area < min) [at, min] = [k, area];
    });
    kept.splice(at, 1);
  }
  return kept;
}
