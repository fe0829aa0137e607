/** What of the command holds for all verbs: standard input and output, files that are there already, help, endings, and what was left aside. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { photographScene, plateScene, pngOf } from '@nuvet/truth';
import { afterAll, describe, expect, it } from 'vitest';
import { nuvetIn } from '../../../tests/unit/nuvet-command.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-streams-test-'));
afterAll(() => rmSync(folder, { recursive: true }));
const nuvet = nuvetIn(folder);
const head = '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="60mm" viewBox="0 0 80 60">';
const plate = `${head}<path d="M10 10H70V50H10Z"/></svg>`;
writeFileSync(join(folder, 'plate.svg'), plate);
writeFileSync(join(folder, 'lettered.svg'), `${head}<path d="M10 10H70V50H10Z"/><text x="20" y="30">Heron Lane</text></svg>`);
writeFileSync(join(folder, 'wide.svg'), `${head}<path d="M10 30H70" fill="none" stroke="black" stroke-width="6"/></svg>`);
const textOf = (name: string): string => readFileSync(join(folder, name), 'utf8');
const bin = fileURLToPath(new URL('../bin/nuvet.mjs', import.meta.url));

describe('files that are there already', () => {
  it('are written over with --force only; the file that it is made from never', async () => {
    const make = (...more: string[]) => nuvet('make', 'plate.svg', '--for', 'laser', ...more);
    expect((await make('--out', 'once.dxf')).code).toBe(0);
    const again = await make('--out', 'once.dxf');
    expect([again.code, again.error]).toEqual([2, 'nuvet: once.dxf: is there already; --force writes over it\n']);
    expect((await make('--out', 'once.dxf', '--force')).code).toBe(0);
    const itself = await make('--out', './plate.svg', '--force');
    expect([itself.code, itself.error]).toEqual([2, 'nuvet: ./plate.svg: this is the file that it is made from; name another\n']);
    expect(textOf('plate.svg')).toBe(plate);
  });
});

describe('standard input and output', () => {
  it('stand for a dash, as a person pipes them', () => {
    const run = (words: string[], input: string | Buffer) => spawnSync(process.execPath, [bin, ...words], { cwd: folder, input });
    const dxf = run(['make', '-', '--for', 'laser', '--out', '-.dxf'], plate);
    expect([dxf.status, dxf.stdout.toString('latin1').slice(0, 20)]).toEqual([0, expect.stringMatching(/^\s*(999|0)/)]);
    expect(dxf.stderr.toString()).toMatch(/60\.00 x 40\.00 mm/);
    const back = run(['prove', '-'], dxf.stdout);
    expect([back.status, back.stdout.toString()]).toEqual([0, expect.stringMatching(/no problems, 1 piece/)]);
    expect(run(['prove', '-'], '').stderr.toString()).toMatch(/nothing comes from standard input/);
  });
});

describe('words that people use', () => {
  it('of machines for their files: .nc and .ngc are G-code, .plt is HPGL', async () => {
    expect((await nuvet('make', 'plate.svg', '--for', 'laser', '--out', 'plate.nc', '--out', 'plate.ngc')).code).toBe(0);
    expect((await nuvet('make', 'plate.svg', '--for', 'knife', '--out', 'plate.plt')).code).toBe(0);
    expect(textOf('plate.nc')).toBe(textOf('plate.ngc'));
    expect(textOf('plate.nc')).toMatch(/G21/);
    expect(textOf('plate.plt')).toMatch(/^IN;/);
  });
  it('to ask how one command is used, and which one this is', async () => {
    const help = (await nuvet('make', '--help')).out;
    expect(help).toMatch(/^nuvet make /);
    expect(help).not.toMatch(/nuvet trace/);
    expect((await nuvet('help', 'prove')).out).toMatch(/^nuvet prove /);
    expect((await nuvet('--version')).out).toMatch(/^nuvet \d/);
    expect((await nuvet('--help')).out).toMatch(/nuvet trace[\s\S]*nuvet make[\s\S]*nuvet wing/);
  });
});

describe('what a drawing’s reader leaves aside', () => {
  it('is told with its place, in words and JSON; exit 1 where it is seen, unless --anyway', async () => {
    const line = 'note: Left aside: text (turn it into outlines first), at 10.0, 20.0 mm.';
    const prove = await nuvet('prove', 'lettered.svg');
    expect([prove.code, prove.out]).toEqual([1, expect.stringContaining(line)]);
    expect((await nuvet('prove', 'lettered.svg', '--anyway')).code).toBe(0);
    const make = await nuvet('make', 'lettered.svg', '--for', 'laser', '--out', 'lettered.dxf', '--report', 'lettered.json');
    expect([make.code, make.out]).toEqual([1, expect.stringContaining(line)]);
    expect(JSON.parse(textOf('lettered.json')).notes).toEqual([line.replace('note: ', '')]);
    const json = await nuvet('make', 'lettered.svg', '--for', 'laser', '--out', 'anyway.dxf', '--anyway', '--json');
    expect([json.code, JSON.parse(json.out).notes]).toEqual([0, [line.replace('note: ', '')]]);
  });
});

describe('a photograph through a lens that bends', () => {
  it('comes out straight by the edges in sight: said, reported, and left as it is where that is wished', { timeout: 60_000 }, async () => {
    const photo = photographScene(
      { ...plateScene, widthMm: 180, heightMm: 130 },
      { widthPx: 1500, heightPx: 1100, tiltDegrees: 9, lensK: -0.06 },
    );
    writeFileSync(join(folder, 'bent.png'), await pngOf(photo.picture, null));
    const corners = [[0, 0], [180, 0], [180, 130], [0, 130]].map(([x, y]) => photo.at({ x: x as number, y: y as number })).map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`).join(','); // biome-ignore format: one line
    const trueUp = (...more: string[]) => nuvet('true-up', 'bent.png', '--frame', `${corners}=180mmx130mm`, ...more);
    const { code, out } = await trueUp('--out', 'straight.png', '--report', 'straight.json');
    expect([code, out]).toEqual([
      0,
      expect.stringMatching(/lens: edges were bowed by up to \d+\.\d px, which is taken out \(\d+ edges agree; --lens off leaves it\)/),
    ]);
    const { lens } = JSON.parse(textOf('straight.json'));
    expect(lens.k).toBeCloseTo(-0.06, 2);
    const off = await trueUp('--lens', 'off', '--out', 'as-it-was.png', '--report', 'as-it-was.json');
    expect([off.code, off.out]).toEqual([0, expect.not.stringContaining('lens')]);
    expect(JSON.parse(textOf('as-it-was.json')).lens).toBeNull();
    expect((await trueUp('--lens', 'wide', '--out', 'x.png')).error).toMatch(/--lens wide: auto and off are there/);
  });
});

describe('lines drawn wide', () => {
  it('are cut along their middle, or round their outline where that is said', async () => {
    const middle = await nuvet('make', 'wide.svg', '--for', 'laser', '--anyway', '--out', 'middle.dxf');
    expect([middle.code, middle.out]).toEqual([
      0,
      expect.stringMatching(/60\.00 x 0\.00 mm[\s\S]*drawn up to 6\.0 mm wide: the middle is taken/),
    ]);
    expect((await nuvet('make', 'wide.svg', '--for', 'laser', '--strokes', 'outline', '--out', 'outline.dxf')).out).toMatch(
      /60\.00 x 6\.00 mm/,
    );
    expect((await nuvet('prove', 'wide.svg', '--strokes', 'both')).error).toMatch(/--strokes both: middle and outline are there/);
  });
});
