/**
 * In: the outline of a former, and the slots for what runs through all of them: a keel, spars, longerons or stringers. Out: the outline with
 * the slots cut into it.
 */
import { type Box, boxAround, largestPath, type Path, pathBox, rectanglePath } from '../plane/index.ts';
import { combined, pathCrossings } from '../shape/index.ts';

export interface Slot {
  /** Which skin it opens to; at the sides there is one on either. */
  readonly side: 'below' | 'above' | 'sides';
  /** Across of one from below or above, with its mirror image where that is not 0; up from the body's lowest place of one at the sides, mm. */
  readonly at: number;
  readonly widthMm: number;
  /** From the skin in; where it is straight from the body's own lowest, highest or widest place. */
  readonly depthMm: number;
  /** Whether its bottom lies on one straight line through all formers, as a keel's does. */
  readonly isStraight: boolean;
}

/** Sizes of the whole body, mm. */
interface BodySize {
  readonly heightMm: number;
  readonly widthMm: number;
}

/** The largest part that stays; slots that do not meet the outline leave it as it is. */
export function withSlots(outline: Path, slots: readonly Slot[], body: BodySize): { readonly outline: Path; readonly missed: number } {
  let [path, missed] = [outline, 0];
  for (const slot of slots) {
    const cuts = slotPaths(outline, slot, body);
    if (cuts.length === 0) missed++;
    for (const cut of cuts) path = largestPath(combined([path], [cut], 'take-away')) ?? path;
  }
  return { outline: path, missed };
}

/** A slot's rectangles, from beyond the skin to its bottom. */
function slotPaths(outline: Path, { side, at, widthMm, depthMm, isStraight }: Slot, { heightMm, widthMm: wide }: BodySize): Path[] {
  const box = pathBox(outline);
  const half = widthMm / 2;
  if (side === 'sides') {
    const skin = spanOf(outline, at, 'level');
    if (!skin) return [];
    return [1, -1].flatMap((s): Path[] => {
      const edge = s > 0 ? skin[1] : -skin[0];
      const bottom = isStraight ? wide / 2 - depthMm : edge - depthMm;
      return bottom >= edge
        ? []
        : [
            rectanglePath(
              boxAround([
                { x: s * bottom, y: at - half },
                { x: s * (Math.max(box.maxX, -box.minX) + half), y: at + half },
              ]) as Box,
            ),
          ];
    });
  }
  return (at === 0 ? [0] : [at, -at]).flatMap((x): Path[] => {
    const skin = spanOf(outline, x, 'upright');
    if (!skin) return [];
    const [low, high] = skin;
    if (side === 'below') {
      const bottom = isStraight ? depthMm : low + depthMm;
      return bottom <= low ? [] : [rectanglePath({ minX: x - half, minY: box.minY - half, maxX: x + half, maxY: bottom })];
    }
    const bottom = isStraight ? heightMm - depthMm : high - depthMm;
    return bottom >= high ? [] : [rectanglePath({ minX: x - half, minY: bottom, maxX: x + half, maxY: box.maxY + half })];
  });
}

/** From the first to the last place of an outline on an upright or level line. */
export function spanOf(outline: Path, at: number, line: 'upright' | 'level'): readonly [number, number] | null {
  const { minX, minY, maxX, maxY } = pathBox(outline);
  const ray: Path =
    line === 'upright'
      ? { start: { x: at, y: minY - 1 }, segments: [{ kind: 'line', to: { x: at, y: maxY + 1 } }], closed: false }
      : { start: { x: minX - 1, y: at }, segments: [{ kind: 'line', to: { x: maxX + 1, y: at } }], closed: false };
  const places = pathCrossings([outline], [ray]).onA.map(({ at: p }) => (line === 'upright' ? p.y : p.x));
  return places.length < 2 ? null : [Math.min(...places), Math.max(...places)];
}
