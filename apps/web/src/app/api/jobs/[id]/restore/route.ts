import { binJob } from '@/server/jobs';
import { route, uuidOf } from '@/server/route';

/** Takes the job out of the bin. */
export const POST = route('delete-job', async ({ person, params }) => {
  await binJob(person, uuidOf(params, 'id'), false);
  return new Response(null, { status: 204 });
});
