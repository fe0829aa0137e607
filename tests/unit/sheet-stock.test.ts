/** Sheets at hand: parts laid out on sheets of any outline, what is left of them, and what the shelf has of a material afterwards. */
import { foamPlan, plainFoam } from '@nuvet/core/foam';
import { type Piece, plainMachine, plainStock, type SheetStock } from '@nuvet/core/job';
import { leftoversOf, nestedOnSheets } from '@nuvet/core/nesting';
import {
  circlePath,
  ellipsePath,
  type Path,
  pathArea,
  pathBox,
  polygonOf,
  polygonPath,
  rectanglePath,
  transformedPath,
} from '@nuvet/core/plane';
import { type LaidOut, processKinds } from '@nuvet/core/processes';
import { distanceTo, windingNumber } from '@nuvet/core/shape';
import { isAsThick, materialAfter, materialSchema, sheetsOf } from '@nuvet/core/shelf';
import { finished } from '@nuvet/core/steps';
import { randomFrom } from '@nuvet/truth';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from './random-laws.ts';

const box = (minX: number, minY: number, maxX: number, maxY: number) => ({ minX, minY, maxX, maxY });
const areas = (paths: readonly Path[]): number[] => paths.map(pathArea).sort((a, b) => b - a);

describe('parts on a sheet of any outline', () => {
  it('lie within it, as far from its edge and from one another as asked', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), (seed) => {
        const random = randomFrom(seed);
        const corners = 5 + Math.floor(4 * random());
        const raw = polygonPath(Array.from({ length: corners }, (_, k) => {
          const [angle, r] = [(2 * Math.PI * k) / corners, 160 + 140 * random()];
          return { x: 300 + r * Math.cos(angle), y: 300 + r * Math.sin(angle) };
        })); // biome-ignore format: a star of corners
        const { minX, minY, maxX, maxY } = pathBox(raw);
        const outline = transformedPath(raw, { a: 1, b: 0, c: 0, d: 1, e: -minX, f: -minY });
        const part = ellipsePath({ x: 0, y: 0 }, 24 + 20 * random(), 14, 0);
        const settings = { widthMm: maxX - minX, heightMm: maxY - minY, marginMm: 5, gapMm: 4, angles: [0, Math.PI / 2], outline };
        const { placed, sheets } = finished(nestedOnSheets([{ outer: part, holes: [], count: 9 }], settings));
        expect(placed.length).toBe(9);
        expect(sheets).toBeLessThan(4);
        const toEdge = distanceTo([outline]);
        const laid = placed.map(({ sheet, place }) => ({ sheet, path: transformedPath(part, place) }));
        for (const { sheet, path } of laid) {
          const toOthers = distanceTo(laid.flatMap((other) => (other.sheet === sheet && other.path !== path ? [other.path] : [])));
          for (const p of polygonOf(path, 0.05)) {
            expect(windingNumber([outline], p)).not.toBe(0);
            expect(toEdge(p)).toBeGreaterThan(5 - 0.06);
            expect(toOthers(p)).toBeGreaterThan(4 - 0.06);
          }
        }
      }),
      { numRuns: lawRuns(12) },
    );
  });
});

describe('what is left of a sheet', () => {
  const sheet = rectanglePath(box(0, 0, 600, 400));
  it.each([
    ['nothing cut: all of it', [], [240_000]],
    ['one part in the corner: what is above and beside it, in one', [box(0, 0, 200, 100)], [240_000 - 20_000]],
    ['a row along the foot: what is above it', [box(0, 0, 300, 120), box(300, 0, 600, 80)], [240_000 - 36_000 - 24_000]],
    ['a valley too narrow for anything is no part of it', [box(0, 0, 280, 120), box(320, 0, 600, 120)], [600 * 280]],
    ['two apart, where a part reaches up to the edge', [box(200, 0, 300, 395)], [200 * 400, 300 * 400]],
    ['what is too low over a part is not kept', [box(0, 0, 600, 360)], []],
  ])('%s', (_, used, expected) => {
    expect(areas(leftoversOf(sheet, used, 60))).toEqual([...expected].sort((a, b) => b - a).map((area) => expect.closeTo(area, 6)));
  });
  it('of a disc is what a chord cuts off: the closed form of a segment', () => {
    const [half] = leftoversOf(circlePath({ x: 150, y: 150 }, 150), [box(0, 0, 300, 200)], 60);
    const angle = 2 * Math.acos(50 / 150);
    expect(pathArea(half as Path)).toBeCloseTo((150 ** 2 / 2) * (angle - Math.sin(angle)), 3);
  });
  it('never lies over what is cut, and has no edge that is shorter than a part is wide', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 5, max: 100 }), fc.integer({ min: 5, max: 390 })), { maxLength: 8 }), (cut) => {
        const used = cut.map(([x, wide, high]) => box(x, 0, x + wide, high));
        const left = leftoversOf(sheet, used, 60);
        for (const { minX, maxX, maxY } of used)
          for (const [x, y] of [[minX + 0.1, 1], [(minX + maxX) / 2, maxY - 0.1], [maxX - 0.1, 0.5 * maxY]] as const) expect(windingNumber(left, { x, y })).toBe(0);
        for (const path of left) expect(pathArea(path)).toBeGreaterThan(0);
      }),
      { numRuns: lawRuns(60) },
    ); // biome-ignore format: a law
  });
});

const foam = materialSchema.parse({
  name: 'Reed foam 20',
  nominalMm: 19,
  measuredMm: 20,
  sheets: [{ widthMm: 600, heightMm: 400, count: 5 }],
  leftovers: [
    { name: 'Large', outline: transformedPath(circlePath({ x: 0, y: 0 }, 150), { a: 1, b: 0, c: 0, d: 1, e: 700, f: 30 }) },
    { name: 'Small', outline: rectanglePath(box(10, 10, 130, 110)) },
  ],
});

describe('the shelf', () => {
  it('gives a job its leftovers, the smallest first, then its sheets, for boards as thick as it measures', () => {
    expect([isAsThick(foam, 20.3), isAsThick(foam, 19), isAsThick({ measuredMm: null, nominalMm: null }, 20)]).toEqual([
      true,
      false,
      false,
    ]);
    const sheets = sheetsOf(foam, 20);
    expect(sheets.map(({ leftover, widthMm, count }) => [leftover?.name, Math.round(widthMm), count])).toEqual([['Small', 120, 1], ['Large', 300, 1], [undefined, 600, 5]]); // biome-ignore format: rows
    expect(pathBox(sheets[1]?.leftover?.outline as Path)).toMatchObject({ minX: expect.closeTo(0, 1), minY: expect.closeTo(0, 1) });
  });
  it('has fewer sheets after them, without the leftovers that were used, and with what is left of each layer', () => {
    const kinds = sheetsOf(foam, 20);
    const part = { name: '1', outer: rectanglePath(box(5, 5, 60, 60)), holes: [] };
    const outline = rectanglePath(box(0, 0, 600, 400));
    const laid = [
      { thicknessMm: 20, layers: 1, kind: 0, outline, parts: [part], leftovers: [] },
      { thicknessMm: 20, layers: 2, kind: 2, outline, parts: [part], leftovers: [rectanglePath(box(0, 66, 600, 400))] },
    ];
    const after = materialAfter(foam, laid, kinds, (n) => (n === 1 ? 'Large' : `Float, ${n}`));
    expect(after.sheets).toEqual([{ widthMm: 600, heightMm: 400, count: 3 }]);
    expect(after.leftovers.map(({ name }) => name).sort()).toEqual(['Float, 2', 'Float, 3', 'Large']);
    expect(materialSchema.safeParse(after).success).toBe(true);
    // Of the stock, where no sheets were listed: as large as the shelf's.
    const ofStock = materialAfter(foam, [{ thicknessMm: 20, layers: 1, kind: null, outline, parts: [part], leftovers: [] }], [], String);
    expect(ofStock.sheets).toEqual([{ widthMm: 600, heightMm: 400, count: 4 }]);
  });
});

describe('formers on sheets', () => {
  const view = (id: string, outer: Path): Piece => ({ id, name: id, purpose: 'cut', leftOut: false, runsOff: false, outer, holes: [] });
  const pieces = [view('side', ellipsePath({ x: 150, y: 50 }, 150, 50, 0)), view('above', ellipsePath({ x: 150, y: 300 }, 150, 50, 0))];
  const laidOut = (sheets: SheetStock[]): LaidOut => {
    const settings = { ...plainFoam, sideId: 'side', aboveId: 'above', boards: [{ thicknessMm: 58, count: 2 }, { thicknessMm: 20, layers: 2, count: null }], sheets }; // biome-ignore format: one line
    const work = { title: 'Float', pieces, settings, machine: plainMachine, stock: plainStock };
    return finished(processKinds.foam?.laidOut?.(work, finished(foamPlan(pieces, settings, plainStock))) as Generator<number, LaidOut>);
  };
  it('of one board lie together, also the last one, which is trimmed; laminated ones take a sheet for each layer', () => {
    const { sheets, unplaced } = laidOut([{ widthMm: 400, heightMm: 260, count: 9 }]);
    expect(unplaced).toEqual([]);
    expect(sheets.map(({ thicknessMm, layers, parts }) => [thicknessMm, layers, parts.length])).toEqual([[58, 1, 2], [20, 2, 5]]); // biome-ignore format: rows
  });
  it('go on sheets of their own thickness, or on the stock where there are none; those that find none are named', () => {
    const own = { widthMm: 400, heightMm: 260, count: 9, boardMm: 20 };
    const { sheets, unplaced } = laidOut([own, { ...own, boardMm: 30 }]);
    expect(sheets.map(({ thicknessMm, kind }) => [thicknessMm, kind])).toEqual([[58, null], [20, 0]]); // biome-ignore format: rows
    expect(unplaced).toEqual([]);
    // One sheet of it is no pair to laminate.
    const alone = laidOut([{ ...own, count: 1 }]);
    expect(alone.sheets.map(({ thicknessMm }) => thicknessMm)).toEqual([58]);
    expect(alone.unplaced).toEqual(['Former 3', 'Former 4', 'Former 5', 'Former 6', 'Former 7']);
  });
});
