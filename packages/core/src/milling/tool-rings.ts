/**
 * In: an area that the middle of a tool may be in. Out: the rings that lie in it, each a stepover inside the one before, as a tree: a
 * ring that parts has several inside it.
 */
import { type Path, pathArea, pathLength, reversedPath } from '../plane/index.ts';
import { offsetPiece } from '../shape/index.ts';

/** An area as an outer outline, counter-clockwise, and its holes, clockwise. */
export interface Area {
  readonly outer: Path;
  readonly holes: readonly Path[];
}

export interface Ring {
  readonly area: Area;
  readonly inside: readonly Ring[];
}

interface Insets {
  readonly holes: readonly Path[];
  readonly by: Map<number, Area[]>;
}

const known = new WeakMap<Path, Insets>();

/** An area made smaller all round; grown where that is negative. Kept by the identity of its outlines: plans ask for the same again. */
export function inset({ outer, holes }: Area, byMm: number): Area[] {
  if (byMm === 0) return [{ outer, holes }];
  let kept = known.get(outer);
  if (!kept || kept.holes.length !== holes.length || kept.holes.some((hole, k) => hole !== holes[k])) {
    kept = { holes, by: new Map() };
    known.set(outer, kept);
  }
  let made = kept.by.get(byMm);
  if (!made) {
    made = offsetPiece({ outer, holes }, -byMm);
    kept.by.set(byMm, made);
  }
  return made;
}

/** The rings of an area; yields after each. */
export function* ringsIn(area: Area, stepoverMm: number, radiusMm: number): Generator<number, Ring> {
  const inside: Ring[] = [];
  yield 0;
  for (const next of inset(area, stepoverMm)) inside.push(yield* ringsIn(next, stepoverMm, radiusMm));
  // A ring so small that the one round it leaves nothing standing is not worth its turns.
  return { area, inside: inside.filter((ring) => ring.inside.length > 0 || !isReachedFromOutside(ring.area, stepoverMm, radiusMm)) };
}

function isReachedFromOutside({ outer, holes }: Area, stepoverMm: number, radiusMm: number): boolean {
  return holes.length === 0 && pathLength(outer) / (2 * Math.PI) + stepoverMm <= radiusMm - 0.01;
}

/** A border turned so that what stays lies on the right (climb) or the left (conventional) of a tool that turns clockwise. */
export function turnedFor(path: Path, isHole: boolean, direction: 'climb' | 'conventional'): Path {
  const isLeft = pathArea(path) > 0;
  // Within an area what stays is outside the outer border, and inside a hole: climbing goes counter-clockwise, about a hole clockwise.
  const wanted = (direction === 'climb') !== isHole;
  return isLeft === wanted ? path : reversedPath(path);
}
