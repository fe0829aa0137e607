/**
 * In: a picture's pixels. Out: its tiles at every level, each level half the one below, down to a single tile.
 * A tile reaches one pixel over its neighbours to the right and below, so that no seam shows when it is drawn turned.
 */
import sharp from 'sharp';
import { levelSize, levelsOf, tileSize } from '../table/pyramid.ts';
import type { Decoded } from './pictures.ts';

export interface Tile {
  readonly level: number;
  readonly tileColumn: number;
  readonly tileRow: number;
  /** JPEG, no colour thinned out. */
  readonly bytes: Buffer;
}

export async function* tilesOf(picture: Decoded): AsyncGenerator<Tile> {
  let { data, width, height } = picture;
  const { channels } = picture;
  for (let level = 0; level < levelsOf(picture.width, picture.height); level++) {
    if (level > 0) {
      const size = levelSize(picture.width, picture.height, level);
      data = await sharp(data, { raw: { width, height, channels }, limitInputPixels: false })
        .resize(size.width, size.height, { fit: 'fill', kernel: 'mitchell' })
        .raw()
        .toBuffer();
      ({ width, height } = size);
    }
    const whole = sharp(data, { raw: { width, height, channels }, limitInputPixels: false });
    for (let tileRow = 0; tileRow * tileSize < height; tileRow++) {
      for (let tileColumn = 0; tileColumn * tileSize < width; tileColumn++) {
        const [left, top] = [tileColumn * tileSize, tileRow * tileSize];
        const area = { left, top, width: Math.min(tileSize + 1, width - left), height: Math.min(tileSize + 1, height - top) };
        yield {
          level,
          tileColumn,
          tileRow,
          bytes: await whole.clone().extract(area).jpeg({ quality: 92, chromaSubsampling: '4:4:4' }).toBuffer(),
        };
      }
    }
  }
}
