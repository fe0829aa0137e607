import { thumbnailOf } from '@/server/pictures';
import { route, uuidOf } from '@/server/route';

export const GET = route('read-picture', async ({ person, params }) => {
  const bytes = await thumbnailOf(person, uuidOf(params, 'id'));
  return new Response(bytes as Uint8Array<ArrayBuffer>, {
    headers: { 'Content-Type': 'image/jpeg', 'Cache-Control': 'private, max-age=31536000, immutable' },
  });
});
