import { describe, expect, it } from 'vitest';
import { axesOf, turnsLeft } from './ellipse.ts';
import { ellipsePath, pathArea, pathBox, pathLength, reversedPath, stepsOf, transformedPath } from './path.ts';
import { asCubics, nearestOnSegment, pointOn, reversedSegment, splitSegment } from './segment.ts';

const oval = ellipsePath({ x: 40, y: -12 }, 15, 8, 0.4);

describe('ellipses', () => {
  it('have the area pi a b, and the length that the complete elliptic integral gives', () => {
    expect(pathArea(oval)).toBeCloseTo(Math.PI * 15 * 8, 9);
    // 4 a E(m), m = 1 - (b/a)^2, by the arithmetic-geometric mean (Abramowitz & Stegun 17.6).
    let [a, b, sum, factor] = [1, 8 / 15, 0, 0.5];
    for (let round = 0; round < 30; round++) {
      const c2 = round === 0 ? 1 - (8 / 15) ** 2 : 0;
      sum += factor * c2;
      const [mean, root, half] = [(a + b) / 2, Math.sqrt(a * b), (a - b) / 2];
      factor *= 2;
      sum += factor * half * half;
      [a, b] = [mean, root];
    }
    const length = 4 * 15 * (Math.PI / (2 * a)) * (1 - sum);
    expect(pathLength(oval)).toBeCloseTo(length, 6);
    expect(pathLength(ellipsePath({ x: 0, y: 0 }, 5, 5, 1))).toBeCloseTo(10 * Math.PI, 9);
  });

  it('have the box of the closed form, and turn with the sheet', () => {
    const { minX, maxX, minY, maxY } = pathBox(oval);
    expect((maxX - minX) / 2).toBeCloseTo(Math.hypot(15 * Math.cos(0.4), 8 * Math.sin(0.4)), 9);
    expect((maxY - minY) / 2).toBeCloseTo(Math.hypot(15 * Math.sin(0.4), 8 * Math.cos(0.4)), 9);
    const moved = transformedPath(oval, { a: 0, b: 2, c: -2, d: 0, e: 5, f: 6 });
    const [first] = stepsOf(moved);
    const axes = axesOf(first?.from as never, first?.segment as never);
    expect(axes.major).toBeCloseTo(30, 9);
    expect(axes.minor).toBeCloseTo(16, 9);
    expect(Math.abs(Math.tan(axes.angle) - Math.tan(0.4 + Math.PI / 2))).toBeLessThan(1e-9);
  });

  it('stay the same curve when stretched, split, turned round and written as cubics', () => {
    const stretched = transformedPath(oval, { a: 1.7, b: 0.2, c: -0.4, d: 0.6, e: 3, f: 1 });
    expect(stretched.segments.every((s) => s.kind === 'ellipse')).toBe(true);
    expect(pathArea(stretched)).toBeCloseTo(pathArea(oval) * (1.7 * 0.6 + 0.2 * 0.4), 8);
    expect(pathArea(reversedPath(oval))).toBeCloseTo(-pathArea(oval), 9);
    for (const { from, segment } of stepsOf(stretched)) {
      if (segment.kind !== 'ellipse') throw new Error('not an ellipse');
      const [first, second] = splitSegment(from, segment, 0.3);
      const there = pointOn(from, segment, 0.3 + 0.7 * 0.6);
      expect(pointOn(first.to, second, 0.6).x).toBeCloseTo(there.x, 9);
      const back = reversedSegment(from, segment);
      expect(pointOn(segment.to, back, 0.25).y).toBeCloseTo(pointOn(from, segment, 0.75).y, 9);
      expect(back.kind === 'ellipse' && turnsLeft(segment.to, back)).toBe(!turnsLeft(from, segment));
      let start = from;
      for (const cubic of asCubics(from, segment, 0.001)) {
        for (let k = 0; k <= 20; k++) expect(nearestOnSegment(from, segment, pointOn(start, cubic, k / 20)).distance).toBeLessThan(0.00101);
        start = cubic.to;
      }
    }
  });
});
