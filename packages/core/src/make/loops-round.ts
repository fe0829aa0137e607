/**
 * In: closed cuts. Out: which of them is just round another, or round a place: what lies inside is cut first, while it is still held.
 */
import { type Path, type Point, pathArea, pathBox } from '../plane/index.ts';
import { boxIndex, insidePoint, windingNumber } from '../shape/index.ts';

export interface LoopsRound {
  /** The smallest of the loops that is round one of them; null where none is. */
  loop(k: number): number | null;
  /** The smallest that is round a place. */
  place(at: Point): number | null;
}

/** @param loops closed; null for what is none */
export function loopsRound(loops: readonly (Path | null)[]): LoopsRound {
  const closed = loops.flatMap((loop, k) => (loop ? [{ loop, k, area: Math.abs(pathArea(loop)) }] : []));
  const index = boxIndex(closed.map(({ loop }) => pathBox(loop)), 0); // biome-ignore format: one line
  const round = (at: Point, larger: number): number | null => {
    const found = (index?.search(at.x, at.y, at.x, at.y) ?? [])
      .map((j) => closed[j] as (typeof closed)[0])
      .filter(({ area }) => area > larger)
      .sort((a, b) => a.area - b.area);
    return found.find(({ loop }) => windingNumber([loop], at) !== 0)?.k ?? null;
  };
  return {
    loop: (k) => {
      const loop = loops[k];
      return loop ? round(insidePoint(loop), Math.abs(pathArea(loop))) : null;
    },
    place: (at) => round(at, 0),
  };
}
