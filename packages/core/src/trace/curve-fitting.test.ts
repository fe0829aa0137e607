/** Curves and joints found again on contours that were made from them: closed forms, nothing of a picture. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { directionOn, type Path, type Point, pointOn, polygonOf } from '../plane/index.ts';
import type { CubicSegment } from '../plane/segment.ts';
import { settleChain } from './arc-chain.ts';
import { bendJumps } from './bend-jumps.ts';
import { fitCubic } from './curves.ts';
import { edgeModelOf } from './edge-model.ts';
import { openPathAlong } from './outline.ts';
import { SampledContour } from './sampled-contour.ts';

const edgeModel = edgeModelOf(0.6, 0.03, 2);
const flat = (points: readonly Point[]): Float64Array => Float64Array.from(points.flatMap(({ x, y }) => [x, y]));
const sampledContourOf = (path: Path): SampledContour => new SampledContour(flat(polygonOf(path, 0.001)), path.closed);
const open = (start: Point, ...segments: Path['segments'][number][]): Path => ({ start, segments, closed: false });
const turnedBy = (angle: number) => ({ x: Math.cos(angle), y: Math.sin(angle) });

describe('a cubic is found again', () => {
  const start = { x: 100, y: 200 };
  const found = (cubic: CubicSegment, hasDirections: boolean) => {
    const sampled = sampledContourOf(open(start, cubic));
    const last = sampled.count - 1;
    const end = (at: Point, index: number, t: number) => ({
      at,
      index,
      blurMargin: 0,
      direction: hasDirections ? directionOn(start, cubic, t) : null,
    });
    return fitCubic(sampled, edgeModel, end(start, 0, 0), end(cubic.to, last, 1));
  };
  // Handles of a third of the chord or so, as curves that are drawn have them.
  const handle = fc.record({
    length: fc.double({ min: 120, max: 240, noNaN: true }),
    angle: fc.oneof(fc.double({ min: 0.15, max: 1.2, noNaN: true }), fc.double({ min: -1.2, max: -0.15, noNaN: true })),
  });
  it.each([true, false])('whatever its handles, with its directions known: %s', (hasDirections) => {
    fc.assert(
      fc.property(handle, handle, (one, two) => {
        const [out, into] = [turnedBy(one.angle), turnedBy(Math.PI + two.angle)];
        const to = { x: 520, y: 230 };
        const cubic: CubicSegment = {
          kind: 'cubic',
          c1: { x: start.x + one.length * out.x, y: start.y + one.length * out.y },
          c2: { x: to.x + two.length * into.x, y: to.y + two.length * into.y },
          to,
        };
        // Curves with loops or nearly cusps are none that anybody draws.
        const places = Array.from({ length: 200 }, (_, k) => pointOn(start, cubic, k / 199));
        fc.pre(places.slice(1).every((p, k) => Math.hypot(p.x - (places[k] as Point).x, p.y - (places[k] as Point).y) > 0.4));
        fc.pre(places.every((p, k) => places.every((q, n) => Math.abs(n - k) < 20 || Math.hypot(p.x - q.x, p.y - q.y) > 6)));
        const { fits, rms } = found(cubic, hasDirections);
        expect(fits).toBe(true);
        expect(rms).toBeLessThan(edgeModel.rms);
      }),
      { numRuns: lawRuns(150), seed: 11 },
    );
  });
  it('even one whose handles cross far beyond its ends, as half a heart', () => {
    const half: CubicSegment = { kind: 'cubic', c1: { x: 660, y: -370 }, c2: { x: 2040, y: 630 }, to: { x: 100, y: 1900 } };
    const { fits, rms } = found(half, false);
    expect(fits).toBe(true);
    expect(rms).toBeLessThan(0.2);
  });
});

describe('where the bend changes at once', () => {
  const round = (radius: number, turn: number) => {
    const from = { x: 0, y: 0 };
    const corner = { x: 300, y: 0 };
    const to = { x: corner.x + radius * Math.sin(turn), y: radius * (1 - Math.cos(turn)) };
    const end = { x: to.x + 300 * Math.cos(turn), y: to.y + 300 * Math.sin(turn) };
    return open(from, { kind: 'line', to: corner }, { kind: 'arc', to, sweep: turn }, { kind: 'line', to: end });
  };
  it.each([[40, 1.5], [90, 2], [180, 1]] as const)('is told to within 3 px on both sides of an arc of %i px', (radius, turn) => {
    const sampled = sampledContourOf(round(radius, turn));
    const found = bendJumps(sampled, edgeModel, 0, sampled.count - 1);
    const [into, out] = [300, 300 + radius * turn];
    expect(found).toHaveLength(2);
    expect(Math.abs((found[0] as number) - into)).toBeLessThanOrEqual(3);
    expect(Math.abs((found[1] as number) - out)).toBeLessThanOrEqual(3);
  }); // biome-ignore format: a table
  it('is nowhere on a circle, nor on a curve that bends little by little', () => {
    const circle = sampledContourOf(open({ x: 200, y: 0 }, { kind: 'arc', to: { x: -200, y: 0 }, sweep: Math.PI }));
    const wave = sampledContourOf(
      open({ x: 0, y: 0 }, { kind: 'cubic', c1: { x: 300, y: 200 }, c2: { x: 500, y: -200 }, to: { x: 800, y: 0 } }),
    );
    for (const sampled of [circle, wave]) expect(bendJumps(sampled, edgeModel, 0, sampled.count - 1)).toEqual([]);
  });
});

it('a long handle, line, half a circle and line, settles to within a hundredth of a pixel though it starts well off', () => {
  const path = open(
    { x: 0, y: 0 },
    { kind: 'line', to: { x: 0, y: 62 } },
    { kind: 'arc', to: { x: -874, y: 62 }, sweep: Math.PI },
    { kind: 'line', to: { x: -874, y: 0 } },
  );
  const sampled = sampledContourOf(path);
  const stop = (index: number, freedom: 'none' | 'across') => ({
    at: { x: sampled.x(index), y: sampled.y(index) },
    direction: null,
    index,
    blurMargin: 3,
    freedom,
  });
  const last = sampled.count - 1;
  const chain = settleChain(
    sampled,
    stop(0, 'none'),
    stop(last, 'none'),
    [stop(53, 'across'), stop(last - 53, 'across')],
    [true, false, true],
    0.01,
  );
  if (!chain) throw new Error('given up');
  expect(chain.rms).toBeLessThan(0.01);
  expect(chain.segments[1]).toMatchObject({ kind: 'arc' });
  expect(Math.abs((chain.segments[1] as { sweep: number }).sweep - Math.PI)).toBeLessThan(1e-3);
  // One arc all along leaves the contour by far.
  expect(settleChain(sampled, stop(0, 'none'), stop(last, 'none'), [], [false], 0.1)).toBeNull();
});

it('two fillets about a half circle are told as three arcs, with no segment between', () => {
  const path = open(
    { x: 0, y: 0 },
    { kind: 'line', to: { x: 200, y: 0 } },
    { kind: 'arc', to: { x: 262, y: 62 }, sweep: Math.PI / 2 },
    { kind: 'arc', to: { x: 638, y: 62 }, sweep: -Math.PI },
    { kind: 'arc', to: { x: 700, y: 0 }, sweep: Math.PI / 2 },
    { kind: 'line', to: { x: 900, y: 0 } },
  );
  const points = polygonOf(path, 0.001).map(({ x, y }, k) => ({ x: x + 0.02 * Math.sin(12.9898 * k), y: y + 0.02 * Math.sin(78.233 * k) }));
  const made = openPathAlong(flat(points), [null, null], 0.6, 0.03, 2);
  expect(made.segments.map(({ kind }) => kind)).toEqual(['line', 'arc', 'arc', 'arc', 'line']);
});
