/**
 * In: a picture file of any kind that Nuvet takes. Out: what it says of itself, and its pixels, upright, in sRGB.
 * Rests on: sharp (libvips) for PNG, JPEG, WebP, GIF and TIFF; bmp-ts for BMP.
 */
import { open, readFile, stat } from 'node:fs/promises';
import { headerBytes, isTrustworthy, readPictureHeader } from '@nuvet/core/formats';
import type { Picture } from '@nuvet/core/job';
import { decode as decodeBmp } from 'bmp-ts';
import sharp, { type Sharp } from 'sharp';

export const pictureKinds = ['png', 'jpeg', 'webp', 'gif', 'tiff', 'bmp'] as const;
export type PictureKind = (typeof pictureKinds)[number];
export const maxPixels = 100e6;
const longestSide = 100_000;

export interface PictureFile {
  readonly kind: PictureKind;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly resolution: Picture['resolution'];
  /** How many pages it has; 1 for all but TIFF. */
  readonly pages: number;
}

export class PictureError extends Error {
  constructor(
    readonly code: 'no-picture' | 'too-many-pixels' | 'empty' | 'damaged' | 'no-such-page',
    message: string,
  ) {
    super(message);
  }
}

/**
 * Reads what a file says of itself, without its pixels.
 * @param page of a TIFF, from 0
 * @throws PictureError where it is none of these kinds, too large, empty, or has no such page
 */
export async function readPictureFile(file: string, name: string, page = 0): Promise<PictureFile> {
  const start = await startOf(file);
  const found = isBmp(start) ? bmpFile(start, (await stat(file)).size, name) : await sharpFile(file, start, name, page);
  if (page > 0 && page >= found.pages)
    throw new PictureError('no-such-page', `“${name}” has ${found.pages} pages; there is no page ${page + 1}.`);
  const { widthPx, heightPx } = found;
  if (widthPx * heightPx > maxPixels) {
    const megapixels = Math.round((widthPx * heightPx) / 1e6);
    throw new PictureError(
      'too-many-pixels',
      `“${name}” has ${widthPx} x ${heightPx} pixels, ${megapixels} megapixels. Nuvet takes up to 100: scan it at a lower resolution, or cut it in parts.`,
    );
  }
  if (Math.max(widthPx, heightPx) > longestSide)
    throw new PictureError(
      'too-many-pixels',
      `“${name}” has ${widthPx} x ${heightPx} pixels. Nuvet takes pictures of up to ${longestSide} pixels a side.`,
    );
  if (widthPx < 2 || heightPx < 2) throw new PictureError('empty', `“${name}” has no pixels to speak of (${widthPx} x ${heightPx}).`);
  return found;
}

async function startOf(file: string): Promise<Buffer> {
  const handle = await open(file);
  const start = Buffer.alloc(headerBytes);
  const { bytesRead } = await handle.read(start, 0, headerBytes, 0).finally(() => handle.close());
  return start.subarray(0, bytesRead);
}

const isBmp = (start: Buffer): boolean => start.length >= 54 && start.toString('latin1', 0, 2) === 'BM' && start.readUInt32LE(14) >= 40;

/** @throws PictureError where the file is shorter than the pixels that it states */
function bmpFile(start: Buffer, byteLength: number, name: string): PictureFile {
  const [width, height] = [Math.abs(start.readInt32LE(18)), Math.abs(start.readInt32LE(22))];
  if (byteLength < minBmpBytes(start, width, height)) throw damaged(name);
  const dpi = start.readInt32LE(38) * 0.0254;
  return {
    kind: 'bmp',
    widthPx: width,
    heightPx: height,
    resolution: dpi > 0 ? { dpi: rounded(dpi), source: 'bmp', trusted: isTrustworthy(dpi) } : null,
    pages: 1,
  };
}

/** Pixels that a byte of run-length encoding stands for at most, give or take what jumps leave out. */
const maxPixelsAByte = 128;

/** How long a file of so many pixels must be at least. */
function minBmpBytes(start: Buffer, width: number, height: number): number {
  const [offset, bits, compression] = [start.readUInt32LE(10), start.readUInt16LE(28), start.readUInt32LE(30)];
  const isRunLength = compression === 1 || compression === 2;
  if (isRunLength) return (width * height) / maxPixelsAByte;
  return offset + 4 * Math.ceil((width * bits) / 32) * height;
}

const damaged = (name: string): PictureError =>
  new PictureError('damaged', `“${name}” is damaged or was cut short: it ends before the picture does. Copy or scan it again.`);

/** Whole numbers of dots per inch come back whole though they were kept as pixels per metre or centimetre. */
const rounded = (dpi: number): number => (Math.abs(dpi - Math.round(dpi)) < 0.02 ? Math.round(dpi) : dpi);

async function sharpFile(file: string, start: Buffer, name: string, page: number): Promise<PictureFile> {
  const header = readPictureHeader(start);
  const refused = () =>
    new PictureError(
      'no-picture',
      `“${name}” is not a picture that Nuvet can read. It takes PNG, JPEG, WebP, GIF, TIFF, BMP and PDF; SVG and DXF as outlines.`,
    );
  const all = await sharp(file, { limitInputPixels: false })
    .metadata()
    .catch(() => null);
  if (!all && header) {
    // The header reads, the rest does not: the size tells at least whether it is too large.
    return { kind: header.kind, widthPx: header.widthPx, heightPx: header.heightPx, resolution: null, pages: 1 };
  }
  if (!all?.format || !pictureKinds.includes(all.format as PictureKind)) throw refused();
  const kind = all.format as PictureKind;
  const pages = kind === 'tiff' ? (all.pages ?? 1) : 1;
  if (page >= pages && page > 0) return { kind, widthPx: 2, heightPx: 2, resolution: null, pages };
  const own = page === 0 ? all : await sharp(file, { page, limitInputPixels: false }).metadata();
  const upright = own.autoOrient;
  return {
    kind,
    widthPx: upright.width,
    heightPx: upright.height,
    resolution: header ? fromHeader(header.resolution) : fromDensity(kind, own.density),
    pages,
  };
}

const fromHeader = (resolution: { dpi: number; source: 'png' | 'jfif' | 'exif' } | null): Picture['resolution'] =>
  resolution && { ...resolution, trusted: isTrustworthy(resolution.dpi) };

const fromDensity = (kind: PictureKind, density: number | undefined): Picture['resolution'] =>
  density && density > 0 && (kind === 'tiff' || kind === 'webp')
    ? { dpi: rounded(density), source: kind, trusted: isTrustworthy(density) }
    : null;

export interface Decoded {
  readonly data: Buffer;
  readonly width: number;
  readonly height: number;
  readonly channels: 1 | 3 | 4;
}

/**
 * All pixels, upright, in sRGB: three channels over white, or four. A picture that has grey alone may come as one channel where that
 * is welcome.
 * @throws PictureError where the file is damaged
 */
export async function decodePicture(
  source: string | Buffer,
  kind: PictureKind,
  name: string,
  page: number,
  channels: 3 | 4,
  isGreyWelcome = false,
): Promise<Decoded> {
  try {
    const opened =
      kind === 'bmp' ? await openedBmp(source) : sharp(source, { limitInputPixels: maxPixels, failOn: 'truncated', page }).rotate();
    if (isGreyWelcome && kind !== 'bmp' && (await isPlainGrey(opened))) {
      const { data, info } = await opened
        .toColourspace('b-w')
        .extractChannel(0)
        .raw({ depth: 'uchar' })
        .toBuffer({ resolveWithObject: true });
      return { data, width: info.width, height: info.height, channels: 1 };
    }
    const upright = opened.toColourspace('srgb');
    const wanted = channels === 3 ? upright.flatten({ background: '#ffffff' }).removeAlpha() : upright.ensureAlpha();
    const { data, info } = await wanted.raw({ depth: 'uchar' }).toBuffer({ resolveWithObject: true });
    return { data, width: info.width, height: info.height, channels };
  } catch {
    throw damaged(name);
  }
}

/** Whether a picture has one channel of eight bits or fewer, and so nothing that turning it into colour would keep. */
async function isPlainGrey(opened: Sharp): Promise<boolean> {
  const { channels, space, depth } = await opened.metadata();
  return channels === 1 && space === 'b-w' && depth === 'uchar';
}

async function openedBmp(source: string | Buffer): Promise<Sharp> {
  const { data, width, height } = decodeBmp(typeof source === 'string' ? await readFile(source) : source, { toRGBA: true });
  // Four channels, of which the last is empty in files without one.
  for (let p = 3; p < data.length; p += 4) data[p] = 255;
  return sharp(data, { raw: { width, height: Math.abs(height), channels: 4 } });
}
