/**
 * In: which pixels are ink. Out: the ink thinned to lines of one pixel that lie in its middle and hang together as it did.
 * Rests on: removal of simple points that are no ends, layer by layer from four sides in turn, all of a side at once
 * (Rosenfeld 1975; a point is simple where its 8-connectivity number is one, Yokoi, Toriwaki & Fukumura 1975), told for
 * 32 pixels at a time by operations on words of bits.
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

/** Thins in place; yields now and then, so that a caller can stop. */
export function* thinned(mask: Mask): Generator<void, void> {
  const peeling = new Peeling(mask);
  for (let active = wordsWithInk(mask.words); active.length > 0; ) {
    yield;
    active = peeling.around(peeling.layer(active));
  }
}

function wordsWithInk(words: Int32Array): Int32Array {
  let count = 0;
  for (let k = 0; k < words.length; k++) if (words[k] !== 0) count++;
  const found = new Int32Array(count);
  for (let k = 0, at = 0; at < count; k++) if (words[k] !== 0) found[at++] = k;
  return found;
}

const sides = ['north', 'south', 'east', 'west'] as const;

class Peeling {
  private readonly words: Int32Array;
  private readonly wordsARow: number;
  /** Of every word the pixels that went with the last layer. */
  private readonly removed: Int32Array;
  private readonly isTaken: Uint8Array;

  constructor({ width, words }: Mask) {
    this.words = words;
    this.wordsARow = width >> 5;
    this.removed = new Int32Array(words.length);
    this.isTaken = new Uint8Array(words.length);
  }

  /** Takes from the active words what may go, from each of the four sides in turn; gives the words that changed. */
  layer(active: Int32Array): Int32Array {
    const { words, removed, wordsARow } = this;
    const gone = new Int32Array(active.length);
    const changed = new Int32Array(active.length);
    let count = 0;
    for (const side of sides) {
      for (let k = 0; k < active.length; k++) gone[k] = mayGo(words, wordsARow, active[k] as number, side);
      for (let k = 0; k < active.length; k++) {
        if (gone[k] === 0) continue;
        const w = active[k] as number;
        words[w] = (words[w] as number) & ~(gone[k] as number);
        if (removed[w] === 0) changed[count++] = w;
        removed[w] = (removed[w] as number) | (gone[k] as number);
      }
    }
    return changed.subarray(0, count);
  }

  /** The words that hold a neighbour of what was removed, as far as there is ink. */
  around(changed: Int32Array): Int32Array {
    const { words, removed, isTaken, wordsARow } = this;
    const next = new Int32Array(9 * changed.length);
    let count = 0;
    const take = (q: number): void => {
      if (isTaken[q] === 1 || words[q] === 0) return;
      isTaken[q] = 1;
      next[count++] = q;
    };
    for (let k = 0; k < changed.length; k++) {
      const w = changed[k] as number;
      const bits = removed[w] as number;
      removed[w] = 0;
      const [from, to] = [bits & 1 ? w - 1 : w, bits < 0 ? w + 1 : w];
      for (let q = from; q <= to; q++) {
        take(q - wordsARow);
        take(q);
        take(q + wordsARow);
      }
    }
    for (let k = 0; k < count; k++) isTaken[next[k] as number] = 0;
    return next.subarray(0, count);
  }
}

/** The pixels of a word that lie open to a side and may go: simple ones that are no ends. */
function mayGo(words: Int32Array, wordsARow: number, w: number, side: (typeof sides)[number]): number {
  const here = words[w] as number;
  const [up, down] = [words[w - wordsARow] as number, words[w + wordsARow] as number];
  const [before, after] = [words[w - 1] as number, words[w + 1] as number];
  const west = (here << 1) | (before >>> 31);
  const east = (here >>> 1) | (after << 31);
  const open = here & ~(side === 'north' ? up : side === 'south' ? down : side === 'east' ? east : west);
  if (open === 0) return 0;
  const northWest = (up << 1) | ((words[w - wordsARow - 1] as number) >>> 31);
  const northEast = (up >>> 1) | ((words[w - wordsARow + 1] as number) << 31);
  const southWest = (down << 1) | ((words[w + wordsARow - 1] as number) >>> 31);
  const southEast = (down >>> 1) | ((words[w + wordsARow + 1] as number) << 31);
  // Yokoi's number counts, of the four straight neighbours, the light ones that ink follows within a quarter turn.
  const a = ~east & (northEast | up);
  const b = ~up & (northWest | west);
  const c = ~west & (southWest | down);
  const d = ~down & (southEast | east);
  const isOne = ((a ^ b) & ~(c | d)) | ((c ^ d) & ~(a | b));
  // At least two of the eight neighbours.
  let [one, two] = [east, 0];
  two |= one & northEast;
  one |= northEast;
  two |= one & up;
  one |= up;
  two |= one & northWest;
  one |= northWest;
  two |= one & west;
  one |= west;
  two |= one & southWest;
  one |= southWest;
  two |= one & down;
  one |= down;
  two |= one & southEast;
  return open & isOne & two;
}
