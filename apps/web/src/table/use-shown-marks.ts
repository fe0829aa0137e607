'use client';
/**
 * The marks that the table shows: those of the picture, one in the making, one being dragged, those suggested.
 */
import { fitOf, type Mark, type Picture } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import { useJob } from '@/stages/job-store';
import { markReading } from '@/stages/true-up/mark-words';
import type { ShownMark } from './drawing';
import type { Ground } from './ground';
import { type Ghost, useTable } from './table-store';

/** Places are screen pixels. */
export function useShownMarks(picture: Picture | null, ground: Ground | null, stage: string): ShownMark[] {
  const { tool, taken, dragged, selected, pointer, snap, ghosts } = useTable();
  const unit = useJob((s) => s.job.unit);
  if (!picture || !ground) return [];
  const shown: ShownMark[] = [];
  if (stage === 'true-up') {
    const fit = fitOf(picture);
    const named = new Set([...fit.suspects, ...fit.slips].map((s) => s.id));
    const onScreen = (points: readonly Point[]) => points.map((p) => ground.toScreen(p));
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
        isSuspect: named.has(mark.id),
      });
    }
  }
  if (tool && tool !== 'move-picture' && tool !== 'datum' && taken.length > 0) {
    const next = pointer ? [snap ? ground.toScreen(ground.originalOf(snap.at)) : pointer] : [];
    const points = [...taken.map((p) => ground.toScreen(p)), ...next];
    shown.push({
      kind: /^(crop|limit)-/.test(tool) ? 'crop' : (tool as Mark['kind']),
      points: tool.endsWith('-box') ? boxOn(points) : points,
      word: '',
      selected: null,
      isGhost: false,
      isSuspect: false,
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
  isSuspect: false,
});
