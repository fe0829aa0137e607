'use client';
/** Areas of a block or a quilt, painted in their fabrics: plain ones in their colour, others with their print at its true size. */
import type { QuiltArea, QuiltingSettings } from '@nuvet/core/quilting';
import { outlinePath2d } from '@/table/drawing-outlines';
import { colours } from '@/ui/colours';
import type { Prints } from './prints';

interface Paint {
  readonly opacity: number;
  readonly edge: string;
  /** In the canvas's own unit. */
  readonly edgeWidth: number;
}

/** @param canvas in millimetres of the areas */
export function paintAreas(
  canvas: CanvasRenderingContext2D,
  areas: readonly QuiltArea[],
  { fabrics, printShift, grain }: QuiltingSettings,
  prints: Prints,
  { opacity, edge, edgeWidth }: Paint,
): void {
  canvas.lineWidth = edgeWidth;
  canvas.lineJoin = 'round';
  canvas.strokeStyle = edge;
  const patterns = fabrics.map(({ pictureId }) => {
    const print = pictureId ? prints.get(pictureId) : null;
    const pattern = print && canvas.createPattern(print.image, 'repeat');
    return pattern && { pattern, mmPerPx: print.mmPerPx };
  });
  for (const { outline, fabric, set, place } of areas) {
    const path = outlinePath2d(outline);
    const print = patterns[fabric];
    const shift = (set !== null && printShift[set]) || { x: 0, y: 0 };
    // The print's pixels count down from the top.
    print?.pattern.setTransform(
      new DOMMatrix([place.a, place.b, place.c, place.d, place.e, place.f])
        .translate(shift.x, shift.y)
        .rotate((set !== null && grain[set]) || 0)
        .scale(print.mmPerPx, -print.mmPerPx),
    );
    canvas.globalAlpha = opacity;
    canvas.fillStyle = print?.pattern ?? fabrics[fabric]?.colour ?? colours.sheet;
    canvas.fill(path);
    canvas.globalAlpha = 1;
    canvas.stroke(path);
  }
}
