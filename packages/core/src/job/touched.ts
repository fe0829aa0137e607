/**
 * In: a piece before and after an edit. Out: which of its segments a hand has changed, so that a new trace can fit all others
 * anew.
 */
import { stepsOf } from '../plane/path.ts';
import { pathsOf } from './piece-paths.ts';
import type { Piece } from './schema.ts';

/** Of each outline, the outer one first, the numbers of the segments that are the hand's, in order. */
export type Touched = readonly (readonly number[])[];

/** Segments that lie exactly where an untouched one lay are untouched still. */
export function touchedBy(before: Piece, after: Pick<Piece, 'outer' | 'holes'>): Touched {
  // A piece that was changed when this was not yet told apart is the hand's throughout.
  const isWhole = before.edited === true && !before.touched;
  const untouched = new Set<string>();
  pathsOf(before).forEach((path, k) => {
    if (isWhole) return;
    const own = new Set(before.touched?.[k]);
    stepsOf(path).forEach((step, n) => {
      if (!own.has(n)) untouched.add(JSON.stringify(step));
    });
  });
  return pathsOf(after).map((path) => stepsOf(path).flatMap((step, n) => (untouched.has(JSON.stringify(step)) ? [] : [n])));
}

/** Whether a hand has changed some of a piece's segments, and it is known which. */
export const isPartlyByHand = ({ edited, touched }: Piece): boolean => edited === true && touched !== undefined;
