/**
 * In: many pictures and what holds for all. Out: files for each, made over as many threads as there are cores, with a
 * line of progress and a table at the end. One picture that cannot be traced does not stop the rest.
 */
import { mkdir, readdir, stat } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { basename, extname, join } from 'node:path';
import { type BatchRequest, readTraceArguments, UsageError } from './arguments.ts';
import type { Io, Outcome } from './io.ts';
import { TaskThread } from './task-thread.ts';
import { trace } from './trace.ts';

const pictureEndings = new Set(['.png', '.jpg', '.jpeg', '.webp', '.gif', '.tif', '.tiff', '.bmp', '.pdf']);

interface Traced {
  readonly picture: string;
  readonly isDone: boolean;
  readonly words: string;
}

export async function traceMany({ pictures, outDir, to, words }: BatchRequest, io: Io): Promise<Outcome> {
  const all = (await Promise.all(pictures.map(picturesAt))).flat();
  if (all.length === 0) throw new UsageError(`${pictures.join(', ')}: there is no picture in there`);
  const names = all.map((picture) => basename(picture, extname(picture)));
  const twice = names.find((name, k) => names.indexOf(name) !== k);
  if (twice) throw new UsageError(`two pictures are called ${twice}; their files would overwrite each other`);
  await mkdir(outDir, { recursive: true }).catch((error: NodeJS.ErrnoException) => {
    throw new UsageError(`${outDir}: cannot be made (${error.code})`);
  });
  const outcomes: Traced[] = [];
  let next = 0;
  const work = async () => {
    let thread = new TaskThread(io.bundle);
    for (let k = next++; k < all.length; k = next++) {
      const picture = all[k] as string;
      const files = to.flatMap((kind) => ['--out', join(outDir, `${names[k]}.${kind}`)]);
      try {
        const [first = ''] = await thread.run<typeof traceOne>(
          'trace',
          { words: [picture, ...files, ...words], bundle: io.bundle },
          null,
          `${picture}: takes too much memory`,
        );
        // The first line names the file; what it came to stands after it.
        outcomes[k] = { picture, isDone: true, words: first.slice(first.indexOf(': ') + 2) };
      } catch (error) {
        outcomes[k] = { picture, isDone: false, words: (error as Error).message.split('\n')[0] ?? '' };
        // One that has failed for want of memory is gone.
        await thread.end();
        thread = new TaskThread(io.bundle);
      }
      io.error(`${outcomes.filter(Boolean).length} of ${all.length}: ${names[k]}`);
    }
    await thread.end();
  };
  await Promise.all(Array.from({ length: Math.min(all.length, availableParallelism()) }, work));
  const failed = outcomes.filter(({ isDone }) => !isDone).length;
  const wide = Math.max(...outcomes.map(({ picture }) => picture.length));
  const table = outcomes.map(({ picture, words: said }) => `${picture.padEnd(wide)}  ${said}`);
  return { lines: [...table, `${all.length - failed} traced, ${failed} not`], code: failed > 0 ? 2 : 0 };
}

async function picturesAt(path: string): Promise<string[]> {
  const found = await stat(path).catch(() => null);
  if (!found?.isDirectory()) return [path];
  const files = await readdir(path);
  return files
    .filter((file) => pictureEndings.has(extname(file).toLowerCase()))
    .sort()
    .map((file) => join(path, file));
}

/** One picture of many, in a thread. @throws UsageError */
export async function traceOne({ words, bundle }: { words: readonly string[]; bundle: string }): Promise<readonly string[]> {
  const silent: Io = { out: () => {}, error: () => {}, input: async () => new Uint8Array(), bytes: () => {}, bundle };
  return (await trace(readTraceArguments(words), silent)).lines;
}
