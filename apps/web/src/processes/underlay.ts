/**
 * The picture that lies under a print, where there is one whose pixels lie straight on the sheet.
 */
import { type Job, traceOf } from '@nuvet/core/job';
import { rasterNow } from '@/table/rectified-images';
import type { UnderlaySource } from '@/workers/maker.worker';

/** The traced picture, or the first that is shown; null where there is none. */
export function underlayFor(job: Job): UnderlaySource | null {
  const picture = job.pictures.find((p) => traceOf(job, p.id) !== null) ?? job.pictures.find((p) => !p.hidden);
  if (!picture) return null;
  const { id, widthPx, heightPx, toSheet } = rasterNow(picture, false);
  return { rasterId: id, widthPx, heightPx, toSheet };
}
