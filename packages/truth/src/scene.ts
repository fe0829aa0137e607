/**
 * A drawn scene: exact outlines on a sheet of paper, in mm, x right, y up, the origin at the paper's lower left.
 */
import { type Path, type Point, pathArea, reversedPath, type Transform, transformedPath } from '@nuvet/core/plane';

export interface ScenePiece {
  readonly outer: Path;
  readonly holes: readonly Path[];
}

export interface Scene {
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly pieces: readonly ScenePiece[];
  /** Pale print beside the drawing, such as a paper rule: visible, but not ink. */
  readonly print?: readonly Path[];
  /** Where a person would put marks, by name. */
  readonly marks?: Readonly<Record<string, readonly Point[]>>;
}

const counterClockwise = (path: Path): Path => (pathArea(path) < 0 ? reversedPath(path) : path);
const clockwise = (path: Path): Path => (pathArea(path) > 0 ? reversedPath(path) : path);

/** A piece with its outlines turned the way that the whole project has them: outer counter-clockwise, holes clockwise. */
export function piece(outer: Path, holes: readonly Path[] = []): ScenePiece {
  return { outer: counterClockwise(outer), holes: holes.map(clockwise) };
}

export function movedPiece({ outer, holes }: ScenePiece, t: Transform): ScenePiece {
  return piece(
    transformedPath(outer, t, 1e-5),
    holes.map((hole) => transformedPath(hole, t, 1e-5)),
  );
}

/** How many holes the pieces have, from the fewest on: pieces that are alike in it have come out whole. */
export const nestingOf = (pieces: readonly { readonly holes: readonly unknown[] }[]): number[] =>
  pieces.map(({ holes }) => holes.length).sort((a, b) => a - b);
