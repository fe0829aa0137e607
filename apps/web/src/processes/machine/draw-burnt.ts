'use client';
/**
 * What the cutter has burnt into the sheet, in screen pixels.
 */
import { makeOf, type Piece } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import { withRim } from '@/table/drawing-making';
import { outlinePath2d } from '@/table/drawing-outlines';
import { sheetToScreen, toScreen, type View } from '@/table/view';
import { colours } from '@/ui/colours';

type Canvas = CanvasRenderingContext2D;

/** Once all is cut the pieces lie loose: a little raised, with a shadow. */
function drawLoose(canvas: Canvas, view: View, pieces: readonly Piece[]): void {
  const t = sheetToScreen(view);
  for (const { purpose, outer, holes } of pieces) {
    if (makeOf({ purpose }) !== 'part' || !outer.closed) continue;
    const whole = new Path2D();
    for (const path of [outer, ...holes]) whole.addPath(outlinePath2d(path));
    canvas.save();
    canvas.transform(t.a, t.b, t.c, t.d, t.e, t.f);
    canvas.shadowColor = 'rgba(60, 45, 20, 0.45)';
    canvas.shadowBlur = 9;
    canvas.shadowOffsetX = 2;
    canvas.shadowOffsetY = 4;
    canvas.fillStyle = '#E9D3AE';
    canvas.fill(whole, 'evenodd');
    canvas.restore();
  }
}

/** What has been burnt into the stock, and the head. */
export function drawBurnt(
  canvas: Canvas,
  view: View,
  pieces: readonly Piece[],
  burnt: { stretches: readonly (readonly Point[])[]; head: Point; isOver: boolean; isDone: boolean },
  kerfMm: number,
): void {
  if (burnt.isDone) drawLoose(canvas, view, pieces);
  canvas.save();
  canvas.strokeStyle = '#4A2F1B';
  canvas.lineWidth = Math.max(1.4, kerfMm * view.scale);
  canvas.lineCap = 'round';
  canvas.lineJoin = 'round';
  canvas.beginPath();
  for (const stretch of burnt.stretches) {
    stretch.forEach((p, k) => {
      const { x, y } = toScreen(view, p);
      if (k === 0) canvas.moveTo(x, y);
      else canvas.lineTo(x, y);
    });
  }
  canvas.stroke();
  canvas.restore();
  if (burnt.isOver) return;
  const { x, y } = toScreen(view, burnt.head);
  withRim(canvas, colours.madder, 2.4, () => {
    canvas.arc(x, y, 6, 0, 2 * Math.PI);
    canvas.moveTo(x - 11, y);
    canvas.lineTo(x + 11, y);
    canvas.moveTo(x, y - 11);
    canvas.lineTo(x, y + 11);
  });
}
