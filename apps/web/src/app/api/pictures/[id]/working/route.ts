import type { ReadableStream } from 'node:stream/web';
import { z } from 'zod';
import { HttpError } from '@/server/http-error';
import { keepWorkingCopy, workingCopyOf } from '@/server/pictures';
import { route, uuidOf } from '@/server/route';
import { words } from '@/words';

const keySchema = z.object({ key: z.string().min(1).max(400) });
const sizeSchema = keySchema.extend({
  width: z.coerce.number().int().min(1).max(100_000),
  height: z.coerce.number().int().min(1).max(100_000),
  channels: z.union([z.literal('1'), z.literal('3')]).transform((c) => Number(c) as 1 | 3),
});
const query = (request: Request) => Object.fromEntries(new URL(request.url).searchParams);

/** The working copy for a fit's key. */
export const GET = route('read-picture', async ({ person, params, request }) => {
  const id = await workingCopyOf(person, uuidOf(params, 'id'), keySchema.parse(query(request)).key);
  if (!id) throw new HttpError(404, 'not-there', words.app.thisWorkingCopyIsNotMade);
  return Response.json({ id });
});

/** The body is the copy's raw pixels. */
export const POST = route('add-picture', async ({ person, params, request }) => {
  const { key, ...size } = sizeSchema.parse(query(request));
  const body = request.body as ReadableStream<Uint8Array> | null;
  return Response.json({ id: await keepWorkingCopy(person, uuidOf(params, 'id'), key, size, body) }, { status: 201 });
});
