/**
 * What a proof finds in outlines at random, held against jsts: crossings, widths of webs and gaps, and whether what a button
 * mends is an area again.
 */
import type { Piece } from '@nuvet/core/job';
import { type Path, type Point, pathLength, polygonPath, reversedPath, transformedPath } from '@nuvet/core/plane';
import { type Fault, faultsOf, type MadeOutlines, narrowPlaces } from '@nuvet/core/proof';
import fc from 'fast-check';
import Coordinate from 'jsts/org/locationtech/jts/geom/Coordinate.js';
import GeometryFactory from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import DistanceOp from 'jsts/org/locationtech/jts/operation/distance/DistanceOp.js';
import RelateOp from 'jsts/org/locationtech/jts/operation/relate/RelateOp.js';
import { describe, expect, it } from 'vitest';
import { type Area, complaint, complaints, lineFrom, linesFrom, overlaid, type Polygon, polygonFrom } from './polygons-of-jsts.ts';
import { lawRuns } from './random-laws.ts';
import { areaOf, mixed, number, place, whole } from './random-outlines.ts';

let count = 0;
const piece = ({ outer, holes }: Area): Piece => {
  const name = `Piece ${++count}`;
  return { id: name, name, purpose: 'cut', leftOut: false, runsOff: false, outer, holes: [...holes] };
};
const limits = { kerfMm: 0, thinnestMm: 0, clearanceMm: 0 };
const told = (pieces: readonly Piece[], code: Fault['code'], of = limits): Fault[] => faultsOf(pieces, of).filter((f) => f.code === code);
const madeBy = (fault: Fault | undefined): readonly MadeOutlines[] =>
  fault?.fixes.flatMap((fix) => (fix.do === 'replace' ? fix.by : [])) ?? [];
const pointOf = ({ x, y }: Point) => new GeometryFactory().createPoint(new Coordinate(x, y));

describe('crossings', () => {
  const tangle = fc.array(place, { minLength: 3, maxLength: 8 }).map(polygonPath);
  it('of one outline are told just where jsts calls it no area, and the loops can be taken away', () => {
    fc.assert(
      fc.property(tangle, (path) => {
        const [fault] = told([piece(whole(path))], 'crosses-itself');
        expect(fault !== undefined).toBe(complaint(whole(path)) !== null);
        expect(complaints(madeBy(fault))).toEqual([]);
      }),
      { numRuns: lawRuns(400) },
    );
  });
  it('of two outlines are told just where each has its own beside what both have, and united they are what jsts unites', () => {
    fc.assert(
      fc.property(mixed, mixed, place, number(0.1, 1), (a, b, { x, y }, scale) => {
        const other = transformedPath(b, { a: scale, b: 0, c: 0, d: scale, e: 3 * x, f: 3 * y });
        const [one, two] = [polygonFrom(whole(a)), polygonFrom(whole(other))];
        const parts = [overlaid(one, two, 'keep-common'), overlaid(one, two, 'take-away'), overlaid(two, one, 'take-away')].map((g) =>
          g.getArea(),
        );
        fc.pre(parts.every((area) => area === 0 || area > 0.01));
        const [fault] = told([piece(whole(a)), piece(whole(other))], 'crosses-another');
        expect(fault !== undefined).toBe(parts.every((area) => area > 0));
        if (!fault) return;
        const united = madeBy(fault);
        expect(complaints(united)).toEqual([]);
        const truth = overlaid(one, two, 'unite').getArea();
        expect(Math.abs(areaOf(united) - truth)).toBeLessThan(0.0005 * (pathLength(a) + pathLength(other)));
      }),
      { numRuns: lawRuns(200) },
    );
  });
});

/** An outline and a hole of another form that comes near to its edge. */
const nearHole: fc.Arbitrary<Area> = fc
  .record({ outer: mixed, inner: mixed, size: number(0.08, 0.4), at: place })
  .map(({ outer, inner, size, at }) => ({
    outer,
    holes: [reversedPath(transformedPath(inner, { a: size, b: 0, c: 0, d: size, e: at.x, f: at.y }))],
  }));

describe('widths', () => {
  const limitMm = 6;
  it('of a web between a hole and the edge are what jsts measures, and every web told is an empty disc wide', () => {
    let measured = 0;
    fc.assert(
      fc.property(nearHole, (area) => {
        fc.pre(complaint(area) === null);
        const [outer, hole] = [lineFrom(area.outer), lineFrom(area.holes[0] as Path)];
        const apart = DistanceOp.distance(outer, hole) as number;
        const webs = narrowPlaces([area.outer, ...area.holes], limitMm).filter(({ isWeb }) => isWeb);
        if (apart > 0.05 && apart < limitMm - 0.01) {
          measured++;
          // Another web just beside it may stand for it, but is no wider.
          expect(Math.min(...webs.map(({ widthMm }) => widthMm))).toBeLessThan(apart + 0.001);
        }
        const borders = linesFrom([area.outer, ...area.holes]);
        for (const { a, b, widthMm } of webs) {
          const middle = pointOf({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
          expect(RelateOp.contains(polygonFrom(area), middle)).toBe(true);
          expect(Math.abs(DistanceOp.distance(borders, middle) - widthMm / 2)).toBeLessThan(0.001);
        }
      }),
      { numRuns: lawRuns(300) },
    );
    expect(measured).toBeGreaterThan(30);
  });
  it('of a gap between two pieces are what jsts measures', () => {
    fc.assert(
      fc.property(mixed, mixed, number(0.05, 3), (a, b, gap) => {
        // Pushed together from the side until they are at most the gap apart.
        let x = 80;
        const at = () => transformedPath(b, { a: 1, b: 0, c: 0, d: 1, e: x, f: 0 });
        for (let k = 0; k < 60; k++) {
          const free = (DistanceOp.distance(lineFrom(a), lineFrom(at())) as number) - gap;
          if (free < 1e-4) break;
          x -= free;
        }
        const apart = DistanceOp.distance(lineFrom(a), lineFrom(at())) as number;
        const gaps = narrowPlaces([a, at()], gap + 1).filter(({ isWeb }) => !isWeb);
        // Notches of either are gaps as well.
        expect(Math.min(...gaps.map(({ widthMm }) => widthMm))).toBeLessThan(apart + 0.001);
        const [fault] = told([piece(whole(a)), piece(whole(at()))], 'too-near', { kerfMm: apart + 0.01, thinnestMm: 0, clearanceMm: 0 });
        expect(fault).toBeDefined();
        expect(told([piece(whole(a)), piece(whole(at()))], 'too-near', { kerfMm: apart - 0.01, thinnestMm: 0, clearanceMm: 0 })).toEqual(
          [],
        );
      }),
      { numRuns: lawRuns(100) },
    );
  });
  it('that break an area apart, or open a hole, once half of them is taken off all round are all told', () => {
    const shape = (polygon: Polygon): string => {
      const parts = Array.from({ length: polygon.getNumGeometries() }, (_, k) => polygon.getGeometryN(k)).filter(
        (one) => one.getArea() > 1e-6,
      );
      return `${parts.length} with ${parts.reduce((sum, one) => sum + one.getNumInteriorRing(), 0)} holes`;
    };
    let broken = 0;
    fc.assert(
      fc.property(fc.oneof(mixed.map(whole), nearHole), number(2, 22), (area, limit) => {
        fc.pre(complaint(area) === null);
        const polygon = polygonFrom(area, 0.001);
        const [before, after] = [shape(polygon), shape(BufferOp.bufferOp(polygon, -0.49 * limit, 60))];
        // What vanishes as a whole has no web, but is one.
        if (before === after || after.startsWith('0')) return;
        broken++;
        expect(narrowPlaces([area.outer, ...area.holes], limit).some(({ isWeb }) => isWeb)).toBe(true);
      }),
      { numRuns: lawRuns(300) },
    );
    expect(broken).toBeGreaterThan(lawRuns(300) / 10);
  });
});

describe('what is too thin, thickened', () => {
  it('is an area without thin webs that has all it had, and grows only where it was thin', () => {
    fc.assert(
      fc.property(nearHole, number(0.5, 3), (area, thinnestMm) => {
        fc.pre(complaint(area) === null);
        const of = { kerfMm: 0, thinnestMm, clearanceMm: 0 };
        const [fault] = told([piece(area)], 'thin-web', of);
        const made = madeBy(fault);
        fc.pre(made.length > 0);
        expect(complaints(made)).toEqual([]);
        expect(told(made.map(piece), 'thin-web', of)).toEqual([]);
        const was = polygonFrom(area, 0.001);
        const now = made.map((one) => polygonFrom(one, 0.001)).reduce((sum, one) => overlaid(sum, one, 'unite'));
        expect(overlaid(was, now, 'take-away').getArea()).toBeLessThan(0.01);
        // What an opening by half the limit takes away is what is thinner than it, and corners.
        const thick = BufferOp.bufferOp(BufferOp.bufferOp(was, -thinnestMm / 2, 60), thinnestMm / 2, 60);
        const near = BufferOp.bufferOp(overlaid(was, thick, 'take-away'), thinnestMm / 2 + 0.02, 60);
        expect(overlaid(overlaid(now, was, 'take-away'), near, 'take-away').getArea()).toBeLessThan(0.05);
      }),
      { numRuns: lawRuns(25) },
    );
  });
});
