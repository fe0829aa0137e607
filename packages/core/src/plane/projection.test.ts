import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  affineAt,
  apply,
  asProjection,
  chainProjections,
  circlePath,
  depthAt,
  distance,
  type FourPoints,
  inverseProjection,
  isSpread,
  middleOf,
  type Point,
  type Projection,
  pathBox,
  pathLength,
  polygonPath,
  project,
  projectedPath,
  projectionOfFour,
  shift,
  stretch,
  transformedPath,
  turn,
} from './index.ts';

const small = (max: number) => fc.double({ min: -max, max: max, noNaN: true });
/** Camera-like projections: positive depth all over the square from -1 to 1. */
const projections: fc.Arbitrary<Projection> = fc
  .tuple(small(0.4), small(0.4), small(0.3), small(0.3), small(0.5), small(0.5))
  .map(([g, h, b, c, e, f]) => ({ a: 1, b, c, d: 1, e, f, g, h, i: 1 }));
const places = fc.record({ x: small(1), y: small(1) });
function near(p: Point, q: Point, slack = 1e-9): void {
  expect(distance(p, q)).toBeLessThan(slack);
}

describe('projections', () => {
  it('lead back by their inverse, and one after the other as their chain', () => {
    fc.assert(
      fc.property(projections, projections, places, (p, q, at) => {
        near(project(inverseProjection(p), project(p, at)), at);
        const placed = project(q, at);
        near(project(chainProjections(p, q), at), project(p, placed), 1e-7 * (1 + Math.abs(placed.x) + Math.abs(placed.y)) ** 2);
      }),
    );
  });
  it('keep straight lines straight', () => {
    fc.assert(
      fc.property(projections, places, places, fc.double({ min: 0, max: 1, noNaN: true }), (p, a, b, t) => {
        const [u, v, w] = [a, b, { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t }].map((q) => project(p, q)) as [Point, Point, Point];
        expect(Math.abs((v.x - u.x) * (w.y - u.y) - (v.y - u.y) * (w.x - u.x))).toBeLessThan(1e-9);
      }),
    );
  });
  it('are found again from four points, exactly, wherever no three lie in one line', () => {
    const four: FourPoints = [
      { x: -1, y: -1 },
      { x: 1, y: -0.8 },
      { x: 0.9, y: 1 },
      { x: -0.7, y: 0.6 },
    ];
    fc.assert(
      fc.property(projections, places, (p, at) => {
        const found = projectionOfFour(four, four.map((q) => project(p, q)) as unknown as FourPoints) as Projection;
        near(project(found, at), project(p, at), 1e-8);
      }),
    );
    const flat: FourPoints = [four[0], four[1], { x: 0, y: -0.9 }, four[3]];
    expect(isSpread(flat)).toBe(false);
    expect(projectionOfFour(flat, four)).toBeNull();
  });
  it('are touched by their affine map: the same place, and the same to first order around it', () => {
    fc.assert(
      fc.property(projections, places, (p, at) => {
        const touching = affineAt(p, at);
        near(apply(touching, at), project(p, at));
        const step = 1e-5;
        for (const by of [
          { x: step, y: 0 },
          { x: 0, y: step },
        ]) {
          // biome-ignore format: two directions
          const q = { x: at.x + by.x, y: at.y + by.y };
          near(apply(touching, q), project(p, q), 1e-7);
        }
      }),
    );
  });
  it('that are affine do what the transform does; a map that flattens has no inverse', () => {
    const t = { ...turn(0.7), e: 3, f: -2 };
    fc.assert(fc.property(places, (at) => near(project(asProjection(t), at), apply(t, at))));
    expect(depthAt(asProjection(t), { x: 9, y: 9 })).toBe(1);
    expect(() => inverseProjection({ ...asProjection(stretch(1, 0)) })).toThrow(RangeError);
  });
  it('take polygons exactly, and curves as a shift or turn would where there is no perspective', () => {
    const view: Projection = { a: 1, b: 0.1, c: -0.2, d: 0.9, e: 2, f: 3, g: 0.01, h: -0.02, i: 1 };
    const corners = [
      { x: 0, y: 0 },
      { x: 8, y: 0 },
      { x: 5, y: 6 },
    ];
    const image = projectedPath(polygonPath(corners), view);
    image.segments.forEach((s, k) => {
      near(s.to, project(view, corners[(k + 1) % 3] as Point));
    });
    const circle = circlePath({ x: 4, y: 5 }, 3);
    const moved = projectedPath(circle, asProjection(shift(10, -4)), 1e-6);
    const exact = transformedPath(circle, shift(10, -4));
    expect(pathLength(moved)).toBeCloseTo(pathLength(exact), 4);
    expect(pathBox(moved).maxX).toBeCloseTo(pathBox(exact).maxX, 4);
  });
  it('the middle of points is their mean', () => {
    expect(middleOf([{ x: 0, y: 2 }, { x: 4, y: 4 }, { x: 2, y: 0 }])).toEqual({ x: 2, y: 2 }); // biome-ignore format: one line
  });
});
