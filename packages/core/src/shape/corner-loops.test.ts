/** Small loops beside a corner: cut off where neighbours cross, everything else as it was. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance, type Path, type Point, pathArea, polygonPath, stepsOf } from '../plane/index.ts';
import { withoutCornerLoops } from './corner-loops.ts';
import { samePlaceMm } from './crossings.ts';
import { selfCrossings } from './path-crossings.ts';

const line = (x: number, y: number) => ({ kind: 'line', to: { x, y } }) as const;
const cubic = (c1: Point, c2: Point, to: Point) => ({ kind: 'cubic', c1, c2, to }) as const;
const joined = ({ start, segments, closed }: Path): void => {
  if (closed) expect(segments.at(-1)?.to).toEqual(start);
};

/** A tip at 100, 0 whose curves curl across each other just before it. */
const curled: Path = {
  start: { x: 0, y: -40 },
  closed: true,
  segments: [
    cubic({ x: 40, y: -30 }, { x: 96, y: 8 }, { x: 100, y: 0 }),
    cubic({ x: 96, y: -8 }, { x: 40, y: 30 }, { x: 0, y: 40 }),
    line(0, -40),
  ],
};

describe('two curves that curl across each other before their tip', () => {
  const made = withoutCornerLoops(curled, 12);
  it('end where they cross, on both of them', () => {
    expect(selfCrossings([curled])).toHaveLength(2);
    expect(selfCrossings([made])).toEqual([]);
    const tip = made.segments[0]?.to as Point;
    expect(distance(tip, selfCrossings([curled])[0]?.at as Point)).toBeLessThan(1e-6);
    expect(made.segments).toHaveLength(3);
    joined(made);
  });
  it('stay as they are where the loop reaches farther than is asked for', () => {
    expect(withoutCornerLoops(curled, 0.5)).toEqual(curled);
  });
});

it('a segment so short that it lies in the loop goes with it', () => {
  const [first, second, third] = curled.segments as [Path['segments'][0], Path['segments'][0], Path['segments'][0]];
  const between: Path = { ...curled, segments: [first, line(100.05, 0.02), { ...second }, third] };
  const made = withoutCornerLoops(between, 12);
  expect(selfCrossings([made])).toEqual([]);
  expect(made.segments).toHaveLength(3);
  joined(made);
});

it('a curve that comes to a joint from behind, having run past it, ends where it first meets what follows', () => {
  const hooked: Path = {
    start: { x: 0, y: 0 },
    closed: false,
    segments: [cubic({ x: 30, y: 4 }, { x: 70, y: -6 }, { x: 60, y: 2 }), line(20, 30)],
  };
  const made = withoutCornerLoops(hooked, 20);
  expect(selfCrossings([made])).toEqual([]);
  expect(made.segments.at(-1)?.to).toEqual({ x: 20, y: 30 });
});

it('whatever is simple is left exactly as it is', () => {
  const radius = fc.double({ min: 20, max: 60, noNaN: true });
  fc.assert(
    fc.property(fc.array(radius, { minLength: 3, maxLength: 9 }), fc.double({ min: 0.1, max: 30, noNaN: true }), (radii, reach) => {
      // Star-shaped about the origin: its sides never cross.
      const corners = radii.map((r, k) => {
        const angle = (2 * Math.PI * k) / radii.length;
        return { x: r * Math.cos(angle), y: r * Math.sin(angle) };
      });
      const path = polygonPath(corners);
      expect(withoutCornerLoops(path, reach)).toEqual(path);
    }),
  );
});

it('no loop within reach of its corner is left, and the path still begins, ends and encloses as before', () => {
  const swing = fc.double({ min: -14, max: 14, noNaN: true });
  fc.assert(
    fc.property(swing, swing, swing, swing, (a, b, c, d) => {
      const path: Path = {
        ...curled,
        segments: [
          cubic({ x: 40, y: -30 + a }, { x: 95, y: b }, { x: 100, y: 0 }),
          cubic({ x: 95, y: c }, { x: 40, y: 30 + d }, { x: 0, y: 40 }),
          line(0, -40),
        ],
      };
      const made = withoutCornerLoops(path, 30);
      // Where the tip has hardly a width they meet in nearly the same place.
      const off = selfCrossings([made]).map(({ at }) => distance(at, { x: 100, y: 0 }));
      expect(off.filter((d) => d > 100 * samePlaceMm && d < 25)).toEqual([]);
      expect(stepsOf(made)[0]?.from).toEqual(path.start);
      expect(Math.abs(pathArea(made) / pathArea(path) - 1)).toBeLessThan(0.1);
    }),
  );
});
