'use client';
/**
 * The picture's own feature near the pointer: looked for by a worker, the newest place only, and taken by a click near it.
 */
import { apply, distance, type Point } from '@nuvet/core/plane';
import type { SheetSnap } from '@nuvet/core/shape';
import { useRef } from 'react';
import { finder } from '@/workers/finder.client';
import type { Coordinates } from './coordinates';
import { setTable, useTable } from './table-store';

/** A feature of the picture is taken from this near, screen pixels. */
const snapReach = 10;

export function usePictureSnap(coordinates: () => Coordinates | null) {
  const snapping = useRef<{ wanted: { at: Point; coordinates: Coordinates } | null; isBusy: boolean }>({ wanted: null, isBusy: false });

  /** Asks for the feature near the pointer; only the newest place is looked at. */
  const lookForSnap = (at: Point) => {
    const place = coordinates();
    if (!place) return;
    snapping.current.wanted = { at, coordinates: place };
    if (snapping.current.isBusy) return;
    snapping.current.isBusy = true;
    void (async () => {
      while (snapping.current.wanted) {
        const { at: p, coordinates: g } = snapping.current.wanted;
        snapping.current.wanted = null;
        const reach = Math.min(40, Math.max(1.5, snapReach / g.scale));
        const found = await finder()
          .snap(g.raster, g.toRaster(p), reach)
          .catch(() => null);
        setTable({ snap: found && g.scale * distance(found.at, g.toRaster(p)) <= snapReach + 2 ? found : null });
      }
      snapping.current.isBusy = false;
    })();
  };

  /** What was found in the picture near the pointer, on the sheet. */
  const snapOnSheet = (): SheetSnap | null => {
    const { snap } = useTable.getState();
    const place = coordinates();
    return snap && place ? { at: apply(place.raster.toSheet, snap.at), word: snap.kind === 'middle' ? 'middle' : 'on line' } : null;
  };

  /** The place that a click at a point takes: the feature shown there, or the point itself. */
  const placeAt = (p: Point, isHeldOff: boolean): Point | null => {
    const place = coordinates();
    if (!place) return null;
    const { snap } = useTable.getState();
    const isNear = snap && distance(place.toRaster(p), snap.at) * place.scale <= snapReach + 2;
    return snap && isNear && !isHeldOff ? place.originalOf(snap.at) : place.toOriginal(p);
  };

  return { lookForSnap, snapOnSheet, placeAt };
}
