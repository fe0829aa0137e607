/**
 * The job document, version 1: plain data, checked wherever it enters. Described in docs/job-format.md.
 */
import { z } from 'zod';

const finite = z.number().finite();
const text = (most: number) => z.string().trim().min(1).max(most);

export const pointSchema = z.strictObject({ x: finite, y: finite }).readonly();
export const transformSchema = z.strictObject({ a: finite, b: finite, c: finite, d: finite, e: finite, f: finite }).readonly();

export const segmentSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('line'), to: pointSchema }).readonly(),
  z.strictObject({ kind: z.literal('arc'), to: pointSchema, sweep: finite }).readonly(),
  z.strictObject({ kind: z.literal('cubic'), c1: pointSchema, c2: pointSchema, to: pointSchema }).readonly(),
]);

export const pathSchema = z
  .strictObject({ start: pointSchema, segments: z.array(segmentSchema).min(1).max(100_000).readonly(), closed: z.boolean() })
  .readonly();

export const purposes = ['cut', 'score', 'engrave', 'pocket', 'stitch', 'guide'] as const;
export type Purpose = (typeof purposes)[number];

const ends = { id: text(64), a: pointSchema, b: pointSchema };
export const markSchema = z.discriminatedUnion('kind', [
  /** `text` is the length as typed, `mm` what it came to; both empty until it is typed. */
  z.strictObject({ kind: z.literal('known-length'), ...ends, text: z.string().max(200), mm: finite.positive().nullable() }),
  z.strictObject({ kind: z.literal('level'), ...ends }),
  z.strictObject({ kind: z.literal('plumb'), ...ends }),
  /** A second measurement to check by: it pulls nothing. */
  z.strictObject({ kind: z.literal('check'), ...ends }),
]);
export type Mark = z.infer<typeof markSchema>;

export const pictureSchema = z.strictObject({
  id: z.uuid(),
  name: text(200),
  /** As seen upright. */
  widthPx: z.int().min(1).max(100_000),
  heightPx: z.int().min(1).max(100_000),
  resolution: z.strictObject({ dpi: finite.positive(), source: z.enum(['png', 'jfif', 'exif']) }).nullable(),
  opacity: finite.min(0).max(1),
  marks: z.array(markSchema).max(200),
});
export type Picture = z.infer<typeof pictureSchema>;

export const traceSettingsSchema = z.strictObject({
  threshold: z.union([z.literal('auto'), z.int().min(0).max(255)]),
  toleranceMm: finite.min(0.005).max(10),
  smallestMm: finite.min(0).max(1000),
});
export type JobTraceSettings = z.infer<typeof traceSettingsSchema>;

export const pieceSchema = z.strictObject({
  id: text(64),
  name: text(100),
  purpose: z.enum(purposes),
  /** Left out pieces stay in the job and go into no file. */
  leftOut: z.boolean(),
  runsOff: z.boolean(),
  outer: pathSchema,
  holes: z.array(pathSchema).max(20_000),
});
export type Piece = z.infer<typeof pieceSchema>;

export const traceSchema = z.strictObject({
  pictureId: z.uuid(),
  settings: traceSettingsSchema,
  /** The threshold that `auto` came to. */
  threshold: finite,
  /** Specks and pinholes left out for their size. */
  dropped: z.int().min(0),
  /** The scale that tolerance and smallest size were taken at. */
  mmPerPx: finite.positive(),
  /** The fit that the pieces lie on the sheet by; it moves on when the picture is trued up again. */
  toSheet: transformSchema,
  pieces: z.array(pieceSchema).max(20_000),
});
export type JobTrace = z.infer<typeof traceSchema>;

export const ways = ['laser', 'cnc', 'quilting', 'foam', 'paper', 'print'] as const;

export const jobSchema = z.strictObject({
  version: z.literal(1),
  name: text(120),
  unit: z.enum(['mm', 'in']),
  making: z.strictObject({ way: z.enum(ways), stock: text(100).nullable(), thicknessMm: finite.positive().nullable() }),
  pictures: z.array(pictureSchema).max(50),
  trace: traceSchema.nullable(),
});
export type Job = z.infer<typeof jobSchema>;

/** A job with nothing in it. */
export const emptyJob = (name: string): Job => ({
  version: 1,
  name,
  unit: 'mm',
  making: { way: 'laser', stock: null, thicknessMm: null },
  pictures: [],
  trace: null,
});

export const defaultTraceSettings: JobTraceSettings = { threshold: 'auto', toleranceMm: 0.1, smallestMm: 1 };
