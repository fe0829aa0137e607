/**
 * In: pieces, and what the tool takes away. Out: the ways of the tool's middle that leave the pieces at their true size: outer
 * outlines out, holes in, by half the kerf; lines stay on their middle. What closes up or runs together is told.
 */
import type { Piece } from '../job/schema.ts';
import type { Cutting } from '../job/setup.ts';
import type { Path } from '../plane/index.ts';
import { offsetPiece, plainOffset } from '../shape/index.ts';

export interface Compensated {
  readonly piece: Piece;
  /** What becomes of it; more than one where it falls apart, several holes fewer where they close up. */
  readonly parts: readonly { readonly outer: Path; readonly holes: readonly Path[] }[];
  /** In plain words, where the tool cannot make what was drawn. */
  readonly lost: string | null;
}

/** Mitres reach out by at most so many half kerfs. */
const mitreLimit = 4;

/** Only what is cut through and closed has a side that the tool may take from. */
export function kerfCompensated(piece: Piece, { kerfMm, corners }: Pick<Cutting, 'kerfMm' | 'corners'>): Compensated {
  const own = { outer: piece.outer, holes: piece.holes };
  if (!(kerfMm > 0) || piece.purpose !== 'cut' || !piece.outer.closed) return { piece, parts: [own], lost: null };
  const parts = offsetPiece(own, kerfMm / 2, { ...plainOffset, corners, mitreLimit });
  return { piece, parts, lost: lostIn(piece, parts) };
}

function lostIn(piece: Piece, parts: Compensated['parts']): string | null {
  const holes = parts.reduce((n, part) => n + part.holes.length, 0);
  if (parts.length === 0) return `${piece.name} vanishes: nothing of it is left beside the kerf.`;
  const fewer = piece.holes.length - holes;
  if (fewer > 0) return `${fewer === 1 ? 'A hole' : `${fewer} holes`} of ${piece.name} close up or run together: narrower than the kerf.`;
  if (fewer < 0) return `A slot of ${piece.name} closes up at its mouth: narrower than the kerf.`;
  return null;
}
