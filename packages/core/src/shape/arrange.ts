/**
 * In: boxes of what is selected. Out: where each goes so that they are aligned or evenly spaced.
 */
import { type Box, boxAroundBoxes, centreOf } from '../plane/box.ts';
import type { Point } from '../plane/point.ts';

export const alignments = ['left', 'middle', 'right', 'bottom', 'centre', 'top'] as const;
export type Alignment = (typeof alignments)[number];

/** How each box moves to come in line with the others' common box. */
export function aligned(boxes: readonly Box[], how: Alignment): Point[] {
  const all = boxAroundBoxes(boxes);
  if (!all) return [];
  const common = centreOf(all);
  return boxes.map((box) => {
    const { x, y } = centreOf(box);
    const moves: Record<Alignment, Point> = {
      left: { x: all.minX - box.minX, y: 0 },
      middle: { x: common.x - x, y: 0 },
      right: { x: all.maxX - box.maxX, y: 0 },
      bottom: { x: 0, y: all.minY - box.minY },
      centre: { x: 0, y: common.y - y },
      top: { x: 0, y: all.maxY - box.maxY },
    };
    return moves[how];
  });
}

/** How each box moves so that the gaps between them are alike; the outermost stay. */
export function distributed(boxes: readonly Box[], along: 'x' | 'y'): Point[] {
  const [low, high] = along === 'x' ? (['minX', 'maxX'] as const) : (['minY', 'maxY'] as const);
  const order = boxes.map((box, k) => ({ box, k })).sort((a, b) => a.box[low] + a.box[high] - b.box[low] - b.box[high]);
  const [first, last] = [order[0], order.at(-1)];
  const moves = boxes.map((): Point => ({ x: 0, y: 0 }));
  if (!first || !last || order.length < 3) return moves;
  const filled = order.reduce((sum, { box }) => sum + box[high] - box[low], 0);
  const gap = (last.box[high] - first.box[low] - filled) / (order.length - 1);
  let at = first.box[low];
  for (const { box, k } of order) {
    moves[k] = along === 'x' ? { x: at - box[low], y: 0 } : { x: 0, y: at - box[low] };
    at += box[high] - box[low] + gap;
  }
  return moves;
}
