/** The settings of a body of foam: its views, the rule of its sections, what it is cut from, and how it is hollowed. Lengths in mm. */
import { z } from 'zod';
import { finite, pointSchema, text } from '../job/schema-parts.ts';
import { sheetStockSchema } from '../job/sheet-stock.ts';

export const mostBoards = 20;
export const mostDowels = 8;
/** In place of a piece where a body has no view from above. */
export const noView = 'none';
const lengthMm = finite.min(0).max(20_000);

const boardSchema = z.strictObject({
  /** As measured, its film peeled off. */
  thicknessMm: finite.min(0.5).max(2000),
  /** How many of them are laminated to one, glue between. */
  layers: z.int().min(1).max(20).optional(),
  count: z.int().min(1).max(400).nullable(),
});
const dowelSchema = z.strictObject({ across: finite.min(-20_000).max(20_000), up: lengthMm, diameterMm: finite.min(0.5).max(500) });

export const mostSheetKinds = 12;
export const mostSections = 20;
export const mostSlots = 12;
export const mostCutouts = 8;
export const mostSectionPoints = 60;

const exponent = finite.min(1).max(8);
const ruleShape = { topExponent: exponent, bottomExponent: exponent, widestAt: finite.min(0).max(0.95) };
const drawnPoint = z.strictObject({ at: pointSchema, corner: z.boolean() });
/** A section at a station: by a rule of its own, as an outline of the job, or drawn, half of it, as shares of its size. */
const sectionSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('rule'), atMm: lengthMm, ...ruleShape }),
  z.strictObject({ kind: z.literal('outline'), atMm: lengthMm, pieceId: text(64) }),
  z.strictObject({ kind: z.literal('drawn'), atMm: lengthMm, points: z.array(drawnPoint).min(2).max(mostSectionPoints) }),
]);
export type FoamSection = z.infer<typeof sectionSchema>;

const slotSchema = z.strictObject({
  side: z.enum(['below', 'above', 'sides']),
  at: finite.min(-20_000).max(20_000),
  widthMm: finite.min(0.2).max(500),
  depthMm: finite.min(0.2).max(5000),
  isStraight: z.boolean(),
});

export const foamSchema = z.strictObject({
  /** The pieces that are the views; null finds them, `none` is no view. */
  sideId: text(64).nullable(),
  aboveId: text(64).nullable(),
  /** The piece that is the view from the front; null is no view. */
  frontId: text(64).nullable(),
  /** How far the body's axis rises in each view as it is drawn, degrees: the view is turned back by it. */
  sideAxis: finite.min(-90).max(90),
  aboveAxis: finite.min(-90).max(90),
  /** Open lines of the job that are the axes; null is as typed. */
  sideAxisId: text(64).nullable(),
  aboveAxisId: text(64).nullable(),
  nose: z.enum(['left', 'right']),
  ...ruleShape,
  /** Sections along the body; where there are none all are by the rule. */
  sections: z.array(sectionSchema).max(mostSections),
  /** None is of the stock, as thick as it measures. */
  boards: z.array(boardSchema).max(mostBoards),
  glueMm: finite.min(0).max(10),
  cutTo: z.enum(['larger', 'smaller', 'both']),
  sandingMm: finite.min(0).max(50),
  shellMm: finite.min(1).max(1000).nullable(),
  dowels: z.array(dowelSchema).max(mostDowels),
  slots: z.array(slotSchema).max(mostSlots),
  /** Openings drawn in the side view; null goes right through. */
  cutouts: z.array(z.strictObject({ pieceId: text(64), widthMm: finite.min(1).max(20_000).nullable() })).max(mostCutouts),
  /** Of a covered frame from former to former; null where boards lie face to face. */
  spacingMm: finite.min(1).max(5000).nullable(),
  skinMm: finite.min(0).max(100),
  /** What stays around a lightening hole; null for none. */
  webMm: finite.min(1).max(1000).nullable(),
  /** Of the foam, kg/m³. */
  density: finite.min(5).max(1000),
  /** The hot wire: how fast it goes, how wide it melts at that, how far its towers stand apart and from the foam. */
  wireFeedMmPerMin: finite.min(1).max(10_000),
  wireBurnMm: finite.min(0).max(20),
  towersMm: finite.min(10).max(20_000),
  /** Sheets at hand, taken in their order; none is as many of the stock as it takes. */
  sheets: z.array(sheetStockSchema).max(mostSheetKinds),
  paper: text(40),
});
export type FoamSettings = z.infer<typeof foamSchema>;

export const plainFoam: FoamSettings = {
  sideId: null,
  aboveId: null,
  frontId: null,
  sideAxis: 0,
  aboveAxis: 0,
  sideAxisId: null,
  aboveAxisId: null,
  nose: 'left',
  topExponent: 2,
  bottomExponent: 2,
  widestAt: 0.5,
  sections: [],
  boards: [],
  glueMm: 0,
  cutTo: 'both',
  sandingMm: 0,
  shellMm: null,
  dowels: [],
  slots: [],
  cutouts: [],
  spacingMm: null,
  skinMm: 0,
  webMm: null,
  density: 30,
  wireFeedMmPerMin: 300,
  wireBurnMm: 0.8,
  towersMm: 900,
  sheets: [],
  paper: 'A4',
};
