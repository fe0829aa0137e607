/** Points moved, added and taken out; curves through points; figures by their measures. */

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import {
  circlePath,
  directionOn,
  distance,
  ellipsePath,
  nearestOnPath,
  type Path,
  type Point,
  pathArea,
  pathLength,
  pointOn,
  polygonPath,
  stepsOf,
  withPoint,
} from '../plane/index.ts';
import { withFewerPoints } from '../trace/fewer-points.ts';
import { arcLeaving, circleThrough, circleTouching, FigureError, figurePath } from './figures.ts';
import {
  brokenAt,
  isSmooth,
  madeCorner,
  madeSmooth,
  startMoved,
  withHandleMoved,
  withoutPoints,
  withPointsMoved,
  withSegmentAs,
  withSegmentPulled,
} from './points.ts';
import { pathThrough, pointsAlong, reversedPoints, spanBetween } from './through-points.ts';

const at = fc.record({ x: fc.integer({ min: -500, max: 500 }), y: fc.integer({ min: -500, max: 500 }) });
const pen: Path = { start: { x: 0, y: 0 }, closed: true, segments: [{ kind: 'cubic', c1: { x: 10, y: -12 }, c2: { x: 30, y: -12 }, to: { x: 40, y: 0 } }, { kind: 'arc', to: { x: 40, y: 30 }, sweep: 2 }, { kind: 'line', to: { x: 0, y: 30 } }, { kind: 'cubic', c1: { x: -8, y: 20 }, c2: { x: -8, y: 8 }, to: { x: 0, y: 0 } }] }; // biome-ignore format: one line

describe('points of a path', () => {
  it('moved there and back leave it as it was, and all moved shift it whole', () => {
    fc.assert(
      fc.property(fc.subarray([0, 1, 2, 3], { minLength: 1 }), at, (which, by) => {
        const back = withPointsMoved(withPointsMoved(pen, which, by), which, { x: -by.x, y: -by.y });
        for (const [k, { segment }] of stepsOf(back).entries())
          expect(distance(segment.to, pen.segments[k]?.to as Point)).toBeLessThan(1e-9);
        const whole = withPointsMoved(pen, [0, 1, 2, 3], by);
        expect(pathArea(whole)).toBeCloseTo(pathArea(pen), 6);
      }),
    );
  });
  it('taken out where they were put in leave the curve as it was', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 0.8, noNaN: true }), (t) => {
        const more = withPoint(pen, 0, t);
        const back = withoutPoints(more, [1]) as Path;
        expect(back.segments).toHaveLength(4);
        for (const u of [0.2, 0.5, 0.8])
          expect(nearestOnPath(pen, pointOn(back.start, back.segments[0] as Path['segments'][0], u)).distance).toBeLessThan(0.01);
      }),
      { numRuns: lawRuns(40) },
    );
    expect(withoutPoints(circlePath({ x: 0, y: 0 }, 5), [1])).toBeNull();
  });
  it('a curve dragged by its body passes the pointer, its ends stay', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 0.9, noNaN: true }), at, (t, to) => {
        const pulled = withSegmentPulled(pen, 0, t, to);
        expect(distance(pointOn(pulled.start, pulled.segments[0] as Path['segments'][0], t), to)).toBeLessThan(1e-6);
        expect(pulled.segments[0]?.to).toEqual(pen.segments[0]?.to);
      }),
    );
  });
  it('become smooth and corners again; a handle of a smooth point turns the other along', () => {
    const square = polygonPath([{ x: 0, y: 0 }, { x: 30, y: 0 }, { x: 30, y: 30 }, { x: 0, y: 30 }]); // biome-ignore format: one line
    const soft = madeSmooth(square, 1);
    expect(isSmooth(soft, 1)).toBe(true);
    expect(isSmooth(square, 1)).toBe(false);
    expect(isSmooth(withHandleMoved(soft, 1, 'c1', { x: 44, y: 3 }), 1)).toBe(true);
    expect(isSmooth(madeCorner(soft, 1), 1)).toBe(false);
  });
  it('a segment changes its kind between the same ends', () => {
    const line = withSegmentAs(pen, 1, 'line');
    expect(line.segments[1]).toEqual({ kind: 'line', to: { x: 40, y: 30 } });
    expect(withSegmentAs(line, 1, 'arc').segments[1]?.kind).toBe('arc');
    expect(pathLength(withSegmentAs(pen, 1, 'cubic'))).toBeCloseTo(pathLength(pen), 2);
  });
  it('the start moves along a closed path, which can be broken anywhere', () => {
    expect(pathArea(startMoved(pen, 2))).toBeCloseTo(pathArea(pen), 9);
    expect(startMoved(pen, 2).start).toEqual({ x: 40, y: 30 });
    expect(brokenAt(pen, 1)).toMatchObject([{ closed: false, start: { x: 40, y: 0 } }]);
  });
  it('a run is told with fewer points within the tolerance', () => {
    const many = Array.from({ length: 60 }, (_, k) => ({ x: 20 * Math.cos(k / 20), y: 20 * Math.sin(k / 20) }));
    const polyline: Path = { start: many[0] as Point, segments: many.slice(1).map((to) => ({ kind: 'line', to })), closed: false };
    const plain = withFewerPoints(polyline, 0, 59, 0.05);
    expect(plain.segments.length).toBeLessThan(4);
    for (const p of many) expect(nearestOnPath(plain, p).distance).toBeLessThan(0.05);
  });
});

describe('a curve through points', () => {
  it('passes them all with one tangent, and neither loops nor overshoots the span it is in', () => {
    fc.assert(
      fc.property(fc.array(at, { minLength: 4, maxLength: 9 }), (points) => {
        const apart = points.filter((p, k) => k === 0 || distance(p, points[k - 1] as Point) > 5);
        fc.pre(apart.length >= 4);
        const path = pathThrough(apart.map((p) => ({ at: p, corner: false })), false) as Path; // biome-ignore format: one line
        for (const [k, { segment }] of stepsOf(path).entries()) expect(segment.to).toEqual(apart[k + 1]);
        const steps = stepsOf(path);
        steps.slice(1).forEach((step, k) => {
          const before = steps[k] as typeof step;
          const [into, out] = [directionOn(before.from, before.segment, 1), directionOn(step.from, step.segment, 0)];
          // Where a way turns back on itself its handles have hardly a length, and no direction that could be told.
          const handles = [before.segment, step.segment].map((s, side) =>
            s.kind === 'cubic' ? distance(side === 0 ? s.c2 : s.c1, step.from) : 1,
          );
          if (Math.min(...handles) > 1e-3) expect(into.x * out.y - into.y * out.x).toBeCloseTo(0, 6);
        });
      }),
    );
  });
  it('through evenly spaced points is the uniform Catmull-Rom spline (closed form: tangents (c - a) / 2)', () => {
    const span = spanBetween({ x: 0, y: 0 }, { x: 3, y: 4 }, { x: 6, y: 8 }, { x: 9, y: 12 });
    expect(span.c1).toEqual({ x: expect.closeTo(4, 9), y: expect.closeTo(16 / 3, 9) });
  });
  it('and the points of any path lead through it again', () => {
    for (const path of [pen, { ...pen, closed: false }]) {
      const again = pathThrough(pointsAlong(path) ?? [], path.closed) as Path;
      expect(again.segments.map((s) => s.kind)).toEqual(path.segments.map((s) => s.kind));
      for (const { from, segment } of stepsOf(again))
        for (const t of [0, 0.3, 0.7]) expect(nearestOnPath(path, pointOn(from, segment, t)).distance).toBeLessThan(1e-9);
    }
    expect(pointsAlong(ellipsePath({ x: 0, y: 0 }, 3, 2, 0))).toBeNull();
    const open = { ...pen, closed: false };
    const back = pathThrough(reversedPoints(pointsAlong(open) ?? []), false) as Path;
    expect(back.start).toEqual(open.segments.at(-1)?.to);
    for (const { from, segment } of stepsOf(back))
      for (const t of [0.2, 0.5, 0.8]) expect(nearestOnPath(open, pointOn(from, segment, t)).distance).toBeLessThan(1e-9);
  });
  it('with corners is straight between them, with an arc where three points say so', () => {
    const path = pathThrough([{ at: { x: 0, y: 0 }, corner: true }, { at: { x: 10, y: 0 }, corner: true }, { at: { x: 10, y: 10 }, corner: true, through: { x: 15, y: 5 } }], true) as Path; // biome-ignore format: one line
    expect(path.segments.map((s) => s.kind)).toEqual(['line', 'arc', 'line']);
    expect(path.closed).toBe(true);
    expect(pathArea(path)).toBeCloseTo(50 + (Math.PI * 25) / 2, 9);
  });
});

describe('figures', () => {
  it('have the areas of their measures', () => {
    expect(pathArea(figurePath({ kind: 'rectangle', centre: { x: 5, y: 5 }, width: 30, height: 20, radius: 4, angle: 0.4 }))).toBeCloseTo(
      600 - (4 - Math.PI) * 16,
      9,
    );
    expect(
      pathArea(figurePath({ kind: 'slot', from: { x: 0, y: 0 }, to: { x: 30, y: 40 }, width: 6, play: 0, ends: 'round' })),
    ).toBeCloseTo(50 * 6 + Math.PI * 9, 9);
    expect(pathArea(figurePath({ kind: 'polygon', centre: { x: 0, y: 0 }, sides: 6, radius: 10, angle: 0 }))).toBeCloseTo(
      150 * Math.sqrt(3),
      9,
    );
    expect(pathArea(figurePath({ kind: 'ellipse', centre: { x: 0, y: 0 }, rx: 20, ry: 9, angle: 1 }))).toBeCloseTo(Math.PI * 180, 6);
  });
  it('a slot follows the stock with its play, and says so where the stock is unknown', () => {
    const slot = { kind: 'slot', from: { x: 0, y: 0 }, to: { x: 25, y: 0 }, width: null, play: 0.5, ends: 'flat' } as const;
    expect(pathArea(figurePath(slot, 4))).toBeCloseTo(25 * 4.5, 9);
    expect(() => figurePath(slot, null)).toThrow(FigureError);
    expect(() => figurePath({ kind: 'circle', centre: { x: 0, y: 0 }, radius: 0 })).toThrow(FigureError);
  });
  it('circles through three points and touching two lines', () => {
    expect(circleThrough({ x: 5, y: 0 }, { x: 0, y: 5 }, { x: -5, y: 0 })).toEqual({
      centre: { x: expect.closeTo(0, 9), y: expect.closeTo(0, 9) },
      radius: expect.closeTo(5, 9),
    });
    expect(circleThrough({ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 2, y: 2 })).toBeNull();
    const touching = circleTouching(
      [
        { x: 0, y: 0 },
        { x: 10, y: 0 },
      ],
      [
        { x: 0, y: 0 },
        { x: 0, y: 10 },
      ],
      3,
      { x: 5, y: 5 },
    );
    expect(touching?.centre).toEqual({ x: expect.closeTo(3, 9), y: expect.closeTo(3, 9) });
    const arc = arcLeaving({ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 10, y: 10 });
    expect(arc).toMatchObject({ kind: 'arc', sweep: expect.closeTo(Math.PI / 2, 9) });
    expect(pathLength(ellipsePath({ x: 0, y: 0 }, 3, 3, 0))).toBeCloseTo(6 * Math.PI, 6);
  });
});
