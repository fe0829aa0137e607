'use client';
/** Prints of fabrics, from pictures of the job at their true size; loaded once, coarse enough to paint a whole quilt with. */
import type { Job } from '@nuvet/core/job';
import type { Fabric } from '@nuvet/core/quilting';
import { useEffect, useState } from 'react';
import { levelsOf } from '@/shared/pyramid';
import { rasterNow } from '@/table/rectified-images';

/** A print and how large one of its pixels is, mm. */
export interface Print {
  readonly image: HTMLImageElement;
  readonly mmPerPx: number;
}

/** The prints of fabrics as they come, by the fabric's position. */
export function usePrints(fabrics: readonly Fabric[], pictures: Job['pictures']): ReadonlyMap<number, Print> {
  const [prints, setPrints] = useState<ReadonlyMap<number, Print>>(new Map());
  useEffect(() => {
    let isWanted = true;
    setPrints(new Map());
    fabrics.forEach(({ pictureId }, k) => {
      const picture = pictures.find(({ id }) => id === pictureId);
      if (!picture) return;
      const { id, widthPx, heightPx, toSheet } = rasterNow(picture, false);
      const image = new Image();
      image.onload = () => {
        if (!isWanted) return;
        const mmPerPx = (Math.hypot(toSheet.a, toSheet.b) * widthPx) / image.naturalWidth;
        setPrints((before) => new Map(before).set(k, { image, mmPerPx }));
      };
      // The coarsest level is one tile that shows the whole picture.
      image.src = `/api/pictures/${id}/tiles/${levelsOf(widthPx, heightPx) - 1}/0/0`;
    });
    return () => {
      isWanted = false;
    };
  }, [fabrics, pictures]);
  return prints;
}
