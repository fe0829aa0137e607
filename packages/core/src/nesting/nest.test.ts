import { cutSheet, randomFrom } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import type { Piece } from '../job/index.ts';
import { piecesOnSheet, plainLayout, plainMachine, type SheetLayout, sheetParts } from '../job/index.ts';
import { CutLines } from '../make/common-lines.ts';
import { type CutPlan, plainCutting, plannedCut } from '../make/index.ts';
import {
  circlePath,
  ellipsePath,
  type Path,
  pathArea,
  pathBox,
  pathLength,
  polygonOf,
  polygonPath,
  rectanglePath,
  stepsOf,
  transformedPath,
} from '../plane/index.ts';
import { combined, distanceTo } from '../shape/index.ts';
import { finished } from '../steps.ts';
import type { NestingPart } from './bottom-left.ts';
import { footprintOf, pose, unposed } from './footprint.ts';
import { layoutFaults } from './layout-faults.ts';
import { type Nested, type NestRules, type NestSheet, nest } from './nest.ts';
import { depthOf, overlaps } from './overlap.ts';
import { layoutOfPieces } from './piece-layout.ts';
import { settled } from './settled.ts';

const quarters = [0, 1, 2, 3].map((k) => (k * Math.PI) / 2);
const plain: NestRules = { marginMm: 0, gapMm: 0.2, turns: quarters, canMirror: false, inHoles: true, seconds: 1, seed: 3 };
const sheet = (widthMm: number, heightMm: number, more: Partial<NestSheet> = {}): NestSheet => ({ widthMm, heightMm, count: 50, keepOff: [], ...more }); // biome-ignore format: one line
const part = (outer: Path, count = 1, holes: readonly Path[] = []): NestingPart => ({ outer, holes, count });
const box = (widthMm: number, heightMm: number, x = 0, y = 0): Path => rectanglePath({ minX: x, minY: y, maxX: x + widthMm, maxY: y + heightMm }); // biome-ignore format: one line
/** A clock that goes on by so much each time it is looked at: the same layout on any machine. */
const clock = (looks: number) => {
  let time = 0;
  return () => time++ / looks;
};
const laid = (parts: readonly NestingPart[], sheets: readonly NestSheet[], rules: Partial<NestRules> = {}, looks = 400): Nested =>
  finished(nest(parts, sheets, { ...plain, ...rules }, clock(looks)));
const pathsOn = ({ placed }: Nested, parts: readonly NestingPart[], which: number): Path[] =>
  placed.flatMap(({ part: k, sheet: on, place }) => (on === which ? [transformedPath((parts[k] as NestingPart).outer, place)] : []));

describe('parts pressed together', () => {
  it('use much more of a sheet than they do bottom-left, and none comes nearer to another than the gap', () => {
    for (const seed of [11, 12]) {
      const parts = cutSheet(seed, 14, 150, 100).map((outer) => part(outer));
      const first = laid(parts, [sheet(100, 1000)], { seconds: 0 });
      const found = laid(parts, [sheet(100, 1000)], {}, 900);
      expect(found.placed.length).toBe(parts.length);
      expect(found.utilisation).toBeGreaterThan(first.utilisation + 0.05);
      expect(layoutFaults(found.placed, parts, plain.gapMm)).toEqual([]);
      for (const path of pathsOn(found, parts, 0)) expect(pathBox(path).minX >= 0 && pathBox(path).maxX <= 100 && pathBox(path).minY >= 0).toBe(true); // biome-ignore format: one line
    }
  });
  it('may be turned any way', () => {
    // Two right triangles with a slanting side make a rectangle only turned as neither is drawn.
    const triangle = polygonPath([{ x: 0, y: 0 }, { x: 60, y: 20 }, { x: 50, y: 50 }]); // biome-ignore format: one line
    const parts = [part(triangle, 6)];
    const found = laid(parts, [sheet(100, 1000)], { turns: null }, 500);
    expect(found.utilisation).toBeGreaterThan(laid(parts, [sheet(100, 1000)], { turns: [0] }).utilisation);
    expect(layoutFaults(found.placed, parts, plain.gapMm)).toEqual([]);
  });
  it('turned over where that is allowed, and only then', () => {
    const hook = polygonPath([{ x: 0, y: 0 }, { x: 40, y: 0 }, { x: 40, y: 10 }, { x: 10, y: 10 }, { x: 10, y: 60 }, { x: 0, y: 60 }]); // biome-ignore format: one line
    const isOver = ({ placed }: Nested): boolean => placed.some(({ place: { a, b, c, d } }) => a * d - b * c < 0);
    const parts = [part(hook, 8)];
    expect(isOver(laid(parts, [sheet(110, 900)], { turns: [0] }))).toBe(false);
    const over = laid(parts, [sheet(110, 900)], { turns: [0], canMirror: true }, 1500);
    expect(isOver(over)).toBe(true);
    expect(layoutFaults(over.placed, parts, plain.gapMm)).toEqual([]);
  });
  it('keep off what is kept clear, and within a sheet that is no rectangle', () => {
    const outline = polygonPath([{ x: 0, y: 0 }, { x: 200, y: 0 }, { x: 200, y: 60 }, { x: 90, y: 90 }, { x: 60, y: 220 }, { x: 0, y: 220 }]); // biome-ignore format: one line
    const clamp = box(40, 40, 20, 20);
    const parts = [part(circlePath({ x: 0, y: 0 }, 14), 7), part(box(30, 18), 6)];
    const found = laid(parts, [sheet(200, 220, { outline, keepOff: [clamp] })], { marginMm: 3, gapMm: 2 });
    expect(found.sheets.length).toBe(1);
    for (const path of pathsOn(found, parts, 0)) {
      expect(combined([path], [clamp], 'keep-common')).toEqual([]);
      expect(combined([path], [outline], 'take-away')).toEqual([]);
    }
    expect(layoutFaults(found.placed, parts, 2)).toEqual([]);
  });
  it('take sheets in the order of the list, as many as there are, and say what finds no room', () => {
    const parts = [part(box(90, 90), 5), part(box(300, 20))];
    const found = laid(parts, [sheet(100, 100, { count: 2 }), sheet(200, 100, { count: 1 })], { seconds: 0 });
    expect([found.sheets, found.placed.length, found.tooLarge, found.left]).toEqual([[0, 0, 1], 4, [1], [1, 0]]);
  });
  it('lie on fewer sheets than bottom-left where they fit', () => {
    const random = randomFrom(4);
    const parts = cutSheet(21, 9, 120, 120).map((outer) => part(outer));
    const sheets = [sheet(138, 138)];
    const before = laid(parts, sheets, { seconds: 0 });
    const after = laid(parts, sheets, { seed: Math.floor(100 * random()) }, 3000);
    expect([before.sheets.length, after.sheets.length]).toEqual([2, 1]);
    expect(layoutFaults(after.placed, parts, plain.gapMm)).toEqual([]);
  });
  it('small ones in the holes of large ones, unless they may not', () => {
    const ring = part(box(96, 96), 1, [box(80, 80, 8, 8)]);
    const parts = [ring, part(box(30, 30), 4)];
    expect(laid(parts, [sheet(100, 300)], { gapMm: 1 }).usedMm).toBeLessThan(100);
    expect(laid(parts, [sheet(100, 300)], { gapMm: 1, inHoles: false }).usedMm).toBeGreaterThan(120);
  });
});

describe('footprints', () => {
  it('overlap where their areas do, held against exact areas of random ellipses and boxes', () => {
    const random = randomFrom(9);
    let both = 0;
    for (let k = 0; k < 120; k++) {
      const some = (): Path => (random() < 0.5 ? ellipsePath({ x: 0, y: 0 }, 5 + 15 * random(), 3 + 9 * random(), 0) : box(4 + 30 * random(), 3 + 9 * random())); // biome-ignore format: one line
      const [p, q] = [some(), some()];
      const [a, b] = [p, q].map((outer) => unposed(footprintOf({ outer, holes: [] }, 0, 0.002, 1))) as [ReturnType<typeof unposed>, ReturnType<typeof unposed>]; // biome-ignore format: one line
      const [turnA, turnB, x, y] = [6 * random(), 6 * random(), 60 * (random() - 0.5), 40 * (random() - 0.5)];
      pose(a, turnA, false, 0, 0);
      pose(b, turnB, random() < 0.5, 0, 0);
      const lying = (outer: Path, of: typeof a, dx: number, dy: number): Path => polygonPath(Array.from(of.of.edges, (e) => ({ x: (of.xs[e] as number) + dx, y: (of.ys[e] as number) + dy }))) ?? outer; // biome-ignore format: one line
      const common = combined([ccw(lying(p, a, x, y))], [ccw(lying(q, b, 0, 0))], 'keep-common').reduce((sum, path) => sum + Math.abs(pathArea(path)), 0); // biome-ignore format: one line
      if (Math.abs(common) < 1e-3 && common > 0) continue;
      expect(overlaps(a, x, y, b)).toBe(common > 0);
      both += common > 0 ? 1 : 0;
    }
    expect(both).toBeGreaterThan(16);
  });
  it('lie less deep in one another as they move apart', () => {
    const a = unposed(footprintOf({ outer: box(20, 20), holes: [] }, 0, 0.01, 1));
    pose(a, 0, false, 0, 0);
    const depths = [0, 4, 8, 12, 16, 20, 24].map((x) => depthOf(a, x, 0, a));
    expect(depths).toEqual([...depths].sort((p, q) => q - p));
  });
});

const ccw = (path: Path): Path => (pathArea(path) > 0 ? path : polygonPath([path.start, ...path.segments.slice(0, -1).map(({ to }) => to)].reverse())); // biome-ignore format: one line

describe('a job’s pieces on sheets', () => {
  const piece = (id: string, outer: Path, purpose: Piece['purpose'] = 'cut'): Piece => ({ id, name: id, purpose, leftOut: false, runsOff: false, outer, holes: [] }); // biome-ignore format: one line
  const line: Path = { start: { x: 5, y: 5 }, segments: [{ kind: 'line', to: { x: 25, y: 5 } }], closed: false };
  const pieces = [piece('plate', box(30, 20)), piece('rune', line, 'engrave'), piece('disc', circlePath({ x: 80, y: 0 }, 9))];
  const layout: SheetLayout = {
    ...plainLayout,
    sheets: [{ widthMm: 100, heightMm: 70, count: 4 }],
    copies: { plate: 8, disc: 3 },
    seconds: 1,
  };
  it('take along what is drawn on them, each copy with an id of its own', () => {
    const parts = sheetParts(pieces);
    expect(parts.map(({ piece: { id }, on }) => [id, on.map((one) => one.id)])).toEqual([
      ['plate', ['rune']],
      ['disc', []],
    ]);
    const found = finished(layoutOfPieces(pieces, layout, 1, clock(60)));
    const all = found.laid.sheets.flatMap((_, sheetAt) => piecesOnSheet(pieces, { ...layout, laid: found.laid }, sheetAt));
    expect(all.filter(({ name }) => name === 'plate').length).toBe(8);
    expect(all.filter(({ name }) => name === 'rune').length).toBe(8);
    for (const sheetAt of found.laid.sheets.keys()) {
      const on = piecesOnSheet(pieces, { ...layout, laid: found.laid }, sheetAt);
      expect(new Set(on.map(({ id }) => id)).size).toBe(on.length);
      for (const { outer } of on) expect(pathBox(outer).minX >= 5 - 1e-6 && pathBox(outer).maxY <= 65 + 1e-6).toBe(true);
      // Each line still lies on its plate.
      for (const { name, outer } of on) if (name === 'rune') expect(combined([...on.filter((one) => one.name === 'plate').map((one) => one.outer)], [box(1, 1, outer.start.x - 0.5, outer.start.y - 0.5)], 'keep-common').length).toBe(1); // biome-ignore format: one line
    }
  });
  it('with nothing to cut, or far too much, are refused in a sentence', () => {
    expect(() => finished(layoutOfPieces(pieces, { ...layout, copies: { plate: 0, disc: 0 } }, 1))).toThrow(/nothing to lay out/);
    const many = Array.from({ length: 10 }, (_, k) => piece(`p${k}`, box(5, 5)));
    expect(() => finished(layoutOfPieces(many, { ...layout, copies: Object.fromEntries(many.map(({ id }) => [id, 500])) }, 1))).toThrow(/5,?000 copies are more than/); // biome-ignore format: one line
  });
  it('larger than every sheet are named, and the rest is laid out', () => {
    const found = finished(layoutOfPieces([...pieces, piece('long', box(400, 5))], layout, 1, clock(5)));
    expect([found.tooLarge, found.laid.copies.length]).toEqual([['long'], 11]);
  });
});

describe('a look at a layout', () => {
  it('finds what overlaps, and what lies too near, as crossed bars do without a corner in one another', () => {
    const parts = [part(box(40, 4)), part(box(4, 40))];
    const at = (k: number, e: number, f: number) => ({ part: k, sheet: 0, place: { a: 1, b: 0, c: 0, d: 1, e, f } });
    expect(layoutFaults([at(0, 0, 20), at(1, 20, 0)], parts, 1)[0]?.distanceMm).toBeCloseTo(-16, 6);
    expect(layoutFaults([at(0, 0, 0), at(1, 40.5, 0)], parts, 1)[0]?.distanceMm).toBeCloseTo(0.5, 6);
    expect(layoutFaults([at(0, 0, 0), at(1, 41, 0)], parts, 1)).toEqual([]);
    expect(layoutFaults([at(0, 0, 0), { ...at(1, 20, 0), sheet: 1 }], parts, 1)).toEqual([]);
  });
});

describe('lines that two parts share', () => {
  const piece = (id: string, outer: Path): Piece => ({ id, name: id, purpose: 'cut', leftOut: false, runsOff: false, outer, holes: [] });
  const kerfMm = 0.3;
  const pieces = [piece('tile', box(40, 30)), piece('wedge', polygonPath([{ x: 0, y: 60 }, { x: 40, y: 60 }, { x: 40, y: 90 }]))]; // biome-ignore format: one line
  const layout: SheetLayout = { ...plainLayout, sheets: [{ widthMm: 200, heightMm: 110, count: 2 }], copies: { tile: 6, wedge: 2 }, gapMm: kerfMm, commonLines: true, seconds: 1 }; // biome-ignore format: one line
  it('lie just the kerf apart, and are cut once: as much less is cut, and every part is still free all round', () => {
    const found = finished(layoutOfPieces(pieces, layout, 1, clock(150)));
    const on = piecesOnSheet(pieces, { ...layout, laid: found.laid }, 0);
    expect(on.length).toBe(8);
    const cutting = { ...plainCutting, kerfMm, corners: 'mitre' as const };
    const [twice, once] = [false, true].map((commonLines) => plannedCut(on, { ...cutting, commonLines }, plainMachine)) as [CutPlan, CutPlan]; // biome-ignore format: one line
    const length = ({ runs }: CutPlan): number => runs.reduce((sum, { path }) => sum + pathLength(path), 0);
    expect(length(twice) - length(once)).toBeGreaterThan(120);
    // Every place of every part's own way lies on something that is cut.
    const distance = distanceTo(once.runs.map(({ path }) => path));
    for (const { path } of twice.runs) for (const at of polygonOf(path, 0.01)) expect(distance(at)).toBeLessThan(0.03);
    for (const { path } of twice.runs)
      for (const { from, segment } of stepsOf(path)) expect(distance({ x: (from.x + segment.to.x) / 2, y: (from.y + segment.to.y) / 2 })).toBeLessThan(0.03); // biome-ignore format: one line
  });
  it('are brought together within the sheet, clear of what is kept off, and square to an edge that was met before', () => {
    const parts = [part(box(40, 30)), part(box(40, 30)), part(box(20, 20))];
    const at = (k: number, e: number, f: number) => ({ part: k, sheet: 0, place: { a: 1, b: 0, c: 0, d: 1, e, f } });
    const lying = [at(0, 5, 5), at(1, 46, 5.2), at(2, 5.5, 36.1)];
    const places = (sheetAt: NestSheet) => settled(lying, parts, kerfMm, [sheetAt], 5).map(({ place: { e, f } }) => [e, f]);
    const plainly = [
      [5, 5],
      [45.3, 5.2],
      [5.5, 35.3],
    ].map((xy) => xy.map((mm) => expect.closeTo(mm, 9)));
    expect(places(sheet(200, 110))).toEqual(plainly);
    // A clamp between the two that are side by side keeps the second where it is; so does a leftover whose edge is too near.
    expect(places(sheet(200, 110, { keepOff: [box(0.4, 4, 45.2, 8)] }))[1]).toEqual([46, 5.2]);
    const leftover = polygonPath([{ x: 0, y: 0 }, { x: 200, y: 0 }, { x: 200, y: 110 }, { x: 48, y: 110 }, { x: 48, y: 40.5 }, { x: 0, y: 40.5 }]); // biome-ignore format: one line
    expect(places(sheet(200, 110, { outline: leftover }))[2]).toEqual([5.5, 36.1]);
  });
  it('of tiles beside one another: three sides of the second are left, and of a closed way that is shared in its middle one way', () => {
    const lines = new CutLines();
    expect(lines.rest(box(10, 10))).toEqual([box(10, 10)]);
    const [rest, ...more] = lines.rest(box(10, 10, 10, 0));
    expect(more).toEqual([]);
    expect(pathLength(rest as Path)).toBeCloseTo(30, 9);
    // Two thirds of one side: what is left is one way, from one end of the shared stretch round to the other.
    const [beside, ...none] = lines.rest(box(10, 9, 0, -9));
    expect([none.length, pathLength(beside as Path)]).toEqual([0, expect.closeTo(28, 9)]);
    expect(lines.rest(box(10, 10))).toEqual([]);
  });
});
