/** The settings of a quilt: its block, its allowance, its fabrics, how blocks are set, and what they are cut from. Lengths in mm. */
import { z } from 'zod';
import { anyText, finite, hexColour, pointSchema, text } from '../job/schema-parts.ts';
import { blockGrids } from './block-grid.ts';
import { lineMotifNames } from './line-motifs.ts';
import { rowPatternNames } from './row-patterns.ts';

export const inchMm = 25.4;

export const blockSettings = ['straight', 'on point', 'strips', 'medallion'] as const;
/** What a border is pieced of. */
export const borderPieces = ['plain', 'squares', 'half-square triangles', 'flying geese'] as const;
export type BorderPieces = (typeof borderPieces)[number];
export const templateCopies = ['one each', 'for a block', 'for the quilt'] as const;
export const turnings = ['none', 'quarter turns', 'mirrored'] as const;
export type Turning = (typeof turnings)[number];
export const blockEdges = ['auto', 'rectangle', 'as drawn'] as const;
export const mostBorders = 12;
export const mostFabrics = 12;
export const mostColourings = 8;
export const mostPinned = 6;
export const mostFurther = 8;
export const mostOwnMotifs = 24;

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

/** What is quilted along: lines that are drawn, a filling, rows of a pattern, or a motif. */
export const linePatterns = ['none', 'drawn', 'cross-hatching', 'echo', 'stippling', ...rowPatternNames, ...lineMotifNames, 'own motif'] as const; // biome-ignore format: one line
export type LinePattern = (typeof linePatterns)[number];
/** What needs no lines drawn. */
const patternToTry = z.enum(linePatterns).exclude(['none', 'drawn', 'own motif']);

/** Where a line is quilted: over all, in one area, or in each area of a kind. */
export const quiltedPlaces = ['quilt', 'block', 'patches', 'sashing', 'posts', 'plain squares', 'triangles', 'borders'] as const;
export type QuiltedPlace = (typeof quiltedPlaces)[number];
/** Places of the finished block, rather than of the quilt about it. */
export const isInBlock = (place: QuiltedPlace): boolean => place === 'block' || place === 'patches';

const lineSchema = z.strictObject({
  pattern: z.enum(linePatterns),
  over: z.enum(quiltedPlaces),
  /** Of what lies in the block, whether it is quilted in every block of the quilt. */
  isInEveryBlock: z.boolean(),
  /** Of patches, the set that is quilted (see `patchSets`); null is all. */
  ofSet: anyText(20).nullable(),
  /** Which of the own lineMotifs, from 0. */
  ownMotif: z.int().min(0).max(mostOwnMotifs),
  /** How far the pattern stays within the edge of its place. */
  insetMm: finite.min(0).max(1000),
  /** Between neighbouring lines of a filling. */
  spacingMm: finite.min(1).max(1000),
  /** Of cross-hatching, degrees. */
  angle: finite.min(-180).max(180),
  repeatMm: finite.min(5).max(5000),
  rowMm: finite.min(5).max(5000),
  /** How far rows reach into one another. */
  overlapMm: finite.min(0).max(5000),
  isStaggered: z.boolean(),
  isMirrored: z.boolean(),
  /** Along drawn lines, whether stretches are sewn twice, so that the line is one; else the needle is lifted. */
  isSewnTwice: z.boolean(),
  /** Whether each part ends where it starts. */
  comesBack: z.boolean(),
  /** Along drawn lines, where the line starts and ends, on the finished block; null where that is free. */
  startAt: pointSchema.nullable(),
  endAt: pointSchema.nullable(),
  /** Whether the needle may travel along the block's seams from one drawn line to another. */
  alongSeams: z.boolean(),
  /** What that costs for its length: 1 as much as sewing a line twice. */
  seamCost: finite.min(0.01).max(10),
  stitchMm: finite.min(0.5).max(20),
  /** How far a stitch may leave the line. */
  chordMm: finite.min(0.005).max(5),
  /** Where the needle is lifted, how often it sews to and fro at the ends of the thread. */
  tieOffs: z.int().min(0).max(12),
  stitchesPerMin: finite.min(10).max(5000),
  /** More threads over one another than this are told. */
  mostLayers: z.int().min(1).max(20),
  /** Turns sharper than this are told, degrees: 180 is right back. */
  sharpestDegrees: finite.min(30).max(180),
  /** How far up the machine reaches in one pass; null is as far as asked. */
  throatMm: finite.min(50).max(20_000).nullable(),
  /** Another stippling of the same spacing. */
  seed: z.int().min(0).max(1_000_000),
});
/** The quilting line's settings; one with no pattern has none. */
export type QuiltingLineSettings = z.infer<typeof lineSchema>;
export type LineSettings = QuiltingLineSettings & { readonly pattern: Exclude<LinePattern, 'none'> };
/** Jobs keep lines that were set before some of this could be. */
const keptLine = lineSchema.partial().required({ pattern: true });

/** Lines that are drawn in the job as a motif: they are fitted where it is asked for, and not quilted along where they lie. */
const ownMotifSchema = z.strictObject({ name: text(60), pieceIds: z.array(text(64)).min(1).max(60) });
export type OwnMotif = z.infer<typeof ownMotifSchema>;

const borderSchema = z.strictObject({
  widthMm: lengthMm,
  fabric: fabricNumber,
  pieces: z.enum(borderPieces).optional(),
  /** Of a pieced border, its other fabric, and that of the squares at its corners. */
  second: fabricNumber.optional(),
  corner: fabricNumber.optional(),
});
export type Border = z.infer<typeof borderSchema>;

export const techniques = ['pieced', 'appliqué'] as const;

export const quiltingSchema = z.strictObject({
  /** Patches are sewn to one another, or on to a background. */
  technique: z.enum(techniques),
  /** What is turned under round an appliqué shape; 0 where shapes are fused, and cut from the back. */
  turnUnderMm: finite.min(0).max(50),
  /** Pieces in the order in which appliqué shapes lie, from the lowest; those not named lie over them, the larger ones lower. */
  order: z.array(text(64)).max(2000),
  /** How wide an open line is as a stem, finished: a strip cut on the bias; and its fabric. */
  stemMm: finite.positive().max(200),
  stemFabric: fabricNumber,
  /** How far an appliqué shape goes on under one that lies over it. */
  underMm: finite.min(0).max(100),
  /** The longer side of the finished block. */
  finishedMm: finite.positive().max(20_000),
  allowanceMm: finite.min(0).max(100),
  /** Of single sides of templates, where it is another: by `A 2`, the template and the number of its side. */
  edgeAllowances: z.record(anyText(24), finite.min(0).max(100)),
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
  /** Of patches by their set, how far the grain is turned in them, degrees: along the block's sides where nothing is said. */
  grain: z.record(anyText(20), finite.min(-180).max(180)),
  columns: z.int().min(1).max(60),
  rows: z.int().min(1).max(60),
  setting: z.enum(blockSettings),
  turning: z.enum(turnings),
  /** Whether every second place has a plain square in place of the block. */
  alternate: z.boolean(),
  sashingMm: lengthMm,
  hasPosts: z.boolean(),
  borders: z.array(borderSchema).max(mostBorders),
  isMitred: z.boolean(),
  bindingMm: finite.positive().max(500),
  sashingFabric: fabricNumber,
  postFabric: fabricNumber,
  plainFabric: fabricNumber,
  bindingFabric: fabricNumber,
  paper: text(40),
  /** How often each template lies on the sheet that a machine cuts them from: once, or as often as it is needed. */
  copies: z.enum(templateCopies),
  /** Other fabrics and which patch is of which, kept to compare. */
  colourings: z
    .array(z.strictObject({ fabrics: z.array(fabricSchema).min(1).max(mostFabrics), fabricOf: z.record(anyText(20), fabricNumber) }))
    .max(mostColourings),
  line: keptLine,
  /** Lines that are quilted beside that one, in other places. */
  further: z.array(keptLine).max(mostFurther),
  ownMotifs: z.array(ownMotifSchema).max(mostOwnMotifs),
  /** Patterns that are tried beside one another. */
  pinned: z.array(patternToTry).max(mostPinned),
});
/** As a job keeps them: lines may lack what is as it is until it is set. */
export type KeptQuilting = z.infer<typeof quiltingSchema>;
export interface QuiltingSettings extends Omit<KeptQuilting, 'line' | 'further'> {
  readonly line: QuiltingLineSettings;
  readonly further: readonly QuiltingLineSettings[];
}

export const plainQuilting: QuiltingSettings = {
  technique: 'pieced',
  turnUnderMm: (3 / 16) * inchMm,
  underMm: inchMm / 4,
  order: [],
  stemMm: inchMm / 4,
  stemFabric: 0,
  finishedMm: 12 * inchMm,
  allowanceMm: inchMm / 4,
  edgeAllowances: {},
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
  grain: {},
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
  copies: 'one each',
  colourings: [],
  pinned: [],
  further: [],
  ownMotifs: [],
  line: {
    pattern: 'none',
    over: 'quilt',
    isInEveryBlock: false,
    ofSet: null,
    ownMotif: 0,
    insetMm: 0,
    spacingMm: inchMm / 2,
    angle: 45,
    repeatMm: 6 * inchMm,
    rowMm: 3 * inchMm,
    overlapMm: 0,
    isStaggered: false,
    isMirrored: false,
    isSewnTwice: true,
    comesBack: false,
    startAt: null,
    endAt: null,
    alongSeams: false,
    seamCost: 0.5,
    stitchMm: 2.5,
    chordMm: 0.1,
    tieOffs: 2,
    stitchesPerMin: 800,
    mostLayers: 4,
    sharpestDegrees: 165,
    throatMm: null,
    seed: 1,
  },
};

/** A fabric by its position; the last where there are no longer so many. */
export const fabricAt = ({ fabrics }: Pick<QuiltingSettings, 'fabrics'>, k: number): number => Math.min(k, fabrics.length - 1);

const wholeLine = (line: QuiltingLineSettings): QuiltingLineSettings => ({ ...plainQuilting.line, ...line });

/** Settings as a job keeps them, what lines may lack filled in. */
export const wholeQuilting = (kept: QuiltingSettings): QuiltingSettings => ({ ...kept, line: wholeLine(kept.line), further: kept.further.map(wholeLine) }); // biome-ignore format: one line
