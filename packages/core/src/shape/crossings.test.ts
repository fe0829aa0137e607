/** Crossings of every pair of kinds: closed forms, bezier-js, and laws; paths cut at them and joined again. */
import { Bezier } from 'bezier-js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { arcAbout, circlePath, distance, ellipsePath, endOf, nearestOnPath, nearestOnSegment, type Path, type Point, pathArea, pathLength, pointOn, type Segment, type Step, splitPath, stepsOf } from '../plane/index.ts'; // biome-ignore format: one list
import { joinChains, splitAtPlaces } from './chains.ts';
import { segmentCrossings } from './crossings.ts';
import { merged } from './merging.ts';
import { pathCrossings, selfCrossings } from './path-crossings.ts';
import { nearnessTo, windingNumber } from './winding-number.ts';

const place = fc
  .record({ x: fc.integer({ min: -400, max: 400 }), y: fc.integer({ min: -400, max: 400 }) })
  .map(({ x, y }) => ({ x: x / 10, y: y / 10 }));
const line = (from: Point, to: Point): Step => ({ from, segment: { kind: 'line', to } });
const anySegment: fc.Arbitrary<Segment> = fc.oneof(
  fc.record({ kind: fc.constant('line' as const), to: place }),
  fc.record({ kind: fc.constant('arc' as const), to: place, sweep: fc.double({ min: 0.2, max: 4, noNaN: true }) }),
  fc.record({ kind: fc.constant('cubic' as const), c1: place, c2: place, to: place }),
);
const anyStep: fc.Arbitrary<Step> = fc
  .record({ from: place, segment: anySegment })
  .filter(({ from, segment }) => distance(from, segment.to) > 1);

describe('crossings', () => {
  it('lie on both segments, whatever their kinds', () => {
    fc.assert(
      fc.property(anyStep, anyStep, (a, b) => {
        for (const { at, t, u } of segmentCrossings(a, b)) {
          expect(distance(pointOn(a.from, a.segment, t), at)).toBeLessThan(2e-6);
          expect(distance(pointOn(b.from, b.segment, u), at)).toBeLessThan(2e-6);
        }
      }),
      { numRuns: lawRuns(400) },
    );
  });
  it('are the same seen from either segment', () => {
    fc.assert(
      fc.property(anyStep, anyStep, (a, b) => {
        const [there, back] = [segmentCrossings(a, b), segmentCrossings(b, a)];
        for (const { at } of there) expect(Math.min(...back.map((c) => distance(c.at, at)))).toBeLessThan(1e-5);
      }),
      { numRuns: lawRuns(300) },
    );
  });
  it('of a short curve with one that is many times as long are found, at however small an angle', () => {
    const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        between(3, 300),
        between(0.3, 3),
        between(0.05, 0.95),
        between(0.05, 0.3),
        between(0.08, 1.4),
        between(-0.3, 0.3),
        (radius, sweep, part, size, angle, bow) => {
          const long = arcAbout({ x: 0, y: 0 }, { x: radius, y: 0 }, sweep);
          // A curve whose middle lies on the arc, and which crosses it there at an angle.
          const [at, along] = [part * sweep, part * sweep + Math.PI / 2 + angle];
          const middle = { x: radius * Math.cos(at), y: radius * Math.sin(at) };
          const place = (u: number, v: number): Point => ({
            x: middle.x + size * (u * Math.cos(along) - v * Math.sin(along)),
            y: middle.y + size * (u * Math.sin(along) + v * Math.cos(along)),
          });
          // From -1, 0 to 1, 0 with handles that bow to either side: the middle stays where it is.
          const short: Step = {
            from: place(-1, 0),
            segment: { kind: 'cubic', c1: place(-0.3, bow * angle), c2: place(0.3, -bow * angle), to: place(1, 0) },
          };
          const arc: Step = { from: { x: radius, y: 0 }, segment: long };
          for (const found of [segmentCrossings(short, arc), segmentCrossings(arc, short)])
            expect(Math.min(...found.map((c) => distance(c.at, middle)))).toBeLessThan(1e-6);
        },
      ),
      { numRuns: lawRuns(500) },
    );
  });
  it('of two cubics are those that bezier-js finds', () => {
    const cubic = fc.tuple(place, place, place, place);
    fc.assert(
      fc.property(cubic, cubic, (p, q) => {
        const step = ([from, c1, c2, to]: [Point, Point, Point, Point]): Step => ({ from, segment: { kind: 'cubic', c1, c2, to } });
        const theirs = new Bezier(p).intersects(new Bezier(q), 1e-4) as string[];
        const ours = segmentCrossings(step(p), step(q));
        for (const pair of theirs) {
          const t = Number(pair.split('/')[0]);
          const at = new Bezier(p).get(t);
          // Theirs are halvings down to a threshold: they name one crossing several times, and near touches too.
          const other = nearestOnSegment(q[0], step(q).segment, at);
          if (other.distance < 1e-7) expect(Math.min(...ours.map((c) => distance(c.at, at)))).toBeLessThan(0.5);
        }
      }),
      { numRuns: lawRuns(150) },
    );
  });
  it('of a line and a circle, and of two circles, are the closed forms', () => {
    const circle = stepsOf(circlePath({ x: 0, y: 0 }, 10));
    const found = circle.flatMap((step) => segmentCrossings(line({ x: -20, y: 6 }, { x: 20, y: 6 }), step)).map(({ at }) => at.x);
    expect(found.sort((a, b) => a - b)).toEqual([expect.closeTo(-8, 9), expect.closeTo(8, 9)]);
    // A touch is one crossing.
    expect(circle.flatMap((step) => segmentCrossings(line({ x: -20, y: 10 }, { x: 20, y: 10 }), step))).toHaveLength(1);
    const { onA } = pathCrossings([circlePath({ x: 0, y: 0 }, 10)], [circlePath({ x: 12, y: 0 }, 10)]);
    expect(onA.map(({ at }) => [at.x, Math.abs(at.y)])).toEqual([[expect.closeTo(6, 9), expect.closeTo(8, 9)], [expect.closeTo(6, 9), expect.closeTo(8, 9)]]); // biome-ignore format: one line
  });
  it('of sides that run on top of each other are where that begins and ends', () => {
    const found = segmentCrossings(line({ x: 0, y: 0 }, { x: 10, y: 0 }), line({ x: 4, y: 0 }, { x: 16, y: 0 }));
    expect(found.map(({ at }) => at.x)).toEqual([4, 10]);
    const [upper] = stepsOf(circlePath({ x: 0, y: 0 }, 5)) as [Step];
    const part: Step = { from: pointOn(upper.from, upper.segment, 0.25), segment: arcAbout({ x: 0, y: 0 }, pointOn(upper.from, upper.segment, 0.25), Math.PI / 4) }; // biome-ignore format: one line
    expect(segmentCrossings(upper, part)).toHaveLength(2);
  });
  it('of a path with itself are found once on either stretch, joints left out', () => {
    const eight: Path = { start: { x: 0, y: 0 }, closed: true, segments: [[10, 10], [20, 0], [20, 10], [10, 0], [0, 10]].map(([x, y]) => ({ kind: 'line', to: { x: x as number, y: y as number } })).concat([{ kind: 'line', to: { x: 0, y: 0 } }]) as Segment[] }; // biome-ignore format: one line
    const found = selfCrossings([eight]);
    expect(new Set(found.map(({ at }) => `${at.x.toFixed(6)} ${at.y.toFixed(6)}`)).size).toBe(2);
    expect(selfCrossings([circlePath({ x: 0, y: 0 }, 4), ellipsePath({ x: 0, y: 0 }, 9, 6, 0.4)])).toHaveLength(0);
  });
});

describe('paths cut and joined', () => {
  it('at any places are the same path again', () => {
    fc.assert(
      fc.property(
        fc.array(
          anyStep.map(({ segment }) => segment),
          { minLength: 2, maxLength: 5 },
        ),
        place,
        fc.array(fc.double({ min: 0.05, max: 0.95, noNaN: true }), { minLength: 1, maxLength: 4 }),
        (segments, start, shares) => {
          // biome-ignore format: one line
          const path: Path = { start, segments, closed: false };
          const steps = stepsOf(path);
          fc.pre(steps.every(({ from, segment }) => distance(from, segment.to) > 0.5));
          const cuts = shares.map((t, k) => {
            const segment = k % segments.length;
            const step = steps[segment] as Step;
            return { path: 0, segment, t, at: pointOn(step.from, step.segment, t) };
          });
          const runs = splitAtPlaces(path, cuts);
          expect(runs.reduce((sum, run) => sum + pathLength(run), 0)).toBeCloseTo(pathLength(path), 4);
          for (const [k, run] of runs.slice(1).entries()) expect(run.start).toEqual(endOf(runs[k] as Path));
          const whole = joinChains(runs).map(merged);
          expect(whole.reduce((sum, run) => sum + pathLength(run), 0)).toBeCloseTo(pathLength(path), 4);
        },
      ),
      { numRuns: lawRuns(120) },
    );
  });
  it('what was one line, arc, ellipse or curve is one again', () => {
    const shapes: Path[] = [
      { start: { x: 0, y: 0 }, segments: [{ kind: 'line', to: { x: 30, y: 12 } }], closed: false },
      { start: { x: 10, y: 0 }, segments: [{ kind: 'arc', to: { x: 0, y: 10 }, sweep: Math.PI / 2 }], closed: false },
      {
        start: { x: 0, y: 0 },
        segments: [{ kind: 'cubic', c1: { x: 5, y: 20 }, c2: { x: 25, y: -9 }, to: { x: 30, y: 6 } }],
        closed: false,
      },
      { ...ellipsePath({ x: 3, y: 4 }, 12, 7, 0.5), closed: false },
    ];
    for (const shape of shapes)
      for (const t of [0.2, 0.5, 0.77]) {
        const [a, b] = splitPath(shape, 0, t) as [Path, Path];
        const again = merged({ start: a.start, segments: [...a.segments, ...b.segments], closed: false });
        expect(again.segments).toHaveLength(shape.segments.length === 1 ? 1 : 1 + shape.segments.length - 1);
        expect(pathLength(again)).toBeCloseTo(pathLength(shape), 6);
      }
    // Sides that meet at a corner stay two.
    expect(merged({ start: { x: 0, y: 0 }, segments: [{ kind: 'line', to: { x: 5, y: 0 } }, { kind: 'line', to: { x: 5, y: 5 } }], closed: false }).segments).toHaveLength(2); // biome-ignore format: one line
  });
});

describe('where a place lies', () => {
  it('is told on the curves themselves: within a thousandth of a millimetre of the border', () => {
    const ring = [circlePath({ x: 0, y: 0 }, 10), ellipsePath({ x: 30, y: 0 }, 12, 5, 0.7)];
    fc.assert(
      fc.property(fc.double({ min: 0, max: 6.28, noNaN: true }), fc.boolean(), (angle, outside) => {
        const r = outside ? 10.001 : 9.999;
        expect(windingNumber(ring, { x: r * Math.cos(angle), y: r * Math.sin(angle) })).toBe(outside ? 0 : 1);
      }),
    );
    expect(windingNumber([circlePath({ x: 0, y: 0 }, 10), circlePath({ x: 0, y: 0 }, 4)], { x: 1, y: 1 })).toBe(2);
    expect(pathArea(ring[0] as Path)).toBeCloseTo(Math.PI * 100, 9);
  });
  it('and how near, quickly and slowly alike', () => {
    const paths = [circlePath({ x: 0, y: 0 }, 10), ellipsePath({ x: 30, y: 0 }, 12, 5, 0.7), { start: { x: -20, y: -20 }, segments: [{ kind: 'cubic' as const, c1: { x: 0, y: 30 }, c2: { x: 10, y: -40 }, to: { x: 40, y: 20 } }], closed: false }]; // biome-ignore format: one line
    const isNearer = nearnessTo(paths);
    fc.assert(
      fc.property(place, fc.double({ min: 0.1, max: 30, noNaN: true }), (p, limit) => {
        const exact = Math.min(...paths.map((path) => nearestOnPath(path, p).distance));
        fc.pre(Math.abs(exact - limit) > 1e-6);
        expect(isNearer(p, limit)).toBe(exact < limit);
      }),
      { numRuns: lawRuns(300) },
    );
  });
});

describe('a long line that hardly dips into a curve', () => {
  // y = x x as a cubic from -10 to 10, and a line a little above its vertex.
  const parabola: Step = {
    from: { x: -10, y: 100 },
    segment: { kind: 'cubic', c1: { x: -10 / 3, y: -100 / 3 }, c2: { x: 10 / 3, y: -100 / 3 }, to: { x: 10, y: 100 } },
  };
  it.each([4, 1, 0.1, 0.01, 1e-3, 1e-5])('crosses it twice, %f mm above its vertex', (height) => {
    for (const reach of [20, 2000]) {
      const line: Step = { from: { x: -reach, y: height }, segment: { kind: 'line', to: { x: reach * 0.7, y: height } } };
      const found = segmentCrossings(line, parabola).map(({ at }) => at.x);
      expect(found).toHaveLength(2);
      expect(found[0]).toBeCloseTo(-Math.sqrt(height), 7);
      expect(found[1]).toBeCloseTo(Math.sqrt(height), 7);
    }
  });
});
