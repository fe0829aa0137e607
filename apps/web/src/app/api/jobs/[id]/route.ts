import { deleteJob, openJob } from '@/server/jobs';
import { route, uuidOf } from '@/server/route';

export const GET = route('read-job', async ({ person, params }) => Response.json(await openJob(person, uuidOf(params, 'id'))));

export const DELETE = route('delete-job', async ({ person, params }) => {
  await deleteJob(person, uuidOf(params, 'id'));
  return new Response(null, { status: 204 });
});
