/**
 * What a check of outlines says: which pieces, where, why, and how it can be mended. Plain data, so that it can be found in
 * a worker.
 */
import { mustClose, type Purpose } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import type { FixWord, Message } from '../messages/index.ts';
import type { Path, Point } from '../plane/index.ts';

/** Outlines that take the place of others. */
export interface MadeOutlines {
  readonly name: string;
  readonly purpose: Purpose;
  readonly outer: Path;
  readonly holes: readonly Path[];
}

export type Fix =
  /** Pieces give way to what is made of them. */
  | { readonly do: 'replace'; readonly word: FixWord; readonly ids: readonly string[]; readonly by: readonly MadeOutlines[] }
  | { readonly do: 'purpose'; readonly word: FixWord; readonly ids: readonly string[]; readonly purpose: Purpose }
  | { readonly do: 'leave-out'; readonly word: FixWord; readonly ids: readonly string[] }
  /** Bridges across from one outline to another. */
  | { readonly do: 'hold'; readonly word: FixWord; readonly spans: readonly { readonly from: Point; readonly to: Point }[] }
  /** Ignores the finding from now on. */
  | { readonly do: 'accept'; readonly word: FixWord };

export interface Fault extends Message {
  /** Of the kinds of the check that found it. */
  readonly code: string;
  /** `stops`: no file should be made; `look`: a person should look once. */
  readonly weight: 'stops' | 'look';
  readonly pieceIds: readonly string[];
  /** Where on the sheet, the worst place first, mm. */
  readonly places: readonly Point[];
  readonly fixes: readonly Fix[];
  /** The processes of the job that it holds for, where it does not for all. */
  readonly processIds?: readonly string[];
}

/** Faults with the same key say the same of the same place. */
export const faultKey = ({ code, message, places: [at] }: Fault): string => `${code} ${at?.x} ${at?.y} ${message}`;

/** The limits that outlines are checked against; lengths in mm. */
export interface ProofLimits {
  /** What the tool takes away: holes and gaps narrower than this close up. */
  readonly kerfMm: number;
  /** Webs of material thinner than this break. */
  readonly thinnestMm: number;
  /** Passages must be at least so wide, mm; 0 asks for none. */
  readonly clearanceMm: number;
}

/** Whether a piece is cut through or cleared out, so that its outlines must close. */
export const isBody = ({ purpose, outer }: Pick<Piece, 'purpose' | 'outer'>): boolean => mustClose({ purpose }) && outer.closed;

/** A piece's outlines in place of what it had. */
export const replaced = (piece: Piece, word: FixWord, outlines: readonly { outer: Path; holes: readonly Path[] }[]): Fix => ({
  do: 'replace',
  word,
  ids: [piece.id],
  by: outlines.map(({ outer, holes }, k) => ({
    name: outlines.length === 1 ? piece.name : `${piece.name} ${k + 1}`,
    purpose: piece.purpose,
    outer,
    holes,
  })),
});

/** A kind of finding. */
export interface FindingKind {
  /** Over all findings of the kind. */
  readonly heading: string;
  /** The stage where it is mended, if not where it lies on the table. */
  readonly stage?: 'bring-in' | 'true-up' | 'trace' | 'make-ready';
}

/** A check: the kinds that it finds, by code, and how it looks; what the checks before it found of the same pieces it is told. */
export interface Check {
  /** What it says, by code; a function where it has parameters. */
  readonly words: Readonly<Record<string, string | ((...printed: never[]) => string)>>;
  readonly kinds: Readonly<Record<string, FindingKind>>;
  own?(piece: Piece, limits: ProofLimits, before: readonly Fault[]): Fault[];
  /** The larger of two closed pieces comes first. */
  pair?(larger: Piece, smaller: Piece, limits: ProofLimits, before: readonly Fault[]): Fault[];
  all?(pieces: readonly Piece[]): Fault[];
}

/** Whether an outline crosses itself, or is nothing but a sliver: what follows from that is not told again. */
export const isSpoilt = (piece: Piece, before: readonly Fault[]): boolean =>
  before.some(({ code, places }) => code === 'crosses-itself' || (code === 'sliver' && places[0] === piece.outer.start));
