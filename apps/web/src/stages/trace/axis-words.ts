/**
 * Axes and their two halves in words.
 */
import type { KnownAxis } from '@nuvet/core/job';
import type { HalfSide } from '@nuvet/core/shape';
import { words } from '@/words';

/** What the half on each side is called; for an axis that lies flatter than 45° by up and down. */
export function halfWords(dx: number, dy: number): Record<HalfSide, string> {
  if (Math.abs(dy) >= Math.abs(dx))
    return dy >= 0 ? { left: words.trace.left, right: words.trace.right } : { left: words.trace.right, right: words.trace.left };
  return dx >= 0 ? { left: words.trace.upper, right: words.trace.lower } : { left: words.trace.lower, right: words.trace.upper };
}

const kinds: Record<KnownAxis['kind'], string> = {
  plumb: words.trace.thePlumbLine,
  level: words.trace.theLevelLine,
  'datum-upright': words.trace.theDatumUpright,
  'datum-across': words.trace.theDatumAcross,
};

/** An axis by its mark; with the picture's name where the job has several. */
export const axisWords = ({ kind, picture }: KnownAxis, isOneOfSeveral: boolean): string =>
  isOneOfSeveral ? words.trace.axisOf(kinds[kind], picture) : kinds[kind];
