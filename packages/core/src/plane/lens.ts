/**
 * In: a place in a picture that a lens has bent, and by how much. Out: where it would lie through a lens that bends nothing, and back.
 * Rests on: the division model of radial distortion, of one term (Fitzgibbon 2001).
 */
import type { Point } from './point.ts';

export interface Lens {
  /** How much it bends, at the distance `radiusPx` from its centre: less than 0 bulges, more pinches. */
  readonly k: number;
  readonly centre: Point;
  readonly radiusPx: number;
}

export function unbent({ k, centre, radiusPx }: Lens, { x, y }: Point): Point {
  const [dx, dy] = [x - centre.x, y - centre.y];
  const scale = 1 / (1 + (k * (dx * dx + dy * dy)) / radiusPx ** 2);
  return { x: centre.x + dx * scale, y: centre.y + dy * scale };
}

/** The other way round: where a place comes to lie through the lens. */
export function bent({ k, centre, radiusPx }: Lens, { x, y }: Point): Point {
  const [dx, dy] = [x - centre.x, y - centre.y];
  const square = (4 * k * (dx * dx + dy * dy)) / radiusPx ** 2;
  // 2 / (1 + sqrt(1 - s)): the root that is 1 in the centre, without a difference of what is nearly alike.
  const scale = 2 / (1 + Math.sqrt(Math.max(0, 1 - square)));
  return { x: centre.x + dx * scale, y: centre.y + dy * scale };
}
