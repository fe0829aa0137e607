/**
 * In: a picture and the frames marked in it. Out: the outline that it is traced inside, where the frame is the sheet that the drawing lies on.
 */
import { middleOf, type Point } from '../plane/point.ts';
import { polygonArea } from '../raster/convex-hull.ts';
import type { GreyPicture } from '../raster/grey.ts';
import { drawnIn, isSheetOnGround } from '../raster/sheet-on-ground.ts';
import type { JobTraceSettings } from './schema.ts';

/** So far inside the sheet's edge nothing is drawn, mm, and no mark is off by so many pixels. */
const rimMm = 1;
const rimPx = 4;

/**
 * The largest frame, a little drawn in; null where there is none, where it is drawn on the paper, or where the settings say otherwise.
 * @param frames the corners of each, pixels
 */
export function frameToTraceIn(
  frames: readonly (readonly Point[])[],
  mmPerPx: number,
  settings: Pick<JobTraceSettings, 'within' | 'aroundFrame' | 'inverted'>,
  grey: GreyPicture,
): Point[] | null {
  if (settings.within || settings.aroundFrame || settings.inverted) return null;
  const [largest] = frames.map(inTurn).sort((a, b) => polygonArea(b) - polygonArea(a));
  if (!largest || !isSheetOnGround(grey, largest)) return null;
  return drawnIn(largest, Math.max(rimPx, rimMm / mmPerPx));
}

/** Corners that were marked crosswise, in turn about their middle. */
function inTurn(corners: readonly Point[]): Point[] {
  const middle = middleOf(corners);
  return corners.toSorted((a, b) => Math.atan2(a.y - middle.y, a.x - middle.x) - Math.atan2(b.y - middle.y, b.x - middle.x));
}
