/**
 * What is made ready of pieces at random, held against jsts: lines that fill an area, ways of the tool beside the pieces,
 * what is led in and out, bridges, and pages of paper.
 */
import { type Bridge, bridgeOutline, machineSchema, type Piece, type Purpose, withBridges } from '@nuvet/core/job';
import { type Cutting, plainCutting, plainPrinting, plannedCut, tiled } from '@nuvet/core/make';
import {
  distance,
  nearestOnPath,
  type Path,
  type Point,
  pathBox,
  pathLength,
  polygonPath,
  reversedPath,
  transformedPath,
} from '@nuvet/core/plane';
import fc from 'fast-check';
import DistanceOp from 'jsts/org/locationtech/jts/operation/distance/DistanceOp.js';
import OverlayOp from 'jsts/org/locationtech/jts/operation/overlay/OverlayOp.js';
import SnapIfNeededOverlayOp from 'jsts/org/locationtech/jts/operation/overlay/snap/SnapIfNeededOverlayOp.js';
import { describe, expect, it } from 'vitest';
import { type Area, complaint, complaints, lineFrom, linesFrom, overlaid, polygonFrom, polygonsFrom } from './polygons-of-jsts.ts';
import { lawRuns } from './random-laws.ts';
import { areaOf, mixed, number } from './random-outlines.ts';

let count = 0;
const piece = ({ outer, holes }: Area, purpose: Purpose = 'cut'): Piece => {
  const name = `Piece ${++count}`;
  return { id: name, name, purpose, leftOut: false, runsOff: false, outer, holes: [...holes] };
};
const middleOf = (path: Path): Point => {
  const { minX, minY, maxX, maxY } = pathBox(path);
  return { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
};
const scaledAbout = (path: Path, { x, y }: Point, by: number): Path => transformedPath(path, { a: by, b: 0, c: 0, d: by, e: x * (1 - by), f: y * (1 - by) }); // biome-ignore format: one line
const shifted = (path: Path, x: number, y: number): Path => transformedPath(path, { a: 1, b: 0, c: 0, d: 1, e: x, f: y });

/** An outline with a hole of its own form in it. */
const pierced: fc.Arbitrary<Area> = fc
  .record({ outer: mixed, share: number(0.15, 0.6) })
  .map(({ outer, share }): Area => {
    const centred = shifted(outer, -middleOf(outer).x, -middleOf(outer).y);
    return { outer: centred, holes: [reversedPath(scaledAbout(centred, { x: 0, y: 0 }, share))] };
  })
  .filter((area) => complaint(area) === null);
const cutting = (more: Partial<Cutting>): Cutting => ({ ...plainCutting, ...more });
const machine = machineSchema.parse({});

describe('lines that fill a curved area', () => {
  it('are as long as those that jsts cuts out of it, and lie in it', () => {
    fc.assert(
      fc.property(pierced, number(-2, 2), number(0.4, 5), (area, angle, spacingMm) => {
        const { runs } = plannedCut([piece(area, 'pocket')], cutting({ hatch: { angle, spacingMm, overscanMm: 0 } }), machine);
        const polygon = polygonFrom(area, 0.001);
        // The same lines right across, the first half a spacing within the area.
        const [c, s] = [Math.cos(angle), Math.sin(angle)];
        const box = pathBox(transformedPath(area.outer, { a: c, b: -s, c: s, d: c, e: 0, f: 0 }));
        const right: Path[] = [];
        for (let v = box.minY + spacingMm / 2; v < box.maxY; v += spacingMm) {
          const at = (u: number): Point => ({ x: u * c - v * s, y: u * s + v * c });
          right.push({ start: at(box.minX - 1), segments: [{ kind: 'line', to: at(box.maxX + 1) }], closed: false });
        }
        const truth = SnapIfNeededOverlayOp.overlayOp(linesFrom(right), polygon, OverlayOp.INTERSECTION).getLength() as number;
        const length = runs.reduce((sum, { path }) => sum + pathLength(path), 0);
        expect(Math.abs(length - truth)).toBeLessThan(0.002 * truth + 0.05);
        const outside = SnapIfNeededOverlayOp.overlayOp(
          linesFrom(runs.map(({ path }) => path)),
          polygon,
          OverlayOp.DIFFERENCE,
        ).getLength() as number;
        expect(outside).toBeLessThan(0.01 * runs.length + 0.01);
      }),
      { numRuns: lawRuns(60) },
    );
  });
});

/** Pieces side by side, so near to each other that a lead may have no room; the second one may lie in the first one's hole. */
const neighbours = fc
  .record({ all: fc.array(pierced, { minLength: 2, maxLength: 4 }), gap: number(1, 12), nests: fc.boolean() })
  .map(({ all, gap, nests }): Area[] => {
    let x = 0;
    const placed = all.map(({ outer, holes }): Area => {
      const { minX, maxX } = pathBox(outer);
      const by = x - minX;
      x += maxX - minX + gap;
      return { outer: shifted(outer, by, 0), holes: holes.map((hole) => shifted(hole, by, 0)) };
    });
    const [first] = placed as [Area];
    const [hole] = first.holes as [Path];
    const nest = reversedPath(scaledAbout(hole, middleOf(hole), 0.5));
    const isInside = overlaid(polygonFrom({ outer: nest, holes: [] }), polygonFrom({ outer: reversedPath(hole), holes: [] }), 'take-away').getArea() < 1e-9; // biome-ignore format: one line
    return nests && isInside ? [{ outer: nest, holes: [] }, ...placed] : placed;
  });

/** Pieces that lie nearer to each other than the kerf cannot both stay whole. */
const areApart = (areas: readonly Area[], mm: number): boolean =>
  areas.every((one, k) => areas.slice(k + 1).every((other) => DistanceOp.distance(polygonFrom(one, 0.01), polygonFrom(other, 0.01)) > mm));

describe('ways of the tool', () => {
  it('keep half the kerf off every piece, holes before what is round them and nested pieces before their frame', () => {
    fc.assert(
      fc.property(neighbours, number(0.05, 0.9), (areas, kerfMm) => {
        fc.pre(areApart(areas, kerfMm));
        const pieces = areas.map((area) => piece(area));
        const { runs, lost } = plannedCut(pieces, cutting({ kerfMm }), machine);
        expect(lost.filter(({ isFailure }) => isFailure)).toEqual([]);
        const all = polygonsFrom(areas, 0.001);
        for (const { path } of runs) {
          expect(DistanceOp.distance(lineFrom(path, 0.001), all)).toBeGreaterThan(kerfMm / 2 - 0.008);
          for (const { to } of path.segments) {
            const off = Math.min(...areas.flatMap(({ outer, holes }) => [outer, ...holes].map((one) => nearestOnPath(one, to).distance)));
            expect(off).toBeLessThan(kerfMm / 2 + 0.006);
          }
        }
        // A loop that lies in another is cut before it.
        const loops = runs.map(({ path }) => polygonFrom({ outer: path, holes: [] }, 0.01));
        loops.forEach((loop, k) => {
          for (const later of loops.slice(k + 1)) expect(overlaid(later, loop, 'take-away').getArea()).toBeGreaterThan(0.01);
        });
      }),
      { numRuns: lawRuns(40) },
    );
  });
  it.each(['line', 'arc'] as const)('led in and out by %s take from no piece', (kind) => {
    fc.assert(
      fc.property(neighbours, number(0.05, 0.9), number(0.5, 8), number(0, 8), (areas, kerfMm, inMm, outMm) => {
        fc.pre(areApart(areas, kerfMm));
        const { runs } = plannedCut(areas.map((area) => piece(area)), cutting({ kerfMm, lead: { kind, inMm, outMm } }), machine); // biome-ignore format: one call
        const all = polygonsFrom(areas, 0.001);
        // There is always room beside what lies outermost.
        expect(runs.some(({ path }) => !path.closed)).toBe(true);
        for (const { path } of runs) expect(DistanceOp.distance(lineFrom(path, 0.001), all)).toBeGreaterThan(kerfMm / 2 - 0.008);
      }),
      { numRuns: lawRuns(40) },
    );
  });
});

describe('bridges across a gap', () => {
  it('make one area of frame, island and bands, the one that jsts unites', () => {
    fc.assert(
      fc.property(pierced, number(0.3, 0.8), fc.array(number(0, 1), { minLength: 1, maxLength: 4 }), number(0.3, 2), ({ outer, holes }, share, at, widthMm) => {
        const [hole] = holes as [Path];
        const island = reversedPath(scaledAbout(hole, { x: 0, y: 0 }, share));
        const within = (path: Path, u: number): Point => (path.segments[Math.floor(u * path.segments.length * 0.999)] as Path['segments'][0]).to;
        const bridges = at.map((u, k): Bridge => {
          const from = within(island, u);
          return { id: `b${k}`, from, to: nearestOnPath(hole, from).point, widthMm };
        });
        fc.pre(bridges.every(({ from, to }) => distance(from, to) > 0.5));
        const made = withBridges([piece({ outer, holes }), piece({ outer: island, holes: [] })], bridges);
        expect(made).toHaveLength(1);
        expect(complaints(made)).toEqual([]);
        const parts: Area[] = [{ outer, holes }, { outer: island, holes: [] }, ...bridges.map((b) => ({ outer: bridgeOutline(b), holes: [] }))]; // biome-ignore format: a list
        const truth = parts.map((one) => polygonFrom(one)).reduce((sum, one) => overlaid(sum, one, 'unite'));
        expect(Math.abs(areaOf(made) - truth.getArea())).toBeLessThan(0.001 * pathLength(outer));
      }),
      { numRuns: lawRuns(60) },
    ); // biome-ignore format: one property
  });
});

describe('pages', () => {
  it('carry all of the lines in their own cells, and each has some', () => {
    fc.assert(
      fc.property(fc.array(mixed, { minLength: 1, maxLength: 4 }), number(1, 14), number(0, 15), fc.constantFrom(0, 4, 12), fc.constantFrom('A5', 'A4', 'Letter'), (outlines, scale, marginMm, overlapMm, paper) => {
        const paths = outlines.map((path) => scaledAbout(path, { x: 100, y: -40 }, scale));
        const { pages } = tiled(paths, { ...plainPrinting, paper, marginMm, overlapMm });
        // A line that leaves a cell by no more than a hundredth of a millimetre needs no page of its own there.
        const slack = 0.02;
        const cells = pages.map(({ cell: { minX, minY, maxX, maxY } }): Area => {
          const [l, b, r, t] = [minX - slack, minY - slack, maxX + slack, maxY + slack];
          return { outer: polygonPath([{ x: l, y: b }, { x: r, y: b }, { x: r, y: t }, { x: l, y: t }]), holes: [] };
        }); // biome-ignore format: four corners
        const lines = linesFrom(paths, 0.01);
        for (const cell of cells) {
          expect(SnapIfNeededOverlayOp.overlayOp(lines, polygonFrom(cell), OverlayOp.INTERSECTION).getLength()).toBeGreaterThan(0);
        }
        const all = cells.map((cell) => polygonFrom(cell)).reduce((sum, one) => overlaid(sum, one, 'unite'));
        expect(SnapIfNeededOverlayOp.overlayOp(lines, all, OverlayOp.DIFFERENCE).getLength()).toBeLessThan(1e-6);
      }),
      { numRuns: lawRuns(40) },
    ); // biome-ignore format: one property
  });
});
