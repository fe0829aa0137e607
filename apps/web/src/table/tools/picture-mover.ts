/**
 * Moves the picture on the sheet, while that tool is in hand.
 */
import { words } from '@/words';
import { setTable, useTable } from '../table-store';
import type { Surroundings, TableTool } from './tool';

export const pictureMover = ({ picture, view, run, onMessage }: Surroundings): TableTool => ({
  down() {
    if (useTable.getState().tool !== 'move-picture' || !picture) return false;
    if (!picture.locked) return true;
    onMessage(words.table.thisPictureIsLockedUnlockIt);
    return false;
  },
  drag(at, last) {
    if (!picture) return;
    const from = useTable.getState().draggedPlace?.place ?? picture.place;
    const { scale } = view();
    const place = { x: from.x + (at.x - last.x) / scale, y: from.y - (at.y - last.y) / scale };
    setTable({ draggedPlace: { pictureId: picture.id, place } });
  },
  up(wasClick) {
    const { draggedPlace } = useTable.getState();
    if (draggedPlace && !wasClick) run({ do: 'change-picture', pictureId: draggedPlace.pictureId, change: { place: draggedPlace.place } });
    setTable({ draggedPlace: null });
  },
  cancel: () => setTable({ draggedPlace: null }),
});
