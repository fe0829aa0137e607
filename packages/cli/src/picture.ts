/**
 * In: the name of a picture file. Out: its pixels, in colour and grey, and the resolution that it states.
 */
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type GreyPicture, greyFromRgb, greyPicture, type Pixels } from '@nuvet/core/raster';
import { decodePicture, PictureError, readPictureFile } from '@nuvet/pictures';
import { type SizingRequest, UsageError } from './arguments.ts';
import type { Io } from './io.ts';
import type { renderPdfPage } from './pdf.ts';
import { inThread } from './task-thread.ts';

export interface ReadPicture {
  readonly grey: GreyPicture;
  readonly pixels: Pixels;
  /** Null where the file states none, or one that cannot be trusted. */
  readonly dpi: number | null;
}

/**
 * @param pdfDpi the resolution that a PDF is drawn at
 * @throws UsageError where the file cannot be used
 */
export async function readPicture({ picture: file, page, limitS }: SizingRequest, pdfDpi: number, io: Io): Promise<ReadPicture> {
  const bytes = await readFile(file).catch((error: NodeJS.ErrnoException) => {
    throw new UsageError(`${file}: ${error.code === 'ENOENT' ? 'there is no such file' : 'cannot be read'}`);
  });
  if (bytes.subarray(0, 1024).includes('%PDF-')) return fromPdf(file, bytes, page, pdfDpi, limitS, io);
  return decoded(file, file, page);
}

async function fromPdf(file: string, bytes: Uint8Array, page: number, dpi: number, limitS: number | null, io: Io): Promise<ReadPicture> {
  const tooMuch = `${file}: page ${page} takes longer than ${limitS} s to draw; --time-limit gives it longer`;
  const png = await inThread<typeof renderPdfPage>(io.bundle, 'pdf', { file, bytes, page, dpi }, limitS, tooMuch);
  const folder = await mkdtemp(join(tmpdir(), 'nuvet-pdf-'));
  try {
    const part = join(folder, 'page.png');
    await writeFile(part, png);
    return { ...(await decoded(part, file, 1)), dpi };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function decoded(file: string, name: string, page: number): Promise<ReadPicture> {
  try {
    const { kind, resolution } = await readPictureFile(file, name, page - 1);
    const { data, width, height, channels } = await decodePicture(file, kind, name, page - 1, 3, true);
    const { grey, isGrey } = channels === 1 ? { grey: data, isGrey: true } : greyFromRgb(data, width, height);
    return {
      grey: greyPicture(grey, width, height),
      pixels: { width, height, grey, colour: isGrey ? null : data },
      dpi: resolution?.trusted ? resolution.dpi : null,
    };
  } catch (error) {
    if (error instanceof PictureError) throw new UsageError(`${name}: ${error.message.replace(/^“[^”]*” /, '')}`);
    throw error;
  }
}
