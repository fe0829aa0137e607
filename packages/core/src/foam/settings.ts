/** The settings of a body of foam: its views, the rule of its sections, what it is cut from, and how it is hollowed. Lengths in mm. */
import { z } from 'zod';
import { finite, text } from '../job/schema-parts.ts';

export const mostBoards = 20;
export const mostDowels = 8;
/** In place of a piece where a body has no view from above. */
export const noView = 'none';
const lengthMm = finite.min(0).max(20_000);

const boardSchema = z.strictObject({
  /** As measured, its film peeled off. */
  thicknessMm: finite.min(0.5).max(2000),
  count: z.int().min(1).max(400).nullable(),
});
const dowelSchema = z.strictObject({ across: finite.min(-20_000).max(20_000), up: lengthMm, diameterMm: finite.min(0.5).max(500) });

export const foamSchema = z.strictObject({
  /** The pieces that are the views; null finds them, `none` is no view. */
  sideId: text(64).nullable(),
  aboveId: text(64).nullable(),
  nose: z.enum(['left', 'right']),
  topExponent: finite.min(1.5).max(8),
  bottomExponent: finite.min(1.5).max(8),
  widestAt: finite.min(0).max(0.95),
  /** None is of the stock, as thick as it measures. */
  boards: z.array(boardSchema).max(mostBoards),
  glueMm: finite.min(0).max(10),
  cutTo: z.enum(['larger', 'smaller', 'both']),
  sandingMm: finite.min(0).max(50),
  shellMm: finite.min(1).max(1000).nullable(),
  dowels: z.array(dowelSchema).max(mostDowels),
  /** Of the foam, kg/m³. */
  density: finite.min(5).max(1000),
  paper: text(40),
});
export type FoamSettings = z.infer<typeof foamSchema>;

export const plainFoam: FoamSettings = {
  sideId: null,
  aboveId: null,
  nose: 'left',
  topExponent: 2,
  bottomExponent: 2,
  widestAt: 0.5,
  boards: [],
  glueMm: 0,
  cutTo: 'both',
  sandingMm: 0,
  shellMm: null,
  dowels: [],
  density: 30,
  paper: 'A4',
};
