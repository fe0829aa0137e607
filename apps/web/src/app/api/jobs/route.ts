import { z } from 'zod';
import { makeJob } from '@/server/jobs';
import { bodyOf, route } from '@/server/route';

const asked = z.strictObject({ name: z.string().trim().min(1).max(120), pictureId: z.uuid().nullable() });

export const POST = route('make-job', async ({ person, request }) => {
  const { name, pictureId } = await bodyOf(request, asked);
  return Response.json({ id: await makeJob(person, name, pictureId) }, { status: 201 });
});
