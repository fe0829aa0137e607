/**
 * What the core says, in the language of the interface and the unit of the job.
 */
import { printDecimalInches } from '@nuvet/core/length';
import { inWords, printLength, type Said, SaidError } from '@nuvet/core/messages';
import { words } from './index.ts';

/** @param unit of the job: in inches, millimetres stand beside them */
export function told(said: Said, unit: 'mm' | 'in' = 'mm'): string {
  return inWords(said, words.messages, unit === 'mm' ? printLength : (mm) => `${printDecimalInches(mm)} (${printLength(mm)})`);
}

/** The text of an error; of one that was said, in the interface's language. */
export const toldError = (error: unknown): string => (error instanceof SaidError ? told(error.said) : (error as Error).message);
