/**
 * Moves and zooms the view: by what is dragged, two fingers, the wheel and keys.
 */
import { distance, type Point } from '@nuvet/core/plane';
import { setTable, useTable } from '../table-store';
import { moved, zoomed } from '../view';
import { arrows, type Surroundings, type TableTool } from './tool';

const zoomKeys: Readonly<Record<string, number>> = { '+': 1.4, '=': 1.4, '-': 1 / 1.4 };
const arrowPx = 60;

export interface ViewMover extends TableTool {
  /** Two fingers, one of which moves: the view follows their middle and their distance. */
  pinch(at: Point, last: Point, other: Point): void;
  wheel(at: Point, event: Pick<WheelEvent, 'deltaMode' | 'deltaY' | 'ctrlKey'>): void;
}

export const viewMover = ({ view }: Pick<Surroundings, 'view'>): ViewMover => ({
  drag: (at, last) => setTable({ view: moved(view(), at.x - last.x, at.y - last.y), snap: null }),
  pinch(at, last, other) {
    const [middle, before] = [
      { x: (at.x + other.x) / 2, y: (at.y + other.y) / 2 },
      { x: (last.x + other.x) / 2, y: (last.y + other.y) / 2 },
    ];
    const grown = distance(at, other) / Math.max(1, distance(last, other));
    setTable({ view: zoomed(moved(view(), middle.x - before.x, middle.y - before.y), middle, grown) });
  },
  wheel(at, { deltaMode, deltaY, ctrlKey }) {
    const step = deltaMode === 1 ? deltaY * 18 : deltaY;
    setTable({ view: zoomed(view(), at, Math.exp(-step * (ctrlKey ? 0.01 : 0.0016))), snap: null });
  },
  key({ key }) {
    const [arrow, factor] = [arrows[key], zoomKeys[key]];
    const { screen } = useTable.getState();
    if (arrow) setTable({ view: moved(view(), -arrow[0] * arrowPx, -arrow[1] * arrowPx) });
    else if (factor) setTable({ view: zoomed(view(), { x: screen.width / 2, y: screen.height / 2 }, factor) });
    else return false;
    return true;
  },
});
