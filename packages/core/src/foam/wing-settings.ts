/** The settings of a wing panel: its sections, its sizes, and the wire that cuts it. Lengths in mm. */
import { z } from 'zod';
import { finite, text } from '../job/schema-parts.ts';

export const mostSpars = 8;
export const mostReadings = 12;
export const longestCoordinates = 60_000;

/** A section by its four digits, by coordinates as they stand in a file, or as an outline of the job. */
const sectionSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('naca'), digits: text(12) }),
  z.strictObject({ kind: z.literal('coordinates'), name: text(120), text: z.string().max(longestCoordinates) }),
  z.strictObject({ kind: z.literal('outline'), pieceId: text(64) }),
]);
export type WingSection = z.infer<typeof sectionSchema>;

const lengthMm = finite.min(0).max(20_000);
const sparSchema = z.strictObject({
  at: finite.min(0.02).max(0.98),
  side: z.enum(['upper', 'lower']),
  widthMm: finite.min(0.2).max(500),
  depthMm: finite.min(0.2).max(500),
});

export const wingSchema = z.strictObject({
  root: sectionSchema,
  /** Null is as the root. */
  tip: sectionSchema.nullable(),
  rootChordMm: finite.min(5).max(5000),
  tipChordMm: finite.min(5).max(5000),
  spanMm: finite.min(5).max(10_000),
  sweepMm: finite.min(-10_000).max(10_000),
  riseMm: finite.min(-10_000).max(10_000),
  washout: finite.min(-45).max(45),
  skinMm: finite.min(0).max(50),
  leadingMm: finite.min(0).max(500),
  trailingMm: finite.min(0).max(500),
  spars: z.array(sparSchema).max(mostSpars),
  burn: z.array(z.strictObject({ mmPerMin: finite.min(1).max(50_000), burnMm: finite.min(0).max(20) })).max(mostReadings),
  feedMmPerMin: finite.min(10).max(5000),
  fastestMmPerMin: finite.min(10).max(50_000),
  betweenMm: lengthMm.min(10),
  /** Null lays the foam in the middle. */
  toFoamMm: lengthMm.nullable(),
  isTipLeft: z.boolean(),
  isPair: z.boolean(),
  axes: z.enum(['UV', 'AB', 'ZA']),
  /** Of the foam, kg/m³. */
  density: finite.min(5).max(1000),
  paper: text(40),
});
export type WingSettings = z.infer<typeof wingSchema>;

export const plainWing: WingSettings = {
  root: { kind: 'naca', digits: '2412' },
  tip: null,
  rootChordMm: 200,
  tipChordMm: 160,
  spanMm: 500,
  sweepMm: 0,
  riseMm: 0,
  washout: 0,
  skinMm: 0,
  leadingMm: 0,
  trailingMm: 0,
  spars: [],
  burn: [],
  feedMmPerMin: 300,
  fastestMmPerMin: 1000,
  betweenMm: 900,
  toFoamMm: null,
  isTipLeft: false,
  isPair: true,
  axes: 'UV',
  density: 20,
  paper: 'A4',
};
