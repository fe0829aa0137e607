/**
 * How a job is proved: the limits that its outlines are checked against, sizes that must come out, bridges. Plain data, kept in the job.
 */
import { z } from 'zod';
import { finite, pointSchema, sizeMm, text } from './schema-parts.ts';

const id = text(64);

/** A size that must come out: of all pieces, of one, or between two places on outlines. */
export const pinnedSizeSchema = z.strictObject({
  id,
  name: text(100),
  of: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('width'), pieceId: id.nullable() }),
    z.strictObject({ kind: z.literal('height'), pieceId: id.nullable() }),
    /** Between the outlines nearest to two places on the sheet. */
    z.strictObject({ kind: z.literal('between'), a: pointSchema, b: pointSchema }),
  ]),
  mm: sizeMm,
  toleranceMm: finite.nonnegative().max(1000),
});
export type PinnedSize = z.infer<typeof pinnedSizeSchema>;

/** A bridge that holds what would drop out: from one outline straight across to the other. */
export const bridgeSchema = z.strictObject({ id, from: pointSchema, to: pointSchema, widthMm: sizeMm });
export type Bridge = z.infer<typeof bridgeSchema>;

export const proofFields = z.strictObject({
  pinned: z.array(pinnedSizeSchema).max(200),
  /** Findings that a person has ignored. */
  accepted: z.array(z.string().max(200)).max(2000),
  /** Webs thinner than this break, mm. */
  thinnestMm: finite.nonnegative().max(1000),
  /** Passages must be at least so wide, for what has to go through them, mm; 0 asks for none. */
  clearanceMm: finite.nonnegative().max(1000),
  bridges: z.array(bridgeSchema).max(2000),
  /** Width, depth and height that a folded box must have, mm. */
  box: z.strictObject({ widthMm: sizeMm, depthMm: sizeMm, heightMm: sizeMm, toleranceMm: finite.nonnegative().max(100) }).nullable(),
  /** What the board's thickness takes at each crease of a die line, in thicknesses. */
  creaseAllowance: finite.min(0).max(3),
});
const { pinned, accepted, thinnestMm, clearanceMm, bridges, box, creaseAllowance } = proofFields.shape;
export const proofSchema = z.strictObject({
  pinned: pinned.default([]),
  accepted: accepted.default([]),
  thinnestMm: thinnestMm.default(1),
  clearanceMm: clearanceMm.default(0),
  bridges: bridges.default([]),
  box: box.default(null),
  creaseAllowance: creaseAllowance.default(0.5),
});
export type ProofSettings = z.infer<typeof proofSchema>;

export const plainProof: ProofSettings = proofSchema.parse({});
