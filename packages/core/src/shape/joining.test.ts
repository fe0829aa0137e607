/** Trim, extend, join, split, cut: what is not touched stays to the last digit, and what should meet meets. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import {
  circlePath,
  directionOn,
  distance,
  endOf,
  nearestOnPath,
  type Path,
  pathArea,
  pathLength,
  pointOn,
  polygonPath,
  stepsOf,
} from '../plane/index.ts';
import { cutByLine, endPairs, extended, splitAt, trimmed, withEndsJoined } from './joining.ts';

const line = (x1: number, y1: number, x2: number, y2: number): Path => ({
  start: { x: x1, y: y1 },
  segments: [{ kind: 'line', to: { x: x2, y: y2 } }],
  closed: false,
});
const wave: Path = { start: { x: 0, y: 0 }, segments: [{ kind: 'cubic', c1: { x: 10, y: 20 }, c2: { x: 25, y: -20 }, to: { x: 40, y: 5 } }, { kind: 'arc', to: { x: 60, y: 5 }, sweep: 1.2 }], closed: false }; // biome-ignore format: one line

describe('trimming', () => {
  it('takes out what lies between two crossings and nothing else', () => {
    const [before, after, ...others] = trimmed(line(0, 0, 100, 0), { segment: 0, t: 0.5 }, [line(30, -5, 30, 5), line(80, -5, 80, 5)]);
    expect(others).toHaveLength(0);
    expect([before?.start.x, before && endOf(before).x, after?.start.x, after && endOf(after).x]).toEqual([0, 30, 80, 100]);
  });
  it('takes an overshoot off, and the rest does not move', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 0.9, noNaN: true }), (t) => {
        const step = stepsOf(wave)[0] as ReturnType<typeof stepsOf>[0];
        const at = pointOn(step.from, step.segment, t);
        const [kept] = trimmed(wave, { segment: 0, t: t / 2 }, [line(at.x, at.y - 0.5, at.x, at.y + 0.5)]);
        for (const s of stepsOf(kept as Path))
          for (const u of [0, 0.3, 0.7, 1]) expect(nearestOnPath(wave, pointOn(s.from, s.segment, u)).distance).toBeLessThan(1e-9);
        expect(endOf(kept as Path)).toEqual(endOf(wave));
      }),
    );
  });
  it('opens a closed outline into one path', () => {
    const left = trimmed(circlePath({ x: 0, y: 0 }, 10), { segment: 0, t: 0.5 }, [line(-20, 5, 20, 5)]);
    expect(left).toHaveLength(1);
    expect(pathLength(left[0] as Path)).toBeCloseTo(10 * (2 * Math.PI - 2 * Math.acos(0.5)), 9);
    expect(trimmed(circlePath({ x: 0, y: 0 }, 10), { segment: 0, t: 0.5 }, [])).toHaveLength(0);
  });
});

describe('extending', () => {
  it('leads a line, and an arc along its circle, to the next thing', () => {
    expect(endOf(extended(line(0, 0, 10, 10), 'end', [line(50, 0, 50, 100)]) as Path)).toEqual({
      x: expect.closeTo(50, 9),
      y: expect.closeTo(50, 9),
    });
    const quarter: Path = { start: { x: 10, y: 0 }, segments: [{ kind: 'arc', to: { x: 0, y: 10 }, sweep: Math.PI / 2 }], closed: false };
    const led = extended(quarter, 'end', [line(-20, 0, 0, 0)]) as Path;
    expect(led.segments[0]).toMatchObject({ sweep: expect.closeTo(Math.PI, 9) });
    expect(extended(line(0, 0, 10, 0), 'end', [line(50, 5, 60, 5)])).toBeNull();
  });
});

describe('joining ends', () => {
  it('makes one closed outline of sides that nearly meet, and names no pair beyond the gap', () => {
    const sides = [line(0, 0, 50, 0), line(50.2, 0.1, 50, 30), line(50, 30.3, 0, 30), line(0.1, 29.8, 0, 0.2)];
    expect(endPairs(sides, 0.5)).toHaveLength(4);
    expect(endPairs(sides, 0.15)).toHaveLength(0);
    for (const how of ['meet', 'straight', 'smooth', 'fair'] as const) {
      const joined = withEndsJoined(sides, 0.5, how);
      expect(joined).toHaveLength(1);
      expect(joined[0]?.closed).toBe(true);
      expect(Math.abs(Math.abs(pathArea(joined[0] as Path)) - 1500)).toBeLessThan(12);
    }
    expect(withEndsJoined(sides, 0.5, 'meet')[0]?.segments).toHaveLength(4);
  });
  it('bridges with one tangent, or one curvature, whatever the fullness', () => {
    const arc: Path = { start: { x: 0, y: 0 }, segments: [{ kind: 'arc', to: { x: 10, y: 10 }, sweep: Math.PI / 2 }], closed: false };
    const away = line(30, 25, 60, 25);
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 1.2, noNaN: true }), fc.double({ min: 0.2, max: 1.2, noNaN: true }), (f, g) => {
        const [fair] = withEndsJoined([arc, away], 30, 'fair', [f, g]);
        const steps = stepsOf(fair as Path);
        const near = (k: number, t: number) =>
          directionOn((steps[k] as (typeof steps)[0]).from, (steps[k] as (typeof steps)[0]).segment, t);
        expect(distance(near(0, 1), near(1, 0))).toBeLessThan(1e-9);
        // Curvature of the arc, 1/10, goes on into the bridge.
        const h = 1e-4;
        const bridge = steps[1] as (typeof steps)[0];
        const length = distance(pointOn(bridge.from, bridge.segment, 0), pointOn(bridge.from, bridge.segment, h));
        const turn = Math.asin(near(1, 0).x * near(1, h).y - near(1, 0).y * near(1, h).x);
        expect(Math.abs(turn / length)).toBeCloseTo(0.1, 3);
      }),
      { numRuns: lawRuns(30) },
    );
  });
});

describe('splitting and cutting', () => {
  it('split and joined again is the same path', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1 }), fc.double({ min: 0.02, max: 0.98, noNaN: true }), (segment, t) => {
        const parts = splitAt(wave, { segment, t });
        expect(parts).toHaveLength(2);
        const [joined] = withEndsJoined(parts, 1e-9, 'meet');
        expect(pathLength(joined as Path)).toBeCloseTo(pathLength(wave), 6);
        expect(joined?.start).toEqual(wave.start);
        expect(endOf(joined as Path)).toEqual(endOf(wave));
      }),
    );
  });
  it('a foot is cut flat: both parts together are the whole', () => {
    const piece = { outer: circlePath({ x: 0, y: 0 }, 20), holes: [circlePath({ x: 0, y: 5 }, 4)] };
    const { left, right } = cutByLine(piece, { x: -30, y: -12 }, { x: 30, y: -12 });
    const area = (list: typeof left) =>
      list.reduce((sum, { outer, holes }) => sum + pathArea(outer) + holes.reduce((s, h) => s + pathArea(h), 0), 0);
    expect(area(left) + area(right)).toBeCloseTo(Math.PI * (400 - 16), 8);
    const segment = 400 * Math.acos(12 / 20) - 12 * 16;
    expect(area(right)).toBeCloseTo(segment, 8);
    expect(right).toHaveLength(1);
    expect(cutByLine({ outer: polygonPath([{ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 0, y: 1 }]), holes: [] }, { x: 5, y: 0 }, { x: 5, y: 1 }).right).toHaveLength(0); // biome-ignore format: one line
  });
});
