/** Picture headers, of files that libvips wrote (through sharp) and of bytes laid out by the standards. */
import { isTrustworthy, readPictureHeader } from '@nuvet/core/formats';
import { greyPicture } from '@nuvet/core/raster';
import { jpegOf, pngOf } from '@nuvet/truth';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';

const grey = greyPicture(new Uint8Array(40 * 30).fill(200), 40, 30);

describe('a picture header', () => {
  it.each([72, 150, 300, 600, 1200])('of a PNG gives size and %d dpi, whole again after pixels per metre', async (dpi) => {
    expect(readPictureHeader(await pngOf(grey, dpi))).toEqual({
      kind: 'png',
      widthPx: 40,
      heightPx: 30,
      orientation: 1,
      resolution: { dpi, source: 'png' },
    });
  });
  it('of a JPEG gives density and orientation', async () => {
    const header = readPictureHeader(await jpegOf(grey, 300, 6));
    expect(header).toMatchObject({ kind: 'jpeg', widthPx: 40, heightPx: 30, orientation: 6, resolution: { dpi: 300 } });
  });
  it('of a plain JFIF in dots per centimetre gives dots per inch (ITU-T T.871: unit 2)', () => {
    const jfif = [0xff, 0xd8, 0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, 0, 1, 2, 2, 0, 100, 0, 100, 0, 0];
    const frame = [0xff, 0xc0, 0, 11, 8, 0, 30, 0, 40, 1, 1, 0x11, 0];
    expect(readPictureHeader(Uint8Array.from([...jfif, ...frame]))).toMatchObject({
      widthPx: 40,
      heightPx: 30,
      resolution: { dpi: 254, source: 'jfif' },
    });
  });
  it('tells densities that programs write when they know nothing: one pixel a millimetre, 72, 96 (common practice)', async () => {
    const written = readPictureHeader(await pngOf(grey, null))?.resolution?.dpi ?? 300;
    for (const dpi of [written, 1, 72, 96]) expect(isTrustworthy(dpi)).toBe(false);
    for (const dpi of [75, 100, 150, 300, 1200]) expect(isTrustworthy(dpi)).toBe(true);
  });
  it('is found in a progressive JPEG too', async () => {
    const bytes = await sharp(Buffer.from(grey.data), { raw: { width: 40, height: 30, channels: 1 } })
      .jpeg({ progressive: true })
      .toBuffer();
    expect(readPictureHeader(bytes)).toMatchObject({ kind: 'jpeg', widthPx: 40, heightPx: 30 });
  });
  it('of anything else, or cut short, is none', async () => {
    const png = await pngOf(grey, 300);
    for (const bytes of [Buffer.from('GIF89a and more'), Buffer.alloc(0), png.subarray(0, 20), Buffer.from([0xff, 0xd8, 0xff])]) {
      expect(readPictureHeader(bytes)).toBeNull();
    }
  });
});
