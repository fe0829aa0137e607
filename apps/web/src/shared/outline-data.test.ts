/** Small drawings of outlines, measured by svg-path-properties. */
import { circlePath, ellipsePath, type Path, pathBox, polygonPath } from '@nuvet/core/plane';
import { svgPathProperties } from 'svg-path-properties';
import { describe, expect, it } from 'vitest';
import { outlineData, placeIn } from './outline-data';

const drawn = (paths: readonly Path[], widthPx: number, heightPx: number, marginPx: number): string => {
  const box = pathBox(paths[0] as Path);
  return outlineData(paths, box, placeIn(box, widthPx, heightPx, marginPx));
};
const places = (data: string): { x: number; y: number }[] =>
  data.split(/[MLZ]/).flatMap((pair) => {
    const [x, y] = pair.split(' ').map(Number);
    return x === undefined || y === undefined ? [] : [{ x, y }];
  });

describe('a small drawing of outlines', () => {
  it('fills its frame within the margin, in the middle, whatever the proportions', () => {
    for (const [wide, high] of [
      [130, 190],
      [200, 20],
      [3, 3],
      [0.4, 70],
    ] as const) {
      const box = places(drawn([polygonPath([{ x: 10, y: 5 }, { x: 10 + wide, y: 5 }, { x: 10 + wide, y: 5 + high }, { x: 10, y: 5 + high }])], 320, 240, 12)); // biome-ignore format: one rectangle
      const [xs, ys] = [box.map(({ x }) => x), box.map(({ y }) => y)];
      const [left, right, top, low] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
      expect((left + right) / 2).toBeCloseTo(160, 0);
      expect((top + low) / 2).toBeCloseTo(120, 0);
      expect(Math.min(left, top)).toBeGreaterThanOrEqual(11.9);
      expect(Math.max((right - left) / 296, (low - top) / 216)).toBeCloseTo(1, 2);
      expect((right - left) / (low - top)).toBeCloseTo(wide / high, 1);
    }
  });
  it('is the right way up: what is highest on the sheet is highest in the drawing', () => {
    const [peak, left, right] = places(drawn([polygonPath([{ x: 0, y: 30 }, { x: -10, y: 0 }, { x: 10, y: 0 }])], 100, 100, 5)); // biome-ignore format: a triangle
    expect(peak?.y).toBeCloseTo(5, 1);
    expect(left?.y).toBeCloseTo(95, 1);
    expect(left?.x).toBeLessThan(right?.x ?? 0);
  });
  it('is as long round as the outline at its scale, by another measure of paths', () => {
    const circle = drawn([circlePath({ x: 40, y: 30 }, 25)], 22, 22, 1.5);
    expect(new svgPathProperties(circle).getTotalLength()).toBeCloseTo(19 * Math.PI, 0);
    // Half axes 100 and 40 at a scale of 1.48: Ramanujan's second formula.
    const [a, b] = [148, 59.2];
    const h = ((a - b) / (a + b)) ** 2;
    const round = Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
    const oval = drawn([ellipsePath({ x: 0, y: 0 }, 100, 40, 0)], 320, 240, 12);
    expect(new svgPathProperties(oval).getTotalLength() / round).toBeCloseTo(1, 2);
  });
  it('closes what is closed, holes as well, and leaves lines open', () => {
    const ring = drawn([circlePath({ x: 0, y: 0 }, 10), circlePath({ x: 0, y: 0 }, 4)], 50, 50, 2);
    expect(ring.match(/Z/g)).toHaveLength(2);
    const line: Path = { start: { x: 0, y: 0 }, segments: [{ kind: 'line', to: { x: 5, y: 9 } }], closed: false };
    expect(drawn([line], 50, 50, 2)).not.toContain('Z');
  });
  it('of a point or a level line still has a scale', () => {
    const flat: Path = { start: { x: 0, y: 3 }, segments: [{ kind: 'line', to: { x: 20, y: 3 } }], closed: false };
    for (const { x, y } of places(drawn([flat], 40, 30, 4))) {
      expect(x).toBeGreaterThanOrEqual(3.9);
      expect(x).toBeLessThanOrEqual(36.1);
      expect(y).toBeCloseTo(15, 0);
    }
  });
});
