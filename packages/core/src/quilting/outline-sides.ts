/** In: the outline of a patch. Out: its corners, and its sides from corner to corner. */
import { directionOn, type Path, type Step, stepsOf, turnBetween } from '../plane/index.ts';
import { goesOnWithinDegrees } from './seam-lines.ts';

/** The steps at whose start an outline turns; elsewhere it goes on, as another curve perhaps. */
export function cornerSteps(path: Path): number[] {
  const steps = stepsOf(path);
  const least = (goesOnWithinDegrees * Math.PI) / 180;
  return steps.flatMap(({ from, segment }, k) => {
    const before = steps.at(k - 1) as Step;
    return Math.abs(turnBetween(directionOn(before.from, before.segment, 1), directionOn(from, segment, 0))) > least ? [k] : [];
  });
}

/** A side by its steps, as numbers. */
export type SideSteps = readonly number[];

/** The sides in order, the first from the first corner; an outline that is round has one. */
export function sideSteps(path: Path): SideSteps[] {
  const count = path.segments.length;
  const corners = cornerSteps(path);
  const starts = corners.length > 0 ? corners : [0];
  return starts.map((start, k) => {
    const end = starts[k + 1] ?? (starts[0] as number) + count;
    return Array.from({ length: end - start }, (_, j) => (start + j) % count);
  });
}

/** The sides as open paths, in the same order. */
export function sidePaths(path: Path): Path[] {
  const steps = stepsOf(path);
  return sideSteps(path).map((own) => {
    const [first] = own as [number, ...number[]];
    return { start: (steps[first] as Step).from, segments: own.map((k) => (steps[k] as Step).segment), closed: false };
  });
}

export const isCurved = ({ segments }: Path): boolean => segments.some(({ kind }) => kind !== 'line');
