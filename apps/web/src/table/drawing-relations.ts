'use client';
/**
 * Ticks for what segments nearly are to one another, each a small sign on white; what is refused is struck out.
 */
import type { RelationKind } from '@nuvet/core/trace';
import { colours } from '@/ui/colours';
import type { RelationSeen } from '@/workers/tracer.worker';
import { toScreen, type View } from './view';

/** Strokes of each sign, in a square from -4 to 4, y down. */
const signs: Record<RelationKind, string> = {
  level: 'M-4 0H4',
  plumb: 'M0 -4V4',
  parallel: 'M-4 3L1 -4M-1 4L4 -3',
  square: 'M-4 -4V4H4',
  'in-line': 'M-4 0H-1M1 0H4M0 -2V2',
  'equal-length': 'M-4 -1.500H4M-4 1.500H4',
  'equal-radius': 'M-4 3A7 7 0 0 1 3 -4M-1 4A5 5 0 0 1 4 -1',
  concentric: 'M4 0A4 4 0 1 1 -4 0A4 4 0 1 1 4 0M1.200 0A1.200 1.200 0 1 1 -1.200 0A1.200 1.200 0 1 1 1.200 0',
};

/** Ticks at one place stand side by side, screen pixels. */
const pitch = 17;

export function drawRelations(
  canvas: CanvasRenderingContext2D,
  view: View,
  seen: readonly RelationSeen[],
  refused: readonly string[],
): void {
  canvas.save();
  const taken = new Map<string, number>();
  for (const { key, kind, at } of seen) {
    const p = toScreen(view, at);
    const cell = `${Math.round(p.x / pitch)} ${Math.round(p.y / pitch)}`;
    const beside = taken.get(cell) ?? 0;
    taken.set(cell, beside + 1);
    const isRefused = refused.includes(key);
    canvas.save();
    canvas.translate(p.x + beside * pitch, p.y);
    canvas.fillStyle = 'rgba(255, 255, 255, 0.94)';
    canvas.strokeStyle = isRefused ? colours.line : colours.indigo;
    canvas.lineWidth = 1;
    canvas.beginPath();
    canvas.arc(0, 0, 8, 0, 2 * Math.PI);
    canvas.fill();
    canvas.stroke();
    canvas.strokeStyle = isRefused ? '#8A8478' : colours.indigo;
    canvas.lineWidth = 1.5;
    canvas.stroke(new Path2D(signs[kind]));
    if (isRefused) canvas.stroke(new Path2D('M-6 6L6 -6'));
    canvas.restore();
  }
  canvas.restore();
}

/** A relation's sign, for the docket. */
export const signOf = (kind: RelationKind): string => signs[kind];
