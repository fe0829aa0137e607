/**
 * In: grey pixels and their resolution. Out: a PNG file; and such a file read.
 * Rests on: Portable Network Graphics, W3C Recommendation 2003 (ISO/IEC 15948): chunks IHDR, pHYs, IDAT, IEND; filter type 0.
 */
import { unzlibSync, zlibSync } from 'fflate';

export interface GreyPixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

const signature = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

const crcTable = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c >>> 0;
});

function crc(bytes: Uint8Array): number {
  let c = 0xffffffff;
  for (const b of bytes) c = (crcTable[(c ^ b) & 0xff] as number) ^ (c >>> 8);
  return (c ^ 0xffffffff) >>> 0;
}

function chunk(kind: string, data: Uint8Array): Uint8Array {
  const bytes = new Uint8Array(12 + data.length);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, data.length);
  for (let k = 0; k < 4; k++) bytes[4 + k] = kind.charCodeAt(k);
  bytes.set(data, 8);
  view.setUint32(8 + data.length, crc(bytes.subarray(4, 8 + data.length)));
  return bytes;
}

/** @param pxPerMm pixels in a millimetre; the file says pixels in a metre, a whole number */
export function writePng({ width, height, data }: GreyPixels, pxPerMm: number): Uint8Array {
  const rows = new Uint8Array((width + 1) * height);
  for (let y = 0; y < height; y++) rows.set(data.subarray(y * width, (y + 1) * width), y * (width + 1) + 1);
  const head = new Uint8Array(13);
  const view = new DataView(head.buffer);
  view.setUint32(0, width);
  view.setUint32(4, height);
  head[8] = 8;
  const size = new Uint8Array(9);
  const sizes = new DataView(size.buffer);
  const perMetre = Math.round(pxPerMm * 1000);
  sizes.setUint32(0, perMetre);
  sizes.setUint32(4, perMetre);
  size[8] = 1;
  const parts = [
    Uint8Array.from(signature),
    chunk('IHDR', head),
    chunk('pHYs', size),
    chunk('IDAT', zlibSync(rows, { level: 6 })),
    chunk('IEND', new Uint8Array(0)),
  ];
  const bytes = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}

export class PngError extends Error {
  readonly code = 'bad-png';
}

/** Reads a grey PNG of eight bits without filters, as `writePng` makes it. @throws PngError at any other */
export function readGreyPng(bytes: Uint8Array): GreyPixels & { readonly pxPerMm: number } {
  if (!signature.every((b, k) => bytes[k] === b)) throw new PngError('This is no PNG file.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let [width, height, pxPerMm] = [0, 0, 0];
  const packed: number[][] = [];
  for (let at = 8; at + 12 <= bytes.length; ) {
    const length = view.getUint32(at);
    const kind = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (view.getUint32(at + 8 + length) !== crc(bytes.subarray(at + 4, at + 8 + length)))
      throw new PngError(`The part ${kind} of this file is damaged.`);
    if (kind === 'IHDR') [width, height] = [view.getUint32(at + 8), view.getUint32(at + 12)];
    if (kind === 'pHYs') pxPerMm = view.getUint32(at + 8) / 1000;
    if (kind === 'IDAT') packed.push([at + 8, at + 8 + length]);
    at += 12 + length;
  }
  const [only] = packed;
  if (!only || packed.length > 1) throw new PngError('This file is packed in another way.');
  const rows = unzlibSync(bytes.subarray(only[0], only[1]));
  if (rows.length !== (width + 1) * height) throw new PngError('This file has other pixels than eight bits of grey.');
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    if (rows[y * (width + 1)] !== 0) throw new PngError('The rows of this file are filtered.');
    data.set(rows.subarray(y * (width + 1) + 1, (y + 1) * (width + 1)), y * width);
  }
  return { width, height, data, pxPerMm };
}
