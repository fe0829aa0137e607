/**
 * In: a picture file of any kind that Nuvet takes. Out: what it says of itself, and its pixels, upright, in sRGB.
 * Rests on: sharp (libvips) for PNG, JPEG, WebP, GIF and TIFF; bmp-ts for BMP.
 */
import { open, readFile } from 'node:fs/promises';
import { headerBytes, isTrustworthy, readPictureHeader } from '@nuvet/core/formats';
import type { Picture } from '@nuvet/core/job';
import { decode as decodeBmp } from 'bmp-ts';
import sharp, { type Sharp } from 'sharp';

export const pictureKinds = ['png', 'jpeg', 'webp', 'gif', 'tiff', 'bmp'] as const;
export type PictureKind = (typeof pictureKinds)[number];
export const mostPixels = 100e6;

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
  const found = isBmp(start) ? bmpFile(start) : await sharpFile(file, start, name, page);
  if (page > 0 && page >= found.pages)
    throw new PictureError('no-such-page', `“${name}” has ${found.pages} pages; there is no page ${page + 1}.`);
  const { widthPx, heightPx } = found;
  if (widthPx * heightPx > mostPixels) {
    const megapixels = Math.round((widthPx * heightPx) / 1e6);
    throw new PictureError(
      'too-many-pixels',
      `“${name}” has ${widthPx} x ${heightPx} pixels, ${megapixels} megapixels. Nuvet takes up to 100: scan it at a lower resolution, or cut it in parts.`,
    );
  }
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

function bmpFile(start: Buffer): PictureFile {
  const dpi = start.readInt32LE(38) * 0.0254;
  return {
    kind: 'bmp',
    widthPx: Math.abs(start.readInt32LE(18)),
    heightPx: Math.abs(start.readInt32LE(22)),
    resolution: dpi > 0 ? { dpi: rounded(dpi), source: 'bmp', trusted: isTrustworthy(dpi) } : null,
    pages: 1,
  };
}

/** Whole numbers of dots per inch come back whole though they were kept as pixels per metre or centimetre. */
const rounded = (dpi: number): number => (Math.abs(dpi - Math.round(dpi)) < 0.02 ? Math.round(dpi) : dpi);

async function sharpFile(file: string, start: Buffer, name: string, page: number): Promise<PictureFile> {
  const header = readPictureHeader(start);
  const isTiff = start.length > 4 && /^(II\*\0|MM\0\*)/.test(start.toString('latin1', 0, 4));
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
  if (!all?.format || !pictureKinds.includes(all.format as PictureKind) || (!header && !isTiff && !['webp', 'gif'].includes(all.format)))
    throw refused();
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
  readonly channels: 3 | 4;
}

/**
 * All pixels, upright, in sRGB: three channels over white, or four.
 * @throws PictureError where the file is damaged
 */
export async function decodePicture(
  source: string | Buffer,
  kind: PictureKind,
  name: string,
  page: number,
  channels: 3 | 4,
): Promise<Decoded> {
  try {
    const opened =
      kind === 'bmp' ? await openedBmp(source) : sharp(source, { limitInputPixels: mostPixels, failOn: 'truncated', page }).rotate();
    const upright = opened.toColourspace('srgb');
    const wanted = channels === 3 ? upright.flatten({ background: '#ffffff' }).removeAlpha() : upright.ensureAlpha();
    const { data, info } = await wanted.raw({ depth: 'uchar' }).toBuffer({ resolveWithObject: true });
    return { data, width: info.width, height: info.height, channels };
  } catch {
    throw new PictureError('damaged', `“${name}” is damaged or was cut short: it ends before the picture does. Copy or scan it again.`);
  }
}

async function openedBmp(source: string | Buffer): Promise<Sharp> {
  const { data, width, height } = decodeBmp(typeof source === 'string' ? await readFile(source) : source, { toRGBA: true });
  // Four channels, of which the last is empty in files without one.
  for (let p = 3; p < data.length; p += 4) data[p] = 255;
  return sharp(data, { raw: { width, height: Math.abs(height), channels: 4 } });
}
