/** Corners rounded, bevelled and relieved: closed forms of areas and lengths, and what is not touched stays. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { directionOn, ellipsePath, nearestOnPath, type Path, pathArea, pathLength, polygonPath, stepsOf } from '../plane/index.ts';
import { combined } from './combine.ts';
import { cornersOf, largestCut, withCornersCut } from './corner-cuts.ts';

const rectangle = (w: number, h: number): Path =>
  polygonPath([{ x: 0, y: 0 }, { x: w, y: 0 }, { x: w, y: h }, { x: 0, y: h }]); // biome-ignore format: one line
const all = (path: Path) => cornersOf(path).map(({ index }) => index);
const ell = polygonPath([[0, 0], [40, 0], [40, 20], [20, 20], [20, 40], [0, 40]].map(([x, y]) => ({ x: x as number, y: y as number }))); // biome-ignore format: one line

describe('corners', () => {
  it('of a rectangle rounded by r leave its area less (4 - pi) r^2', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 9.9, noNaN: true }), (r) => {
        const { path, left } = withCornersCut(rectangle(30, 20), [0, 1, 2, 3], r);
        expect(left).toHaveLength(0);
        expect(pathArea(path)).toBeCloseTo(600 - (4 - Math.PI) * r * r, 8);
        expect(pathLength(path)).toBeCloseTo(100 - 8 * r + 2 * Math.PI * r, 8);
        expect(path.segments.filter((s) => s.kind === 'arc')).toHaveLength(4);
      }),
    );
  });
  it('rounded join with one tangent, between lines, arcs and curves alike', () => {
    const half = combined([ellipsePath({ x: 0, y: 0 }, 20, 12, 0.3)], [rectangle(60, 60)], 'keep-common')[0] as Path;
    const drop: Path = { start: { x: 0, y: 0 }, closed: true, segments: [{ kind: 'arc', to: { x: 20, y: 0 }, sweep: 1.9 }, { kind: 'cubic', c1: { x: 24, y: 18 }, c2: { x: 4, y: 22 }, to: { x: 0, y: 0 } }] }; // biome-ignore format: one line
    for (const path of [half, drop]) {
      const { path: made, left } = withCornersCut(path, all(path), 1.5);
      expect(left).toHaveLength(0);
      const steps = stepsOf(made);
      steps.forEach((step, k) => {
        const next = steps[(k + 1) % steps.length] as typeof step;
        const [into, out] = [directionOn(step.from, step.segment, 1), directionOn(next.from, next.segment, 0)];
        expect(Math.hypot(into.x - out.x, into.y - out.y)).toBeLessThan(1e-5);
      });
      for (const { segment } of stepsOf(made)) expect(nearestOnPath(path, segment.to).distance).toBeLessThan(1e-7);
    }
  });
  it('are inner or outer by where the area lies', () => {
    expect(cornersOf(ell).filter(({ isOuter }) => !isOuter)).toHaveLength(1);
    expect(cornersOf(ell).filter(({ isOuter }) => isOuter)).toHaveLength(5);
  });
  it('take no more than fits, and the largest that fits is said', () => {
    expect(largestCut(rectangle(30, 20), [0, 1, 2, 3])).toBeCloseTo(10, 2);
    expect(largestCut(rectangle(30, 20), [0])).toBeCloseTo(20, 2);
    const { path, left } = withCornersCut(rectangle(30, 20), [0, 1, 2, 3], 12);
    expect(left.length).toBeGreaterThan(0);
    expect(path.closed).toBe(true);
  });
  it('bevelled lose half a square each', () => {
    const { path } = withCornersCut(rectangle(30, 20), [0, 1, 2, 3], 3, 'bevel');
    expect(pathArea(path)).toBeCloseTo(600 - 4 * 4.5, 9);
    expect(path.segments).toHaveLength(8);
  });
  it('inside a slot get room for a round tool: the dog-bone passes through the corner and has the tool’s radius', () => {
    const r = 1.5;
    const { path } = withCornersCut(ell, [2], r, 'dog-bone');
    const arc = path.segments.find((s) => s.kind === 'arc');
    expect(arc).toMatchObject({ sweep: expect.closeTo(-Math.PI, 9) });
    expect(nearestOnPath(path, { x: 20, y: 20 }).distance).toBeLessThan(1e-9);
    // Half a disc, less the triangle between the corner and the arc's ends.
    expect(pathArea(ell) - pathArea(path)).toBeCloseTo((Math.PI * r * r) / 2 - r * r, 9);
    const tee = withCornersCut(ell, [2], r, 'tee').path;
    expect(pathArea(ell) - pathArea(tee)).toBeCloseTo((Math.PI * r * r) / 2, 9);
  });
});
