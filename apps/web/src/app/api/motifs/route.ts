import { keepMotif, listMotifs, newMotifSchema } from '@/server/motifs';
import { bodyOf, route } from '@/server/route';

export const GET = route('list-motifs', async ({ person }) => Response.json(await listMotifs(person)));

export const POST = route('keep-motif', async ({ person, request }) =>
  Response.json(await keepMotif(person, await bodyOf(request, newMotifSchema)), { status: 201 }),
);
