/** In: the word of a command line's option. Out: the length that it says, mm. */
import { parseLength } from '../length/index.ts';

/** @param unit of a bare number; @throws Error that says what is wrong with the word */
export function lengthOption(word: string, unit: 'mm' | 'in'): number {
  const read = parseLength(word, unit, 'positive');
  if (!read.ok) throw new Error(read.message);
  return read.mm;
}
