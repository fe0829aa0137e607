/** The table of curves: what each kind says of itself against points taken along it. */
import { Bezier } from 'bezier-js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { opsOf } from './curves.ts';
import { arcAbout, distance, nearestOnPath, type Path, type Point, pointOn, reducedSteps, type Segment, stretch, subtract, transformedSegment, turn } from './index.ts'; // biome-ignore format: one list
import type { CubicSegment } from './segment-kinds.ts';

interface Curve {
  readonly from: Point;
  readonly segment: Segment;
}

const coordinate = fc.integer({ min: -5000, max: 5000 }).map((n) => n / 100);
const at: fc.Arbitrary<Point> = fc.record({ x: coordinate, y: coordinate });
const sweep = fc.double({ min: 0.1, max: 6, noNaN: true });
const signed = fc.tuple(sweep, fc.boolean()).map(([s, isBack]) => (isBack ? -s : s));

const line: fc.Arbitrary<Curve> = fc.record({ from: at, segment: fc.record({ kind: fc.constant('line' as const), to: at }) });
const arc: fc.Arbitrary<Curve> = fc
  .record({ from: at, centre: at, sweep: signed })
  .filter(({ from, centre }) => distance(from, centre) > 1)
  .map(({ from, centre, sweep: s }) => ({ from, segment: arcAbout(centre, from, s) }));
/** Circles, stretched and turned. */
const ellipse: fc.Arbitrary<Curve> = fc
  .record({ round: arc, high: fc.double({ min: 0.2, max: 0.8, noNaN: true }), by: fc.double({ min: 0, max: 6, noNaN: true }) })
  .map(({ round: { from, segment }, high, by }) => {
    const flat = { ...stretch(1), d: high };
    const { a, b, c, d } = turn(by);
    const tilted = { a: a * flat.a, b: b * flat.a, c: c * flat.d, d: d * flat.d, e: 0, f: 0 };
    return {
      from: { x: tilted.a * from.x + tilted.c * from.y, y: tilted.b * from.x + tilted.d * from.y },
      segment: transformedSegment(from, segment, tilted, 1e-9)[0] as Segment,
    };
  });
const cubic: fc.Arbitrary<Curve> = fc.record({
  from: at,
  segment: fc.record({ kind: fc.constant('cubic' as const), c1: at, c2: at, to: at }),
});
const kinds = { line, arc, ellipse, cubic };
const anyCurve = fc.oneof(...Object.values(kinds)).filter(({ from, segment }) => opsOf(segment).length(from, segment) > 0.5);

const along = ({ from, segment }: Curve, count = 400): Point[] =>
  Array.from({ length: count + 1 }, (_, k) => pointOn(from, segment, k / count));
const asPath = ({ from, segment }: Curve): Path => ({ start: from, segments: [segment], closed: false });
const off = (path: Path, p: Point): number => nearestOnPath(path, p).distance;

describe('every kind of curve', () => {
  it('is of its kind', () => {
    for (const [kind, curves] of Object.entries(kinds)) for (const { segment } of fc.sample(curves, 5)) expect(segment.kind).toBe(kind);
  });
  it('has the derivative that a short step shows', () => {
    fc.assert(
      fc.property(anyCurve, fc.double({ min: 0.01, max: 0.99, noNaN: true }), ({ from, segment }, t) => {
        const ops = opsOf(segment);
        const h = 1e-5;
        const step = subtract(ops.point(from, segment, t + h), ops.point(from, segment, t - h));
        const d = ops.derivative(from, segment, t);
        expect(distance(d, { x: step.x / (2 * h), y: step.y / (2 * h) })).toBeLessThan(1e-4);
      }),
    );
  });
  it('bounds how far it leaves its chord', () => {
    fc.assert(
      fc.property(anyCurve, (curve) => {
        const bow = opsOf(curve.segment).bow(curve.from, curve.segment);
        const chord: Path = { start: curve.from, segments: [{ kind: 'line', to: curve.segment.to }], closed: false };
        for (const p of along(curve, 60)) expect(off(chord, p)).toBeLessThanOrEqual(bow + 1e-7);
      }),
    );
  });
  it('moves on along a direction all the way where it says so', () => {
    let moving = 0;
    fc.assert(
      fc.property(anyCurve, fc.double({ min: 0, max: 6.28, noNaN: true }), (curve, angle) => {
        const d = { x: Math.cos(angle), y: Math.sin(angle) };
        if (!opsOf(curve.segment).advances(curve.from, curve.segment, d)) return;
        moving++;
        const heights = along(curve, 100).map((p) => p.x * d.x + p.y * d.y);
        for (let k = 1; k < heights.length; k++) expect(heights[k] as number).toBeGreaterThan(heights[k - 1] as number);
      }),
    );
    expect(moving).toBeGreaterThan(5);
  });
  it('has as many chords as keep a tolerance', () => {
    fc.assert(
      fc.property(anyCurve, fc.constantFrom(1, 0.1, 0.01), (curve, tolerance) => {
        const count = opsOf(curve.segment).chordCount(curve.from, curve.segment, tolerance);
        const [start, ...rest] = along(curve, count) as [Point, ...Point[]];
        const chords: Path = { start, segments: rest.map((to) => ({ kind: 'line', to })), closed: false };
        for (const p of along(curve, 97)) expect(off(chords, p)).toBeLessThanOrEqual(tolerance + 1e-9);
      }),
    );
  });
  it('becomes what a file can take, within the tolerance, from start to end', () => {
    const takes = [['line'], ['line', 'arc'], ['line', 'cubic'], ['line', 'arc', 'cubic'], ['line', 'arc', 'ellipse', 'cubic']] as const;
    fc.assert(
      fc.property(anyCurve, fc.constantFrom(...takes), fc.constantFrom(0.1, 0.01), (curve, wanted, tolerance) => {
        const steps = reducedSteps(asPath(curve), wanted as readonly Segment['kind'][], tolerance);
        const path: Path = { start: curve.from, segments: steps.map(({ segment }) => segment), closed: false };
        for (const { segment } of steps) expect(wanted).toContain(segment.kind);
        expect(steps[0]?.from).toEqual(curve.from);
        expect(distance(path.segments.at(-1)?.to as Point, curve.segment.to)).toBeLessThan(1e-9);
        for (const p of along(curve, 60)) expect(off(path, p)).toBeLessThanOrEqual(tolerance + 1e-7);
        for (const step of steps) for (const p of along(step, 5)) expect(off(asPath(curve), p)).toBeLessThanOrEqual(tolerance + 1e-7);
      }),
      { numRuns: 60 },
    );
  });
  it('lies as far from what it is set off from as asked, on the side asked, where it can say so exactly', () => {
    fc.assert(
      fc.property(fc.oneof(line, arc), fc.double({ min: -0.9, max: 0.9, noNaN: true }), ({ from, segment }, by) => {
        const ops = opsOf(segment);
        fc.pre(ops.length(from, segment) > 0.5);
        const made = ops.offset?.(from, segment, by) as Segment;
        const d0 = ops.direction(from, segment, 0);
        const start = { x: from.x - by * d0.y, y: from.y + by * d0.x };
        for (const t of [0, 0.3, 0.8, 1]) {
          const [p, q, d] = [ops.point(from, segment, t), pointOn(start, made, t), ops.direction(from, segment, t)];
          expect(distance(q, { x: p.x - by * d.y, y: p.y + by * d.x })).toBeLessThan(1e-6);
        }
      }),
    );
  });
  it('runs about its centre: an arc evenly, an ellipse so that what lies opposite is as far', () => {
    fc.assert(
      fc.property(arc, ({ from, segment }) => {
        const centre = opsOf(segment).centre?.(from, segment) as Point;
        for (const p of along({ from, segment }, 20)) expect(distance(p, centre)).toBeCloseTo(distance(from, centre), 6);
      }),
    );
    fc.assert(
      fc.property(ellipse, ({ from, segment }) => {
        if (segment.kind !== 'ellipse' || Math.abs(segment.sweep) < Math.PI) return;
        const half = Math.PI / Math.abs(segment.sweep);
        const [a, b] = [pointOn(from, segment, 0), pointOn(from, segment, half)];
        const centre = opsOf(segment).centre?.(from, segment) as Point;
        expect(distance({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }, centre)).toBeLessThan(1e-6);
      }),
    );
  });
});

describe('where a cubic crosses itself', () => {
  it('is one place at two values, also found by bezier-js', () => {
    let loops = 0;
    fc.assert(
      fc.property(cubic, ({ from, segment }) => {
        const loop = opsOf(segment).loop?.(from, segment) ?? null;
        if (!loop) return;
        loops++;
        expect(distance(pointOn(from, segment, loop[0]), pointOn(from, segment, loop[1]))).toBeLessThan(1e-6);
        const { c1, c2, to } = segment as CubicSegment;
        const theirs = new Bezier(from.x, from.y, c1.x, c1.y, c2.x, c2.y, to.x, to.y).selfintersects(1e-3);
        // Theirs misses loops whose halves it takes for one stretch.
        if (theirs.length === 0 || loop[1] - loop[0] < 0.2) return;
        const [t] = String(theirs[0]).split('/').map(Number) as [number, number];
        expect(Math.min(Math.abs(t - loop[0]), Math.abs(t - loop[1]))).toBeLessThan(0.02);
      }),
      { numRuns: 400 },
    );
    expect(loops).toBeGreaterThan(5);
  });
});
