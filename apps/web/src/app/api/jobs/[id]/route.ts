import { binJob, openJob } from '@/server/jobs';
import { route, uuidOf } from '@/server/route';

export const GET = route('read-job', async ({ person, params }) => Response.json(await openJob(person, uuidOf(params, 'id'))));

/** Puts the job in the bin, from where it can be taken back for thirty days. */
export const DELETE = route('delete-job', async ({ person, params }) => {
  await binJob(person, uuidOf(params, 'id'), true);
  return new Response(null, { status: 204 });
});
