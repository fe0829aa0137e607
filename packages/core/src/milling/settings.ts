/** How a job is milled: its tools, its operations, its heights, and where it lies on the stock. */
import { z } from 'zod';
import { coordinate, finite } from '../job/schema-parts.ts';
import { millToolSchema } from './mill-tool.ts';
import { operationSchema } from './operations.ts';

const clampSchema = z.strictObject({
  /** Its lower left corner on the sheet, and its size, mm. */
  x: coordinate,
  y: coordinate,
  widthMm: finite.positive().max(2000),
  heightMm: finite.positive().max(2000),
  /** How high it stands over the stock, mm. */
  overMm: finite.positive().max(500),
});
export type Clamp = z.infer<typeof clampSchema>;

export const millingSchema = z.strictObject({
  tools: z.array(millToolSchema).max(24),
  /** In the order that they are done in; null: as the purposes of the pieces say. */
  operations: z.array(operationSchema).max(60).nullable(),
  /** Of pockets and engraved lines where nothing else is said, mm; null for half the stock. */
  pocketDepthMm: finite.positive().max(1000).nullable(),
  engraveDepthMm: finite.positive().max(100),
  /** Whether pockets get the sloped walls of a V-bit. */
  slopedPockets: z.boolean(),
  /** Where z is 0. */
  zeroZ: z.enum(['top', 'bed']),
  safeMm: finite.positive().max(500),
  /** Over stock that is already low, or between places of one piece, mm. */
  hopMm: finite.positive().max(500),
  /** How deep a cut right through goes into the spoil board, mm. */
  spoilMm: finite.nonnegative().max(20),
  /** The lower left corner of the stock on the sheet; null: the pieces lie in its middle. */
  stockAt: z.strictObject({ x: coordinate, y: coordinate }).nullable(),
  clamps: z.array(clampSchema).max(24),
});
export type MillingSettings = z.infer<typeof millingSchema>;

export const plainMilling: MillingSettings = {
  tools: [],
  operations: null,
  pocketDepthMm: null,
  engraveDepthMm: 0.5,
  slopedPockets: false,
  zeroZ: 'top',
  safeMm: 5,
  hopMm: 1,
  spoilMm: 0.3,
  stockAt: null,
  clamps: [],
};
