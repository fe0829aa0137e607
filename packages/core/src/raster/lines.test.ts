/** From ink to lines: thinning, the network of chains, the middle of a stroke. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { centreline, edgeAlong } from './centreline.ts';
import { type GreyPicture, greyPicture } from './grey.ts';
import { blankMask, inkCount, inkMask, inkOf, isInk, type Mask } from './ink-mask.ts';
import { normalizedIllumination } from './local-threshold.ts';
import { mergedJunctions, pruned, type Skeleton, skeletonOf } from './skeleton.ts';
import { thinned } from './thinning.ts';

function maskOf(rows: readonly string[]): Mask {
  const mask = blankMask((rows[0] as string).length, rows.length);
  rows.forEach((row, y) => {
    [...row].forEach((character, x) => {
      const p = (y + 1) * mask.width + x + 1;
      if (character === '#') mask.words[p >> 5] = (mask.words[p >> 5] as number) | (1 << (p & 31));
    });
  });
  return mask;
}

/** Thins in place, and gives what is left. */
function thin(mask: Mask): number[] {
  for (const _ of thinned(mask));
  return inkOf(mask);
}

/** How many parts hang together by 8-neighbours, and how many by 4-neighbours among what is not ink. */
function parts(mask: Mask, ink: boolean): number {
  const { width, height } = mask;
  const size = width * height;
  const seen = new Uint8Array(size);
  const around = ink ? [1, -1, width, -width, width + 1, width - 1, -width + 1, -width - 1] : [1, -1, width, -width];
  let count = 0;
  for (let start = 0; start < size; start++) {
    if (seen[start] || isInk(mask, start) !== ink) continue;
    count++;
    for (const queue = [start]; queue.length > 0; ) {
      const p = queue.pop() as number;
      if (p < 0 || p >= size || seen[p] || isInk(mask, p) !== ink) continue;
      seen[p] = 1;
      for (const d of around) queue.push(p + d);
    }
  }
  return count;
}

const bar = (width: number, height: number) => Array.from({ length: height }, () => '#'.repeat(width));

describe('ink as bits', () => {
  it('are the pixels darker than the level, for any width, start and level', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 75 }),
        fc.integer({ min: 1, max: 5 }),
        fc.integer({ min: 0, max: 3 }),
        fc.integer({ min: 0, max: 254 }),
        fc.integer(),
        (width, height, skip, below, seed) => {
          const bytes = Uint8Array.from({ length: skip + width * height }, (_, k) => (Math.imul(k + seed, 0x9e3779b1) >>> 24) & 255);
          const data = bytes.subarray(skip);
          const mask = inkMask({ width, height, data }, below + 0.5);
          const dark = Array.from(data.keys()).filter((p) => (data[p] as number) <= below);
          const home = (p: number) => (Math.floor(p / width) + 1) * mask.width + 1 + (p % width);
          expect(inkOf(mask)).toEqual(dark.map(home));
          expect(inkCount(mask)).toBe(dark.length);
        },
      ),
      { numRuns: lawRuns(300) },
    );
  });
});

describe('thinned ink', () => {
  it('of a bar is one line of pixels in its middle row', () => {
    const mask = maskOf(bar(31, 7));
    const pixels = thin(mask);
    expect(new Set(pixels.map((p) => Math.floor(p / mask.width)))).toEqual(new Set([4]));
    expect(pixels.length).toBeGreaterThan(20);
  });
  it('hangs together as the ink did and keeps its holes, whatever the ink', () => {
    // Wider than a word of pixels.
    fc.assert(
      fc.property(fc.array(fc.array(fc.boolean(), { minLength: 45, maxLength: 45 }), { minLength: 12, maxLength: 12 }), (rows) => {
        const mask = maskOf(rows.map((row) => row.map((on) => (on ? '#' : '.')).join('')));
        const before = [parts(mask, true), parts(mask, false)];
        thin(mask);
        expect([parts(mask, true), parts(mask, false)]).toEqual(before);
      }),
      { numRuns: lawRuns(300) },
    );
  });
  it('leaves no pixel that could go: none but ends is simple', () => {
    const mask = maskOf([...bar(20, 5), ...Array.from({ length: 9 }, () => `${'.'.repeat(8)}#####${'.'.repeat(7)}`)]);
    const pixels = thin(mask);
    expect(thin({ ...mask, words: mask.words.slice() })).toEqual(pixels);
  });
});

const skeletonFrom = (rows: readonly string[]): Skeleton => {
  const mask = maskOf(rows);
  thin(mask);
  return skeletonOf(mask);
};

describe('the network of thinned lines', () => {
  const cross = Array.from({ length: 41 }, (_, y) =>
    Array.from({ length: 41 }, (__, x) => (Math.abs(x - 20) <= 2 || Math.abs(y - 20) <= 2 ? '#' : '.')).join(''),
  );
  it('of a cross has four arms from one junction, once its double is merged', () => {
    const { chains } = pruned(mergedJunctions(skeletonFrom(cross), 8), 6);
    expect(chains).toHaveLength(4);
    const inner = chains.flatMap(({ nodes }) => nodes).filter((n, _, all) => all.filter((m) => m === n).length === 4);
    expect(new Set(inner).size).toBe(1);
  });
  it('of a ring is one closed chain without nodes', () => {
    const ring = Array.from({ length: 41 }, (_, y) =>
      Array.from({ length: 41 }, (__, x) => (Math.abs(Math.hypot(x - 20, y - 20) - 14) <= 2 ? '#' : '.')).join(''),
    );
    const { chains } = pruned(skeletonFrom(ring), 6);
    expect(chains.map(({ nodes }) => nodes)).toEqual([[-1, -1]]);
    expect((chains[0] as Skeleton['chains'][0]).pixels.length).toBeGreaterThan(70);
  });
  it('loses its spurs and keeps what is longer', () => {
    const spurred = Array.from({ length: 30 }, (_, y) =>
      Array.from({ length: 60 }, (__, x) => (y === 20 || (x === 30 && y > 15 && y < 20) ? '#' : '.')).join(''),
    );
    expect(skeletonFrom(spurred).chains).toHaveLength(3);
    const { chains } = pruned(skeletonFrom(spurred), 7);
    expect(chains).toHaveLength(1);
    expect((chains[0] as Skeleton['chains'][0]).pixels).toHaveLength(60);
    expect(pruned(skeletonFrom(spurred), 3).chains).toHaveLength(3);
  });
});

/** A soft band of grey between two lines, dark where it is; exact for a Gaussian edge nearly. */
function band(angle: number, offset: number, half: number): GreyPicture {
  const [width, height] = [120, 100];
  const [nx, ny] = [-Math.sin(angle), Math.cos(angle)];
  const soft = (d: number) => 1 / (1 + Math.exp(-2.2 * d));
  return greyPicture(
    Uint8Array.from({ length: width * height }, (_, k) => {
      const d = nx * ((k % width) + 0.5 - 60) + ny * (Math.floor(k / width) + 0.5 - 50) - offset;
      return Math.round(235 - 195 * soft(half - Math.abs(d)));
    }),
    width,
    height,
  );
}

describe('the middle of a stroke', () => {
  it('is exact between pixels at any angle, from a rough course', () => {
    fc.assert(
      fc.property(fc.double({ min: -1.4, max: 1.4, noNaN: true }), fc.double({ min: -3, max: 3, noNaN: true }), (angle, offset) => {
        const picture = band(angle, offset, 5);
        const [c, s] = [Math.cos(angle), Math.sin(angle)];
        const rough = Float64Array.from({ length: 160 }, (_, k) => {
          const t = (k >> 1) - 40;
          const at = k % 2 === 0 ? 60 + c * t * 0.8 - s * offset : 50 + s * t * 0.8 + c * offset;
          return Math.floor(at) + 0.5;
        });
        const { points, width } = centreline(picture, 137.5, rough, false, 10);
        expect(points.length).toBeGreaterThan(60);
        for (let k = 0; k < points.length; k += 2) {
          const d = -s * ((points[k] as number) - 60) + c * ((points[k + 1] as number) - 50) - offset;
          expect(Math.abs(d)).toBeLessThan(0.12);
        }
        expect(Math.abs(width - 10)).toBeLessThan(0.3);
      }),
      { numRuns: lawRuns(60), seed: 7 },
    );
  });
  it('tells how far ink reaches, and nothing where there is none or it does not end', () => {
    const picture = band(0, 0, 5);
    expect(edgeAlong(picture, 137.5, 60, 50, 0, 1, 20)).toBeCloseTo(5, 1);
    expect(edgeAlong(picture, 137.5, 60, 50, 1, 0, 20)).toBeNaN();
    expect(edgeAlong(picture, 137.5, 60, 20, 0, 1, 20)).toBeNaN();
  });
});

describe('a picture evened out', () => {
  it('keeps every border where it was under even light: half way between ink and paper', () => {
    const picture = band(0.3, 1, 8);
    const even = normalizedIllumination(picture, 60);
    let off = 0;
    picture.data.forEach((v, k) => {
      if (v < 100) expect(even.data[k]).toBeLessThan(127.5);
      if (v > 175) expect(even.data[k]).toBeGreaterThan(127.5);
      if (Math.abs(v - 137.5) < 20 && v < 137.5 !== (even.data[k] as number) < 127.5) off++;
    });
    expect(off).toBeLessThan(30);
  });
  it('finds no ink on paper that only grows darker to one side', () => {
    const shaded = greyPicture(
      Uint8Array.from({ length: 200 * 150 }, (_, k) => 235 - (k % 200) * 0.4 + ((k * 7919) % 5)),
      200,
      150,
    );
    const even = normalizedIllumination(shaded, 40);
    expect(even.data.filter((v) => v < 127.5).length).toBe(0);
  });
});
