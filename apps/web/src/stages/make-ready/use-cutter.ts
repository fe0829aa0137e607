'use client';
/**
 * What the cutter does with this job: asked for while a program is under way, burnt stretches added as they come.
 */
import type { Job } from '@nuvet/core/job';
import { type CutPlan, toMachine } from '@nuvet/core/make';
import { apply, inverse, type Point } from '@nuvet/core/plane';
import { useCallback, useEffect, useRef, useState } from 'react';
import { z } from 'zod';
import { setMaking } from '@/table/making-store';
import { ask } from '@/ui/requests';

const seenSchema = z
  .object({
    mood: z.enum(['away', 'idle', 'running', 'pausing', 'paused', 'alarm', 'done', 'stopped']),
    message: z.string(),
    line: z.int(),
    lines: z.int(),
    x: z.number(),
    y: z.number(),
    burns: z.array(z.object({ points: z.array(z.number()) })),
  })
  .nullable();
type Seen = NonNullable<z.infer<typeof seenSchema>>;

const askEveryMs = 200;
const isOver = (mood: Seen['mood']): boolean => ['away', 'alarm', 'done', 'stopped'].includes(mood);

export function useCutter(jobId: string, machine: Job['setup']['machine'], plan: CutPlan | null) {
  const [seen, setSeen] = useState<Omit<Seen, 'burns'> | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const stretches = useRef<Point[][]>([]);
  const [tick, setTick] = useState(0);
  const box = plan?.box ?? null;

  const look = useCallback(async (): Promise<boolean> => {
    if (!box) return true;
    const from = Math.max(0, stretches.current.length - 1);
    // The last place known may have moved on.
    const skip = Math.max(0, (stretches.current[from]?.length ?? 0) - 1);
    try {
      const answer = await ask('GET', `/api/cutter?job=${jobId}&from=${from}&skip=${skip}`, seenSchema);
      if (!answer) return false;
      const toSheet = inverse(toMachine(box, machine));
      answer.burns.forEach(({ points }, k) => {
        const places = Array.from({ length: points.length / 2 }, (_, j) =>
          apply(toSheet, { x: points[2 * j] as number, y: points[2 * j + 1] as number }),
        );
        const known = stretches.current[from + k];
        if (known) {
          known.length = Math.min(known.length, k === 0 ? skip : 0);
          for (const place of places) known.push(place);
        } else stretches.current[from + k] = places;
      });
      const { burns: _, ...rest } = answer;
      setSeen(rest);
      const head = apply(toSheet, { x: answer.x, y: answer.y });
      setMaking({ burnt: { stretches: stretches.current, head, isOver: isOver(answer.mood), isDone: answer.mood === 'done' } });
      return !isOver(answer.mood);
    } catch (error) {
      setMessage((error as Error).message);
      return false;
    }
  }, [jobId, machine, box]);

  // Also after a reload what is under way goes on being shown.
  // biome-ignore lint/correctness/useExhaustiveDependencies: a program that is started anew is looked at anew
  useEffect(() => {
    let isWanted = true;
    void (async () => {
      stretches.current = [];
      while (isWanted && (await look())) await new Promise((resolve) => setTimeout(resolve, askEveryMs));
      // What was burnt last comes with the end, not before it.
      if (isWanted) await new Promise((resolve) => setTimeout(resolve, askEveryMs));
      if (isWanted) await look();
    })();
    return () => {
      isWanted = false;
    };
  }, [look, tick]);

  const tell = async (body: object) => {
    setMessage(null);
    try {
      await ask('POST', '/api/cutter', z.null(), { jobId, ...body });
      return true;
    } catch (error) {
      setMessage((error as Error).message);
      return false;
    }
  };
  return {
    seen,
    message,
    stretches: stretches.current,
    async start(program: string, timeFactor: number) {
      setMaking({ burnt: null });
      setSeen(null);
      if (await tell({ do: 'start', program, timeFactor })) setTick((n) => n + 1);
    },
    pause: () => tell({ do: 'pause' }),
    resume: () => tell({ do: 'resume' }),
    stop: () => tell({ do: 'stop' }),
  };
}
