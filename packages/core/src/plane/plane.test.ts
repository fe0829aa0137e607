import { Bezier } from 'bezier-js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import {
  type ArcSegment,
  apply,
  arcAsCubics,
  type Box,
  type CubicSegment,
  chain,
  circlePath,
  distance,
  inverse,
  isInside,
  nearestOnPath,
  type Path,
  type Point,
  pathArea,
  pathBox,
  pathLength,
  pointOn,
  polygonOf,
  polygonPath,
  reversedPath,
  type Segment,
  segmentBox,
  segmentLength,
  splitPath,
  stretch,
  transformedPath,
  turn,
  withPoint,
} from './index.ts';

/** Hundredths of a millimetre within a sheet of 400 mm. */
const coordinate = fc.integer({ min: -20000, max: 20000 }).map((n) => n / 100);
const anyPoint: fc.Arbitrary<Point> = fc.record({ x: coordinate, y: coordinate });
const anyCubic = fc
  .record({ from: anyPoint, kind: fc.constant('cubic' as const), c1: anyPoint, c2: anyPoint, to: anyPoint })
  .filter(({ from, c1, c2, to }) => Math.min(distance(from, c1), distance(c1, c2), distance(c2, to)) > 1);
const anyArc = fc
  .record({ from: anyPoint, to: anyPoint, sweep: fc.double({ min: 0.05, max: 5, noNaN: true }), back: fc.boolean() })
  .filter(({ from, to }) => distance(from, to) > 0.1)
  .map(({ from, to, sweep, back }) => ({ from, arc: { kind: 'arc', to, sweep: back ? -sweep : sweep } as ArcSegment }));
const bezier = (from: Point, s: CubicSegment) => new Bezier(from.x, from.y, s.c1.x, s.c1.y, s.c2.x, s.c2.y, s.to.x, s.to.y);
const mixed: Path = {
  start: { x: 0, y: 0 },
  segments: [
    { kind: 'line', to: { x: 40, y: 0 } },
    { kind: 'arc', to: { x: 40, y: 20 }, sweep: Math.PI },
    { kind: 'cubic', c1: { x: 30, y: 26 }, c2: { x: 12, y: 8 }, to: { x: 0, y: 20 } },
    { kind: 'line', to: { x: 0, y: 0 } },
  ],
  closed: true,
};
const within = (box: Box, p: Point, slack: number) =>
  p.x >= box.minX - slack && p.x <= box.maxX + slack && p.y >= box.minY - slack && p.y <= box.maxY + slack;

describe('cubic curves agree with bezier-js', () => {
  it('in length, to 1e-6', () => {
    fc.assert(
      fc.property(anyCubic, ({ from, ...s }) => {
        // bezier-js integrates with 24 nodes in one go; halved here so that cusps do not limit the reference.
        const pieces = (b: Bezier, depth: number): number =>
          depth === 0 ? b.length() : pieces(b.split(0, 0.5), depth - 1) + pieces(b.split(0.5, 1), depth - 1);
        const expected = pieces(bezier(from, s), 6);
        expect(Math.abs(segmentLength(from, s) - expected)).toBeLessThanOrEqual(1e-6 * expected);
      }),
      { numRuns: lawRuns(60) },
    );
  });
  it('in the box round them', () => {
    fc.assert(
      fc.property(anyCubic, ({ from, ...s }) => {
        // Where the third differences are nothing but rounding, bezier-js misses the turning point.
        const third = (key: 'x' | 'y') => Math.abs(s.to[key] - 3 * s.c2[key] + 3 * s.c1[key] - from[key]);
        fc.pre(third('x') > 1e-9 && third('y') > 1e-9);
        const box = segmentBox(from, s);
        const { x, y } = bezier(from, s).bbox();
        for (const [ours, theirs] of [
          [box.minX, x.min],
          [box.maxX, x.max],
          [box.minY, y.min],
          [box.maxY, y.max],
        ]) {
          expect(ours).toBeCloseTo(theirs as number, 5);
        }
      }),
    );
  });
  it('in a box that holds the curve, touched on all its sides, also where its third differences vanish', () => {
    const cubics = [
      { from: { x: 0, y: -0.07 }, c1: { x: -0.99, y: 0.09 }, c2: { x: 0.01, y: 0.08 }, to: { x: 1, y: -0.1 } },
      { from: { x: 0, y: 0 }, c1: { x: 1, y: 3 }, c2: { x: 2, y: 3 }, to: { x: 3, y: 0 } },
    ];
    for (const { from, ...s } of cubics) {
      const box = segmentBox(from, { kind: 'cubic', ...s });
      const places = Array.from({ length: 20_001 }, (_, k) => pointOn(from, { kind: 'cubic', ...s }, k / 20_000));
      expect(Math.min(...places.map(({ x }) => x))).toBeCloseTo(box.minX, 7);
      expect(Math.max(...places.map(({ x }) => x))).toBeCloseTo(box.maxX, 7);
      expect(Math.min(...places.map(({ y }) => y))).toBeCloseTo(box.minY, 7);
      expect(Math.max(...places.map(({ y }) => y))).toBeCloseTo(box.maxY, 7);
    }
  });
  it('in the nearest point, which is never farther than theirs', () => {
    fc.assert(
      fc.property(anyCubic, anyPoint, ({ from, ...s }, p) => {
        const ours = nearestOnPath({ start: from, segments: [s], closed: false }, p);
        // bezier-js steps a little past the ends, so its place is brought back onto the curve first.
        const theirs = bezier(from, s).get(Math.min(1, Math.max(0, bezier(from, s).project(p).t as number)));
        expect(ours.distance).toBeLessThanOrEqual(distance(theirs, p) + 1e-9);
        expect(distance(pointOn(from, s, ours.t), ours.point)).toBeLessThan(1e-9);
      }),
    );
  });
});

describe('closed forms', () => {
  it('a circle of radius 30 mm has length 60 pi, area 900 pi and a box of 60 mm', () => {
    const circle = circlePath({ x: 5, y: -7 }, 30);
    expect(pathLength(circle)).toBeCloseTo(60 * Math.PI, 10);
    expect(pathArea(circle)).toBeCloseTo(900 * Math.PI, 8);
    expect(pathBox(circle)).toEqual({ minX: -25, minY: -37, maxX: 35, maxY: 23 });
  });
  it('a slot of 40 mm with one round end has its area from rectangle and half disc', () => {
    const slot: Path = {
      start: { x: 0, y: 0 },
      segments: [
        { kind: 'line', to: { x: 40, y: 0 } },
        { kind: 'arc', to: { x: 40, y: 20 }, sweep: Math.PI },
        { kind: 'line', to: { x: 0, y: 20 } },
        { kind: 'line', to: { x: 0, y: 0 } },
      ],
      closed: true,
    };
    expect(pathArea(slot)).toBeCloseTo(800 + 50 * Math.PI, 9);
    expect(pathLength(slot)).toBeCloseTo(100 + 10 * Math.PI, 9);
    expect(pathBox(slot).maxX).toBeCloseTo(50, 12);
  });
  it('the area of a cubic from (0,0) to (3,0) with handles one up is that of its polynomial', () => {
    const s: CubicSegment = { kind: 'cubic', c1: { x: 1, y: 1 }, c2: { x: 2, y: 1 }, to: { x: 3, y: 0 } };
    const path: Path = { start: { x: 0, y: 0 }, segments: [s, { kind: 'line', to: { x: 0, y: 0 } }], closed: true };
    // x = 3t, y = 3t - 3t^2, so the area under it is the integral of 3 (3t - 3t^2) = 1.5, travelled clockwise.
    expect(pathArea(path)).toBeCloseTo(-1.5, 12);
  });
  it('an ellipse of axes 80 and 50 mm made by stretching a circle keeps area and Ramanujan length', () => {
    const ellipse = transformedPath(circlePath({ x: 0, y: 0 }, 1), stretch(40, 25), 0.0005);
    expect(ellipse.segments.every((s) => s.kind === 'ellipse')).toBe(true);
    expect(pathArea(ellipse)).toBeCloseTo(1000 * Math.PI, 9);
    // Ramanujan 1914, second approximation, good to 1e-7 at this shape.
    const h = ((40 - 25) / (40 + 25)) ** 2;
    expect(pathLength(ellipse)).toBeCloseTo(Math.PI * 65 * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h))), 4);
  });
  it('any affine image of an arc lies on the image of its circle, to the last digit', () => {
    const map = { a: 2, b: 0.3, c: -0.7, d: 1.4, e: 5, f: -3 };
    for (const sweep of [0.4, -2.9, 5.5]) {
      const path: Path = {
        start: { x: 10, y: 0 },
        segments: [{ kind: 'arc', to: { x: 10 * Math.cos(sweep), y: 10 * Math.sin(sweep) }, sweep }],
        closed: false,
      };
      const image = transformedPath(path, map, 0.1);
      const back = transformedPath(image, inverse(map), 0.1);
      for (const t of [0, 0.2, 0.5, 0.77, 1]) {
        const there = pointOn(image.start, image.segments[0] as Segment, t);
        expect(distance(there, apply(map, { x: 10 * Math.cos(sweep * t), y: 10 * Math.sin(sweep * t) }))).toBeLessThan(1e-9);
        const again = pointOn(back.start, back.segments[0] as Segment, t);
        expect(Math.hypot(again.x, again.y)).toBeCloseTo(10, 9);
      }
    }
  });
});

describe('laws', () => {
  it('an arc turned into cubics stays within the tolerance asked for', () => {
    fc.assert(
      fc.property(anyArc, fc.constantFrom(0.1, 0.01, 0.001), ({ from, arc }, tolerance) => {
        const cubics = arcAsCubics(from, arc, tolerance);
        const whole: Path = { start: from, segments: [arc], closed: false };
        let start = from;
        for (const c of cubics) {
          for (let t = 0; t <= 1; t += 0.1) {
            expect(nearestOnPath(whole, pointOn(start, c, t)).distance).toBeLessThanOrEqual(tolerance * 1.01 + 1e-9);
          }
          start = c.to;
        }
      }),
    );
  });
  it('the box of an arc holds all of it and is touched on every side', () => {
    fc.assert(
      fc.property(anyArc, ({ from, arc }) => {
        const box = segmentBox(from, arc);
        const points = Array.from({ length: 2001 }, (_, k) => pointOn(from, arc, k / 2000));
        const radius = segmentLength(from, arc) / Math.abs(arc.sweep);
        expect(points.every((p) => within(box, p, 1e-6 * radius))).toBe(true);
        expect(Math.max(...points.map((p) => p.x))).toBeGreaterThan(box.maxX - 1e-5 * radius);
        expect(Math.min(...points.map((p) => p.y))).toBeLessThan(box.minY + 1e-5 * radius);
      }),
      { numRuns: lawRuns(50) },
    );
  });
  it('splitting changes neither length nor course, reversing only the sign of the area', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3 }), fc.double({ min: 0.01, max: 0.99, noNaN: true }), (index, t) => {
        const more = withPoint(mixed, index, t);
        expect(pathLength(more)).toBeCloseTo(pathLength(mixed), 7);
        expect(pathArea(more)).toBeCloseTo(pathArea(mixed), 8);
        expect(pathArea(reversedPath(more))).toBeCloseTo(-pathArea(mixed), 8);
        const [opened] = splitPath(mixed, index, t) as [Path];
        expect(opened.start).toEqual(opened.segments.at(-1)?.to);
        expect(splitPath(opened, 1, 0.5).reduce((sum, part) => sum + pathLength(part), 0)).toBeCloseTo(pathLength(mixed), 7);
      }),
    );
  });
  it('a turn and a mirror keep lengths, and the way back leads home', () => {
    fc.assert(
      fc.property(fc.double({ min: -3, max: 3, noNaN: true }), anyPoint, (angle, p) => {
        const t = chain(turn(angle), stretch(-1, 1));
        const image = transformedPath(mixed, t);
        expect(image.segments.map((s) => s.kind)).toEqual(mixed.segments.map((s) => s.kind));
        expect(pathLength(image)).toBeCloseTo(pathLength(mixed), 8);
        expect(pathArea(image)).toBeCloseTo(-pathArea(mixed), 7);
        expect(distance(apply(inverse(t), apply(t, p)), p)).toBeLessThan(1e-9);
      }),
    );
  });
  it('chords leave the path by no more than asked', () => {
    const polygon = polygonPath(polygonOf(mixed, 0.01));
    for (const { x, y } of polygonOf(mixed, 0.0001)) {
      expect(nearestOnPath(polygon, { x, y }).distance).toBeLessThanOrEqual(0.0102);
    }
  });
  it('inside is inside', () => {
    expect(isInside(mixed, { x: 48, y: 10 })).toBe(true);
    expect(isInside(mixed, { x: 51, y: 10 })).toBe(false);
    expect(isInside(mixed, { x: 20, y: -0.1 })).toBe(false);
  });
});
