/**
 * In: the pieces that go into a file. Out: the same pieces with the lower left corner of their common box at 0, 0.
 */

import type { Purpose } from '../job/purposes.ts';
import { SaidError, say } from '../messages/index.ts';
import { boxAroundBoxes, heightOf, widthOf } from '../plane/box.ts';
import { type Path, pathBox, transformedPath } from '../plane/path.ts';
import { shift } from '../plane/transform.ts';

/** A piece as files need it: outlines in mm, x right, y up. */
export interface FilePiece {
  readonly name: string;
  readonly purpose: Purpose;
  readonly outer: Path;
  readonly holes: readonly Path[];
}

export interface PlacedPieces {
  readonly pieces: FilePiece[];
  readonly widthMm: number;
  readonly heightMm: number;
}

export class EmptyFileError extends SaidError {
  readonly code = 'nothing-to-write';
}

/** @throws EmptyFileError where there are no pieces */
export function placedAtOrigin(pieces: readonly FilePiece[]): PlacedPieces {
  const box = boxAroundBoxes(pieces.map((p) => pathBox(p.outer)));
  if (!box) throw new EmptyFileError(say.files.noPiece());
  const home = shift(-box.minX, -box.minY);
  return {
    pieces: pieces.map((p) => ({ ...p, outer: transformedPath(p.outer, home), holes: p.holes.map((h) => transformedPath(h, home)) })),
    widthMm: widthOf(box),
    heightMm: heightOf(box),
  };
}
