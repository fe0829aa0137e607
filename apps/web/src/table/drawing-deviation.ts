'use client';
/**
 * The outlines coloured by their distance from the picture's edge: verdigris where they lie on it, brass from a quarter
 * of the tolerance on, red from the whole. The worst place is ringed and named.
 */
import { printMm } from '@nuvet/core/length';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import type { DeviationSeen } from '@/workers/tracer.worker';
import { toScreen, type View } from './view';

const steps = [
  { upTo: 0.25, colour: colours.verdigris },
  { upTo: 0.5, colour: '#8FA03A' },
  { upTo: 1, colour: '#C98A12' },
  { upTo: Infinity, colour: '#B3261E' },
] as const;

export function drawDeviation(canvas: CanvasRenderingContext2D, view: View, { lines, worst, toleranceMm }: DeviationSeen): void {
  canvas.save();
  canvas.lineWidth = 3.2;
  canvas.lineCap = 'round';
  let below = 0;
  for (const { upTo, colour } of steps) {
    canvas.strokeStyle = colour;
    canvas.beginPath();
    for (const { points, off } of lines) {
      for (let k = 1; k < points.length; k++) {
        const share = Math.max(off[k - 1] as number, off[k] as number) / toleranceMm;
        if (share < below || share >= upTo) continue;
        const [a, b] = [toScreen(view, points[k - 1] as never), toScreen(view, points[k] as never)];
        canvas.moveTo(a.x, a.y);
        canvas.lineTo(b.x, b.y);
      }
    }
    canvas.stroke();
    below = upTo;
  }
  const p = toScreen(view, worst.at);
  canvas.strokeStyle = colours.ink;
  canvas.lineWidth = 1.6;
  canvas.beginPath();
  canvas.arc(p.x, p.y, 11, 0, 2 * Math.PI);
  canvas.stroke();
  const reading = words.table.off(printMm(worst.mm, 3));
  canvas.font = '600 13px "Figtree Variable", sans-serif';
  const width = canvas.measureText(reading).width;
  canvas.fillStyle = 'rgba(255, 253, 248, 0.92)';
  canvas.fillRect(p.x + 15, p.y - 11, width + 10, 22);
  canvas.fillStyle = colours.ink;
  canvas.textBaseline = 'middle';
  canvas.fillText(reading, p.x + 20, p.y + 1);
  canvas.restore();
}
