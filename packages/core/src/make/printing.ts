/**
 * How pages are printed: paper, margin, overlap, and where the pages lie.
 */
import { z } from 'zod';
import { finite, pointSchema, sizeMm, text } from '../job/schema-parts.ts';

export const printingSchema = z.strictObject({
  paper: text(40),
  /** Of a size of one's own, mm. */
  widthMm: sizeMm,
  heightMm: sizeMm,
  landscape: z.boolean(),
  marginMm: finite.nonnegative().max(200),
  overlapMm: finite.nonnegative().max(200),
  /** How far the pages lie from where they were found to be fewest, mm; null leaves them there. */
  place: pointSchema.nullable(),
  withPicture: z.boolean(),
});
export type Printing = z.infer<typeof printingSchema>;

/** Until somebody chooses others. */
export const plainPrinting: Printing = {
  paper: 'A4',
  widthMm: 210,
  heightMm: 297,
  landscape: false,
  marginMm: 10,
  overlapMm: 10,
  place: null,
  withPicture: false,
};
