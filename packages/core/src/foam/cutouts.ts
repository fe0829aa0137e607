/**
 * In: a former, and an opening drawn in the side view: a cockpit, a window. Out: the former without what lies in the opening all along the
 * former's thickness: what one face alone has of it stays, and is sanded.
 */
import { largestPath, type Path, pathBox, rectanglePath } from '../plane/index.ts';
import { combined } from '../shape/index.ts';
import { spanOf } from './slots.ts';

export interface Cutout {
  /** Drawn in the side view; stations from the nose run along it, and it lies as high over the body's lowest place as it is drawn. */
  readonly outline: Path;
  /** From a station to the outline's own x, mm. */
  readonly xAt: (station: number) => number;
  /** The y of the body's lowest place in the side view. */
  readonly footY: number;
  /** How wide it is cut; null goes right through from side to side. */
  readonly widthMm: number | null;
}

/** Places along a former's thickness that are looked at. */
const placesWithin = 5;
/** An opening within so much of the top opens it, mm: walls thinner than that do not stand. */
const leastWallMm = 2;

export function cutoutIn(former: Path, { outline, xAt, footY, widthMm }: Cutout, from: number, to: number): Path {
  let [low, high] = [-Infinity, Infinity];
  for (let k = 0; k < placesWithin; k++) {
    const span = spanOf(outline, xAt(from + ((to - from) * (k + 0.5)) / placesWithin), 'upright');
    if (!span) return former;
    [low, high] = [Math.max(low, span[0] - footY), Math.min(high, span[1] - footY)];
  }
  const box = pathBox(former);
  if (high - low < leastWallMm || low > box.maxY) return former;
  const top = high > box.maxY - leastWallMm ? box.maxY + 1 : high;
  const half = widthMm === null ? Math.max(box.maxX, -box.minX) + 1 : widthMm / 2;
  const opening = rectanglePath({ minX: -half, minY: low, maxX: half, maxY: top });
  // Right through a former it falls in two: the one below is the body's.
  return largestPath(combined([former], [opening], 'take-away')) ?? former;
}
