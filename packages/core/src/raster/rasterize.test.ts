import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { circlePath, pathArea, polygonPath, reversedPath } from '../plane/index.ts';
import { contoursAt, greyPicture, rasterize } from './index.ts';

const covered = (grey: Uint8Array): number => grey.reduce((sum, v) => sum + (255 - v) / 255, 0);

describe('an area as grey pixels', () => {
  it('covers as much as its closed form says, each pixel by its share', () => {
    const disc = rasterize([circlePath({ x: 50.3, y: 49.7 }, 30)], 100, 100);
    expect(Math.abs(covered(disc) - Math.PI * 900)).toBeLessThan(1.5);
    const ring = rasterize([circlePath({ x: 50, y: 50 }, 30), reversedPath(circlePath({ x: 50, y: 50 }, 12.5))], 100, 100);
    expect(Math.abs(covered(ring) - Math.PI * (900 - 156.25))).toBeLessThan(1.5);
    // A box from 10.25 to 20.5: a quarter of the first column is left white, half of the last is covered.
    const box = rasterize([polygonPath([{ x: 10.25, y: 5 }, { x: 20.5, y: 5 }, { x: 20.5, y: 9 }, { x: 10.25, y: 9 }])], 40, 20); // biome-ignore format: one line
    expect([...box.subarray(6 * 40 + 9, 6 * 40 + 12)]).toEqual([255, Math.round(255 * 0.25), 0]);
    expect([...box.subarray(6 * 40 + 19, 6 * 40 + 22)]).toEqual([0, Math.round(255 * 0.5), 255]);
  });
  it('of random polygons, also ones that reach beyond the picture, is never more than what lies within it', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ x: fc.double({ min: -20, max: 80, noNaN: true }), y: fc.double({ min: -20, max: 80, noNaN: true }) }), {
          minLength: 3,
          maxLength: 3,
        }),
        (corners) => {
          const triangle = polygonPath(corners);
          const within = polygonPath([
            { x: 0, y: 0 },
            { x: 60, y: 0 },
            { x: 60, y: 60 },
            { x: 0, y: 60 },
          ]);
          const sum = covered(rasterize([triangle], 60, 60));
          expect(sum).toBeLessThanOrEqual(Math.min(Math.abs(pathArea(triangle)), pathArea(within)) + 2);
          const isInside = corners.every(({ x, y }) => x >= 0 && x <= 60 && y >= 0 && y <= 60);
          if (isInside) expect(Math.abs(sum - Math.abs(pathArea(triangle)))).toBeLessThan(2);
        },
      ),
      { numRuns: lawRuns(120), seed: 3 },
    );
  });
  it('gives its outline back to the tracer’s contours', () => {
    const grey = rasterize([circlePath({ x: 60, y: 60 }, 40)], 120, 120);
    const [contour, ...others] = contoursAt(greyPicture(grey, 120, 120), 127.5).contours;
    expect(others).toEqual([]);
    for (let k = 0; k < (contour?.points.length ?? 0); k += 2)
      expect(Math.abs(Math.hypot((contour?.points[k] as number) - 60, (contour?.points[k + 1] as number) - 60) - 40)).toBeLessThan(0.1);
  });
});
