import { type AddressInfo, connect, type Server } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { type Instruction, Interpreter, type Move, moveLength, placeOn } from './interpreter.ts';
import { Machine } from './machine.ts';
import { cutterService } from './service.ts';

const facts = { widthMm: 300, heightMm: 200, travelMmPerMin: 6000, accelerationMmPerS2: 500 };
const movesOf = (text: string): Move[] => {
  const interpreter = new Interpreter();
  return text.split('\n').flatMap((line) => {
    const instruction: Instruction = interpreter.read(line);
    return instruction && 'from' in instruction ? [instruction] : [];
  });
};

describe('the interpreter', () => {
  it('reads the words of the published examples: any order, spaces within, comments', () => {
    const [a, b] = movesOf('g21 g0x +0. 12 34y 7 (a comment)\nM4 S5\nF100 Y2 G1 X1');
    expect(a?.to).toEqual({ x: 0.1234, y: 7 });
    expect(b).toMatchObject({ to: { x: 1, y: 2 }, feedMmPerMin: 100, burns: true });
  });
  it('takes inches, distances from where it is, and arcs both ways', () => {
    const [a, b, c, d] = movesOf('G20 G0 X1 Y0\nG91 G0 X1\nG90 G21 F60 G3 X50.8 Y20 I0 J10\nG2 X50.8 Y0 I0 J-10');
    expect(a?.to.x).toBeCloseTo(25.4, 9);
    expect(b?.to.x).toBeCloseTo(50.8, 9);
    expect(c?.arc?.sweep).toBeCloseTo(Math.PI, 9);
    expect(placeOn(c as Move, 0.5).x).toBeCloseTo(60.8, 9);
    expect(d?.arc?.sweep).toBeCloseTo(-Math.PI, 9);
    expect(moveLength(c as Move)).toBeCloseTo(10 * Math.PI, 9);
  });
  it('an arc that ends where it begins is a whole circle', () => {
    const [, circle] = movesOf('G0 X10 Y0\nF60 G2 X10 Y0 I-10 J0');
    expect(moveLength(circle as Move)).toBeCloseTo(20 * Math.PI, 9);
  });
  it.each([
    ['G1 X1', 'feed'],
    ['X1', 'motion'],
    ['G0 G1 X1', 'group'],
    ['G0 X1 X2', 'twice'],
    ['F60 G2 X10 Y0 I3 J0', 'misses'],
    ['F60 G2 X10 Y0', 'I or J'],
    ['G5.1 X1', 'G5.1'],
    ['hello', 'word'],
    ['G0 X1 (open', 'comment'],
  ])('refuses “%s” in plain words', (line, word) => {
    expect(() => new Interpreter().read(line)).toThrow(word);
  });
});

describe('the machine', () => {
  it('takes as long as the trapezoid says, and burns what it was told', () => {
    const machine = new Machine(facts);
    for (const move of movesOf('M3 S9 F3000 G1 X100 Y0')) machine.take(move);
    // 100 mm at 50 mm/s with 500 mm/s²: 2.1 s.
    machine.pass(2.05);
    expect(machine.isIdle).toBe(false);
    machine.pass(0.07);
    expect(machine.isIdle).toBe(true);
    expect(machine.burns).toHaveLength(1);
    expect(machine.burns[0]?.points.at(-1)).toEqual({ x: 100, y: 0 });
  });
  it('slows down for corners and stops, so that it never needs to brake harder than it can', () => {
    const machine = new Machine(facts);
    for (const move of movesOf('M3 S9 F6000 G1 X20 Y0\nG1 X20 Y20\nG1 X0 Y20')) machine.take(move);
    let [before, speed] = [machine.at, 0];
    for (let k = 0; k < 4000 && !machine.isIdle; k++) {
      machine.pass(0.002);
      const now = Math.hypot(machine.at.x - before.x, machine.at.y - before.y) / 0.002;
      // A corner within the step shortens its chord; apart from that speeds change by a dt at most.
      if (now < speed) expect(speed - now).toBeLessThan(500 * 0.002 * 3 + 8);
      [before, speed] = [machine.at, now];
    }
    expect(machine.isIdle).toBe(true);
  });
  it('refuses what leads off the bed, also in the middle of an arc', () => {
    const machine = new Machine(facts);
    const [, arc] = movesOf('G0 X290 Y50\nF60 G3 X290 Y90 I0 J20');
    expect(machine.refusal(arc as Move)).toMatch(/off the bed/);
  });
  it('stands when slowed down and goes on from there', () => {
    const machine = new Machine(facts);
    for (const move of movesOf('M3 S9 F3000 G1 X100 Y0')) machine.take(move);
    machine.pass(1);
    for (let k = 0; k < 100 && !machine.slow(0.01); k++);
    const { x } = machine.at;
    expect(x).toBeGreaterThan(47);
    expect(x).toBeLessThan(52);
    machine.pass(3);
    expect(machine.at).toEqual({ x: 100, y: 0 });
    expect(machine.burns).toHaveLength(1);
  });
});

let open: Server | null = null;
afterEach(() => open?.close());

/** @param late lines written once the machine is said to stand idle */
async function talk(lines: string[], until: (said: string[]) => boolean, late: string[] = []): Promise<string[]> {
  const service = cutterService(facts);
  open = service;
  await new Promise<void>((resolve) => service.listen(0, '127.0.0.1', resolve));
  const socket = connect((service.address() as AddressInfo).port, '127.0.0.1');
  const said: string[] = [];
  let patience: NodeJS.Timeout | undefined;
  await new Promise<void>((resolve, reject) => {
    let rest = '';
    socket.on('data', (part) => {
      rest += part;
      const parts = rest.split('\n');
      rest = parts.pop() ?? '';
      said.push(...parts);
      if (until(said)) resolve();
      if (late.length === 0) return;
      if (said.at(-1)?.includes('"status":"idle"')) socket.write(`${late.splice(0).join('\n')}\n`);
      else socket.write('@state\n');
    });
    socket.on('error', reject);
    patience = setTimeout(() => reject(new Error(`no end: ${said.slice(-5).join(' | ')}`)), 40_000);
    socket.write(`${lines.join('\n')}\n`);
  });
  clearTimeout(patience);
  socket.destroy();
  return said;
}

describe('the service', () => {
  it('answers each line with an ok and says when the program ends', async () => {
    const said = await talk(['@time 500', 'G21', 'G90', 'M3 S500', 'G1 X10 Y0 F600', 'G1 X10 Y10', 'M5', 'M2'], (s) => s.includes('end'));
    expect(said[0]).toMatch(/^hello /);
    expect(said.filter((s) => s.startsWith('ok'))).toEqual(['ok 1', 'ok 2', 'ok 3', 'ok 4', 'ok 5', 'ok 6', 'ok 7']);
  });
  it('says so too where the end comes after the head has come to a stand, or nothing moves at all', async () => {
    const said = await talk(['@time 5000', 'G21', 'F600 G1 X10 Y0'], (s) => s.includes('end'), ['M5', 'M2']);
    expect(said.filter((s) => s.startsWith('ok'))).toHaveLength(4);
    expect(await talk(['G21', 'M2'], (s) => s.includes('end'))).toContain('end');
  });
  it('holds its ok back while the queue is full', async () => {
    const lines = Array.from({ length: 60 }, (_, k) => `G1 X${(k % 2) * 100 + 5} Y5 F600`);
    const said = await talk(['M3 S1', ...lines, '@state'], (s) => s.some((l) => l.startsWith('state')));
    expect(said.filter((s) => s.startsWith('ok')).length).toBeLessThan(50);
  });
  it('stands with an alarm that names the line, and takes nothing more until it is cleared', async () => {
    const said = await talk(['G21', 'G0 X10 Y10', 'G1 X20 Y20', 'G0 X0 Y0', '@state'], (s) => s.some((l) => l.startsWith('state')));
    expect(said.find((s) => s.startsWith('alarm'))).toMatch(/^alarm 3 .*feed/);
    expect(said.filter((s) => s.startsWith('ok'))).toHaveLength(2);
    expect(JSON.parse((said.at(-1) as string).slice(6))).toMatchObject({ status: 'alarm' });
  });
});
