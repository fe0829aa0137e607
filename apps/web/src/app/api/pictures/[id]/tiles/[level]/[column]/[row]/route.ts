import { z } from 'zod';
import { tileOf } from '@/server/pictures';
import { route, uuidOf } from '@/server/route';

const place = z.coerce.number().int().min(0).max(1000);

export const GET = route('read-picture', async ({ person, params }) => {
  const [level, column, row] = [params.level, params.column, params.row].map((word) => place.parse(word)) as [number, number, number];
  const bytes = await tileOf(person, uuidOf(params, 'id'), level, column, row);
  return new Response(bytes as Uint8Array<ArrayBuffer>, {
    headers: { 'Content-Type': 'image/jpeg', 'Cache-Control': 'private, max-age=31536000, immutable' },
  });
});
