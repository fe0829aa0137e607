import { z } from 'zod';
import { stepSchema, takeSteps } from '@/server/jobs';
import { bodyOf, route, uuidOf } from '@/server/route';

const asked = z.strictObject({
  base: z.int().min(1),
  steps: z.array(stepSchema).min(1).max(500),
  /** Whether the job as it then stands is wanted back. */
  wanted: z.boolean().default(false),
});

export const POST = route('edit-job', async ({ person, request, params }) => {
  const { base, steps, wanted } = await bodyOf(request, asked);
  const { revision, job } = await takeSteps(person, uuidOf(params, 'id'), base, steps);
  return Response.json(wanted ? { revision, job } : { revision });
});
