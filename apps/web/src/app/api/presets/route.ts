import { keepPreset, listPresets, presetSchema } from '@/server/presets';
import { bodyOf, route } from '@/server/route';

export const GET = route('list-presets', async ({ person }) => Response.json(await listPresets(person)));

export const POST = route('keep-preset', async ({ person, request }) => {
  await keepPreset(person, await bodyOf(request, presetSchema));
  return new Response(null, { status: 204 });
});
