import { describe, expect, it } from 'vitest';
import { circlePath, type Path, pathArea, pathBox, polygonPath } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { apply, chain, shift, turn } from '../plane/transform.ts';
import { joinedImages, mirrorImages } from './copies.ts';
import { type HalfSide, halfAtAxis } from './half-at-axis.ts';

const open = (...points: Point[]): Path => ({
  start: points[0] as Point,
  segments: points.slice(1).map((to) => ({ kind: 'line', to })),
  closed: false,
});
const [a, b] = [
  { x: 0, y: 0 },
  { x: 0, y: 1 },
];
const mirrored = (paths: Path[], keeps: HalfSide | null, reach: number, p = a, q = b) =>
  joinedImages(halfAtAxis(paths, p, q, keeps, reach), mirrorImages(p, q));

describe('the half at an axis', () => {
  it('leads ends that stop short on to the axis, so that a half and its image close', () => {
    // A gate of 40 by 30 whose half ends 1.51 and 0.8 mm short.
    const half = open({ x: -1.51, y: 0 }, { x: -20, y: 0 }, { x: -20, y: 30 }, { x: -0.8, y: 30 });
    const { paths, gaps } = mirrored([half], null, 2);
    expect(gaps).toEqual([]);
    expect(paths).toHaveLength(1);
    expect(paths[0]?.closed).toBe(true);
    expect(Math.abs(pathArea(paths[0] as Path))).toBeCloseTo(1200, 9);
    expect(mirrored([half], null, 1).gaps).not.toEqual([]);
  });

  it('cuts off tails that pass the axis', () => {
    const half = open({ x: 1.2, y: 0 }, { x: -20, y: 0 }, { x: -20, y: 30 }, { x: 0.4, y: 30 });
    const { paths } = mirrored([half], null, 2);
    expect(paths.map(({ closed }) => closed)).toEqual([true]);
    expect(Math.abs(pathArea(paths[0] as Path))).toBeCloseTo(1200, 9);
  });

  it('leads an arc on along its circle', () => {
    // Of a circle of 10 about the origin, from 265° by the left to 95°: both ends short of the axis.
    const at = (degrees: number): Point => ({ x: 10 * Math.cos((degrees * Math.PI) / 180), y: 10 * Math.sin((degrees * Math.PI) / 180) });
    const arc: Path = { start: at(265), segments: [{ kind: 'arc', to: at(95), sweep: (-170 * Math.PI) / 180 }], closed: false };
    const { paths, gaps } = mirrored([arc], null, 1);
    expect(gaps).toEqual([]);
    expect(Math.abs(pathArea(paths[0] as Path))).toBeCloseTo(100 * Math.PI, 6);
  });

  it('goes straight across where the end runs along the axis', () => {
    const half = open({ x: -0.5, y: 0 }, { x: -20, y: 0 }, { x: -20, y: 30 }, { x: -0.5, y: 30 }, { x: -0.5, y: 25 });
    const [path] = halfAtAxis([half], a, b, null, 1);
    expect(path?.segments.at(-1)?.to).toEqual({ x: 0, y: 25 });
  });

  it.each(['left', 'right'] as const)('keeps the %s half of what lies across it', (keeps) => {
    // Left of the axis the panel is 20 wide, right of it 24; a hole on each side.
    const panel = polygonPath([
      { x: -20, y: 0 },
      { x: 24, y: 0 },
      { x: 24, y: 30 },
      { x: -20, y: 30 },
    ]);
    const holes = [circlePath({ x: -10, y: 15 }, 3), circlePath({ x: 11, y: 15 }, 4)];
    const { paths } = mirrored([panel, ...holes], keeps, 0);
    const outer = paths.map(pathBox).find((box) => box && box.maxX - box.minX > 30);
    const wide = keeps === 'left' ? 20 : 24;
    expect(outer?.minX).toBeCloseTo(-wide, 9);
    expect(outer?.maxX).toBeCloseTo(wide, 9);
    const areas = paths.map((path) => Math.abs(pathArea(path))).sort((p, q) => p - q);
    const hole = Math.PI * (keeps === 'left' ? 9 : 16);
    expect(areas).toHaveLength(3);
    expect(areas[0]).toBeCloseTo(hole, 9);
    expect(areas[1]).toBeCloseTo(hole, 9);
    expect(areas[2]).toBeCloseTo(wide * 2 * 30, 9);
  });

  it('does the same about an axis that slants', () => {
    const map = chain(shift(31, -12), turn(0.7));
    const at = (x: number, y: number): Point => apply(map, { x, y });
    const half = open(at(-1.5, 0), at(-20, 0), at(-20, 30), at(0.9, 30));
    const { paths } = mirrored([half], null, 2, at(0, 0), at(0, 5));
    expect(paths.map(({ closed }) => closed)).toEqual([true]);
    expect(Math.abs(pathArea(paths[0] as Path))).toBeCloseTo(1200, 6);
  });
});
