import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readGcode, writeDxf, writeSvg } from '@nuvet/core/formats';
import { applyCommand, emptyJob, type Job } from '@nuvet/core/job';
import { circlePath, type Path, polygonPath, reversedPath } from '@nuvet/core/plane';
import { PDFDocument } from 'pdf-lib';
import { afterAll, describe, expect, it } from 'vitest';
import { nuvetIn } from '../../../tests/unit/nuvet-command.ts';
import { readMakeArguments, readProveArguments } from './making-arguments.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-making-'));
afterAll(() => rmSync(folder, { recursive: true }));
const nuvet = nuvetIn(folder);

const box = (x: number, y: number, w: number, h: number): Path =>
  polygonPath([
    { x, y },
    { x: x + w, y },
    { x: x + w, y: y + h },
    { x, y: y + h },
  ]);
const plate = {
  name: 'Plate',
  purpose: 'cut' as const,
  outer: box(0, 0, 120, 80),
  holes: [reversedPath(circlePath({ x: 60, y: 40 }, 20))],
};
const twin = { name: 'Twin', purpose: 'cut' as const, outer: box(110, 20, 60, 30), holes: [] };
const file = (name: string, text: string): string => {
  writeFileSync(join(folder, name), text);
  return name;
};

describe('nuvet prove', () => {
  it('says that there is no problems, and exits with 0', async () => {
    const { code, out } = await nuvet('prove', file('plate.svg', writeSvg([plate], 'Plate')));
    expect(out).toBe('plate.svg: no problems, 1 piece\n');
    expect(code).toBe(0);
  });
  it('names each finding with its place, and exits with 1; also as JSON', async () => {
    const name = file('two.dxf', writeDxf([plate, twin], 'Two'));
    const { code, out } = await nuvet('prove', name, '--stock', 'Ply, 3mm, 150x90mm, kerf 0.2mm');
    expect(code).toBe(1);
    expect(out).toMatch(/stops: Outline 1 and Outline 2 cross at 2 places\. \(at 120\.0, [25]0\.0 mm\)/);
    expect(out).toMatch(/look: All pieces together take 170 mm x 80 mm, more than the stock of 150 mm x 90 mm/);
    const json = JSON.parse((await nuvet('prove', name, '--json')).out) as { findings: { code: string; weight: string }[] };
    expect(json.findings.map((f) => [f.code, f.weight])).toContainEqual(['crosses-another', 'stops']);
  });
  it('reads a job’s document with its pinned sizes', async () => {
    const drawn = {
      id: 'd',
      name: 'Board',
      purpose: 'cut' as const,
      leftOut: false,
      source: { kind: 'path' as const, path: box(0, 0, 138.4, 60) },
      live: [],
    };
    const pinned = [{ id: 'p', name: 'Board', of: { kind: 'width' as const, pieceId: null }, mm: 138.1, toleranceMm: 0.2 }];
    const job: Job = [{ do: 'draw', drawn } as const, { do: 'prove-by', change: { pinned } } as const].reduce(
      applyCommand,
      emptyJob('Shelf'),
    );
    const { code, out } = await nuvet('prove', file('shelf.json', JSON.stringify(job)));
    expect([code, out]).toEqual([1, 'stops: “Board” is 138.40 mm and must be 138.10 mm ± 0.20 mm: 0.30 mm too large. (at 0.0, 0.0 mm)\n']);
  });
  it('refuses in one line what is no job and no drawing', async () => {
    for (const name of [file('odd.json', '{"version": 2}'), file('odd.txt', 'hello'), 'missing.svg']) {
      const { code, error } = await nuvet('prove', name);
      expect(code).toBe(2);
      expect(error.trim().split('\n')).toHaveLength(1);
    }
  });
});

describe('nuvet make', () => {
  it('writes the planned cut for a laser, kerf taken off, and says how far it is off', async () => {
    file('plate.svg', writeSvg([plate], 'Plate'));
    const { code, out } = await nuvet(
      'make',
      'plate.svg',
      '--for',
      'laser',
      '--stock',
      'Ply, 3mm, kerf 0.2mm',
      '--out',
      'plate.gcode',
      '--out',
      'plate.svg.dxf',
    );
    expect(code).toBe(0);
    expect(out).toMatch(/plate\.gcode: 0\.00\d mm off at most, 120\.20 x 80\.20 mm/);
    const { toolpaths } = readGcode(readFileSync(join(folder, 'plate.gcode'), 'utf8'));
    // The hole first, then what is round it.
    expect(toolpaths.map((w) => w.path.segments.length > 3)).toEqual([false, true]);
  });
  it('takes no kerf off for a knife, and prints for paper', async () => {
    await nuvet('make', 'plate.svg', '--for', 'knife', '--stock', 'kerf 0.2mm', '--out', 'plate.hpgl');
    expect(readFileSync(join(folder, 'plate.hpgl'), 'utf8')).toContain('4800,0');
    const { out } = await nuvet('make', 'plate.svg', '--for', 'paper', '--paper', 'A5', '--out', 'pages.pdf');
    const pages = Number(/(\d+) pages? and a map/.exec(out)?.[1]);
    expect((await PDFDocument.load(readFileSync(join(folder, 'pages.pdf')))).getPageCount()).toBe(pages + 1);
  });
  it('makes nothing of what the proof stops, unless it is told to', async () => {
    const name = file('two.dxf', writeDxf([plate, twin], 'Two'));
    const refused = await nuvet('make', name, '--for', 'laser', '--out', 'two.gcode');
    expect([refused.code, existsSync(join(folder, 'two.gcode'))]).toEqual([2, false]);
    expect(refused.error).toMatch(/cross at 2 places.*--anyway/);
    expect((await nuvet('make', name, '--for', 'laser', '--out', 'two.gcode', '--anyway')).code).toBe(0);
  });
});

describe('what is typed after them', () => {
  it('of a stock its name, thickness, sheet and kerf are told apart', () => {
    expect(readProveArguments(['a.svg', '--stock', 'Birch ply, 3mm, 24x18in, kerf 0.15mm']).stock).toEqual({
      name: 'Birch ply',
      thicknessMm: 3,
      sheet: { widthMm: expect.closeTo(609.6, 9), heightMm: expect.closeTo(457.2, 9) },
      kerfMm: 0.15,
    });
  });
  it.each([
    [['a.svg', '--for', 'oven', '--out', 'a.svg'], '--for oven'],
    [['a.svg', '--for', 'laser'], 'name a file to write'],
    [['a.svg', '--for', 'laser', '--out', 'a.doc'], 'must end in'],
    [['a.svg', '--for', 'paper', '--out', 'a.pdf', '--paper', 'Z9'], '--paper Z9'],
    [['a.svg', '--for', 'laser', '--out', 'a.svg', '--paper', 'A4'], 'nothing to say of laser'],
    [['a.svg', 'b.svg', '--for', 'laser', '--out', 'a.svg'], 'too much'],
    [['a.svg', '--for', 'laser', '--out', 'a.png', '--dpi', '5'], '--dpi 5'],
    [['a.svg', '--for', 'laser', '--out', 'a.svg', '--stock', 'kerf wide'], 'kerf wide'],
  ])('%j is refused', (words, said) => {
    expect(() => readMakeArguments(words)).toThrow(said);
  });
});
