/**
 * In: the first bytes of a picture file. Out: what kind it is, its size, its resolution and how it must be turned.
 * Rests on: PNG (ISO/IEC 15948): IHDR, pHYs; JPEG (ITU-T T.81): frame header; JFIF (ITU-T T.871): density;
 * Exif 2.3 (JEITA CP-3451C): XResolution, ResolutionUnit, Orientation.
 */
const mmPerInch = 25.4;

export interface PictureHeader {
  readonly kind: 'png' | 'jpeg';
  /** As stored, before it is turned upright. */
  readonly widthPx: number;
  readonly heightPx: number;
  /** Exif orientation, 1 to 8; 5 to 8 exchange width and height. */
  readonly orientation: number;
  readonly resolution: { readonly dpi: number; readonly source: 'png' | 'jfif' | 'exif' } | null;
}

/** How many bytes of a file are enough for its header. */
export const headerBytes = 1 << 20;

/** Reads a PNG's or JPEG's header; null where the bytes are neither, or end too early. */
export function readPictureHeader(bytes: Uint8Array): PictureHeader | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  try {
    if (view.getUint32(0) === 0x89504e47 && view.getUint32(4) === 0x0d0a1a0a) return readPng(view);
    if (view.getUint16(0) === 0xffd8) return readJpeg(view);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
  }
  return null;
}

const tagOf = (text: string): number => [...text].reduce((n, c) => n * 256 + c.charCodeAt(0), 0);

function readPng(view: DataView): PictureHeader | null {
  if (view.getUint32(12) !== tagOf('IHDR')) return null;
  const [widthPx, heightPx] = [view.getUint32(16), view.getUint32(20)];
  let resolution: PictureHeader['resolution'] = null;
  for (let at = 33; at + 12 <= view.byteLength; at += 12 + view.getUint32(at)) {
    const kind = view.getUint32(at + 4);
    if (kind === tagOf('IDAT') || kind === tagOf('IEND')) break;
    // Pixels per metre; other units only tell the pixel's proportions.
    if (kind === tagOf('pHYs') && view.getUint8(at + 16) === 1) {
      resolution = stated((view.getUint32(at + 8) * mmPerInch) / 1000, 'png');
    }
  }
  return { kind: 'png', widthPx, heightPx, orientation: 1, resolution };
}

/** Resolutions that programs write when they know nothing; and none is coarser than this, as 1 would be. */
const defaults = [72, 96];
const minDpi = 30;

/** Whether a stated resolution may be true: not one of the numbers that are written for want of a better one. */
export const isTrustworthy = (dpi: number): boolean => dpi >= minDpi && !defaults.some((d) => Math.abs(dpi - d) < 0.5);

/** Whole numbers of dots per inch come back whole though pHYs rounds to pixels per metre. */
function stated(dpi: number, source: 'png' | 'jfif' | 'exif'): PictureHeader['resolution'] {
  if (!(dpi > 0 && dpi < 1e5)) return null;
  const whole = Math.round(dpi);
  return { dpi: Math.abs(dpi - whole) < 0.02 ? whole : dpi, source };
}

function readJpeg(view: DataView): PictureHeader | null {
  let resolution: PictureHeader['resolution'] = null;
  let orientation = 1;
  for (let at = 2; ; ) {
    if (view.getUint8(at) !== 0xff) return null;
    const marker = view.getUint8(at + 1);
    if (marker === 0xff) {
      at++;
      continue;
    }
    const size = view.getUint16(at + 2);
    const body = at + 4;
    const isFrame = marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc;
    if (isFrame) return { kind: 'jpeg', heightPx: view.getUint16(body + 1), widthPx: view.getUint16(body + 3), orientation, resolution };
    if (marker === 0xda || marker === 0xd9) return null;
    if (marker === 0xe0 && view.getUint32(body) === tagOf('JFIF')) {
      const unit = view.getUint8(body + 7);
      const density = view.getUint16(body + 8);
      if (unit === 1) resolution ??= stated(density, 'jfif');
      if (unit === 2) resolution ??= stated(density * 2.54, 'jfif');
    }
    if (marker === 0xe1 && view.getUint32(body) === tagOf('Exif')) {
      const exif = readExif(new DataView(view.buffer, view.byteOffset + body + 6, size - 8));
      orientation = exif.orientation;
      resolution = exif.resolution ?? resolution;
    }
    at += 2 + size;
  }
}

function readExif(view: DataView): Pick<PictureHeader, 'orientation' | 'resolution'> {
  const little = view.getUint16(0) === 0x4949;
  const directory = view.getUint32(4, little);
  let [orientation, dots, unit] = [1, 0, 2];
  for (let k = 0; k < view.getUint16(directory, little); k++) {
    const entry = directory + 2 + 12 * k;
    const tag = view.getUint16(entry, little);
    if (tag === 0x0112) orientation = view.getUint16(entry + 8, little);
    if (tag === 0x0128) unit = view.getUint16(entry + 8, little);
    if (tag === 0x011a) {
      const value = view.getUint32(entry + 8, little);
      dots = view.getUint32(value, little) / view.getUint32(value + 4, little);
    }
  }
  if (!(orientation >= 1 && orientation <= 8)) orientation = 1;
  const perInch = unit === 3 ? dots * 2.54 : unit === 2 ? dots : 0;
  return { orientation, resolution: stated(perInch, 'exif') };
}
