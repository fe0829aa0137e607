/**
 * In: a picture's pixels and a projection from the wanted picture back to it. Out: the wanted picture.
 * Rests on: cubic convolution (Keys 1981, a = -1/2) at 256 phases; where the picture shrinks, on the level of a box
 * pyramid that is as coarse (Williams 1983), so that every pixel of the original counts; the projection is exact at
 * every eighth pixel of a row and straight between.
 */
import { affineAt, type Projection } from '../plane/projection.ts';

/** A picture in grey, and in colour where it has any: red, green and blue in turn. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly grey: Uint8Array;
  readonly colour: Uint8Array | null;
}

export interface WarpPlan {
  readonly widthPx: number;
  readonly heightPx: number;
  /** From the wanted picture's pixels to the original's; a pixel's centre at +0.5. */
  readonly toOriginal: Projection;
}

const phases = 256;
/** Weights of four pixels in a row, in 1/4096, for each phase between the second and the third. */
const weights = (() => {
  const table = new Int32Array(phases * 4);
  for (let phase = 0; phase < phases; phase++) {
    const t = phase / phases;
    const w = [((-0.5 * t + 1) * t - 0.5) * t, (1.5 * t - 2.5) * t * t + 1, ((-1.5 * t + 2) * t + 0.5) * t, (0.5 * t - 0.5) * t * t].map(
      (v) => Math.round(4096 * v),
    ) as [number, number, number, number];
    // What rounding took or gave goes to the larger middle weight, so that flat paper stays as it is.
    w[t < 0.5 ? 1 : 2] += 4096 - (w[0] + w[1] + w[2] + w[3]);
    table.set(w, phase * 4);
  }
  return table;
})();

/** What lies outside the picture: paper. */
const outside = 255;
const rowsAStep = 64;

/**
 * The wanted picture, made a band of rows at a time; yields the share done, 0 to 1. Grey is interpolated; colour is
 * that of the nearest pixel, brought to the interpolated grey, which the eye cannot tell from colour interpolated.
 * @param from the first row to make, and `to` the row after the last, so that several workers can share a picture
 */
export function* warped(source: Pixels, plan: WarpPlan, from = 0, to = plan.heightPx): Generator<number, Pixels> {
  const { widthPx, toOriginal } = plan;
  const levels = [source];
  const count = widthPx * (to - from);
  const grey = new Uint8Array(count).fill(outside);
  const out: Pixels = { width: widthPx, height: to - from, grey, colour: source.colour && new Uint8Array(3 * count).fill(outside) };
  for (let y0 = from; y0 < to; y0 += rowsAStep) {
    const y1 = Math.min(to, y0 + rowsAStep);
    for (let x0 = 0; x0 < widthPx; x0 += rowsAStep) {
      const x1 = Math.min(widthPx, x0 + rowsAStep);
      const level = levelFor(toOriginal, (x0 + x1) / 2, (y0 + y1) / 2);
      while (levels.length <= level) levels.push(halved(levels.at(-1) as Pixels));
      warpBlock(levels[level] as Pixels, 2 ** -level, plan, out, { from, x0, x1, y0, y1 });
    }
    yield (y1 - from) / (to - from);
  }
  return out;
}

/** How often the picture is halved before it is drawn from: by the lesser shrinking of the two directions. */
function levelFor(p: Projection, x: number, y: number): number {
  const { a, b, c, d } = affineAt(p, { x, y });
  const shrink = Math.min(Math.hypot(a, b), Math.hypot(c, d));
  return Math.max(0, Math.min(8, Math.floor(Math.log2(shrink) + 0.4)));
}

/** Half as large each way; a pixel is the mean of four. */
function halved({ width, height, grey, colour }: Pixels): Pixels {
  return {
    width: Math.max(1, width >> 1),
    height: Math.max(1, height >> 1),
    grey: halvedBytes(grey, width, height, 1),
    colour: colour && halvedBytes(colour, width, height, 3),
  };
}

/** Half as large each way, rounded down; `channels` bytes a pixel. */
export function halvedBytes(data: Uint8Array, width: number, height: number, channels: number): Uint8Array {
  const [w, h] = [Math.max(1, width >> 1), Math.max(1, height >> 1)];
  const out = new Uint8Array(w * h * channels);
  const right = width > 1 ? channels : 0;
  const down = height > 1 ? width * channels : 0;
  for (let y = 0, q = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const p = (2 * y * width + 2 * x) * channels;
      for (let at = p; at < p + channels; at++, q++) {
        out[q] =
          ((data[at] as number) + (data[at + right] as number) + (data[at + down] as number) + (data[at + right + down] as number) + 2) >>
          2;
      }
    }
  }
  return out;
}

/** Pixels of a row between two exact places. */
const stride = 8;

interface Block {
  /** The first row of the whole band. */
  readonly from: number;
  readonly x0: number;
  readonly x1: number;
  readonly y0: number;
  readonly y1: number;
}

function warpBlock(source: Pixels, scale: number, { widthPx, toOriginal }: WarpPlan, out: Pixels, { from, x0, x1, y0, y1 }: Block): void {
  const { width, height, grey: data, colour } = source;
  const outGrey = out.grey;
  const outColour = out.colour;
  const { a, b, c, d, e, f, g, h, i } = toOriginal;
  const maxX = width - 3;
  const maxY = height - 3;
  const fine = scale * phases * 16;
  for (let y = y0; y < y1; y++) {
    const v = y + 0.5;
    const nx = c * v + e;
    const ny = d * v + f;
    const nw = h * v + i;
    let q = (y - from) * widthPx + x0;
    for (let x = x0; x < x1; x += stride) {
      const end = Math.min(x1, x + stride);
      const count = end - x;
      const w = g * (x + 0.5) + nw;
      const wEnd = g * (end + 0.5) + nw;
      if (w <= 0 || wEnd <= 0) {
        q += count;
        continue;
      }
      // Places in 1/4096 pixel, counted from the second of the four pixels' centres, with half of 1/256 more to round down.
      const fromX = ((a * (x + 0.5) + nx) / w) * fine - 2040;
      const fromY = ((b * (x + 0.5) + ny) / w) * fine - 2040;
      const stepX = Math.round((((a * (end + 0.5) + nx) / wEnd) * fine - 2040 - fromX) / count) | 0;
      const stepY = Math.round((((b * (end + 0.5) + ny) / wEnd) * fine - 2040 - fromY) / count) | 0;
      let atX = Math.round(fromX) | 0;
      let atY = Math.round(fromY) | 0;
      for (let k = 0; k < count; k++) {
        const sx = atX >> 4;
        const sy = atY >> 4;
        atX = (atX + stepX) | 0;
        atY = (atY + stepY) | 0;
        const px = sx >> 8;
        const py = sy >> 8;
        let near = -1;
        if (px >= 1 && py >= 1 && px <= maxX && py <= maxY) {
          near = (py + ((sy >> 7) & 1)) * width + px + ((sx >> 7) & 1);
          outGrey[q] = cubicAt(data, (py - 1) * width + px - 1, width, (sx & 255) << 2, (sy & 255) << 2);
        } else if (px >= -1 && py >= -1 && px < width && py < height) {
          // At the rim the nearest pixel serves.
          near = Math.min(height - 1, Math.max(0, py)) * width + Math.min(width - 1, Math.max(0, px));
          outGrey[q] = data[near] as number;
        }
        if (colour && outColour && near >= 0) {
          const lift = (outGrey[q] as number) - (data[near] as number);
          outColour[3 * q] = held((colour[3 * near] as number) + lift);
          outColour[3 * q + 1] = held((colour[3 * near + 1] as number) + lift);
          outColour[3 * q + 2] = held((colour[3 * near + 2] as number) + lift);
        }
        q++;
      }
    }
  }
}

const held = (value: number): number => (value < 0 ? 0 : Math.min(value, 255));

/** Four rows of four pixels, weighted; written out, for this is where the time goes. */
function cubicAt(data: Uint8Array, p: number, row: number, wx: number, wy: number): number {
  const w0 = weights[wx] as number;
  const w1 = weights[wx + 1] as number;
  const w2 = weights[wx + 2] as number;
  const w3 = weights[wx + 3] as number;
  const p1 = p + row;
  const p2 = p1 + row;
  const p3 = p2 + row;
  const a =
    Math.imul(w0, data[p] as number) +
    Math.imul(w1, data[p + 1] as number) +
    Math.imul(w2, data[p + 2] as number) +
    Math.imul(w3, data[p + 3] as number);
  const b =
    Math.imul(w0, data[p1] as number) +
    Math.imul(w1, data[p1 + 1] as number) +
    Math.imul(w2, data[p1 + 2] as number) +
    Math.imul(w3, data[p1 + 3] as number);
  const c =
    Math.imul(w0, data[p2] as number) +
    Math.imul(w1, data[p2 + 1] as number) +
    Math.imul(w2, data[p2 + 2] as number) +
    Math.imul(w3, data[p2 + 3] as number);
  const d =
    Math.imul(w0, data[p3] as number) +
    Math.imul(w1, data[p3 + 1] as number) +
    Math.imul(w2, data[p3 + 2] as number) +
    Math.imul(w3, data[p3 + 3] as number);
  const sum =
    Math.imul(weights[wy] as number, a >> 4) +
    Math.imul(weights[wy + 1] as number, b >> 4) +
    Math.imul(weights[wy + 2] as number, c >> 4) +
    Math.imul(weights[wy + 3] as number, d >> 4);
  // 4096 x 256 is one: rounded, and held between black and white.
  const value = (sum + (1 << 19)) >> 20;
  return held(value);
}
