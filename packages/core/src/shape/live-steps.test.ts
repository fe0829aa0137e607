/** Live steps from a master: mirror, turned copies, thickness, rounding, cut-outs; laying flat. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { apply, circlePath, distance, type Path, pathArea, pathLength, polygonPath, shift, transformedPath } from '../plane/index.ts';
import { aligned, distributed } from './arrange.ts';
import { gridImages, imagesAlong, joinedImages, mirrorAbout, stationAt, turnAbout, turnedImages } from './copies.ts';
import { carriedToStrip, layFlat, onCurve, stationOf } from './lay-flat.ts';
import { followed, type LiveStep } from './live-steps.ts';

const place = fc.record({ x: fc.double({ min: -90, max: 90, noNaN: true }), y: fc.double({ min: -90, max: 90, noNaN: true }) });
const none = () => [];
/** Half a heart-shaped leaf: both its ends on the axis x = 0. */
const halfLeaf: Path = { start: { x: 0, y: 0 }, segments: [{ kind: 'cubic', c1: { x: 15, y: 6 }, c2: { x: 30, y: 18 }, to: { x: 24, y: 34 } }, { kind: 'arc', to: { x: 0, y: 36 }, sweep: 2.4 }], closed: false }; // biome-ignore format: one line

describe('images', () => {
  it('mirrored twice are where they were', () => {
    fc.assert(
      fc.property(place, place, place, (a, b, p) => {
        fc.pre(distance(a, b) > 0.1);
        const mirror = mirrorAbout(a, b);
        expect(distance(apply(mirror, apply(mirror, p)), p)).toBeLessThan(1e-9);
      }),
    );
  });
  it('of half an outline join it into one closed outline', () => {
    const { paths, gaps } = joinedImages([halfLeaf], [shift(0, 0), mirrorAbout({ x: 0, y: 0 }, { x: 0, y: 1 })]);
    expect(gaps).toHaveLength(0);
    expect(paths).toHaveLength(1);
    expect(paths[0]?.closed).toBe(true);
    const closed: Path = { start: halfLeaf.start, segments: [...halfLeaf.segments, { kind: 'line', to: halfLeaf.start }], closed: true };
    expect(pathArea(paths[0] as Path)).toBeCloseTo(2 * pathArea(closed), 9);
  });
  it('that do not meet show their gaps', () => {
    const short = { ...halfLeaf, start: { x: 0.2, y: 0 } };
    const { paths, gaps } = joinedImages([short], [shift(0, 0), mirrorAbout({ x: 0, y: 0 }, { x: 0, y: 1 })]);
    expect(paths.every((path) => !path.closed)).toBe(true);
    expect(gaps).toHaveLength(2);
    expect(gaps[0]?.gapMm).toBeCloseTo(0.4, 9);
  });
  it('of one arm turned about a centre close into a star of any order, with mirrored halves too', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 60 }), fc.boolean(), (n, mirrored) => {
        const angle = Math.PI / n / (mirrored ? 1 : 0.5);
        const arm: Path = { start: { x: 40, y: 0 }, segments: [{ kind: 'line', to: { x: 20 * Math.cos(angle / 2), y: 20 * Math.sin(angle / 2) } }, { kind: 'line', to: { x: 40 * Math.cos(angle), y: 40 * Math.sin(angle) } }], closed: false }; // biome-ignore format: one line
        const { paths } = joinedImages([arm], turnedImages({ x: 0, y: 0 }, n, mirrored));
        expect(paths).toHaveLength(1);
        expect(paths[0]?.closed).toBe(true);
      }),
      { numRuns: lawRuns(40) },
    );
  });
  it('in a grid, and along a path at even steps', () => {
    expect(gridImages(3, 2, 10, 20).map((t) => [t.e, t.f])).toEqual([[0, 0], [10, 0], [20, 0], [0, 20], [10, 20], [20, 20]]); // biome-ignore format: one line
    const places = imagesAlong(circlePath({ x: 0, y: 0 }, 10), 4, { x: 0, y: 0 }, false).map((t) => apply(t, { x: 0, y: 0 }));
    expect(places[1]).toEqual({ x: expect.closeTo(0, 9), y: expect.closeTo(10, 9) });
    expect(stationAt(halfLeaf, pathLength(halfLeaf)).at).toEqual({ x: expect.closeTo(0, 9), y: expect.closeTo(36, 9) });
    expect(apply(turnAbout({ x: 5, y: 5 }, Math.PI), { x: 5, y: 7 })).toEqual({ x: expect.closeTo(5, 9), y: expect.closeTo(3, 9) });
  });
});

describe('what follows from a master', () => {
  const steps: LiveStep[] = [
    { kind: 'mirror', a: { x: 0, y: 0 }, b: { x: 0, y: 1 } },
    { kind: 'round', size: 1, which: 'all', how: 'round' },
    { kind: 'offset', by: 2, count: 1, corners: 'round', keeps: false },
  ];
  it('is one closed outline through a chain of three, worked out anew only when something changed', () => {
    const masters = [halfLeaf];
    const first = followed(masters, steps, none);
    expect(first.paths).toHaveLength(1);
    expect(first.gaps).toHaveLength(0);
    expect(followed(masters, steps, none).paths).toBe(first.paths);
    expect(followed([{ ...halfLeaf }], steps, none).paths).not.toBe(first.paths);
  });
  it('unites the overlap of turned arms into one outline', () => {
    const arm = polygonPath([{ x: -6, y: -4 }, { x: 30, y: -2 }, { x: 34, y: 0 }, { x: 30, y: 2 }, { x: -6, y: 4 }]); // biome-ignore format: one line
    const star = followed([arm], [{ kind: 'turn', centre: { x: 0, y: 0 }, count: 6, mirrored: false, axis: 0 }], none);
    expect(star.paths).toHaveLength(1);
    expect(pathArea(star.paths[0] as Path)).toBeLessThan(6 * pathArea(arm));
  });
  it('leaves out what others cut from it, live', () => {
    const plate = polygonPath([{ x: 0, y: 0 }, { x: 50, y: 0 }, { x: 50, y: 40 }, { x: 0, y: 40 }]); // biome-ignore format: one line
    let hole = circlePath({ x: 25, y: 20 }, 5);
    const cut = () => followed([plate], [{ kind: 'cut-out', ids: ['a'] }], () => [hole]).paths;
    const area = () => cut().reduce((sum, path) => sum + pathArea(path), 0);
    expect(area()).toBeCloseTo(2000 - 25 * Math.PI, 8);
    hole = circlePath({ x: 25, y: 20 }, 8);
    expect(area()).toBeCloseTo(2000 - 64 * Math.PI, 8);
  });
  it('says how many corners are too tight for their round', () => {
    const thin = polygonPath([{ x: 0, y: 0 }, { x: 50, y: 0 }, { x: 50, y: 3 }, { x: 0, y: 3 }]); // biome-ignore format: one line
    expect(followed([thin], [{ kind: 'round', size: 2, which: 'all', how: 'round' }], none).unrounded).toBeGreaterThan(0);
  });
});

describe('laid flat', () => {
  const cuff: Path = { start: { x: 32, y: 0 }, segments: [{ kind: 'arc', to: { x: -32, y: 0 }, sweep: Math.PI }], closed: false };
  it('a half circle of the inner face becomes pi (r + k t), the material outside', () => {
    const flat = layFlat(cuff, { thicknessMm: 1.2, k: 0.5, side: 'right', widthMm: 25 });
    expect(flat.lengthMm).toBeCloseTo(Math.PI * (32 + 0.6), 9);
    expect(layFlat(cuff, { thicknessMm: 1.2, k: 0.5, side: 'left', widthMm: 25 }).lengthMm).toBeCloseTo(Math.PI * (32 - 0.6), 9);
    expect(layFlat(cuff, { thicknessMm: 0, k: 0.5, side: 'left', widthMm: 25 }).lengthMm).toBeCloseTo(pathLength(cuff), 9);
    expect(pathArea(flat.strip)).toBeCloseTo(flat.lengthMm * 25, 9);
  });
  it('holes go to their distances along it, and back', () => {
    const flat = layFlat(cuff, { thicknessMm: 1.2, k: 0.5, side: 'right', widthMm: 25 });
    const [hole] = carriedToStrip(cuff, flat, [circlePath({ x: 0, y: 32 }, 2)], 12.5);
    expect(hole?.start.x).toBeCloseTo(flat.lengthMm / 2 + 2, 6);
    expect(hole?.start.y).toBeCloseTo(12.5, 6);
    expect(onCurve(cuff, flat, flat.lengthMm / 2)).toEqual({ x: expect.closeTo(0, 6), y: expect.closeTo(32, 6) });
    fc.assert(
      fc.property(fc.double({ min: 0, max: 100, noNaN: true }), (s) => {
        expect(flat.toCurve(flat.toStrip(s))).toBeCloseTo(s, 6);
      }),
    );
    expect(stationOf(halfLeaf, halfLeaf.start).along).toBeCloseTo(0, 9);
  });
  it('a closed band turns once: its strip grows by 2 pi k t', () => {
    const box = transformedPath(polygonPath([{ x: 0, y: 0 }, { x: 40, y: 0 }, { x: 40, y: 30 }, { x: 0, y: 30 }]), shift(3, 4)); // biome-ignore format: one line
    expect(layFlat(circlePath({ x: 0, y: 0 }, 20), { thicknessMm: 3, k: 0.4, side: 'right', widthMm: 10 }).lengthMm).toBeCloseTo(
      2 * Math.PI * (20 + 1.2),
      9,
    );
    expect(layFlat(box, { thicknessMm: 0, k: 0.5, side: 'right', widthMm: 10 }).lengthMm).toBeCloseTo(140, 9);
  });
});

describe('arranging', () => {
  const boxes = [{ minX: 0, minY: 0, maxX: 10, maxY: 10 }, { minX: 50, minY: 5, maxX: 54, maxY: 30 }, { minX: 12, minY: 2, maxX: 32, maxY: 8 }]; // biome-ignore format: a table
  it('brings boxes in line', () => {
    expect(aligned(boxes, 'left').map(({ x }) => x)).toEqual([0, -50, -12]);
    expect(aligned(boxes, 'top').map(({ y }) => y)).toEqual([20, 0, 22]);
  });
  it('makes the gaps between them alike', () => {
    const moved = distributed(boxes, 'x').map(({ x }, k) => ({ low: (boxes[k]?.minX ?? 0) + x, high: (boxes[k]?.maxX ?? 0) + x }));
    expect((moved[2]?.low ?? 0) - (moved[0]?.high ?? 0)).toBeCloseTo((moved[1]?.low ?? 0) - (moved[2]?.high ?? 0), 9);
  });
});
