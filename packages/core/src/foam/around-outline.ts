/** In: an outline. Out: places of it by how far round they lie, with the way out of it there. */
import { distance, type Path, type Point, polygonOf } from '../plane/index.ts';

export interface PlaceAround {
  readonly at: Point;
  /** Square to a counter-clockwise outline, outwards, of length 1. */
  readonly out: Point;
}

/**
 * Of a closed outline, by the share of its length from one of its places on.
 * @param first that place is where this is most; of the chords' ends, each within `chordMm` of the outline
 */
export function aroundOutline(path: Path, chordMm: number, first: (p: Point) => number): (share: number) => PlaceAround {
  const all = polygonOf(path, chordMm);
  const start = all.reduce((best, p, k) => (first(p) > first(all[best] as Point) ? k : best), 0);
  const points = [...all.slice(start), ...all.slice(0, start), all[start] as Point];
  const upTo = [0];
  for (let k = 1; k < points.length; k++) upTo.push((upTo[k - 1] as number) + distance(points[k - 1] as Point, points[k] as Point));
  const whole = upTo.at(-1) as number;
  return (share) => {
    const wanted = share * whole;
    let [low, high] = [0, points.length - 1];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if ((upTo[middle] as number) < wanted) low = middle;
      else high = middle;
    }
    const [a, b] = [points[low] as Point, points[high] as Point];
    const length = Math.max(distance(a, b), 1e-12);
    const t = (wanted - (upTo[low] as number)) / length;
    return { at: { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t }, out: { x: (b.y - a.y) / length, y: (a.x - b.x) / length } };
  };
}
