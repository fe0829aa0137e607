/**
 * Tools that turn: what they look like from the side, and how they may be used. A tool's profile is its height above the tip by the
 * distance from its axis.
 */
import { z } from 'zod';
import { finite, shelfCopySchema, sizeMm, text } from '../job/schema-parts.ts';

const millToolKinds = ['end mill', 'ball', 'V-bit', 'tapered', 'drill'] as const;
export type MillToolKind = (typeof millToolKinds)[number];

export const millToolSchema = z.strictObject({
  id: text(40),
  name: text(100),
  kind: z.enum(millToolKinds),
  diameterMm: finite.positive().max(200),
  /** Across the flat of a V-bit, or the ball of a tapered tool, mm. */
  tipMm: finite.nonnegative().max(200).default(0),
  /** Between the flanks of a V-bit or a tapered tool, or at a drill's point, degrees. */
  angle: finite.positive().lt(180).nullable().default(null),
  flutes: z.int().min(1).max(20).default(2),
  /** How deep its edges reach, mm; null where that is not known. */
  cutLengthMm: sizeMm.nullable().default(null),
  speedRpm: finite.positive().max(200_000),
  feedMmPerMin: finite.positive().max(50_000),
  plungeMmPerMin: finite.positive().max(50_000),
  stepdownMm: finite.positive().max(200),
  /** From one pass to the next, as a share of the diameter. */
  stepover: finite.positive().max(1),
  shelf: shelfCopySchema.nullable().default(null),
});
export type MillTool = z.infer<typeof millToolSchema>;

/** A tool as far as its shape goes. */
export type ToolShape = Pick<MillTool, 'kind' | 'diameterMm' | 'tipMm' | 'angle'>;

/** Where no angle is said, degrees: common practice. */
const plainAngle: Readonly<Partial<Record<MillToolKind, number>>> = { 'V-bit': 60, tapered: 10, drill: 118 };

/** Half the angle between the flanks, radians. */
export const halfAngleOf = ({ kind, angle }: ToolShape): number => (((angle ?? plainAngle[kind] ?? 60) / 2) * Math.PI) / 180;

export const radiusOf = ({ diameterMm }: Pick<ToolShape, 'diameterMm'>): number => diameterMm / 2;

/** Whether it can go straight down into full stock: drills alone (common practice), and pointed tools, which have no middle that stands still. */
export const mayPlunge = ({ kind, tipMm }: ToolShape): boolean => kind === 'drill' || (kind === 'V-bit' && tipMm < 0.5);

/**
 * The height of the tool's edge above its tip at a distance from its axis, both mm; infinite outside it.
 * A tapered tool is a ball with flanks that touch it without a corner.
 */
export function profileOf(tool: ToolShape): (fromAxisMm: number) => number {
  const radius = radiusOf(tool);
  const half = halfAngleOf(tool);
  const tip = Math.min(tool.tipMm / 2, radius);
  const within = (height: (r: number) => number) => (r: number) => (r > radius ? Infinity : height(r));
  switch (tool.kind) {
    case 'end mill':
      return within(() => 0);
    case 'ball':
      return within((r) => radius - Math.sqrt(Math.max(0, radius * radius - r * r)));
    case 'drill':
      return within((r) => r / Math.tan(half));
    case 'V-bit':
      return within((r) => Math.max(0, r - tip) / Math.tan(half));
    case 'tapered': {
      const touch = tip * Math.cos(half);
      const lift = tip * (1 - Math.sin(half));
      return within((r) => (r <= touch ? tip - Math.sqrt(Math.max(0, tip * tip - r * r)) : lift + (r - touch) / Math.tan(half)));
    }
  }
}

/** How far from its axis the tool reaches at a height above its tip, mm: the other way round. */
export function reachOf(tool: ToolShape): (heightMm: number) => number {
  const radius = radiusOf(tool);
  const half = halfAngleOf(tool);
  const tip = Math.min(tool.tipMm / 2, radius);
  const capped = (reach: (h: number) => number) => (h: number) => (h < 0 ? 0 : Math.min(radius, reach(h)));
  switch (tool.kind) {
    case 'end mill':
      return capped(() => radius);
    case 'ball':
      return capped((h) => (h >= radius ? radius : Math.sqrt(Math.max(0, 2 * radius * h - h * h))));
    case 'drill':
      return capped((h) => h * Math.tan(half));
    case 'V-bit':
      return capped((h) => tip + h * Math.tan(half));
    case 'tapered': {
      const lift = tip * (1 - Math.sin(half));
      return capped((h) => (h <= lift ? Math.sqrt(Math.max(0, 2 * tip * h - h * h)) : tip * Math.cos(half) + (h - lift) * Math.tan(half)));
    }
  }
}

/** Of a drill how much deeper its point reaches than its full diameter, mm. */
export const pointLengthOf = (tool: ToolShape): number => (tool.kind === 'drill' ? radiusOf(tool) / Math.tan(halfAngleOf(tool)) : 0);

/** What each edge takes off in a turn, mm. */
export const chipLoadOf = ({ feedMmPerMin, speedRpm, flutes }: Pick<MillTool, 'feedMmPerMin' | 'speedRpm' | 'flutes'>): number =>
  feedMmPerMin / (speedRpm * flutes);
