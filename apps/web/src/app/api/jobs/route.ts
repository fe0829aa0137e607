import { cleanText } from '@nuvet/core/job';
import { z } from 'zod';
import { copyJob, listJobs, makeJob } from '@/server/jobs';
import { listingOf } from '@/server/listing';
import { bodyOf, route } from '@/server/route';

const name = z.string().overwrite(cleanText).trim().min(1).max(120);
const asked = z.union([
  z.strictObject({ name, pictureIds: z.array(z.uuid()).max(50).default([]) }),
  /** A further job that starts from where another one stands. */
  z.strictObject({ name, copyOf: z.uuid() }),
]);

/** A page of the list: `page` from 0, `search` in the names, `bin` for the jobs in the bin. */
export const GET = route('list-jobs', async ({ person, request }) =>
  Response.json(await listJobs(person, listingOf(Object.fromEntries(new URL(request.url).searchParams)))),
);

export const POST = route('make-job', async ({ person, request }) => {
  const body = await bodyOf(request, asked);
  const id = 'copyOf' in body ? await copyJob(person, body.copyOf, body.name) : await makeJob(person, body.name, body.pictureIds);
  return Response.json({ id }, { status: 201 });
});
