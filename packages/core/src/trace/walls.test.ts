/** Walls along middles, against closed forms. */
import { linesScene, scanScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import { circlePath, type Path, type Point, pathArea, pathBox } from '../plane/index.ts';
import { plainTraceSettings, tracePicture, wallsOf } from './index.ts';

const line = (...[start, ...rest]: (readonly [number, number])[]): Path => {
  const at = ([x, y]: readonly [number, number]): Point => ({ x, y });
  return { start: at(start as [number, number]), segments: rest.map((p) => ({ kind: 'line', to: at(p) })), closed: false };
};
const areaOf = (paths: readonly Path[]): number => paths.reduce((sum, path) => sum + pathArea(path), 0);

describe('walls', () => {
  it('of one line are a rectangle', () => {
    const [wall, ...none] = wallsOf([line([0, 0], [50, 0])], 4, 0.02) as [Path];
    expect(none).toEqual([]);
    expect(wall.segments.map(({ kind }) => kind)).toEqual(['line', 'line', 'line', 'line']);
    expect(pathArea(wall)).toBeCloseTo(200, 3);
    expect(pathBox(wall)).toEqual({
      minX: expect.closeTo(0, 3),
      maxX: expect.closeTo(50, 3),
      minY: expect.closeTo(-2, 3),
      maxY: expect.closeTo(2, 3),
    });
  });
  it('that meet in a T are one outline of eight sides', () => {
    const walls = wallsOf([line([0, 0], [50, 0]), line([25, 0], [25, 30])], 4, 0.02);
    expect(walls).toHaveLength(1);
    expect(walls[0]?.segments).toHaveLength(8);
    expect(areaOf(walls)).toBeCloseTo(200 + 4 * 28, 3);
  });
  it('that meet in a Y have mitred corners and no notch', () => {
    // Three arms of 40 at 120 degrees: bands of 4 that share a triangle at the middle.
    const arm = (angle: number) => line([0, 0], [40 * Math.cos(angle), 40 * Math.sin(angle)]);
    const walls = wallsOf([arm(Math.PI / 2), arm((7 * Math.PI) / 6), arm((11 * Math.PI) / 6)], 4, 0.02);
    expect(walls).toHaveLength(1);
    expect(walls[0]?.segments).toHaveLength(9);
    // Each arm loses half of its overlap: 4 * 40 * 3 less twice the hexagon's thirds plus them once, (3 / 4) * 16 / sqrt 3.
    expect(areaOf(walls)).toBeCloseTo(3 * 4 * 40 - (3 * 16) / (4 * Math.sqrt(3)), 1);
  });
  it('about a circle are two circles', () => {
    const walls = wallsOf([circlePath({ x: 0, y: 0 }, 20)], 4, 0.02);
    expect(walls).toHaveLength(2);
    for (const wall of walls) expect(wall.segments.every(({ kind }) => kind === 'arc')).toBe(true);
    expect(areaOf(walls)).toBeCloseTo(160 * Math.PI, 1);
  });
  it('with a room between have a hole for it', () => {
    const frame = { ...line([0, 0], [50, 0], [50, 30], [0, 30], [0, 0]), closed: true };
    const areas = wallsOf([frame, line([20, 0], [20, 30])], 3, 0.02)
      .map(pathArea)
      .sort((a, b) => b - a);
    expect(areas[0]).toBeCloseTo(53 * 33, 2);
    expect(areas[1]).toBeCloseTo(-17 * 27, 2);
    expect(areas[2]).toBeCloseTo(-27 * 27, 2);
  });
  it('refuses no thickness', () => {
    expect(() => wallsOf([line([0, 0], [5, 0])], 0, 0.1)).toThrow(RangeError);
  });
});

it('a network taken with walls comes out closed', () => {
  const scan = scanScene(linesScene, { dpi: 200, tiltDegrees: 1, noise: 4 });
  const { pieces } = tracePicture(scan.picture, scan.mmPerPx, { ...plainTraceSettings, take: 'network', wallMm: 2 });
  expect(pieces.length).toBeGreaterThan(0);
  // Dashes stand for creases and stay lines.
  expect(pieces.every(({ outer, isDashed }) => outer.closed !== isDashed)).toBe(true);
  expect(pieces.some(({ holes }) => holes.length > 0)).toBe(true);
});
