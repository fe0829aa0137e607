/** What purposes are called: in a sentence, and as a heading. Their English stands with the purposes. */
import { type Purpose, purposeKinds, purposes } from '@nuvet/core/job';

const inTable = (say: (word: string) => string): Readonly<Record<Purpose, string>> =>
  Object.fromEntries(purposes.map((purpose) => [purpose, say(purposeKinds[purpose].word)])) as Record<Purpose, string>;

export const purposeWords = inTable((word) => word);
export const purposeHeadings = inTable((word) => `${word.charAt(0).toUpperCase()}${word.slice(1)}`);
