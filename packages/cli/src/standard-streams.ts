/**
 * In: the command's words, in which a dash stands for standard input or output. Out: the same with files in their place, which are read from standard
 * input before, and written to standard output after.
 */
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { UsageError } from './arguments.ts';
import type { Io } from './io.ts';

const mostBytes = 400e6;

export interface Streamed {
  readonly words: readonly string[];
  /** Whether standard output is taken by a file, so that lines go to standard error. */
  readonly isOutTaken: boolean;
  /** Hands what was written to standard output over. */
  finish(): Promise<void>;
  clean(): Promise<void>;
}

/** @param plainEnding what `--out -` stands for; `--out -.dxf` names another. @throws UsageError */
export async function throughStreams(words: readonly string[], plainEnding: string, io: Io): Promise<Streamed> {
  const outs = words.flatMap((word, k) => (/^-(\.\w+)?$/.test(word) && words[k - 1] === '--out' ? [k] : []));
  const ins = words.flatMap((word, k) => (word === '-' && !outs.includes(k) ? [k] : []));
  if (outs.length + ins.length === 0) return { words, isOutTaken: false, finish: async () => {}, clean: async () => {} };
  if (outs.length > 1 || ins.length > 1)
    throw new UsageError('one file at a time can go through standard input, and one through standard output');
  const folder = await mkdtemp(join(tmpdir(), 'nuvet-streams-'));
  const named = [...words];
  const [from, to] = [ins[0], outs[0]];
  if (from !== undefined) {
    const bytes = await io.input(mostBytes);
    if (bytes.length === 0) throw new UsageError('-: nothing comes from standard input');
    if (bytes.length > mostBytes) throw new UsageError(`-: more than ${mostBytes / 1e6} MB come from standard input`);
    named[from] = join(folder, `standard-input${endingOf(bytes)}`);
    await writeFile(named[from], bytes);
  }
  if (to !== undefined) named[to] = join(folder, `standard-output${(words[to] as string).slice(1) || plainEnding}`);
  return {
    words: named,
    isOutTaken: to !== undefined,
    finish: async () => {
      if (to !== undefined) io.bytes(await readFile(named[to] as string));
    },
    clean: () => rm(folder, { recursive: true, force: true }),
  };
}

/** By what stands at its beginning; pictures are told apart by their readers. */
function endingOf(bytes: Uint8Array): string {
  const start = Buffer.from(bytes.subarray(0, 4096)).toString('latin1');
  if (/^\s*(?:999[\s\S]*?)?\s*0\s*\r?\n\s*SECTION/.test(start)) return '.dxf';
  if (start.includes('%PDF-')) return '.pdf';
  if (/<svg[\s>]|<\w+:svg[\s>]/.test(start) || /^\s*<\?xml/.test(start)) return '.svg';
  return /^\s*\{/.test(start) ? '.json' : '.png';
}
