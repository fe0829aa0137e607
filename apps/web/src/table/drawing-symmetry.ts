'use client';
/**
 * The axis or the centre of a symmetry, drawn over the pieces.
 */
import type { Symmetry } from '@nuvet/core/trace';
import { colours } from '@/ui/colours';
import { type Size, toScreen, type View } from './view';

/** The axis of a symmetry from edge to edge, or its centre. */
export function drawSymmetry(canvas: CanvasRenderingContext2D, view: View, symmetry: Symmetry, screen: Size): void {
  const p = toScreen(view, symmetry.at);
  const reach = Math.hypot(screen.width, screen.height);
  canvas.save();
  canvas.strokeStyle = colours.indigo;
  canvas.lineWidth = 1.4;
  canvas.beginPath();
  if (symmetry.kind === 'mirror') {
    canvas.setLineDash([14, 4, 2, 4]);
    const [dx, dy] = [Math.cos(symmetry.angle) * reach, -Math.sin(symmetry.angle) * reach];
    canvas.moveTo(p.x - dx, p.y - dy);
    canvas.lineTo(p.x + dx, p.y + dy);
  } else {
    canvas.arc(p.x, p.y, 7, 0, 2 * Math.PI);
    for (const [dx, dy] of [
      [14, 0],
      [0, 14],
    ] as const) {
      canvas.moveTo(p.x - dx, p.y - dy);
      canvas.lineTo(p.x + dx, p.y + dy);
    }
  }
  canvas.stroke();
  canvas.restore();
}
