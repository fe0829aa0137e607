/** Picture files of every kind, written by libvips (through sharp) or laid out by their standards. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { tiffPages } from '@nuvet/core/formats';
import { greyPicture } from '@nuvet/core/raster';
import { decodePicture, readPictureFile } from '@nuvet/pictures';
import { tiffOf } from '@nuvet/truth';
import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-pictures-'));
afterAll(() => rmSync(folder, { recursive: true }));
const keep = (name: string, bytes: Uint8Array): string => {
  writeFileSync(join(folder, name), bytes);
  return join(folder, name);
};

/** 40 x 30, dark but for a light upper left corner, so that a turn shows. */
const pixels = Buffer.alloc(3 * 40 * 30, 40);
for (let y = 0; y < 8; y++) pixels.fill(220, 3 * 40 * y, 3 * (40 * y + 10));
const raw = () => sharp(pixels, { raw: { width: 40, height: 30, channels: 3 } });

/** A BMP of 24 bits, rows from the bottom, 300 dpi (BITMAPINFOHEADER). */
function bmp(): Buffer {
  const bytes = Buffer.alloc(54 + 120 * 30);
  bytes.write('BM', 0, 'latin1');
  bytes.writeUInt32LE(bytes.length, 2);
  bytes.writeUInt32LE(54, 10);
  bytes.writeUInt32LE(40, 14);
  bytes.writeInt32LE(40, 18);
  bytes.writeInt32LE(30, 22);
  bytes.writeUInt16LE(1, 26);
  bytes.writeUInt16LE(24, 28);
  bytes.writeInt32LE(11811, 38);
  bytes.writeInt32LE(11811, 42);
  for (let y = 0; y < 30; y++) pixels.copy(bytes, 54 + 120 * (29 - y), 120 * y, 120 * (y + 1));
  return bytes;
}

describe('a picture file', () => {
  it.each([
    ['png', () => raw().withMetadata({ density: 300 }).png().toBuffer(), { dpi: 300, source: 'png', trusted: true }],
    ['jpeg', () => raw().withMetadata({ density: 72 }).jpeg().toBuffer(), { dpi: 72, source: 'exif', trusted: false }],
    ['webp', () => raw().webp({ lossless: true }).toBuffer(), null],
    ['gif', () => raw().gif().toBuffer(), null],
    [
      'tiff',
      () => raw().withMetadata({ density: 400 }).tiff({ compression: 'lzw' }).toBuffer(),
      { dpi: 400, source: 'tiff', trusted: true },
    ],
    ['bmp', async () => bmp(), { dpi: 300, source: 'bmp', trusted: true }],
  ] as const)('of kind %s gives its size, its resolution and its pixels', async (kind, bytes, resolution) => {
    const file = keep(`plain.${kind}`, await bytes());
    const read = await readPictureFile(file, 'plain');
    expect(read).toMatchObject({ kind, widthPx: 40, heightPx: 30, pages: 1 });
    if (resolution) expect(read.resolution).toEqual(resolution);
    else expect(read.resolution?.trusted ?? false).toBe(false);
    const { data, width, height } = await decodePicture(file, kind, 'plain', 0, 3);
    expect([width, height]).toEqual([40, 30]);
    expect(data[3 * (2 * 40 + 3)]).toBeGreaterThan(180);
    expect(data[3 * (25 * 40 + 30)]).toBeLessThan(70);
  });

  it.each(['jpeg', 'webp', 'tiff'] as const)('of kind %s is turned upright by its orientation 6', async (kind) => {
    const turned = raw().withMetadata({ orientation: 6 });
    const file = keep(
      `side.${kind}`,
      await (kind === 'jpeg' ? turned.jpeg() : kind === 'webp' ? turned.webp({ lossless: true }) : turned.tiff()).toBuffer(),
    );
    expect(await readPictureFile(file, 'side')).toMatchObject({ widthPx: 30, heightPx: 40 });
    const { data, width, height } = await decodePicture(file, kind, 'side', 0, 3);
    expect([width, height]).toEqual([30, 40]);
    // The light corner stands at the upper right now.
    expect(data[3 * (3 * 30 + 27)]).toBeGreaterThan(180);
    expect(data[3 * (3 * 30 + 3)]).toBeLessThan(90);
  });

  it('a TIFF of several pages: listed without reading them, each decoded by its number', async () => {
    const pages = [20, 31, 44].map((width) => greyPicture(new Uint8Array(width * 9).fill(width), width, 9));
    const bytes = tiffOf(pages, 200);
    expect(tiffPages(bytes)?.map((p) => p.widthPx)).toEqual([20, 31, 44]);
    const file = keep('pages.tiff', bytes);
    expect((await sharp(file).metadata()).pages).toBe(3);
    expect(await readPictureFile(file, 'pages', 2)).toMatchObject({ widthPx: 44, heightPx: 9, pages: 3, resolution: { dpi: 200 } });
    const { data } = await decodePicture(file, 'tiff', 'pages', 1, 3);
    expect(data[0]).toBe(31);
    await expect(readPictureFile(file, 'pages', 3)).rejects.toMatchObject({ code: 'no-such-page' });
    expect(tiffPages(bytes.subarray(0, 60))).toBeNull();
    expect(tiffPages(Buffer.from('II but no more'))).toBeNull();
  });

  it('that is none, or cut short, is refused', async () => {
    await expect(readPictureFile(keep('x.png', Buffer.from('<svg/>')), 'x')).rejects.toMatchObject({ code: 'no-picture' });
    const short = keep('short.webp', (await raw().resize(400).webp().toBuffer()).subarray(0, 300));
    await expect(readPictureFile(short, 'short').then((f) => decodePicture(short, f.kind, 'short', 0, 3))).rejects.toMatchObject({
      name: 'Error',
    });
  });
});
