/**
 * In: a picture file. Out: its grey pixels, upright, and the resolution that the file states.
 */
import { readFile } from 'node:fs/promises';
import { readPictureHeader } from '@nuvet/core/formats';
import { type GreyPicture, greyFromRgba } from '@nuvet/core/raster';
import sharp from 'sharp';
import { UsageError } from './arguments.ts';

const mostPixels = 100e6;

export async function readPicture(file: string): Promise<{ picture: GreyPicture; dpi: number | null }> {
  const bytes = await readFile(file).catch((error: NodeJS.ErrnoException) => {
    throw new UsageError(`${file}: ${error.code === 'ENOENT' ? 'there is no such file' : 'cannot be read'}`);
  });
  const header = readPictureHeader(bytes);
  if (!header) throw new UsageError(`${file}: is neither a PNG nor a JPEG picture`);
  if (header.widthPx * header.heightPx > mostPixels) {
    throw new UsageError(`${file}: ${header.widthPx} x ${header.heightPx} pixels are too many; 100 megapixels at most`);
  }
  const { data, info } = await sharp(bytes, { limitInputPixels: mostPixels, failOn: 'truncated' })
    .rotate()
    .toColourspace('srgb')
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
    .catch(() => {
      throw new UsageError(`${file}: the picture is damaged or cut short`);
    });
  return { picture: greyFromRgba(data, info.width, info.height), dpi: header.resolution?.dpi ?? null };
}
