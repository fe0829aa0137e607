/** The dark border of a scan told from what was drawn. */
import { fullSheetScene, randomFrom, type Scan, scanScene, starScene, straightScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { type GreyPicture, greyPicture } from '../raster/grey.ts';
import { plainTraceSettings, tracePicture } from './index.ts';

/** The lid about a paper that lies a little turned: dark beyond lines near to some of the sides. */
function bordered({ picture: { width, height, data }, mmPerPx }: Scan, seed: number): { picture: GreyPicture; sides: number } {
  const random = randomFrom(seed);
  const wanted = [0, 1, 2, 3].map(() => random() < 0.6);
  if (!wanted.includes(true)) wanted[seed % 4] = true;
  const lean = (random() - 0.5) * 0.02;
  const reach = wanted.map((is) => (is ? (0.8 + 2.2 * random()) / mmPerPx : -1e6));
  const dark = 12 + 40 * random();
  const out = data.map((v, k) => {
    const [x, y] = [k % width, Math.floor(k / width)];
    const inset = [
      (reach[0] as number) + lean * y - x,
      (reach[1] as number) - lean * x - y,
      (reach[2] as number) + lean * y - (width - x),
      (reach[3] as number) - lean * x - (height - y),
    ];
    const share = Math.min(1, Math.max(0, Math.max(...inset) / 2 + 0.5));
    return Math.round(v + share * (dark + 10 * random() - v));
  });
  return { picture: greyPicture(out, width, height), sides: wanted.filter(Boolean).length };
}

const scenes = [starScene, straightScene, fullSheetScene(3)];

describe('the dark border of a scan', () => {
  it('is told from every piece, whichever sides it is on', () => {
    for (let seed = 1; seed <= lawRuns(12); seed++) {
      const scene = scenes[seed % scenes.length] as (typeof scenes)[0];
      const scan = scanScene(scene, { dpi: 75, seed, tiltDegrees: 0.4 });
      const { picture, sides } = bordered(scan, seed);
      const { pieces } = tracePicture(picture, scan.mmPerPx, plainTraceSettings);
      const drawn = tracePicture(scan.picture, scan.mmPerPx, plainTraceSettings).pieces;
      const found = pieces.filter(({ isScanBorder }) => isScanBorder);
      expect(found.length, `seed ${seed}`).toBeGreaterThan(0);
      expect(found.length, `seed ${seed}`).toBeLessThanOrEqual(sides);
      expect(pieces.length - found.length, `seed ${seed}`).toBe(drawn.length);
    }
  });
  it('is not ink that a side cuts off, however dark', () => {
    const scan = scanScene(starScene, { dpi: 100 });
    const { width, height, data } = scan.picture;
    const half = greyPicture(data.map((v, k) => (k % width < 0.4 * width ? 30 : v)), width, height); // biome-ignore format: one line
    expect(tracePicture(half, scan.mmPerPx, plainTraceSettings).pieces.some(({ isScanBorder }) => isScanBorder)).toBe(false);
    const patch = greyPicture(data.map((v, k) => (k % width < 20 && k < 0.6 * width * height ? 30 : v)), width, height); // biome-ignore format: one line
    expect(tracePicture(patch, scan.mmPerPx, plainTraceSettings).pieces.some(({ isScanBorder }) => isScanBorder)).toBe(false);
  });
  it('is what was meant where there is nothing else', () => {
    const scan = scanScene({ name: 'blank', widthMm: 40, heightMm: 30, pieces: [] }, { dpi: 100 });
    const { pieces } = tracePicture(bordered(scan, 4).picture, scan.mmPerPx, plainTraceSettings);
    expect(pieces.length).toBeGreaterThan(0);
    expect(pieces.some(({ isScanBorder }) => isScanBorder)).toBe(false);
  });
});
