import { connect } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Refused } from './interpreter.ts';
import { cutterService } from './service.ts';
import { WireWork } from './wire-work.ts';

const setUp = { betweenMm: 600, toBlockMm: 100, spanMm: 400, axes: ['U', 'V'] as [string, string], burnMm: 0.5, burnMm2PerMin: 60, fastestMmPerMin: 1000 }; // biome-ignore format: one line
/** Round a square of 100 at the left tower and of 60 at the right one, in even time. */
const square = (feed: string): string[] => [
  'G21 G90 G17',
  'G0 X-20 Y0 U-20 V0',
  'M3',
  'G93',
  `G1 X0 Y0 U0 V0 F${feed}`,
  `G1 X100 Y0 U60 V0 F${feed}`,
  `G1 X100 Y100 U60 V60 F${feed}`,
  `G1 X0 Y100 U0 V60 F${feed}`,
  `G1 X0 Y0 U0 V0 F${feed}`,
  'M5',
  'M2',
];

describe('the hot wire', () => {
  it('takes its time: a move whose inverse time is 2 takes half a minute', () => {
    const work = new WireWork(setUp);
    for (const line of square('2').slice(0, 5)) {
      work.read(line);
      while (!work.isIdle && line.startsWith('G0')) work.pass(0.05);
    }
    work.pass(29);
    expect(work.isIdle).toBe(false);
    work.pass(1.1);
    expect(work.isIdle).toBe(true);
    expect(work.state()).toMatchObject({ x: 0, y: 0, wire: 'hot' });
    expect(work.stretches(0).map(({ points }) => points)).toEqual([[{ x: -20, y: 0 }, { x: 0, y: 0 }]]); // biome-ignore format: places in a row
  });
  it('melts wider where it is slow, and measures both faces and half-way between', () => {
    const work = new WireWork(setUp);
    for (const line of square('2')) {
      work.read(line);
      for (let k = 0; !work.isIdle && k < 10_000; k++) work.pass(0.05);
    }
    // At the block's left face the square is 100 - 40 / 6 on a side, gone along in half a minute; it is cut half the burn smaller.
    const side = (share: number): number => 100 - (40 * (100 + share * 400)) / 600;
    const half = (share: number): number => (0.5 + (60 * 0.5) / side(share)) / 2;
    const face = (share: number): [number, number][] => [0.3, 0.5, 0.7].map((t) => [t * side(share), half(share)]);
    const measured = (left: [number, number][], right: [number, number][]) => JSON.parse((work.command('measure', JSON.stringify({ left, right })) as string).slice('measured '.length)); // biome-ignore format: one line
    const { leftOffMm, rightOffMm, fastestMmPerMin } = measured(face(0), face(1));
    expect([leftOffMm, rightOffMm]).toEqual([expect.closeTo(0, 6), expect.closeTo(0, 6)]);
    expect(fastestMmPerMin).toBeCloseTo(200, 6);
    expect(measured([[50, half(0) + 0.3]], [[30, half(1)]]).leftOffMm).toBeCloseTo(0.3, 6);
  });
  it.each([
    ['G1 X10 Y0 U10 V0', /a cut needs a feed/],
    ['G1 X900 Y0 U900 V0 F100', /a tower cannot go/],
    ['G1 X1 Y1 A3 F0.1', /no axis A/],
    ['G2 X1 Y1 F0.1', /G2 means nothing/],
  ])('refuses “%s”', (line, why) => {
    const work = new WireWork(setUp);
    for (const before of ['G0 X0 Y0 U0 V0', 'M3', 'G93']) work.read(before);
    expect(() => work.read(line)).toThrow(Refused);
    expect(() => new WireWork(setUp).command('measure', '{"left":[[0,0]],"right":[]}')).toThrow(/faces are not understood/);
    expect(() => {
      const again = new WireWork(setUp);
      for (const before of ['G0 X0 Y0 U0 V0', 'M3', 'G93', line]) again.read(before);
    }).toThrow(why);
  });
});

describe('the service', () => {
  const server = cutterService();
  let port = 0;
  beforeAll(() => new Promise<void>((done) => void server.listen(0, '127.0.0.1', () => { port = (server.address() as { port: number }).port; done(); }))); // biome-ignore format: one line
  afterAll(() => void server.close());
  it('becomes a wire’s: a program is streamed to it, it ends, and tells what is left', async () => {
    const socket = connect(port, '127.0.0.1');
    const heard: string[] = [];
    const ended = new Promise<string>((done) => {
      let rest = '';
      socket.on('data', (part) => {
        const lines = (rest + part).split('\n');
        rest = lines.pop() ?? '';
        for (const line of lines) {
          heard.push(line);
          if (line === 'end') socket.write('@measure {"left":[[50,0]],"right":[[30,0]]}\n');
          if (line.startsWith('measured')) done(line);
        }
      });
    });
    for (const line of [`@wire ${JSON.stringify(setUp)}`, '@time 1000', ...square('8')]) socket.write(`${line}\n`);
    const { leftOffMm } = JSON.parse((await ended).slice('measured '.length));
    socket.destroy();
    expect(heard).toContain('wire');
    expect(heard.filter((line) => line.startsWith('ok'))).toHaveLength(square('8').length);
    // A place in the middle of what was melted lies half the burn within it.
    expect(leftOffMm).toBeCloseTo((0.5 + (60 * 0.125) / (100 - 40 / 6)) / 2, 2);
    const bad = connect(port, '127.0.0.1');
    const said = await new Promise<string>((done) => {
      bad.on('data', (part) => String(part).includes('error') && done(String(part)));
      bad.write('@wire {"betweenMm":-1}\n');
    });
    bad.destroy();
    expect(said).toMatch(/the towers and the block are not understood/);
  });
});
