/**
 * How a line of light, a blade or any tool that follows lines cuts: kerf, starts, leads, tabs, hatch, perforation, power and speed.
 */
import { z } from 'zod';
import { type Purpose, purposeKinds, purposes } from '../job/purposes.ts';
import { finite, pointSchema } from '../job/schema-parts.ts';

const powerSettingSchema = z.strictObject({
  /** Of the machine's full power, or of a knife's full pressure: 0 to 1. */
  power: finite.min(0).max(1),
  speedMmPerMin: finite.positive().max(200_000),
  passes: z.int().min(1).max(100),
});
export type PowerSetting = z.infer<typeof powerSettingSchema>;

export const leadKinds = ['none', 'line', 'arc'] as const;

export const cuttingSchema = z.strictObject({
  /** What the tool takes away, in all, mm. */
  kerfMm: finite.nonnegative().max(50),
  corners: z.enum(['round', 'mitre']),
  /** Where closed outlines start: at a corner, or nearest to a typed place. */
  start: z.union([z.literal('corner'), pointSchema]),
  lead: z.strictObject({ kind: z.enum(leadKinds), inMm: finite.nonnegative().max(100), outMm: finite.nonnegative().max(100) }),
  /** How far a closed outline is cut on beyond its start, mm. */
  overcutMm: finite.nonnegative().max(50),
  /** Whether a straight line that two parts share is cut once. */
  commonLines: z.boolean(),
  /** Places where outer outlines stay uncut, so that pieces stay in the sheet. */
  tabs: z.strictObject({
    count: z.int().min(0).max(200),
    spacingMm: finite.nonnegative().max(10_000),
    widthMm: finite.positive().max(100),
  }),
  /** Lines that fill areas to clear; each is run up to and out of with the tool off. */
  hatch: z.strictObject({ angle: finite, spacingMm: finite.positive().max(100), overscanMm: finite.nonnegative().max(100) }),
  /** Of a perforation what is cut and what is left, in turn, mm. */
  perforation: z.strictObject({ cutMm: finite.positive().max(100), leftMm: finite.positive().max(100) }),
  powerSettings: z.partialRecord(z.enum(purposes), powerSettingSchema),
});
export type Cutting = z.infer<typeof cuttingSchema>;

/** Until somebody types others. */
export const plainCutting: Cutting = {
  kerfMm: 0,
  corners: 'round',
  start: 'corner',
  lead: { kind: 'none', inMm: 2, outMm: 0 },
  overcutMm: 0,
  commonLines: false,
  tabs: { count: 0, spacingMm: 0, widthMm: 0.5 },
  hatch: { angle: 0, spacingMm: 0.3, overscanMm: 2 },
  perforation: { cutMm: 3, leftMm: 1 },
  powerSettings: {},
};

/** What a line of a purpose is made with. */
export const powerSettingOf = ({ powerSettings }: Pick<Cutting, 'powerSettings'>, purpose: Purpose): PowerSetting =>
  powerSettings[purpose] ?? purposeKinds[purpose].settings;
