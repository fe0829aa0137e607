/**
 * Moves the points of a picture's marks, by dragging or by arrow keys, and takes marks away.
 */
import type { Picture } from '@nuvet/core/job';
import { distance, type Point } from '@nuvet/core/plane';
import { markViews } from '@/job/mark-views';
import { ignoresSnapping, setTable, useTable } from '../table-store';
import { arrows, pickReach, type Surroundings, type TableTool } from './tool';

type Mark = Picture['marks'][number];

export function markMover({ stage, picture, coordinates, lookForSnap, placeAt, run }: Surroundings): TableTool {
  /** The mark's point near a place, the nearest first; what was found and not placed cannot be picked up. */
  const pointAt = (p: Point) => {
    const place = coordinates();
    if (stage !== 'true-up' || !picture || picture.locked || !place) return null;
    const ends = picture.marks.flatMap((mark) =>
      markViews[mark.kind].look.isFound
        ? []
        : mark.points.map((point, index) => ({ mark, index, off: distance(place.toScreen(point), p) })),
    );
    return ends.filter((e) => e.off <= pickReach).sort((x, y) => x.off - y.off)[0] ?? null;
  };

  const move = (mark: Pick<Mark, 'id'>, points: readonly Point[]): void => {
    if (picture) run({ do: 'move-mark', pictureId: picture.id, markId: mark.id, points: [...points] });
  };

  /** Moves a point by so many pixels of the picture, the way that the arrow points on the screen. */
  const nudge = (mark: Mark, index: number, arrow: readonly [number, number], step: number): void => {
    const place = coordinates();
    const p = mark.points[index];
    if (!place || !p) return;
    const at = place.toScreen(p);
    const towards = place.toOriginal({ x: at.x + arrow[0], y: at.y + arrow[1] });
    const size = distance(p, towards) || 1;
    const next = { x: p.x + ((towards.x - p.x) * step) / size, y: p.y + ((towards.y - p.y) * step) / size };
    move(mark, mark.points.map((q, k) => (k === index ? next : q))); // biome-ignore format: one line
  };

  return {
    down(at) {
      const found = useTable.getState().tool ? null : pointAt(at);
      if (!found) return false;
      const { mark, index } = found;
      setTable({ selected: { markId: mark.id, index }, dragged: { markId: mark.id, points: mark.points }, pointer: at });
      return true;
    },
    drag(at, _, keys) {
      const { dragged, selected } = useTable.getState();
      if (!dragged || !selected) return;
      const place = placeAt(at, ignoresSnapping(keys));
      lookForSnap(at);
      if (place) setTable({ dragged: { ...dragged, points: dragged.points.map((p, k) => (k === selected.index ? place : p)) } });
    },
    up(wasClick) {
      const { dragged } = useTable.getState();
      if (dragged && !wasClick) move({ id: dragged.markId }, dragged.points);
      setTable({ dragged: null, snap: null });
    },
    key({ key, shiftKey }) {
      const { selected } = useTable.getState();
      const mark = stage === 'true-up' ? picture?.marks.find((m) => m.id === selected?.markId) : undefined;
      if (!mark || !selected || !picture) return false;
      const arrow = arrows[key];
      if (arrow) nudge(mark, selected.index, arrow, shiftKey ? 0.1 : 1);
      else if (key === 'Delete' || key === 'Backspace') {
        run({ do: 'remove-mark', pictureId: picture.id, markId: mark.id });
        setTable({ selected: null });
      } else return false;
      return true;
    },
    cancel: () => setTable({ dragged: null }),
  };
}
