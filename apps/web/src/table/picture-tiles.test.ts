/** Which tiles of a picture are fetched and drawn: as fine as the screen, only those in sight, coarse ones until then. */

import { newPicture, type RasterSource, rasterSourceOf } from '@nuvet/core/job';
import { asProjection, inverseProjection } from '@nuvet/core/plane';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { levelSize } from '../shared/pyramid';
import { coordinatesOf } from './coordinates';
import { PictureTiles } from './picture-tiles';

/** An image that is there as soon as it is let. */
class Fetched {
  static readonly all: Fetched[] = [];
  onload: () => void = () => {};
  onerror: () => void = () => {};
  naturalWidth = 512;
  naturalHeight = 512;
  src = '';
  constructor() {
    Fetched.all.push(this);
  }
}
const asked = () => Fetched.all.map(({ src }) => src.split('/tiles/')[1] as string);
const arrive = (isWanted = (_: string) => true) => {
  for (const image of [...Fetched.all]) if (isWanted(image.src)) image.onload();
};

interface Drawn {
  readonly src: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
}
function canvas(): { drawn: Drawn[]; context: CanvasRenderingContext2D } {
  const drawn: Drawn[] = [];
  const context = {
    save() {},
    restore() {},
    transform() {},
    drawImage: ({ src }: Fetched, x: number, y: number, width: number) =>
      drawn.push({ src: src.split('/tiles/')[1] as string, x, y, width }),
  };
  return { drawn, context: context as unknown as CanvasRenderingContext2D };
}

beforeEach(() => {
  Fetched.all.length = 0;
  vi.stubGlobal('Image', Fetched);
});
afterEach(() => vi.unstubAllGlobals());

const screen = { width: 900, height: 700 };
const at = (scale: number, x = 0, y = 0) => ({ a: scale, b: 0, c: 0, d: scale, e: x, f: y });

describe('tiles', () => {
  it('are of the level whose pixels are as fine as those of the screen, never coarser than half', () => {
    const tiles = new PictureTiles('p', 7016, 4961);
    expect([2, 1, 0.9, 0.5, 0.49, 0.25, 0.1, 0.001].map((share) => tiles.levelFor(share))).toEqual([0, 0, 0, 1, 1, 2, 3, 4]);
  });
  it('in sight are asked for, each once, with one coarse tile below them all', () => {
    const tiles = new PictureTiles('p', 7016, 4961);
    const { context } = canvas();
    tiles.draw(context, at(1, -1100, -600), screen, 1);
    // From pixel 1100 to 2000 across and 600 to 1300 down: columns 2 and 3, rows 1 and 2.
    expect(
      asked()
        .filter((key) => key.startsWith('0/'))
        .sort(),
    ).toEqual(['0/2/1', '0/2/2', '0/3/1', '0/3/2']);
    expect(asked()).toContain('4/0/0');
    const before = Fetched.all.length;
    tiles.draw(context, at(1, -1100, -600), screen, 1);
    expect(Fetched.all).toHaveLength(before);
  });
  it('are drawn once they have come, coarse ones first, where they belong', () => {
    const tiles = new PictureTiles('p', 7016, 4961);
    const heard = vi.fn();
    const end = tiles.onTile(heard);
    const { drawn, context } = canvas();
    tiles.draw(context, at(1, -1100, -600), screen, 1);
    expect(drawn).toEqual([]);
    arrive((src) => src.endsWith('4/0/0'));
    tiles.draw(context, at(1, -1100, -600), screen, 1);
    expect(drawn.map(({ src }) => src)).toEqual(['4/0/0']);
    expect(drawn[0]?.width).toBeCloseTo((512 * 7016) / levelSize(7016, 4961, 4).width, 6);
    arrive();
    drawn.length = 0;
    tiles.draw(context, at(1, -1100, -600), screen, 1);
    expect(drawn[0]?.src).toBe('4/0/0');
    expect(drawn.filter(({ src }) => src.startsWith('0/')).map(({ src, x, y }) => [src, x, y])).toContainEqual(['0/3/2', 3 * 512, 2 * 512]);
    expect(heard).toHaveBeenCalled();
    end();
  });
  it('that could not be had are asked for again', () => {
    const tiles = new PictureTiles('p', 400, 300);
    const { context } = canvas();
    tiles.draw(context, at(1), screen, 1);
    Fetched.all[0]?.onerror();
    tiles.draw(context, at(1), screen, 1);
    expect(asked()).toEqual(['0/0/0', '0/0/0']);
  });
  it('beyond some hundreds are let go, the longest unused first', () => {
    const tiles = new PictureTiles('p', 30_000, 20_000);
    const { context } = canvas();
    const place = (k: number) => at(1, -900 * (k % 12), -700 * Math.floor(k / 12));
    for (let k = 0; k < 144; k++) tiles.draw(context, place(k), screen, 1);
    const count = Fetched.all.length;
    expect(count).toBeGreaterThan(400);
    tiles.draw(context, place(143), screen, 1);
    expect(Fetched.all).toHaveLength(count);
    tiles.draw(context, at(1), screen, 1);
    expect(Fetched.all.length).toBeGreaterThan(count);
  });
  it('cover the window wherever it is over the picture', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.02, max: 4, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (scale, u, v) => {
          Fetched.all.length = 0;
          const tiles = new PictureTiles('p', 5000, 3600);
          const [x, y] = [-u * 5000 * scale + screen.width * u, -v * 3600 * scale + screen.height * v];
          tiles.draw(canvas().context, at(scale, x, y), screen, 1);
          const finest = tiles.levelFor(scale);
          const keys = new Set(asked().filter((key) => key.startsWith(`${finest}/`)));
          const { width } = levelSize(5000, 3600, finest);
          const fineness = width / 5000;
          for (const [sx, sy] of [
            [1, 1],
            [screen.width - 1, screen.height - 1],
            [screen.width / 2, screen.height / 2],
          ] as const) {
            // biome-ignore format: places
            const [px, py] = [(sx - x) / scale, (sy - y) / scale];
            if (px < 0 || py < 0 || px >= 4999 || py >= 3599) continue;
            expect(keys).toContain(`${finest}/${Math.floor((px * fineness) / 512)}/${Math.floor((py * fineness) / 512)}`);
          }
        },
      ),
      { numRuns: lawRuns(60) },
    );
  });
});

describe('the ground under a picture', () => {
  const id = '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10';
  const picture = newPicture({
    id,
    name: 'heron.png',
    widthPx: 1200,
    heightPx: 900,
    resolution: { dpi: 300, source: 'png', trusted: true },
  });
  const view = { scale: 6, x: 40, y: 500 };
  const place = fc.record({ x: fc.double({ min: 0, max: 1200, noNaN: true }), y: fc.double({ min: 0, max: 900, noNaN: true }) });
  it('leads from the picture to the screen and back', () => {
    const coordinates = coordinatesOf(picture, rasterSourceOf(picture, null), view);
    fc.assert(
      fc.property(place, (p) => {
        const back = coordinates.toOriginal(coordinates.toScreen(p));
        expect(Math.hypot(back.x - p.x, back.y - p.y)).toBeLessThan(1e-9);
      }),
    );
    // A pixel is 25.4/300 mm, six screen pixels each.
    expect(coordinates.scale).toBeCloseTo((6 * 25.4) / 300, 9);
  });
  it('of a photograph laid flat leads through what it was laid flat by', () => {
    const toOriginal = { ...asProjection({ a: 0.9, b: 0.05, c: 0.1, d: 1.1, e: 30, f: 10 }), g: 1e-4, h: -2e-4 };
    const flat: RasterSource = { ...rasterSourceOf(picture, null), id: 'flat', toOriginal };
    const coordinates = coordinatesOf(picture, flat, view);
    fc.assert(
      fc.property(place, (p) => {
        const back = coordinates.toOriginal(coordinates.toScreen(p));
        expect(Math.hypot(back.x - p.x, back.y - p.y)).toBeLessThan(1e-6);
      }),
    );
    const rasterPoint = { x: 200, y: 300 };
    const original = coordinates.originalOf(rasterPoint);
    const there = inverseProjection(toOriginal);
    const w = there.g * original.x + there.h * original.y + there.i;
    expect((there.a * original.x + there.c * original.y + there.e) / w).toBeCloseTo(200, 6);
  });
  it('keeps a place that is pulled over the rim within the picture', () => {
    const coordinates = coordinatesOf(picture, rasterSourceOf(picture, null), view);
    const outside = coordinates.toOriginal({ x: -4000, y: 9000 });
    expect(outside.x === 0 || outside.x === 1200).toBe(true);
    expect(outside.y === 0 || outside.y === 900).toBe(true);
  });
});
