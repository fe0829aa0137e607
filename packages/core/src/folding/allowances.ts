/**
 * In: the pieces of a die line. Out: the outline that colour must be printed up to, so that no white shows where the knife slips.
 */
import { makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import type { MadeOutlines } from '../proof/fault.ts';
import { offsetPiece } from '../shape/index.ts';

/** Round each piece that is cut, so far out; holes are printed over. */
export function bleedOutlines(pieces: readonly Piece[], bleedMm: number): MadeOutlines[] {
  if (!(bleedMm > 0)) return [];
  return pieces
    .filter((p) => makeOf(p) === 'part' && p.outer.closed)
    .flatMap((p) =>
      offsetPiece({ outer: p.outer, holes: [] }, bleedMm).map(
        ({ outer }) => ({ name: `Bleed of ${p.name}`, purpose: 'guide', outer, holes: [] }) as const,
      ),
    );
}
