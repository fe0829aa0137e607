/** In: places of a pattern, or a formula for them. Out: the points that it is drawn through, `corner` where it turns sharply. */
import type { Point } from '../plane/index.ts';
import type { DrawnPoint } from '../shape/index.ts';

type Place = readonly [number, number] | readonly [number, number, 'corner'];

export const through = (...places: readonly Place[]): DrawnPoint[] =>
  places.map(([x, y, corner]) => ({ at: { x, y }, corner: corner !== undefined }));

/** Places along a curve that is given by a formula, for `t` from 0 to 1. */
export const along = (count: number, at: (t: number) => Point): DrawnPoint[] => Array.from({ length: count + 1 }, (_, k) => ({ at: at(k / count), corner: false })); // biome-ignore format: one line

/** Once round, radians. */
export const round = 2 * Math.PI;
