/**
 * In: pieces, and what the tool takes away. Out: the ways of the tool's middle that leave the pieces at their true size: outer
 * outlines out, holes in, by half the kerf; lines stay on their middle. What closes up or runs together is told.
 */
import { makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { type Message, say } from '../messages/index.ts';
import { type Path, pathArea, pathLength } from '../plane/index.ts';
import { offsetPiece, plainOffset } from '../shape/index.ts';
import type { Cutting } from './cutting.ts';

export interface Compensated {
  readonly piece: Piece;
  /** What becomes of it; more than one where it falls apart, several holes fewer where they close up. */
  readonly parts: readonly { readonly outer: Path; readonly holes: readonly Path[] }[];
  /** In plain words, where the tool cannot make what was drawn. */
  readonly lost: Message | null;
  /** Whether the outlines could not be set out rightly: no file is made of them. */
  readonly isFailure: boolean;
}

/** Mitres reach out by at most so many half kerfs. */
const mitreLimit = 4;

/** Only what is cut through and closed has a side that the tool may take from. */
export function kerfCompensated(piece: Piece, { kerfMm, corners }: Pick<Cutting, 'kerfMm' | 'corners'>): Compensated {
  const own = { outer: piece.outer, holes: piece.holes };
  if (!(kerfMm > 0) || makeOf(piece) !== 'part' || !piece.outer.closed) return { piece, parts: [own], lost: null, isFailure: false };
  const parts = offsetPiece(own, kerfMm / 2, { ...plainOffset, corners, mitreLimit });
  if (!isSound(piece, parts, kerfMm / 2))
    return {
      piece,
      parts,
      lost: say.make.kerfFails(piece.name),
      isFailure: true,
    };
  return { piece, parts, lost: lostIn(piece, parts), isFailure: false };
}

/** Set out by a distance an outline gains at most its length times that, and its corners' sectors (Steiner); mitres a little more. */
function isSound(piece: Piece, parts: Compensated['parts'], by: number): boolean {
  const areaOf = (outer: Path, holes: readonly Path[]): number =>
    Math.abs(pathArea(outer)) - holes.reduce((sum, h) => sum + Math.abs(pathArea(h)), 0);
  const gained = parts.reduce((sum, part) => sum + areaOf(part.outer, part.holes), 0) - areaOf(piece.outer, piece.holes);
  const around = [piece.outer, ...piece.holes].reduce((sum, path) => sum + pathLength(path), 0);
  const corners = [piece.outer, ...piece.holes].reduce((n, path) => n + path.segments.length, 0);
  return gained > -1e-6 && gained <= around * by + mitreLimit * mitreLimit * corners * by * by + 1e-6;
}

function lostIn(piece: Piece, parts: Compensated['parts']): Message | null {
  const holes = parts.reduce((n, part) => n + part.holes.length, 0);
  if (parts.length === 0) return say.make.vanishes(piece.name);
  const fewer = piece.holes.length - holes;
  if (fewer > 0) return say.make.holesCloseUp(fewer, piece.name);
  if (fewer < 0) return say.make.slotClosesUp(piece.name);
  return null;
}
