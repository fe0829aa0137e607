'use client';
/**
 * In: a picture file. Out: a small JPEG of it, as it lies on the shelf.
 */

/** More would not be seen in a swatch, pixels. */
const maxSidePx = 320;
const quality = 0.82;

export interface SmallPhoto {
  readonly jpegBase64: string;
  /** Height over width. */
  readonly aspect: number;
}

/** @throws where the file is no picture that the browser can show */
export async function smallPhoto(file: Blob): Promise<SmallPhoto> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, maxSidePx / Math.max(picture.width, picture.height));
  const canvas = new OffscreenCanvas(Math.max(1, Math.round(picture.width * scale)), Math.max(1, Math.round(picture.height * scale)));
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const aspect = picture.height / picture.width;
  picture.close();
  const jpeg = await canvas.convertToBlob({ type: 'image/jpeg', quality });
  const bytes = new Uint8Array(await jpeg.arrayBuffer());
  let binary = '';
  for (const byte of bytes) binary += String.fromCharCode(byte);
  return { jpegBase64: btoa(binary), aspect };
}
