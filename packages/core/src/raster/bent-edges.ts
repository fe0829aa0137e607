/**
 * In: contours of a picture. Out: long stretches that a lens could have made of straight edges: they turn slowly.
 */
import type { Point } from '../plane/point.ts';
import type { Contour } from './contours.ts';

const windowPoints = 24;
/** Within a window an edge turns less than this, and in all less than that, radians. */
const windowTurn = 0.06;
const wholeTurn = 0.4;
/** At its ends corners are rounded: so many places are left out. */
const endPoints = 12;
/** How many points are taken along each edge. */
const places = 120;
/** Where ink is cut off by the picture's own rim there is no edge, px. */
const rimPx = 4;

/** Edges of at least `minPx`, each as places along it. */
export function bentEdges(contours: readonly Contour[], minPx: number, { width, height }: { width: number; height: number }): Point[][] {
  return contours.flatMap(({ points }) => stretchesOf(points, minPx)).filter((edge) => !edge.some(({ x, y }) => x < rimPx || y < rimPx || x > width - rimPx || y > height - rimPx)); // biome-ignore format: one line
}

function stretchesOf(points: Contour['points'], minPx: number): Point[][] {
  const count = points.length / 2;
  if (count < minPx) return [];
  const at = (k: number): Point => ({ x: points[2 * (k % count)] as number, y: points[2 * (k % count) + 1] as number });
  const directionAt = (k: number): number => {
    const [p, q] = [at(k), at(k + windowPoints)];
    return Math.atan2(q.y - p.y, q.x - p.x);
  };
  const turnAt = (k: number): number => {
    const turn = directionAt(k + windowPoints) - directionAt(k);
    return turn - 2 * Math.PI * Math.round(turn / (2 * Math.PI));
  };
  const found: Point[][] = [];
  for (let start = 0; start + 2 * windowPoints < count; ) {
    let [end, turned] = [start, 0];
    while (end + 2 * windowPoints < count && Math.abs(turnAt(end)) < windowTurn) {
      turned += turnAt(end) / windowPoints;
      if (Math.abs(turned) > wholeTurn) break;
      end++;
    }
    const [first, last] = [start + endPoints, end + windowPoints - endPoints];
    if (last > first && Math.hypot(at(last).x - at(first).x, at(last).y - at(first).y) >= minPx)
      found.push(Array.from({ length: places }, (_, k) => at(Math.round(first + ((last - first) * k) / (places - 1)))));
    start = Math.max(end, start) + windowPoints;
  }
  return found;
}
