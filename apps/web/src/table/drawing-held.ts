'use client';
/**
 * Measures that a drawn outline keeps, on the table: each with its figure where it is measured.
 */
import type { Drawn } from '@nuvet/core/job';
import { type Path, type Point, pointOn, stepsOf } from '@nuvet/core/plane';
import { type Dimension, measured, pointOf } from '@nuvet/core/shape';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { drawWord } from './drawing-words';
import { toScreen, type View } from './view';

export function drawHeld(canvas: CanvasRenderingContext2D, view: View, path: Path, held: Drawn['held'], off: readonly number[]): void {
  held?.forEach((measure, k) => {
    // Several outlines keep none.
    if (!Number.isFinite(off[k])) return;
    const colour = Math.abs(off[k] ?? 0) > 5e-4 ? colours.madder : colours.verdigris;
    if (measure.kind === 'gap')
      drawSpan(canvas, toScreen(view, pointOf(path, measure.a)), toScreen(view, pointOf(path, measure.b)), colour);
    drawWord(canvas, wordOf(path, measure as Dimension), toScreen(view, placeOf(path, measure as Dimension)), colour);
  });
}

function wordOf(path: Path, measure: Dimension): string {
  const value = measured(path, measure);
  if (measure.kind === 'turn') return `${(180 - (Math.abs(value) * 180) / Math.PI).toFixed(1)}°`;
  const stock = measure.mm === null ? ' stock' : '';
  return words.table.lockedDimension(measure.kind, value.toFixed(2), stock);
}

function placeOf(path: Path, measure: Dimension): Point {
  if (measure.kind === 'gap') {
    const [a, b] = [pointOf(path, measure.a), pointOf(path, measure.b)];
    return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  }
  if (measure.kind === 'turn') return pointOf(path, measure.point);
  const { from, segment } = stepsOf(path)[measure.segment] as ReturnType<typeof stepsOf>[0];
  return pointOn(from, segment, 0.5);
}

function drawSpan(canvas: CanvasRenderingContext2D, a: Point, b: Point, colour: string): void {
  canvas.strokeStyle = colour;
  canvas.lineWidth = 1.2;
  canvas.setLineDash([5, 4]);
  canvas.beginPath();
  canvas.moveTo(a.x, a.y);
  canvas.lineTo(b.x, b.y);
  canvas.stroke();
  canvas.setLineDash([]);
}
