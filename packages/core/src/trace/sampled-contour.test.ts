import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { solveSymmetric } from '../numeric/linear-solve.ts';
import { findCorners } from './corners.ts';
import { edgeModelOf } from './edge-model.ts';
import { localCurve, meeting } from './local-curve.ts';
import { SampledContour } from './sampled-contour.ts';
import { isStraight, straightStretches } from './straights.ts';

type Xy = readonly [number, number];

/** Contour points from corners, `step` pixels apart. */
function along(corners: readonly Xy[], step = 0.8): Float64Array {
  const points: number[] = [];
  corners.forEach(([x, y], k) => {
    const [nextX, nextY] = corners[(k + 1) % corners.length] as Xy;
    const count = Math.ceil(Math.hypot(nextX - x, nextY - y) / step);
    for (let n = 0; n < count; n++) points.push(x + ((nextX - x) * n) / count, y + ((nextY - y) * n) / count);
  });
  return Float64Array.from(points);
}

const circle = (radius: number, count = Math.ceil(radius * 7)): Float64Array =>
  Float64Array.from({ length: 2 * count }, (_, k) => {
    const angle = (2 * Math.PI * (k >> 1)) / count;
    return 100 + radius * (k % 2 === 0 ? Math.cos(angle) : Math.sin(angle));
  });

const square = along([
  [10, 10],
  [110, 10],
  [110, 110],
  [10, 110],
]);
/** A rectangle of 160 x 100 with corners of radius 30, walked point by point. */
const rounded = (): Float64Array => {
  const points: number[] = [];
  const centres: readonly Xy[] = [
    [150, 40],
    [150, 80],
    [50, 80],
    [50, 40],
  ];
  centres.forEach(([cx, cy], k) => {
    for (let n = 0; n <= 60; n++) {
      const angle = -Math.PI / 2 + (k * Math.PI) / 2 + (n * Math.PI) / 120;
      points.push(cx + 30 * Math.cos(angle), cy + 30 * Math.sin(angle));
    }
  });
  return along(Array.from({ length: points.length / 2 }, (_, k) => [points[2 * k], points[2 * k + 1]] as const as Xy));
};
const sharp = edgeModelOf(0.5, 0.03, 1);

describe('a course', () => {
  it('walks its contour in even steps of a pixel', () => {
    const sampled = new SampledContour(square);
    expect(sampled.count).toBe(400);
    for (let k = 0; k < 400; k++) {
      const step = Math.hypot(sampled.x(k + 1) - sampled.x(k), sampled.y(k + 1) - sampled.y(k));
      expect(step).toBeGreaterThan(0.7);
      expect(step).toBeLessThan(1.0001);
    }
    expect(sampled.x(-1)).toBe(sampled.x(399));
    expect(sampled.y(405)).toBe(sampled.y(5));
  });
  it('gives the least-squares line of any stretch, as the eigenvector of its covariance, also round the start', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 399 }), fc.integer({ min: 3, max: 250 }), (first, size) => {
        const sampled = new SampledContour(square);
        const line = sampled.line(first, first + size);
        const points = Array.from({ length: size + 1 }, (_, k) => [sampled.x(first + k), sampled.y(first + k)] as const);
        const mean = (pick: 0 | 1) => points.reduce((sum, p) => sum + p[pick], 0) / points.length;
        const [mx, my] = [mean(0), mean(1)];
        const spread = (angle: number) =>
          points.reduce((sum, [x, y]) => sum + (Math.cos(angle) * (y - my) - Math.sin(angle) * (x - mx)) ** 2, 0);
        expect(line.x).toBeCloseTo(mx, 6);
        expect(line.y).toBeCloseTo(my, 6);
        const best = spread(Math.atan2(line.dy, line.dx));
        expect(line.rms).toBeCloseTo(Math.sqrt(best / points.length), 5);
        for (let k = 0; k < 36; k++) expect(spread((k * Math.PI) / 36)).toBeGreaterThanOrEqual(best - 1e-6);
      }),
    );
  });
  it('points its lines the way of travel', () => {
    const sampled = new SampledContour(square);
    const ways = [20, 120, 220, 320].map((k) => sampled.line(k, k + 50)).map(({ dx, dy }) => [Math.round(dx) + 0, Math.round(dy) + 0]);
    expect(ways).toEqual([
      [1, 0],
      [0, 1],
      [-1, 0],
      [0, -1],
    ]);
  });
  it('tells a smooth course from a rough one', () => {
    expect(new SampledContour(circle(80)).noise()).toBeLessThan(0.05);
    let state = 7;
    const random = () => {
      state = (state * 16807) % 2147483647;
      return state / 2147483647 - 0.5;
    };
    const noisy = circle(80).map((v) => v + 0.3 * random());
    expect(new SampledContour(noisy).noise()).toBeGreaterThan(0.05);
  });
});

describe('corners', () => {
  it('of a square are its four, within a pixel', () => {
    const sampled = new SampledContour(square);
    const found = findCorners(sampled, sharp).map(({ index, turn }) => [sampled.x(index), sampled.y(index), Math.abs(turn)]);
    expect(found).toHaveLength(4);
    for (const [x, y, turn] of found as [number, number, number][]) {
      expect(Math.min(Math.abs(x - 10), Math.abs(x - 110))).toBeLessThan(1);
      expect(Math.min(Math.abs(y - 10), Math.abs(y - 110))).toBeLessThan(1);
      expect(turn).toBeCloseTo(Math.PI / 2, 1);
    }
  });
  it.each([8, 12, 20, 60, 300])('are none on a circle of radius %d pixels', (radius) => {
    expect(findCorners(new SampledContour(circle(radius)), sharp)).toEqual([]);
  });
  it.each([25, 60, 90, 120, 144])('of a turn of %d degrees between two long sides are found', (degrees) => {
    const angle = (degrees * Math.PI) / 180;
    const tip: Xy = [200, 200];
    const sampled = new SampledContour(along([[50, 200], tip, [200 + 150 * Math.cos(angle), 200 + 150 * Math.sin(angle)]]));
    const near = findCorners(sampled, sharp).filter(({ index }) => Math.hypot(sampled.x(index) - tip[0], sampled.y(index) - tip[1]) < 2);
    expect(near).toHaveLength(1);
    expect(Math.abs(near[0]?.turn ?? 0)).toBeCloseTo(angle, 1);
  });
  it('are none on a rectangle whose corners are round by 30 pixels', () =>
    expect(findCorners(new SampledContour(rounded()), sharp)).toEqual([]));
});

describe('straight stretches', () => {
  it('of a rounded rectangle are its four sides, nearly whole', () => {
    const sampled = new SampledContour(rounded());
    const found = straightStretches(sampled, sharp, 0, sampled.count - 1).map(({ first, last }) => last - first);
    expect(found.length).toBeGreaterThanOrEqual(4);
    expect(found.length).toBeLessThanOrEqual(5);
    // Two sides of 100 and two of 40.
    expect(found.reduce((a, b) => a + b, 0)).toBeGreaterThan(240);
    expect(found.reduce((a, b) => a + b, 0)).toBeLessThan(330);
  });
  it.each([15, 40, 120, 500, 2000])('are none on a circle of radius %d pixels, however flat it looks close by', (radius) => {
    const sampled = new SampledContour(circle(radius));
    expect(straightStretches(sampled, sharp, 0, sampled.count - 1)).toEqual([]);
  });
  it('a side is straight, a side with a bow of half a pixel is not', () => {
    const bowed = (bow: number) =>
      new SampledContour(
        along([...Array.from({ length: 101 }, (_, k): Xy => [k * 2, 50 + bow * (1 - ((k - 50) / 50) ** 2)]), [200, 150], [0, 150]]),
      );
    expect(isStraight(bowed(0), sharp, 5, 195)).toBe(true);
    expect(isStraight(bowed(0.5), sharp, 5, 195)).toBe(false);
  });
});

describe('a local curve', () => {
  it('reads place and direction of a circle to a hundredth of a pixel', () => {
    const sampled = new SampledContour(circle(60));
    const { at, direction } = localCurve(sampled, 50, 42, 58);
    expect(Math.hypot(at.x - 100, at.y - 100)).toBeCloseTo(60, 2);
    const radial = (at.x - 100) * direction.x + (at.y - 100) * direction.y;
    expect(Math.abs(radial) / 60).toBeLessThan(1e-3);
  });
  it('meets another where they truly cross: two sides of a square, beyond their rounded corner', () => {
    const sampled = new SampledContour(square);
    const met = meeting(localCurve(sampled, 100, 60, 92, true), localCurve(sampled, 100, 108, 140, true));
    expect(met?.x).toBeCloseTo(110, 6);
    expect(met?.y).toBeCloseTo(10, 6);
  });
});

describe('small systems of equations', () => {
  it('are solved: the matrix times the solution is the right side', () => {
    const entry = fc.double({ min: -5, max: 5, noNaN: true });
    fc.assert(
      fc.property(fc.array(entry, { minLength: 16, maxLength: 16 }), fc.array(entry, { minLength: 4, maxLength: 4 }), (flat, right) => {
        // A matrix times its mirror, plus a little on the diagonal, is symmetric and has an inverse.
        const rows = [0, 1, 2, 3].map((r) => flat.slice(4 * r, 4 * r + 4));
        const matrix = rows.map((a, i) => rows.map((b, k) => a.reduce((sum, v, n) => sum + v * (b[n] as number), 0) + (i === k ? 0.5 : 0)));
        const solution = solveSymmetric(
          matrix.map((row) => [...row]),
          [...right],
        );
        matrix.forEach((row, i) => {
          expect(row.reduce((sum, v, k) => sum + v * (solution?.[k] as number), 0)).toBeCloseTo(right[i] as number, 6);
        });
      }),
    );
  });
  it('that have no single solution are refused', () =>
    expect(
      solveSymmetric(
        [
          [1, 2],
          [2, 4],
        ],
        [1, 2],
      ),
    ).toBeNull());
});
