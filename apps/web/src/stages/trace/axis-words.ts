/**
 * Axes and their two halves in words.
 */
import type { KnownAxis } from '@nuvet/core/job';
import type { HalfSide } from '@nuvet/core/shape';

/** What the half on each side is called; for an axis that lies flatter than 45° by up and down. */
export function halfWords(dx: number, dy: number): Record<HalfSide, string> {
  if (Math.abs(dy) >= Math.abs(dx)) return dy >= 0 ? { left: 'left', right: 'right' } : { left: 'right', right: 'left' };
  return dx >= 0 ? { left: 'upper', right: 'lower' } : { left: 'lower', right: 'upper' };
}

const kinds: Record<KnownAxis['kind'], string> = {
  plumb: 'the plumb line',
  level: 'the level line',
  'datum-upright': 'the datum, upright',
  'datum-across': 'the datum, across',
};

/** An axis by its mark; with the picture's name where the job has several. */
export const axisWords = ({ kind, picture }: KnownAxis, isOneOfSeveral: boolean): string =>
  isOneOfSeveral ? `${kinds[kind]} of ${picture}` : kinds[kind];
