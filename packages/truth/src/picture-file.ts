/**
 * In: a picture. Out: the bytes of a PNG or JPEG file that states its resolution.
 */
import type { ColourPicture, GreyPicture } from '@nuvet/core/raster';
import sharp from 'sharp';

const raw = ({ width, height, data }: GreyPicture) => sharp(data, { raw: { width, height, channels: 1 } });

export function pngOf(picture: GreyPicture, dpi: number | null): Promise<Buffer> {
  const image = raw(picture).toColourspace('b-w');
  return (dpi ? image.withMetadata({ density: dpi }) : image).png({ compressionLevel: 6 }).toBuffer();
}

export const colourPngOf = ({ width, height, data }: ColourPicture, dpi: number): Promise<Buffer> =>
  sharp(data, { raw: { width, height, channels: 3 } })
    .withMetadata({ density: dpi })
    .png({ compressionLevel: 6 })
    .toBuffer();

/** @param orientation Exif orientation to state, 1 to 8 */
export function jpegOf(picture: GreyPicture, dpi: number, orientation = 1): Promise<Buffer> {
  return raw(picture).withMetadata({ density: dpi, orientation }).jpeg({ quality: 92 }).toBuffer();
}

/**
 * A TIFF of grey pages, as a document scanner writes it.
 * Rests on: TIFF 6.0 (1992), baseline grey-scale, one strip a page, little-endian.
 */
export function tiffOf(pages: readonly GreyPicture[], dpi: number): Buffer {
  const parts: Buffer[] = [Buffer.from([0x49, 0x49, 42, 0, 0, 0, 0, 0])];
  let at = 8;
  let pointer = { part: parts[0] as Buffer, offset: 4 };
  for (const { width, height, data } of pages) {
    const tags: (readonly [tag: number, type: 3 | 4 | 5, value: number])[] = [
      [256, 4, width], [257, 4, height], [258, 3, 8], [259, 3, 1], [262, 3, 1], [273, 4, at + 8], [277, 3, 1], [278, 4, height],
      [279, 4, data.length], [282, 5, at], [283, 5, at], [296, 3, 2],
    ]; // biome-ignore format: the tags in order
    const resolution = Buffer.alloc(8);
    resolution.writeUInt32LE(dpi, 0);
    resolution.writeUInt32LE(1, 4);
    const directory = Buffer.alloc(2 + 12 * tags.length + 4);
    directory.writeUInt16LE(tags.length, 0);
    tags.forEach(([tag, type, value], k) => {
      const entry = 2 + 12 * k;
      directory.writeUInt16LE(tag, entry);
      directory.writeUInt16LE(type, entry + 2);
      directory.writeUInt32LE(1, entry + 4);
      directory.writeUInt32LE(value, entry + 8);
    });
    const pad = Buffer.alloc(data.length % 2);
    const directoryAt = at + 8 + data.length + pad.length;
    pointer.part.writeUInt32LE(directoryAt, pointer.offset);
    parts.push(resolution, Buffer.from(data), pad, directory);
    pointer = { part: directory, offset: directory.length - 4 };
    at = directoryAt + directory.length;
  }
  return Buffer.concat(parts);
}
