'use client';
/**
 * Places of a figure that is only half placed: kept for this window, so that a reload loses none of them.
 */
import { useEffect } from 'react';
import { z } from 'zod';
import { drawTools, isDrawTool, setHand, useHand } from './hand-store';

const place = z.object({ x: z.number(), y: z.number() });
const keptSchema = z.object({
  tool: z.enum(drawTools),
  places: z.array(place).min(1).max(10),
  lineBy: z.enum(['ends', 'across', 'midway']),
  circleBy: z.enum(['centre', 'two', 'three', 'touching']),
  arcBy: z.enum(['three', 'leaving']),
});

const keyOf = (jobId: string): string => `nuvet half placed ${jobId}`;

/** Takes up what was half placed in this job, and keeps what will be. */
export function useHalfPlaced(jobId: string, isTracing: boolean): void {
  // biome-ignore lint/correctness/useExhaustiveDependencies: only what was there when the page came up is taken up
  useEffect(() => {
    const kept = keptSchema.safeParse(JSON.parse(sessionStorage.getItem(keyOf(jobId)) ?? 'null'));
    if (isTracing && kept.success) setHand({ tray: 'draw', ...kept.data });
    return useHand.subscribe(({ tool, places, lineBy, circleBy, arcBy }, before) => {
      if (places === before.places && tool === before.tool) return;
      if (isDrawTool(tool) && places.length > 0)
        sessionStorage.setItem(keyOf(jobId), JSON.stringify({ tool, places, lineBy, circleBy, arcBy }));
      else sessionStorage.removeItem(keyOf(jobId));
    });
  }, []);
}
