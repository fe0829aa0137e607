/** Tails are taken off where they have no width, and offsets about as far as their outline is bent stay whole. */
import { describe, expect, it } from 'vitest';
import { ellipsePath, type Path, type Point, pathArea, pathLength, polygonPath } from '../plane/index.ts';
import { offsetPiece } from './offset.ts';
import { selfCrossings } from './path-crossings.ts';
import { plainOffset } from './raw-offset.ts';
import { removeSpikes } from './spikes.ts';

const p = (x: number, y: number): Point => ({ x, y });
const line = (x: number, y: number) => ({ kind: 'line', to: { x, y } }) as const;

describe('a path with a tail', () => {
  it('that runs past a corner and back loses it', () => {
    const path: Path = {
      start: p(0, 0),
      closed: true,
      segments: [line(40, 0), line(40.2, 0), line(40, 0.0001), line(40, 30), line(0, 30), line(0, 0)],
    };
    const made = removeSpikes(path, 0.6);
    expect(made.segments.length).toBeLessThan(path.segments.length);
    expect(Math.abs(pathArea(made) - 1200)).toBeLessThan(0.01);
    expect(pathLength(made)).toBeLessThan(140.01);
  });
  it('that goes back over the way and forth again loses it, wherever the path starts', () => {
    const corners = [p(0, 0), p(20, 0), p(20.3, 0), p(20.1, 0.0005), p(40, 0), p(40, 30), p(0, 30)];
    for (let k = 0; k < corners.length; k++) {
      const made = removeSpikes(polygonPath([...corners.slice(k), ...corners.slice(0, k)]), 0.6);
      expect(pathLength(made)).toBeCloseTo(140, 2);
      expect(made.segments.at(-1)?.to).toEqual(made.start);
      expect(selfCrossings([made])).toEqual([]);
    }
  });
  it('that ends just where it began loses all of it, wherever the path starts', () => {
    const corners = [p(0, 0), p(20, 0), p(20.3, 0), p(20, 0), p(20.1, 0.0002), p(40, 0), p(40, 30), p(0, 30)];
    for (let k = 0; k < corners.length; k++) {
      const made = removeSpikes(polygonPath([...corners.slice(k), ...corners.slice(0, k)]), 0.6);
      expect(pathLength(made)).toBeCloseTo(140, 2);
      expect(made.segments.at(-1)?.to).toEqual(made.start);
      expect(selfCrossings([made])).toEqual([]);
    }
  });
  it('keeps teeth that have a width, long ones, and paths that turn round nowhere', () => {
    const tooth = polygonPath([p(0, 0), p(20, 0), p(20.2, 0.5), p(20.4, 0), p(40, 0), p(40, 30), p(0, 30)]);
    expect(removeSpikes(tooth, 0.6)).toEqual(tooth);
    const spike = polygonPath([p(0, 0), p(20, 0), p(20.001, -5), p(20.002, 0), p(40, 0), p(40, 30), p(0, 30)]);
    expect(removeSpikes(spike, 0.6)).toEqual(spike);
    const oval = ellipsePath(p(0, 0), 20, 10, 0);
    expect(removeSpikes(oval, 0.6)).toBe(oval);
  });
});

describe('an ellipse set off inwards by about its smallest radius of curvature', () => {
  // At the ends of the long axis the radius is b b / a: there the offset begins to turn back.
  const [a, b] = [15, 9.5];
  const smallest = (b * b) / a;
  it.each([-0.1, -0.01, -1e-4, 0, 1e-4, 1e-3, 0.003, 0.01, 0.03, 0.1, 0.3, 1])(
    'and %f mm more is one outline without a crossing',
    (more) => {
      const made = offsetPiece({ outer: ellipsePath(p(3, -2), a, b, 0.4), holes: [] }, -(smallest + more), plainOffset);
      expect(made).toHaveLength(1);
      const outer = made[0]?.outer as Path;
      expect(selfCrossings([outer])).toEqual([]);
      // Steiner's formula holds as long as nothing turns back; then the tails count too much off.
      const whole = Math.PI * a * b;
      const h = ((a - b) / (a + b)) ** 2;
      const round = Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
      const d = smallest + more;
      const steiner = whole - d * round + Math.PI * d * d;
      expect(Math.abs(pathArea(outer) - steiner)).toBeLessThan(more > 0 ? 0.05 + 0.6 * more : 0.05);
    },
  );
});

describe('a shallow corner inwards beside a curve', () => {
  const eight = (deep: number): Path => ({
    start: p(12, 0),
    closed: true,
    segments: [
      line(8.485281374238571, 8.48528137423857), line(0, 12), line(-8.48528137423857, 8.485281374238571), line(-15.173329264108201, 0),
      { kind: 'cubic', c1: p(-11.671187761349207, -1.8252199412657457), c2: p(-11.56315880828564, -6.325659038479342), to: p(-8.485281374238573, -8.485281374238571) },
      line(0, -deep), line(8.485281374238568, -8.485281374238571), line(12, 0),
    ],
  }); // biome-ignore format: an outline
  it.each([3.9, 3.99, 3.9985, 3.9986, 4, 4.1, 4.5, 6, 10])('set off by %f mm the outline stays', (by) => {
    for (const deep of [14.6, 14.786117870037993, 15]) {
      const path = eight(deep);
      const [made, ...others] = offsetPiece({ outer: path, holes: [] }, by, plainOffset);
      expect(others).toEqual([]);
      // Steiner: no less than the area and its rim, no more than that and the circle.
      const area = pathArea(made?.outer as Path);
      expect(area).toBeLessThan(pathArea(path) + by * pathLength(path) + Math.PI * by * by + 1e-6);
      expect(area).toBeGreaterThan(pathArea(path) + 0.93 * by * pathLength(path));
    }
  });
});
