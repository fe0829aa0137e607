/**
 * How a job is proved and made ready: the limits its outlines are checked against, required sizes, and the settings of machine,
 * printer and folding. Plain data, kept in the job.
 */
import { z } from 'zod';
import { finite, pointSchema, purposes, text } from './schema-parts.ts';

const size = finite.positive().max(100_000);
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
  mm: size,
  toleranceMm: finite.nonnegative().max(1000),
});
export type PinnedSize = z.infer<typeof pinnedSizeSchema>;

/** A bridge that holds what would drop out: from one outline straight across to the other. */
export const holdSchema = z.strictObject({ id, from: pointSchema, to: pointSchema, widthMm: size });
export type Hold = z.infer<typeof holdSchema>;

export const proofFields = z.strictObject({
  pinned: z.array(pinnedSizeSchema).max(200),
  /** Findings that a person has ignored. */
  accepted: z.array(z.string().max(200)).max(2000),
  /** Webs thinner than this break, mm. */
  thinnestMm: finite.nonnegative().max(1000),
  /** Passages must be at least so wide, for what has to go through them, mm; 0 asks for none. */
  clearanceMm: finite.nonnegative().max(1000),
  holds: z.array(holdSchema).max(2000),
  /** Width, depth and height that a folded box must have, mm. */
  box: z.strictObject({ widthMm: size, depthMm: size, heightMm: size, toleranceMm: finite.nonnegative().max(100) }).nullable(),
});
const { pinned, accepted, thinnestMm, clearanceMm, holds, box } = proofFields.shape;
export const proofSchema = z.strictObject({
  pinned: pinned.default([]),
  accepted: accepted.default([]),
  thinnestMm: thinnestMm.default(1),
  clearanceMm: clearanceMm.default(0),
  holds: holds.default([]),
  box: box.default(null),
});
export type ProofWishes = z.infer<typeof proofSchema>;

const strengthSchema = z.strictObject({
  /** Of the machine's full power, or of a knife's full pressure: 0 to 1. */
  strength: finite.min(0).max(1),
  speedMmPerMin: finite.positive().max(200_000),
  passes: z.int().min(1).max(100),
});
export type Strength = z.infer<typeof strengthSchema>;

export const plainStrengths: Record<(typeof purposes)[number], Strength> = {
  cut: { strength: 0.8, speedMmPerMin: 900, passes: 1 },
  score: { strength: 0.25, speedMmPerMin: 2400, passes: 1 },
  perforate: { strength: 0.8, speedMmPerMin: 900, passes: 1 },
  engrave: { strength: 0.2, speedMmPerMin: 3000, passes: 1 },
  pocket: { strength: 0.35, speedMmPerMin: 3000, passes: 1 },
  stitch: { strength: 0.2, speedMmPerMin: 2400, passes: 1 },
  guide: { strength: 0, speedMmPerMin: 6000, passes: 1 },
};

export const machineSchema = z.strictObject({
  name: text(60).default('The machine'),
  unit: z.enum(['mm', 'in']).default('mm'),
  /** Where y grows towards. */
  y: z.enum(['up', 'down']).default('up'),
  origin: z.enum(['lower-left', 'upper-left', 'centre', 'sheet']).default('lower-left'),
  /** How far arcs and lines may leave a curve that they stand for, mm. */
  toleranceMm: finite.min(0.0005).max(1).default(0.005),
  /** Curves as splines; as arcs of closed polylines; or, for old controllers, a plain file of arcs and polylines only. */
  dxf: z.enum(['arcs', 'splines', 'plain']).default('arcs'),
  /** What S is at full power. */
  fullS: finite.positive().max(100_000).default(1000),
  /** Whether power follows the speed (M4) or stays (M3). */
  followsSpeed: z.boolean().default(true),
  travelMmPerMin: finite.positive().max(500_000).default(6000),
  accelerationMmPerS2: finite.positive().max(100_000).default(500),
});
export type Machine = z.infer<typeof machineSchema>;

export const leadKinds = ['none', 'line', 'arc'] as const;

export const cuttingSchema = z.strictObject({
  /** What the tool takes away, in all, mm. */
  kerfMm: finite.nonnegative().max(50).default(0),
  corners: z.enum(['round', 'mitre']).default('round'),
  /** Where closed outlines start: at a corner, or nearest to a typed place. */
  start: z.union([z.literal('corner'), pointSchema]).default('corner'),
  lead: z
    .strictObject({ kind: z.enum(leadKinds), inMm: finite.nonnegative().max(100), outMm: finite.nonnegative().max(100) })
    .default({ kind: 'none', inMm: 2, outMm: 0 }),
  /** How far a closed outline is cut on beyond its start, mm. */
  overcutMm: finite.nonnegative().max(50).default(0),
  /** Places where outer outlines stay uncut, so that pieces stay in the sheet. */
  tabs: z
    .strictObject({ count: z.int().min(0).max(200), spacingMm: finite.nonnegative().max(10_000), widthMm: finite.positive().max(100) })
    .default({ count: 0, spacingMm: 0, widthMm: 0.5 }),
  /** Lines that fill areas to clear; each is run up to and out of with the tool off. */
  hatch: z
    .strictObject({ angle: finite, spacingMm: finite.positive().max(100), airMm: finite.nonnegative().max(100) })
    .default({ angle: 0, spacingMm: 0.3, airMm: 2 }),
  /** Of a perforation what is cut and what is left, in turn, mm. */
  perforation: z.strictObject({ cutMm: finite.positive().max(100), leftMm: finite.positive().max(100) }).default({ cutMm: 3, leftMm: 1 }),
  strengths: z.partialRecord(z.enum(purposes), strengthSchema).default({}),
});
export type Cutting = z.infer<typeof cuttingSchema>;

export const printingSchema = z.strictObject({
  paper: text(40).default('A4'),
  /** Of a size of one's own, mm. */
  widthMm: size.default(210),
  heightMm: size.default(297),
  landscape: z.boolean().default(false),
  marginMm: finite.nonnegative().max(200).default(10),
  overlapMm: finite.nonnegative().max(200).default(10),
  /** How far the pages lie from where they were found to be fewest, mm; null leaves them there. */
  place: pointSchema.nullable().default(null),
  withPicture: z.boolean().default(false),
});
export type Printing = z.infer<typeof printingSchema>;

export const setupFields = z.strictObject({
  /** The sheet's size, where it is known, mm. */
  stockWidthMm: size.nullable(),
  stockHeightMm: size.nullable(),
  cutting: cuttingSchema,
  machine: machineSchema,
  printing: printingSchema,
  /** Of a die line: what the board's thickness takes at each crease, in thicknesses; and the bleed for the printer. */
  folding: z.strictObject({ allowance: finite.min(0).max(3), bleedMm: finite.nonnegative().max(100) }),
  /** How files are named: {job}, {what}, {date}, {revision}. */
  fileNames: text(120),
});
const fields = setupFields.shape;
export const setupSchema = z.strictObject({
  stockWidthMm: fields.stockWidthMm.default(null),
  stockHeightMm: fields.stockHeightMm.default(null),
  cutting: fields.cutting.default(() => cuttingSchema.parse({})),
  machine: fields.machine.default(() => machineSchema.parse({})),
  printing: fields.printing.default(() => printingSchema.parse({})),
  folding: fields.folding.default({ allowance: 0.5, bleedMm: 3 }),
  fileNames: fields.fileNames.default('{job}-{what}'),
});
export type Setup = z.infer<typeof setupSchema>;

/** What is remembered of a stock: its thickness, the kerf read from its gauge, and how each purpose is made in it. */
export const stockPresetSchema = z.strictObject({
  thicknessMm: size.nullable(),
  widthMm: size.nullable(),
  heightMm: size.nullable(),
  kerfMm: finite.nonnegative().max(50),
  strengths: cuttingSchema.shape.strengths.unwrap(),
});
export type StockPreset = z.infer<typeof stockPresetSchema>;

/** What a line of a purpose is made with. */
export const strengthOf = (cutting: Cutting, purpose: (typeof purposes)[number]): Strength =>
  cutting.strengths[purpose] ?? plainStrengths[purpose];

export const plainProof: ProofWishes = proofSchema.parse({});
export const plainSetup: Setup = setupSchema.parse({});
