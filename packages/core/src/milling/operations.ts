/**
 * The operations of milling: what each is, as plain data. Depths are below the top of the stock as it came, mm; a depth that is null is
 * right through.
 */
import { z } from 'zod';
import { purposes } from '../job/purposes.ts';
import { finite, pointSchema, text } from '../job/schema-parts.ts';

/** More of a tool's front than this does not bite without being slowed, degrees: common practice for hobby routers. */
export const plainEngagement = 110;
const depth = finite.positive().max(1000);
const shared = {
  id: text(40),
  isOn: z.boolean().default(true),
  /** The id of its tool. */
  tool: text(40),
  /** Pieces by their purpose, or single ones by their ids. */
  of: z.enum(purposes).nullable().default(null),
  pieces: z.array(text(80)).max(100).nullable().default(null),
};
const direction = z.enum(['climb', 'conventional']).default('climb');
/** How steep the tool goes down, degrees; null for what the tool may. */
const entryAngle = finite.positive().max(90).nullable().default(null);

const tabsSchema = z.strictObject({
  count: z.int().min(0).max(100),
  spacingMm: finite.nonnegative().max(10_000),
  widthMm: finite.positive().max(200),
  heightMm: finite.positive().max(200),
  flanks: z.enum(['straight', 'sloped']),
  places: z.array(pointSchema).max(200).nullable(),
});
type TabSettings = z.infer<typeof tabsSchema>;
export const plainTabs: TabSettings = { count: 4, spacingMm: 0, widthMm: 5, heightMm: 1.5, flanks: 'straight', places: null };

const profileSchema = z.strictObject({
  kind: z.literal('profile'),
  ...shared,
  side: z.enum(['outside', 'inside', 'both', 'on']).default('both'),
  depthMm: depth.nullable().default(null),
  direction,
  finishMm: finite.nonnegative().max(20).default(0),
  entryAngle,
  leadMm: finite.nonnegative().max(50).default(0),
  tabs: tabsSchema.nullable().default(plainTabs),
  /** A skin left at the bottom that holds the piece, mm; then there are no tabs. */
  skinMm: finite.nonnegative().max(20).default(0),
  /** Inner corners that another part must fill. */
  corners: z.enum(['as drawn', 'dog-bone', 'tee']).default('as drawn'),
  /** Of these only those at places on the sheet; null for all. */
  cornersAt: z.array(pointSchema).max(500).nullable().default(null),
});
const pocketSchema = z.strictObject({
  kind: z.literal('pocket'),
  ...shared,
  depthMm: depth.nullable().default(null),
  pattern: z.enum(['rings', 'spiral', 'lines', 'loops']).default('rings'),
  lineAngle: finite.min(-180).max(180).default(0),
  direction,
  finishMm: finite.nonnegative().max(20).default(0),
  entryAngle,
  /** A smaller tool for what the first leaves in corners. */
  restTool: text(40).nullable().default(null),
  /** More of the front than this does not bite without being slowed, degrees; loops are laid so that it does not. */
  engagement: finite.min(30).max(180).default(plainEngagement),
});
const carveSchema = z.strictObject({
  kind: z.literal('carve'),
  ...shared,
  depthMm: depth,
  /** An upright tool that clears flat floors first. */
  floorTool: text(40).nullable().default(null),
});
const inlaySchema = z.strictObject({
  kind: z.literal('inlay'),
  ...shared,
  part: z.enum(['recess', 'plug']),
  /** Of the recess, mm. */
  depthMm: depth,
  /** Between the plug's face and the floor of the recess, for the glue, mm. */
  glueMm: finite.nonnegative().max(20).default(0.2),
  /** How far the plug's waste stands over the surface, for the saw, mm. */
  sawMm: finite.nonnegative().max(50).default(1),
  floorTool: text(40).nullable().default(null),
});
const followSchema = z.strictObject({ kind: z.literal('follow'), ...shared, depthMm: depth, entryAngle });
const chamferSchema = z.strictObject({
  kind: z.literal('chamfer'),
  ...shared,
  side: z.enum(['outside', 'inside', 'both']).default('both'),
  widthMm: depth,
});
const holesSchema = z.strictObject({
  kind: z.literal('holes'),
  ...shared,
  depthMm: depth.nullable().default(null),
  peckMm: depth.default(3),
  spotMm: finite.nonnegative().max(20).default(0),
  entryAngle,
  /** Only holes of this diameter; null for all. */
  diameterMm: depth.nullable().default(null),
});
const faceSchema = z.strictObject({
  kind: z.literal('face'),
  ...shared,
  depthMm: depth,
  pattern: z.enum(['lines', 'spiral']).default('lines'),
});

/** How far below the recess's top the face of its plug lies, mm: the glue has its room under it. */
export const startDepth = ({ depthMm, glueMm }: z.infer<typeof inlaySchema>): number => Math.max(0.05, depthMm - glueMm);

export const operationSchema = z.discriminatedUnion('kind', [
  profileSchema,
  pocketSchema,
  carveSchema,
  inlaySchema,
  followSchema,
  chamferSchema,
  holesSchema,
  faceSchema,
]);
export type Operation = z.infer<typeof operationSchema>;
export type OperationKind = Operation['kind'];
export type OperationOf<K extends OperationKind> = Extract<Operation, { kind: K }>;

export const operationWords: Readonly<Record<OperationKind, string>> = {
  profile: 'Profile',
  pocket: 'Pocket',
  carve: 'Carve',
  inlay: 'Inlay',
  follow: 'Follow',
  chamfer: 'Chamfer',
  holes: 'Holes',
  face: 'Face',
};
export const operationKinds = Object.keys(operationWords) as OperationKind[];
