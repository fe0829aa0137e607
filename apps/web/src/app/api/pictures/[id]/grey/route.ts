import { greyOf } from '@/server/pictures';
import { route, uuidOf } from '@/server/route';

/** The picture's grey pixels, one byte each, rows from the top, upright. */
export const GET = route('read-picture', async ({ person, params }) => {
  const grey = await greyOf(person, uuidOf(params, 'id'));
  return new Response(grey as Uint8Array<ArrayBuffer>, {
    headers: {
      'Content-Type': 'application/octet-stream',
      'Content-Length': String(grey.length),
      'Cache-Control': 'private, max-age=31536000, immutable',
    },
  });
});
