'use client';
/**
 * A word on the table: dark on a pale plate, so that it can be read on ink and on paper.
 */
import type { Point } from '@nuvet/core/plane';
import { colours } from '@/ui/colours';

/** @param at the middle of the plate, screen pixels; @param colour of its rim */
export function drawWord(canvas: CanvasRenderingContext2D, word: string, at: Point, colour: string): void {
  canvas.font = '600 13px "Figtree Variable", sans-serif';
  const width = canvas.measureText(word).width + 14;
  canvas.fillStyle = 'rgba(255, 253, 248, 0.95)';
  canvas.beginPath();
  canvas.roundRect(at.x - width / 2, at.y - 11, width, 22, 6);
  canvas.fill();
  canvas.strokeStyle = colour;
  canvas.lineWidth = 1;
  canvas.stroke();
  canvas.fillStyle = colours.ink;
  canvas.textAlign = 'center';
  canvas.textBaseline = 'middle';
  canvas.fillText(word, at.x, at.y + 0.5);
}
