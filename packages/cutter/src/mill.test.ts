/** The mill that stands in: conversations with the service, and what its stock looks like afterwards. */
import { type AddressInfo, connect, type Server, type Socket } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import type { MillSetUp } from './mill.ts';
import { type MilledMeasured, milledMeasured } from './milled-measured.ts';
import { cutterService } from './service.ts';
import { edgeOf, type Tool } from './tool-edge.ts';
import { VirtualStock } from './virtual-stock.ts';

const flat: Tool = { number: 1, kind: 'end mill', diameterMm: 4, tipMm: 0, angle: null };
const bit: Tool = { number: 2, kind: 'V-bit', diameterMm: 6, tipMm: 0, angle: 60 };
const setUp: MillSetUp = { widthMm: 60, heightMm: 40, thicknessMm: 6, zero: { x: 0, y: 0, z: 0 }, y: 'up', tools: [flat, bit] };

let service: Server | null = null;
let socket: Socket | null = null;
afterEach(() => {
  socket?.destroy();
  service?.close();
});

/** A connection: lines are said, and answers waited for. */
async function mill(more: Partial<MillSetUp> = {}) {
  const open = cutterService();
  service = open;
  await new Promise<void>((resolve) => open.listen(0, '127.0.0.1', resolve));
  const line = connect((open.address() as AddressInfo).port, '127.0.0.1');
  socket = line;
  const said: string[] = [];
  let heard = (): void => {};
  let rest = '';
  line.on('data', (part) => {
    rest += part;
    const parts = rest.split('\n');
    rest = parts.pop() ?? '';
    said.push(...parts);
    heard();
  });
  const say = (...lines: string[]): unknown => line.write(`${lines.join('\n')}\n`);
  /** The next answer that begins with a word, from now on. */
  const answer = async (word: string): Promise<string> => {
    for (;;) {
      const at = said.findIndex((one) => one.startsWith(word));
      if (at >= 0) return said.splice(0, at + 1).at(-1) as string;
      await new Promise<void>((resolve) => {
        heard = resolve;
      });
    }
  };
  const state = async (): Promise<Record<string, unknown>> => {
    say('@state');
    return JSON.parse((await answer('state')).slice(6));
  };
  say(`@mill ${JSON.stringify({ ...setUp, ...more })}`, '@time 2000', '@tool 1');
  await answer('tool');
  return { say, answer, state };
}

/** Round a rectangle at a depth, climbing. */
const round = (x: number, y: number, w: number, h: number, z: number): string[] => [
  `G0 X${x} Y${y} Z2`,
  `G1 Z${z} F300`,
  `G1 X${x + w} F900`,
  `G1 Y${y + h}`,
  `G1 X${x}`,
  `G1 Y${y}`,
  'G0 Z5',
];

describe('the mill', () => {
  it('cuts a plate right through, says the end, and measures it by itself', async () => {
    const { say, answer } = await mill();
    say('G21 G90 S9000 M3', ...[-2, -4, -6.3].flatMap((z) => round(8, 8, 44, 24, z)), 'M5', 'M2');
    await answer('end');
    const plate = [10, 10, 50, 10, 50, 30, 10, 30];
    say(`@measure ${JSON.stringify({ parts: [{ name: 'Plate', rings: [plate] }], taken: [], lines: [] })}`);
    const measured = JSON.parse((await answer('measured')).slice(9)) as MilledMeasured;
    expect(measured.gougedMm2).toBe(0);
    expect(measured.edges[0]?.cutShare).toBe(1);
    expect(Math.abs(measured.edges[0]?.offMm ?? 1)).toBeLessThan(0.026);
  });
  it('waits for a tool to be changed by hand, and goes on with it once that is acknowledged', async () => {
    const { say, answer, state } = await mill();
    say('G21 G90 S9000 M3', 'G0 X20 Y20 Z5', 'G1 Z-1 F300', 'G0 Z5', 'M5', '(Change to the V-bit)', 'M0', 'S9000 M3', 'G0 X40 Y20', 'G1 Z-2', 'G0 Z5', 'M2'); // biome-ignore format: a program
    expect(await answer('prompt')).toBe('prompt Change to the V-bit');
    expect(await state()).toMatchObject({ status: 'waiting', prompt: 'Change to the V-bit', tool: 1 });
    say('@tool 2', '@acknowledge');
    await answer('end');
    expect(await state()).toMatchObject({ status: 'idle', tool: 2, z: 5, ended: true });
    // A cone of 60 degrees 2 mm deep is 2 tan 30 wide at the top, each way.
    say(`@measure ${JSON.stringify({ parts: [{ name: 'a', rings: [[30, 10, 50, 10, 50, 30, 30, 30]] }], taken: [], lines: [] })}`);
    const { gougedMm2, deepestMm, gougedAt } = JSON.parse((await answer('measured')).slice(9)) as MilledMeasured;
    expect(Math.abs(gougedMm2 / (Math.PI * (2 * Math.tan(Math.PI / 6)) ** 2) - 1)).toBeLessThan(0.06);
    expect(deepestMm).toBeGreaterThan(1.8);
    expect(Math.hypot((gougedAt?.[0] ?? 0) - 40, (gougedAt?.[1] ?? 0) - 20)).toBeLessThan(0.15);
  });
  it('a changer takes its tools by itself, once it stands', async () => {
    const { say, answer, state } = await mill();
    say('G21 G90 S9000 M3', 'G0 X20 Y20 Z5', 'G1 Z-1 F300', 'G0 Z5', 'T2 M6', 'M2');
    await answer('end');
    expect(await state()).toMatchObject({ tool: 2 });
  });
  it('probes down until the tool touches, and counts on from there', async () => {
    const { say, answer, state } = await mill({ zero: { x: 0, y: 0, z: -6 } });
    // From the bed the top of the stock is 6 mm up.
    say('G21 G90', 'G0 X20 Y20 Z10', 'G38.2 Z-1 F100', 'G91 G0 Z3', 'M2');
    expect(await answer('probed')).toBe('probed 20 20 6');
    await answer('end');
    expect(await state()).toMatchObject({ z: 9 });
    say('@program', 'G21 G90', 'G0 X20 Y20 Z10', 'G38.2 Z8 F100');
    expect(await answer('alarm')).toMatch(/touched nothing/);
  });
  it('several programs go one after another over the same stock', async () => {
    const { say, answer } = await mill();
    for (const x of [15, 30]) {
      say('@program', 'G21 G90 S9000 M3', `G0 X${x} Y20 Z5`, 'G1 Z-1.5 F300', 'G0 Z5', 'M2');
      await answer('end');
    }
    say(`@measure ${JSON.stringify({ parts: [{ name: 'a', rings: [[0, 0, 60, 0, 60, 40, 0, 40]] }], taken: [], lines: [] })}`);
    const { gougedMm2 } = JSON.parse((await answer('measured')).slice(9)) as MilledMeasured;
    expect(Math.abs(gougedMm2 / (2 * Math.PI * 4) - 1)).toBeLessThan(0.03);
  });
  it.each([
    ['a rapid through stock', ['S9000 M3', 'G0 X20 Y20 Z5', 'G1 Z-2 F300', 'G0 X40'], /alarm 4 a rapid move ran into the stock/],
    ['a tool that does not turn', ['G0 X20 Y20 Z5', 'G1 Z-2 F300'], /alarm 2 the tool cuts and does not turn/],
    ['a place beside the bed', ['G0 X2000 Y20'], /alarm 1 it leads to .* off the bed/],
    ['a place too high', ['G0 Z300'], /alarm 1 .*higher than the mill reaches/],
    ['a place under the board', ['G1 Z-30 F100'], /alarm 1 .*through the board/],
    ['a tool that is not there', ['T7 M6'], /alarm 1 there is no tool 7/],
  ])('%s is an alarm that names the line; reset, it takes programs again', async (_, lines, alarm) => {
    const { say, answer, state } = await mill();
    say(...lines);
    expect(await answer('alarm')).toMatch(alarm);
    expect(await state()).toMatchObject({ status: 'alarm' });
    say('@stop', 'G21 G90', 'G0 Z20', 'M2');
    await answer('end');
    expect(await state()).toMatchObject({ status: 'idle', z: 20 });
  });
  it('goes slower and faster as it is told, holds, and goes on', async () => {
    const { say, answer, state } = await mill();
    say('@time 1', '@feed 500');
    expect(await answer('feed')).toBe('feed 200');
    say('@feed 50', 'G21 G90 S9000 M3', 'G0 Z1', 'G1 Z-1 F6000', 'G1 X50 F6000');
    await answer('ok 4');
    say('@pause');
    for (;;) if ((await state()).status === 'paused') break;
    const before = await state();
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect((await state()).x).toBe(before.x);
    expect(before).toMatchObject({ feed: 50 });
    say('@time 500', '@resume', 'G0 Z5', 'M2');
    await answer('end');
    expect(await state()).toMatchObject({ x: 50 });
  });
  it('waits for what it does not understand to be said better', async () => {
    const { say, answer } = await mill();
    say('@mill {"widthMm":-3}');
    expect(await answer('error')).toMatch(/not understood/);
    say('@measure {}');
    expect(await answer('error')).toMatch(/not understood/);
    say('@feeds 3');
    expect(await answer('error')).toMatch(/not known/);
    // A sheet has no programs one after another: what it is at goes on.
    say('@sheet', '@time 1', 'M3 S9 G1 X50 F600', '@program');
    expect(await answer('error')).toMatch(/not known/);
    say('@state');
    expect(await answer('state')).toMatch(/"status":"running"/);
  });
});

describe('a tool’s edge', () => {
  it.each<[Tool, number, number]>([
    [flat, 1.9, 0],
    [{ ...flat, kind: 'ball' }, 2, 2],
    [bit, 1, 1 / Math.tan(Math.PI / 6)],
    [{ ...bit, tipMm: 1 }, 1, 0.5 / Math.tan(Math.PI / 6)],
    [{ ...flat, kind: 'drill', angle: 118 }, 2, 2 / Math.tan((59 * Math.PI) / 180)],
  ])('%o is as high as its form says', (tool, away, height) => {
    expect(edgeOf(tool)(away)).toBeCloseTo(height, 9);
    expect(edgeOf(tool)(tool.diameterMm / 2 + 1e-6)).toBeNaN();
  });
  it('of a tapered tool goes from its ball into its flank without a step or a corner', () => {
    const edge = edgeOf({ ...flat, kind: 'tapered', tipMm: 1, angle: 20 });
    const joint = 0.5 * Math.cos((10 * Math.PI) / 180);
    expect(edge(joint + 1e-7)).toBeCloseTo(edge(joint - 1e-7), 5);
    const slope = (from: number): number => (edge(from + 1e-6) - edge(from)) / 1e-6;
    expect(slope(joint + 1e-5)).toBeCloseTo(slope(joint - 1e-4), 1);
  });
});

describe('milled stock, measured', () => {
  it('tells a floor that is too deep, what is left on it, and an edge that is off', () => {
    const stock = new VirtualStock(40, 30, 0.1);
    const edge = edgeOf(flat);
    // A pocket of 12 x 10 that lacks a strip, 0.1 mm too deep; a plate cut 0.3 mm too large.
    for (let x = 16; x <= 22; x += 0.05) for (let y = 12; y <= 18; y += 0.5) stock.plunge(x, y, -2.1, edge, 2);
    for (let x = 2.7; x <= 37.3; x += 0.05) for (const y of [2.7, 27.3]) stock.plunge(x, y, -6.3, edge, 2);
    const { floors, edges, gougedMm2 } = milledMeasured(stock, 6, {
      parts: [{ name: 'Plate', rings: [[5, 5, 35, 5, 35, 25, 5, 25]] }],
      taken: [{ name: 'Bay', rings: [[14, 10, 26, 10, 26, 20, 14, 20]], depthMm: 2, isFloor: true }],
      lines: [],
    });
    expect(gougedMm2).toBe(0);
    expect(floors[0]?.worstMm).toBeCloseTo(0.1, 6);
    expect(floors[0]?.leftMm2).toBeGreaterThan(15);
    expect(floors[0]?.leftMm2).toBeLessThan(22);
    // Cut along two of four sides, 0.3 mm out.
    expect(edges[0]?.offMm).toBeCloseTo(0.3, 1);
    expect(edges[0]?.cutShare).toBeCloseTo(0.6, 1);
  });
  it('holds a floor against what lies deepest over it, and beside what is cut out against nothing', () => {
    const stock = new VirtualStock(40, 30, 0.1);
    const edge = edgeOf(flat);
    const whole = [0, 0, 40, 0, 40, 30, 0, 30];
    for (let k = 0; k < stock.tops.length; k++) stock.tops[k] = -0.5;
    for (let x = 16; x <= 24; x += 0.05) for (let y = 13; y <= 17; y += 0.5) stock.plunge(x, y, -2, edge, 2);
    for (let x = 3; x <= 37; x += 0.05) for (const y of [3, 27]) stock.plunge(x, y, -6.3, edge, 2);
    const outlines = {
      parts: [{ name: 'Plate', rings: [[5, 5, 35, 5, 35, 25, 5, 25]] }],
      taken: [
        { name: 'Face', rings: [whole], depthMm: 0.5, isFloor: true },
        { name: 'Bay', rings: [[14, 11, 26, 11, 26, 19, 14, 19]], depthMm: 2, isFloor: true },
      ],
      lines: [{ points: [30, 8, 30, 22], besideMm: 1 }],
    };
    for (let y = 8; y <= 22; y += 0.05) stock.plunge(30, y, -1.2, edgeOf(bit), 3);
    const { floors, gougedMm2 } = milledMeasured(stock, 6, outlines);
    expect(gougedMm2).toBe(0);
    for (const { worstMm } of floors) expect(worstMm).toBeLessThan(1e-9);
    // A hole in the face that nothing asks for is told.
    stock.plunge(10, 20, -1.5, edge, 2);
    expect(milledMeasured(stock, 6, outlines).floors[0]?.worstMm).toBeCloseTo(1, 6);
  });
});
