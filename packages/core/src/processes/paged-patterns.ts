/** Patterns at full size on pages to print; the library that writes PDF is loaded when they are made. */

import type { Pattern } from './pattern-pages.ts';
import type { ProcessFileMade } from './process.ts';

export type { Pattern, PatternText } from './pattern-pages.ts';

export const patternsPdf = async (title: string, patterns: readonly Pattern[], paper: string, note: string): Promise<ProcessFileMade> =>
  (await import('./pattern-pages.ts')).patternsPdf(title, patterns, paper, note);
