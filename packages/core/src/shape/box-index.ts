/**
 * In: boxes, or segments with theirs. Out: an index that answers which boxes meet one, and the boxes' sides in a row.
 */
import Flatbush from 'flatbush';
import type { Box } from '../plane/box.ts';
import type { CachedSegment } from '../plane/cached-segment.ts';
import { samePlaceMm } from './crossings.ts';

/** An index of boxes that answers with positions; null where there are none. */
export function boxIndex(boxes: readonly Box[], slack = samePlaceMm): Flatbush | null {
  if (boxes.length === 0) return null;
  const index = new Flatbush(boxes.length);
  for (const { minX, minY, maxX, maxY } of boxes) index.add(minX - slack, minY - slack, maxX + slack, maxY + slack);
  index.finish();
  return index;
}

/** Least x, least y, largest x, largest y of each segment's box, one after another. */
export function flatBoxes(steps: readonly CachedSegment[]): Float64Array {
  const boxes = new Float64Array(4 * steps.length);
  steps.forEach(({ box }, k) => {
    boxes[4 * k] = box.minX;
    boxes[4 * k + 1] = box.minY;
    boxes[4 * k + 2] = box.maxX;
    boxes[4 * k + 3] = box.maxY;
  });
  return boxes;
}
