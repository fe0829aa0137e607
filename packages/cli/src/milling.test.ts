/** `nuvet make --for cnc` and `nuvet simulate`. */
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeSvg } from '@nuvet/core/formats';
import { circlePath, type Path, polygonPath } from '@nuvet/core/plane';
import { afterAll, describe, expect, it } from 'vitest';
import { nuvetIn } from '../../../tests/unit/nuvet-command.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-milling-'));
afterAll(() => rmSync(folder, { recursive: true }));
const nuvet = nuvetIn(folder);
const file = (name: string, text: string): string => {
  writeFileSync(join(folder, name), text);
  return name;
};
const read = (name: string) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as Record<string, unknown>;

const box = (x: number, y: number, w: number, h: number): Path => polygonPath([{ x, y }, { x: x + w, y }, { x: x + w, y: y + h }, { x, y: y + h }]); // biome-ignore format: corners
const badge = [
  { name: 'Badge', purpose: 'cut' as const, outer: circlePath({ x: 45, y: 45 }, 40), holes: [] },
  { name: 'Ring', purpose: 'engrave' as const, outer: circlePath({ x: 45, y: 45 }, 36), holes: [] },
  { name: 'River', purpose: 'pocket' as const, outer: box(30, 38, 30, 14), holes: [] },
];
file('badge.svg', writeSvg(badge, 'Badge'));
const head = 'name,kind,diameterMm,angleDeg,tipMm,flutes,cutLengthMm,spindleRpm,feedMmPerMin,plungeMmPerMin,stepdownMm,stepover';
const mill = 'End mill,end-mill,3.175,,,2,12,18000,1000,300,1.2,0.4';
file('both.csv', `${head}\nV-bit,v-bit,6.35,60,0.1,2,12,18000,900,300,1.5,0.1\n${mill}\n`);
file('one.csv', `${head}\n${mill}\n`);
const stock = ['--stock', 'MDF, 6mm, 200x160mm'];

describe('nuvet make --for cnc', () => {
  it('writes a file a tool with names that say so, and a report of what was found', async () => {
    const { code, out } = await nuvet(
      'make',
      'badge.svg',
      '--for',
      'cnc',
      ...stock,
      '--tools',
      'both.csv',
      '--out',
      'badge.gcode',
      '--report',
      'badge.json',
    );
    expect(code).toBe(0);
    expect(out).toMatch(/badge-1-v-bit\.gcode: 0\.00\d mm off at most[\s\S]*badge-2-end-mill\.gcode/);
    const report = read('badge.json');
    expect(report).toMatchObject({
      process: 'cnc',
      gouges: [],
      files: [{ file: 'badge-1-v-bit.gcode' }, { file: 'badge-2-end-mill.gcode' }],
    });
    expect((report.tabs as unknown[]).length).toBe(4);
    expect((report.operations as { kind: string }[]).map(({ kind }) => kind)).toEqual(['follow', 'pocket', 'profile']);
  });
  it('one tool, one file; a setup sheet and the solid beside it', async () => {
    const { out } = await nuvet(
      'make',
      'badge.svg',
      '--for',
      'cnc',
      ...stock,
      '--tools',
      'one.csv',
      '--out',
      'one.gcode',
      '--out',
      'one.pdf',
      '--out',
      'one.stl',
    );
    expect(out).toContain('one.gcode: 0.00');
    for (const name of ['one.gcode', 'one.pdf', 'one.stl']) expect(existsSync(join(folder, name))).toBe(true);
    const solid = readFileSync(join(folder, 'one.stl'));
    expect(solid.length).toBe(84 + 50 * solid.readUInt32LE(80));
  });
  it.each([
    [['--stock', 'MDF, 200x160mm'], 'one.csv', 'How thick is the stock?'],
    [
      ['--stock', 'MDF, 6mm'],
      file('zero.csv', `${head}\n${mill.replace('1.2,', '0,')}\n`),
      'Line 2 of the tools: stepdownMm cannot be “0”',
    ],
    [['--stock', 'MDF, 6mm'], file('slow.csv', `${head}\n${mill.replace(',1000,', ',0,')}\n`), 'feedMmPerMin cannot be “0”'],
    [['--stock', 'MDF, 6mm'], file('wide.csv', `${head}\n${mill.replace('3.175,,', '30,,')}\n`), 'is too wide for Outline 3'],
    [['--stock', 'MDF, 6mm'], file('short.csv', `${head}\n${mill.replace(',12,', ',4,')}\n`), 'reach only 4 mm'],
    [['--stock', 'MDF, 6mm'], 'gone.csv', 'cannot be read'],
  ])('%j with %s: a plain sentence, and no file', async (said, tools, message) => {
    const { code, error } = await nuvet('make', 'badge.svg', '--for', 'cnc', ...said, '--tools', tools, '--out', 'none.gcode');
    expect([code, existsSync(join(folder, 'none.gcode'))]).toEqual([2, false]);
    expect(error).toContain(message);
  });
});

describe('nuvet simulate', () => {
  it('a groove that it did not write: how much is gone, how deep, and the stock as a solid', async () => {
    file('groove.gcode', 'G21 G90\nM3 S12000\nG0 X20 Y50 Z5\nG1 Z-2 F200\nX120 F900\nG0 Z5\nM2\n');
    const { code, out } = await nuvet(
      'simulate',
      'groove.gcode',
      '--stock',
      '200x100x18mm',
      '--tool',
      'end mill 4mm',
      '--cell',
      '0.1mm',
      '--out',
      'groove.stl',
      '--report',
      'groove.json',
    );
    expect(code).toBe(0);
    expect(out).toContain('2.00 mm deep at most');
    const { removedMm3, deepestMm, rapidsThroughStock } = read('groove.json') as {
      removedMm3: number;
      deepestMm: number;
      rapidsThroughStock: unknown[];
    };
    expect(Math.abs(removedMm3 / (2 * (100 * 4 + Math.PI * 4)) - 1)).toBeLessThan(0.005);
    expect([deepestMm, rapidsThroughStock]).toEqual([2, []]);
  });
  it.each([
    ['numbered', 'T5 M6\nG0 X20 Y20 Z5\nG1 Z-2 F300\nG0 Z5\nT2 M6\nG0 X60 Y20\nG1 Z-2\nG0 Z5\nM2\n'],
    ['not numbered', 'G0 X20 Y20 Z5\nG1 Z-2 F300\nG0 Z5\nM0\nM3 S9000\nG0 X60 Y20\nG1 Z-2\nG0 Z5\nM2\n'],
  ])('tools that are %s are used in the order that they are named in', async (name, text) => {
    const tools = ['--tool', 'end mill 10mm', '--tool', 'end mill 4mm'];
    const words = ['--stock', '100x50x10mm', ...(name === 'numbered' ? tools : tools.slice(0, 2))];
    await nuvet('simulate', file('two.gcode', text), ...words, '--report', 'two.json', '--force');
    const { removedMm3 } = read('two.json') as { removedMm3: number };
    const [wide, narrow] = [2 * Math.PI * 25, 2 * Math.PI * 4];
    expect(Math.abs(removedMm3 / (name === 'numbered' ? wide + narrow : 2 * wide) - 1)).toBeLessThan(0.01);
  });
  it('a rapid through stock is told, and exits with 1', async () => {
    file('crash.gcode', 'G0 X10 Y10 Z5\nG1 Z-1 F100\nG0 X60\nM2\n');
    const { code, out } = await nuvet('simulate', 'crash.gcode', '--stock', '100x50x10mm', '--tool', 'end mill 3mm');
    expect(code).toBe(1);
    expect(out).toContain('1 rapid move runs through stock');
  });
  it.each([
    [['--stock', '100x50mm', '--tool', 'end mill 3mm'], 'write it as 200x200x18mm'],
    [['--stock', '100x50x10mm', '--tool', 'chisel'], 'is not understood'],
    [['--stock', '100x50x10mm'], 'say the tool'],
    [['--tool', 'end mill 3mm'], 'say the stock'],
  ])('%j: said what is missing', async (words, message) => {
    const { code, error } = await nuvet('simulate', file('any.gcode', 'G0 X1 Y1 Z1\nG1 Z0 F100\nM2\n'), ...words);
    expect(code).toBe(2);
    expect(error).toContain(message);
  });
  it('a line that is no G-code is named', async () => {
    const { code, error } = await nuvet(
      'simulate',
      file('bad.gcode', 'G0 X1 Y1 Z1\nhello\n'),
      '--stock',
      '100x50x10mm',
      '--tool',
      'end mill 3mm',
    );
    expect([code, error]).toEqual([2, expect.stringContaining('Line 2')]);
  });
});
