/** Offsets: Steiner's formula, closed forms, there and back, and jsts buffers of random polygons. */
import fc from 'fast-check';
import Coordinate from 'jsts/org/locationtech/jts/geom/Coordinate.js';
import GeometryFactory from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import {
  circlePath,
  distance,
  ellipsePath,
  nearestOnPath,
  type Path,
  pathArea,
  pathLength,
  pointOn,
  polygonPath,
  stepsOf,
  withoutLoops,
} from '../plane/index.ts';
import { followed, type LiveStep } from './live-steps.ts';
import { offsetClosed, offsetPiece } from './offset.ts';
import { selfCrossings } from './path-crossings.ts';
import { plainOffset, rawOffset } from './raw-offset.ts';
import { strokeOutline } from './stroke-outline.ts';

const rectangle = (w: number, h: number): Path =>
  polygonPath([{ x: 0, y: 0 }, { x: w, y: 0 }, { x: w, y: h }, { x: 0, y: h }]); // biome-ignore format: one line
/** A convex polygon: corners on an ellipse. */
const convex = fc.array(fc.double({ min: 0.25, max: 1, noNaN: true }), { minLength: 3, maxLength: 12 }).map((gaps) => {
  const total = gaps.reduce((a, b) => a + b, 0);
  const angles = gaps.map((_, k) => (2 * Math.PI * gaps.slice(0, k + 1).reduce((a, b) => a + b, 0)) / total);
  return polygonPath(angles.map((angle) => ({ x: 40 * Math.cos(angle), y: 30 * Math.sin(angle) })));
});
const starPolygon = fc
  .array(fc.double({ min: 12, max: 40, noNaN: true }), { minLength: 4, maxLength: 16 })
  .map((radii) =>
    polygonPath(
      radii.map((r, k) => ({ x: r * Math.cos((2 * Math.PI * k) / radii.length), y: r * Math.sin((2 * Math.PI * k) / radii.length) })),
    ),
  );
const outward = (path: Path, by: number) => offsetPiece({ outer: path, holes: [] }, by);

describe('an outline set off', () => {
  it('outward by d grows by 2 pi d where it is convex, its area by L d + pi d^2 (Steiner)', () => {
    fc.assert(
      fc.property(convex, fc.double({ min: 0.1, max: 15, noNaN: true }), (path, d) => {
        const [grown, ...others] = outward(path, d);
        expect(others).toHaveLength(0);
        expect(pathLength(grown?.outer as Path)).toBeCloseTo(pathLength(path) + 2 * Math.PI * d, 6);
        expect(pathArea(grown?.outer as Path)).toBeCloseTo(pathArea(path) + d * pathLength(path) + Math.PI * d * d, 4);
      }),
    );
  });
  it('an ellipse of length 180.765 mm, 3.71 mm outward, is 204.08 mm long', () => {
    // Half axes in the proportion 2 to 1, grown until the length is the stated one.
    const unit = pathLength(ellipsePath({ x: 0, y: 0 }, 2, 1, 0));
    const k = 180.765 / unit;
    const [grown] = outward(ellipsePath({ x: 5, y: 7 }, 2 * k, k, 0.3), 3.71);
    expect(pathLength(grown?.outer as Path)).toBeCloseTo(180.765 + 2 * Math.PI * 3.71, 2);
    expect(pathLength(grown?.outer as Path)).toBeCloseTo(204.08, 1);
  });
  it('keeps within 0.005 mm of the distance everywhere along curves', () => {
    const ellipse = ellipsePath({ x: 0, y: 0 }, 40, 15, 0.2);
    for (const by of [8, -5, -6.9]) {
      for (const { outer } of outward(ellipse, by))
        for (const { from, segment } of stepsOf(outer))
          for (let k = 0; k <= 20; k++)
            expect(Math.abs(nearestOnPath(ellipse, pointOn(from, segment, k / 20)).distance - Math.abs(by))).toBeLessThan(0.005);
    }
  });
  it('out and in again returns a convex outline', () => {
    fc.assert(
      fc.property(convex, fc.double({ min: 0.5, max: 8, noNaN: true }), (path, d) => {
        const [grown] = outward(path, d);
        const [back] = outward(grown?.outer as Path, -d);
        expect(pathArea(back?.outer as Path)).toBeCloseTo(pathArea(path), 4);
        for (const { segment } of stepsOf(path)) expect(nearestOnPath(back?.outer as Path, segment.to).distance).toBeLessThan(1e-4);
      }),
      { numRuns: lawRuns(60) },
    );
  });
  it('of 500 random polygons has the area that a jsts buffer has', () => {
    const factory = new GeometryFactory();
    let n = 0;
    fc.assert(
      fc.property(starPolygon, fc.double({ min: 0.4, max: 7, noNaN: true }), (path, size) => {
        const by = n++ % 2 === 0 ? size : -size;
        const polygon = factory.createPolygon([path.start, ...path.segments.map((s) => s.to)].map(({ x, y }) => new Coordinate(x, y)));
        // 200 chords a quarter turn leave an arc of 7 mm by a twentieth of a micrometre.
        const truth = BufferOp.bufferOp(polygon, by, 200).getArea() as number;
        const ours = outward(path, by).reduce(
          (sum, { outer, holes }) => sum + pathArea(outer) + holes.reduce((h, hole) => h + pathArea(hole), 0),
          0,
        );
        expect(Math.abs(ours - truth)).toBeLessThan(0.02);
      }),
      { numRuns: lawRuns(500) },
    );
  });
  it('inward until nothing is left vanishes, and falls into parts where it is narrow', () => {
    expect(outward(rectangle(20, 10), -5.01)).toHaveLength(0);
    const dumbbell = polygonPath(
      [[0, 0], [10, 0], [10, 4], [20, 4], [20, 0], [30, 0], [30, 10], [20, 10], [20, 6], [10, 6], [10, 10], [0, 10]].map(([x, y]) => ({ x: x as number, y: y as number })),
    ); // biome-ignore format: a table
    expect(outward(dumbbell, -1.5)).toHaveLength(2);
  });
  it('closes a hole with it, and swallows one that grows into the border', () => {
    const plate = { outer: rectangle(40, 30), holes: [circlePath({ x: 10, y: 15 }, 4)] };
    expect(offsetPiece(plate, 4.5)[0]?.holes).toHaveLength(0);
    const thin = offsetPiece(plate, -2);
    expect(pathArea(thin[0]?.outer as Path)).toBeCloseTo(36 * 26, 6);
    expect(pathArea(thin[0]?.holes[0] as Path)).toBeCloseTo(-Math.PI * 36, 6);
    const open = offsetPiece(plate, -3.5);
    expect(open[0]?.holes).toHaveLength(0);
  });
  it('has corners as asked: mitred it stays a rectangle, square it gets bevels', () => {
    const [mitred] = offsetClosed(rectangle(20, 10), -2, { ...plainOffset, corners: 'mitre' });
    expect(mitred?.segments).toHaveLength(4);
    expect(pathArea(mitred as Path)).toBeCloseTo(24 * 14, 9);
    const [cut] = offsetClosed(rectangle(20, 10), -2, { ...plainOffset, corners: 'square' });
    expect(cut?.segments).toHaveLength(8);
    const side = 2 * Math.tan(Math.PI / 8);
    expect(pathArea(cut as Path)).toBeCloseTo(24 * 14 - 4 * ((2 - side) ** 2 / 2), 6);
  });
  it.each([1e-3, 2.5e-5, 1e-7])('a circle drawn as one arc that is %s short of a whole turn stays one: pi (r - d)²', (short) => {
    const [r, d] = [40, 1.5875];
    const end = { x: r * Math.cos(-short), y: r * Math.sin(-short) };
    const nearly: Path = { start: { x: r, y: 0 }, closed: true, segments: [{ kind: 'arc', to: end, sweep: 2 * Math.PI - short }, { kind: 'line', to: { x: r, y: 0 } }] }; // biome-ignore format: one line
    for (const by of [d, -d]) {
      const [ring, ...others] = offsetClosed(nearly, by);
      expect(others).toEqual([]);
      expect(Math.abs(pathArea(ring as Path) / (Math.PI * (r - by) ** 2) - 1)).toBeLessThan(1e-6);
    }
  });
  it('again and again makes rings', () => {
    const step: LiveStep = { kind: 'offset', by: 2.5, count: 4, corners: 'round', keeps: false };
    const made = followed([circlePath({ x: 0, y: 0 }, 10)], [step], () => []).paths;
    expect(made.map((ring) => Math.sqrt(pathArea(ring) / Math.PI))).toEqual([12.5, 15, 17.5, 20].map((r) => expect.closeTo(r, 9)));
  });
});

describe('a band about an open line', () => {
  const elbow: Path = { start: { x: 0, y: 0 }, segments: [{ kind: 'line', to: { x: 30, y: 0 } }, { kind: 'line', to: { x: 30, y: 20 } }], closed: false }; // biome-ignore format: one line
  const area = (ends: 'round' | 'flat' | 'square') => strokeOutline(elbow, 4, ends).reduce((sum, { outer }) => sum + pathArea(outer), 0);
  it('has the area of its length and ends', () => {
    // Two straights, the inner overlap taken once, a quarter disc outside the bend.
    const flat = 50 * 4 - 2 * 2 + Math.PI;
    expect(area('flat')).toBeCloseTo(flat, 6);
    expect(area('round')).toBeCloseTo(flat + Math.PI * 4, 6);
    expect(area('square')).toBeCloseTo(flat + 2 * 2 * 4, 6);
  });
  it('about a curve is as wide as asked all along', () => {
    const wave: Path = { start: { x: 0, y: 0 }, segments: [{ kind: 'cubic', c1: { x: 20, y: 30 }, c2: { x: 40, y: -30 }, to: { x: 60, y: 0 } }], closed: false }; // biome-ignore format: one line
    const [band] = strokeOutline(wave, 3, 'round');
    for (const { from, segment } of stepsOf(band?.outer as Path))
      for (let k = 0; k <= 10; k++) expect(nearestOnPath(wave, pointOn(from, segment, k / 10)).distance).toBeCloseTo(1.5, 2);
  });
  it('about a line that crosses itself has a hole', () => {
    const loop: Path = { start: { x: 0, y: 0 }, segments: [{ kind: 'line', to: { x: 40, y: 0 } }, { kind: 'line', to: { x: 40, y: 30 } }, { kind: 'line', to: { x: 20, y: 30 } }, { kind: 'line', to: { x: 20, y: -20 } }], closed: false }; // biome-ignore format: one line
    const [band] = strokeOutline(loop, 2, 'flat');
    expect(band?.holes).toHaveLength(1);
    expect(pathArea(band?.holes[0] as Path)).toBeCloseTo(-(18 * 28), 6);
  });
});

it('a wavy outline, its hollows tighter than the distance, keeps one outline at the distance', () => {
  const points = Array.from({ length: 1200 }, (_, k) => {
    const angle = (2 * Math.PI * k) / 1200;
    const r = 100 + 6 * Math.sin(40 * angle);
    return { x: r * Math.cos(angle), y: r * Math.sin(angle) };
  });
  const wave = polygonPath(points);
  for (const by of [2, -1.5]) {
    const made = outward(wave, by);
    expect(made).toHaveLength(1);
    for (const { from, segment } of stepsOf(made[0]?.outer as Path))
      expect(Math.abs(nearestOnPath(wave, pointOn(from, segment, 0.5)).distance - Math.abs(by))).toBeLessThan(0.02);
  }
});

describe('a curve that crosses itself', () => {
  // A spike's tip led into a loop, as fits about very thin tips once were.
  const looped: Path = {
    start: { x: 0, y: 0 },
    segments: [
      { kind: 'cubic', c1: { x: 14, y: 1 }, c2: { x: 10, y: -2 }, to: { x: 0, y: 3 } },
      { kind: 'line', to: { x: -10, y: 3 } },
      { kind: 'line', to: { x: -10, y: 0 } },
      { kind: 'line', to: { x: 0, y: 0 } },
    ],
    closed: true,
  };
  it('is found to do so, where both places of the curve are one', () => {
    const [a, b] = selfCrossings([looped]);
    const curve = looped.segments[0] as Extract<Path['segments'][0], { kind: 'cubic' }>;
    expect(a?.segment).toBe(0);
    expect(distance(pointOn(looped.start, curve, a?.t as number), pointOn(looped.start, curve, b?.t as number))).toBeLessThan(1e-9);
  });
  it('is set off without its loop', () => {
    const plain = withoutLoops(looped);
    expect(selfCrossings([plain])).toEqual([]);
    for (const by of [0.3, -0.3]) {
      const [outline, ...rest] = offsetClosed(looped, by);
      expect(rest).toEqual([]);
      expect(Math.sign(pathArea(outline as Path) - pathArea(plain))).toBe(-Math.sign(by));
    }
  });
  it('with a handle that is all but nothing is set off in as few pieces as one without', () => {
    // As a file may write it whose figures were reckoned elsewhere: the first handle is 1e-14 long, and points the wrong way.
    const curve = (y: number): Path => ({ start: { x: 84, y: 0.05292 }, segments: [{ kind: 'cubic', c1: { x: 84, y }, c2: { x: 83.983, y: 0.0541 }, to: { x: 83.949, y: 0.05647 } }], closed: false }); // biome-ignore format: one line
    const pieces = [0.05292 + 1e-14, 0.05292].map((y) => rawOffset(curve(y), 0.8, plainOffset).segments.length);
    expect(pieces[0]).toBe(pieces[1]);
    expect(pieces[0]).toBeLessThan(40);
  });
});
