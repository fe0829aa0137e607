/** The settings of a quilt: its block, its allowance, its fabrics, how blocks are set, and what they are cut from. Lengths in mm. */
import { z } from 'zod';
import { anyText, finite, hexColour, pointSchema, text } from '../job/schema-parts.ts';
import { blockGrids } from './block-grid.ts';
import { rowPatternNames } from './row-patterns.ts';

export const inchMm = 25.4;

export const blockSettings = ['straight', 'on point'] as const;
export const turnings = ['none', 'quarter turns', 'mirrored'] as const;
export type Turning = (typeof turnings)[number];
export const blockEdges = ['auto', 'rectangle', 'as drawn'] as const;
export const mostBorders = 6;
export const mostFabrics = 12;
export const mostColourings = 8;
export const mostPinned = 6;

const fabricSchema = z.strictObject({
  name: text(60),
  colour: hexColour,
  /** The picture of the job that shows its print, at its true size; none of a plain fabric. */
  pictureId: z.uuid().nullable().optional(),
});
export type Fabric = z.infer<typeof fabricSchema>;

/** Of what a part of the quilt is made, as a position among the fabrics. */
const fabricNumber = z
  .int()
  .min(0)
  .max(mostFabrics - 1);
const lengthMm = finite.min(0).max(20_000);

/** What is quilted along: lines that are drawn, a filling, or rows of a pattern. */
export const linePatterns = ['none', 'drawn', 'cross-hatching', 'echo', 'stippling', ...rowPatternNames] as const;
export type LinePattern = (typeof linePatterns)[number];
/** What needs no lines drawn. */
const patternToTry = z.enum(linePatterns).exclude(['none', 'drawn']);

const lineSchema = z.strictObject({
  pattern: z.enum(linePatterns),
  over: z.enum(['block', 'quilt']),
  /** Between neighbouring lines of a filling. */
  spacingMm: finite.min(1).max(1000),
  /** Of cross-hatching, degrees. */
  angle: finite.min(-180).max(180),
  repeatMm: finite.min(5).max(5000),
  rowMm: finite.min(5).max(5000),
  isStaggered: z.boolean(),
  isMirrored: z.boolean(),
  /** Along drawn lines, whether stretches are sewn twice, so that the line is one; else the needle is lifted. */
  isSewnTwice: z.boolean(),
  /** Whether each part ends where it starts. */
  comesBack: z.boolean(),
  stitchMm: finite.min(0.5).max(20),
  /** How far a stitch may leave the line. */
  chordMm: finite.min(0.005).max(5),
  stitchesPerMin: finite.min(10).max(5000),
  /** Another stippling of the same spacing. */
  seed: z.int().min(0).max(1_000_000),
});
/** The quilting line's settings; one with no pattern has none. */
export type QuiltingLineSettings = z.infer<typeof lineSchema>;
export type LineSettings = QuiltingLineSettings & { readonly pattern: Exclude<LinePattern, 'none'> };

export const techniques = ['pieced', 'appliqué'] as const;

export const quiltingSchema = z.strictObject({
  /** Patches are sewn to one another, or on to a background. */
  technique: z.enum(techniques),
  /** What is turned under round an appliqué shape; 0 where shapes are fused, and cut from the back. */
  turnUnderMm: finite.min(0).max(50),
  /** How far an appliqué shape goes on under one that lies over it. */
  underMm: finite.min(0).max(100),
  /** The longer side of the finished block. */
  finishedMm: finite.positive().max(20_000),
  allowanceMm: finite.min(0).max(100),
  /** Corners drawn nearer than this are one; null finds it. */
  joinMm: finite.positive().max(100).nullable(),
  grid: z.enum(['auto', 'none', ...blockGrids.map(({ name }) => name)]),
  edge: z.enum(blockEdges),
  /** Whether sizes to cut are rounded up to eighths of an inch. */
  roundUp: z.boolean(),
  /** How much of a fabric's width can be used. */
  usableMm: finite.positive().max(10_000),
  fabrics: z.array(fabricSchema).min(1).max(mostFabrics),
  /** Of patches by their set (see `patchSets`), where it is not the first fabric for drawn patches and the second for others. */
  fabricOf: z.record(anyText(20), fabricNumber),
  /** Of patches by their set, how far the print is moved within them, mm: for a motif to lie in the middle. */
  printShift: z.record(anyText(20), pointSchema),
  columns: z.int().min(1).max(60),
  rows: z.int().min(1).max(60),
  setting: z.enum(blockSettings),
  turning: z.enum(turnings),
  /** Whether every second place has a plain square in place of the block. */
  alternate: z.boolean(),
  sashingMm: lengthMm,
  hasPosts: z.boolean(),
  borders: z.array(z.strictObject({ widthMm: lengthMm, fabric: fabricNumber })).max(mostBorders),
  isMitred: z.boolean(),
  bindingMm: finite.positive().max(500),
  sashingFabric: fabricNumber,
  postFabric: fabricNumber,
  plainFabric: fabricNumber,
  bindingFabric: fabricNumber,
  paper: text(40),
  /** Other fabrics and which patch is of which, kept to compare. */
  colourings: z
    .array(z.strictObject({ fabrics: z.array(fabricSchema).min(1).max(mostFabrics), fabricOf: z.record(anyText(20), fabricNumber) }))
    .max(mostColourings),
  line: lineSchema,
  /** Patterns that are tried beside one another. */
  pinned: z.array(patternToTry).max(mostPinned),
});
export type QuiltingSettings = z.infer<typeof quiltingSchema>;

export const plainQuilting: QuiltingSettings = {
  technique: 'pieced',
  turnUnderMm: (3 / 16) * inchMm,
  underMm: inchMm / 4,
  finishedMm: 12 * inchMm,
  allowanceMm: inchMm / 4,
  joinMm: null,
  grid: 'auto',
  edge: 'auto',
  roundUp: true,
  usableMm: 40 * inchMm,
  fabrics: [
    { name: 'Dark', colour: '#35508f' },
    { name: 'Light', colour: '#efe6d2' },
  ],
  fabricOf: {},
  printShift: {},
  columns: 1,
  rows: 1,
  setting: 'straight',
  turning: 'none',
  alternate: false,
  sashingMm: 0,
  hasPosts: false,
  borders: [],
  isMitred: false,
  bindingMm: 2.5 * inchMm,
  sashingFabric: 1,
  postFabric: 0,
  plainFabric: 1,
  bindingFabric: 0,
  paper: 'Letter',
  colourings: [],
  pinned: [],
  line: {
    pattern: 'none',
    over: 'quilt',
    spacingMm: inchMm / 2,
    angle: 45,
    repeatMm: 6 * inchMm,
    rowMm: 3 * inchMm,
    isStaggered: false,
    isMirrored: false,
    isSewnTwice: true,
    comesBack: false,
    stitchMm: 2.5,
    chordMm: 0.1,
    stitchesPerMin: 800,
    seed: 1,
  },
};

/** A fabric by its position; the last where there are no longer so many. */
export const fabricAt = ({ fabrics }: Pick<QuiltingSettings, 'fabrics'>, k: number): number => Math.min(k, fabrics.length - 1);
