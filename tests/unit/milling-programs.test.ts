/**
 * Milling programs as an interpreter reads them that was written from the published text alone, and stock as it mills it by its own
 * reckoning.
 */
import { type ProgramOptions, type ProgramRun, readMillingProgram, writeMillingProgram } from '@nuvet/core/formats';
import { type Machine, type Piece, plainMachine, plainStock, type Stock } from '@nuvet/core/job';
import {
  chordsOfMove,
  type MillingSettings,
  type Move,
  millPlan,
  millToolSchema,
  operationSchema,
  type Place,
  plainMilling,
  profileOf,
} from '@nuvet/core/milling';
import { circlePath, rectanglePath, reversedPath } from '@nuvet/core/plane';
import { processKinds } from '@nuvet/core/processes';
import { finished } from '@nuvet/core/steps';
import { type MillingInstruction, MillingInterpreter, type MillingMove, millingPlaceOn } from '@nuvet/cutter/milling-interpreter';
import { VirtualStock } from '@nuvet/cutter/virtual-stock';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { number } from './random-outlines.ts';

const instructionsOf = (text: string): MillingInstruction[] => {
  const interpreter = new MillingInterpreter();
  return text.split('\n').map((line) => interpreter.read(line));
};
const movesOf = (text: string): MillingMove[] => instructionsOf(text).filter((one): one is MillingMove => one !== null && 'from' in one);

const move = fc.record({
  isRapid: fc.boolean(),
  x: number(0, 200),
  y: number(0, 200),
  z: number(-8, 5),
  sweep: number(-6, 6),
  isArc: fc.boolean(),
});
const runs = fc.array(fc.array(move, { minLength: 2, maxLength: 25 }), { minLength: 1, maxLength: 3 }).map((lists): ProgramRun[] =>
  lists.map((list, k) => ({
    tool: { number: k + 1, name: `Tool ${k + 1}`, speedRpm: 12_000 + 1000 * k },
    comment: `run ${k}`,
    start: { x: 5, y: 5, z: 5 },
    moves: list.map(({ isRapid, x, y, z, sweep, isArc }): Move => {
      const isTurned = isArc && !isRapid && Math.abs(sweep) > 0.05;
      return { isRapid, to: { x, y, z }, sweep: isTurned ? sweep : 0, feedMmPerMin: isRapid ? 0 : 600 };
    }),
  })),
);
const machines = fc.constantFrom<Partial<Machine>>(
  {},
  { unit: 'in' },
  { arcs: 'radius', decimals: 5 },
  { arcs: 'lines' },
  { toolChange: 'stop', lineNumbers: true },
  { toolChange: 'changer', origin: 'centre', comments: 'semicolon' },
  { toolChange: 'changer', retract: 'G28', keepsToolLengths: true },
  { toolChange: 'stop', retract: 'G53' },
);

const same = (a: Place, b: readonly number[]): number => Math.hypot(a.x - (b[0] as number), a.y - (b[1] as number), a.z - (b[2] as number));

describe('milling programs', () => {
  it('200 at random mean the same to the application’s reader and to the other', () => {
    fc.assert(
      fc.property(runs, machines, (list, more) => {
        const options: ProgramOptions = { title: 'Random', machine: { ...plainMachine, ...more }, stock: { minX: 0, minY: 0, maxX: 200, maxY: 200 }, zeroBelowTopMm: 0, safeZ: 5, about: [] }; // biome-ignore format: one line
        const text = writeMillingProgram(list, options);
        const other = movesOf(text).filter(({ feedMmPerMin }) => feedMmPerMin !== null);
        const own = readMillingProgram(text).tools.flatMap(({ start, moves }) => {
          let at = start;
          return moves.flatMap((one) => {
            const from = at;
            at = one.to;
            return one.isRapid ? [] : [{ from, move: one }];
          });
        });
        // Arcs of more than a half turn are read as two.
        let k = 0;
        for (const theirs of other) {
          const parts: { from: Place; move: Move }[] = [];
          do parts.push(own[k++] as (typeof own)[0]);
          while (k < own.length && same((parts.at(-1) as (typeof own)[0]).move.to, theirs.to) > 1e-6);
          expect(same(parts.at(-1)?.move.to as Place, theirs.to)).toBeLessThan(1e-6);
          if (!theirs.arc) continue;
          expect(parts.reduce((sum, { move: { sweep } }) => sum + sweep, 0)).toBeCloseTo(theirs.arc.sweep, 4);
          const [first] = parts as [(typeof own)[0]];
          const middle = chordsOfMove(first.from, first.move, 0.0001);
          const some = middle[Math.floor(middle.length / 2)] as Place;
          const nearest = Math.min(...Array.from({ length: 2001 }, (_, n) => same(some, millingPlaceOn(theirs, n / 2000))));
          expect(nearest).toBeLessThan(0.35);
          const centre = Math.hypot(some.x - theirs.arc.centre[0], some.y - theirs.arc.centre[1]);
          expect(Math.abs(centre - Math.hypot(theirs.from[0] - theirs.arc.centre[0], theirs.from[1] - theirs.arc.centre[1]))).toBeLessThan(
            0.01,
          );
        }
        expect(k).toBe(own.length);
      }),
      { numRuns: 200 },
    );
  });
  const square = (x: number, y: number, w: number, h: number) => rectanglePath({ minX: x, minY: y, maxX: x + w, maxY: y + h });
  const piece = (id: string, purpose: string, outer: Piece['outer'], holes: Piece['holes'] = []): Piece => ({ id, name: id, purpose, outer, holes, leftOut: false }) as Piece; // biome-ignore format: one line
  const mill = millToolSchema.parse({ id: 't', name: 'End mill', kind: 'end mill', diameterMm: 3, speedRpm: 18_000, feedMmPerMin: 900, plungeMmPerMin: 300, stepdownMm: 1.5, stepover: 0.4 }); // biome-ignore format: fields
  const programOf = async (pieces: Piece[], settings: MillingSettings, machine: Machine, stock: Stock) => {
    const plan = finished(millPlan(pieces, settings, machine, stock));
    const made = await processKinds.cnc?.files.gcode?.make({ title: 'Plate', pieces, settings, machine, stock }, plan, { dpi: 200, underlay: null }); // biome-ignore format: one line
    return { plan, text: new TextDecoder().decode(made?.bytes) };
  };

  it.each<[string, Partial<Machine>]>([
    ['arcs by their radius', { arcs: 'radius', decimals: 5 }],
    ['inches, lines alone, a changer and numbered lines', { unit: 'in', decimals: 5, arcs: 'lines', toleranceMm: 0.002, toolChange: 'changer', lineNumbers: true, comments: 'semicolon' }], // biome-ignore format: one line
  ])('of all operations, with %s: as long, as deep and as wide to the other as they were planned', async (_, more) => {
    const bit = { ...mill, id: 'v', name: 'V-bit', kind: 'V-bit' as const, angle: 60, diameterMm: 6 };
    const drill = { ...mill, id: 'd', name: 'Drill', kind: 'drill' as const, angle: 118, diameterMm: 4 };
    const pieces = [
      piece('plate', 'cut', square(15, 15, 70, 50), [
        reversedPath(circlePath({ x: 76, y: 24 }, 4)),
        reversedPath(circlePath({ x: 76, y: 56 }, 2)),
      ]),
      piece('river', 'pocket', square(22, 22, 20, 14)),
      piece('leaf', 'pocket', circlePath({ x: 56, y: 44 }, 6)),
      piece('ring', 'engrave', circlePath({ x: 56, y: 26 }, 5)),
    ];
    const operations = [
      { kind: 'face', id: 'f', tool: 't', depthMm: 0.3 },
      { kind: 'pocket', id: 'k', tool: 't', depthMm: 2, of: 'pocket', pieces: ['river'], pattern: 'spiral', entryAngle: 5 },
      { kind: 'carve', id: 'c', tool: 'v', depthMm: 2, pieces: ['leaf'] },
      { kind: 'follow', id: 'e', tool: 'v', depthMm: 0.4, of: 'engrave' },
      { kind: 'chamfer', id: 'b', tool: 'v', widthMm: 0.6, side: 'outside' },
      { kind: 'holes', id: 'h', tool: 'd', diameterMm: 4, peckMm: 2 },
      { kind: 'profile', id: 'p', tool: 't', leadMm: 2, finishMm: 0 },
    ].map((one) => operationSchema.parse(one)); // biome-ignore format: a table
    const machine: Machine = { ...plainMachine, toolChange: 'stop', ...more };
    const stock = { ...plainStock, thicknessMm: 5, widthMm: 110, heightMm: 90 };
    const { plan, text } = await programOf(pieces, { ...plainMilling, tools: [mill, bit, drill], operations }, machine, stock);
    expect(plan.notes.filter(({ isFailure }) => isFailure)).toEqual([]);
    expect(new Set(plan.runs.map(({ operation }) => operation.kind)).size).toBe(operations.length);
    const read = movesOf(text).filter(({ feedMmPerMin }) => feedMmPerMin !== null);
    // Along chords as fine as hundredths a way is as long as it is to this share.
    const away = (a: readonly number[], b: readonly number[]): number => Math.hypot(...a.map((v, k) => v - (b[k] as number)));
    const lengthOf = (one: MillingMove): number => {
      const count = one.arc ? 200 : 1;
      return Array.from({ length: count }, (_n, k) => away(millingPlaceOn(one, k / count), millingPlaceOn(one, (k + 1) / count))).reduce(
        (a, b) => a + b,
        0,
      );
    };
    const planned = plan.runs.reduce((sum, { lengthMm }) => sum + lengthMm, 0);
    expect(Math.abs(read.reduce((sum, one) => sum + lengthOf(one), 0) / planned - 1)).toBeLessThan(2e-4);
    const places = plan.runs.flatMap(({ moves }) => moves.flatMap(({ isRapid, to }) => (isRapid ? [] : [to])));
    const spanOf = (values: number[]): number => values.reduce((a, b) => Math.max(a, b)) - values.reduce((a, b) => Math.min(a, b));
    for (const [k, axis] of (['x', 'y', 'z'] as const).entries())
      expect(Math.abs(spanOf(read.map(({ to }) => to[k] as number)) - spanOf(places.map((at) => at[axis])))).toBeLessThan(0.002);
    expect(Math.min(...read.map(({ to }) => to[2]))).toBeCloseTo(Math.min(...places.map(({ z }) => z)), 3);
  });
  it('of a plate with a pocket leave the plate, its hole and its floor, by the other’s own reckoning', async () => {
    const pieces = [
      piece('plate', 'cut', square(15, 15, 50, 30), [reversedPath(circlePath({ x: 56, y: 30 }, 4))]),
      piece('river', 'pocket', square(22, 22, 24, 14)),
    ];
    const settings = { ...plainMilling, tools: [mill], pocketDepthMm: 2.5 };
    const { text } = await programOf(pieces, settings, plainMachine, { ...plainStock, thicknessMm: 5, widthMm: 80, heightMm: 60 });
    const virtual = new VirtualStock(80, 60, 0.2);
    const edge = (away: number): number => (away <= 1.5 ? profileOf(mill)(away) : Number.NaN);
    for (const one of movesOf(text)) virtual.mill(one, edge, 1.5);
    let [touched, standing, shallow] = [0, 0, 0];
    for (let x = 0.1; x < 80; x += 0.2)
      for (let y = 0.1; y < 60; y += 0.2) {
        // The plate's box lies in the middle of the stock.
        const isPlate = x > 15.1 && x < 64.9 && y > 15.1 && y < 44.9;
        const inHole = Math.hypot(x - 56, y - 30);
        const inRiver = x > 22 && x < 46 && y > 22 && y < 36;
        const z = virtual.at(x, y);
        if (isPlate && !inRiver && inHole > 4.1 && z < -1e-6) touched++;
        if (inRiver && x > 22.6 && x < 45.4 && y > 22.6 && y < 35.4 && Math.abs(z + 2.5) > 1e-3) shallow++;
        if (inHole < 3.9 && inHole > 1.2 && z > -5) standing++;
      }
    expect([touched, standing, shallow]).toEqual([0, 0, 0]);
  });
});
