/**
 * In: files and their contents. Out: all of them on disk, or none: each is written beside its place and moved there
 * once all are whole.
 */
import { rename, rm, writeFile } from 'node:fs/promises';
import { UsageError } from './arguments.ts';

export async function writeWholeFiles(files: ReadonlyMap<string, string | Uint8Array>): Promise<void> {
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
