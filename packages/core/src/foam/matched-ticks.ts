/**
 * In: the two faces of a slice. Out: ticks across both at equal shares of their length from where each is lowest, so that two hands that follow
 * one face each at even speed are at the same tick together. Every fifth is longer and has its number.
 */
import type { Path, Point } from '../plane/index.ts';
import { aroundOutline } from './around-outline.ts';

export interface MatchedTicks {
  readonly lines: readonly Path[];
  /** Of every fifth, beside the larger face. */
  readonly numbers: readonly { readonly at: Point; readonly number: number }[];
}

const chordMm = 0.05;
const [shortMm, longMm, numberMm] = [3, 6, 9];

export function matchedTicks(larger: Path, smaller: Path, count: number): MatchedTicks {
  const faces = [larger, smaller].map((face) => aroundOutline(face, chordMm, ({ y }) => -y));
  const lines: Path[] = [];
  const numbers: { at: Point; number: number }[] = [];
  for (let n = 0; n < count; n++) {
    const long = n % 5 === 0;
    for (const [face, around] of faces.entries()) {
      const { at, out } = around(n / count);
      const by = long ? longMm : shortMm;
      // The larger face's ticks stand inwards and the smaller one's too: neither runs into the other's line.
      lines.push({ start: at, segments: [{ kind: 'line', to: { x: at.x - by * out.x, y: at.y - by * out.y } }], closed: false });
      if (long && face === 1) numbers.push({ at: { x: at.x - numberMm * out.x, y: at.y - numberMm * out.y }, number: n });
    }
  }
  return { lines, numbers };
}
