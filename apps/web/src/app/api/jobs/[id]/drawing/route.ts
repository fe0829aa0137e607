import { drawingOf } from '@/server/drawings';
import { route, uuidOf } from '@/server/route';

/** The small drawing of a job's outlines. With the job's revision in the address it may be kept for ever. */
export const GET = route('read-job', async ({ person, params, request }) => {
  const svg = await drawingOf(person, uuidOf(params, 'id'));
  const isKept = new URL(request.url).searchParams.has('revision');
  return new Response(svg, {
    headers: { 'Content-Type': 'image/svg+xml', 'Cache-Control': isKept ? 'private, max-age=31536000, immutable' : 'no-cache' },
  });
});
