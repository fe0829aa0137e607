/** How a job's pieces are to lie on sheets, so that they are cut from few, and where every copy was laid. Lengths in mm. */
import { z } from 'zod';
import { coordinate, finite, text } from './schema-parts.ts';
import { sheetStockSchema } from './sheet-stock.ts';

export const mostCopies = 500;
export const mostLaid = 3000;
export const mostKeptOff = 20;
export const longestNesting = 600;

const laidSchema = z.strictObject({
  pieceId: text(64),
  sheet: z.int().min(0).max(500),
  /** From where it is drawn: mirrored left to right first, then turned about the origin, then moved. */
  isMirrored: z.boolean(),
  turn: coordinate,
  x: coordinate,
  y: coordinate,
});
export type LaidCopy = z.infer<typeof laidSchema>;

const sideMm = finite.min(0).max(20_000);

export const sheetLayoutSchema = z.strictObject({
  sheets: z.array(sheetStockSchema).min(1).max(20),
  /** How often each piece is cut; once where it does not say. */
  copies: z.record(text(64), z.int().min(0).max(mostCopies)),
  marginMm: finite.min(0).max(500),
  gapMm: finite.min(0).max(500),
  /** Parts may be turned by multiples of this, degrees; 0 is any way, 360 not at all. */
  turnsBy: finite.min(0).max(360),
  canMirror: z.boolean(),
  /** Whether small parts may lie in the holes of large ones. */
  inHoles: z.boolean(),
  /** Whether straight edges that face each other lie just the gap apart, so that one cut frees both. */
  commonLines: z.boolean(),
  /** Rectangles of every sheet that nothing lies on, as under clamps. */
  keepOff: z.array(z.strictObject({ x: sideMm, y: sideMm, widthMm: sideMm.min(0.1), heightMm: sideMm.min(0.1) })).max(mostKeptOff),
  seconds: finite.min(1).max(longestNesting),
  /** Where they lie; null until they were laid out. */
  laid: z
    .strictObject({
      copies: z.array(laidSchema).max(mostLaid),
      /** Of each sheet that is used, which of the sheets at hand it is. */
      sheets: z.array(z.int().min(0).max(20)).max(500),
      /** Of the outlines that were laid out: others lie otherwise. */
      of: text(40),
    })
    .nullable(),
});
export type SheetLayout = z.infer<typeof sheetLayoutSchema>;

export const plainLayout: SheetLayout = {
  sheets: [{ widthMm: 600, heightMm: 400, count: 10 }],
  copies: {},
  marginMm: 5,
  gapMm: 2,
  turnsBy: 90,
  canMirror: false,
  inHoles: true,
  commonLines: false,
  keepOff: [],
  seconds: 20,
  laid: null,
};
