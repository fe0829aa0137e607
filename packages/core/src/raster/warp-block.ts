/**
 * In: a picture's pixels, a projection and a block of the wanted picture. Out: the block, drawn.
 * Rests on: cubic convolution (Keys 1981, a = -1/2) in WebAssembly with 128-bit vectors (warp-kernel.wat). What the
 * block is drawn from is copied to the kernel's memory with the rim repeated, so that memory stays small and no pixel
 * is a special case.
 */
import type { Projection } from '../plane/projection.ts';
import { outside, type Pixels, type WarpPlan } from './pixels.ts';
import { kernelBytes } from './warp-kernel.ts';

/** In pixels of the wanted picture; x1 and y1 are the first beyond. */
export interface Block {
  readonly x0: number;
  readonly x1: number;
  readonly y0: number;
  readonly y1: number;
}

interface Kernel {
  readonly memory: { readonly buffer: ArrayBuffer; grow(pages: number): number };
  greySpan(grey: number, row: number, out: number, count: number, x: number, y: number, dx: number, dy: number): void;
  // biome-ignore format: one line
  colourSpan(grey: number, colour: number, row: number, made: number, out: number, count: number, x: number, y: number, dx: number, dy: number): void;
}

const phases = 256;
/** Weights of four pixels in a row, in 1/4096, for each phase between the second and the third. */
const weights = (() => {
  const table = new Int16Array(phases * 4);
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

/** What core knows of WebAssembly, which every place that it runs in has. */
interface WebAssemblyLike {
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (module: object) => { readonly exports: unknown };
}

let started: { readonly kernel: Kernel; bytes: Uint8Array } | null = null;

/** The kernel with room for so many bytes. */
function kernelWith(size: number): { readonly kernel: Kernel; readonly bytes: Uint8Array } {
  if (!started) {
    const { WebAssembly, atob } = globalThis as unknown as { WebAssembly: WebAssemblyLike; atob(text: string): string };
    const code = Uint8Array.from(atob(kernelBytes), (character) => character.charCodeAt(0));
    const kernel = new WebAssembly.Instance(new WebAssembly.Module(code)).exports as Kernel;
    new Int16Array(kernel.memory.buffer).set(weights);
    started = { kernel, bytes: new Uint8Array(kernel.memory.buffer) };
  }
  const { kernel, bytes } = started;
  if (size > bytes.length) {
    kernel.memory.grow(Math.ceil((size - bytes.length) / 65536));
    started.bytes = new Uint8Array(kernel.memory.buffer);
  }
  return started;
}

/** Pixels of a row between two exact places. */
const stride = 8;
/** Room about what a block is drawn from: the cubic's reach, and what rounding may take. */
const margin = 4;

/**
 * Draws a block; what the picture does not reach is paper.
 * @param scale of the level that `source` is, against the original
 * @param from the row of the wanted picture that is the first of `out`
 */
export function warpBlock(source: Pixels, scale: number, plan: WarpPlan, out: Pixels, from: number, block: Block): void {
  const { x0, x1, y0, y1 } = block;
  const drawn = drawnFrom(source, scale, plan.toOriginal, block);
  if (drawn === 'behind') {
    // Part of it lies beyond the horizon: halved until it is wholly on one side, or a pixel.
    if (x1 - x0 < 2 && y1 - y0 < 2) return;
    const [midX, midY] = [(x0 + x1 + 1) >> 1, (y0 + y1 + 1) >> 1];
    for (const [a, b] of [[x0, midX], [midX, x1]] as const) // biome-ignore format: halves
      for (const [c, d] of [[y0, midY], [midY, y1]] as const) // biome-ignore format: halves
        if (a < b && c < d) warpBlock(source, scale, plan, out, from, { x0: a, x1: b, y0: c, y1: d });
    return;
  }
  if (!drawn) return;
  const [width, height] = [drawn.x1 - drawn.x0, drawn.y1 - drawn.y0];
  const hasColour = source.colour !== null && out.colour !== null;
  const at = layout(width * height, x1 - x0, hasColour);
  const { kernel, bytes } = kernelWith(at.size);
  copyIn(source.grey, source, 1, drawn, bytes, at.grey);
  if (hasColour) copyIn(source.colour as Uint8Array, source, 3, drawn, bytes, at.colour);
  const spans = spansOf(kernel, at, { source, scale, toOriginal: plan.toOriginal, drawn, hasColour });
  const columns = x1 - x0;
  for (let y = y0; y < y1; y++) {
    const row = (y - from) * plan.widthPx + x0;
    bytes.fill(outside, at.made, at.size);
    for (let x = x0; x < x1; x += stride) spans(x, Math.min(x1, x + stride), y, x - x0);
    out.grey.set(bytes.subarray(at.made, at.made + columns), row);
    if (hasColour) (out.colour as Uint8Array).set(bytes.subarray(at.madeColour, at.madeColour + 3 * columns), 3 * row);
  }
}

/** Where everything lies in the kernel's memory, by bytes; a row of what is made at a time. */
function layout(pixels: number, made: number, hasColour: boolean) {
  const grey = weights.byteLength;
  const colour = grey + pixels + 4;
  const madeAt = colour + (hasColour ? 3 * pixels + 4 : 0);
  const madeColour = madeAt + made + 4;
  return { grey, colour, made: madeAt, madeColour, size: madeColour + 3 * made + 4 };
}

/** The part of the picture that a block is drawn from, with its margin; null where it lies outside altogether. */
function drawnFrom({ width, height }: Pixels, scale: number, p: Projection, { x0, x1, y0, y1 }: Block): Block | 'behind' | null {
  let [minX, maxX, minY, maxY] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const x of [x0, x1])
    for (const y of [y0, y1]) {
      const w = p.g * x + p.h * y + p.i;
      if (w <= 0) return 'behind';
      const [u, v] = [((p.a * x + p.c * y + p.e) / w) * scale, ((p.b * x + p.d * y + p.f) / w) * scale];
      [minX, maxX, minY, maxY] = [Math.min(minX, u), Math.max(maxX, u), Math.min(minY, v), Math.max(maxY, v)];
    }
  const [left, right] = [Math.max(-margin, Math.floor(minX) - margin), Math.min(width + margin, Math.ceil(maxX) + margin)];
  const [top, bottom] = [Math.max(-margin, Math.floor(minY) - margin), Math.min(height + margin, Math.ceil(maxY) + margin)];
  return left < right && top < bottom ? { x0: left, x1: right, y0: top, y1: bottom } : null;
}

/** A part of a picture, which may reach over its rim, with the rim repeated. */
function copyIn(data: Uint8Array, { width, height }: Pixels, channels: number, part: Block, bytes: Uint8Array, at: number): void {
  const [left, right] = [Math.max(0, part.x0), Math.min(width, part.x1)];
  const [before, beyond] = [Math.min(left, width) - part.x0, part.x1 - Math.max(right, 0)];
  for (let y = part.y0, p = at; y < part.y1; y++) {
    const row = Math.max(0, Math.min(height - 1, y)) * width;
    for (let k = 0; k < before; k++, p += channels) copyPixel(data, row * channels, channels, bytes, p);
    if (left < right) bytes.set(data.subarray((row + left) * channels, (row + right) * channels), p);
    p += Math.max(0, right - left) * channels;
    for (let k = 0; k < beyond; k++, p += channels) copyPixel(data, (row + width - 1) * channels, channels, bytes, p);
  }
}

function copyPixel(data: Uint8Array, from: number, channels: number, bytes: Uint8Array, to: number): void {
  for (let k = 0; k < channels; k++) bytes[to + k] = data[from + k] as number;
}

interface Drawing {
  readonly source: Pixels;
  readonly scale: number;
  readonly toOriginal: Projection;
  readonly drawn: Block;
  readonly hasColour: boolean;
}

/** Draws the pixels from x to `end` of row y, to the place `k` of the row being made. */
function spansOf(kernel: Kernel, at: ReturnType<typeof layout>, drawing: Drawing) {
  const { source, scale, toOriginal, drawn, hasColour } = drawing;
  const { a, b, c, d, e, f, g, h, i } = toOriginal;
  const row = drawn.x1 - drawn.x0;
  const fine = scale * phases * 16;
  // Places in 1/4096 pixel, counted from the second of the four pixels' centres, with half of 1/256 more to round down.
  const shiftX = -2040 - 4096 * drawn.x0;
  const shiftY = -2040 - 4096 * drawn.y0;
  // Half a pixel over the rim the rim still serves.
  const [lowX, highX] = [(-1 - drawn.x0) * 4096, (source.width - drawn.x0) * 4096];
  const [lowY, highY] = [(-1 - drawn.y0) * 4096, (source.height - drawn.y0) * 4096];
  const isInside = (x: number, y: number) => x >= lowX && x < highX && y >= lowY && y < highY;
  const draw = (k: number, count: number, x: number, y: number, dx: number, dy: number) => {
    kernel.greySpan(at.grey, row, at.made + k, count, x, y, dx, dy);
    if (hasColour) kernel.colourSpan(at.grey, at.colour, row, at.made + k, at.madeColour + 3 * k, count, x, y, dx, dy);
  };
  return (x: number, end: number, y: number, k: number): void => {
    const count = end - x;
    const v = y + 0.5;
    const w = g * (x + 0.5) + h * v + i;
    const wEnd = g * (end + 0.5) + h * v + i;
    if (w <= 0 || wEnd <= 0) return;
    const fromX = ((a * (x + 0.5) + c * v + e) / w) * fine + shiftX;
    const fromY = ((b * (x + 0.5) + d * v + f) / w) * fine + shiftY;
    const stepX = Math.round((((a * (end + 0.5) + c * v + e) / wEnd) * fine + shiftX - fromX) / count);
    const stepY = Math.round((((b * (end + 0.5) + d * v + f) / wEnd) * fine + shiftY - fromY) / count);
    const atX = Math.round(fromX);
    const atY = Math.round(fromY);
    const last = count - 1;
    if (isInside(atX, atY) && isInside(atX + last * stepX, atY + last * stepY)) draw(k, count, atX, atY, stepX, stepY);
    else {
      for (let j = 0; j < count; j++) {
        const [px, py] = [atX + j * stepX, atY + j * stepY];
        if (isInside(px, py)) draw(k + j, 1, px, py, 0, 0);
      }
    }
  };
}
