import { circlePath, pathArea, polygonPath } from '@nuvet/core/plane';
import fc from 'fast-check';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { coverageOf } from './coverage.ts';
import {
  brushStroke,
  curveThrough,
  demoJobs,
  deviationOf,
  ellipse,
  piece,
  plateScene,
  pngOf,
  rectangle,
  ringSector,
  roundedRectangle,
  scanScene,
  star,
} from './index.ts';
import { normalTable, randomFrom } from './random.ts';

const sumOf = (cells: ArrayLike<number>) => Array.from(cells).reduce((a, b) => a + b, 0);

describe('coverage', () => {
  it('adds up to the area of what is drawn, for any triangle', () => {
    const at = fc.record({ x: fc.double({ min: 1, max: 49, noNaN: true }), y: fc.double({ min: 1, max: 49, noNaN: true }) });
    fc.assert(
      fc.property(at, at, at, (a, b, c) => {
        const triangle = polygonPath([a, b, c]);
        expect(sumOf(coverageOf([triangle], 50, 50))).toBeCloseTo(Math.abs(pathArea(triangle)), 2);
      }),
    );
  });
  it('of a pixel is what lies in it: a rectangle from 2.25 to 5.5 covers 0.75, 1, 1, 0.5 of its row', () => {
    const cells = coverageOf([rectangle(2.25, 1, 3.25, 1)], 8, 3);
    expect(Array.from(cells.slice(8, 16), (v) => Number(v.toFixed(6)))).toEqual([0, 0, 0.75, 1, 1, 0.5, 0, 0]);
    expect(sumOf(cells.slice(0, 8)) + sumOf(cells.slice(16))).toBeCloseTo(0, 6);
  });
  it('agrees with librsvg within two greys of 255 on a disc', async () => {
    const svg = '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="60"><circle cx="30.4" cy="29.8" r="21.3"/></svg>';
    const theirs = await sharp(Buffer.from(svg)).ensureAlpha().extractChannel(3).raw().toBuffer();
    const ours = coverageOf([circlePath({ x: 30.4, y: 29.8 }, 21.3)], 60, 60);
    let off = 0;
    for (let p = 0; p < ours.length; p++) off = Math.max(off, Math.abs((ours[p] as number) * 255 - (theirs[p] as number)));
    expect(off).toBeLessThan(12);
    expect(Math.abs(sumOf(ours) - sumOf(theirs) / 255) / sumOf(ours)).toBeLessThan(0.002);
  });
  it("takes holes out and clips at the picture's edge", () => {
    const { outer, holes } = piece(rectangle(2, 2, 10, 10), [rectangle(4, 4, 3, 3)]);
    expect(sumOf(coverageOf([outer, ...holes], 20, 20))).toBeCloseTo(91, 4);
    expect(sumOf(coverageOf([rectangle(-5, -5, 10, 10)], 20, 20))).toBeCloseTo(25, 4);
    expect(sumOf(coverageOf([rectangle(15, 15, 30, 30)], 20, 20))).toBeCloseTo(25, 4);
  });
});

describe('a scan', () => {
  const settings = { dpi: 100, tiltDegrees: 1.3, noise: 5, seed: 3 };
  it('is the same for the same seed, and another for another', () => {
    const [a, b, c] = [settings, settings, { ...settings, seed: 4 }].map((s) => Buffer.from(scanScene(plateScene, s).picture.data));
    expect(a?.equals(b as Buffer)).toBe(true);
    expect(a?.equals(c as Buffer)).toBe(false);
  });
  it('has the size of its paper, the tones asked for, and their noise', () => {
    const { picture } = scanScene(plateScene, { ...settings, dpi: 200, paper: 220, ink: 50, grain: 0 });
    expect([picture.width, picture.height]).toEqual([Math.round((120 / 25.4) * 200), Math.round((90 / 25.4) * 200)]);
    const patch = (x0: number, y0: number) =>
      Array.from({ length: 60 * 60 }, (_, k) => picture.data[(y0 + Math.floor(k / 60)) * picture.width + x0 + (k % 60)] as number);
    for (const [values, tone] of [
      [patch(10, 10), 220],
      [patch(440, 180), 50],
    ] as const) {
      const mean = sumOf(values) / values.length;
      expect(mean).toBeCloseTo(tone, 0);
      expect(Math.sqrt(sumOf(values.map((v) => (v - mean) ** 2)) / values.length)).toBeCloseTo(5, 0);
    }
  });
  it('tells where everything lies: a mark across the plate is 90 mm long in pixels and tilted as the paper', () => {
    const scan = scanScene(plateScene, settings);
    const [a, b] = (plateScene.marks?.width ?? []).map((p) => scan.at(p)) as [{ x: number; y: number }, { x: number; y: number }];
    expect(Math.hypot(b.x - a.x, b.y - a.y) * scan.mmPerPx).toBeCloseTo(90, 9);
    expect((Math.atan2(a.y - b.y, b.x - a.x) * 180) / Math.PI).toBeCloseTo(1.3, 9);
  });
  it('becomes a PNG that opens elsewhere at its resolution', async () => {
    const scan = scanScene(plateScene, settings);
    const info = await sharp(await pngOf(scan.picture, 100)).metadata();
    expect(info).toMatchObject({ format: 'png', width: scan.picture.width, height: scan.picture.height, density: 100 });
  });
});

describe('random numbers', () => {
  it('have the deviation and mean that they should', () => {
    const table = normalTable(randomFrom(9), 1 << 16);
    const mean = sumOf(table) / table.length;
    expect(Math.abs(mean)).toBeLessThan(0.02);
    expect(sumOf(table.map((v) => (v - mean) ** 2)) / table.length).toBeCloseTo(1, 1);
  });
});

describe('shapes', () => {
  it('have the areas of their closed forms', () => {
    const c = { x: 4, y: -3 };
    expect(pathArea(roundedRectangle(0, 0, 40, 20, 5))).toBeCloseTo(800 - (4 - Math.PI) * 25, 9);
    expect(pathArea(ellipse(c, 15, 8, 0.4))).toBeCloseTo(Math.PI * 120, 3);
    expect(Math.abs(pathArea(ringSector(c, 10, 14, 0.3, 1.4)))).toBeCloseTo((1.1 * (196 - 100)) / 2, 9);
    // Ten triangles with two sides of 20 and 8 and 36 degrees between.
    expect(Math.abs(pathArea(star(c, 5, 20, 8)))).toBeCloseTo(10 * 0.5 * 20 * 8 * Math.sin(Math.PI / 5), 9);
  });
  it('a curve through points goes through them, and is smooth but at corners', () => {
    const path = curveThrough([
      [0, 0, 'corner'],
      [20, 14],
      [45, 10],
      [60, 0, 'corner'],
      [30, -12],
    ]);
    expect(path.segments.map((s) => s.to)).toEqual([
      { x: 20, y: 14 },
      { x: 45, y: 10 },
      { x: 60, y: 0 },
      { x: 30, y: -12 },
      { x: 0, y: 0 },
    ]);
    const cubics = path.segments as unknown as readonly {
      c1: { x: number; y: number };
      c2: { x: number; y: number };
      to: { x: number; y: number };
    }[];
    const bend = (k: number) => {
      const [before, after] = [cubics[k] as (typeof cubics)[0], cubics[k + 1] as (typeof cubics)[0]];
      const [u, v] = [
        { x: before.to.x - before.c2.x, y: before.to.y - before.c2.y },
        { x: after.c1.x - before.to.x, y: after.c1.y - before.to.y },
      ];
      return Math.abs(Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y));
    };
    expect(bend(0)).toBeLessThan(1e-9);
    expect(bend(1)).toBeLessThan(1e-9);
    expect(bend(2)).toBeGreaterThan(0.5);
  });
  it('a brush stroke is as wide as asked and turns counter-clockwise', () => {
    const stroke = brushStroke([
      [0, 0, 4],
      [20, 0, 4],
      [40, 0, 4],
    ]);
    expect(pathArea(stroke)).toBeCloseTo(160, 3);
  });
});

describe('the demo jobs', () => {
  it.each(demoJobs.map((d) => [d.name, d] as const))(
    '%s: outer outlines counter-clockwise, holes clockwise and inside, marks on the paper',
    (_, { scene, known, check }) => {
      for (const { outer, holes } of scene.pieces) {
        expect(pathArea(outer)).toBeGreaterThan(0);
        for (const hole of holes) expect(pathArea(hole)).toBeLessThan(0);
      }
      for (const name of [known.mark, check, 'level']) {
        const ends = scene.marks?.[name] ?? [];
        expect(ends).toHaveLength(2);
        for (const { x, y } of ends) {
          expect(x > 0 && x < scene.widthMm && y > 0 && y < scene.heightMm).toBe(true);
        }
      }
    },
  );
});

describe('deviation', () => {
  it('of a circle from one 0.1 mm larger is 0.1 mm, at worst and on average', () => {
    const { rmsMm, worstMm } = deviationOf([circlePath({ x: 0, y: 0 }, 10)], [circlePath({ x: 0, y: 0 }, 10.1)]);
    expect(rmsMm).toBeCloseTo(0.1, 3);
    expect(worstMm).toBeCloseTo(0.1, 3);
  });
  it('sees a corner that the trace has lost, though every traced point lies on the truth', () => {
    const truth = polygonPath([
      { x: 0, y: 0 },
      { x: 20, y: 0 },
      { x: 20, y: 20 },
      { x: 0, y: 20 },
    ]);
    const clipped = polygonPath([
      { x: 0, y: 0 },
      { x: 20, y: 0 },
      { x: 20, y: 19 },
      { x: 19, y: 20 },
      { x: 0, y: 20 },
    ]);
    expect(deviationOf([clipped], [truth]).worstMm).toBeCloseTo(Math.SQRT1_2, 3);
  });
});
