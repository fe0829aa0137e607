import { jobDrawing } from '@/server/job-drawing';
import { openJob } from '@/server/jobs';
import { route, uuidOf } from '@/server/route';

export const GET = route('read-job', async ({ person, params }) => {
  const { job } = await openJob(person, uuidOf(params, 'id'));
  return new Response(jobDrawing(job), { headers: { 'Content-Type': 'image/svg+xml', 'Cache-Control': 'no-cache' } });
});
