/**
 * Leads a path along an edge of the picture, while that tool is in hand: clicks hold it, keys step back and end it.
 */
import { addAnchor, finishPath, leadLiveWire, undoSegment } from '../live-wire';
import { useTable } from '../table-store';
import type { Surroundings, TableTool } from './tool';

const isInHand = (): boolean => useTable.getState().tool === 'along-edge';

export function edgeFollower({ job, run, picture, coordinates, onMessage }: Surroundings): TableTool {
  const finish = async (closed: boolean): Promise<void> => {
    const place = coordinates();
    if (!picture || !place) return;
    const message = await finishPath(run, job, picture, place.raster, closed);
    if (message) onMessage(message);
  };
  return {
    click(at) {
      if (!isInHand()) return false;
      const place = coordinates();
      if (place) void addAnchor(place, at).then((isClosed) => (isClosed ? finish(true) : undefined));
      return true;
    },
    hover(at) {
      const place = isInHand() && useTable.getState().liveWire.start ? coordinates() : null;
      if (place) leadLiveWire(place.toRaster(at));
    },
    key({ key }) {
      if (!isInHand()) return false;
      const place = coordinates();
      if (key === 'Enter') void finish(false);
      else if (key !== 'Backspace' && key !== 'Delete') return false;
      else if (place) void undoSegment(place.raster);
      return true;
    },
  };
}
