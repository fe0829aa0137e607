/** In: a tool as it is named to the mill. Out: how high its edge stands at a distance from its axis. */
import { z } from 'zod';
import type { EdgeHeight } from './virtual-stock.ts';

export const toolSchema = z.object({
  number: z.int().min(0).max(999),
  kind: z.enum(['end mill', 'ball', 'V-bit', 'tapered', 'drill']),
  diameterMm: z.number().positive().max(200),
  /** Flat at the point of a V-bit, the ball's width at the point of a tapered one, mm. */
  tipMm: z.number().min(0).max(200),
  /** From flank to flank, degrees. */
  angle: z.number().min(1).max(179).nullable(),
});
export type Tool = z.infer<typeof toolSchema>;

/** Not a number beyond the tool's radius. */
export function edgeOf({ kind, diameterMm, tipMm, angle }: Tool): EdgeHeight {
  const radius = diameterMm / 2;
  const within =
    (height: (away: number) => number): EdgeHeight =>
    (away) =>
      away <= radius ? height(away) : Number.NaN;
  if (kind === 'end mill') return within(() => 0);
  if (kind === 'ball') return within((away) => radius - Math.sqrt(Math.max(0, radius * radius - away * away)));
  const half = (((angle ?? 118) / 2) * Math.PI) / 180;
  if (kind !== 'tapered') return within((away) => Math.max(0, away - (kind === 'V-bit' ? tipMm / 2 : 0)) / Math.tan(half));
  // A ball that goes over into a cone where both slope alike.
  const ball = tipMm / 2;
  const joint = ball * Math.cos(half);
  const height = ball - ball * Math.sin(half);
  return within((away) =>
    away <= joint ? ball - Math.sqrt(Math.max(0, ball * ball - away * away)) : height + (away - joint) / Math.tan(half),
  );
}
