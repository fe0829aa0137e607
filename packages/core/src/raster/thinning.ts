/**
 * In: which pixels are ink. Out: the ink thinned to lines of one pixel that lie in its middle and hang together as it did.
 * Rests on: removal of simple points that are no ends, layer by layer from four sides in turn (Rosenfeld 1975; a point
 * is simple where its 8-connectivity number is one, Yokoi, Toriwaki & Fukumura 1975).
 */

/** A pixel a byte, 1 where there is ink; the outermost ring must be 0. */
export interface Mask {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

/** Whether a pixel may go, by its eight neighbours as bits from the right one on, counter-clockwise. */
const mayGo = (() => {
  const table = new Uint8Array(256);
  for (let bits = 0; bits < 256; bits++) {
    const ink = (k: number) => (bits >> (k & 7)) & 1;
    let [number, neighbours] = [0, 0];
    for (let k = 0; k < 8; k += 2) {
      const [a, b, c] = [1 - ink(k), 1 - ink(k + 1), 1 - ink(k + 2)];
      number += a - a * b * c;
    }
    for (let k = 0; k < 8; k++) neighbours += ink(k);
    table[bits] = number === 1 && neighbours >= 2 ? 1 : 0;
  }
  return table;
})();

/** The eight neighbours' offsets in the same order. */
export const aroundIn = (width: number): readonly number[] => [1, 1 - width, -width, -width - 1, -1, width - 1, width, width + 1];

/** A byte's second bit tells that the pixel waits in the list of those that may go. */
const waiting = 3;

/** Thins in place; yields now and then, so that a caller can stop. Gives the pixels that are left, as indices. */
export function* thinned(mask: Mask): Generator<void, number[]> {
  const { width, data } = mask;
  const around = aroundIn(width);
  const [east, , north, , west, , south] = around as [number, number, number, number, number, number, number, number];
  let border: number[] = [];
  for (let p = width; p < data.length - width; p++) {
    if (data[p] === 1 && (!data[p + east] || !data[p + west] || !data[p + north] || !data[p + south])) {
      border.push(p);
      data[p] = waiting;
    }
  }
  for (let removed = 1; removed > 0; ) {
    yield;
    removed = 0;
    const next: number[] = [];
    for (const side of [north, south, east, west]) removed += withoutSide(data, around, border, side, next);
    // What stayed may go once its neighbours have.
    for (const p of border) if (data[p] === waiting) next.push(p);
    border = next;
  }
  for (const p of border) data[p] = 1;
  // Among them those that never lay at a border, as the middle of a cross.
  const left: number[] = [];
  for (let p = width; p < data.length - width; p++) if (data[p] === 1) left.push(p);
  return left;
}

/** Takes away the simple points that lie open to one side; their inner neighbours join `next`. Gives how many went. */
function withoutSide(data: Uint8Array, around: readonly number[], border: readonly number[], side: number, next: number[]): number {
  let removed = 0;
  for (const p of border) {
    if (data[p] !== waiting || data[p + side] !== 0 || mayGo[bitsAt(data, around, p)] === 0) continue;
    data[p] = 0;
    removed++;
    for (let k = 0; k < 8; k += 2) {
      const q = p + (around[k] as number);
      if (data[q] !== 1) continue;
      data[q] = waiting;
      next.push(q);
    }
  }
  return removed;
}

function bitsAt(data: Uint8Array, around: readonly number[], p: number): number {
  let bits = 0;
  for (let k = 0; k < 8; k++) bits |= ((data[p + (around[k] as number)] as number) & 1) << k;
  return bits;
}
