/**
 * In: the faces of a block. Out: its patches by shape: those that are congruent, also when one of them is turned over, have one name.
 */
import {
  directionOn,
  type Path,
  type Point,
  pathArea,
  type Step,
  segmentArea,
  segmentLength,
  stepsOf,
  turnBetween,
} from '../plane/index.ts';
import { merged } from '../shape/merging.ts';
import type { Block } from './block.ts';
import { sideSteps } from './outline-sides.ts';

/** A shape that patches of the block have. */
export interface PatchShape {
  /** A, B, C: the largest first. */
  readonly name: string;
  /** As it lies in the block for the first of its patches, points along its straight sides left out. */
  readonly outline: Path;
  readonly areaMm2: number;
  readonly patches: readonly Patch[];
  /** Whether it is its own mirror image, so that none of its patches is reversed. */
  readonly isSymmetric: boolean;
}

export interface Patch {
  readonly face: number;
  readonly isReversed: boolean;
  /** Its own outline, counter-clockwise like its shape's. */
  readonly outline: Path;
  /** Which corner of its own outline lies where the shape's first one does; of a reversed patch its corners run on backwards from there. */
  readonly firstCorner: number;
}

/** What tells a side of an outline: how long, how far it bows, and how the outline turns after it. */
interface Side {
  readonly length: number;
  readonly bow: number;
  readonly turns: number;
  readonly isCurved: boolean;
}

/** Sides are alike within this: straight ones are exact on a grid; curves, and what is drawn freely, are not. */
const onGrid = { mm: 0.02, curvedMm: 0.8, degrees: 0.2, curvedDegrees: 2.5 };
const drawnFreely = { mm: 1, curvedMm: 1.2, degrees: 2, curvedDegrees: 3 };

export function patchShapes(block: Block): PatchShape[] {
  const alike = block.grid === null ? drawnFreely : onGrid;
  const shapes: { outline: Path; sides: Side[]; areaMm2: number; patches: Patch[]; isSymmetric: boolean }[] = [];
  block.map.faces.forEach(({ outer, area }, face) => {
    const outline = merged(outer);
    const sides = sidesOf(outline);
    const turnedOver = mirrored(sides);
    for (const shape of shapes) {
      const same = shiftOf(shape.sides, sides, alike);
      const over = same === null ? shiftOf(shape.sides, turnedOver, alike) : null;
      if (same === null && over === null) continue;
      // Corner k of the mirror image is corner -k of the patch.
      const firstCorner = same ?? (sides.length - (over as number)) % sides.length;
      shape.patches.push({ face, isReversed: same === null, outline, firstCorner });
      return;
    }
    const own = { face, isReversed: false, outline, firstCorner: 0 };
    shapes.push({ outline, sides, areaMm2: area, patches: [own], isSymmetric: shiftOf(sides, turnedOver, alike) !== null });
  });
  return shapes.map(({ sides: _, ...shape }, k) => ({ ...shape, name: letters(k) }));
}

/** A to Z, then AA, AB. */
export const letters = (k: number): string => (k < 26 ? '' : letters(Math.floor(k / 26) - 1)) + String.fromCharCode(65 + (k % 26));

/** Its sides from corner to corner; one that is round has one. */
function sidesOf(path: Path): Side[] {
  const steps = stepsOf(path);
  const sign = Math.sign(pathArea(path));
  return sideSteps(path).map((numbers) => {
    const own = numbers.map((k) => steps[k] as Step);
    const end = (numbers.at(-1) as number) + 1;
    const [first, last, next] = [own[0] as Step, own.at(-1) as Step, steps[end % steps.length] as Step];
    const length = own.reduce((sum, { from, segment }) => sum + segmentLength(from, segment), 0);
    const beside = own.reduce((sum, { from, segment }) => sum + segmentArea(from, segment), 0) - chordArea(first.from, last.segment.to);
    // Areas are counted from the origin: of a chain they close along its chord.
    return {
      length,
      bow: (sign * beside) / length,
      turns: sign * turnBetween(directionOn(last.from, last.segment, 1), directionOn(next.from, next.segment, 0)),
      isCurved: own.some(({ segment }) => segment.kind !== 'line'),
    };
  });
}

const chordArea = (a: Point, b: Point): number => (a.x * b.y - a.y * b.x) / 2;

/** The sides of the mirror image, counter-clockwise again. */
const mirrored = (sides: readonly Side[]): Side[] =>
  sides.map((_, k) => {
    const own = sides[sides.length - 1 - k] as Side;
    const before = sides.at(sides.length - 2 - k) as Side;
    return { ...own, turns: before.turns };
  });

/** Which side of the second lies on the first side of the first, where all of them are alike from there on. */
function shiftOf(a: readonly Side[], b: readonly Side[], within: typeof onGrid): number | null {
  if (a.length !== b.length) return null;
  // At a corner of a curve its direction is less sure, too.
  const isByCurve = a.map((side, k) => side.isCurved || (a[(k + 1) % a.length] as Side).isCurved);
  const isAlike = (one: Side, other: Side, k: number): boolean => {
    const mm = one.isCurved ? within.curvedMm : within.mm;
    const turn = ((isByCurve[k] ? within.curvedDegrees : within.degrees) * Math.PI) / 180;
    return Math.abs(one.length - other.length) <= mm && Math.abs(one.bow - other.bow) <= mm && Math.abs(one.turns - other.turns) <= turn;
  };
  const found = a.findIndex((_, shift) => a.every((one, k) => isAlike(one, b[(k + shift) % b.length] as Side, k)));
  return found < 0 ? null : found;
}
