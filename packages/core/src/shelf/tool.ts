/**
 * Tools on the shelf: what they are, their sizes, and how fast they turn and move in a material.
 */
import { z } from 'zod';
import { anyText, finite, sizeMm, text } from '../job/schema-parts.ts';
import { type MillTool, type MillToolKind, millToolSchema } from '../milling/index.ts';
import type { Column } from './column.ts';

export const toolKinds = ['end mill', 'ball', 'V-bit', 'tapered', 'drill', 'knife', 'wire', 'pen', 'needle'] as const;

export const toolSchema = z.strictObject({
  name: text(100),
  kind: z.enum(toolKinds).default('end mill'),
  diameterMm: sizeMm.nullable().default(null),
  /** The flat or the ball at the tip, mm. */
  tipMm: finite.nonnegative().max(1000).nullable().default(null),
  /** Between the flanks, degrees. */
  angle: finite.positive().max(180).nullable().default(null),
  /** Of a trailing blade: from the middle of its shaft to its point, mm. */
  offsetMm: finite.nonnegative().max(50).nullable().default(null),
  flutes: z.int().min(0).max(20).nullable().default(null),
  fluteLengthMm: sizeMm.nullable().default(null),
  lengthMm: sizeMm.nullable().default(null),
  speedRpm: finite.positive().max(200_000).nullable().default(null),
  feedMmPerMin: finite.positive().max(200_000).nullable().default(null),
  plungeMmPerMin: finite.positive().max(200_000).nullable().default(null),
  /** How deep one pass may go, mm, and how far the next lies beside it, as a share of the diameter. */
  stepdownMm: sizeMm.nullable().default(null),
  stepover: finite.positive().max(1).nullable().default(null),
  /** Of one material other speeds and feeds than those above. */
  inMaterials: z
    .array(
      z.strictObject({
        material: text(100),
        speedRpm: finite.positive().max(200_000).nullable(),
        feedMmPerMin: finite.positive().max(200_000).nullable(),
      }),
    )
    .max(50)
    .default([]),
  note: anyText(300).default(''),
});
export type Tool = z.infer<typeof toolSchema>;

export const toolColumns: readonly Column[] = [
  { field: 'name', word: 'Name', kind: 'text' },
  { field: 'kind', word: 'Kind', kind: 'choice', choices: toolKinds },
  { field: 'diameterMm', word: 'Diameter', kind: 'length' },
  { field: 'tipMm', word: 'Tip', kind: 'length' },
  { field: 'angle', word: 'Angle', kind: 'number', unit: '°' },
  { field: 'offsetMm', word: 'Blade offset', kind: 'length' },
  { field: 'flutes', word: 'Flutes', kind: 'number' },
  { field: 'fluteLengthMm', word: 'Flute length', kind: 'length' },
  { field: 'lengthMm', word: 'Length', kind: 'length' },
  { field: 'speedRpm', word: 'Speed', kind: 'number', unit: '1/min' },
  { field: 'feedMmPerMin', word: 'Feed', kind: 'number', unit: 'mm/min' },
  { field: 'plungeMmPerMin', word: 'Plunge', kind: 'number', unit: 'mm/min' },
  { field: 'stepdownMm', word: 'Stepdown', kind: 'length' },
  { field: 'stepover', word: 'Stepover', kind: 'number' },
  { field: 'note', word: 'Note', kind: 'text' },
];

const kindsThatMill: Readonly<Partial<Record<Tool['kind'], MillToolKind>>> = {
  'end mill': 'end mill',
  ball: 'ball',
  'V-bit': 'V-bit',
  tapered: 'tapered',
  drill: 'drill',
};

/** Whether it turns in a spindle and takes chips off. */
export const isMillTool = ({ kind, diameterMm }: Tool): boolean => kindsThatMill[kind] !== undefined && diameterMm !== null;

/** Where nothing is said, as common practice has it for hobby routers in wood. */
const plainUse = { speedRpm: 18_000, feedMmPerMin: 1000, plungeMmPerMin: 300, stepover: 0.4 };

/**
 * A tool of the shelf as a job takes it, with its speeds in a material.
 * @returns null for tools that do not mill
 */
export function millToolFrom(tool: Tool, shelf: MillTool['shelf'], id: string, material: string | null): MillTool | null {
  const kind = kindsThatMill[tool.kind];
  if (!kind || tool.diameterMm === null) return null;
  const own = tool.inMaterials.find((one) => one.material === material);
  return millToolSchema.parse({
    id,
    name: tool.name,
    kind,
    diameterMm: Math.min(200, tool.diameterMm),
    tipMm: Math.min(200, tool.tipMm ?? 0),
    angle: tool.angle !== null && tool.angle < 180 ? tool.angle : null,
    flutes: Math.max(1, tool.flutes ?? 2),
    cutLengthMm: tool.fluteLengthMm,
    speedRpm: own?.speedRpm ?? tool.speedRpm ?? plainUse.speedRpm,
    feedMmPerMin: Math.min(50_000, own?.feedMmPerMin ?? tool.feedMmPerMin ?? plainUse.feedMmPerMin),
    plungeMmPerMin: Math.min(50_000, tool.plungeMmPerMin ?? plainUse.plungeMmPerMin),
    stepdownMm: Math.min(200, tool.stepdownMm ?? Math.max(0.1, tool.diameterMm / 2)),
    stepover: tool.stepover ?? plainUse.stepover,
    shelf,
  });
}
