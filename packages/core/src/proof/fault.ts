/**
 * What a check of outlines says: which pieces, where, why, and how it can be mended. Plain data, so that it can be found in
 * a worker.
 */
import type { Piece, Purpose } from '../job/schema.ts';
import type { MendWord, Message } from '../messages/index.ts';
import type { Path, Point } from '../plane/index.ts';

export const faultCodes = [
  'open',
  'near-miss',
  'purpose-unset',
  'crosses-itself',
  'crosses-another',
  'doubled',
  'sliver',
  'stub',
  'needless-points',
  'narrow-hole',
  'thin-web',
  'narrow-passage',
  'too-near',
  'sharp-corner',
  'drops-out',
  'inside-another',
] as const;
export type FaultCode = (typeof faultCodes)[number];

/** Outlines that take the place of others. */
export interface MadeOutlines {
  readonly name: string;
  readonly purpose: Purpose;
  readonly outer: Path;
  readonly holes: readonly Path[];
}

export type Mend =
  /** Pieces give way to what is made of them. */
  | { readonly do: 'replace'; readonly word: MendWord; readonly ids: readonly string[]; readonly by: readonly MadeOutlines[] }
  | { readonly do: 'purpose'; readonly word: MendWord; readonly ids: readonly string[]; readonly purpose: Purpose }
  | { readonly do: 'leave-out'; readonly word: MendWord; readonly ids: readonly string[] }
  /** Bridges across from one outline to another. */
  | { readonly do: 'hold'; readonly word: MendWord; readonly ways: readonly { readonly from: Point; readonly to: Point }[] }
  /** Ignores the finding from now on. */
  | { readonly do: 'accept'; readonly word: MendWord };

export interface Fault extends Message {
  readonly code: FaultCode;
  /** `stops`: no file should be made; `look`: a person should look once. */
  readonly weight: 'stops' | 'look';
  readonly pieceIds: readonly string[];
  /** Where on the sheet, the worst place first, mm. */
  readonly places: readonly Point[];
  readonly mends: readonly Mend[];
}

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
export const isBody = ({ purpose, outer }: Pick<Piece, 'purpose' | 'outer'>): boolean =>
  (purpose === 'cut' || purpose === 'pocket') && outer.closed;

/** A piece's outlines in place of what it had. */
export const replaced = (piece: Piece, word: MendWord, outlines: readonly { outer: Path; holes: readonly Path[] }[]): Mend => ({
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
