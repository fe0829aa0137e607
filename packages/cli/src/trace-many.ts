/**
 * In: many pictures and what holds for all. Out: files for each, made by as many processes as there are cores, with a
 * line of progress and a table at the end. One picture that cannot be traced does not stop the rest.
 */
import { execFile } from 'node:child_process';
import { mkdir, readdir, stat } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { basename, extname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { type BatchRequest, UsageError } from './arguments.ts';

const bin = fileURLToPath(new URL('../bin/nuvet.mjs', import.meta.url));
const pictureEndings = new Set(['.png', '.jpg', '.jpeg', '.webp', '.gif', '.tif', '.tiff', '.bmp', '.pdf']);

interface Outcome {
  readonly picture: string;
  readonly isDone: boolean;
  readonly words: string;
}

export async function traceMany({ pictures, outDir, to, words }: BatchRequest): Promise<string[]> {
  const all = (await Promise.all(pictures.map(picturesAt))).flat();
  if (all.length === 0) throw new UsageError(`${pictures.join(', ')}: there is no picture in there`);
  const names = all.map((picture) => basename(picture, extname(picture)));
  const twice = names.find((name, k) => names.indexOf(name) !== k);
  if (twice) throw new UsageError(`two pictures are called ${twice}; their files would overwrite each other`);
  await mkdir(outDir, { recursive: true }).catch((error: NodeJS.ErrnoException) => {
    throw new UsageError(`${outDir}: cannot be made (${error.code})`);
  });
  const outcomes: Outcome[] = [];
  let next = 0;
  const work = async () => {
    for (let k = next++; k < all.length; k = next++) {
      const files = to.flatMap((kind) => ['--out', join(outDir, `${names[k]}.${kind}`)]);
      outcomes[k] = await traced(all[k] as string, [...files, ...words]);
      const done = outcomes.filter(Boolean).length;
      process.stderr.write(`${done} of ${all.length}: ${names[k]}\n`);
    }
  };
  await Promise.all(Array.from({ length: Math.min(all.length, availableParallelism()) }, work));
  const failed = outcomes.filter(({ isDone }) => !isDone).length;
  if (failed > 0) process.exitCode = 2;
  const wide = Math.max(...outcomes.map(({ picture }) => picture.length));
  return [
    ...outcomes.map(({ picture, words: said }) => `${picture.padEnd(wide)}  ${said}`),
    `${all.length - failed} traced, ${failed} not`,
  ];
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

function traced(picture: string, words: readonly string[]): Promise<Outcome> {
  return new Promise((resolve) => {
    execFile(process.execPath, [bin, 'trace', picture, ...words], (failure, out, error) => {
      const said = failure ? error : out;
      const line = said.split('\n')[0]?.replace(/^nuvet: /, '') ?? '';
      // The first line names the file; what it came to stands after it.
      resolve({ picture, isDone: !failure, words: failure ? line || 'stopped' : line.slice(line.indexOf(': ') + 2) });
    });
  });
}
