/**
 * What a machine expects of its files, how it moves and how large its bed is. Plain data; a job keeps a copy of the machine that it is
 * made on.
 */
import { z } from 'zod';
import { anyText, finite, shelfCopySchema, sizeMm, text } from './schema-parts.ts';

export const machineSchema = z.strictObject({
  name: text(60).default('The machine'),
  unit: z.enum(['mm', 'in']).default('mm'),
  /** Where y grows towards. */
  y: z.enum(['up', 'down']).default('up'),
  origin: z.enum(['lower-left', 'upper-left', 'centre', 'sheet']).default('lower-left'),
  /** How far arcs and lines may leave a curve that they stand for, mm. */
  toleranceMm: finite.min(0.0005).max(1).default(0.005),
  /** Curves as splines; as arcs of closed polylines; or, for old controllers, a plain file of arcs and polylines only. */
  dxf: z.enum(['arcs', 'splines', 'plain']).default('arcs'),
  /** What S is at full power. */
  fullS: finite.positive().max(100_000).default(1000),
  /** Whether power follows the speed (M4) or stays (M3). */
  followsSpeed: z.boolean().default(true),
  travelMmPerMin: finite.positive().max(500_000).default(6000),
  accelerationMmPerS2: finite.positive().max(100_000).default(500),
  /** How much it can work on, where that is known, mm. */
  bedWidthMm: sizeMm.nullable().default(null),
  bedHeightMm: sizeMm.nullable().default(null),
  /** How far it can go up and down, where that is known, mm. */
  travelZMm: sizeMm.nullable().default(null),
  /** How fast its spindle turns, where it has one. */
  spindleMinRpm: finite.positive().max(500_000).nullable().default(null),
  spindleMaxRpm: finite.positive().max(500_000).nullable().default(null),
  /** How long the spindle needs until it turns evenly, s. */
  warmUpSeconds: finite.nonnegative().max(600).default(2),
  /** No cut is faster, where that is known. */
  maxFeedMmPerMin: finite.positive().max(500_000).nullable().default(null),
  /** How a program says arcs: by their centre (I and J), by their radius (R), or as short lines. */
  arcs: z.enum(['centre', 'radius', 'lines']).default('centre'),
  decimals: z.int().min(2).max(6).default(4),
  lineNumbers: z.boolean().default(false),
  comments: z.enum(['brackets', 'semicolon', 'none']).default('brackets'),
  /** A program a tool; one that stops for the tool to be changed by hand; or one that calls an automatic changer. */
  toolChange: z.enum(['program', 'stop', 'changer']).default('program'),
  /** How far the tool goes out of the way where it is changed and at the end: to the safe height, or home as G28 or G53 say it. */
  retract: z.enum(['safe height', 'G28', 'G53']).default('safe height'),
  /** Whether the machine keeps the lengths of its tools: each change then calls its own by G43 and H. */
  keepsToolLengths: z.boolean().default(false),
  /** Lines that stand before and after every program. */
  textBefore: z.array(anyText(200)).max(30).default([]),
  textAfter: z.array(anyText(200)).max(30).default([]),
  /** The kinds of files that it gets, as they were chosen last; none before. */
  files: z.array(text(40)).max(20).default([]),
  /** The machine on the shelf that this is a copy of. */
  shelf: shelfCopySchema.nullable().default(null),
});
export type Machine = z.infer<typeof machineSchema>;

export const plainMachine: Machine = machineSchema.parse({});
