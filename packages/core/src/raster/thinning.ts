/**
 * In: which pixels are ink. Out: the ink thinned to lines of one pixel that lie in its middle and hang together as it did.
 * Rests on: removal of simple points that are no ends, layer by layer from four sides in turn, all of a side at once
 * (Rosenfeld 1975; a point is simple where its 8-connectivity number is one, Yokoi, Toriwaki & Fukumura 1975), told for
 * 32 pixels at a time by operations on words of bits.
 */

import type { Mask } from './ink-mask.ts';

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
