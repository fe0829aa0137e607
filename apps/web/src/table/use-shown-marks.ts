'use client';
/**
 * The marks that the table shows: those of the picture, one in the making, one being dragged, those suggested.
 */
import { fitOf, type Job, type Mark, type Picture } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import { useShallow } from 'zustand/react/shallow';
import { markReading } from '@/job/mark-readings';
import type { Coordinates } from './coordinates';
import type { ShownMark } from './drawing';
import { type Ghost, useTable } from './table-store';

const nowhere = { pointer: null, snap: null } as const;

/** Places are screen pixels. */
export function useShownMarks(picture: Picture | null, coordinates: Coordinates | null, stage: string, unit: Job['unit']): ShownMark[] {
  const { tool, taken, dragged, selected, ghosts } = useTable(
    useShallow((s) => ({ tool: s.tool, taken: s.taken, dragged: s.dragged, selected: s.selected, ghosts: s.ghosts })),
  );
  // The pointer and what it snaps to matter only to a mark in the making.
  const { pointer, snap } = useTable(useShallow((s) => (taken.length > 0 ? { pointer: s.pointer, snap: s.snap } : nowhere)));
  if (!picture || !coordinates) return [];
  const shown: ShownMark[] = [];
  if (stage === 'true-up') {
    const fit = fitOf(picture);
    const named = new Set([...fit.outliers, ...fit.unitMistakes].map((s) => s.id));
    const onScreen = (points: readonly Point[]) => points.map((p) => coordinates.toScreen(p));
    for (const ghost of ghosts) shown.push(shownGhost(ghost, onScreen(ghost.points)));
    for (const mark of picture.marks) {
      const points = dragged?.markId === mark.id ? dragged.points : mark.points;
      const word = markReading({ ...mark, points: [...points] } as Mark, fit, unit);
      shown.push({
        kind: mark.kind,
        points: onScreen(points),
        word,
        selected: selected?.markId === mark.id ? selected.index : null,
        isGhost: false,
        isOutlier: named.has(mark.id),
      });
    }
  }
  if (tool && tool !== 'move-picture' && tool !== 'datum' && taken.length > 0) {
    const next = pointer ? [snap ? coordinates.toScreen(coordinates.originalOf(snap.at)) : pointer] : [];
    const points = [...taken.map((p) => coordinates.toScreen(p)), ...next];
    shown.push({
      kind: /^(crop|limit)-/.test(tool) ? 'crop' : (tool as Mark['kind']),
      points: tool.endsWith('-box') ? boxOn(points) : points,
      word: '',
      selected: null,
      isGhost: false,
      isOutlier: false,
    });
  }
  return shown;
}

/** A box upright on the screen from two of its corners. */
function boxOn(points: readonly Point[]): readonly Point[] {
  const [a, b] = points;
  return a && b ? [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }] : points;
}

const shownGhost = (ghost: Ghost, points: readonly Point[]): ShownMark => ({
  kind: ghost.kind,
  points,
  word: ghost.word,
  selected: null,
  isGhost: true,
  isOutlier: false,
});
