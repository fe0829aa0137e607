/** While a point is dragged only what lies about it is worked out anew: the outcome must be what it is from nothing. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { cachedSegments, circlePath, distance, type Path, pathArea, pathBox, pathLength, reversedPath, type Segment, stepsOf, transformedPath } from '../plane/index.ts'; // biome-ignore format: one line
import { followed, type LiveStep } from './live-steps.ts';
import { type CrossingMemory, noCrossingMemory, selfCrossings } from './path-crossings.ts';
import { type DrawnPoint, pathThrough, pointsAlong } from './through-points.ts';

const none = () => [];
/** A ring of points that goes in and out, some of them corners. */
const ringOf = (radii: readonly number[], corners: readonly boolean[]): DrawnPoint[] =>
  radii.map((r, k) => {
    const angle = (2 * Math.PI * k) / radii.length;
    return { at: { x: r * Math.cos(angle), y: r * Math.sin(angle) }, corner: corners[k % corners.length] ?? false };
  });
/** The same figures without a segment that is known. */
const fresh = <T>(value: T): T => structuredClone(value);
const sizes = (paths: readonly Path[]): number[] => paths.flatMap((path) => [path.segments.length, path.closed ? pathArea(path) : 0]);

describe('a chain of live steps', () => {
  const radius = fc.double({ min: 97, max: 103, noNaN: true });
  const move = fc.record({
    index: fc.nat(119),
    x: fc.double({ min: -6, max: 6, noNaN: true }),
    y: fc.double({ min: -6, max: 6, noNaN: true }),
  });
  const offset = fc.record({ by: fc.constantFrom(1.5, -1.5, 4, -6), corners: fc.constantFrom('round', 'mitre', 'square'), count: fc.constantFrom(1, 2) }); // biome-ignore format: one line
  it('dragged from place to place gives what it gives from nothing', () => {
    fc.assert(
      fc.property(
        // Of fewer segments all would be looked at anew.
        fc.array(radius, { minLength: 120, maxLength: 120 }),
        fc.array(fc.boolean(), { minLength: 3, maxLength: 5 }),
        fc.array(move, { minLength: 2, maxLength: 6 }),
        offset,
        (radii, corners, moves, { by, corners: kind, count }) => {
          const live: LiveStep[] = [
            { kind: 'round', size: 0.8, which: 'all', how: 'round' },
            { kind: 'offset', by, count, corners: kind as 'round' | 'mitre' | 'square', keeps: true },
          ];
          let points = ringOf(radii, corners);
          for (const { index, x, y } of moves) {
            points = points.map((p, k) => (k === index ? { ...p, at: { x: p.at.x + x, y: p.at.y + y } } : p));
            const dragged = followed([pathThrough(points, true) as Path], live, none);
            const whole = followed([pathThrough(fresh(points), true) as Path], fresh(live), none);
            const [a, b] = [sizes(dragged.paths), sizes(whole.paths)];
            expect(a).toHaveLength(b.length);
            a.forEach((value, k) => {
              expect(value).toBeCloseTo(b[k] as number, 6);
            });
          }
        },
      ),
      { numRuns: lawRuns(6) },
    );
  });
  it('told as points and drawn again keeps every segment that was not touched', () => {
    const path = pathThrough(ringOf([20, 26, 22, 28, 24, 27], [false, false, true]), true) as Path;
    const again = (one: Path): Path => pathThrough(pointsAlong(one) as DrawnPoint[], true) as Path;
    const [before, after] = [again(path), again({ ...path, segments: path.segments.map((s, k) => (k === 2 ? { ...s } : s)) })];
    const same = after.segments.map((segment, k) => segment === before.segments[k]);
    expect(same.filter(Boolean).length).toBeGreaterThanOrEqual(1);
    expect(again(path).segments).toEqual(before.segments);
    again(path).segments.forEach((segment, k) => {
      expect(segment).toBe(again(path).segments[k]);
    });
  });
  it('of half an outline mirrored stays closed and symmetric while it is dragged', () => {
    const live: LiveStep[] = [
      { kind: 'mirror', a: { x: 0, y: 0 }, b: { x: 0, y: 1 } },
      { kind: 'offset', by: 1, count: 1, corners: 'round', keeps: false },
    ];
    const half = Array.from({ length: 9 }, (_, k): DrawnPoint => {
      const angle = -Math.PI / 2 + (Math.PI * k) / 8;
      return { at: { x: k % 8 === 0 ? 0 : 20 * Math.cos(angle), y: 20 * Math.sin(angle) }, corner: k % 8 === 0 };
    });
    for (let by = 0; by < 12; by++) {
      const points = half.map((p, k) => (k === 3 ? { ...p, at: { x: p.at.x + by / 2, y: p.at.y } } : p));
      const { paths, gaps } = followed([pathThrough(points, false) as Path], live, none);
      expect(gaps).toHaveLength(0);
      expect(paths).toHaveLength(1);
      const box = pathBox(paths[0] as Path);
      expect(box.minX + box.maxX).toBeCloseTo(0, 9);
    }
  });
});

describe('crossings that are remembered', () => {
  it('are those that are found anew, whichever points move', () => {
    const place = fc.record({ x: fc.double({ min: 0, max: 90, noNaN: true }), y: fc.double({ min: 0, max: 90, noNaN: true }) });
    fc.assert(
      fc.property(
        fc.array(place, { minLength: 150, maxLength: 150 }),
        fc.array(fc.tuple(fc.nat(149), place), { minLength: 2, maxLength: 5 }),
        (places, moves) => {
          const memory: CrossingMemory = noCrossingMemory();
          let points = places.map((at): DrawnPoint => ({ at, corner: true }));
          for (const [index, at] of moves) {
            points = points.map((p, k) => (k === index ? { ...p, at } : p));
            const path = pathThrough(points, true) as Path;
            const key = (cuts: ReturnType<typeof selfCrossings>) => cuts.map(({ segment, t }) => `${segment} ${t.toFixed(9)}`).sort();
            expect(key(selfCrossings([path], memory))).toEqual(key(selfCrossings([fresh(path)])));
          }
        },
      ),
      { numRuns: lawRuns(6) },
    );
  });
  it('of a path that is told twice are told for both', () => {
    const eight: Path = { start: { x: 0, y: 0 }, segments: [{ kind: 'line', to: { x: 10, y: 10 } }, { kind: 'line', to: { x: 10, y: 0 } }, { kind: 'line', to: { x: 0, y: 10 } }, { kind: 'line', to: { x: 0, y: 0 } }], closed: true }; // biome-ignore format: one line
    const memory = noCrossingMemory();
    const both = selfCrossings([eight, eight], memory);
    expect(new Set(both.map(({ path }) => path))).toEqual(new Set([0, 1]));
    expect(both).toHaveLength(selfCrossings([fresh(eight), fresh(eight)]).length);
  });
});

describe('what is known of a segment', () => {
  it('is kept while it starts at the same place, and not beyond', () => {
    const segment: Segment = { kind: 'arc', to: { x: 10, y: 0 }, sweep: Math.PI };
    const path: Path = { start: { x: 0, y: 0 }, segments: [segment], closed: false };
    const [known] = cachedSegments(path);
    expect(cachedSegments({ ...path, segments: [segment] })[0]).toBe(known);
    const [other] = cachedSegments({ ...path, start: { x: 4, y: 0 }, segments: [segment] });
    expect(other).not.toBe(known);
    expect(other?.box.maxY).toBeCloseTo(0, 9);
    expect(other?.box.minY).toBeCloseTo(-3, 9);
  });
  it('adds up to areas: a circle anywhere, from its bows and its polygon', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e4, max: 1e4, noNaN: true }), fc.double({ min: 0.1, max: 500, noNaN: true }), (x, r) => {
        const circle = circlePath({ x, y: -x }, r);
        expect(pathArea(circle) / (Math.PI * r * r)).toBeCloseTo(1, 9);
        expect(pathArea(reversedPath(circle))).toBe(-pathArea(circle));
      }),
    );
  });
  it('gives images and ways back like those worked out from nothing', () => {
    const path = pathThrough(ringOf([20, 26, 22, 28, 24], [false, true]), true) as Path;
    const t = { a: 0, b: 1, c: -1, d: 0, e: 7, f: -3 };
    const images = cachedSegments(path).flatMap((step) => [...step.imageBy(t, 0.001)]);
    expect(images).toEqual(transformedPath(path, t).segments);
    expect(cachedSegments(path)[0]?.imageBy(t, 0.001)).toBe(cachedSegments(path)[0]?.imageBy({ ...t }, 0.001));
    const twice = reversedPath(reversedPath(path));
    stepsOf(twice).forEach(({ segment }, k) => {
      expect(distance(segment.to, (path.segments[k] as Segment).to)).toBe(0);
    });
    expect(pathLength(twice)).toBeCloseTo(pathLength(path), 9);
  });
});
