/** In: a depth and how much of it one pass may take. Out: the heights of the passes, and ways down along a path. */
import { type Path, pathLength, reversedPath, subPath } from '../plane/index.ts';
import { type MillTool, mayPlunge } from './mill-tool.ts';
import type { Knot, Moves } from './moves.ts';

/** Heights of passes of one depth each, the last at the bottom; mm, down negative. */
export function levelsTo(topZ: number, bottomZ: number, stepdownMm: number): number[] {
  const depth = topZ - bottomZ;
  const count = Math.max(1, Math.ceil(depth / stepdownMm - 1e-6));
  return Array.from({ length: count }, (_, k) => (k === count - 1 ? bottomZ : topZ - (depth * (k + 1)) / count));
}

/** How steep end mills go down into full stock where nothing else is said, radians: common practice. */
export const plainEntry = (3 * Math.PI) / 180;

/** How steep a tool goes down into full stock, radians: as asked; else as it may, which is null where it may go straight down. */
export const entryFor = (tool: MillTool, asked: number | null): number | null => asked ?? (mayPlunge(tool) ? null : plainEntry);

/** More turns than these on the way down are no way down but a drill hole; it then goes as steep as that needs. */
const mostTurns = 200;

/**
 * Down along a closed path, round and round, and once more round it at the bottom.
 * @param path closed, starts where the tool is, whose height is `fromZ`
 */
export function downAndRound(moves: Moves, path: Path, fromZ: number, toZ: number, angle: number | null): void {
  const round = pathLength(path);
  if (angle === null || fromZ - toZ < 1e-9) {
    moves.plunge(toZ);
    moves.along(path, [{ along: 0, z: toZ }]);
    return;
  }
  const ramp = Math.min((fromZ - toZ) / Math.tan(angle), mostTurns * round);
  moves.along(subPath(path, 0, ramp + round), [{ along: 0, z: fromZ }, { along: ramp, z: toZ }]); // biome-ignore format: one line
}

/** Down along an open path, to and fro, so that the tool stands at the start again, at the bottom. */
export function downToAndFro(moves: Moves, path: Path, fromZ: number, toZ: number, angle: number | null): void {
  if (angle === null || fromZ - toZ < 1e-9) {
    moves.plunge(toZ);
    return;
  }
  const length = pathLength(path);
  const pairs = Math.max(1, Math.ceil((fromZ - toZ) / (2 * length * Math.tan(angle))));
  if (pairs > mostTurns) {
    moves.plunge(toZ);
    return;
  }
  const back = reversedPath(path);
  const reach = Math.min(length, (fromZ - toZ) / (2 * pairs * Math.tan(angle)));
  for (let k = 0; k < pairs; k++) {
    const z = (share: number): number => fromZ + ((toZ - fromZ) * (k + share)) / pairs;
    moves.along(subPath(path, 0, reach), [{ along: 0, z: z(0) }, { along: reach, z: z(0.5) }]); // biome-ignore format: one line
    moves.along(subPath(back, length - reach, length), [{ along: 0, z: z(0.5) }, { along: reach, z: z(1) }]); // biome-ignore format: one line
  }
}

/**
 * A way down a closed path from the top to the bottom in one go, and once round it at the bottom.
 * @param endsAtStart whether it has to end where the path starts: it then goes down a little less steeply, in whole turns
 */
export function spiralKnots(round: number, fromZ: number, toZ: number, stepdownMm: number, angle: number, endsAtStart: boolean): Knot[] {
  const perRound = Math.min(stepdownMm, round * Math.tan(angle));
  const turns = (fromZ - toZ) / Math.max(perRound, (fromZ - toZ) / mostTurns);
  const ramp = (endsAtStart ? Math.ceil(turns - 1e-6) : turns) * round;
  return [
    { along: 0, z: fromZ },
    { along: ramp, z: toZ },
    { along: ramp + round, z: toZ },
  ];
}
