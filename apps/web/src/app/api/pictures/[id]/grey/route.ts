import { greyOf } from '@/server/pictures';
import { pixelResponse, route, uuidOf } from '@/server/route';

/** The picture's grey pixels, one byte each, rows from the top, upright. */
export const GET = route('read-picture', async ({ person, params }) => pixelResponse(await greyOf(person, uuidOf(params, 'id'))));
