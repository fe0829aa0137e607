import { writeScaleCard } from '@nuvet/core/formats';
import { HttpError } from '@/server/http-error';
import { route } from '@/server/route';
import { words } from '@/words';

/** The scale card to be printed: `a4` or `letter`. */
export const GET = route('read-picture', async ({ params }) => {
  const { page } = params;
  if (page !== 'a4' && page !== 'letter') throw new HttpError(404, 'not-there', words.app.thereIsACardForA4);
  return new Response((await writeScaleCard(page)) as Uint8Array<ArrayBuffer>, {
    headers: { 'Content-Type': 'application/pdf', 'Content-Disposition': `inline; filename="nuvet-scale-card-${page}.pdf"` },
  });
});
