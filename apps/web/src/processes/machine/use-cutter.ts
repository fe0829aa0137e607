'use client';
/**
 * What the cutter does with this job: asked for while a program is under way, burnt stretches added as they come.
 */
import { apply, type Point, type Transform } from '@nuvet/core/plane';
import type { StandInJob } from '@nuvet/core/processes';
import { useCallback, useEffect, useRef, useState } from 'react';
import { z } from 'zod';
import { type MachineStatus, machineStatuses, measuredSchema, sewnSchema, wireMeasuredSchema } from '@/shared/machine-seen';
import { setMaking } from '@/table/making-store';
import { ask, noConnection, RequestError } from '@/ui/requests';

const seenSchema = z
  .object({
    status: z.enum(machineStatuses),
    message: z.string(),
    line: z.int(),
    lines: z.int(),
    /** Which program is under way, of how many; from 0. */
    program: z.int(),
    programs: z.int(),
    tool: z.string(),
    /** How often it has waited for somebody. */
    prompts: z.int(),
    spindleRpm: z.number(),
    z: z.number().nullable(),
    measured: measuredSchema.nullable(),
    sewn: sewnSchema.nullable(),
    wired: z.array(wireMeasuredSchema.nullable()),
    /** Of all stretches the first on what is under the tool now. */
    firstOfBlock: z.int().min(0),
    /** Whether it is over and all that was burnt has come. */
    isWhole: z.boolean(),
    x: z.number(),
    y: z.number(),
    burns: z.array(z.object({ points: z.array(z.number()) })),
  })
  .nullable();
type Seen = NonNullable<z.infer<typeof seenSchema>>;

const askEveryMs = 200;
const isOver = (status: MachineStatus): boolean => ['away', 'alarm', 'done', 'stopped'].includes(status);

/** @param toSheet from the machine's places to the sheet's; null where nothing is planned. It stays the same as long as the plan does. */
export function useCutter(jobId: string, processId: string, toSheet: Transform | null) {
  const [seen, setSeen] = useState<Omit<Seen, 'burns'> | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  /** Whether the machine is at work on another job. */
  const [isBusy, setIsBusy] = useState(false);
  const stretches = useRef<Point[][]>([]);
  const [tick, setTick] = useState(0);
  /** The prompt that was answered last; it may be shown for a moment longer. */
  const [answered, setAnswered] = useState(0);

  /** Asks once and adds to what is known; whether more is to come. An answer that comes after a new beginning is let go. */
  const look = useCallback(
    async (burnt: Point[][]): Promise<boolean> => {
      if (!toSheet) return true;
      const from = Math.max(0, burnt.length - 1);
      // The last place known may have moved on.
      const skip = Math.max(0, (burnt[from]?.length ?? 0) - 1);
      try {
        const answer = await ask('GET', `/api/cutter?job=${jobId}&process=${processId}&from=${from}&skip=${skip}`, seenSchema);
        if (!answer || burnt !== stretches.current) return false;
        answer.burns.forEach(({ points }, k) => {
          const places = Array.from({ length: points.length / 2 }, (_, j) =>
            apply(toSheet, { x: points[2 * j] as number, y: points[2 * j + 1] as number }),
          );
          const known = burnt[from + k];
          if (known) {
            known.length = Math.min(known.length, k === 0 ? skip : 0);
            for (const place of places) known.push(place);
          } else burnt[from + k] = places;
        });
        const { burns: _, ...rest } = answer;
        setMessage((said) => (said === noConnection().message ? null : said));
        setSeen(rest);
        const head = apply(toSheet, { x: answer.x, y: answer.y });
        setMaking({
          burnt: {
            stretches: answer.firstOfBlock > 0 ? burnt.slice(answer.firstOfBlock) : burnt,
            head,
            isOver: isOver(answer.status),
            isDone: answer.status === 'done',
          },
        });
        return !answer.isWhole;
      } catch (error) {
        setMessage((error as Error).message);
        // The cutter goes on without the page; once the connection is back, so does what is shown.
        return error instanceof RequestError && error.code === 'no-connection';
      }
    },
    [jobId, processId, toSheet],
  );

  // Also after a reload what is under way goes on being shown.
  // biome-ignore lint/correctness/useExhaustiveDependencies: a program that is started anew is looked at anew
  useEffect(() => {
    let isWanted = true;
    void (async () => {
      const burnt: Point[][] = [];
      stretches.current = burnt;
      while (isWanted && (await look(burnt))) await new Promise((resolve) => setTimeout(resolve, askEveryMs));
    })();
    return () => {
      isWanted = false;
    };
  }, [look, tick]);

  const tell = async (body: object) => {
    setMessage(null);
    try {
      await ask('POST', '/api/cutter', z.null(), body);
      setIsBusy(false);
      return true;
    } catch (error) {
      setMessage((error as Error).message);
      setIsBusy(error instanceof RequestError && error.code === 'busy');
      return false;
    }
  };
  return {
    seen,
    message,
    isBusy,
    stretches: stretches.current,
    async start(job: StandInJob, timeFactor: number) {
      setMaking({ burnt: null });
      setSeen(null);
      setAnswered(0);
      const isBegun = await tell({ do: 'start', jobId, processId, ...job, timeFactor });
      if (isBegun) setTick((n) => n + 1);
      return isBegun;
    },
    pause: () => tell({ do: 'pause', jobId }),
    resume: () => tell({ do: 'resume', jobId }),
    isAnswered: seen !== null && seen.prompts === answered,
    /** What it waits for is done. */
    async acknowledge() {
      const prompt = seen?.prompts ?? 0;
      setAnswered(prompt);
      if (!(await tell({ do: 'acknowledge', jobId, prompt }))) setAnswered(0);
    },
    /** How fast it feeds, in hundredths of what the program says. */
    feed: (percent: number) => tell({ do: 'feed', jobId, percent }),
    stop: () => tell({ do: 'stop' }),
  };
}
