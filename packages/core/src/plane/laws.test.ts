/** Laws of paths, against brute force: what is nearest, inside, cut in two, turned round. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import {
  apply, arcAbout, boxAround, boxAroundBoxes, centreOf, chain, circleOf, circlePath, crossing, determinant, directionOn, distance, heightOf, identity,
  inverse, isInside, isSimilarity, nearestOnPath, type Path, type Point, pathArea, pathBox, pathLength, pointOn, polygonOf, polygonPath, reversedPath,
  scaleOf, segmentBox, shift, splitPath, splitSegment, stepsOf, stretch, transformedPath, turn, unitVector, widthOf, withPoint,
} from './index.ts'; // biome-ignore format: one list

const coordinate = fc.integer({ min: -5000, max: 5000 }).map((n) => n / 100);
const at: fc.Arbitrary<Point> = fc.record({ x: coordinate, y: coordinate });
const segment = fc.oneof(
  fc.record({ kind: fc.constant('line' as const), to: at }),
  fc.record({
    kind: fc.constant('arc' as const),
    to: at,
    sweep: fc.oneof(fc.double({ min: 0.1, max: 4, noNaN: true }), fc.double({ min: -4, max: -0.1, noNaN: true })),
  }),
  fc.record({ kind: fc.constant('cubic' as const), c1: at, c2: at, to: at }),
);
/** Open paths of one to four segments, none of them shorter than a tenth of a millimetre. */
const anyPath: fc.Arbitrary<Path> = fc
  .record({ start: at, segments: fc.array(segment, { minLength: 1, maxLength: 4 }), closed: fc.constant(false) })
  .filter((path) => stepsOf(path).every(({ from, segment: s }) => distance(from, s.to) > 0.1));
const share = fc.double({ min: 0.05, max: 0.95, noNaN: true });
const walk = (path: Path, count = 400): Point[] =>
  stepsOf(path).flatMap(({ from, segment: s }) => Array.from({ length: count + 1 }, (_, k) => pointOn(from, s, k / count)));

describe('any path', () => {
  it('has no point nearer than its nearest point', () => {
    fc.assert(
      fc.property(anyPath, at, (path, p) => {
        const near = nearestOnPath(path, p);
        const tried = Math.min(...walk(path).map((q) => distance(p, q)));
        expect(near.distance).toBeLessThanOrEqual(tried + 1e-6);
        const { from, segment: s } = stepsOf(path)[near.index] as ReturnType<typeof stepsOf>[0];
        expect(distance(pointOn(from, s, near.t), near.point)).toBeLessThan(1e-6);
      }),
    );
  });
  it('lies in its box and touches all four sides', () => {
    fc.assert(
      fc.property(anyPath, (path) => {
        const box = pathBox(path);
        const tried = boxAround(walk(path, 1500)) as typeof box;
        for (const key of ['minX', 'minY'] as const) expect(tried[key] - box[key]).toBeGreaterThan(-1e-6);
        for (const key of ['maxX', 'maxY'] as const) expect(box[key] - tried[key]).toBeGreaterThan(-1e-6);
        for (const key of ['minX', 'minY', 'maxX', 'maxY'] as const) expect(Math.abs(box[key] - tried[key])).toBeLessThan(0.02);
      }),
      { numRuns: lawRuns(60) },
    );
  });
  it('is as long as its parts, and both parts meet where it was cut', () => {
    fc.assert(
      fc.property(anyPath, share, (path, t) => {
        const [before, after] = splitPath(path, 0, t) as [Path, Path];
        expect(pathLength(before) + pathLength(after)).toBeCloseTo(pathLength(path), 5);
        expect(distance(before.segments.at(-1)?.to as Point, after.start)).toBe(0);
      }),
    );
  });
  it('runs the same course backwards, with the same length', () => {
    fc.assert(
      fc.property(anyPath, (path) => {
        const back = reversedPath(path);
        expect(pathLength(back)).toBeCloseTo(pathLength(path), 6);
        expect(distance(reversedPath(back).start, path.start)).toBe(0);
        for (const p of walk(back, 5)) expect(nearestOnPath(path, p).distance).toBeLessThan(1e-5);
      }),
      { numRuns: lawRuns(60) },
    );
  });
  it('keeps to its image under any similarity, lengths growing by its scale', () => {
    fc.assert(
      fc.property(
        anyPath,
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0.1, max: 5, noNaN: true }),
        at,
        (path, angle, k, by) => {
          const t = chain(shift(by.x, by.y), chain(turn(angle), stretch(k)));
          expect(isSimilarity(t)).toBe(true);
          expect(scaleOf(t)).toBeCloseTo(k, 9);
          expect(pathLength(transformedPath(path, t)) / k).toBeCloseTo(pathLength(path), 4);
          expect(distance(apply(chain(inverse(t), t), by), by)).toBeLessThan(1e-8);
        },
      ),
    );
  });
  it('leaves every segment in the direction that a short step shows', () => {
    fc.assert(
      fc.property(segment, at, share, (s, from, t) => {
        fc.pre(distance(from, s.to) > 0.5 && (s.kind !== 'cubic' || distance(from, s.c1) > 0.5));
        const [a, b] = [pointOn(from, s, t - 1e-5), pointOn(from, s, t + 1e-5)];
        fc.pre(distance(a, b) > 1e-4);
        const [d, e] = [directionOn(from, s, t), unitVector({ x: b.x - a.x, y: b.y - a.y })];
        expect(d.x * e.x + d.y * e.y).toBeGreaterThan(0.999);
      }),
    );
  });
});

describe('segments cut in two', () => {
  it('are the same points as before', () => {
    fc.assert(
      fc.property(segment, at, share, share, (s, from, t, u) => {
        fc.pre(distance(from, s.to) > 0.1);
        const [first, second] = splitSegment(from, s, t);
        expect(distance(pointOn(from, first, u), pointOn(from, s, t * u))).toBeLessThan(1e-6);
        expect(distance(pointOn(first.to, second, u), pointOn(from, s, t + (1 - t) * u))).toBeLessThan(1e-6);
      }),
    );
  });
});

describe('closed paths', () => {
  const corner = fc.record({ x: fc.integer({ min: 0, max: 30 }), y: fc.integer({ min: 0, max: 30 }) });
  it('hold as many grid points as their area says (Pick 1899), for any triangle on the grid', () => {
    fc.assert(
      fc.property(corner, corner, corner, (a, b, c) => {
        const triangle = polygonPath([a, b, c]);
        const area = Math.abs(pathArea(triangle));
        fc.pre(area > 0);
        const common = (m: number, n: number): number => (n === 0 ? Math.abs(m) : common(n, m % n));
        const onBorder = [
          [a, b],
          [b, c],
          [c, a],
        ].reduce((sum, [p, q]) => sum + common((q as Point).x - (p as Point).x, (q as Point).y - (p as Point).y), 0);
        let inside = 0;
        for (let x = 0; x <= 30; x++) {
          for (let y = 0; y <= 30; y++) if (nearestOnPath(triangle, { x, y }).distance > 1e-9 && isInside(triangle, { x, y })) inside++;
        }
        expect(inside + onBorder / 2 - 1).toBeCloseTo(area, 9);
      }),
      { numRuns: lawRuns(40) },
    );
  });
  it('of chords are as large as the curve that they stand for, ever nearer', () => {
    const circle = circlePath({ x: 3, y: 4 }, 25);
    const areas = [0.1, 0.01, 0.001].map((tolerance) => pathArea(polygonPath(polygonOf(circle, tolerance))));
    const truth = pathArea(circle);
    expect(areas.every((a) => a < truth)).toBe(true);
    expect(truth - (areas[2] as number)).toBeLessThan((truth - (areas[0] as number)) / 50);
  });
  it('an open path has no area, and no place outside 0 to 1 can be split', () => {
    const open: Path = { ...circlePath({ x: 0, y: 0 }, 1), closed: false };
    expect(() => pathArea(open)).toThrow(RangeError);
    expect(() => withPoint(open, 0, 0)).toThrow(RangeError);
    expect(() => withPoint(open, 9, 0.5)).toThrow(RangeError);
    expect(() => polygonPath([{ x: 0, y: 0 }])).toThrow(RangeError);
    expect(() => nearestOnPath({ start: { x: 0, y: 0 }, segments: [], closed: false }, { x: 0, y: 0 })).toThrow(RangeError);
  });
});

describe('arcs, boxes, lines', () => {
  it('an arc about a centre lies on its circle', () => {
    fc.assert(
      fc.property(
        at,
        fc.double({ min: 0.5, max: 40, noNaN: true }),
        fc.double({ min: 0.1, max: 6, noNaN: true }),
        (centre, radius, sweep) => {
          const from = { x: centre.x + radius, y: centre.y };
          const found = circleOf(from, arcAbout(centre, from, sweep));
          expect(distance(found.centre, centre)).toBeLessThan(1e-6 * radius + 1e-9);
          expect(found.radius).toBeCloseTo(radius, 5);
        },
      ),
    );
  });
  it('boxes unite, and know their size', () => {
    const box = boxAroundBoxes([
      segmentBox({ x: 0, y: 0 }, { kind: 'line', to: { x: 2, y: 1 } }),
      { minX: -3, minY: 4, maxX: -1, maxY: 9 },
    ]);
    expect(box).toEqual({ minX: -3, minY: 0, maxX: 2, maxY: 9 });
    expect([widthOf(box as NonNullable<typeof box>), heightOf(box as NonNullable<typeof box>)]).toEqual([5, 9]);
    expect(centreOf(box as NonNullable<typeof box>)).toEqual({ x: -0.5, y: 4.5 });
    expect(boxAround([])).toBeNull();
  });
  it('lines cross where both run, and parallel ones nowhere', () => {
    expect(crossing({ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 4, y: 0 }, { x: -1, y: 1 })).toEqual({ x: 2, y: 2 });
    expect(crossing({ x: 0, y: 0 }, { x: 1, y: 2 }, { x: 4, y: 0 }, { x: 2, y: 4 })).toBeNull();
  });
  it('a flattening transform has no way back, and a stretch is no similarity', () => {
    expect(() => inverse(stretch(1, 0))).toThrow(RangeError);
    expect(isSimilarity(stretch(2, 3))).toBe(false);
    expect(isSimilarity(chain(stretch(-1, 1), turn(1)))).toBe(true);
    expect(determinant(identity)).toBe(1);
  });
});
