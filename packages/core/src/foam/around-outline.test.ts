/** Places around an outline by their share of its length, against a circle's closed form. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { circlePath, distance, ellipsePath, type Path, pathLength, polygonOf, polygonPath } from '../plane/index.ts';
import { aroundOutline } from './around-outline.ts';

describe('places around an outline', () => {
  it('of a circle lie at the angle that the share has, and the way out is the radius', () => {
    const around = aroundOutline(circlePath({ x: 3, y: -2 }, 40), 1e-4, ({ x }) => x);
    for (let k = 0; k < 16; k++) {
      const angle = (2 * Math.PI * k) / 16;
      const { at, out } = around(k / 16);
      expect(distance(at, { x: 3 + 40 * Math.cos(angle), y: -2 + 40 * Math.sin(angle) })).toBeLessThan(0.01);
      expect(out.x * Math.cos(angle) + out.y * Math.sin(angle)).toBeCloseTo(1, 4);
    }
  });
  it('of a square begin where it was asked, and go round counter-clockwise', () => {
    const square = polygonPath([{ x: 0, y: 0 }, { x: 10, y: 0 }, { x: 10, y: 10 }, { x: 0, y: 10 }]); // biome-ignore format: a square
    const around = aroundOutline(square, 0.1, ({ x, y }) => y - x);
    expect(around(0).at).toEqual({ x: 0, y: 10 });
    expect(around(0.375).at).toEqual({ x: 5, y: 0 });
    expect(around(0.375).out).toEqual({ x: 0, y: -1 });
    expect(around(1).at).toEqual({ x: 0, y: 10 });
  });
  it('are as far apart along it as their shares, whatever the ellipse', () => {
    const size = fc.double({ min: 20, max: 200, noNaN: true });
    fc.assert(
      fc.property(size, size, fc.double({ min: 0, max: 3, noNaN: true }), (a, b, turned) => {
        const path: Path = ellipsePath({ x: 0, y: 0 }, a, b, turned);
        const around = aroundOutline(path, 0.001, ({ y }) => -y);
        const count = 400;
        const steps = Array.from({ length: count }, (_, k) => distance(around(k / count).at, around((k + 1) / count).at));
        const even = pathLength(path) / count;
        for (const step of steps) expect(Math.abs(step / even - 1)).toBeLessThan(0.04);
        const lowest = Math.min(...polygonOf(path, 0.001).map(({ y }) => y));
        expect(around(0).at.y).toBeCloseTo(lowest, 9);
      }),
      { numRuns: lawRuns(40) },
    );
  });
});
