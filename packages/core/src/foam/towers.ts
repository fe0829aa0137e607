/**
 * In: the wire's path at both faces of the foam, and where the foam lies between two towers. Out: where the towers hold the wire, and how
 * fast they go: the wire is straight, so each tower is as far beyond its face as the line through both places goes.
 */
import { SaidError, say } from '../messages/index.ts';
import { distance, type Point } from '../plane/index.ts';
import type { WirePlace } from './wire-path.ts';

export interface TowerSetUp {
  /** From tower to tower, mm. */
  readonly betweenMm: number;
  /** From the left tower to the foam's left face; the root lies there unless it is turned. */
  readonly toFoamMm: number;
  readonly spanMm: number;
  /** Whether the tip lies at the left. */
  readonly isTipLeft: boolean;
}

export interface TowerPlace {
  readonly left: Point;
  readonly right: Point;
  readonly minutes: number;
}

export class TowerError extends SaidError {
  readonly code = 'no-room-between-towers';
}

/** @throws TowerError where the foam does not lie between the towers */
export function towerPath(path: readonly WirePlace[], { betweenMm, toFoamMm, spanMm, isTipLeft }: TowerSetUp): TowerPlace[] {
  if (!(toFoamMm >= 0) || !(toFoamMm + spanMm <= betweenMm)) throw new TowerError(say.foam.towersTooClose());
  const beyond = (near: Point, far: Point, by: number): Point => ({ x: near.x + ((near.x - far.x) * by) / spanMm, y: near.y + ((near.y - far.y) * by) / spanMm }); // biome-ignore format: one line
  return path.map(({ root, tip, minutes }) => {
    const [a, b] = isTipLeft ? [tip, root] : [root, tip];
    return { left: beyond(a, b, toFoamMm), right: beyond(b, a, betweenMm - toFoamMm - spanMm), minutes };
  });
}

/** How fast the faster of the towers goes at most, mm a minute. */
export function fastestTower(path: readonly TowerPlace[]): number {
  return path.slice(1).reduce((fastest, { left, right, minutes }, k) => {
    const before = path[k] as TowerPlace;
    const far = Math.max(distance(before.left, left), distance(before.right, right));
    return far > stillMm ? Math.max(fastest, far / minutes) : fastest;
  }, 0);
}
/** Places nearer than this are one, mm. */
const stillMm = 1e-7;
