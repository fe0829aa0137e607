import { bodyOf, route } from '@/server/route';
import { deleteFromShelf, shelfDeleteSchema } from '@/server/shelf';

export const POST = route('edit-shelf', async ({ person, request }) => {
  await deleteFromShelf(person, await bodyOf(request, shelfDeleteSchema));
  return new Response(null, { status: 204 });
});
