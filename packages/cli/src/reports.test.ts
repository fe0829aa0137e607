/** Reports of the command against their JSON Schemas in docs/reports, judged by ajv. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeSvg } from '@nuvet/core/formats';
import { circlePath, rectanglePath } from '@nuvet/core/plane';
import { piece, pngOf, scanScene } from '@nuvet/truth';
import Ajv2020 from 'ajv/dist/2020.js';
import { afterAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { nuvetIn } from '../../../tests/unit/nuvet-command.ts';
import { reportSchemas } from './report-schemas.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-reports-'));
afterAll(() => rmSync(folder, { recursive: true }));
const nuvet = nuvetIn(folder);
const plate = [{ name: 'Plate', purpose: 'cut' as const, outer: circlePath({ x: 40, y: 40 }, 30), holes: [] }];
writeFileSync(join(folder, 'plate.svg'), writeSvg(plate, 'Plate'));
const scan = scanScene(
  { name: 'plate', widthMm: 60, heightMm: 40, pieces: [piece(rectanglePath({ minX: 15, minY: 10, maxX: 45, maxY: 30 }))] },
  { dpi: 150, tiltDegrees: 1 },
);
writeFileSync(join(folder, 'plate.png'), await pngOf(scan.picture, 150));

const published = (name: keyof typeof reportSchemas): object =>
  JSON.parse(readFileSync(new URL(`../../../docs/reports/${name}.schema.json`, import.meta.url), 'utf8'));
const read = (name: string): unknown => JSON.parse(readFileSync(join(folder, name), 'utf8'));

function faultsOf(name: keyof typeof reportSchemas, report: unknown): string[] {
  const ajv = new Ajv2020({ allErrors: true });
  ajv.validate(published(name), report);
  return (ajv.errors ?? []).map(({ instancePath, message }) => `${instancePath} ${message}`);
}

describe('the schemas in the docs', () => {
  it.each(Object.keys(reportSchemas) as (keyof typeof reportSchemas)[])('are those of the command: %s', async (name) => {
    const text = `${JSON.stringify(z.toJSONSchema(reportSchemas[name]), null, 2)}\n`;
    await expect(text).toMatchFileSnapshot(`../../../docs/reports/${name}.schema.json`);
  });
  it('refuse what lacks a part, or has another kind of it', () => {
    expect(faultsOf('prove-json', { job: 'A', pieces: 'two', findings: [], sizes: [] })).toHaveLength(2);
  });
});

describe('what the command reports follows its schema:', () => {
  const line = [{ x: 15, y: 10 }, { x: 45, y: 10 }].map(scan.at).map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`).join(','); // biome-ignore format: one line
  it('trace, by resolution and by marks', async () => {
    expect(await nuvet('trace', 'plate.png', '--out', 'a.svg', '--report', 'a.json')).toMatchObject({ code: 0 });
    expect(await nuvet('trace', 'plate.png', '--known', `${line}=30mm`, '--level', line, '--out', 'b.svg', '--report', 'b.json')).toMatchObject({ code: 0 }); // biome-ignore format: one line
    for (const name of ['a.json', 'b.json']) expect(faultsOf('trace', read(name))).toEqual([]);
  });
  it('true-up', async () => {
    expect(await nuvet('true-up', 'plate.png', '--known', `${line}=30mm`, '--out', 'c.png', '--report', 'c.json')).toMatchObject({
      code: 0,
    });
    expect(faultsOf('true-up', read('c.json'))).toEqual([]);
  });
  it('prove and make, on standard output and as a file', async () => {
    expect(faultsOf('prove-json', JSON.parse((await nuvet('prove', 'plate.svg', '--json')).out))).toEqual([]);
    const made = await nuvet('make', 'plate.svg', '--for', 'laser', '--out', 'd.svg', '--report', 'd.json', '--json');
    expect(faultsOf('make-json', JSON.parse(made.out))).toEqual([]);
    expect(faultsOf('make', read('d.json'))).toEqual([]);
  });
  it('wing', async () => {
    const words = ['--root', 'naca 2412', '--root-chord', '200mm', '--span', '400mm'];
    const run = await nuvet('wing', ...words, '--out', 'wing.gcode', '--report', 'f.json');
    expect(run.error).toBe('');
    expect(faultsOf('wing', read('f.json'))).toEqual([]);
  });
  it('simulate', async () => {
    const program = 'G21 G90\nT1 M6\nG0 Z5\nG0 X10 Y10\nG1 Z-2 F300\nG1 X40 Y10 F900\nG0 Z5\nM30\n';
    writeFileSync(join(folder, 'slot.gcode'), program);
    const run = await nuvet('simulate', 'slot.gcode', '--stock', '60x40x6mm', '--tool', 'end mill 3.175mm', '--report', 'e.json');
    expect(run.error).toBe('');
    expect(faultsOf('simulate', read('e.json'))).toEqual([]);
  });
});
