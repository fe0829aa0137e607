/**
 * In: a picture in colour and its palette. Out: which colour of the palette each pixel belongs to.
 * Rests on: the nearest colour in CIELAB where the picture is calm. Along a border pixels are a mixture of two colours,
 * which may look like a third: there only mixtures of the colours near by are thought of, parted where both are even.
 */
import { type Lab, labDistance, labOf, type Rgb } from './cielab.ts';
import type { ColourPicture } from './palette.ts';

export interface ColourLabels {
  readonly width: number;
  readonly height: number;
  /** The index in the palette, for every pixel. */
  readonly labels: Uint8Array;
}

/** Neighbours whose colours differ by more than this, summed over the channels, lie on a border. */
const calm = 45;
/** How far from a border's pixels their pure colours lie, px. */
const reach = 6;
/** A colour of its own must explain a pixel by so many levels better than a mixture does. */
const ownMargin = 14;

/** Yields the share done, 0 to 1. @param palette at most 16 colours */
export function* colourLabels(picture: ColourPicture, palette: readonly Rgb[]): Generator<number, ColourLabels> {
  const { width, height, data } = picture;
  if (palette.length === 0 || palette.length > 16) throw new RangeError(`${palette.length} colours; 1 to 16 can be told apart`);
  const nearest = nearestTable(palette);
  const labels = new Uint8Array(width * height);
  for (let p = 0, q = 0; p < labels.length; p++, q += 3)
    labels[p] = nearest(data[q] as number, data[q + 1] as number, data[q + 2] as number);
  yield 0.25;
  const near = sureLabels(picture, labels);
  yield 0.45;
  const mixed: number[] = [];
  for (let p = 0; p < labels.length; p++) if (near[p] === 0) mixed.push(p);
  yield* spread(near, width, height);
  const mixture = mixtureOf(palette);
  for (const [k, p] of mixed.entries()) {
    labels[p] = mixture(data, 3 * p, near[p] as number, labels[p] as number);
    if (k % 200_000 === 199_999) yield 0.7 + (0.3 * k) / mixed.length;
  }
  return { width, height, labels };
}

/** The nearest colour of the palette by cubes of four levels a side, each worked out when it is first met. */
function nearestTable(palette: readonly Rgb[]): (r: number, g: number, b: number) => number {
  const table = new Uint8Array(1 << 18).fill(255);
  const labs = palette.map(labOf);
  return (r, g, b) => {
    const bin = ((r >> 2) << 12) | ((g >> 2) << 6) | (b >> 2);
    const known = table[bin] as number;
    if (known !== 255) return known;
    const lab = labOf([(r & 252) + 1.5, (g & 252) + 1.5, (b & 252) + 1.5]);
    let [best, min] = [0, Infinity];
    labs.forEach((other: Lab, k) => {
      const d = labDistance(lab, other);
      if (d < min) [best, min] = [k, d];
    });
    table[bin] = best;
    return best;
  };
}

/** A bit for the label of each pixel whose neighbours are like it; 0 along borders. */
function sureLabels({ width, height, data }: ColourPicture, labels: Uint8Array): Uint16Array {
  const sure = new Uint16Array(width * height);
  const differ = (p: number, q: number): boolean => {
    const [i, j] = [3 * p, 3 * q];
    return (
      labels[p] !== labels[q] ||
      Math.abs((data[i] as number) - (data[j] as number)) +
        Math.abs((data[i + 1] as number) - (data[j + 1] as number)) +
        Math.abs((data[i + 2] as number) - (data[j + 2] as number)) >
        calm
    );
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const p = y * width + x;
      if (x > 0 && differ(p, p - 1)) continue;
      if (x < width - 1 && differ(p, p + 1)) continue;
      if (y > 0 && differ(p, p - width)) continue;
      if (y < height - 1 && differ(p, p + width)) continue;
      sure[p] = 1 << (labels[p] as number);
    }
  }
  return sure;
}

/** The bits of all pixels within reach gathered, in place: along rows, then along columns. */
function* spread(bits: Uint16Array, width: number, height: number): Generator<number> {
  const line = new Uint16Array(Math.max(width, height) + 2 * reach);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    line.fill(0, 0, width + 2 * reach);
    for (let x = 0; x < width; x++) line[x + reach] = bits[row + x] as number;
    for (let x = 0; x < width; x++) {
      let all = 0;
      for (let k = 0; k <= 2 * reach; k++) all |= line[x + k] as number;
      bits[row + x] = all;
    }
  }
  yield 0.55;
  // Columns in bands of rows kept aside, so that memory is read along rows.
  const ring = Array.from({ length: 2 * reach + 1 }, () => new Uint16Array(width));
  for (let y = -reach; y < height; y++) {
    const coming = ring[(y + 3 * reach + 1) % ring.length] as Uint16Array;
    if (y + reach < height) coming.set(bits.subarray((y + reach) * width, (y + reach + 1) * width));
    else coming.fill(0);
    if (y < 0) continue;
    const row = y * width;
    for (let x = 0; x < width; x++) {
      let all = 0;
      for (const band of ring) all |= band[x] as number;
      bits[row + x] = all;
    }
  }
  yield 0.7;
}

/** Tells a mixed pixel's label from the colours near it: of the two that it is mixed from best, the one it holds more of. */
function mixtureOf(palette: readonly Rgb[]): (data: Uint8Array, at: number, near: number, own: number) => number {
  const candidates = new Map<number, number[]>();
  return (data, at, near, own) => {
    let list = candidates.get(near);
    if (!list) {
      list = palette.flatMap((_, k) => (near & (1 << k) ? [k] : []));
      candidates.set(near, list);
    }
    if (list.length === 0) return own;
    const colour = [data[at] as number, data[at + 1] as number, data[at + 2] as number] as const;
    const { label, off } = bestMixture(colour, palette, list, own);
    // Too thin for a calm place of its own: a hairline, a dot.
    return levelsApart(colour, palette[own] as Rgb) + ownMargin < off ? own : label;
  };
}

/** Of single colours and mixtures of two the one nearest to a colour: the label that it holds more of, and how far off it is. */
function bestMixture(colour: Rgb, palette: readonly Rgb[], list: readonly number[], own: number): { label: number; off: number } {
  let [label, off] = [own, Infinity];
  const offer = (candidate: number, made: Rgb): void => {
    const d = levelsApart(colour, made);
    if (d < off) [label, off] = [candidate, d];
  };
  for (const [i, a] of list.entries()) {
    const first = palette[a] as Rgb;
    offer(a, first);
    for (const b of list.slice(i + 1)) {
      const second = palette[b] as Rgb;
      const share = mixedShare(colour, first, second);
      if (share > 0 && share < 1) offer(share < 0.5 ? a : b, mixedColour(first, second, share));
    }
  }
  return { label, off };
}

/** How much of `b` there is in a mixture of `a` and `b`, by its place between them; 0 all `a`, 1 all `b`. */
export function mixedShare(colour: Rgb, a: Rgb, b: Rgb): number {
  const [x, y, z] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const size = x * x + y * y + z * z;
  return size === 0 ? 0 : ((colour[0] - a[0]) * x + (colour[1] - a[1]) * y + (colour[2] - a[2]) * z) / size;
}

const mixedColour = (a: Rgb, b: Rgb, share: number): Rgb => [
  a[0] + share * (b[0] - a[0]),
  a[1] + share * (b[1] - a[1]),
  a[2] + share * (b[2] - a[2]),
];

const levelsApart = (a: Rgb, b: Rgb): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
