/**
 * In: a job. Out: the pieces that are made of it, as large as its files shall have them: those kept, with the bridges that
 * hold them.
 */

import { stretch, transformedPath } from '../plane/index.ts';
import { withBridges } from './bridges.ts';
import { withDrawnHoles } from './drawn-holes.ts';
import { makeOf } from './purposes.ts';
import type { Job, Piece } from './schema.ts';
import { keptPieces, type WithPieces } from './tracing.ts';

/** The pieces on the sheet. */
export const piecesToProve = (job: WithPieces & Pick<Job, 'proof'>): readonly Piece[] =>
  withBridges(withDrawnHoles(keptPieces(job), job.drawn), job.proof.bridges);

/** At the size that they are made in: a plan's pieces may be written at the real size. Guides are made of nothing. */
export function piecesToMake(job: WithPieces & Pick<Job, 'proof' | 'planScale'>): Piece[] {
  const pieces = piecesToProve(job).filter((p) => makeOf(p) !== 'nothing');
  if (!job.planScale?.atRealSize) return pieces;
  const grow = stretch(job.planScale.factor);
  return pieces.map((p) => ({ ...p, outer: transformedPath(p.outer, grow), holes: p.holes.map((h) => transformedPath(h, grow)) }));
}
