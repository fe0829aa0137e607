'use client';
/**
 * Pages over the work, in screen pixels.
 */
import type { Tiling } from '@nuvet/core/make';
import type { Point } from '@nuvet/core/plane';
import { drawWord } from '@/table/drawing-words';
import { toScreen, type View } from '@/table/view';
import { colours } from '@/ui/colours';

type Canvas = CanvasRenderingContext2D;

/** The pages as they lie over the work, each with its name; dragged they move as a whole. */
export function drawPages(canvas: Canvas, view: View, tiling: Tiling, dragged: Point | null): void {
  const by = dragged ? { x: dragged.x - tiling.place.x, y: dragged.y - tiling.place.y } : { x: 0, y: 0 };
  for (const { cell, window, name } of tiling.pages) {
    const corner = (b: typeof cell) => {
      const [p, q] = [toScreen(view, { x: b.minX + by.x, y: b.maxY + by.y }), toScreen(view, { x: b.maxX + by.x, y: b.minY + by.y })];
      return [p.x, p.y, q.x - p.x, q.y - p.y] as const;
    };
    canvas.fillStyle = 'rgba(53, 80, 143, 0.05)';
    canvas.fillRect(...corner(window));
    canvas.strokeStyle = 'rgba(53, 80, 143, 0.35)';
    canvas.lineWidth = 1;
    canvas.setLineDash([3, 3]);
    canvas.strokeRect(...corner(window));
    canvas.setLineDash([]);
    canvas.strokeStyle = colours.indigo;
    canvas.lineWidth = 1.5;
    canvas.strokeRect(...corner(cell));
    const [x, y] = corner(cell);
    drawWord(canvas, name, { x: x + 24, y: y + 20 }, colours.indigo);
  }
}
