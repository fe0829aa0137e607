/**
 * In: files and their contents. Out: all of them on disk, or none: each is written beside its place and moved there
 * once all are whole.
 */
import { access, rename, rm, writeFile } from 'node:fs/promises';
import { resolve } from 'node:path';
import { UsageError } from './arguments.ts';

export interface WriteRules {
  /** Whether files that are there already are written over. */
  readonly force: boolean;
  /** Files that it is made from, which are never written over. */
  readonly inputs: readonly string[];
}

/** @throws UsageError where a file is there already, or cannot be written */
export async function writeWholeFiles(files: ReadonlyMap<string, string | Uint8Array>, { force, inputs }: WriteRules): Promise<void> {
  const read = new Set(inputs.map((file) => resolve(file)));
  for (const file of files.keys()) {
    if (read.has(resolve(file))) throw new UsageError(`${file}: this is the file that it is made from; name another`);
    const isThere = await access(file).then(() => true).catch(() => false); // biome-ignore format: one line
    if (isThere && !force) throw new UsageError(`${file}: is there already; --force writes over it`);
  }
  const parts = [...files].map(([file, content]) => ({ file, part: `${file}.${process.pid}.part`, content }));
  try {
    for (const { file, part, content } of parts) {
      await writeFile(part, content).catch((error: NodeJS.ErrnoException) => {
        throw new UsageError(`${file}: cannot be written (${error.code === 'ENOENT' ? 'there is no such folder' : error.code})`);
      });
    }
    for (const { file, part } of parts) {
      await rename(part, file).catch((error: NodeJS.ErrnoException) => {
        throw new UsageError(`${file}: cannot be written (${error.code})`);
      });
    }
  } finally {
    await Promise.all(parts.map(({ part }) => rm(part, { force: true })));
  }
}
