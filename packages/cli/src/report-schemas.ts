/**
 * What the reports of the command hold, so that other programs can rely on it. The JSON Schemas in docs/reports are made of these.
 * Lengths are in mm, angles in degrees, unless a name says otherwise.
 */
import { z } from 'zod';

const listOf = <T extends z.ZodType>(schema: T) => z.array(schema).readonly();
const place = z.object({ x: z.number(), y: z.number() });

const part = z.object({
  name: z.string(),
  statedMm: z.number(),
  measuredMm: z.number(),
  offMm: z.number(),
  offPercent: z.number(),
});

const fit = {
  model: z.string().describe('how richly the picture was trued up; unsized, resolution, or by its marks'),
  recommended: z.string().nullable(),
  carried: listOf(z.string()).describe('the models that the marks can carry, plainest first'),
  reason: z.string(),
  mmPerPixel: z.number().describe('in the middle of the picture'),
  mmPerPixelAlong: place.describe("along the picture's own two axes"),
  scaleFrom: z.enum(['resolution', 'marks']),
  rotationDegrees: z.number().describe('counter-clockwise, quarter turns left out'),
  matrix: listOf(listOf(z.number())).describe('rows of the matrix that takes (x, y, 1) in pixels to the sheet in mm'),
  noisePixels: z.number().nullable().describe("one standard deviation of the marks' noise; null where nothing is left to tell it by"),
  standardErrorPercent: z.number(),
  expect: z
    .object({ overMm: z.number(), plusMinusMm: z.number() })
    .nullable()
    .describe("two standard errors of a length across the picture's middle"),
  residuals: listOf(
    z.object({
      mark: z.string(),
      offMm: z.number(),
      offDegrees: z.number().optional(),
      statedMm: z.number().optional(),
      measuredMm: z.number().optional(),
      offPercent: z.number().optional(),
      parts: listOf(part).optional(),
      pulls: z.number().describe('how much of the fit hangs on the mark, 0 to 1'),
      setAside: z.boolean(),
    }),
  ),
  outliers: listOf(
    z.union([
      z.object({ mark: z.string(), looksLike: z.string(), likelyMm: z.number() }),
      z.object({ mark: z.string(), chance: z.number() }),
    ]),
  ),
};

const lens = z
  .object({ k: z.number(), standardError: z.number(), edges: z.number(), bowedPixels: z.number() })
  .nullable()
  .describe('what of the lens was taken out of the picture, by the division model; null where nothing could be told');

export const trueUpReport = z.object({ ...fit, lens }).describe('nuvet true-up --report');

export const traceReport = z
  .object({
    ...fit,
    threshold: z.number().describe('greys up to it are ink, 0 to 255'),
    unevenLight: z.boolean().describe('whether every place got a threshold of its own unasked'),
    dotPitchMm: z.number().nullable().describe('how far apart the dots lie that were smoothed to even greys'),
    grainSmoothed: z.boolean().describe('whether strokes that grain breaks up were joined along themselves'),
    pieces: listOf(
      z.object({
        name: z.string(),
        widthMm: z.number(),
        heightMm: z.number(),
        areaMm2: z.number(),
        perimeterMm: z.number(),
        holes: z.number(),
        segments: z.number(),
        runsOffThePicture: z.boolean(),
      }),
    ),
    lens,
  })
  .describe('nuvet trace --report');

const file = z.object({
  file: z.string(),
  largestMm: z.number().nullable().describe('how far what the file says lies from what was proved, at most'),
  widthMm: z.number(),
  heightMm: z.number(),
  pages: z.number().optional(),
});

export const makeReport = z
  .looseObject({
    job: z.string(),
    from: z.string(),
    process: z.string(),
    files: listOf(z.looseObject(file.shape)),
    findings: listOf(z.string()),
    notes: listOf(z.string()),
  })
  .describe('nuvet make --report; a process adds what was found when its files were tried');

export const makeSummary = z
  .object({
    job: z.string(),
    process: z.string(),
    files: listOf(z.looseObject(file.shape)),
    kerfMm: z.number().nullable(),
    thicknessMm: z.number().nullable(),
    looks: listOf(z.string()).describe('what should be looked at before it is made'),
    notes: listOf(z.string()),
  })
  .describe('nuvet make --json, on standard output');

export const proveSummary = z
  .object({
    job: z.string(),
    pieces: z.number(),
    findings: listOf(
      z.object({
        code: z.string(),
        weight: z.string(),
        message: z.string(),
        pieceIds: listOf(z.string()),
        places: listOf(place),
      }),
    ),
    sizes: listOf(
      z.object({ name: z.string(), mustBeMm: z.number(), toleranceMm: z.number(), isMm: z.number().nullable(), holds: z.boolean() }),
    ),
    notes: listOf(z.string()),
  })
  .describe('nuvet prove --json, on standard output');

export const simulateReport = z
  .object({
    file: z.string(),
    stock: z.object({ widthMm: z.number(), heightMm: z.number(), thicknessMm: z.number() }),
    tools: listOf(z.object({ number: z.number().optional(), name: z.string(), kind: z.string(), diameterMm: z.number() })),
    cellMm: z.number(),
    moves: z.number(),
    removedMm3: z.number(),
    deepestMm: z.number(),
    goesThrough: z.boolean(),
    cutMm: z.number(),
    rapidMm: z.number(),
    seconds: z.number(),
    cutBox: z
      .object({ minX: z.number(), maxX: z.number(), minY: z.number(), maxY: z.number(), minZ: z.number(), maxZ: z.number() })
      .nullable(),
    rapidsThroughStock: listOf(z.object({ tool: z.string(), x: z.number(), y: z.number(), depthMm: z.number() })),
    notes: listOf(z.string()),
  })
  .describe('nuvet simulate --report');

const face = z.object({
  section: z.string(),
  chordMm: z.number(),
  coreLengthMm: z.number(),
  coreAreaMm2: z.number(),
  thickness: z.number().describe('the greatest, of a chord of 1'),
  thicknessAt: z.number().describe('where it lies, of a chord of 1'),
  camber: z.number(),
  camberAt: z.number(),
});

export const wingReport = z
  .object({
    root: face,
    tip: face,
    spanMm: z.number(),
    sweepMm: z.number(),
    washoutDegrees: z.number(),
    towers: z.object({ betweenMm: z.number(), toFoamMm: z.number(), axes: z.string().describe("the letters of the right tower's axes") }),
    feedMmPerMin: z.number(),
    minutes: z.number(),
    places: z.number().describe('of the wire, from one to the next of which it moves straight'),
    offMm: z.number().describe('how far the files that were made lie from the path, at most'),
  })
  .describe('nuvet wing --report');

/** A report as it is written; the types hold it to its schema. */
export const reportText = <T extends z.ZodType>(_schema: T, report: z.infer<T>): string => `${JSON.stringify(report, null, 2)}\n`;

export const reportSchemas = { 'true-up': trueUpReport, trace: traceReport, make: makeReport, 'make-json': makeSummary, 'prove-json': proveSummary, simulate: simulateReport, wing: wingReport } as const; // biome-ignore format: name by name
