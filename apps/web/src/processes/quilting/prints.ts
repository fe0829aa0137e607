'use client';
/** Prints of fabrics, from pictures of the job at their true size; loaded once, coarse enough to paint a whole quilt with. */
import type { Job } from '@nuvet/core/job';
import type { Fabric } from '@nuvet/core/quilting';
import { useEffect } from 'react';
import { create } from 'zustand';
import { useJob } from '@/job/job-store';
import { levelsOf } from '@/shared/pyramid';
import { drawAnew } from '@/table/making-store';
import { rasterNow } from '@/table/rectified-images';

/** A print and how large one of its pixels is, mm. */
export interface Print {
  readonly image: HTMLImageElement;
  readonly mmPerPx: number;
}

/** By the picture that a print is on. */
export type Prints = ReadonlyMap<string, Print>;
const store = create<{ readonly prints: Prints }>(() => ({ prints: new Map() }));

/** Those that are loaded by now. */
export const printsNow = (): Prints => store.getState().prints;

/** The prints of fabrics as they come; the light table is drawn anew with each. */
export function usePrints(fabrics: readonly Fabric[]): Prints {
  const pictures = useJob((s) => s.job.pictures);
  useEffect(() => {
    for (const { pictureId } of fabrics) {
      const picture = pictures.find(({ id }) => id === pictureId);
      if (picture) load(picture);
    }
  }, [fabrics, pictures]);
  return store((s) => s.prints);
}

const begun = new WeakSet<object>();

function load(picture: Job['pictures'][0]): void {
  if (begun.has(picture)) return;
  begun.add(picture);
  const { id, widthPx, heightPx, toSheet } = rasterNow(picture, false);
  const image = new Image();
  image.onload = () => {
    const mmPerPx = (Math.hypot(toSheet.a, toSheet.b) * widthPx) / image.naturalWidth;
    store.setState(({ prints }) => ({ prints: new Map(prints).set(picture.id, { image, mmPerPx }) }));
    drawAnew();
  };
  // The coarsest level is one tile that shows the whole picture.
  image.src = `/api/pictures/${id}/tiles/${levelsOf(widthPx, heightPx) - 1}/0/0`;
}
