import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { circlePath, type Path, pathArea, polygonPath, rectanglePath } from '../plane/index.ts';
import { planarMap } from './planar-map.ts';

const line = (x0: number, y0: number, x1: number, y1: number): Path => ({
  start: { x: x0, y: y0 },
  segments: [{ kind: 'line', to: { x: x1, y: y1 } }],
  closed: false,
});
const areas = (paths: readonly Path[], join = 0.01): number[] => planarMap(paths, join).faces.map(({ area }) => area);

/** Vertices, edges, faces and parts of every planar map obey Euler's formula: V - E + F = 1 + C, the outside counted. */
function eulerOf(paths: readonly Path[], join = 0.01): number {
  const { edges, faces } = planarMap(paths, join);
  const parent = new Map<number, number>();
  const root = (k: number): number => (parent.get(k) === undefined || parent.get(k) === k ? k : root(parent.get(k) as number));
  for (const { from, to } of edges) parent.set(root(from), root(to));
  const used = new Set(edges.flatMap(({ from, to }) => [from, to]));
  const parts = new Set([...used].map(root)).size;
  return used.size - edges.length + faces.length + 1 - (1 + parts);
}

describe('a planar map', () => {
  it('of a square cut by both diagonals has four faces alike', () => {
    const found = areas([rectanglePath({ minX: 0, minY: 0, maxX: 10, maxY: 10 }), line(0, 0, 10, 10), line(0, 10, 10, 0)]);
    expect(found.length).toBe(4);
    for (const area of found) expect(area).toBeCloseTo(25, 9);
  });
  it('draws ends together that lie near each other, and ends a line on another that it nearly meets', () => {
    const map = planarMap(
      [line(0, 0, 10, 0.03), line(10.04, 0, 10, 10), line(10, 10.05, 0, 10), line(0, 10, 0, 0.04), line(5, 0.06, 5, 9.96)],
      0.1,
    );
    expect(map.faces.length).toBe(2);
    expect(map.looseEnds).toEqual([]);
    for (const { area } of map.faces) expect(Math.abs(area - 50)).toBeLessThan(1);
  });
  it('tells where a line ends without meeting another, and leaves it out', () => {
    const map = planarMap([rectanglePath({ minX: 0, minY: 0, maxX: 10, maxY: 10 }), line(0, 5, 6, 5)], 0.1);
    expect(map.faces.length).toBe(1);
    expect(map.looseEnds).toEqual([{ x: 6, y: 5 }]);
  });
  it('of patches side by side has the line between them once, with a face on either side', () => {
    const map = planarMap(
      [rectanglePath({ minX: 0, minY: 0, maxX: 4, maxY: 4 }), rectanglePath({ minX: 4, minY: 0, maxX: 8, maxY: 4 })],
      0.01,
    );
    expect(map.edges.length).toBe(7);
    expect(map.edges.filter(({ left, right }) => left >= 0 && right >= 0).length).toBe(1);
  });
  it('keeps curves: a square with a circle in it has a face with a hole', () => {
    const map = planarMap([rectanglePath({ minX: 0, minY: 0, maxX: 10, maxY: 10 }), circlePath({ x: 5, y: 5 }, 3)], 0.01);
    expect(map.faces.map(({ holes }) => holes.length).sort()).toEqual([0, 1]);
    const [ring, disk] = map.faces;
    expect(ring?.area).toBeCloseTo(100 - 9 * Math.PI, 9);
    expect(disk?.area).toBeCloseTo(9 * Math.PI, 9);
  });
  it('of a quarter circle across a square divides it exactly', () => {
    const arc: Path = { start: { x: 10, y: 0 }, segments: [{ kind: 'arc', to: { x: 0, y: 10 }, sweep: Math.PI / 2 }], closed: false };
    const found = areas([rectanglePath({ minX: 0, minY: 0, maxX: 10, maxY: 10 }), arc]);
    expect(found[0]).toBeCloseTo(25 * Math.PI, 9);
    expect(found[1]).toBeCloseTo(100 - 25 * Math.PI, 9);
  });
  it('obeys Euler, and its faces fill the square, whatever lines cross it', () => {
    const at = fc.double({ min: 0, max: 10, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(at, at), { minLength: 1, maxLength: 9 }), (ends) => {
        const lines = ends.map(([a, b]) => line(0, a, 10, b));
        const paths = [rectanglePath({ minX: 0, minY: 0, maxX: 10, maxY: 10 }), ...lines];
        expect(eulerOf(paths, 1e-6)).toBe(0);
        expect(areas(paths, 1e-6).reduce((sum, area) => sum + area, 0)).toBeCloseTo(100, 3);
      }),
      { numRuns: 60 },
    );
  });
  it('has every edge of a face beside it, and the outside beside the rest', () => {
    const map = planarMap([polygonPath([{ x: 0, y: 0 }, { x: 6, y: 0 }, { x: 3, y: 5 }]), line(3, 0, 3, 5)], 0.01); // biome-ignore format: one line
    map.faces.forEach((face, k) => {
      for (const { edge, isForward } of face.sides) expect(isForward ? map.edges[edge]?.left : map.edges[edge]?.right).toBe(k);
      expect(pathArea(face.outer)).toBeCloseTo(face.area, 9);
    });
    expect(map.edges.filter(({ left, right }) => left < 0 || right < 0).length).toBe(4);
  });
});
