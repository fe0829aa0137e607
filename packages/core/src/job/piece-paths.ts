/** In: a piece. Out: its outlines in a row, the outer one first; and the piece with all of them moved. */
import type { Path } from '../plane/path.ts';

interface Outlines {
  readonly outer: Path;
  readonly holes: readonly Path[];
}

export const pathsOf = ({ outer, holes }: Outlines): Path[] => [outer, ...holes];

export const movedPiece = <P extends Outlines>(piece: P, move: (path: Path) => Path): P => ({
  ...piece,
  outer: move(piece.outer),
  holes: piece.holes.map(move),
});
