/** Closed outlines about what open lines enclose, tips and lines inside apart. */
import { describe, expect, it } from 'vitest';
import { circlePath, type Path, type Point, pathArea, pathLength, polygonPath } from '../plane/index.ts';
import { splitPath } from '../plane/path.ts';
import { annotationsOf } from './annotations.ts';
import { outlinesOfLines } from './outlines-of-lines.ts';

const p = (x: number, y: number): Point => ({ x, y });
const line = (...points: Point[]): Path => ({ start: points[0] as Point, segments: points.slice(1).map((to) => ({ kind: 'line', to })), closed: false }); // biome-ignore format: one line
const areas = (paths: readonly Path[]) => paths.map((path) => Math.abs(pathArea(path))).sort((a, b) => a - b);

describe('outlines of lines', () => {
  it('a wing on a centre line that runs on past it: the wing closes, both tips of the line are left', () => {
    const axis = line(p(40, 20), p(40, 182));
    const edge = line(p(40, 40), p(190, 70), p(190, 110), p(40, 160));
    const { outlines, rest } = outlinesOfLines([axis, edge]);
    // Shoelace by hand: (120 + 40) / 2 x 150.
    expect(areas(outlines)).toEqual([expect.closeTo(12_000, 6)]);
    expect(outlines[0]?.segments).toHaveLength(4);
    expect(rest.map(pathLength).sort((a, b) => a - b)).toEqual([expect.closeTo(20, 9), expect.closeTo(22, 9)]);
    const pieces = [...outlines, ...rest].map((outer, k) => ({ id: `${k}`, outer }));
    expect(annotationsOf(pieces)).toEqual(['1', '2']);
  });
  it('a straight that was cut goes on as before: no point is left on it', () => {
    const axis = line(p(40, 20), p(40.01, 100), p(40, 182));
    const { outlines } = outlinesOfLines([axis, line(p(40, 40), p(190, 70), p(190, 110), p(40, 160))]);
    expect(outlines[0]?.segments).toHaveLength(4);
  });
  it('lines that cross are cut where they cross: a square of four long lines', () => {
    const grid = [line(p(0, 10), p(100, 10)), line(p(0, 60), p(100, 60)), line(p(20, 0), p(20, 100)), line(p(70, 0), p(70, 100))];
    const { outlines, rest } = outlinesOfLines(grid);
    expect(areas(outlines)).toEqual([expect.closeTo(2500, 6)]);
    expect(rest).toHaveLength(8);
  });
  it('what lies within stays a line of its own, and is no stub', () => {
    const frame = line(p(0, 0), p(60, 0), p(60, 40), p(0, 40), p(0, 0));
    const rib = line(p(20, 0), p(20, 40));
    const slit = line(p(60, 20), p(45, 20));
    const { outlines, rest } = outlinesOfLines([frame, rib, slit]);
    expect(areas(outlines)).toEqual([expect.closeTo(2400, 6)]);
    expect(rest.map(pathLength).sort((a, b) => a - b)).toEqual([expect.closeTo(15, 9), expect.closeTo(40, 9)]);
    expect(annotationsOf([...outlines, ...rest].map((outer, k) => ({ id: `${k}`, outer })))).toEqual([]);
  });
  it('two loops on one stem are two outlines, the stem a line between them', () => {
    const [left = [], right = []] = [circlePath(p(0, 0), 10), circlePath(p(60, 0), 10)].map((c) =>
      splitPath({ ...c, closed: false }, 0, 0.5),
    );
    const { outlines, rest } = outlinesOfLines([...left, ...right, line(p(10, 0), p(50, 0))]);
    expect(areas(outlines)).toEqual([expect.closeTo(100 * Math.PI, 6), expect.closeTo(100 * Math.PI, 6)]);
    expect(rest.map(pathLength)).toEqual([expect.closeTo(40, 9)]);
  });
  it('lines that enclose nothing stay as they are, to the last digit', () => {
    const tree = [line(p(0, 0), p(50, 0)), line(p(20, 0), p(20, 30)), line(p(20, 15), p(40, 15))];
    const { outlines, rest } = outlinesOfLines(tree);
    expect(outlines).toEqual([]);
    expect(rest).toEqual(tree);
  });
  it('of a wheel of twelve spokes the rim is the outline', () => {
    const rim = polygonPath(Array.from({ length: 24 }, (_, k) => p(50 * Math.cos((k * Math.PI) / 12), 50 * Math.sin((k * Math.PI) / 12))));
    const spokes = Array.from({ length: 12 }, (_, k) =>
      line(p(0, 0), p(50 * Math.cos((k * Math.PI) / 6), 50 * Math.sin((k * Math.PI) / 6))),
    );
    const { outlines, rest } = outlinesOfLines([{ ...rim, closed: false }, ...spokes]);
    expect(areas(outlines)).toEqual([expect.closeTo(Math.abs(pathArea(rim)), 6)]);
    expect(rest).toHaveLength(12);
    expect(rest.every((spoke) => Math.abs(pathLength(spoke) - 50) < 1e-9)).toBe(true);
  });
});
