import { documentOf } from '@nuvet/core/job';
import { z } from 'zod';
import { stepSchema, takeSteps } from '@/server/job-saves';
import { bodyOf, route, uuidOf } from '@/server/route';

const asked = z.strictObject({
  /** The save's own id: sent again with the same one, it gets the first answer. */
  save: z.uuid().optional(),
  base: z.int().min(1),
  steps: z.array(stepSchema).min(1).max(500),
  /** Whether the job as it then stands is wanted back. */
  wanted: z.boolean().default(false),
});

/** A page of text traced closely: tens of thousands of segments. */
const maxBytes = 16e6;

export const POST = route('edit-job', async ({ person, request, params }) => {
  const { save, base, steps, wanted } = await bodyOf(request, asked, maxBytes);
  const { revision, job } = await takeSteps(person, uuidOf(params, 'id'), base, steps, save ?? null);
  return Response.json(wanted ? { revision, job: documentOf(job) } : { revision });
});
