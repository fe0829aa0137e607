/** The fit itself, on contours whose truth is a formula: figures, chains of arcs, open paths. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import {
  axesOf,
  circleOf,
  directionOn,
  dot,
  ellipsePath,
  nearestOnPath,
  type Path,
  type Point,
  polygonOf,
  stepsOf,
} from '../plane/index.ts';
import type { ArcSegment, EllipseSegment, Segment } from '../plane/segment.ts';
import { settleChain } from './arc-chain.ts';
import { wholeFigure } from './circle-and-ellipse-fit.ts';
import { edgeModelOf } from './edge-model.ts';
import { openPathAlong, outlineAlong } from './outline.ts';
import { SampledContour } from './sampled-contour.ts';

const flat = (points: readonly Point[]): Float64Array => Float64Array.from(points.flatMap(({ x, y }) => [x, y]));
/** A jitter that is the same every time, a deviation of about `size`. */
const jittered = (points: readonly Point[], size: number): Point[] =>
  points.map(({ x, y }, k) => ({ x: x + size * Math.sin(k * 12.9898) * 1.4, y: y + size * Math.sin(k * 78.233) * 1.4 }));
const kinds = (path: Path) => path.segments.map((s) => s.kind);
const closedBy = (path: Path, noise = 0.03) => outlineAlong(flat(jittered(polygonOf(path, 0.002), noise)), 0.6, 0.03, 1);

const size = fc.double({ min: 12, max: 300, noNaN: true });
const angle = fc.double({ min: -1.5, max: 1.5, noNaN: true });

describe('whole figures', () => {
  it('an ellipse of any size and turn is one, its axes within a tenth of a pixel', () => {
    fc.assert(
      fc.property(size, fc.double({ min: 0.25, max: 0.9, noNaN: true }), angle, (a, share, turn) => {
        fc.pre(a * share > 8 && a * (1 - share) > 1);
        const found = closedBy(ellipsePath({ x: 400, y: 350 }, a, a * share, turn));
        expect(kinds(found)).toEqual(['ellipse', 'ellipse']);
        const axes = axesOf(found.start, found.segments[0] as EllipseSegment);
        expect(Math.abs(axes.major - a)).toBeLessThan(0.1);
        expect(Math.abs(axes.minor - a * share)).toBeLessThan(0.1);
      }),
      { numRuns: lawRuns(60), seed: 7 },
    );
  });
  it('a circle is one, its radius within a twentieth of a pixel', () => {
    fc.assert(
      fc.property(size, (r) => {
        const found = closedBy(ellipsePath({ x: 400, y: 350 }, r, r, 0));
        expect(kinds(found)).toEqual(['arc', 'arc']);
        expect(Math.abs(circleOf(found.start, found.segments[0] as ArcSegment).radius - r)).toBeLessThan(0.05);
      }),
      { numRuns: lawRuns(40), seed: 7 },
    );
  });
  it('what is a pixel off a circle in three places is none', () => {
    const points = Array.from({ length: 900 }, (_, k): Point => {
      const t = (k * 2 * Math.PI) / 900;
      const r = 80 + Math.cos(3 * t);
      return { x: 200 + r * Math.cos(t), y: 200 + r * Math.sin(t) };
    });
    const sampled = new SampledContour(flat(points));
    expect(wholeFigure(sampled, edgeModelOf(0.6, 0.03, 1))).toBeNull();
  });
});

/** A rounded rectangle, turned. */
function rounded(width: number, height: number, r: number, turn: number): Path {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const at = (x: number, y: number): Point => ({ x: 400 + c * x - s * y, y: 400 + s * x + c * y });
  const corners: Segment[] = [];
  const sides = [
    [width - r, 0], [width, r], [width, height - r], [width - r, height], [r, height], [0, height - r], [0, r], [r, 0],
  ] as const; // biome-ignore format: round it
  for (let k = 0; k < 8; k += 2) {
    const [from, to] = [sides[k], sides[k + 1]] as [readonly [number, number], readonly [number, number]];
    corners.push({ kind: 'line', to: at(...from) }, { kind: 'arc', to: at(...to), sweep: Math.PI / 2 });
  }
  return { start: at(r, 0), segments: corners, closed: true };
}

describe('rounded rectangles', () => {
  it('of any size, turn and radius are four lines and four arcs, tangent, the radius within 0.3 px', () => {
    fc.assert(
      fc.property(fc.double({ min: 15, max: 60, noNaN: true }), angle, fc.double({ min: 1, max: 3, noNaN: true }), (r, turn, share) => {
        const found = closedBy(rounded(2 * r + 120 * share, 2 * r + 90, r, turn));
        expect(kinds(found).toSorted()).toEqual(['arc', 'arc', 'arc', 'arc', 'line', 'line', 'line', 'line']);
        const steps = stepsOf(found);
        steps.forEach(({ from, segment }, k) => {
          const before = steps.at(k - 1) as (typeof steps)[0];
          expect(dot(directionOn(before.from, before.segment, 1), directionOn(from, segment, 0))).toBeGreaterThan(1 - 1e-7);
          if (segment.kind === 'arc') expect(Math.abs(circleOf(from, segment).radius - r)).toBeLessThan(0.3);
        });
      }),
      { numRuns: lawRuns(40), seed: 7 },
    );
  });
});

describe('chains of arcs', () => {
  it('are found again from points along them: bends and lengths, each tangent to the next', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 40, max: 160, noNaN: true }), fc.double({ min: 0.5, max: 1.6, noNaN: true })), {
          minLength: 1,
          maxLength: 4,
        }),
        (shapes) => {
          // Left and right in turn, from the origin along x.
          const points: Point[] = [];
          const stops: { at: Point; angle: number; index: number }[] = [{ at: { x: 0, y: 0 }, angle: 0, index: 0 }];
          shapes.forEach(([radius, sweep], k) => {
            const { at, angle: heading } = stops.at(-1) as (typeof stops)[0];
            const way = k % 2 === 0 ? 1 : -1;
            const centre = { x: at.x - way * radius * Math.sin(heading), y: at.y + way * radius * Math.cos(heading) };
            const count = Math.round(radius * sweep);
            for (let i = k === 0 ? 0 : 1; i <= count; i++) {
              const a = heading - way * (Math.PI / 2) + (way * sweep * i) / count;
              points.push({ x: centre.x + radius * Math.cos(a), y: centre.y + radius * Math.sin(a) });
            }
            stops.push({ at: points.at(-1) as Point, angle: heading + way * sweep, index: points.length - 1 });
          });
          const sampled = new SampledContour(flat(points), false);
          const grow = (sampled.count - 1) / (points.length - 1);
          const ends = stops.map(({ at, angle: heading, index }) => ({
            at, direction: { x: Math.cos(heading), y: Math.sin(heading) }, index: Math.round(index * grow), blurMargin: 0,
          })); // biome-ignore format: an end
          const end = (k: number) => ({ ...(ends[k] as (typeof ends)[0]), freedom: 'none' as const });
          const chain = settleChain(
            sampled,
            end(0),
            end(ends.length - 1),
            ends.slice(1, -1),
            shapes.map(() => false),
            0.02,
          );
          if (!chain) throw new Error('given up');
          expect(chain.rms).toBeLessThan(0.02);
          let from = chain.start;
          chain.segments.forEach((segment, k) => {
            const [radius, sweep] = shapes[k] as [number, number];
            expect(Math.abs(circleOf(from, segment as ArcSegment).radius - radius)).toBeLessThan(0.4 + 0.01 * radius);
            expect(Math.abs(Math.abs((segment as ArcSegment).sweep) - sweep)).toBeLessThan(0.04);
            from = segment.to;
          });
        },
      ),
      { numRuns: lawRuns(60), seed: 7 },
    );
  });
});

describe('open paths', () => {
  const along = (points: readonly Point[], ends: readonly [Point | null, Point | null] = [null, null]) =>
    openPathAlong(flat(jittered(points, 0.02)), ends, 1, 0.03, 1);
  const straight = (from: Point, to: Point) =>
    Array.from({ length: 121 }, (_, k): Point => ({ x: from.x + ((to.x - from.x) * k) / 120, y: from.y + ((to.y - from.y) * k) / 120 }));
  it('along a straight stroke are one line, from the very end to the other that was asked for', () => {
    const end = { x: 131, y: 77.5 };
    const path = along(straight({ x: 10, y: 20 }, { x: 130, y: 77 }), [{ x: 9.5, y: 19.8 }, end]);
    expect(path).toMatchObject({ start: { x: 9.5, y: 19.8 }, closed: false });
    expect(path.segments).toEqual([{ kind: 'line', to: end }]);
  });
  it('round a bend of a quarter are one arc; with a corner, two lines that meet in it', () => {
    const quarter = Array.from({ length: 160 }, (_, k): Point => ({ x: 100 * Math.sin(k / 101.2), y: 100 * Math.cos(k / 101.2) }));
    const bent = along(quarter);
    expect(kinds(bent)).toEqual(['arc']);
    expect(Math.abs(circleOf(bent.start, bent.segments[0] as ArcSegment).radius - 100)).toBeLessThan(0.3);
    const corner = along([...straight({ x: 0, y: 0 }, { x: 120, y: 0 }), ...straight({ x: 120, y: 0 }, { x: 120, y: 100 }).slice(1)]);
    expect(kinds(corner)).toEqual(['line', 'line']);
    expect(Math.hypot((corner.segments[0] as Segment).to.x - 120, (corner.segments[0] as Segment).to.y)).toBeLessThan(0.15);
  });
  it('of a few points are one segment, whatever they are', () => {
    expect(along([{ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 2, y: 1 }]).segments).toHaveLength(1); // biome-ignore format: points
  });
});

it('free curves keep within the tolerance everywhere, however tight it is, and grow plainer as it widens', () => {
  const wave = Array.from({ length: 3000 }, (_, k): Point => {
    const t = (k * 2 * Math.PI) / 3000;
    const r = 180 + 40 * Math.sin(2 * t) + 25 * Math.cos(3 * t) + 12 * Math.sin(7 * t);
    return { x: 300 + r * Math.cos(t), y: 300 + r * Math.sin(t) };
  });
  const counts = [0.3, 0.8, 2, 6].map((tolerance) => {
    const path = outlineAlong(flat(wave), 0.5, 0.02, tolerance);
    const worst = Math.max(...wave.map((p) => nearestOnPath(path, p).distance));
    expect(worst).toBeLessThan(Math.max(0.35, tolerance));
    return path.segments.length;
  });
  expect(counts.toSorted((a, b) => b - a)).toEqual(counts);
  expect(counts[3]).toBeLessThan(counts[0] as number);
});
