import { pictureColours } from '@/server/pictures';
import { pixelResponse, route, uuidOf } from '@/server/route';

/** The picture's colours, three bytes a pixel, rows from the top, upright. */
export const GET = route('read-picture', async ({ person, params }) => pixelResponse(await pictureColours(person, uuidOf(params, 'id'))));
