/**
 * In: a job's pieces and how they are made. Out: a file, read back from its bytes and compared with the outlines before it is handed over.
 * @throws FileRefused where a file would not match the outlines
 */
import type { FilePiece } from '../formats/placement.ts';
import type { Piece } from '../job/schema.ts';
import type { Cutting } from '../make/cutting.ts';
import { kerfCompensated } from '../make/kerf.ts';
import { say } from '../messages/index.ts';
import { type FileKind, type FileOptions, FileRefused, fileKinds, type MadeBytes } from './file-kinds.ts';

type Allowance = Pick<Cutting, 'kerfMm' | 'corners'>;

/** The outlines that a drawing file holds: the pieces, as the tool must go round them. */
export const outlinesToWrite = (pieces: readonly Piece[], allowance: Allowance): FilePiece[] =>
  pieces.flatMap((piece) =>
    kerfCompensated(piece, allowance).parts.map(
      ({ outer, holes }): FilePiece => ({ name: piece.name, purpose: piece.purpose, outer, holes }),
    ),
  );

export async function madeFile(kind: FileKind, pieces: readonly Piece[], allowance: Allowance, options: FileOptions): Promise<MadeBytes> {
  const failed = options.plan.lost.find((l) => l.isFailure);
  if (failed && allowance.kerfMm > 0) throw new FileRefused(say.make.noFileWasMade(failed.message));
  return checked(kind.toUpperCase(), await fileKinds[kind].make(outlinesToWrite(pieces, allowance), options));
}

/** @throws FileRefused where a file is farther off than it may be */
export function checked(name: string, made: MadeBytes): MadeBytes {
  if (made.largestMm <= made.toleranceMm) return made;
  throw new FileRefused(say.make.fileOff(name, made.largestMm.toFixed(3), made.toleranceMm.toFixed(3)));
}
