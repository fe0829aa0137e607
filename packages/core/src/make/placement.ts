/**
 * In: the box of what is made, and what a machine expects. Out: how the sheet's places become the machine's.
 */
import type { Machine } from '../job/machine.ts';
import { type Box, chain, type Point, shift, stretch, type Transform } from '../plane/index.ts';

/** The place on the sheet that the machine calls 0, 0. */
export function originOn(box: Box, { origin }: Pick<Machine, 'origin'>): Point {
  if (origin === 'sheet') return { x: 0, y: 0 };
  if (origin === 'centre') return { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 };
  return { x: box.minX, y: origin === 'upper-left' ? box.maxY : box.minY };
}

/** From the sheet to the machine, both in mm; mirrored where its y grows downwards. */
export function toMachine(box: Box, machine: Pick<Machine, 'origin' | 'y'>): Transform {
  const { x, y } = originOn(box, machine);
  return chain(stretch(1, machine.y === 'up' ? 1 : -1), shift(-x, -y));
}
