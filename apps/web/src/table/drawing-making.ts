'use client';
/**
 * What proving and making ready draw over the outlines: places of findings, sizes that must come out, bridges. In screen pixels.
 */
import type { Job } from '@nuvet/core/job';
import { printMm } from '@nuvet/core/length';
import type { Point } from '@nuvet/core/plane';
import type { ProvedSize } from '@nuvet/core/proof';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { drawWord } from './drawing-words';
import { toScreen, type View } from './view';

type Canvas = CanvasRenderingContext2D;
const pale = 'rgba(255, 253, 248, 0.95)';

export function withRim(canvas: Canvas, colour: string, width: number, trace: () => void): void {
  for (const [style, size] of [
    [pale, width + 3],
    [colour, width],
  ] as const) {
    canvas.strokeStyle = style;
    canvas.lineWidth = size;
    canvas.beginPath();
    trace();
    canvas.stroke();
  }
}

/** A ring at each place of the finding that is looked at. */
export function drawPlaces(canvas: Canvas, view: View, places: readonly Point[]): void {
  for (const place of places) {
    const { x, y } = toScreen(view, place);
    withRim(canvas, colours.madder, 2.4, () => canvas.arc(x, y, 13, 0, 2 * Math.PI));
  }
}

/** Each size between its two places, with what it is. */
export function drawSizes(canvas: Canvas, view: View, sizes: readonly ProvedSize[]): void {
  for (const { pinned, ends, isMm, holds } of sizes) {
    const [a, b] = ends.map((p) => toScreen(view, p));
    if (!a || !b || isMm === null || pinned.of.kind !== 'between') continue;
    const colour = holds ? colours.verdigris : colours.madder;
    const size = Math.hypot(b.x - a.x, b.y - a.y) || 1;
    const [nx, ny] = [(-(b.y - a.y) / size) * 6, ((b.x - a.x) / size) * 6];
    withRim(canvas, colour, 1.8, () => {
      canvas.moveTo(a.x, a.y);
      canvas.lineTo(b.x, b.y);
      for (const p of [a, b]) {
        canvas.moveTo(p.x - nx, p.y - ny);
        canvas.lineTo(p.x + nx, p.y + ny);
      }
    });
    drawWord(canvas, words.table.measured(printMm(isMm)), { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }, colour);
  }
}

/** The ends of each bridge, to be dragged along their outlines. */
export function drawBridges(
  canvas: Canvas,
  view: View,
  bridges: Job['proof']['bridges'],
  dragged: { id: string; end: 'from' | 'to'; at: Point } | null,
): void {
  for (const bridge of bridges) {
    const ends = (['from', 'to'] as const).map((end) =>
      toScreen(view, dragged?.id === bridge.id && dragged.end === end ? dragged.at : bridge[end]),
    );
    const [a, b] = ends as [Point, Point];
    canvas.setLineDash([5, 3]);
    withRim(canvas, colours.ink, 1.2, () => {
      canvas.moveTo(a.x, a.y);
      canvas.lineTo(b.x, b.y);
    });
    canvas.setLineDash([]);
    for (const { x, y } of ends) {
      canvas.beginPath();
      canvas.arc(x, y, 5, 0, 2 * Math.PI);
      canvas.fillStyle = colours.sheet;
      canvas.fill();
      canvas.strokeStyle = colours.ink;
      canvas.lineWidth = 1.8;
      canvas.stroke();
    }
  }
}

/** Places taken so far and the one that a click would take. */
export function drawTaken(canvas: Canvas, view: View, taken: readonly Point[], aim: Point | null): void {
  const points = [...taken, ...(aim ? [aim] : [])].map((p) => toScreen(view, p));
  const [a, b] = points;
  if (a && b)
    withRim(canvas, colours.ink, 1.5, () => {
      canvas.moveTo(a.x, a.y);
      canvas.lineTo(b.x, b.y);
    });
  for (const { x, y } of points) withRim(canvas, colours.madder, 2, () => canvas.arc(x, y, 7, 0, 2 * Math.PI));
}
