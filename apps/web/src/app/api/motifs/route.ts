import { keepMotif, listMotifs, newMotifSchema } from '@/server/motifs';
import { bodyOf, route } from '@/server/route';

export const GET = route('list-motifs', async ({ person }) => Response.json(await listMotifs(person)));

/** A motif of the most segments that one may have. */
const maxBytes = 3e6;

export const POST = route('keep-motif', async ({ person, request }) =>
  Response.json(await keepMotif(person, await bodyOf(request, newMotifSchema, maxBytes)), { status: 201 }),
);
