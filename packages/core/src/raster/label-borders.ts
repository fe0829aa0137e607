/**
 * In: a label for every pixel. Out: the borders between them as chains of cracks from junction to junction, each once:
 * a planar map whose faces share their borders.
 * Rests on: the lattice of pixel corners; where three labels or more meet is a junction (Kovalevsky 1989).
 */

export interface BorderChain {
  /** Corners of the lattice, row times (width + 1) plus column; -1 where the chain runs round. */
  readonly start: number;
  readonly end: number;
  /** Pixel to the left of the way and pixel to its right, in turn, for every crack; -1 outside the picture. */
  readonly sides: Int32Array;
  /** The middle of every crack, x and y in turn, px. */
  readonly middles: Float64Array;
}

/** Ways from a corner: up, right, down, left. */
const up = 0;
const right = 1;
const down = 2;
const left = 3;

/** @param labels 0 counts as what lies outside, too */
export function borderChains(labels: Uint8Array, width: number, height: number): BorderChain[] {
  return new Lattice(labels, width, height).chains();
}

class Lattice {
  private readonly labels: Uint8Array;
  private readonly width: number;
  private readonly height: number;
  private readonly stride: number;
  /** For every corner: 1 where the crack to its right has been walked, 2 for the one below. */
  private readonly walked: Uint8Array;

  constructor(labels: Uint8Array, width: number, height: number) {
    this.labels = labels;
    this.width = width;
    this.height = height;
    this.stride = width + 1;
    this.walked = new Uint8Array(this.stride * (height + 1));
  }

  private pixel(x: number, y: number): number {
    return x < 0 || y < 0 || x >= this.width || y >= this.height ? -1 : y * this.width + x;
  }

  private label(pixel: number): number {
    return pixel < 0 ? 0 : (this.labels[pixel] as number);
  }

  /** Pixels about a corner: above left, above right, below right, below left. */
  private around(corner: number): [number, number, number, number] {
    const x = corner % this.stride;
    const y = (corner - x) / this.stride;
    return [this.pixel(x - 1, y - 1), this.pixel(x, y - 1), this.pixel(x, y), this.pixel(x - 1, y)];
  }

  /** Which of the four cracks at a corner part two labels, as bits. */
  private cracks(corner: number): number {
    const [nw, ne, se, sw] = this.around(corner).map((p) => this.label(p)) as [number, number, number, number];
    return (nw !== ne ? 1 : 0) | (ne !== se ? 2 : 0) | (se !== sw ? 4 : 0) | (sw !== nw ? 8 : 0);
  }

  /** The way on from a corner that was come to by `heading`; null at a junction. */
  private next(corner: number, heading: number): number | null {
    const cracks = this.cracks(corner);
    const back = (heading + 2) % 4;
    if (cracks === 15) {
      const [nw, ne, se, sw] = this.around(corner).map((p) => this.label(p)) as [number, number, number, number];
      if (nw !== se || ne !== sw) return null;
      // Two labels crosswise: the greater one holds together, the other is cut in two.
      const turns = nw > ne ? [right, up, left, down] : [left, down, right, up];
      return turns[back] as number;
    }
    const on = cracks & ~(1 << back);
    return on === 1 ? up : on === 2 ? right : on === 4 ? down : on === 8 ? left : null;
  }

  /** Marks a crack as walked; false where it was. */
  private take(corner: number, heading: number): boolean {
    const at = heading === up ? corner - this.stride : heading === left ? corner - 1 : corner;
    const bit = heading === up || heading === down ? 2 : 1;
    if ((this.walked[at] as number) & bit) return false;
    this.walked[at] = (this.walked[at] as number) | bit;
    return true;
  }

  private stepped(corner: number, heading: number): number {
    return corner + (heading === up ? -this.stride : heading === right ? 1 : heading === down ? this.stride : -1);
  }

  /** The pixels left and right of a crack walked from a corner. */
  private sidesOf(corner: number, heading: number): [number, number] {
    const [nw, ne, se, sw] = this.around(corner);
    return heading === up ? [nw, ne] : heading === right ? [ne, se] : heading === down ? [se, sw] : [sw, nw];
  }

  private middleOf(corner: number, heading: number): [number, number] {
    const x = corner % this.stride;
    const y = (corner - x) / this.stride;
    return [x + (heading === right ? 0.5 : heading === left ? -0.5 : 0), y + (heading === down ? 0.5 : heading === up ? -0.5 : 0)];
  }

  private walk(start: number, first: number): BorderChain | null {
    if (!this.take(start, first)) return null;
    const sides = [...this.sidesOf(start, first)];
    const middles = [...this.middleOf(start, first)];
    let corner = this.stepped(start, first);
    let heading = first;
    for (let on = this.next(corner, heading); on !== null; on = this.next(corner, heading)) {
      if (!this.take(corner, on)) return chainOf(-1, -1, sides, middles);
      sides.push(...this.sidesOf(corner, on));
      middles.push(...this.middleOf(corner, on));
      corner = this.stepped(corner, on);
      heading = on;
    }
    return chainOf(start, corner, sides, middles);
  }

  chains(): BorderChain[] {
    const corners: number[] = [];
    for (let y = 0; y <= this.height; y++)
      for (let x = 0; x <= this.width; x++)
        if (!this.isInside(x, y) && this.cracks(y * this.stride + x) !== 0) corners.push(y * this.stride + x);
    const found: BorderChain[] = [];
    const walkFrom = (corner: number): void => {
      const cracks = this.cracks(corner);
      for (const heading of [up, right, down, left]) {
        const chain = cracks & (1 << heading) ? this.walk(corner, heading) : null;
        if (chain) found.push(chain);
      }
    };
    // What no junction ends runs round: it is begun anywhere, once the others are walked.
    for (const corner of corners) if (this.isJunction(corner)) walkFrom(corner);
    for (const corner of corners) if (!this.isJunction(corner)) walkFrom(corner);
    return found;
  }

  private isJunction(corner: number): boolean {
    const cracks = this.cracks(corner);
    const back = [up, right, down, left].find((heading) => cracks & (1 << heading)) as number;
    return this.next(corner, (back + 2) % 4) === null;
  }

  /** Whether all four pixels about a corner have one label: nearly all have. */
  private isInside(x: number, y: number): boolean {
    if (x === 0 || y === 0 || x === this.width || y === this.height) return false;
    const p = y * this.width + x;
    const { labels, width } = this;
    const here = labels[p];
    return here === labels[p - 1] && here === labels[p - width] && here === labels[p - width - 1];
  }
}

const chainOf = (start: number, end: number, sides: number[], middles: number[]): BorderChain => ({
  start,
  end,
  sides: Int32Array.from(sides),
  middles: Float64Array.from(middles),
});

/** Areas of one label smaller than `min` pixels given the label that they border on most; gives how many. In place. */
export function withoutSpecks(labels: Uint8Array, width: number, min: number): number {
  const seen = new Uint8Array(labels.length);
  let dropped = 0;
  const stack = new Int32Array(labels.length);
  for (let start = 0; start < labels.length; start++) {
    if (seen[start]) continue;
    const label = labels[start] as number;
    let [size, top] = [0, 0];
    const beside = new Map<number, number>();
    const visit = (q: number): void => {
      const other = labels[q] as number;
      if (other !== label) beside.set(other, (beside.get(other) ?? 0) + 1);
      else if (!seen[q]) {
        seen[q] = 1;
        stack[top++] = q;
      }
    };
    seen[start] = 1;
    // The whole area stays on the stack; `size` runs after its top.
    stack[top++] = start;
    while (size < top) {
      const p = stack[size++] as number;
      const x = p % width;
      if (x > 0) visit(p - 1);
      if (x < width - 1) visit(p + 1);
      if (p >= width) visit(p - width);
      if (p < labels.length - width) visit(p + width);
    }
    if (size >= min || beside.size === 0) continue;
    const [max] = [...beside].sort((a, b) => b[1] - a[1])[0] as [number, number];
    for (let k = 0; k < size; k++) labels[stack[k] as number] = max;
    if (label !== 0) dropped++;
  }
  return dropped;
}
