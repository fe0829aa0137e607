/** `nuvet make --for foam`. */
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readPdfPaths } from '@nuvet/core/formats';
import { heightOf, pathBox, widthOf } from '@nuvet/core/plane';
import Papa from 'papaparse';
import { afterAll, describe, expect, it } from 'vitest';
import { nuvetIn } from '../../../tests/unit/nuvet-command.ts';
import { dxfSeenByEzdxf } from '../../../tests/unit/outside-readers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-foam-'));
afterAll(() => rmSync(folder, { recursive: true }));
const nuvet = nuvetIn(folder);
const read = (name: string): string => readFileSync(join(folder, name), 'utf8');
const drawn = (name: string, inside: string): string => {
  writeFileSync(
    join(folder, name),
    `<svg xmlns="http://www.w3.org/2000/svg" width="700mm" height="400mm" viewBox="0 0 700 400" fill="black">${inside}</svg>`,
  );
  return name;
};
const float = drawn('float.svg', '<ellipse cx="340" cy="80" rx="300" ry="50"/><ellipse cx="340" cy="260" rx="300" ry="70"/>');

describe('nuvet make --for foam', () => {
  it('writes formers as drawings and on pages, a cut list and a report', async () => {
    const { code, out, error } = await nuvet('make', float, '--for', 'foam', '--board', '40mm', '--shell', '15mm', '--stock', 'Foam board, 40mm, 1200x600mm', '--out', 'formers.dxf', '--out', 'formers.pdf', '--out', 'cutlist.csv', '--report', 'formers.json'); // biome-ignore format: one line
    expect([code, error]).toEqual([0, '']);
    expect(out).toMatch(/formers\.dxf: 0\.00\d mm off at most/);
    const report = JSON.parse(read('formers.json'));
    // The volume of an ellipsoid; what the larger faces of slices come to is more, and a shell less.
    expect(report.body.volumeMm3 / ((4 / 3) * Math.PI * 300 * 50 * 70)).toBeCloseTo(1, 2);
    expect(report.slices.length).toBe(15);
    expect(report.foam.volumeMm3).toBeLessThan(0.9 * report.body.volumeMm3);
    const [head, ...rows] = Papa.parse<string[]>(read('cutlist.csv'), { skipEmptyLines: true }).data;
    expect([head?.slice(0, 2), rows.length]).toEqual([['number', 'thicknessMm'], 15]);
    const [dxf] = dxfSeenByEzdxf(join(folder, 'formers.dxf'));
    expect(dxf?.errors).toEqual([]);
    // The former in the middle is as wide and as high as the body.
    const pages = await readPdfPaths(readFileSync(join(folder, 'formers.pdf')));
    const widest = pages.flatMap(({ paths }) => paths.filter(({ mark }) => mark === 'cutting').map(({ path }) => pathBox(path))).reduce((a, b) => (widthOf(b) > widthOf(a) ? b : a)); // biome-ignore format: one line
    expect([widthOf(widest), heightOf(widest)].sort((a, b) => a - b)).toEqual([expect.closeTo(100, 2), expect.closeTo(140, 2)]);
  });
  it('marks one level on all formers, also where the body rises', async () => {
    // A flat belly: a former's lowest place is the body's.
    const hull = drawn('hull.svg', '<path d="M40 130 A300 100 0 0 1 640 130 Z"/><ellipse cx="340" cy="260" rx="300" ry="40"/>');
    expect((await nuvet('make', hull, '--for', 'foam', '--board', '60mm', '--out', 'hull.pdf')).code).toBe(0);
    const levels = (await readPdfPaths(readFileSync(join(folder, 'hull.pdf')))).flatMap(({ paths }) => {
      const boxes = (mark: string) => paths.filter((one) => one.mark === mark).map(({ path }) => pathBox(path));
      const level = boxes('mark').filter((box) => heightOf(box) < 0.01 && widthOf(box) > 20);
      return boxes('cutting').flatMap(({ minX, minY, maxX, maxY }) => level.filter((box) => box.minX > minX && box.maxX < maxX && box.minY > minY && box.maxY < maxY).map((box) => box.minY - minY)); // biome-ignore format: one line
    });
    expect(levels.length).toBeGreaterThan(7);
    for (const level of levels) expect(level).toBeCloseTo(50, 1);
  });
  it.each([
    [['--board', '0'], /--board 0/],
    [['--board', '1mm'], /more than 400 slices/],
    [['--shell', 'thick'], /--shell thick/],
  ] as const)('%j: refused in one line, no file', async (words, said) => {
    const { code, error } = await nuvet('make', float, '--for', 'foam', ...words, '--out', 'x.dxf');
    expect([code, error]).toEqual([2, expect.stringMatching(said)]);
    expect(existsSync(join(folder, 'x.dxf'))).toBe(false);
  });
});
