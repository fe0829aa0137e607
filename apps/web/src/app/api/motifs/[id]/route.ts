import { deleteMotif } from '@/server/motifs';
import { route, uuidOf } from '@/server/route';

export const DELETE = route('delete-motif', async ({ person, params }) => {
  await deleteMotif(person, uuidOf(params, 'id'));
  return new Response(null, { status: 204 });
});
