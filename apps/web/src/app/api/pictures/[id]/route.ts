import { Readable } from 'node:stream';
import { bytesOf } from '@/server/pictures';
import { route, uuidOf } from '@/server/route';

/** The picture's bytes, exactly as they came. */
export const GET = route('read-picture', async ({ person, params }) => {
  const { kind, name, byteLength, stream } = await bytesOf(person, uuidOf(params, 'id'));
  return new Response(Readable.toWeb(stream) as ReadableStream, {
    headers: {
      'Content-Type': `image/${kind}`,
      'Content-Length': String(byteLength),
      'Content-Disposition': `inline; filename*=UTF-8''${encodeURIComponent(name)}`,
      'Cache-Control': 'private, max-age=31536000, immutable',
    },
  });
});
