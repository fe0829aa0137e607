import { shelfKindNames } from '@nuvet/core/shelf';
import { bodyOf, route } from '@/server/route';
import { listShelf, maxShelfBytes, saveShelf, shelfSaveSchema } from '@/server/shelf';

export const GET = route('read-shelf', async ({ person, request }) => {
  const asked = new URL(request.url).searchParams.getAll('kind');
  const kinds = shelfKindNames.filter((kind) => asked.length === 0 || asked.includes(kind));
  return Response.json(await listShelf(person, kinds));
});

export const POST = route('edit-shelf', async ({ person, request }) =>
  Response.json(await saveShelf(person, await bodyOf(request, shelfSaveSchema, maxShelfBytes))),
);
