/** The pictures whose grey a process asks for, as they lie on the sheet at the size that pieces are made. */
import type { Job } from '@nuvet/core/job';
import { chain, stretch } from '@nuvet/core/plane';
import type { AnyProcess } from '@nuvet/core/processes';
import { rasterNow } from '@/table/rectified-images';
import type { GreySource } from '@/workers/maker.worker';

export function greySources(
  { greysIn }: Pick<AnyProcess, 'greysIn'>,
  settings: object,
  { pictures, planScale }: Pick<Job, 'pictures' | 'planScale'>,
): GreySource[] {
  const scale = planScale?.atRealSize ? planScale.factor : 1;
  return [...new Set(greysIn?.(settings) ?? [])].flatMap((pictureId): GreySource[] => {
    const picture = pictures.find(({ id }) => id === pictureId);
    if (!picture) return [];
    const { id, widthPx, heightPx, toSheet } = rasterNow(picture, false);
    return [{ pictureId, rasterId: id, widthPx, heightPx, toSheet: chain(stretch(scale, scale), toSheet) }];
  });
}
