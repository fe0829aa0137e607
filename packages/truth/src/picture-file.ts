/**
 * In: a grey picture. Out: the bytes of a PNG or JPEG file that states its resolution.
 */
import type { GreyPicture } from '@nuvet/core/raster';
import sharp from 'sharp';

const raw = ({ width, height, data }: GreyPicture) => sharp(data, { raw: { width, height, channels: 1 } });

export function pngOf(picture: GreyPicture, dpi: number | null): Promise<Buffer> {
  const image = raw(picture).toColourspace('b-w');
  return (dpi ? image.withMetadata({ density: dpi }) : image).png({ compressionLevel: 6 }).toBuffer();
}

/** @param orientation Exif orientation to state, 1 to 8 */
export function jpegOf(picture: GreyPicture, dpi: number, orientation = 1): Promise<Buffer> {
  return raw(picture).withMetadata({ density: dpi, orientation }).jpeg({ quality: 92 }).toBuffer();
}
