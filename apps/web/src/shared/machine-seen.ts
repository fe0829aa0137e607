/** What is told of a machine at work: how it stands, and what it measured by itself. Server and page check it alike. */
import { z } from 'zod';

export const machineStatuses = ['away', 'idle', 'running', 'pausing', 'paused', 'waiting', 'alarm', 'done', 'stopped'] as const;
export type MachineStatus = (typeof machineStatuses)[number];

const place = z.number().min(-1e6).max(1e6);
const name = z.string().max(200);
export const measuredSchema = z.object({
  cellMm: z.number(),
  gougedMm2: z.number(),
  deepestMm: z.number(),
  gougedAt: z.tuple([place, place]).nullable(),
  floors: z.array(z.object({ name, worstMm: z.number(), leftMm2: z.number() })).max(4000),
  edges: z.array(z.object({ name, offMm: z.number(), worstMm: z.number(), cutShare: z.number() })).max(8000),
});
export type MillMeasured = z.infer<typeof measuredSchema>;

/** What is sewn against the line as it was drawn, mm. */
export const sewnSchema = z.object({ offMm: z.number(), missedMm: z.number(), stitches: z.int() });
export type SewnMeasured = z.infer<typeof sewnSchema>;

/** What a hot wire left against the faces that were meant, mm, at either face and half-way. */
export const wireMeasuredSchema = z.object({
  leftOffMm: z.number(),
  middleOffMm: z.number(),
  rightOffMm: z.number(),
  fastestMmPerMin: z.number(),
});
export type WireMeasured = z.infer<typeof wireMeasuredSchema>;
