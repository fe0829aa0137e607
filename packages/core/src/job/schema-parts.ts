/**
 * The parts of the job document that several of its schemas share: points, paths, pieces.
 */
import { z } from 'zod';
import { cleanText } from './clean-text.ts';
import { purposes } from './purposes.ts';

export const finite = z.number().finite();

/** No sheet, stock or plan reaches farther, mm (or pixels, of a picture's marks). */
export const maxCoordinate = 1e6;
/** A coordinate or a signed length, mm; or an angle, radians. */
export const coordinate = finite.min(-maxCoordinate).max(maxCoordinate);

/** A length of a sheet, a bed or a dimension, mm. */
export const sizeMm = finite.positive().max(100_000);

/** A text that is cleaned as it enters; see `cleanText`. It may be empty. */
export const anyText = (max: number) => z.string().overwrite(cleanText).max(max);
export const text = (max: number) => z.string().overwrite(cleanText).trim().min(1).max(max);
/** What was copied from the shelf, and as it stood then: the shelf may have a newer one. */
export const shelfCopySchema = z.strictObject({ id: z.uuid(), revision: z.int().positive() });
export type ShelfCopy = z.infer<typeof shelfCopySchema>;
export const hexColour = z.string().regex(/^#[0-9a-f]{6}$/i);

export const pointSchema = z.strictObject({ x: coordinate, y: coordinate }).readonly();

const segmentSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('line'), to: pointSchema }).readonly(),
  z.strictObject({ kind: z.literal('arc'), to: pointSchema, sweep: coordinate }).readonly(),
  z.strictObject({ kind: z.literal('ellipse'), to: pointSchema, centre: pointSchema, v: pointSchema, sweep: coordinate }).readonly(),
  z.strictObject({ kind: z.literal('cubic'), c1: pointSchema, c2: pointSchema, to: pointSchema }).readonly(),
]);

export const pathSchema = z
  .strictObject({ start: pointSchema, segments: z.array(segmentSchema).min(1).max(100_000).readonly(), closed: z.boolean() })
  .readonly();

export const pieceSchema = z.strictObject({
  id: text(64),
  name: text(100),
  purpose: z.enum(purposes),
  /** Left out pieces stay in the job and go into no file. */
  leftOut: z.boolean(),
  runsOff: z.boolean(),
  /** Open where it is a line. */
  outer: pathSchema,
  holes: z.array(pathSchema).max(20_000),
  /** Whether a person has changed its outlines: a new trace leaves it as it is. */
  edited: z.boolean().optional(),
  /** Of an edited piece's outlines, the outer one first, the segments that are the hand's: a new trace fits the others anew. */
  touched: z.array(z.array(z.int().nonnegative()).max(100_000).readonly()).max(20_001).readonly().optional(),
  /** Whether a person led the way along it: a new trace of the same picture keeps it. */
  byHand: z.boolean().optional(),
  /** Whether it is the dark border that the ground about the paper leaves in a scan: left out, unless a person includes it. */
  isScanBorder: z.boolean().optional(),
  /** How wide the drawn line is whose middle this is, mm. */
  strokeMm: finite.positive().optional(),
  /** How that line ends, goes round corners, and which lengths of it are drawn and left out in turn, mm; where a drawing file says it. */
  strokeShape: z
    .strictObject({
      ends: z.enum(['round', 'flat', 'square']),
      corners: z.enum(['mitre', 'round', 'bevel']),
      dashesMm: z.array(finite.nonnegative()).max(100).readonly(),
    })
    .optional(),
  /** The colour of the picture that it was traced from. */
  colour: hexColour.optional(),
});
export type Piece = z.infer<typeof pieceSchema>;
