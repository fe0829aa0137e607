'use client';
/** Brings places into view, and rings them. */
import { boxAround, type Point } from '@nuvet/core/plane';
import { setMaking } from './making-store';
import { setTable, useTable } from './table-store';
import { boxInView } from './view';

/** @param rimMm shown about them at least */
export function showPlaces(places: readonly Point[], rimMm = 6): void {
  const around = boxAround(places);
  if (!around) return;
  const rim = Math.max(rimMm, 0.3 * Math.max(around.maxX - around.minX, around.maxY - around.minY));
  const box = { minX: around.minX - rim, minY: around.minY - rim, maxX: around.maxX + rim, maxY: around.maxY + rim };
  setTable({ view: boxInView(box, useTable.getState().screen) });
  setMaking({ places });
}
