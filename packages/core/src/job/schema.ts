/**
 * The job, version 4: plain data, checked wherever it enters; documents of earlier versions are read and come out as version 4.
 * In memory pieces and drawn things are lists; the document keeps them by id (see document.ts). Described in docs/job-format.md.
 */
import { z } from 'zod';
import { plainTraceSettings, takes } from '../trace/trace.ts';
import { markKindNames, markKinds } from '../trueup/mark-kinds.ts';
import { shapeModels } from '../trueup/marks.ts';
import { drawnSchema, isFollowable, tooManyFollow } from './drawn.ts';
import { makingSchema, plainMaking } from './making.ts';
import { migrated } from './migrations.ts';
import { plainProof, proofSchema } from './proof-settings.ts';
import { purposes } from './purposes.ts';
import { anyText, finite, hexColour, pieceSchema, pointSchema, text } from './schema-parts.ts';

export { type Piece, pathSchema, pieceSchema, pointSchema } from './schema-parts.ts';

export const transformSchema = z.strictObject({ a: finite, b: finite, c: finite, d: finite, e: finite, f: finite }).readonly();

const projectionSchema = z.strictObject({ ...transformSchema.unwrap().shape, g: finite, h: finite, i: finite }).readonly();

/** What a mark states: as typed, and what it came to, in mm or degrees; null until it is typed. */
const statedSchema = z.strictObject({ text: anyText(200), value: finite.nonnegative().nullable() });
export type Stated = z.infer<typeof statedSchema>;

const wholeMarkSchema = z
  .strictObject({
    id: text(64),
    kind: z.enum(markKindNames),
    /** Pixels of the picture as it came; how many, and what is stated: see `markKinds`. */
    points: z.array(pointSchema).min(2).max(200),
    stated: z.array(statedSchema).max(2),
    boxFit: z.enum(['contained', 'covering', 'each-side']).optional(),
    places: z.array(pointSchema).max(16).optional(),
  })
  .refine(({ kind, points }) => points.length >= markKinds[kind].min && points.length <= markKinds[kind].max, 'too few or too many points')
  .refine(({ kind, stated }) => stated.length === markKinds[kind].stated.length, 'not what this mark states')
  .refine(
    ({ kind, points, places }) => (markKinds[kind].hasPlaces === true) === (places?.length === points.length),
    'a scale card needs a place for each point',
  );

/** Version 1 had two ends and one length. */
const firstMarkSchema = z
  .strictObject({
    id: text(64),
    kind: z.enum(['known-length', 'level', 'plumb', 'check']),
    a: pointSchema,
    b: pointSchema,
    text: z.string().max(200).optional(),
    mm: finite.positive().nullable().optional(),
  })
  .transform(
    ({ id, kind, a, b, text, mm }): z.infer<typeof wholeMarkSchema> => ({
      id,
      kind,
      points: [a, b],
      stated: markKinds[kind].stated.length === 0 ? [] : [{ text: text ?? '', value: mm ?? null }],
    }),
  );

export const markSchema = z.union([wholeMarkSchema, firstMarkSchema]);
export type Mark = z.infer<typeof markSchema>;

/** How a picture is shown for tracing by eye; its bytes and what is traced stay as they are. */
const toneSchema = z.strictObject({
  /** 0 as it is, 1 white. */
  lighten: finite.min(0).max(1),
  /** -1 flat grey, 0 as it is, 1 hard. */
  contrast: finite.min(-1).max(1),
  invert: z.boolean(),
  /** Grey and hard, as if drawn with one ink. */
  singleInk: z.boolean(),
});
export type Tone = z.infer<typeof toneSchema>;
export const plainTone: Tone = { lighten: 0, contrast: 0, invert: false, singleInk: false };

export const resolutionSources = ['png', 'jfif', 'exif', 'tiff', 'bmp', 'webp', 'pdf', 'scanner', 'stated'] as const;
const resolutionSchema = z.strictObject({
  dpi: finite.positive(),
  source: z.enum(resolutionSources),
  /** False where programs write this number without knowing, such as 72 or 96. */
  trusted: z.boolean().default(true),
});

export const pictureSchema = z.strictObject({
  id: z.uuid(),
  name: text(200),
  /** As seen upright. */
  widthPx: z.int().min(1).max(100_000),
  heightPx: z.int().min(1).max(100_000),
  resolution: resolutionSchema.nullable(),
  opacity: finite.min(0).max(1),
  marks: z.array(markSchema).max(200),
  hidden: z.boolean().default(false),
  /** A locked picture is neither moved nor marked. */
  locked: z.boolean().default(false),
  tone: toneSchema.default(plainTone),
  /** Counter-clockwise. */
  quarterTurns: z.int().min(0).max(3).default(0),
  flipped: z.boolean().default(false),
  /** The outline, in pixels, outside which the picture is not shown and not traced; its pixels stay. */
  crop: z.array(pointSchema).min(3).max(500).nullable().default(null),
  /** The model to use wherever the marks carry it; null takes the recommended one. */
  pinned: z.enum(shapeModels).nullable().default(null),
  /** The point, in pixels, that lies on the sheet's origin; null: the lower left corner of the picture's box. */
  datum: pointSchema.nullable().default(null),
  /** Where on the sheet that point lies, mm. */
  place: pointSchema.default({ x: 0, y: 0 }),
});
export type Picture = z.infer<typeof pictureSchema>;

/** A picture as it comes in, from what its file says. */
export const newPicture = (facts: Pick<Picture, 'id' | 'name' | 'widthPx' | 'heightPx' | 'resolution'>): Picture =>
  pictureSchema.parse({ ...facts, opacity: 1, marks: [] });

export const traceSettingsSchema = z.strictObject({
  take: z.enum(takes).default('shape'),
  /** Whether light areas are traced instead of dark ones. */
  inverted: z.boolean().default(false),
  threshold: z.union([z.literal('auto'), z.literal('local'), z.int().min(0).max(255)]),
  toleranceMm: finite.min(0.005).max(10),
  smallestMm: finite.min(0).max(1000),
  /** The colours to trace, each with its purpose; where there are any, the picture is traced by colour instead of by ink. */
  colours: z
    .array(z.strictObject({ hex: hexColour, purpose: z.enum(purposes) }))
    .max(12)
    .default([]),
  /** Of a network of lines: how thick walls along them are made; null leaves them lines. */
  wallMm: finite.positive().max(1000).nullable().default(null),
  /** Whether curves join with one curvature, too. */
  forBlade: z.boolean().default(false),
  /** The outline, in pixels of the picture as it came, outside which nothing is traced. */
  within: z.array(pointSchema).min(3).max(500).nullable().default(null),
  /** Whether what lies around a framed sheet is traced, too. */
  aroundFrame: z.boolean().default(false),
  /** Whether the dots of a print and the grain of pencil or chalk are traced as they are. */
  keepsTexture: z.boolean().default(false),
});
export type JobTraceSettings = z.infer<typeof traceSettingsSchema>;

export const traceSchema = z.strictObject({
  pictureId: z.uuid(),
  settings: traceSettingsSchema,
  /** The threshold that `auto` came to. */
  threshold: finite,
  /** Whether the light falls off over the picture, so that every place got a threshold of its own unasked. */
  isUneven: z.boolean().optional(),
  /** Whether strokes that the grain of pencil or chalk breaks up were joined along themselves. */
  isGrainy: z.boolean().optional(),
  /** How far apart the dots of the print lie that were smoothed to even greys. */
  dotPitchMm: finite.positive().optional(),
  /** Specks and pinholes left out for their size. */
  dropped: z.int().min(0),
  /** Whether only the inside of a framed sheet was traced. */
  insideFrame: z.boolean().default(false),
  /** The scale that tolerance and smallest size were taken at. */
  mmPerPx: finite.positive(),
  /** The fit that the pieces lie on the sheet by; it moves on when the picture is trued up again. */
  toSheet: transformSchema,
  /** The same where the fit is a perspective one, which no affine map tells. */
  projection: projectionSchema.nullable().default(null),
  pieces: z.array(pieceSchema).max(20_000),
});
export type JobTrace = z.infer<typeof traceSchema>;

/** Outlines brought in from a drawing file, at their stated unit. */
export const drawingSchema = z.strictObject({
  id: text(64),
  name: text(200),
  kind: z.enum(['svg', 'dxf', 'hpgl']),
  /** Whether the file states its unit; where it does not, a person chooses. */
  unitIsStated: z.boolean(),
  mmPerUnit: finite.positive(),
  hidden: z.boolean(),
  /** What in the file was left aside, a line each. */
  notes: z.array(anyText(300)).max(50),
  pieces: z.array(pieceSchema).max(20_000),
});
export type Drawing = z.infer<typeof drawingSchema>;

/** The fields of a job, each checked by itself. */
export const jobFields = z.strictObject({
  version: z.literal(4),
  name: text(120),
  unit: z.enum(['mm', 'in']),
  making: makingSchema,
  pictures: z.array(pictureSchema).max(50),
  drawings: z.array(drawingSchema).max(20).default([]),
  drawn: z.array(drawnSchema).max(5000).default([]),
  /** The drawing scale that a plan is stated at: a length on the sheet times this is the real one. */
  planScale: z
    .strictObject({
      text: text(60),
      factor: finite.positive(),
      /** Whether files are written at the real size. */
      atRealSize: z.boolean(),
    })
    .nullable()
    .default(null),
  /** At most one of each picture, in the order that they were made. */
  traces: z.array(traceSchema).max(50).default([]),
  proof: proofSchema.default(plainProof),
});
export type Job = z.infer<typeof jobFields>;

/** A job as it lies in memory, or a document of any version. */
export const jobSchema = z.preprocess(
  migrated,
  jobFields
    .refine(({ drawn }) => isFollowable(drawn), tooManyFollow)
    .refine(({ traces }) => new Set(traces.map((t) => t.pictureId)).size === traces.length, 'two traces of one picture'),
);

/** A job with nothing in it. */
export const emptyJob = (name: string): Job => ({
  version: 4,
  name,
  unit: 'mm',
  making: plainMaking,
  pictures: [],
  drawings: [],
  drawn: [],
  planScale: null,
  traces: [],
  proof: plainProof,
});

export const defaultTraceSettings: JobTraceSettings = {
  ...plainTraceSettings,
  colours: [],
  wallMm: null,
  forBlade: false,
  within: null,
  aroundFrame: false,
};
