import { route, uuidOf } from '@/server/route';
import { jobsUsing } from '@/server/shelf';

export const GET = route('read-shelf', async ({ person, params }) => Response.json(await jobsUsing(person, uuidOf(params, 'id'))));
