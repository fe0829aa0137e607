/**
 * What is uploaded goes to a file of its own first, counted while it streams, and is gone when the work on it is done. Files of a
 * process that was killed go when the next one starts.
 */
import { createWriteStream, existsSync } from 'node:fs';
import { mkdir, mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import { words } from '../words/index.ts';
import { HttpError } from './http-error.ts';

const uploads = join(tmpdir(), 'nuvet-uploads');

/** A folder is named after its process. */
async function clearLeftovers(): Promise<void> {
  await mkdir(uploads, { recursive: true });
  const gone = (await readdir(uploads)).filter((name) => !existsSync(`/proc/${name.split('-')[0]}`));
  await Promise.all(gone.map((name) => rm(join(uploads, name), { recursive: true, force: true })));
}

let cleared: Promise<void> | null = null;

function readyForUploads(): Promise<void> {
  cleared ??= clearLeftovers();
  return cleared;
}

/**
 * Streams a body to a file and works on it.
 * @param maxBytes what comes past them is read away, so that the answer reaches whoever sends
 * @throws Problem 413 where it is longer
 */
export async function withUpload<T>(body: ReadableStream<Uint8Array>, maxBytes: number, work: (file: string) => Promise<T>): Promise<T> {
  await readyForUploads();
  const folder = await mkdtemp(join(uploads, `${process.pid}-`));
  try {
    const file = join(folder, 'upload');
    await pipeline(Readable.fromWeb(body), limitedTo(maxBytes), createWriteStream(file));
    return await work(file);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

function limitedTo(max: number): Transform {
  let count = 0;
  return new Transform({
    transform(part: Buffer, _encoding, done) {
      count += part.length;
      done(null, count <= max ? part : undefined);
    },
    flush(done) {
      done(count > max ? new HttpError(413, 'too-large', words.server.theFileIsLargerThanMb(Math.ceil(max / 1e6))) : null);
    },
  });
}
