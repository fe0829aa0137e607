import { z } from 'zod';
import { makeJob } from '@/server/jobs';
import { bodyOf, route } from '@/server/route';

const asked = z.strictObject({ name: z.string().trim().min(1).max(120), pictureIds: z.array(z.uuid()).max(50).default([]) });

export const POST = route('make-job', async ({ person, request }) => {
  const { name, pictureIds } = await bodyOf(request, asked);
  return Response.json({ id: await makeJob(person, name, pictureIds) }, { status: 201 });
});
