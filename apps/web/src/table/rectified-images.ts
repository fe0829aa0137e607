'use client';
/**
 * The flattened working copies of pictures under perspective: asked of the server, made in workers where there is none
 * yet, never part of the job: they follow from the picture and its marks.
 */
import { type Picture, type RasterSource, rasterSourceOf, rectifiedPlanOf } from '@nuvet/core/job';
import { useEffect } from 'react';
import { z } from 'zod';
import { create } from 'zustand';
import { ask, RequestError } from '@/ui/requests';
import { words } from '@/words';
import { rectify } from '@/workers/rectifier.client';

type Copy =
  | { readonly key: string; readonly state: 'making'; readonly share: number; readonly stop: AbortController }
  | { readonly key: string; readonly state: 'made'; readonly id: string }
  | { readonly key: string; readonly state: 'failed'; readonly message: string };

const useCopies = create<{ readonly byPicture: Readonly<Record<string, Copy>> }>(() => ({ byPicture: {} }));
const setCopy = (pictureId: string, copy: Copy) =>
  useCopies.setState(({ byPicture }) => ({ byPicture: { ...byPicture, [pictureId]: copy } }));
const idSchema = z.object({ id: z.uuid() });

/** Marks that have not moved for this long have come to rest. */
const restMs = 700;

async function make(picture: Picture, key: string, stop: AbortController): Promise<void> {
  const plan = rectifiedPlanOf(picture);
  if (!plan) return;
  const isCurrent = () => useCopies.getState().byPicture[picture.id]?.key === key && !stop.signal.aborted;
  const address = `/api/pictures/${picture.id}/working?key=${encodeURIComponent(key)}`;
  try {
    const there = await ask('GET', address, idSchema).catch((error: unknown) => {
      if (error instanceof RequestError && error.code === 'not-there') return null;
      throw error;
    });
    const found =
      there ??
      (await rectify(
        picture,
        plan,
        address,
        (share) => isCurrent() && setCopy(picture.id, { key, state: 'making', share, stop }),
        stop.signal,
      ));
    if (isCurrent() && found) setCopy(picture.id, { key, state: 'made', id: found.id });
  } catch (error) {
    // One that gave way to a newer copy has nothing more to say.
    const copy = useCopies.getState().byPicture[picture.id];
    if (copy?.state !== 'making' || copy.stop !== stop) return;
    const message = stop.signal.aborted
      ? words.table.stoppedThePictureIsShownAs
      : words.table.thePictureCouldNotBeFlattened((error as Error).message);
    setCopy(picture.id, { key, state: 'failed', message });
  }
}

/** Sees to it that pictures under perspective have their working copies, once their marks rest. */
export function useRectifiedImages(pictures: readonly Picture[], isDragging: boolean): void {
  const keys = pictures.map((p) => `${p.id} ${rectifiedPlanOf(p)?.key ?? ''}`).join('\n');
  // biome-ignore lint/correctness/useExhaustiveDependencies: the keys stand for the pictures and their fits
  useEffect(() => {
    if (isDragging) return;
    const rest = setTimeout(() => {
      for (const picture of pictures) makeIfMissing(picture);
    }, restMs);
    return () => clearTimeout(rest);
  }, [keys, isDragging]);
}

function makeIfMissing(picture: Picture): void {
  const known = useCopies.getState().byPicture[picture.id];
  if (known?.key === rectifiedPlanOf(picture)?.key) return;
  if (known?.state === 'making') known.stop.abort();
  makeAgain(picture);
}

/** Makes a copy that failed or was stopped anew. */
export function makeAgain(picture: Picture): void {
  const key = rectifiedPlanOf(picture)?.key;
  if (!key) return;
  const stop = new AbortController();
  setCopy(picture.id, { key, state: 'making', share: 0, stop });
  void make(picture, key, stop);
}

const idFor = (picture: Picture, byPicture: Readonly<Record<string, Copy>>): string | null => {
  const copy = byPicture[picture.id];
  return copy?.state === 'made' && copy.key === rectifiedPlanOf(picture)?.key ? copy.id : null;
};

const rasters = new WeakMap<Picture, Map<string | null, RasterSource>>();

/** The same raster object for the same picture and copy. */
function keptRaster(picture: Picture, workingId: string | null): RasterSource {
  let known = rasters.get(picture);
  if (!known) {
    known = new Map();
    rasters.set(picture, known);
  }
  let raster = known.get(workingId);
  if (!raster) {
    raster = rasterSourceOf(picture, workingId);
    known.set(workingId, raster);
  }
  return raster;
}

/** What to show and trace of a picture as things stand. */
export const rasterNow = (picture: Picture, asPhotographed = false): RasterSource =>
  keptRaster(picture, asPhotographed ? null : idFor(picture, useCopies.getState().byPicture));

export function useRasterSource(picture: Picture, asPhotographed = false): RasterSource {
  const workingId = useCopies((s) => idFor(picture, s.byPicture));
  return keptRaster(picture, asPhotographed ? null : workingId);
}

export const useRasterSources = (pictures: readonly Picture[], asPhotographed: boolean): RasterSource[] => {
  const byPicture = useCopies((s) => s.byPicture);
  return pictures.map((p) => keptRaster(p, asPhotographed ? null : idFor(p, byPicture)));
};

/** How a picture's working copy stands; null where it needs none. */
export function useCopyState(
  picture: Picture,
): { state: 'making' | 'made' | 'failed' | 'waiting'; share: number; message: string | null; stop: () => void } | null {
  const key = rectifiedPlanOf(picture)?.key ?? null;
  const copy = useCopies((s) => s.byPicture[picture.id]);
  if (!key) return null;
  if (copy?.key !== key) return { state: 'waiting', share: 0, message: null, stop: () => {} };
  return {
    state: copy.state,
    share: copy.state === 'making' ? copy.share : 1,
    message: copy.state === 'failed' ? copy.message : null,
    stop: () => copy.state === 'making' && copy.stop.abort(),
  };
}
