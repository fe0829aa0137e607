'use client';
/**
 * The way that is being led along an edge: what is held, and where it would go on.
 */
import { colours } from '@/ui/colours';
import type { Coordinates } from './coordinates';
import type { LiveWirePath } from './table-store';

export function drawLiveWire(canvas: CanvasRenderingContext2D, coordinates: Coordinates, { held, next, start }: LiveWirePath): void {
  if (!start) return;
  const toScreen = (p: { x: number; y: number }) => coordinates.toScreen(coordinates.originalOf(p));
  const along = (points: readonly { x: number; y: number }[]): void => {
    canvas.beginPath();
    points.forEach((p, k) => {
      const { x, y } = toScreen(p);
      if (k === 0) canvas.moveTo(x, y);
      else canvas.lineTo(x, y);
    });
  };
  canvas.save();
  canvas.lineJoin = 'round';
  for (const [points, dash] of [...held.map((part) => [part, []] as const), [next, [6, 4]] as const]) {
    along(points);
    canvas.setLineDash([]);
    canvas.strokeStyle = 'rgba(255, 255, 255, 0.85)';
    canvas.lineWidth = 5;
    canvas.stroke();
    canvas.setLineDash([...dash]);
    canvas.strokeStyle = colours.verdigris;
    canvas.lineWidth = 2.2;
    canvas.stroke();
  }
  canvas.setLineDash([]);
  canvas.lineWidth = 2;
  for (const p of [start, ...held.flatMap((part) => part.slice(-1))]) {
    const { x, y } = toScreen(p);
    canvas.beginPath();
    canvas.arc(x, y, 4.5, 0, 2 * Math.PI);
    canvas.fillStyle = '#fff';
    canvas.fill();
    canvas.stroke();
  }
  canvas.restore();
}
