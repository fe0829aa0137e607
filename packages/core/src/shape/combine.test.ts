/** Areas united, taken away and divided: laws of areas, closed forms, and jsts (overlay operations) on random polygons. */
import fc from 'fast-check';
import Coordinate from 'jsts/org/locationtech/jts/geom/Coordinate.js';
import GeometryFactory from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
import OverlayOp from 'jsts/org/locationtech/jts/operation/overlay/OverlayOp.js';
import SnapIfNeededOverlayOp from 'jsts/org/locationtech/jts/operation/overlay/snap/SnapIfNeededOverlayOp.js';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { circlePath, ellipsePath, type Path, pathArea, polygonPath, shift, transformedPath } from '../plane/index.ts';
import { combined, divided, nested, unitedOutlines } from './combine.ts';

const areaOf = (paths: readonly Path[]): number => paths.reduce((sum, path) => sum + pathArea(path), 0);
const rectangle = (x: number, y: number, w: number, h: number): Path =>
  polygonPath([{ x, y }, { x: x + w, y }, { x: x + w, y: y + h }, { x, y: y + h }]); // biome-ignore format: one line

/** A star-shaped polygon about a place: never crosses itself. */
const starPolygon = fc
  .record({
    x: fc.double({ min: -20, max: 20, noNaN: true }),
    y: fc.double({ min: -20, max: 20, noNaN: true }),
    radii: fc.array(fc.double({ min: 5, max: 40, noNaN: true }), { minLength: 3, maxLength: 14 }),
  })
  .map(({ x, y, radii }) =>
    polygonPath(
      radii.map((r, k) => ({
        x: x + r * Math.cos((2 * Math.PI * k) / radii.length),
        y: y + r * Math.sin((2 * Math.PI * k) / radii.length),
      })),
    ),
  );

const factory = new GeometryFactory();
const asJsts = (path: Path) =>
  factory.createPolygon([path.start, ...path.segments.map((s) => s.to)].map(({ x, y }) => new Coordinate(x, y)));

describe('areas', () => {
  it('add up: what is common, and what only one has, are the whole', () => {
    fc.assert(
      fc.property(starPolygon, starPolygon, (a, b) => {
        const [both, onlyA, onlyB] = [combined([a], [b], 'keep-common'), combined([a], [b], 'take-away'), combined([b], [a], 'take-away')];
        expect(areaOf(both) + areaOf(onlyA)).toBeCloseTo(pathArea(a), 5);
        expect(areaOf(both) + areaOf(onlyB)).toBeCloseTo(pathArea(b), 5);
        expect(areaOf(combined([a], [b], 'unite'))).toBeCloseTo(areaOf(both) + areaOf(onlyA) + areaOf(onlyB), 5);
      }),
      { numRuns: lawRuns(200) },
    );
  });
  it('of 500 random polygons are those that jsts finds', () => {
    const ops = [['unite', OverlayOp.UNION], ['take-away', OverlayOp.DIFFERENCE], ['keep-common', OverlayOp.INTERSECTION]] as const; // biome-ignore format: a table
    fc.assert(
      fc.property(starPolygon, starPolygon, fc.constantFrom(...ops), (a, b, [how, code]) => {
        // Plain overlays refuse places that differ in the last digits; this one then snaps them.
        const truth = SnapIfNeededOverlayOp.overlayOp(asJsts(a), asJsts(b), code).getArea() as number;
        expect(areaOf(combined([a], [b], how))).toBeCloseTo(truth, 4);
      }),
      { numRuns: lawRuns(500) },
    );
  });
  it('of circles and ellipses keep their arcs: two circles make a lens of the closed form', () => {
    const [r, d] = [10, 12];
    const lens = combined([circlePath({ x: 0, y: 0 }, r)], [circlePath({ x: d, y: 0 }, r)], 'keep-common');
    const exact = 2 * r * r * Math.acos(d / (2 * r)) - (d / 2) * Math.sqrt(4 * r * r - d * d);
    expect(areaOf(lens)).toBeCloseTo(exact, 8);
    expect(lens).toHaveLength(1);
    expect(lens[0]?.segments.every((s) => s.kind === 'arc')).toBe(true);
    const bitten = combined([ellipsePath({ x: 0, y: 0 }, 20, 10, 0.4)], [rectangle(0, -30, 60, 60)], 'take-away');
    expect(areaOf(bitten)).toBeCloseTo(Math.PI * 100, 5);
  });
  it('that share sides are joined along them, and those that only touch stay apart', () => {
    const [left, right] = [rectangle(0, 0, 10, 10), rectangle(10, 0, 10, 10)];
    const whole = combined([left], [right], 'unite');
    expect(whole).toHaveLength(1);
    expect(areaOf(whole)).toBeCloseTo(200, 9);
    expect(combined([left], [right], 'keep-common')).toHaveLength(0);
    expect(combined([left], [left], 'take-away')).toHaveLength(0);
    expect(areaOf(combined([left], [left], 'unite'))).toBeCloseTo(100, 9);
    expect(areaOf(combined([left], [rectangle(10, 10, 5, 5)], 'unite'))).toBeCloseTo(125, 9);
  });
  it('one inside another become a piece with a hole, and divide in two parts', () => {
    const ring = combined([circlePath({ x: 0, y: 0 }, 10)], [circlePath({ x: 1, y: 0 }, 4)], 'take-away');
    expect(areaOf(ring)).toBeCloseTo(Math.PI * 84, 8);
    expect(nested(ring)).toMatchObject([{ holes: [{ closed: true }] }]);
    expect(divided([circlePath({ x: 0, y: 0 }, 10)], [circlePath({ x: 1, y: 0 }, 4)])).toHaveLength(2);
  });
  it('of six arms turned about a centre are united into one outline', () => {
    const arms = Array.from({ length: 6 }, (_, k) =>
      transformedPath(rectangle(-4, -2, 34, 4), { a: Math.cos((k * Math.PI) / 3), b: Math.sin((k * Math.PI) / 3), c: -Math.sin((k * Math.PI) / 3), d: Math.cos((k * Math.PI) / 3), e: 0, f: 0 }),
    ); // biome-ignore format: reads as one
    const star = unitedOutlines(arms.map((arm) => transformedPath(arm, shift(50, 0))));
    expect(star).toHaveLength(1);
    expect(star[0]?.segments).toHaveLength(18);
  });
});
