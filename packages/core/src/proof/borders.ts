/**
 * In: paths. Out: their segments with what several checks ask of them: box, length, direction. Kept by the path's identity.
 */
import { type Box, directionOn, distance, type Path, type Point, type Step, segmentBox, segmentLength, stepsOf } from '../plane/index.ts';

export interface Border extends Step {
  readonly index: number;
  /** How far along its path it starts, mm. */
  readonly along: number;
  readonly length: number;
  readonly box: Box;
  /** Its chord's direction, length 1, and whether it keeps near to that all along. */
  readonly chord: Point;
  readonly isGentle: boolean;
}

const known = new WeakMap<Path, readonly Border[]>();

export function outlineBorders(path: Path): readonly Border[] {
  let borders = known.get(path);
  if (!borders) {
    let along = 0;
    borders = stepsOf(path).map((step, index): Border => {
      const { from, segment } = step;
      const length = segmentLength(from, segment);
      const [chord, isGentle] = chordOf(step);
      const border = { from, segment, index, along, length, box: segmentBox(from, segment), chord, isGentle };
      along += length;
      return border;
    });
    known.set(path, borders);
  }
  return borders;
}

/** A path's length, mm, from what is known of its segments. */
export const lengthOf = (path: Path): number => outlineBorders(path).reduce((sum, { length }) => sum + length, 0);

/** How far a gentle segment's ends may turn from its chord, cosine. */
const gentleCosine = 0.95;

function chordOf({ from, segment }: Step): [Point, boolean] {
  const size = distance(from, segment.to) || 1;
  const chord = { x: (segment.to.x - from.x) / size, y: (segment.to.y - from.y) / size };
  if (segment.kind === 'line') return [chord, true];
  const ends = [directionOn(from, segment, 0), directionOn(from, segment, 0.5), directionOn(from, segment, 1)];
  return [chord, ends.every((d) => d.x * chord.x + d.y * chord.y > gentleCosine)];
}

/** A segment of one of several paths. */
export interface PlacedBorder extends Border {
  readonly path: number;
}

export const placedBorders = (paths: readonly Path[]): PlacedBorder[] =>
  paths.flatMap((path, p) =>
    // Told one by one: this is done for every segment several times over.
    outlineBorders(path).map(({ from, segment, index, along, length, box, chord, isGentle }) => ({
      from,
      segment,
      index,
      along,
      length,
      box,
      chord,
      isGentle,
      path: p,
    })),
  );

/** Whether one of two segments of a path, in order, follows the other; `last` is the last one's index. */
export const areNeighbours = (a: PlacedBorder, b: PlacedBorder, isClosed: boolean, last: number): boolean =>
  a.path === b.path && (b.index - a.index === 1 || (isClosed && a.index === 0 && b.index === last));
