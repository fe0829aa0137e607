/**
 * In: a face of a core. Out: its beds: what the wire leaves of the block over it and under it, in which the core lies while it is sheeted, on a
 * flat foot.
 */
import { type Path, type Point, polygonPath } from '../plane/index.ts';
import { type CoreFace, coreOf } from './wing-panel.ts';

export interface WingBeds {
  readonly upper: Path;
  readonly lower: Path;
}

/** @param aroundMm of the block's sides, its top and its foot from the core */
export function bedsOf(face: CoreFace, aroundMm: number): WingBeds {
  const core = coreOf(face);
  const at = (far: (p: Point) => number): number => core.reduce((best, p, k) => (far(p) > far(core[best] as Point) ? k : best), 0);
  const [nose, tail] = [at(({ x }) => -x), at(({ x }) => x)];
  const [left, right] = [(core[nose] as Point).x - aroundMm, (core[tail] as Point).x + aroundMm];
  const ys = core.map(({ y }) => y);
  const [top, foot] = [Math.max(...ys) + aroundMm, Math.min(...ys) - aroundMm];
  // The core goes round counter-clockwise: from the tail over its upper side to the nose, and back under it.
  const over = between(core, tail, nose);
  const under = between(core, nose, tail);
  const side = (x: number, p: number): Point => ({ x, y: (core[p] as Point).y });
  return {
    upper: polygonPath([side(right, tail), { x: right, y: top }, { x: left, y: top }, side(left, nose), ...[...over].reverse()]),
    lower: polygonPath([side(left, nose), { x: left, y: foot }, { x: right, y: foot }, side(right, tail), ...[...under].reverse()]),
  };
}

/** From one place of a round to another, both included. */
function between(round: readonly Point[], from: number, to: number): Point[] {
  const count = ((to - from + round.length) % round.length) + 1;
  return Array.from({ length: count }, (_, k) => round[(from + k) % round.length] as Point);
}
