/**
 * In: a level between two greys. Out: which of four pixels, read as one 32-bit number, are at least as light.
 * Rests on: comparing the bytes of a word at once (Warren 2013, "Hacker's Delight", 6-1), in whole 32-bit numbers.
 */

/** The highest bit of each of four bytes. */
export const highBits = 0x80808080 | 0;

/** Picture data as words of four pixels, the first of them in the lowest byte; null where it does not begin evenly. */
export const wordsOf = (data: Uint8Array): Int32Array | null =>
  data.byteOffset % 4 === 0 ? new Int32Array(data.buffer, data.byteOffset, data.length >> 2) : null;

/** A function that gives the high bit of every byte of a word that is at least the level, 1 to 255. */
export function lightBitsAt(level: number): (word: number) => number {
  const least = Math.ceil(level);
  const isHigh = least > 128;
  const lift = ((isHigh ? 0x100 - least : 0x80 - least) * 0x01010101) | 0;
  return (word) => {
    const sum = ((word & 0x7f7f7f7f) + lift) | 0;
    return (isHigh ? word & sum : word | sum) & highBits;
  };
}
