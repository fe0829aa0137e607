/**
 * In: a seed. Out: the same random numbers every time, on every machine.
 * Rests on: mulberry32 (a 32-bit Weyl sequence with a mixing step, public domain); Box & Muller 1958.
 */
export type Random = () => number;

/** Uniform numbers from 0 to 1, 1 left out. */
export function randomFrom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A table of `size` numbers with mean 0 and deviation 1. */
export function normalTable(random: Random, size: number): Float32Array {
  const table = new Float32Array(size);
  for (let k = 0; k < size; k++) {
    table[k] = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  }
  return table;
}
