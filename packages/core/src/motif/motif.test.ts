/** The shipped motifs, and fitting them to measured places. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { boxAroundBoxes, pathArea, pathBox, stepsOf } from '../plane/index.ts';
import { nested, selfCrossings } from '../shape/index.ts';
import { fittedMotif, shippedMotifs } from './index.ts';

const place = fc.record({ x: fc.integer({ min: -300, max: 300 }), y: fc.integer({ min: -300, max: 300 }) });

describe('shipped motifs', () => {
  it('are a dozen, each by its own name, closed and ready to cut', () => {
    expect(new Set(shippedMotifs.map(({ id }) => id)).size).toBe(12);
    for (const { name, paths } of shippedMotifs) {
      expect(
        paths.every((path) => path.closed),
        name,
      ).toBe(true);
      // Nothing crosses itself or another, and holes lie in outlines.
      expect(selfCrossings(paths), name).toHaveLength(0);
      expect(
        nested(paths).reduce((sum, { holes }) => sum + holes.length + 1, 0),
        name,
      ).toBe(paths.length);
      for (const path of paths) expect(stepsOf(path).length, name).toBeGreaterThan(1);
    }
  });
  it('fitted between two places reach from one to the other in their own proportions', () => {
    fc.assert(
      fc.property(fc.constantFrom(...shippedMotifs), place, place, ({ paths }, a, b) => {
        const length = Math.hypot(b.x - a.x, b.y - a.y);
        fc.pre(length > 1);
        const box = boxAroundBoxes(paths.map(pathBox)) as NonNullable<ReturnType<typeof boxAroundBoxes>>;
        const grown = (length / (box.maxX - box.minX)) ** 2;
        const area = (list: typeof paths) => list.reduce((sum, path) => sum + pathArea(path), 0);
        expect(area(fittedMotif(paths, { kind: 'between', a, b })) / area(paths)).toBeCloseTo(grown, 6);
        const level = boxAroundBoxes(fittedMotif(paths, { kind: 'between', a, b: { x: a.x + length, y: a.y } }).map(pathBox));
        expect((level?.maxX ?? 0) - (level?.minX ?? 0)).toBeCloseTo(length, 6);
      }),
      { numRuns: lawRuns(60) },
    );
  });
  it('fitted into a box touch two of its sides and stay within', () => {
    for (const { paths } of shippedMotifs) {
      const made = boxAroundBoxes(fittedMotif(paths, { kind: 'box', a: { x: 10, y: 10 }, b: { x: 70, y: 40 } }).map(pathBox));
      if (!made) throw new Error('nothing was fitted');
      expect(Math.min(60 - (made.maxX - made.minX), 30 - (made.maxY - made.minY))).toBeCloseTo(0, 6);
      expect(made.minX).toBeGreaterThanOrEqual(10 - 1e-6);
      expect(made.maxY).toBeLessThanOrEqual(40 + 1e-6);
    }
    expect(() => fittedMotif(shippedMotifs[0]?.paths ?? [], { kind: 'box', a: { x: 1, y: 1 }, b: { x: 1, y: 1 } })).toThrow(RangeError);
  });
});
