/** Programs as they are written and read: words, units, arcs three ways, cycles, what cannot be read. */
import { describe, expect, it } from 'vitest';
import { plainMachine } from '../job/index.ts';
import { chordsOfMove, type Move, type Place } from '../milling/index.ts';
import { type ProgramOptions, type ProgramRun, writeMillingProgram } from './milling-program.ts';
import { readMillingProgram } from './milling-reading.ts';

const cut = (x: number, y: number, z: number, sweep = 0): Move => ({ isRapid: false, to: { x, y, z }, sweep, feedMmPerMin: 900 });
const rapid = (x: number, y: number, z: number): Move => ({ isRapid: true, to: { x, y, z }, sweep: 0, feedMmPerMin: 0 });
const tool = { number: 2, name: 'End mill', speedRpm: 18_000 };
const run: ProgramRun = {
  tool,
  comment: 'Pocket: River (1)',
  start: { x: 10, y: 10, z: 5 },
  moves: [
    rapid(10, 10, 0.5),
    cut(10, 10, -1),
    cut(30, 10, -1),
    cut(30, 20, -2, Math.PI),
    cut(10, 20, -2),
    cut(10, 10, -2, 4.5),
    rapid(10, 10, 5),
  ],
};
const options = (more: Partial<typeof plainMachine> = {}): ProgramOptions => ({
  title: 'River',
  machine: { ...plainMachine, ...more },
  stock: { minX: 0, minY: 0, maxX: 60, maxY: 40 },
  zeroBelowTopMm: 0,
  safeZ: 5,
  about: [],
});
const placesOf = (start: Place, moves: readonly Move[]): Place[] => {
  let at = start;
  return moves.flatMap((move) => {
    const places = chordsOfMove(at, move, 0.001);
    at = move.to;
    return move.isRapid ? [] : places;
  });
};
/** How far the places of one list lie from the way of the other at most. */
const off = (a: readonly Place[], b: readonly Place[]): number =>
  Math.max(
    ...a.map((p) =>
      Math.min(
        ...b.slice(1).map((q, k) => {
          const o = b[k] as Place;
          const d = [q.x - o.x, q.y - o.y, q.z - o.z] as const;
          const square = d[0] ** 2 + d[1] ** 2 + d[2] ** 2;
          const t = square > 0 ? Math.min(1, Math.max(0, ((p.x - o.x) * d[0] + (p.y - o.y) * d[1] + (p.z - o.z) * d[2]) / square)) : 0;
          return Math.hypot(o.x + t * d[0] - p.x, o.y + t * d[1] - p.y, o.z + t * d[2] - p.z);
        }),
      ),
    ),
  );

describe('a milling program', () => {
  it.each([
    [{}],
    [{ arcs: 'radius' as const }],
    [{ arcs: 'lines' as const, toleranceMm: 0.001 }],
    [{ unit: 'in' as const }],
    [{ decimals: 3, lineNumbers: true, comments: 'semicolon' as const }],
    [{ y: 'down' as const }],
  ])('%j: says what was planned', (more) => {
    const text = writeMillingProgram([run], options(more));
    const [read, ...others] = readMillingProgram(text).tools;
    expect(others).toEqual([]);
    const up = (more as { y?: string }).y === 'down' ? -1 : 1;
    const back = (read?.moves ?? []).map((move) => ({ ...move, to: { ...move.to, y: up * move.to.y }, sweep: up * move.sweep }));
    const [planned, found] = [placesOf(run.start, run.moves), placesOf(run.start, back)];
    expect(off(planned, found)).toBeLessThan(0.003);
    expect(off(found, planned)).toBeLessThan(0.003);
    expect(found.at(-1)?.z).toBeCloseTo(-2, 3);
  });
  it('has its zero where the machine has it', () => {
    const first = (more: object, extra: object = {}): Place | undefined =>
      readMillingProgram(writeMillingProgram([run], { ...options(more), ...extra })).tools[0]?.moves.find(({ isRapid }) => !isRapid)?.to;
    expect(first({})).toEqual({ x: 10, y: 10, z: -1 });
    expect(first({ origin: 'centre' })).toEqual({ x: -20, y: -10, z: -1 });
    expect(first({}, { zeroBelowTopMm: 6 })).toEqual({ x: 10, y: 10, z: 5 });
  });
  it('stops for the next tool with its name, or calls the changer', () => {
    const other = { ...run, tool: { number: 1, name: 'V-bit', speedRpm: 16_000 } };
    // Home and back, and the tool's length, as the machine wants them.
    const homed = writeMillingProgram([run, other], options({ toolChange: 'changer', retract: 'G28', keepsToolLengths: true }));
    expect(homed).toMatch(/G91 G28 Z0\nG90\nM5[\s\S]*T1 M6\nG43 H1\n[\s\S]*G91 G28 Z0\nG90\nM5\nM2/);
    expect(writeMillingProgram([run, other], options({ toolChange: 'stop', retract: 'G53' }))).toMatch(
      /G53 G0 Z0\nM5[\s\S]*M0[\s\S]*G53 G0 Z0\nM5\nM2/,
    );
    const stopped = writeMillingProgram([run, other], options({ toolChange: 'stop' }));
    expect(stopped).toMatch(/M5\n\(Tool 1: V-bit\)\n\(Change to V-bit[^)]*\)\nM0\nS16000 M3/);
    expect(writeMillingProgram([run, other], options({ toolChange: 'changer' }))).toMatch(/T2 M6[\s\S]*T1 M6/);
    expect(readMillingProgram(stopped).tools.map(({ speedRpm }) => speedRpm)).toEqual([18_000, 16_000]);
  });
  it('keeps the spindle and the feed within what the machine has, and says the lines that stand before and after', () => {
    const text = writeMillingProgram(
      [run],
      options({ spindleMaxRpm: 12_000, maxFeedMmPerMin: 600, textBefore: ['M8'], textAfter: ['M9', 'G28'] }),
    );
    expect(text).toContain('S12000 M3');
    expect(text).toContain('F600');
    expect(text).not.toContain('F900');
    expect(text).toMatch(/G54\nM8\n[\s\S]*M9\nG28\nM2\n$/);
  });
});

describe('a program from elsewhere', () => {
  const movesOf = (text: string): readonly Move[] => readMillingProgram(text).tools.flatMap(({ moves }) => moves);
  it('a whole circle, and arcs by radius: the longer way below zero', () => {
    const [, , a, b] = movesOf('G21 G90\nG0 X10 Y0 Z5\nG1 Z-1 F300\nG2 X10 Y0 I-10 J0\nM2');
    expect((a?.sweep ?? 0) + (b?.sweep ?? 0)).toBeCloseTo(-2 * Math.PI, 9);
    const sweeps = (r: string): number =>
      movesOf(`G0 X10 Y0 Z1\nG1 Z0 F100\nG3 X0 Y10 R${r}\nM2`)
        .slice(2)
        .reduce((sum, { sweep }) => sum + sweep, 0);
    expect(sweeps('10')).toBeCloseTo(Math.PI / 2, 9);
    expect(sweeps('-10')).toBeCloseTo((3 * Math.PI) / 2, 9);
  });
  it('a cycle of pecks comes up after each, and goes on to the next hole', () => {
    const moves = movesOf('G90 G0 X0 Y0 Z10\nG99 G83 X5 Y5 Z-6 R1 Q2 F100\nX15\nG80\nM30');
    const deepest = moves.filter(({ isRapid }) => !isRapid).map(({ to }) => [to.x, to.z]);
    expect(deepest).toEqual([[5, -1], [5, -3], [5, -5], [5, -6], [15, -1], [15, -3], [15, -5], [15, -6]]); // biome-ignore format: one line
    expect(moves.filter(({ isRapid, to }) => isRapid && to.z === 1).length).toBeGreaterThanOrEqual(8);
  });
  it('inches, distances from where it is, home by way of a place, and what is passed over', () => {
    const read = readMillingProgram('G20 G90 G0 X1 Y0 Z1\nG91 G1 X1 Z-1 F10\nG90 G28 Z2\nM101\nM2');
    const [to] = read.tools[0]?.moves.filter(({ isRapid }) => !isRapid) ?? [];
    expect(to?.to).toEqual({ x: 50.8, y: 0, z: 0 });
    expect(read.tools[0]?.moves.at(-1)?.to.z).toBeGreaterThanOrEqual(50);
    expect(read.notes).toEqual(['M101 on line 4 means nothing here, and was passed over.']);
  });
  it.each([
    ['G0 X1 Y1 Z1\nG1 X5', 'without a feed'],
    ['X5 Y5', 'no motion'],
    ['G0 X0 Y0 Z0\nG2 X10 Y0 I3 J0 F100', 'off its circle'],
    ['G0 X0 Y0 Z0\nG18 G2 X10 Z0 I5 K0 F100', 'xy plane'],
    ['#1=5\nG0 X#1', 'cannot be read'],
    ['G0 X0 Y0 Z0\nG41 D1', 'G41 is not known'],
    ['G0 X0 Y0 Z0\nG81 X5 F100', 'needs R and Z'],
    ['hello there', 'words of a letter and a number'],
  ])('%s is refused with its line', (text, said) => {
    expect(() => readMillingProgram(text)).toThrow(said);
    expect(() => readMillingProgram(text)).toThrow(/^Line \d/);
  });
});
