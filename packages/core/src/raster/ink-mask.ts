/**
 * In: a grey picture and a level. Out: what of it is ink, a bit a pixel; the ink counted and listed.
 */
import { evenUpTo, highBits, lightBitsAt, wordsOf } from './four-pixels.ts';
import type { GreyPicture } from './grey.ts';

/**
 * A bit a pixel, 1 where there is ink, pixel p in word p >> 5 at bit p & 31; rows are whole words, and the outermost
 * ring of pixels is 0.
 */
export interface Mask {
  /** Pixels from one row to the next, a multiple of 32. */
  readonly width: number;
  readonly height: number;
  readonly words: Int32Array;
}

export const isInk = ({ words }: Mask, p: number): boolean => (((words[p >> 5] as number) >>> (p & 31)) & 1) === 1;

/** The eight neighbours' offsets from the right one on, counter-clockwise. */
export const aroundIn = (width: number): readonly number[] => [1, 1 - width, -width, -width - 1, -1, width - 1, width, width + 1];

/** A mask of this size within its border, without ink. */
export function blankMask(width: number, height: number): Mask {
  const wordsARow = (width + 2 + 31) >> 5;
  return { width: 32 * wordsARow, height: height + 2, words: new Int32Array(wordsARow * (height + 2)) };
}

/** What of a picture is darker than a level, moved right and down by one pixel. */
export function inkMask(picture: GreyPicture, level: number): Mask {
  const { width, height, data } = picture;
  const mask = blankMask(width, height);
  const { words } = mask;
  const fours = wordsOf(data);
  const lightBits = lightBitsAt(level);
  const set = (q: number, bits: number): void => {
    const [word, bit] = [q >> 5, q & 31];
    words[word] = (words[word] as number) | (bits << bit);
    if (bit > 28) words[word + 1] = (words[word + 1] as number) | (bits >>> (32 - bit));
  };
  for (let y = 0; y < height; y++) {
    const [start, end] = [y * width, (y + 1) * width];
    const home = (y + 1) * mask.width + 1 - start;
    for (let p = start; p < end; ) {
      if (!fours || (p & 3) !== 0 || p + 4 > end) {
        if ((data[p] as number) < level) set(home + p, 1);
        p++;
        continue;
      }
      p = 4 * evenUpTo(fours, level, p >> 2, end >> 2, false);
      if (p + 4 > end) continue;
      const dark = ~lightBits(fours[p >> 2] as number) & highBits;
      // The four high bits side by side.
      set(home + p, Math.imul(dark >>> 7, 0x10204080) >>> 28);
      p += 4;
    }
  }
  return mask;
}

/** How many pixels are ink. */
export function inkCount({ words }: Mask): number {
  let count = 0;
  for (let k = 0; k < words.length; k++) {
    let v = words[k] as number;
    if (v === 0) continue;
    v -= (v >>> 1) & 0x55555555;
    v = (v & 0x33333333) + ((v >>> 2) & 0x33333333);
    count += Math.imul((v + (v >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
  }
  return count;
}

/** The pixels that are ink, from the top left on. */
export function inkOf({ words }: Mask): number[] {
  const found: number[] = [];
  for (let k = 0; k < words.length; k++) {
    for (let rest = words[k] as number; rest !== 0; rest &= rest - 1) found.push(32 * k + 31 - Math.clz32(rest & -rest));
  }
  return found;
}
