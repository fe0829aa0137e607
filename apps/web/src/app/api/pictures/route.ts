import type { ReadableStream } from 'node:stream/web';
import { cleanText } from '@nuvet/core/job';
import { z } from 'zod';
import { receivePicture } from '@/server/pictures';
import { route } from '@/server/route';

const comingSchema = z.object({
  name: z.string().overwrite(cleanText).trim().min(1).max(200),
  page: z.coerce.number().int().min(0).max(5000).default(0),
  dpi: z.coerce.number().positive().max(100_000).optional(),
  source: z.enum(['pdf', 'scanner']).optional(),
});

/** The body is the file as it is; its name stands in the query, with the page wanted and what is known of its resolution. */
export const POST = route('add-picture', async ({ person, request }) => {
  const { name, page, dpi, source } = comingSchema.parse(Object.fromEntries(new URL(request.url).searchParams));
  const body = request.body as ReadableStream<Uint8Array> | null;
  const resolution = dpi && source ? { dpi, source } : null;
  return Response.json(await receivePicture(person, { name, page, resolution }, body), { status: 201 });
});
