'use client';
/**
 * The flattened working copies of pictures under perspective: asked of the server, made in workers where there is none
 * yet, never part of the job: they follow from the picture and its marks.
 */
import { type Picture, type Surface, surfaceOf, workingPlanOf } from '@nuvet/core/job';
import { useEffect } from 'react';
import { z } from 'zod';
import { create } from 'zustand';
import { ask, RequestError } from '@/ui/requests';
import { words } from '@/words';
import { flatten } from '@/workers/flattening';

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
  const plan = workingPlanOf(picture);
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
      (await flatten(
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
export function useWorkingCopies(pictures: readonly Picture[], isDragging: boolean): void {
  const keys = pictures.map((p) => `${p.id} ${workingPlanOf(p)?.key ?? ''}`).join('\n');
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
  if (known?.key === workingPlanOf(picture)?.key) return;
  if (known?.state === 'making') known.stop.abort();
  makeAgain(picture);
}

/** Makes a copy that failed or was stopped anew. */
export function makeAgain(picture: Picture): void {
  const key = workingPlanOf(picture)?.key;
  if (!key) return;
  const stop = new AbortController();
  setCopy(picture.id, { key, state: 'making', share: 0, stop });
  void make(picture, key, stop);
}

const idFor = (picture: Picture, byPicture: Readonly<Record<string, Copy>>): string | null => {
  const copy = byPicture[picture.id];
  return copy?.state === 'made' && copy.key === workingPlanOf(picture)?.key ? copy.id : null;
};

const surfaces = new WeakMap<Picture, Map<string | null, Surface>>();

/** The same surface object for the same picture and copy. */
function keptSurface(picture: Picture, workingId: string | null): Surface {
  let known = surfaces.get(picture);
  if (!known) {
    known = new Map();
    surfaces.set(picture, known);
  }
  let surface = known.get(workingId);
  if (!surface) {
    surface = surfaceOf(picture, workingId);
    known.set(workingId, surface);
  }
  return surface;
}

/** What to show and trace of a picture as things stand. */
export const surfaceNow = (picture: Picture, asPhotographed = false): Surface =>
  keptSurface(picture, asPhotographed ? null : idFor(picture, useCopies.getState().byPicture));

export function useSurface(picture: Picture, asPhotographed = false): Surface {
  const workingId = useCopies((s) => idFor(picture, s.byPicture));
  return keptSurface(picture, asPhotographed ? null : workingId);
}

export const useSurfaces = (pictures: readonly Picture[], asPhotographed: boolean): Surface[] => {
  const byPicture = useCopies((s) => s.byPicture);
  return pictures.map((p) => keptSurface(p, asPhotographed ? null : idFor(p, byPicture)));
};

/** How a picture's working copy stands; null where it needs none. */
export function useCopyState(
  picture: Picture,
): { state: 'making' | 'made' | 'failed' | 'waiting'; share: number; message: string | null; stop: () => void } | null {
  const key = workingPlanOf(picture)?.key ?? null;
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
