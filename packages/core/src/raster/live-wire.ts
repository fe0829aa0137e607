/**
 * In: a grey picture and a place to start from. Out: the way to any other place that follows the strongest edge or the
 * darkest line.
 * Rests on: live-wire (Mortensen & Barrett 1995): cheapest ways over pixels (Dijkstra 1959, by buckets after Dial 1969) in
 * a window about the start, worked out as far as the pointer has been; far places in a picture reduced as much as needed.
 */
import { middleOf, norm, type Point } from '../plane/point.ts';
import type { GreyPicture } from './grey.ts';

/** What is followed: the border between dark and light, or the middle of a dark line. */
export type LiveWireTarget = 'edge' | 'line';

/** Half the side of the window, in its own pixels. */
const windowReach = 96;
/** Fine ways are led towards places this far off, and so much of them is kept. */
const stretch = 0.8 * windowReach;
const keptShare = 0.6;
/** A straight step over blank paper costs so much, one along the strongest edge a hundredth of it. */
const dearest = 100;
const buckets = 256;
/** So many pixels of a window are worked out in a step: some 3 ms. */
const nodesAtOnce = 8000;
/** Greys that differ by less a pixel are noise. */
export const minSlope = 4;

/**
 * Leads a few ways over a picture that nobody sees: an engine makes quick code only of what has run, and the first move of
 * a pointer is to be as quick as the others.
 */
export function rehearsed(picture: GreyPicture): void {
  const { width, height } = picture;
  for (const follow of ['edge', 'line'] as const) {
    for (const share of [0.3, 0.7]) {
      const wire = new LiveWire(picture, { x: share * width, y: share * height }, follow);
      for (const searchRadius of [40, 90, 180, 700]) wire.to({ x: Math.min(width - 1, share * width + searchRadius), y: share * height });
    }
  }
}

export class LiveWire {
  private readonly picture: GreyPicture;
  private readonly follow: LiveWireTarget;
  readonly from: Point;
  private readonly fields = new Map<number, DistanceField>();

  /** @param from px, inside the picture */
  constructor(picture: GreyPicture, from: Point, follow: LiveWireTarget) {
    this.picture = picture;
    this.follow = follow;
    this.from = from;
  }

  /** The way to a place, pixel by pixel, px; from coarse pixels where the place is far. */
  to(place: Point): Point[] {
    const reduce = this.reduceFor(place);
    const path = this.fieldAt(reduce).pathTo(place);
    // Coarse pixels are large: their stairs are evened.
    const shown = reduce === 1 ? path : path.map((_, k) => middleOf(path.slice(Math.max(0, k - 2), k + 3)));
    return [this.from, ...shown.slice(1, -1), place];
  }

  /**
   * Reads the windows about the start and works out all ways in them, in steps of some milliseconds, so that no move of the
   * pointer has to wait for one. Yields the number of the picture's pixels that a pixel of the window is wide.
   */
  *prepared(): Generator<number, void> {
    const { width, height } = this.picture;
    for (let reduce = 1; reduce * windowReach < 2 * Math.max(width, height); reduce *= 2) {
      const field = this.fieldAt(reduce);
      yield reduce;
      while (field.settleSome()) yield reduce;
    }
  }

  private fieldAt(reduce: number): DistanceField {
    let field = this.fields.get(reduce);
    if (!field) {
      field = new DistanceField(this.picture, this.from, this.follow, reduce);
      this.fields.set(reduce, field);
    }
    return field;
  }

  private reduceFor(place: Point): number {
    const far = this.farTo(place);
    return 2 ** Math.max(0, Math.ceil(Math.log2(far / (windowReach - 8))));
  }

  /**
   * The way to a place in whole pixels however far it is. Coarse pixels lie beside what they follow: fine ways are led
   * towards one after another, and their last parts, which leave it to get there, are led anew.
   */
  held(place: Point): Point[] {
    const coarse = this.to(place);
    if (this.reduceFor(place) === 1) return coarse;
    const points: Point[] = [this.from];
    let wire: LiveWire = this;
    for (let [k, round] = [1, 0]; wire.reduceFor(place) > 1 && round < 4 * coarse.length; round++) {
      while (k < coarse.length - 1 && wire.farTo(coarse[k] as Point) < stretch) k++;
      // Where the way turns back the place itself may be near in its window while the way is still long.
      const fine = wire.to(wire.reduceFor(coarse[k] as Point) > 1 ? (coarse[k - 1] as Point) : (coarse[k] as Point));
      const kept = fine.slice(1, Math.max(2, Math.ceil(keptShare * fine.length)));
      points.push(...kept);
      const next = kept.at(-1) as Point;
      if (wire.farTo(next) < 1 && k >= coarse.length - 1) break;
      if (wire.farTo(next) < 1) k++;
      wire = new LiveWire(this.picture, next, this.follow);
    }
    points.push(...wire.to(place).slice(1));
    return points;
  }

  private farTo(place: Point): number {
    return Math.max(Math.abs(place.x - this.from.x), Math.abs(place.y - this.from.y));
  }
}

/** The cheapest ways from one pixel of a window, worked out as far as they have been asked for. */
class DistanceField {
  private readonly left: number;
  private readonly top: number;
  private readonly reduce: number;
  private readonly width: number;
  private readonly height: number;
  private readonly cost: Uint8Array;
  private readonly edgeCost: Int32Array;
  private readonly back: Int32Array;
  private readonly done: Uint8Array;
  private readonly heads = new Int32Array(buckets).fill(-1);
  private readonly next: Int32Array;
  private readonly before: Int32Array;
  private now = 0;
  private waiting = 0;

  constructor(picture: GreyPicture, from: Point, follow: LiveWireTarget, reduce: number) {
    this.reduce = reduce;
    this.left = Math.max(0, Math.floor(from.x / reduce) - windowReach);
    this.top = Math.max(0, Math.floor(from.y / reduce) - windowReach);
    this.width = Math.min(Math.ceil(picture.width / reduce), this.left + 2 * windowReach + 1) - this.left;
    this.height = Math.min(Math.ceil(picture.height / reduce), this.top + 2 * windowReach + 1) - this.top;
    const { width, height } = this;
    const grey = reducedWindow(picture, this.left, this.top, width, height, reduce);
    this.cost = costsOf(smoothed(smoothed(grey, width, height), width, height), width, height, follow);
    const count = width * height;
    this.edgeCost = new Int32Array(count).fill(2 ** 30);
    this.back = new Int32Array(count).fill(-1);
    this.done = new Uint8Array(count);
    this.next = new Int32Array(count).fill(-1);
    this.before = new Int32Array(count).fill(-1);
    const start = this.nodeAt(from);
    this.edgeCost[start] = 0;
    this.put(start);
  }

  private nodeAt({ x, y }: Point): number {
    const column = Math.min(this.width - 1, Math.max(0, Math.floor(x / this.reduce) - this.left));
    const row = Math.min(this.height - 1, Math.max(0, Math.floor(y / this.reduce) - this.top));
    return row * this.width + column;
  }

  private put(node: number): void {
    const bucket = (this.edgeCost[node] as number) & (buckets - 1);
    const head = this.heads[bucket] as number;
    this.next[node] = head;
    this.before[node] = -1;
    if (head >= 0) this.before[head] = node;
    this.heads[bucket] = node;
    this.waiting++;
  }

  private takeOut(node: number): void {
    const before = this.before[node] as number;
    const next = this.next[node] as number;
    if (before >= 0) this.next[before] = next;
    else this.heads[(this.edgeCost[node] as number) & (buckets - 1)] = next;
    if (next >= 0) this.before[next] = before;
    this.waiting--;
  }

  /** From the start to a place, middles of pixels, px. */
  pathTo(place: Point): Point[] {
    const target = this.nodeAt(place);
    while (!this.done[target] && this.waiting > 0) this.settleNext();
    const path: Point[] = [];
    for (let node = target; node >= 0; node = this.back[node] as number) {
      const [column, row] = [node % this.width, Math.floor(node / this.width)];
      path.push({ x: (column + this.left + 0.5) * this.reduce, y: (row + this.top + 0.5) * this.reduce });
    }
    return path.reverse();
  }

  /** Works out the ways to some more of the window; false once all are known. */
  settleSome(): boolean {
    for (let k = 0; k < nodesAtOnce && this.waiting > 0; k++) this.settleNext();
    return this.waiting > 0;
  }

  private settleNext(): void {
    while ((this.heads[this.now & (buckets - 1)] as number) < 0) this.now++;
    const node = this.heads[this.now & (buckets - 1)] as number;
    this.takeOut(node);
    this.done[node] = 1;
    const { width, height } = this;
    const column = node % width;
    const row = (node - column) / width;
    for (let dy = -1; dy <= 1; dy++) {
      if (row + dy < 0 || row + dy >= height) continue;
      for (let dx = -1; dx <= 1; dx++) {
        if ((dx === 0 && dy === 0) || column + dx < 0 || column + dx >= width) continue;
        this.offer(node, node + dy * width + dx, dx !== 0 && dy !== 0);
      }
    }
  }

  private offer(node: number, other: number, isAcross: boolean): void {
    if (this.done[other]) return;
    const step = this.cost[other] as number;
    const edgeCost = (this.edgeCost[node] as number) + (isAcross ? Math.round(step * Math.SQRT2) : step);
    if (edgeCost >= (this.edgeCost[other] as number)) return;
    if ((this.back[other] as number) >= 0) this.takeOut(other);
    this.edgeCost[other] = edgeCost;
    this.back[other] = node;
    this.put(other);
  }
}

/** A window of the picture, each of its pixels the mean of a square of the picture's. */
function reducedWindow(
  { width, height, data }: GreyPicture,
  left: number,
  top: number,
  w: number,
  h: number,
  reduce: number,
): Float32Array {
  const out = new Float32Array(w * h);
  // Of large squares every second or fourth pixel tells enough.
  const stride = Math.max(1, reduce >> 2);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const x0 = (x + left) * reduce;
      const y0 = (y + top) * reduce;
      const x1 = Math.min(width, x0 + reduce);
      const y1 = Math.min(height, y0 + reduce);
      let sum = 0;
      let count = 0;
      for (let v = y0; v < y1; v += stride) {
        for (let u = x0; u < x1; u += stride) {
          sum += data[v * width + u] as number;
          count++;
        }
      }
      out[y * w + x] = sum / count;
    }
  }
  return out;
}

/** Weights 1 2 1 along rows and columns. */
function smoothed(grey: Float32Array, width: number, height: number): Float32Array {
  const rows = new Float32Array(grey.length);
  for (let y = 0, p = 0; y < height; y++) {
    for (let x = 0; x < width; x++, p++) {
      const l = x > 0 ? p - 1 : p;
      const r = x < width - 1 ? p + 1 : p;
      rows[p] = ((grey[l] as number) + 2 * (grey[p] as number) + (grey[r] as number)) / 4;
    }
  }
  const out = new Float32Array(grey.length);
  for (let y = 0, p = 0; y < height; y++) {
    for (let x = 0; x < width; x++, p++) {
      const u = y > 0 ? p - width : p;
      const d = y < height - 1 ? p + width : p;
      out[p] = ((rows[u] as number) + 2 * (rows[p] as number) + (rows[d] as number)) / 4;
    }
  }
  return out;
}

/** What a step onto each pixel costs, 1 to `dearest`: little where there is much to follow. */
function costsOf(grey: Float32Array, width: number, height: number, follow: LiveWireTarget): Uint8Array {
  const strength = new Float32Array(grey.length);
  let max = minSlope;
  for (let y = 2; y < height - 2; y++) {
    for (let x = 2; x < width - 2; x++) {
      const p = y * width + x;
      const s = follow === 'edge' ? slopeAt(grey, p, width) : ridgeAt(grey, p, width, Math.min(x, y, width - 1 - x, height - 1 - y));
      strength[p] = s;
      if (s > max) max = s;
    }
  }
  // What is half as strong as the strongest is followed as gladly: light falls off over a photograph.
  const full = max / 2;
  const costs = new Uint8Array(grey.length);
  for (let p = 0; p < costs.length; p++) {
    const lack = 1 - Math.min(1, (strength[p] as number) / full);
    costs[p] = 1 + Math.round((dearest - 1) * lack * lack);
  }
  return costs;
}

function slopeAt(grey: Float32Array, p: number, width: number): number {
  const dx = (grey[p + 1] as number) - (grey[p - 1] as number);
  const dy = (grey[p + width] as number) - (grey[p - width] as number);
  return Math.sqrt(dx * dx + dy * dy) / 2;
}

/** Half the widths of lines, from hairlines to felt pens, px: so far to either side there is paper. */
const halfWidths = [2, 4, 7] as const;

/** How much darker a pixel is than what lies to either side of it, across the way and at the width in which that is most. */
function ridgeAt(grey: Float32Array, p: number, width: number, room: number): number {
  const here = 2 * (grey[p] as number);
  let max = 0;
  for (const half of halfWidths) {
    if (half > room) break;
    const slant = Math.round(half * Math.SQRT1_2);
    for (let k = 0; k < 4; k++) {
      const aside = k === 0 ? half : k === 1 ? half * width : k === 2 ? slant * (width + 1) : slant * (width - 1);
      // Both sides are lighter: the lesser difference counts, so that the border of an area is no line.
      const darker = 2 * Math.min(grey[p - aside] as number, grey[p + aside] as number) - here;
      if (darker > max) max = darker;
    }
  }
  return max / 2;
}

/**
 * The place near by where there is most to follow: a hand cannot click to the pixel.
 * @param searchRadius px
 */
export function drawnTo(picture: GreyPicture, place: Point, follow: LiveWireTarget, searchRadius: number): Point {
  const half = Math.ceil(searchRadius) + 4;
  const left = Math.max(0, Math.floor(place.x) - half);
  const top = Math.max(0, Math.floor(place.y) - half);
  const width = Math.min(picture.width, left + 2 * half + 1) - left;
  const height = Math.min(picture.height, top + 2 * half + 1) - top;
  const grey = reducedWindow(picture, left, top, width, height, 1);
  const costs = costsOf(smoothed(smoothed(grey, width, height), width, height), width, height, follow);
  let best = place;
  let min = Infinity;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const p = { x: x + left + 0.5, y: y + top + 0.5 };
      const off = norm(p.x - place.x, p.y - place.y);
      // Of equals the nearest.
      const cost = (costs[y * width + x] as number) + (4 * off) / searchRadius;
      if (off <= searchRadius && cost < min) {
        best = p;
        min = cost;
      }
    }
  }
  return min < dearest / 2 ? best : place;
}
