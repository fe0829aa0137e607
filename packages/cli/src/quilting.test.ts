/** `nuvet make --for quilting`. */
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readPdfPaths } from '@nuvet/core/formats';
import { heightOf, pathBox, widthOf } from '@nuvet/core/plane';
import Papa from 'papaparse';
import { afterAll, describe, expect, it } from 'vitest';
import { nuvetIn } from '../../../tests/unit/nuvet-command.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-quilting-'));
afterAll(() => rmSync(folder, { recursive: true }));
const nuvet = nuvetIn(folder);
const read = (name: string): string => readFileSync(join(folder, name), 'utf8');
const drawn = (name: string, inside: string): string => {
  writeFileSync(join(folder, name), `<svg xmlns="http://www.w3.org/2000/svg" width="4in" height="4in" viewBox="0 0 4 4" fill="none" stroke="black">${inside}</svg>`); // biome-ignore format: one line
  return name;
};
const star = drawn('star.svg', '<rect width="4" height="4"/><path d="M1 0V4M3 0V4M0 1H4M0 3H4M1 1L2 0L3 1L4 2L3 3L2 4L1 3L0 2Z"/>');
const sixInches = 152.4;

describe('nuvet make --for quilting', () => {
  it('writes templates at their size, a cutting list, foundations, and a report of its patches', async () => {
    const { code, out } = await nuvet('make', star, '--for', 'quilting', '--finished', '12in', '--out', 'templates.pdf', '--out', 'cutting.csv', '--out', 'foundations.pdf', '--out', 'templates.svg', '--report', 'block.json'); // biome-ignore format: one line
    expect([code, out]).toEqual([0, expect.stringContaining('templates.pdf: 0.000 mm off at most')]);
    const report = JSON.parse(read('block.json'));
    expect(report.patches.map(({ name, count, reversed, finishedAreaMm2 }: Record<string, number | string>) => [name, count, reversed, Math.round(100 * (finishedAreaMm2 as number)) / 100])).toEqual([
      ['A', 1, 0, 23_225.76],
      ['B', 4, 0, 5806.44],
      ['C', 4, 0, 5806.44],
      ['D', 8, 0, 2903.22],
    ]); // biome-ignore format: a table
    expect(report.cutting).toEqual([
      { patch: 'A', figure: 'square', cutIn: '6 1/2', count: 1 },
      { patch: 'B', figure: 'quarter-square triangle', cutIn: '7 1/4', count: 4 },
      { patch: 'C', figure: 'square', cutIn: '3 1/2', count: 4 },
      { patch: 'D', figure: 'half-square triangle', cutIn: '3 7/8', count: 8 },
    ]);
    const [head, ...rows] = Papa.parse<string[]>(read('cutting.csv'), { skipEmptyLines: true }).data;
    expect(head?.slice(0, 4)).toEqual(['what', 'figure', 'cutIn', 'count']);
    expect(rows.map(([what, , cutIn]) => [what, cutIn])).toEqual([['A', '6 1/2'], ['B', '7 1/4'], ['C', '3 1/2'], ['D', '3 7/8']]); // biome-ignore format: one line
    // The largest square is sewn along six inches, and cut along half an inch more.
    const pages = await readPdfPaths(readFileSync(join(folder, 'templates.pdf')));
    const sizes = (mark: string) => pages.flatMap(({ paths }) => paths.filter((p) => p.mark === mark).map(({ path }) => Math.max(widthOf(pathBox(path)), heightOf(pathBox(path))))); // biome-ignore format: one line
    expect(Math.max(...sizes('sewing'))).toBeCloseTo(sixInches, 3);
    expect(Math.max(...sizes('cutting'))).toBeGreaterThan(sixInches + 12.69);
    expect(sizes('cutting').length).toBe(4);
  });
  it('quilts it in one line, whose stitches are a table', async () => {
    const { code } = await nuvet(
      'make',
      star,
      '--for',
      'quilting',
      '--quilted',
      'river-wave',
      '--out',
      'line.svg',
      '--out',
      'stitches.csv',
    );
    expect(code).toBe(0);
    const rows = Papa.parse<string[]>(read('stitches.csv'), { skipEmptyLines: true }).data;
    expect(rows.filter(([, , command]) => command === 'jump').length).toBe(1);
    expect(rows.at(-1)?.[2]).toBe('end');
    expect(read('line.svg').match(/<path/g)?.length).toBe(1);
  });
  it.each([
    ['a finished size of nothing', star, ['--finished', '0'], /--finished 0: .*more than zero/i],
    ['a finished size that is none', star, ['--finished', 'big'], /--finished big/],
    ['an allowance wider than the patches', star, ['--finished', '2in', '--allowance', '1in'], /wider than patch/],
    ['a pattern that is not there', star, ['--quilted', 'waves'], /--quilted waves: .*river-wave/],
    ['a block that is nothing', drawn('nothing.svg', '<path d="M1 1L3 1"/>'), [], /enclose no patch|no block/],
    ['a quilting line that was not asked for', star, [], /no quilting line yet/, 'line.dxf'],
  ] as const)('%s is a sentence, and no file', async (_, file, words, why, out: string = 'refused.pdf') => {
    const { code, error: said } = await nuvet('make', file, '--for', 'quilting', ...words, '--out', out);
    expect(code).not.toBe(0);
    expect(said).toMatch(why);
    expect(said.trim().split('\n').length).toBe(1);
    expect(existsSync(join(folder, out))).toBe(false);
  });
  it('tells of the block and of the quilting line whatever file was asked for', async () => {
    const { code } = await nuvet('make', star, '--for', 'quilting', '--finished', '12in', '--quilted', 'mill-wheel', '--out', 'line.svg', '--report', 'line.json', '--force'); // biome-ignore format: one line
    expect(code).toBe(0);
    const report = JSON.parse(read('line.json'));
    expect(report.patches.length).toBe(4);
    expect(report.line).toMatchObject({ runs: 1, sewnTwiceMm: 0, passes: 1, lengthMm: expect.any(Number) });
    // A wheel of eight loops is drawn about the middle of a block of 12 in.
    expect(report.line.lengthMm).toBeGreaterThan(4 * 2 * sixInches);
  });
});
