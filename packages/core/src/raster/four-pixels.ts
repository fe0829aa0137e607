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

/** A function that gives the high bit of every byte of a word that is at least the level, 1 to 255. */
export function lightBitsAt(level: number): (word: number) => number {
  const least = Math.ceil(level);
  const isHigh = least > 128;
  const lift = liftTo(least);
  return (word) => {
    const sum = ((word & 0x7f7f7f7f) + lift) | 0;
    return (isHigh ? word & sum : word | sum) & highBits;
  };
}

/** What a comparison of four bytes with a level adds to each. */
const liftTo = (least: number): number => ((least > 128 ? 0x100 - least : 0x80 - least) * 0x01010101) | 0;

/**
 * How far words from `from` up to `end` hold nothing but pixels that are dark, or light: the next word that holds others.
 * A byte is darker than a level where what it lacks of 255 is at least what the level lacks of 256.
 */
export function evenUpTo(words: Int32Array, level: number, from: number, end: number, isDark: boolean): number {
  const least = isDark ? 0x100 - Math.ceil(level) : Math.ceil(level);
  const flip = isDark ? -1 : 0;
  return least > 128 ? evenAbove(words, liftTo(least), flip, from, end) : evenBelow(words, liftTo(least), flip, from, end);
}

/** Words that hold nothing but bytes at or above a level of more than 128, four words at a time. */
function evenAbove(words: Int32Array, lift: number, flip: number, from: number, end: number): number {
  const reach = (v: number): number => v & ((v & 0x7f7f7f7f) + lift);
  let w = from;
  for (; w + 3 < end; w += 4) {
    const [a, b] = [(words[w] as number) ^ flip, (words[w + 1] as number) ^ flip];
    const [c, d] = [(words[w + 2] as number) ^ flip, (words[w + 3] as number) ^ flip];
    if ((reach(a) & reach(b) & reach(c) & reach(d) & highBits) !== highBits) break;
  }
  while (w < end && (reach((words[w] as number) ^ flip) & highBits) === highBits) w++;
  return w;
}

/** The same for a level of up to 128. */
function evenBelow(words: Int32Array, lift: number, flip: number, from: number, end: number): number {
  const reach = (v: number): number => v | ((v & 0x7f7f7f7f) + lift);
  let w = from;
  for (; w + 3 < end; w += 4) {
    const [a, b] = [(words[w] as number) ^ flip, (words[w + 1] as number) ^ flip];
    const [c, d] = [(words[w + 2] as number) ^ flip, (words[w + 3] as number) ^ flip];
    if ((reach(a) & reach(b) & reach(c) & reach(d) & highBits) !== highBits) break;
  }
  while (w < end && (reach((words[w] as number) ^ flip) & highBits) === highBits) w++;
  return w;
}
