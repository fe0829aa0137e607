/** `nuvet make --copies`, and `--for plan-sheet`. */
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readDxf } from '@nuvet/core/formats';
import { pathBox } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import { afterAll, describe, expect, it } from 'vitest';
import { nuvetIn } from '../../../tests/unit/nuvet-command.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-sheets-'));
afterAll(() => rmSync(folder, { recursive: true }));
const nuvet = nuvetIn(folder);
const textOf = (name: string): string => readFileSync(join(folder, name), 'utf8');
writeFileSync(
  join(folder, 'foot.svg'),
  '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="60mm" viewBox="0 0 80 60"><path fill="none" stroke="black" d="M10 10 H70 V50 H10 Z"/></svg>',
);

describe('nuvet make --copies', () => {
  it('lays copies out on sheets of the stock, a file a sheet, none beyond its margin', async () => {
    const { code, out, error } = await nuvet('make', 'foot.svg', '--for', 'outlines', '--copies', '9', '--stock', '200x100mm', '--gap', '2mm', '--margin', '4mm', '--nest-time', '1', '--out', 'feet.dxf'); // biome-ignore format: one line
    expect([code, error]).toEqual([0, '']);
    expect(out).toMatch(/note: 2 sheets, \d+ % used/);
    const files = ['feet-sheet-1.dxf', 'feet-sheet-2.dxf'].map((name) => finished(readDxf(textOf(name))).outlines);
    expect(files.flat().length).toBe(9);
    for (const outlines of files)
      for (const { path } of outlines) {
        const { minX, maxX, minY, maxY } = pathBox(path);
        expect([maxX - minX, maxY - minY].sort((a, b) => a - b)).toEqual([expect.closeTo(40, 3), expect.closeTo(60, 3)]);
        expect(maxX <= 192.01 && maxY <= 92.01).toBe(true);
      }
  });
  it.each([
    [['--copies', '0'], /--copies 0: a whole number from 1/],
    [['--copies', '2'], /say how large a sheet is/],
    [['--copies', '2', '--stock', '50x30mm'], /larger than the stock/],
    [['--copies', '2', '--stock', '200x100mm', '--turns', 'about'], /--turns about: any, quarter, half, none/],
    [['--copies', '2', '--stock', '200x100mm', '--nest-time', 'long'], /--nest-time long/],
  ] as const)('%j: refused in one line, no file', async (words, said) => {
    const { code, error } = await nuvet('make', 'foot.svg', '--for', 'laser', ...words, '--out', 'none.dxf');
    expect([code > 0, error.trim().split('\n').length]).toEqual([true, 1]);
    expect(error).toMatch(said);
    expect(existsSync(join(folder, 'none.dxf'))).toBe(false);
  });
  it('is nothing to say of a solid', async () => {
    expect((await nuvet('make', 'foot.svg', '--for', 'solid', '--copies', '2', '--out', 'none.stl')).error).toMatch(
      /is not cut from sheets/,
    );
  });
});

describe('nuvet make --for plan-sheet', () => {
  it('draws a sheet at the scale that was said, with its dimensions, as PDF, SVG and DXF', async () => {
    const { code, error } = await nuvet('make', 'foot.svg', '--for', 'plan-sheet', '--paper', 'a3 wide', '--scale', '2:1', '--stock', 'Walnut, 6mm', '--out', 'plan.pdf', '--out', 'plan.svg', '--out', 'plan.dxf'); // biome-ignore format: one line
    expect([code, error]).toEqual([0, '']);
    expect(textOf('plan.pdf').slice(0, 5)).toBe('%PDF-');
    expect(textOf('plan.svg')).toMatch(/width="420mm" height="297mm".*>60<.*>40</s);
    expect(textOf('plan.svg')).toMatch(/>Walnut, 6<.*>2:1</s);
    expect(textOf('plan.dxf').match(/^DIMENSION\r$/gm)?.length).toBe(2);
  });
  it('of a paper or a scale that there is not is refused in one line', async () => {
    const { code, error } = await nuvet('make', 'foot.svg', '--for', 'plan-sheet', '--scale', '1:3', '--out', 'none.pdf');
    expect([code > 0, error]).toEqual([true, expect.stringMatching(/--scale 1:3: 10:1, 5:1, 2:1/)]);
  });
});
