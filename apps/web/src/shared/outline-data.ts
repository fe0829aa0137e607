/**
 * In: outlines on the sheet, mm, y up. Out: the path data of a small drawing of them, y down, to a tenth of a pixel.
 */
import { type Box, heightOf, type Path, polygonOf, widthOf } from '@nuvet/core/plane';

/** How far chords of a small drawing may leave the outline, pixels of it. */
const chordPx = 0.25;

/** The scale and the place that put a box into the middle of a drawing of so many pixels. */
export function placeIn(box: Box, widthPx: number, heightPx: number, marginPx: number): { scale: number; left: number; top: number } {
  const [wide, high] = [Math.max(widthOf(box), 1e-6), Math.max(heightOf(box), 1e-6)];
  const scale = Math.min((widthPx - 2 * marginPx) / wide, (heightPx - 2 * marginPx) / high);
  return { scale, left: (widthPx - scale * widthOf(box)) / 2, top: (heightPx - scale * heightOf(box)) / 2 };
}

export function outlineData(paths: readonly Path[], box: Box, { scale, left, top }: ReturnType<typeof placeIn>): string {
  return paths
    .map((path) => {
      const points = polygonOf(path, chordPx / scale).map(
        ({ x, y }) => `${(left + scale * (x - box.minX)).toFixed(1)} ${(top + scale * (box.maxY - y)).toFixed(1)}`,
      );
      return `M${points.join('L')}${path.closed ? 'Z' : ''}`;
    })
    .join('');
}
