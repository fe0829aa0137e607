/**
 * In: RGBA or grey bytes. Out: a grey picture, one byte a pixel, 0 black to 255 white, rows from the top.
 * Rests on: luma weights of ITU-R BT.709; transparency is laid over white paper.
 */
export interface GreyPicture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

/** Grey from bytes in the order red, green, blue, alpha. Refuses a length that is not width x height x 4. */
export function greyFromRgba(rgba: Uint8Array | Uint8ClampedArray, width: number, height: number): GreyPicture {
  const count = width * height;
  if (rgba.length !== count * 4) throw new RangeError(`${rgba.length} bytes are not ${width} x ${height} RGBA pixels`);
  const data = new Uint8Array(count);
  for (let p = 0, q = 0; p < count; p++, q += 4) {
    const alpha = rgba[q + 3] as number;
    // Weights in 1/65536, rounded so that equal channels give themselves.
    const luma = 13933 * (rgba[q] as number) + 46871 * (rgba[q + 1] as number) + 4732 * (rgba[q + 2] as number);
    const grey = (luma + 32768) >>> 16;
    data[p] = alpha === 255 ? grey : Math.round((grey * alpha + 255 * (255 - alpha)) / 255);
  }
  return { width, height, data };
}

/** A grey picture over bytes that are grey already. Refuses a length that is not width x height. */
export function greyPicture(data: Uint8Array, width: number, height: number): GreyPicture {
  if (data.length !== width * height) throw new RangeError(`${data.length} bytes are not ${width} x ${height} pixels`);
  return { width, height, data };
}

/** Grey from red, green and blue, and whether the picture has no other colours. */
export function greyFromRgb(rgb: Uint8Array, width: number, height: number): { grey: Uint8Array; isGrey: boolean } {
  const count = width * height;
  if (rgb.length !== count * 3) throw new RangeError(`${rgb.length} bytes are not ${width} x ${height} RGB pixels`);
  const grey = new Uint8Array(count);
  let differing = 0;
  for (let p = 0, q = 0; p < count; p++, q += 3) {
    const r = rgb[q] as number;
    const g = rgb[q + 1] as number;
    const b = rgb[q + 2] as number;
    differing |= (r ^ g) | (g ^ b);
    grey[p] = (13933 * r + 46871 * g + 4732 * b + 32768) >>> 16;
  }
  return { grey, isGrey: differing === 0 };
}
