/**
 * The `nuvet` command as tests use it: in their own process, which is what takes no time, and as a process of its own, which is what
 * a person runs.
 */
import { execFile } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { bundle } from '../../packages/cli/bin/bundle.mjs';
import { main } from '../../packages/cli/src/main.ts';

export interface Ran {
  readonly code: number;
  readonly out: string;
  readonly error: string;
}

/** A process is in one folder at a time. */
let before: Promise<unknown> = Promise.resolve();

/** Runs the command in a folder, in this process; one at a time. */
export const nuvetIn =
  (folder: string) =>
  (...words: string[]): Promise<Ran> => {
    const mine = before.then(() => ranIn(folder, words));
    before = mine.catch(() => {});
    return mine;
  };

async function ranIn(folder: string, words: readonly string[]): Promise<Ran> {
  let [out, error] = ['', ''];
  const io = {
    out: (line: string) => {
      out += `${line}\n`;
    },
    error: (line: string) => {
      error += `${line}\n`;
    },
    input: async () => new Uint8Array(),
    bytes: (bytes: Uint8Array) => {
      out += Buffer.from(bytes).toString('latin1');
    },
    bundle: await bundle(),
  };
  const start = process.cwd();
  process.chdir(folder);
  try {
    return { code: await main(words, io), out, error };
  } finally {
    process.chdir(start);
  }
}

const bin = fileURLToPath(new URL('../../packages/cli/bin/nuvet.mjs', import.meta.url));

/** Runs the command as a person does. */
export const nuvetProcessIn =
  (folder: string) =>
  (...words: string[]): Promise<Ran> =>
    new Promise((resolve) => {
      execFile(process.execPath, [bin, ...words], { cwd: folder }, (failure, out, error) =>
        resolve({ code: failure ? Number(failure.code) : 0, out, error }),
      );
    });
