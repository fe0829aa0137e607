/** One curvature where curves join, against bezier-js, with tangents kept and the contour hardly left. */
import { deviationOf, scanScene, smoothScene } from '@nuvet/truth';
import { Bezier } from 'bezier-js';
import { describe, expect, it } from 'vitest';
import { type Path, type Point, stepsOf } from '../plane/index.ts';
import { smoothedForBlade } from './blade-smoothing.ts';
import { plainTraceSettings, tracePicture } from './index.ts';

/** Its types leave this out. */
const curvatureAt = (curve: Bezier, t: number): number => (curve as unknown as { curvature(t: number): { k: number } }).curvature(t).k;

/** Curvatures before and after every joint of two cubics that are tangent there, by another's library. */
function curvatures(path: Path): [number, number][] {
  const steps = stepsOf(path);
  return steps.flatMap(({ from, segment }, k): [number, number][] => {
    const next = steps[(k + 1) % steps.length] as (typeof steps)[0];
    if (segment.kind !== 'cubic' || next.segment.kind !== 'cubic' || (k + 1 === steps.length && !path.closed)) return [];
    const flat = (points: Point[]) => points.flatMap(({ x, y }) => [x, y]);
    const before = new Bezier(flat([from, segment.c1, segment.c2, segment.to]));
    const after = new Bezier(flat([next.from, next.segment.c1, next.segment.c2, next.segment.to]));
    const [u, v] = [before.derivative(1), after.derivative(0)];
    const turn = Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y);
    return Math.abs(turn) < 0.01 ? [[curvatureAt(before, 1), curvatureAt(after, 0)]] : [];
  });
}

const uneven: Path = {
  start: { x: 0, y: 0 },
  segments: [
    { kind: 'cubic', c1: { x: 5, y: 12 }, c2: { x: 20, y: 20 }, to: { x: 30, y: 20 } },
    { kind: 'cubic', c1: { x: 34, y: 20 }, c2: { x: 55, y: 16 }, to: { x: 60, y: 0 } },
  ],
  closed: false,
};

describe('a joint of two curves', () => {
  it('had two curvatures and has one, its places and tangents kept', () => {
    const [[before, after]] = curvatures(uneven) as [[number, number]];
    expect(Math.abs(before / after - 1)).toBeGreaterThan(0.3);
    const even = smoothedForBlade(uneven, 2);
    const [[first, second]] = curvatures(even) as [[number, number]];
    expect(first / second).toBeCloseTo(1, 7);
    expect(stepsOf(even).map(({ segment }) => segment.to)).toEqual(stepsOf(uneven).map(({ segment }) => segment.to));
  });
  it('stays as it is where its course would be left by more than may be', () => {
    expect(smoothedForBlade(uneven, 1e-6)).toEqual(uneven);
  });
  it('into an arc takes the arc’s curvature', () => {
    const path: Path = {
      ...uneven,
      segments: [uneven.segments[0] as Path['segments'][0], { kind: 'arc', to: { x: 60, y: -10 }, sweep: -Math.PI / 2 }],
    };
    const [cubic] = smoothedForBlade(path, 5).segments;
    if (cubic?.kind !== 'cubic') throw new Error('the curve is gone');
    const { start } = path;
    const k = curvatureAt(new Bezier(start.x, start.y, cubic.c1.x, cubic.c1.y, cubic.c2.x, cubic.c2.y, cubic.to.x, cubic.to.y), 1);
    expect(Math.abs(k)).toBeCloseTo(1 / 30, 6);
  });
  it('at which the curve bends the other way is left', () => {
    const wave: Path = {
      ...uneven,
      segments: [
        uneven.segments[0] as Path['segments'][0],
        { kind: 'cubic', c1: { x: 36, y: 20 }, c2: { x: 50, y: 30 }, to: { x: 60, y: 40 } },
      ],
    };
    expect(smoothedForBlade(wave, 2)).toEqual(wave);
  });
});

it('scans traced for the blade keep to their truth as the others do, and more of their joints have one curvature', () => {
  const scan = scanScene(smoothScene, { dpi: 300, noise: 5, seed: 3 });
  const paths = (forBlade: boolean) =>
    tracePicture(scan.picture, scan.mmPerPx, { ...plainTraceSettings, forBlade }).pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
  const [plain, even] = [paths(false), paths(true)];
  const isOne = ([a, b]: [number, number]) => Math.abs(a - b) < 1e-6 * Math.max(Math.abs(a), Math.abs(b));
  const count = (list: Path[]) => list.flatMap(curvatures).filter(isOne).length;
  expect(count(even)).toBeGreaterThan(count(plain));
  expect(even.map(({ segments }) => segments.length)).toEqual(plain.map(({ segments }) => segments.length));
  // Half the tolerance of 0.1 mm, px.
  expect(deviationOf(even, plain).worstMm).toBeLessThan(0.05 / scan.mmPerPx);
});
