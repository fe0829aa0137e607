import { mostSlices } from '@nuvet/core/foam';
import { z } from 'zod';
import { acknowledgeCutter, cutterSince, feedCutter, startCutter, stopCutter, tellCutter } from '@/server/cutter';
import { ownedJob } from '@/server/jobs';
import { bodyOf, route } from '@/server/route';

/** Programs of a few hundred thousand lines are more than any sheet takes. */
const longestProgram = 40_000_000;

const requestSchema = z.discriminatedUnion('do', [
  z.strictObject({
    do: z.literal('start'),
    jobId: z.uuid(),
    processId: z.string().min(1).max(80),
    programs: z
      .array(
        z.strictObject({
          text: z.string().min(1).max(longestProgram),
          tools: z.array(z.strictObject({ number: z.int().min(0).max(999), name: z.string().max(200) })).max(99),
        }),
      )
      .min(1)
      .max(mostSlices),
    /** Read by the mill itself. */
    mill: z.strictObject({ setUp: z.looseObject({}), outlines: z.looseObject({}) }).nullable(),
    /** Read by the needle itself. */
    needle: z
      .strictObject({ setUp: z.looseObject({}), drawn: z.looseObject({}) })
      .nullable()
      .default(null),
    /** Read by the wire itself. */
    wire: z
      .strictObject({
        blocks: z
          .array(z.strictObject({ name: z.string().max(200), setUp: z.looseObject({}), faces: z.looseObject({}) }))
          .min(1)
          .max(mostSlices),
      })
      .nullable()
      .default(null),
    timeFactor: z.number().min(0.01).max(10_000),
  }),
  z.strictObject({ do: z.enum(['pause', 'resume']), jobId: z.uuid() }),
  z.strictObject({ do: z.literal('acknowledge'), jobId: z.uuid(), prompt: z.int().min(1) }),
  z.strictObject({ do: z.literal('feed'), jobId: z.uuid(), percent: z.int().min(10).max(200) }),
  /** For the machine itself, whatever job it cuts. */
  z.strictObject({ do: z.literal('stop') }),
]);

const sinceSchema = z.object({
  job: z.uuid(),
  process: z.string().min(1).max(80),
  from: z.coerce.number().int().min(0),
  skip: z.coerce.number().int().min(0),
});

export const GET = route('run-cutter', async ({ person, request }) => {
  const { job, process, from, skip } = sinceSchema.parse(Object.fromEntries(new URL(request.url).searchParams));
  await ownedJob(person, job);
  return Response.json(cutterSince(job, process, from, skip));
});

export const POST = route('run-cutter', async ({ person, request }) => {
  const order = await bodyOf(request, requestSchema, 1.1 * longestProgram);
  if (order.do === 'stop') stopCutter();
  else {
    await ownedJob(person, order.jobId);
    if (order.do === 'start')
      startCutter(
        order.jobId,
        order.processId,
        { programs: order.programs, mill: order.mill, needle: order.needle, wire: order.wire },
        order.timeFactor,
      );
    else if (order.do === 'acknowledge') acknowledgeCutter(order.jobId, order.prompt);
    else if (order.do === 'feed') feedCutter(order.jobId, order.percent);
    else tellCutter(order.jobId, order.do);
  }
  return new Response(null, { status: 204 });
});
