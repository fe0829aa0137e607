/**
 * In: a job. Out: the pieces that are made of it, as large as its files shall have them: those kept, with the bridges that
 * hold them.
 */
import { type Job, keptPieces, type Piece, type WithPieces } from '../job/index.ts';
import { stretch, transformedPath } from '../plane/index.ts';
import { withDrawnHoles } from './drawn-holes.ts';
import { heldPieces } from './holds.ts';

/** The pieces on the sheet. */
export const piecesToProve = (job: WithPieces & Pick<Job, 'proof'>): readonly Piece[] =>
  heldPieces(withDrawnHoles(keptPieces(job), job.drawn), job.proof.holds);

/** At the size that they are made in: a plan's pieces may be written at the real size. Guides are made of nothing. */
export function piecesToMake(job: WithPieces & Pick<Job, 'proof' | 'planScale'>): Piece[] {
  const pieces = piecesToProve(job).filter((p) => p.purpose !== 'guide');
  if (!job.planScale?.atRealSize) return pieces;
  const grow = stretch(job.planScale.factor);
  return pieces.map((p) => ({ ...p, outer: transformedPath(p.outer, grow), holes: p.holes.map((h) => transformedPath(h, grow)) }));
}
