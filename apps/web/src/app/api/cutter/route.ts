import { z } from 'zod';
import { cutterSince, startCutter, stopCutter, tellCutter } from '@/server/cutter';
import { ownedJob } from '@/server/jobs';
import { bodyOf, route } from '@/server/route';

/** A program of a few hundred thousand lines is more than any sheet takes. */
const longestProgram = 40_000_000;

const wishSchema = z.discriminatedUnion('do', [
  z.strictObject({
    do: z.literal('start'),
    jobId: z.uuid(),
    program: z.string().min(1).max(longestProgram),
    timeFactor: z.number().min(0.01).max(10_000),
  }),
  z.strictObject({ do: z.enum(['pause', 'resume']), jobId: z.uuid() }),
  /** For the machine itself, whatever job it cuts. */
  z.strictObject({ do: z.literal('stop') }),
]);

const sinceSchema = z.object({ job: z.uuid(), from: z.coerce.number().int().min(0), skip: z.coerce.number().int().min(0) });

export const GET = route('run-cutter', async ({ person, request }) => {
  const { job, from, skip } = sinceSchema.parse(Object.fromEntries(new URL(request.url).searchParams));
  await ownedJob(person, job);
  return Response.json(cutterSince(job, from, skip));
});

export const POST = route('run-cutter', async ({ person, request }) => {
  const wish = await bodyOf(request, wishSchema, 1.1 * longestProgram);
  if (wish.do === 'stop') stopCutter();
  else {
    await ownedJob(person, wish.jobId);
    if (wish.do === 'start') startCutter(wish.jobId, wish.program, wish.timeFactor);
    else tellCutter(wish.jobId, wish.do);
  }
  return new Response(null, { status: 204 });
});
