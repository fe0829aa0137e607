/**
 * In: a seed. Out: the same random numbers every time, on every machine.
 * Rests on: mulberry32 (a 32-bit Weyl sequence with a mixing step, public domain).
 */

/** Uniform numbers from 0 to 1, 1 left out. */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
