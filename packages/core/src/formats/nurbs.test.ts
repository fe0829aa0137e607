import { describe, expect, it } from 'vitest';
import { distance, type Path, type Point, pathLength, pointOn, stepsOf } from '../plane/index.ts';
import { splineAsCubics } from './nurbs.ts';

const asPath = (made: NonNullable<ReturnType<typeof splineAsCubics>>): Path => ({ ...made, closed: false });
const points = (list: readonly (readonly [number, number])[]): Point[] => list.map(([x, y]) => ({ x, y }));

describe('splines', () => {
  it('a cubic of one span is that cubic, exactly', () => {
    const made = splineAsCubics({ degree: 3, knots: [0, 0, 0, 0, 1, 1, 1, 1], points: points([[0, 0], [1, 3], [4, -2], [6, 1]]), weights: [] }, 1e-6); // biome-ignore format: one line
    expect(made?.segments).toHaveLength(1);
    const [only] = made?.segments ?? [];
    expect(distance(only?.c1 as Point, { x: 1, y: 3 })).toBeLessThan(1e-9);
    expect(distance(only?.c2 as Point, { x: 4, y: -2 })).toBeLessThan(1e-9);
  });
  it('a quarter circle by weights 1, 1/√2, 1 keeps its radius and length (Piegl & Tiller 1997, 7.3, from memory)', () => {
    const made = splineAsCubics({ degree: 2, knots: [0, 0, 0, 1, 1, 1], points: points([[5, 0], [5, 5], [0, 5]]), weights: [1, Math.SQRT1_2, 1] }, 1e-5); // biome-ignore format: one line
    const path = asPath(made as NonNullable<typeof made>);
    expect(pathLength(path)).toBeCloseTo((5 * Math.PI) / 2, 4);
    for (const { from, segment } of stepsOf(path))
      for (const t of [0.2, 0.5, 0.8]) expect(Math.abs(distance({ x: 0, y: 0 }, pointOn(from, segment, t)) - 5)).toBeLessThan(2e-5);
  });
  it('a first-degree spline is its polygon', () => {
    const made = splineAsCubics({ degree: 1, knots: [0, 0, 1, 2, 2], points: points([[0, 0], [3, 4], [3, 10]]), weights: [] }, 1e-6); // biome-ignore format: one line
    expect(pathLength(asPath(made as NonNullable<typeof made>))).toBeCloseTo(11, 9);
  });
  it('joins its spans smoothly: the tangents on either side of a knot agree', () => {
    const made = splineAsCubics({ degree: 3, knots: [0, 0, 0, 0, 1, 2, 3, 3, 3, 3], points: points([[0, 0], [1, 4], [3, 5], [6, 1], [8, 2], [9, 6]]), weights: [] }, 1e-6); // biome-ignore format: one line
    expect(made?.segments).toHaveLength(3);
    made?.segments.slice(1).forEach((s, k) => {
      const before = made.segments[k] as (typeof made.segments)[0];
      const [u, v] = [
        { x: before.to.x - before.c2.x, y: before.to.y - before.c2.y },
        { x: s.c1.x - before.to.x, y: s.c1.y - before.to.y },
      ];
      expect(Math.abs(u.x * v.y - u.y * v.x)).toBeLessThan(1e-9);
      expect(u.x * v.x + u.y * v.y).toBeGreaterThan(0);
    });
  });
  it('knots and points that do not go together are refused', () => {
    const list = points([[0, 0], [1, 1], [2, 0]]); // biome-ignore format: one line
    for (const knots of [[0, 0, 1, 1], [0, 0, 0, 1, 1, 0], [0, 0, 0, 0, 0, 0]]) // biome-ignore format: three faults
      expect(splineAsCubics({ degree: 2, knots, points: list, weights: [] }, 1e-3)).toBeNull();
    expect(splineAsCubics({ degree: 3, knots: [0, 0, 0, 0, 1, 1, 1], points: list, weights: [] }, 1e-3)).toBeNull();
  });
});
