/**
 * In: a picture's pixels. Out: its tiles at every level, each level half the one below, down to a single tile.
 * A tile reaches one pixel over its neighbours to the right and below, so that no seam shows when it is drawn turned.
 */
import type { Decoded } from '@nuvet/pictures';
import sharp from 'sharp';
import { levelSize, levelsOf, tileSize } from '../shared/pyramid.ts';

export interface Tile {
  readonly level: number;
  readonly tileColumn: number;
  readonly tileRow: number;
  /** JPEG, no colour thinned out. */
  readonly bytes: Buffer;
}

/** The tiles, a row of them at a time. */
export async function* tileRowsOf(picture: Decoded): AsyncGenerator<Tile[]> {
  let level = picture;
  for (let number = 0; number < levelsOf(picture.width, picture.height); number++) {
    if (number > 0) level = await halved(level, levelSize(picture.width, picture.height, number));
    for (let tileRow = 0; tileRow * tileSize < level.height; tileRow++) {
      const columns = Array.from({ length: Math.ceil(level.width / tileSize) }, (_, column) => column);
      yield await Promise.all(
        columns.map(async (tileColumn) => ({
          level: number,
          tileColumn,
          tileRow,
          bytes: await encoded(level, tileColumn * tileSize, tileRow * tileSize),
        })),
      );
    }
  }
}

async function halved({ data, width, height, channels }: Decoded, size: { width: number; height: number }): Promise<Decoded> {
  const smaller = sharp(data, { raw: { width, height, channels }, limitInputPixels: false }).resize(size.width, size.height, {
    fit: 'fill',
    kernel: 'mitchell',
  });
  return { data: await smaller.raw().toBuffer(), ...size, channels };
}

/** One tile, cut out row by row: handing the whole level to the encoder for each would copy it every time. */
function encoded({ data, width, height, channels }: Decoded, left: number, top: number): Promise<Buffer> {
  const [w, h] = [Math.min(tileSize + 1, width - left), Math.min(tileSize + 1, height - top)];
  const cut = Buffer.allocUnsafe(w * h * channels);
  for (let y = 0; y < h; y++) {
    const from = ((top + y) * width + left) * channels;
    data.copy(cut, y * w * channels, from, from + w * channels);
  }
  return sharp(cut, { raw: { width: w, height: h, channels } })
    .jpeg({ quality: 92, chromaSubsampling: '4:4:4' })
    .toBuffer();
}
