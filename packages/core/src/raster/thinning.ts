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

/** Indices that grow in number, without a boxed value each. */
class IndexList {
  private values: Int32Array;
  length = 0;

  constructor(room: number) {
    this.values = new Int32Array(room);
  }

  push(value: number): void {
    if (this.length === this.values.length) {
      const larger = new Int32Array(2 * this.values.length);
      larger.set(this.values);
      this.values = larger;
    }
    this.values[this.length++] = value;
  }

  get seen(): Int32Array {
    return this.values.subarray(0, this.length);
  }
}

/** Bytes that are 0 are passed over four at a time: most of a drawing is paper. */
function forEachInk(data: Uint8Array, from: number, to: number, visit: (p: number) => void): void {
  const lead = (4 - (data.byteOffset & 3)) & 3;
  const words = new Uint32Array(data.buffer, data.byteOffset + lead, (data.length - lead) >> 2);
  const [first, last] = [Math.max(0, (from - lead + 3) >> 2), Math.max(0, (to - lead) >> 2)];
  const single = (start: number, end: number): void => {
    for (let p = start; p < end; p++) if (data[p] !== 0) visit(p);
  };
  single(from, Math.min(to, 4 * first + lead));
  for (let w = first; w < last; w++) if (words[w] !== 0) single(4 * w + lead, 4 * w + lead + 4);
  single(Math.max(from, 4 * last + lead, Math.min(to, 4 * first + lead)), to);
}

/** Thins in place; yields now and then, so that a caller can stop. Gives the pixels that are left, as indices. */
export function* thinned(mask: Mask): Generator<void, number[]> {
  const { width, data } = mask;
  const [east, , north, , west, , south] = aroundIn(width) as [number, number, number, number, number, number, number, number];
  let border = new IndexList(1024);
  const first = border;
  forEachInk(data, width, data.length - width, (p) => {
    if (!data[p + east] || !data[p + west] || !data[p + north] || !data[p + south]) {
      first.push(p);
      data[p] = waiting;
    }
  });
  for (let removed = 1; removed > 0; ) {
    yield;
    removed = 0;
    const next = new IndexList(border.length + 64);
    for (const side of [north, south, east, west]) removed += withoutSide(data, width, border.seen, side, next);
    // What stayed may go once its neighbours have.
    const seen = border.seen;
    for (let k = 0; k < seen.length; k++) if (data[seen[k] as number] === waiting) next.push(seen[k] as number);
    border = next;
  }
  for (const p of border.seen) data[p] = 1;
  // Among them those that never lay at a border, as the middle of a cross.
  const left: number[] = [];
  forEachInk(data, width, data.length - width, (p) => {
    if (data[p] === 1) left.push(p);
  });
  return left;
}

/** Takes away the simple points that lie open to one side; their inner neighbours join `next`. Gives how many went. */
function withoutSide(data: Uint8Array, width: number, border: Int32Array, side: number, next: IndexList): number {
  let removed = 0;
  const wake = (q: number): void => {
    if (data[q] !== 1) return;
    data[q] = waiting;
    next.push(q);
  };
  for (let k = 0; k < border.length; k++) {
    const p = border[k] as number;
    if (data[p] !== waiting || data[p + side] !== 0 || mayGo[bitsAt(data, width, p)] === 0) continue;
    data[p] = 0;
    removed++;
    wake(p + 1);
    wake(p - width);
    wake(p - 1);
    wake(p + width);
  }
  return removed;
}

/** In the order of `aroundIn`. */
const bitsAt = (data: Uint8Array, width: number, p: number): number =>
  ((data[p + 1] as number) & 1) |
  (((data[p + 1 - width] as number) & 1) << 1) |
  (((data[p - width] as number) & 1) << 2) |
  (((data[p - width - 1] as number) & 1) << 3) |
  (((data[p - 1] as number) & 1) << 4) |
  (((data[p + width - 1] as number) & 1) << 5) |
  (((data[p + width] as number) & 1) << 6) |
  (((data[p + width + 1] as number) & 1) << 7);
