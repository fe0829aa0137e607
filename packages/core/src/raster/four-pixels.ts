/**
 * In: a level between two greys. Out: which of four pixels, read as one 32-bit number, are at least as light, and how far
 * pixels stay on one side of it.
 * Rests on: comparing the bytes of a word at once (Warren 2013, "Hacker's Delight", 6-1), in whole 32-bit numbers.
 */

/** The highest bit of each of four bytes. */
export const highBits = 0x80808080 | 0;

/** Picture data as words of four pixels, the first of them in the lowest byte; null where it does not begin evenly. */
export const wordsOf = (data: Uint8Array): Int32Array | null =>
  data.byteOffset % 4 === 0 ? new Int32Array(data.buffer, data.byteOffset, data.length >> 2) : null;

/** What a comparison of four bytes with a level adds to each. */
const liftTo = (min: number): number => ((min > 128 ? 0x100 - min : 0x80 - min) * 0x01010101) | 0;
/** Whether a byte's own high bit is enough (-1), or that of the sum is needed as well (0). */
const ownTo = (min: number): number => (min > 128 ? 0 : -1);

/** The high bit of every byte of a word that is at least the level that `lift` and `own` stand for, among others. */
const reached = (word: number, lift: number, own: number): number => {
  const sum = (word & 0x7f7f7f7f) + lift;
  return (word & sum) | (own & (word | sum));
};

/** A function that gives the high bit of every byte of a word that is at least the level, 1 to 255. */
export function lightBitsAt(level: number): (word: number) => number {
  const min = Math.ceil(level);
  const [lift, own] = [liftTo(min), ownTo(min)];
  return (word) => reached(word, lift, own) & highBits;
}

/**
 * How far words from `from` up to `end` hold nothing but pixels that are dark, or light: the next word that holds others.
 * A byte is darker than a level where what it lacks of 255 is at least what the level lacks of 256.
 */
export function evenUpTo(words: Int32Array, level: number, from: number, end: number, isDark: boolean): number {
  const min = isDark ? 0x100 - Math.ceil(level) : Math.ceil(level);
  const flip = isDark ? -1 : 0;
  const [lift, own] = [liftTo(min), ownTo(min)];
  let w = from;
  // Four words at a time.
  for (; w + 3 < end; w += 4) {
    const first = reached((words[w] as number) ^ flip, lift, own) & reached((words[w + 1] as number) ^ flip, lift, own);
    const second = reached((words[w + 2] as number) ^ flip, lift, own) & reached((words[w + 3] as number) ^ flip, lift, own);
    if ((first & second & highBits) !== highBits) break;
  }
  while (w < end && (reached((words[w] as number) ^ flip, lift, own) & highBits) === highBits) w++;
  return w;
}
