/** The settings of a solid: how outlines become bodies, its base, raised lines, part spheres, and how it is printed. Lengths in mm. */
import { z } from 'zod';
import { purposes } from '../job/purposes.ts';
import { finite, text } from '../job/schema-parts.ts';

export const mostRules = 60;
export const mostSpheres = 60;
export const mostTurned = 20;
export const mostPairs = 20;
export const mostReliefs = 10;
/** In total, for a push-together joint in 4 mm stock, mm (common practice). */
export const plainPlayMm = 0.5;
const height = finite.min(-500).max(500);
const aside = finite.min(-2000).max(2000);
/** Steeper than this no side leans, degrees. */
export const steepestDraft = 60;
export const largestEdgeMm = 100;

const edgeSchema = z.strictObject({ kind: z.enum(['sharp', 'round', 'bevel', 'step']), sizeMm: finite.min(0).max(largestEdgeMm) });
export type EdgeSetting = z.infer<typeof edgeSchema>;

const bodySchema = z.strictObject({
  /** Over the plane of the drawing; below it where it is less than 0. */
  fromMm: height,
  toMm: height,
  draftDegrees: finite.min(-steepestDraft).max(steepestDraft),
  top: edgeSchema,
  bottom: edgeSchema,
  /** Joined to the others, taken away from them, or a body apart. */
  how: z.enum(['join', 'cut', 'apart']),
});
export type BodySetting = z.infer<typeof bodySchema>;

/** Of one outline, or of all of a purpose. */
const ruleSchema = bodySchema.extend({ pieceId: text(64).nullable(), purpose: z.enum(purposes).nullable() });
export type BodyRule = z.infer<typeof ruleSchema>;

const sphereSchema = z.strictObject({
  /** It stands in the middle of this outline's box. */
  pieceId: text(64),
  diameterMm: finite.min(0.2).max(1000),
  /** The height of the face that it stands on, and how far it reaches over it, or into it. */
  faceMm: height,
  depthMm: finite.min(0.05).max(1000),
  how: z.enum(['boss', 'dimple']),
});

const turnedSchema = z.strictObject({
  /** Half a profile: the left edge of its box is the axis. */
  pieceId: text(64),
  /** How far round it is turned; a whole turn closes it. */
  degrees: finite.min(1).max(360),
  /** It is hollow, with a wall so thick, and open above; null is solid. */
  wallMm: finite.min(0.1).max(500).nullable().default(null),
});

const pairSchema = z.strictObject({
  /** The first half; the second is another outline, or the same one again. */
  pieceId: text(64),
  otherId: text(64).nullable(),
  /** Which way the slot of the first half opens from its middle, degrees; that of the second opens the other way. */
  degrees: finite.min(-360).max(360),
  /** By how much the slots are wider than the bodies are thick, in total. */
  playMm: finite.min(0).max(20),
  /** How far aside of the middles of the two outlines the slots lie, to the right of the way in which that of the first opens. */
  asideMm: z.tuple([aside, aside]).default([0, 0]),
});
export type PairSetting = z.infer<typeof pairSchema>;

const reliefSchema = z.strictObject({
  /** Within this outline the body ends above in a surface as high as the picture is light. */
  pieceId: text(64),
  pictureId: text(64),
  blackMm: height,
  whiteMm: height,
  /** Standard deviation of the Gaussian that smooths it. */
  smoothMm: finite.min(0).max(50),
  stepMm: finite.min(0.02).max(20),
});
export type ReliefSetting = z.infer<typeof reliefSchema>;

export const solidSchema = z.strictObject({
  body: bodySchema,
  rules: z.array(ruleSchema).max(mostRules),
  /** Drawn lines as bands so wide; null leaves them out. */
  lines: z.strictObject({ widthMm: finite.min(0.05).max(200), fromMm: height, toMm: height, how: z.enum(['join', 'cut']) }).nullable(),
  spheres: z.array(sphereSchema).max(mostSpheres),
  turned: z.array(turnedSchema).max(mostTurned),
  /** Bodies that are pushed together, crosswise. */
  pairs: z.array(pairSchema).max(mostPairs),
  reliefs: z.array(reliefSchema).max(mostReliefs),
  base: z
    .strictObject({
      marginMm: finite.min(0).max(500),
      thicknessMm: finite.min(0.1).max(500),
      cornerMm: finite.min(0).max(500),
      /** Of a hole to hang it by. */
      holeMm: finite.min(0.5).max(100).nullable(),
    })
    .nullable(),
  /** How far chords may leave curves. */
  chordMm: finite.min(0.001).max(1),
  /** Of what it is printed of, g/cm³; how thick the filament is, and how much of it is laid in a second. */
  density: finite.min(0.1).max(25),
  filamentMm: finite.min(0.1).max(10),
  flowMm3PerS: finite.min(0.05).max(1000),
  layerMm: finite.min(0.01).max(5),
  /** What the printer lays down at least so wide; how steeply faces may hang over, degrees from upright; and how much its bed takes. */
  nozzleMm: finite.min(0.01).max(10),
  overhangDegrees: finite.min(0).max(90),
  bed: z.strictObject({ widthMm: finite.min(1).max(5000), depthMm: finite.min(1).max(5000), heightMm: finite.min(1).max(5000) }),
  /** A ball that has to get through all passages; null where none has to. */
  ballMm: finite.min(0.1).max(500).nullable(),
});
export type SolidSettings = z.infer<typeof solidSchema>;

const sharp: EdgeSetting = { kind: 'sharp', sizeMm: 1 };
export const plainBody: BodySetting = { fromMm: 0, toMm: 3, draftDegrees: 0, top: sharp, bottom: sharp, how: 'join' };

export const plainSolid: SolidSettings = {
  body: plainBody,
  rules: [],
  lines: null,
  spheres: [],
  turned: [],
  pairs: [],
  reliefs: [],
  base: null,
  chordMm: 0.02,
  density: 1.24,
  filamentMm: 1.75,
  flowMm3PerS: 8,
  layerMm: 0.2,
  nozzleMm: 0.4,
  overhangDegrees: 45,
  bed: { widthMm: 220, depthMm: 220, heightMm: 250 },
  ballMm: null,
};

/** Jobs of before there were walls of turned bodies, and slots aside of the middle, do not say them. */
export const wholeSolid = (kept: SolidSettings): SolidSettings => ({
  ...kept,
  turned: kept.turned.map((one) => ({ ...one, wallMm: one.wallMm ?? null })),
  pairs: kept.pairs.map((pair) => ({ ...pair, asideMm: pair.asideMm ?? [0, 0] })),
});
