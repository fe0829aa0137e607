/** The medial axis against closed forms, and against the distance to its border. */
import { describe, expect, it } from 'vitest';
import { circlePath, ellipsePath, nearestOnPath, type Path, polygonPath, reversedPath } from '../plane/index.ts';
import { finished } from '../steps.ts';
import { type AxisBranch, medialAxis } from './medial-axis.ts';

const polygon = (...corners: [number, number][]): Path => polygonPath(corners.map(([x, y]) => ({ x, y })));
const axisOf = (...paths: Path[]): AxisBranch[] => finished(medialAxis(paths));
const lengthOf = (branches: readonly AxisBranch[]): number =>
  branches.reduce(
    (sum, { places }) => sum + places.slice(1).reduce((s, p, k) => s + Math.hypot(p.x - (places[k]?.x ?? 0), p.y - (places[k]?.y ?? 0)), 0),
    0,
  );
/** How far a clearance is from the distance to the border, at most; looked at on chords as well. */
const worst = (branches: readonly AxisBranch[], paths: readonly Path[]): number =>
  Math.max(
    ...branches.flatMap(({ places }) =>
      places.flatMap((p, k) => {
        const q = places[k + 1] ?? p;
        const middle = { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2, clearanceMm: (p.clearanceMm + q.clearanceMm) / 2 };
        return [p, middle].map((m) => Math.abs(m.clearanceMm - Math.min(...paths.map((path) => nearestOnPath(path, m).distance))));
      }),
    ),
  );

describe('the medial axis', () => {
  it('of a rectangle: a ridge as long as the sides differ, and diagonals into the four corners', () => {
    const path = polygon([0, 0], [40, 0], [40, 20], [0, 20]);
    const axis = axisOf(path);
    expect(lengthOf(axis)).toBeCloseTo(20 + 4 * Math.hypot(10, 10), 2);
    for (const corner of [[0, 0], [40, 0], [40, 20], [0, 20]] as const) {
      const ends = axis.flatMap(({ places }) => [places[0], places.at(-1)]);
      expect(ends.some((p) => p && Math.hypot(p.x - corner[0], p.y - corner[1]) < 1e-6 && p.clearanceMm < 1e-6)).toBe(true);
    }
    expect(worst(axis, [path])).toBeLessThan(0.002);
  }); // biome-ignore format: corners
  it('of an ellipse ends at its centres of least curvature radius, a - b²/a from its middle', () => {
    const path = ellipsePath({ x: 0, y: 0 }, 30, 15, 0);
    const xs = axisOf(path).flatMap(({ places }) => places.map(({ x }) => x));
    expect(Math.max(...xs)).toBeCloseTo(30 - (15 * 15) / 30, 2);
    expect(Math.min(...xs)).toBeCloseTo(-22.5, 2);
    expect(worst(axisOf(path), [path])).toBeLessThan(0.002);
  });
  it('of a stadium is the line between its middles, all of it as far from the border', () => {
    const path: Path = {
      start: { x: -10, y: -5 },
      segments: [
        { kind: 'line', to: { x: 10, y: -5 } },
        { kind: 'arc', to: { x: 10, y: 5 }, sweep: Math.PI },
        { kind: 'line', to: { x: -10, y: 5 } },
        { kind: 'arc', to: { x: -10, y: -5 }, sweep: Math.PI },
      ],
      closed: true,
    };
    const axis = axisOf(path);
    expect(lengthOf(axis)).toBeCloseTo(20, 6);
    for (const { clearanceMm } of axis.flatMap(({ places }) => places)) expect(clearanceMm).toBeCloseTo(5, 6);
  });
  it('of a five-pointed star has a branch into each point', () => {
    const corners = Array.from({ length: 10 }, (_, k): [number, number] => {
      const [angle, r] = [(Math.PI * k) / 5, k % 2 ? 8 : 20];
      return [r * Math.cos(angle), r * Math.sin(angle)];
    });
    const path = polygon(...corners);
    const axis = axisOf(path);
    const ends = axis.flatMap(({ places }) => [places[0], places.at(-1)]);
    for (const [x, y] of corners.filter((_, k) => k % 2 === 0))
      expect(ends.some((p) => p && Math.hypot(p.x - x, p.y - y) < 1e-6)).toBe(true);
    expect(worst(axis, [path])).toBeLessThan(0.002);
  });
  it('of a ring is the circle midway, and of a disc its middle alone', () => {
    const [outer, inner] = [circlePath({ x: 0, y: 0 }, 20), reversedPath(circlePath({ x: 0, y: 0 }, 8))];
    const axis = axisOf(outer, inner);
    expect(lengthOf(axis)).toBeCloseTo(2 * Math.PI * 14, 1);
    expect(worst(axis, [outer, inner])).toBeLessThan(0.002);
    expect(lengthOf(axisOf(outer))).toBeLessThan(1e-6);
  });
  it('lies midway between a plate’s edge and its hole, whichever way they run', () => {
    const paths = [polygon([0, 0], [0, 40], [60, 40], [60, 0]), circlePath({ x: 22, y: 18 }, 8)];
    expect(worst(axisOf(...paths), paths)).toBeLessThan(0.002);
  });
});
