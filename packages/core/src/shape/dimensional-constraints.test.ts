/** Measures that a drawn outline keeps: lengths, radii, angles and gaps. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance, type Path, pathArea, polygonPath, reversedPath, stepsOf } from '../plane/index.ts';
import { type Dimension, dimensionsCarried, measured, solveDimensions } from './dimensional-constraints.ts';
import { pointOf, startMoved, withPointsMoved } from './points.ts';

const p = (x: number, y: number) => ({ x, y });
const length = (segment: number, mm: number | null, play = 0): Dimension => ({ kind: 'length', segment, mm, play });
const square = (point: number): Dimension => ({ kind: 'turn', point, turn: Math.PI / 2 });
const box = polygonPath([p(0, 0), p(100, 0), p(100, 60), p(0, 60)]);

describe('held measures', () => {
  it('typed anew a length changes, and right angles that are held stay right', () => {
    const { path, off } = solveDimensions(box, [length(0, 120), length(1, 60), square(0), square(1), square(2)], null);
    for (const one of off) expect(Math.abs(one)).toBeLessThan(1e-8);
    expect(pathArea(path)).toBeCloseTo(120 * 60, 5);
    // As little as can be: the middle stays where it was.
    const middle = path.segments.reduce((sum, s) => sum + s.to.x / 4, 0);
    expect(middle).toBeCloseTo(50, 6);
  });
  it('a triangle of three lengths has the angles of the law of cosines', () => {
    const sides = [length(0, 90), length(1, 70), length(2, 50)];
    const { path } = solveDimensions(polygonPath([p(0, 0), p(60, 5), p(20, 40)]), sides, null);
    const inner = Math.PI - measured(path, { kind: 'turn', point: 1, turn: 0 });
    expect(Math.cos(inner)).toBeCloseTo((90 ** 2 + 70 ** 2 - 50 ** 2) / (2 * 90 * 70), 9);
  });
  it('an arc keeps its radius while its ends are dragged', () => {
    const arch: Path = { start: p(0, 0), segments: [{ kind: 'arc', to: p(40, 0), sweep: -2 }, { kind: 'line', to: p(40, -30) }], closed: false }; // biome-ignore format: one line
    const held: Dimension[] = [{ kind: 'radius', segment: 0, mm: 25, play: 0 }];
    fc.assert(
      fc.property(fc.double({ min: -12, max: 6, noNaN: true }), fc.double({ min: -12, max: 12, noNaN: true }), (x, y) => {
        const { path, off } = solveDimensions(withPointsMoved(arch, [1], p(x, y)), held, null);
        expect(Math.abs(off[0] as number)).toBeLessThan(1e-8);
        expect(measured(path, held[0] as Dimension)).toBeCloseTo(25, 8);
      }),
    );
  });
  it('a gap follows the stock and its play, and is let be while the thickness is not known', () => {
    const comb: Path = { start: p(0, 0), segments: [p(10, 0), p(10, 8), p(13, 8), p(13, 0), p(30, 0)].map((to) => ({ kind: 'line', to })), closed: false }; // biome-ignore format: one line
    const held: Dimension[] = [
      { kind: 'gap', a: 1, b: 4, mm: null, play: 0.5 },
      { kind: 'gap', a: 2, b: 3, mm: null, play: 0.5 },
    ];
    for (const thickness of [3.05, 4, 6.2]) {
      const { path } = solveDimensions(comb, held, thickness);
      expect(distance(pointOf(path, 1), pointOf(path, 4))).toBeCloseTo(thickness + 0.5, 9);
      expect(distance(pointOf(path, 2), pointOf(path, 3))).toBeCloseTo(thickness + 0.5, 9);
    }
    expect(solveDimensions(comb, held, null).path).toBe(comb);
  });
  it('what already holds is not moved, segments keep their identity', () => {
    const { path } = solveDimensions(box, [length(0, 100), square(2)], null);
    stepsOf(path).forEach(({ segment }, k) => {
      expect(segment).toBe(box.segments[k]);
    });
  });
  it('that contradict one another are told with what is left, and nothing flies away', () => {
    const triangle = polygonPath([p(0, 0), p(30, 0), p(15, 20)]);
    const { path, off } = solveDimensions(triangle, [length(0, 100), length(1, 10), length(2, 10)], null);
    expect(Math.max(...off.map(Math.abs))).toBeGreaterThan(10);
    for (const { segment } of stepsOf(path)) expect(Math.hypot(segment.to.x, segment.to.y)).toBeLessThan(300);
  });
  it('that have no place any more are off by not a number', () => {
    expect(solveDimensions(box, [{ kind: 'radius', segment: 0, mm: 5, play: 0 }, length(9, 5)], null).off).toEqual([
      Number.NaN,
      Number.NaN,
    ]);
  });
  it('any lengths and turns of a polygon that it already has, held while a corner is dragged, hold', () => {
    const figure = fc.array(fc.double({ min: 20, max: 40, noNaN: true }), { minLength: 5, maxLength: 8 });
    fc.assert(
      fc.property(figure, fc.double({ min: -8, max: 8, noNaN: true }), fc.double({ min: -8, max: 8, noNaN: true }), (radii, x, y) => {
        const path = polygonPath(radii.map((r, k) => p(r * Math.cos((2 * Math.PI * k) / radii.length), r * Math.sin((2 * Math.PI * k) / radii.length)))); // biome-ignore format: one line
        const held = [0, 1, 2].map((k) => length(k, measured(path, length(k, 0))));
        const { off } = solveDimensions(withPointsMoved(path, [2], p(x, y)), held, null);
        for (const one of off) expect(Math.abs(one)).toBeLessThan(1e-7);
      }),
    );
  });
});

describe('measures after an edit', () => {
  it('follow their segments and points where others come or go', () => {
    const held: Dimension[] = [length(2, 100), { kind: 'gap', a: 0, b: 2, mm: 10, play: 0 }, square(3)];
    const more = polygonPath([p(0, 0), p(50, 0), p(100, 0), p(100, 60), p(0, 60)]);
    expect(dimensionsCarried(box, more, held)).toEqual([length(3, 100), { kind: 'gap', a: 0, b: 3, mm: 10, play: 0 }, square(4)]);
    expect(dimensionsCarried(box, polygonPath([p(0, 0), p(100, 0), p(0, 60)]), held)).toEqual([square(2)]);
  });
  it('go along where the path is turned round or starts elsewhere, and hold as they did', () => {
    const slanted = polygonPath([p(0, 0), p(100, 0), p(90, 60), p(10, 40)]);
    const held: Dimension[] = [0, 1].map((k) => length(k, measured(slanted, length(k, 0))));
    const turn: Dimension = { kind: 'turn', point: 2, turn: 0 };
    held.push({ ...turn, turn: measured(slanted, turn) });
    for (const after of [reversedPath(slanted), startMoved(slanted, 2)]) {
      const carried = dimensionsCarried(slanted, after, held);
      expect(carried).toHaveLength(3);
      carried.forEach((measure, k) => {
        expect(Math.abs(measured(after, measure))).toBeCloseTo(Math.abs(measured(slanted, held[k] as Dimension)), 9);
      });
      expect(Math.max(...solveDimensions(after, carried, null).off.map(Math.abs))).toBeLessThan(1e-9);
    }
  });
  it('stay where points were only moved', () => {
    expect(dimensionsCarried(box, withPointsMoved(box, [1], p(5, 5)), [length(0, 100)])).toEqual([length(0, 100)]);
  });
});
