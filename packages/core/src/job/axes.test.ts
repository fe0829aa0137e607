/** Lines on the sheet that a mirror can go by. */
import { describe, expect, it } from 'vitest';
import type { Point } from '../plane/point.ts';
import { emptyJob, knownAxes, type Mark, newPicture, type Picture } from './index.ts';

const picture = newPicture({
  id: '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10',
  name: 'half.png',
  widthPx: 1000,
  heightPx: 800,
  resolution: { dpi: 254, source: 'png', trusted: true },
});
const line = (id: string, kind: 'plumb' | 'level', ...points: Point[]): Mark => ({ id, kind, points, stated: [] });
const jobWith = (one: Picture) => ({ ...emptyJob('axes'), pictures: [one] });

describe('known axes', () => {
  it('are the lines marked plumb and level, where they come to lie on the sheet, running upward and to the right', () => {
    // At 254 dpi a pixel is 0.1 mm; the picture's lower left corner is 0, 0.
    const marks = [line('p', 'plumb', { x: 500, y: 100 }, { x: 500, y: 700 }), line('l', 'level', { x: 900, y: 300 }, { x: 100, y: 300 })];
    const [plumb, level] = knownAxes(jobWith({ ...picture, marks }));
    expect(plumb).toMatchObject({ id: 'p', kind: 'plumb', picture: 'half.png' });
    for (const [point, x, y] of [
      [plumb?.a, 50, 10],
      [plumb?.b, 50, 70],
      [level?.a, 10, 50],
      [level?.b, 90, 50],
    ] as const) {
      expect(point?.x).toBeCloseTo(x, 6);
      expect(point?.y).toBeCloseTo(y, 6);
    }
  });
  it('are upright and across through a datum, and each line once', () => {
    const marks = [line('p', 'plumb', { x: 500, y: 100 }, { x: 500, y: 700 })];
    const axes = knownAxes(jobWith({ ...picture, marks, datum: { x: 500, y: 400 } }));
    expect(axes.map(({ kind }) => kind)).toEqual(['plumb', 'datum-across']);
    expect(knownAxes(jobWith({ ...picture, marks, datum: { x: 400, y: 400 } })).map(({ kind }) => kind)).toEqual([
      'plumb',
      'datum-upright',
      'datum-across',
    ]);
  });
  it('are none where nothing was marked', () => expect(knownAxes(jobWith(picture))).toEqual([]));
});
