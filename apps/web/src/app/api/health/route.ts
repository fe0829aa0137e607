import { database } from '@/server/database';
import { route } from '@/server/route';

/** Whether application and database answer. */
export const GET = route('check-health', async () => {
  await database().authenticate();
  return Response.json({ ok: true });
});

export const dynamic = 'force-dynamic';
