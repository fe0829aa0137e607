import { cleanText } from '../job/clean-text.ts';

/** What a pattern may name, in braces. */
export interface FileFacts {
  readonly job: string;
  readonly what: string;
  readonly process: string;
  readonly machine: string;
  readonly date: string;
  readonly revision: number;
}

/** A file's name by the job's pattern, without what file systems refuse. */
export function fileName(pattern: string, facts: FileFacts, ending: string): string {
  const said = Object.entries(facts).reduce((text, [name, fact]) => text.replaceAll(`{${name}}`, String(fact)), pattern);
  const clean = cleanText(said)
    .replace(/[^\p{L}\p{N} ._-]+/gu, ' ')
    .trim()
    .replace(/\s+/g, '-')
    .replace(/^[.-]+/, '');
  // Names of devices, which one family of systems keeps for itself whatever their ending.
  const isDevice = /^(con|prn|aux|nul|com\d|lpt\d)$/i.test(clean);
  return `${isDevice ? `job-${clean}` : clean || 'job'}.${ending}`;
}
