import type { ReadableStream } from 'node:stream/web';
import { z } from 'zod';
import { receivePicture } from '@/server/pictures';
import { route } from '@/server/route';

const nameSchema = z.string().trim().min(1).max(200);

/** The body is the file as it is; its name stands in the query. */
export const POST = route('add-picture', async ({ person, request }) => {
  const name = nameSchema.parse(new URL(request.url).searchParams.get('name'));
  const body = request.body as ReadableStream<Uint8Array> | null;
  return Response.json(await receivePicture(person, name, body), { status: 201 });
});
