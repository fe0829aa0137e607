import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { readPathData } from '@nuvet/core/formats';
import { type Point, stepsOf } from '@nuvet/core/plane';
import { greyPicture } from '@nuvet/core/raster';
import {
  badgeSheet,
  colourPngOf,
  jpegOf,
  linesScene,
  onScaleCard,
  photographScene,
  plateScene,
  pngOf,
  scanColours,
  scanScene,
  tiffOf,
} from '@nuvet/truth';
import { PDFDocument } from 'pdf-lib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { nuvetIn } from '../../../tests/unit/nuvet-command.ts';
import { dxfSeenByEzdxf, svgSeen } from '../../../tests/unit/outside-readers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-cli-'));
const scan = scanScene(plateScene, { dpi: 300, tiltDegrees: 1.7, noise: 5, seed: 21 });
const mark = (name: 'width' | 'level') =>
  (plateScene.marks?.[name] ?? [])
    .map((p) => scan.at(p))
    .map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`)
    .join(',');

const nuvet = nuvetIn(folder);

/** Of the straight sides of a file's outlines, how many there are and how many are neither level nor plumb to the file's last digit. */
function levelAndPlumb(svg: string): { straight: number; askew: number } {
  const paths = [...svg.matchAll(/ d="([^"]+)"/g)].flatMap(([, d]) => readPathData(d as string, 1e-6).paths);
  const sides = paths.flatMap((path) =>
    stepsOf(path).flatMap(({ from, segment }) =>
      segment.kind === 'line' ? [[segment.to.x - from.x, segment.to.y - from.y] as const] : [],
    ),
  );
  // What rounding leaves between the last point and the first is no side.
  const long = sides.filter(([x, y]) => Math.hypot(x, y) > 1);
  return { straight: long.length, askew: long.filter(([x, y]) => Math.min(Math.abs(x), Math.abs(y)) > 1.5e-4).length };
}

beforeAll(async () => {
  writeFileSync(join(folder, 'plate.png'), await pngOf(scan.picture, null));
  writeFileSync(join(folder, 'plate300.jpg'), await jpegOf(scan.picture, 300));
  writeFileSync(join(folder, 'text.png'), 'not a picture');
  writeFileSync(join(folder, 'broken.pdf'), '%PDF-1.7 and then nothing');
  writeFileSync(join(folder, 'short.jpg'), readFileSync(join(folder, 'plate300.jpg')).subarray(0, 20_000));
  writeFileSync(
    join(folder, 'blank.png'),
    await pngOf(scanScene({ name: 'blank', widthMm: 30, heightMm: 30, pieces: [] }, { dpi: 100 }).picture, 100),
  );
});
afterAll(() => rmSync(folder, { recursive: true }));

describe('nuvet trace', () => {
  it('brings a tilted scan to size by one known length and one level line', async () => {
    const run = await nuvet(
      'trace',
      'plate.png',
      '--out',
      'plate.svg',
      '--out',
      'plate.dxf',
      '--report',
      'plate.json',
      '--known',
      `${mark('width')}=90mm`,
      '--level',
      mark('level'),
    );
    expect(run).toMatchObject({ code: 0, error: '' });
    const report = JSON.parse(readFileSync(join(folder, 'plate.json'), 'utf8'));
    expect(report.mmPerPixel).toBeCloseTo(25.4 / 300, 5);
    expect(report.rotationDegrees).toBeCloseTo(-1.7, 2);
    expect(report.residuals).toHaveLength(2);
    expect(report.pieces).toMatchObject([{ name: 'Piece 1', holes: 5 }]);
    // 90 x 60 less the corners, four holes of 6 and an oval of 30 x 16.
    expect(report.pieces[0].areaMm2 / (5400 - (4 - Math.PI) * 64 - 36 * Math.PI - 120 * Math.PI)).toBeCloseTo(1, 3);
    const svg = svgSeen(readFileSync(join(folder, 'plate.svg'), 'utf8'));
    const [dxf] = dxfSeenByEzdxf(join(folder, 'plate.dxf'));
    for (const [width, height] of [
      [svg.widthMm, svg.heightMm],
      dxf?.max ?? [0, 0],
      [report.pieces[0].widthMm, report.pieces[0].heightMm],
    ]) {
      expect(Math.abs((width as number) - 90)).toBeLessThan(0.1);
      expect(Math.abs((height as number) - 60)).toBeLessThan(0.1);
    }
    expect(dxf).toMatchObject({ errors: [], fixes: [] });
  });
  it('takes the resolution that the file states', async () => {
    expect(await nuvet('trace', 'plate300.jpg', '--out', 'b.svg', '--report', 'b.json')).toMatchObject({ code: 0 });
    expect(JSON.parse(readFileSync(join(folder, 'b.json'), 'utf8'))).toMatchObject({ scaleFrom: 'resolution', mmPerPixel: 25.4 / 300 });
  });

  it.concurrent.each([
    [['trace', 'plate.png', '--out', 'x.svg'], /true size is not known: add --dpi N or --known/],
    [['trace', 'gone.png', '--out', 'x.svg'], /no such file/],
    [['trace', 'text.png', '--out', 'x.svg'], /not a picture that Nuvet can read/],
    [['trace', 'short.jpg', '--out', 'x.svg'], /damaged or was cut short/],
    [['trace', 'blank.png', '--out', 'x.svg'], /no shape was found/],
    [['trace', 'plate.png', '--dpi', '0', '--out', 'x.svg'], /--dpi 0/],
    [['trace', 'plate.png', '--dpi', '300', '--out', 'x.pdf'], /must end in .svg or .dxf/],
    [['trace', 'plate.png', '--dpi', '300'], /name a file to write/],
    [['trace', 'plate.png', '--known', '1,2,3=5mm', '--out', 'x.svg'], /four numbers/],
    [['trace', 'plate.png', '--known', '1,2,3,4=6 furlongs', '--out', 'x.svg'], /furlongs/],
    [['trace', 'plate.png', '--known', '1,2,1,2=6in', '--out', 'x.svg'], /same place/],
    [['trace', 'plate.png', '--dpi', '300', '--threshold', '300', '--out', 'x.svg'], /0 to 255/],
    [['trace', 'plate.png', '--dpi', '300', '--tolerance', '0', '--out', 'x.svg'], /more than zero/],
    [['trace', 'plate.png', '--dpi', '300', '--frobnicate', '--out', 'x.svg'], /frobnicate/],
    [['trace', 'plate.png', '--dpi', '300', '--out', 'x.svg', '--out', 'none/x.dxf'], /no such folder/],
    [['trace', 'plate.png', '--frame', '1,2,3,4,5,6,7,8=210mm', '--out', 'x.svg'], /write X1,Y1,...,X4,Y4=WxH/],
    [['trace', 'plate.png', '--frame', '0,0,100,0,200,0,0,100=21cmx29cm', '--out', 'x.svg'], /Three corners of the frame lie in one line/],
    [['trace', 'plate.png', '--known', '1,2,300,4=6in', '--model', 'perspective', '--out', 'x.svg'], /cannot carry it/],
    [['trace', 'plate.png', '--scale-card', '--out', 'x.svg'], /scale card was not found/],
    [['trace', 'plate.png', '--dpi', '300', '--page', '2', '--out', 'x.svg'], /has 1 pages; there is no page 2/],
    [['trace', 'broken.pdf', '--out', 'x.svg'], /damaged, or is no PDF/],
    [['true-up', 'plate.png', '--dpi', '300', '--out', 'x.svg'], /must end in .png/],
    [['tarce'], /not a command/],
  ])('%s: exit 2, one line, no file', async (words, message) => {
    const { code, out, error } = await nuvet(...words);
    expect(code).toBe(2);
    expect(out).toBe('');
    expect(error).toMatch(message);
    expect(error.trim().split('\n')).toHaveLength(1);
    expect(readdirSync(folder).filter((f) => f.startsWith('x.'))).toEqual([]);
  });
});

describe('nuvet true-up', () => {
  const photo = photographScene(
    { ...plateScene, widthMm: 180, heightMm: 130 },
    { widthPx: 2000, heightPx: 1500, tiltDegrees: 22, seed: 6 },
  );
  const corners = [[0, 130], [180, 130], [180, 0], [0, 0]].map(([x, y]) => photo.at({ x, y } as Point)).map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`).join(','); // biome-ignore format: the sheet's corners
  beforeAll(async () => {
    writeFileSync(join(folder, 'photo.jpg'), await jpegOf(photo.picture, 72));
    const card = photographScene(onScaleCard(plateScene, { x: 45, y: 100 }), { widthPx: 1700, heightPx: 2300, tiltDegrees: 20, seed: 3 });
    writeFileSync(join(folder, 'card.jpg'), await jpegOf(card.picture, 72));
    const pdf = await PDFDocument.create();
    const mm = 72 / 25.4;
    pdf.addPage([100 * mm, 80 * mm]);
    pdf.addPage([120 * mm, 90 * mm]).drawRectangle({ x: 20 * mm, y: 20 * mm, width: 80 * mm, height: 45 * mm });
    writeFileSync(join(folder, 'pages.pdf'), await pdf.save());
    writeFileSync(join(folder, 'pages.tif'), tiffOf([scan.picture, scanScene(plateScene, { dpi: 200 }).picture], 200));
  });

  it('lays a photograph flat by its frame, states its resolution, and reports the fit', async () => {
    const run = await nuvet('true-up', 'photo.jpg', '--frame', `${corners}=18cmx13cm`, '--out', 'flat.png', '--report', 'flat.json');
    expect(run).toMatchObject({ code: 0, error: '' });
    const report = JSON.parse(readFileSync(join(folder, 'flat.json'), 'utf8'));
    expect(report).toMatchObject({ model: 'perspective', recommended: 'perspective', outliers: [] });
    expect(report.matrix).toHaveLength(3);
    expect(report.expect.plusMinusMm).toBeGreaterThan(0);
    const { density = 0, width = 0 } = await sharp(join(folder, 'flat.png')).metadata();
    expect((width / density) * 25.4).toBeGreaterThan(180);
    // Traced by nothing but the resolution that the file states, the plate has its size.
    const again = await nuvet('trace', 'flat.png', '--smallest', '5mm', '--out', 'flat.svg', '--report', 'again.json');
    expect(again.code).toBe(0);
    const { pieces } = JSON.parse(readFileSync(join(folder, 'again.json'), 'utf8'));
    const plate = pieces.find((p: { holes: number; widthMm: number }) => p.holes === 5 && Math.abs(p.widthMm - 90) < 5);
    expect(Math.abs(plate.widthMm - 90)).toBeLessThan(0.3);
    expect(Math.abs(plate.heightMm - 60)).toBeLessThan(0.3);
  });
  it('finds the scale card, and trace works on the picture laid flat', async () => {
    const run = await nuvet('trace', 'card.jpg', '--scale-card', '--smallest', '8mm', '--out', 'card.svg', '--report', 'card.json');
    expect(run).toMatchObject({ code: 0 });
    const { pieces, model } = JSON.parse(readFileSync(join(folder, 'card.json'), 'utf8'));
    expect(model).toBe('perspective');
    expect(
      pieces.some(
        (p: { widthMm: number; heightMm: number }) => Math.abs(p.widthMm / 90 - 1) < 0.006 && Math.abs(p.heightMm / 60 - 1) < 0.006,
      ),
    ).toBe(true);
  });
  it('straightens by itself, and names a mark whose unit is wrong', async () => {
    const run = await nuvet(
      'true-up', 'plate.png', '--straighten', 'auto', '--known', `${mark('width')}=90mm`, '--known', `${mark('level')}=8mm`,
      '--known', `${mark('width')}=9cm`, '--out', 'straight.png', '--report', 'straight.json',
    ); // biome-ignore format: an option a pair
    expect(run.code).toBe(0);
    expect(run.out).toMatch(/look: known 2 does not agree with the other marks: it looks like centimetres/);
    const report = JSON.parse(readFileSync(join(folder, 'straight.json'), 'utf8'));
    expect(report.rotationDegrees).toBeCloseTo(-1.7, 1);
    expect(report.outliers).toMatchObject([{ mark: 'known 2', looksLike: 'centimetres' }]);
  });
  it('takes a page of a PDF and of a TIFF', async () => {
    expect((await nuvet('trace', 'pages.pdf', '--page', '2', '--out', 'pdf.svg', '--report', 'pdf.json')).error).toBe('');
    const [only] = JSON.parse(readFileSync(join(folder, 'pdf.json'), 'utf8')).pieces;
    expect(Math.abs(only.widthMm - 80)).toBeLessThan(0.05);
    expect(Math.abs(only.heightMm - 45)).toBeLessThan(0.05);
    expect((await nuvet('trace', 'pages.tif', '--page', '2', '--out', 'tif.svg', '--report', 'tif.json')).code).toBe(0);
    expect(JSON.parse(readFileSync(join(folder, 'tif.json'), 'utf8')).pieces[0].widthMm).toBeCloseTo(90, 1);
  });
});

describe('nuvet trace of many pictures', () => {
  it('traces a folder over all cores, names the bad one, and writes the rest', async () => {
    const many = join(folder, 'many');
    mkdirSync(many);
    // More than there are threads, so that each takes one after the other.
    const names = Array.from({ length: 2 * availableParallelism() + 1 }, (_, k) => `scan ${String.fromCharCode(97 + k)}`).slice(0, 20);
    const png = await pngOf(scan.picture, 300);
    for (const name of names) writeFileSync(join(many, `${name}.png`), png);
    writeFileSync(join(many, 'bad.png'), 'not a picture');
    const run = await nuvet('trace', 'many', '--out-dir', 'cut', '--to', 'dxf,svg');
    expect(run.code).toBe(2);
    expect(readdirSync(join(folder, 'cut')).sort()).toEqual(names.flatMap((name) => [`${name}.dxf`, `${name}.svg`]));
    const lines = run.out.trim().split('\n');
    expect(lines.at(-1)).toBe(`${names.length} traced, 1 not`);
    expect(lines[0]).toContain('not a picture that Nuvet can read');
    expect(lines[1]).toMatch(/scan a\.png +1 piece, 9\d\.\d\d x 6\d\.\d\d mm/);
    expect(run.error).toContain(`${names.length + 1} of ${names.length + 1}`);
  });
  it('refuses what does not go together before anything is traced', async () => {
    expect(await nuvet('trace', 'plate.png', '--out-dir', 'cut', '--out', 'a.svg')).toMatchObject({ code: 2, out: '' });
    expect(await nuvet('trace', 'plate.png', '--out-dir', 'cut', '--to', 'bmp')).toMatchObject({ code: 2, out: '' });
    expect((await nuvet('trace', 'plate.png', '--out-dir', 'cut', '--tolerance', 'soon')).error).toContain('--tolerance');
  });
});

describe('what is taken', () => {
  it('middles of lines come out open and creases as their own layer', async () => {
    writeFileSync(join(folder, 'lines.png'), await pngOf(scanScene(linesScene, { dpi: 300, seed: 4 }).picture, 300));
    const run = await nuvet('trace', 'lines.png', '--out', 'lines.dxf', '--take', 'network');
    expect(run).toMatchObject({ code: 0, error: '' });
    const dxf = readFileSync(join(folder, 'lines.dxf'), 'utf8');
    expect(dxf).toContain('SCORE');
    expect(run.out).toContain('7 pieces');
  });
  it('a mirrored piece is exactly so', async () => {
    const run = await nuvet('trace', 'plate300.jpg', '--out', 'even.svg', '--straighten', 'auto', '--symmetry', 'mirror');
    expect(run).toMatchObject({ code: 0, error: '' });
    expect(await nuvet('trace', 'plate.png', '--out', 'x.svg', '--symmetry', '1')).toMatchObject({ code: 2 });
    expect((await nuvet('trace', 'plate.png', '--out', 'x.svg', '--take', 'all')).error).toContain('line-outer');
  });
  it('areas of several colours come out on the layers of what is done along them', async () => {
    writeFileSync(join(folder, 'badge.png'), await colourPngOf(scanColours(badgeSheet, { dpi: 200 }).picture, 200));
    const words = ['trace', 'badge.png', '--out', 'badge.dxf', '--report', 'badge.json'];
    const run = await nuvet(...words, '--colours', '#b23a2e=cut,#263e70=engrave,#468054=score,#ecb23c');
    expect(run).toMatchObject({ code: 0, error: '' });
    expect(run.out).toContain('6 pieces, 54.');
    const dxf = readFileSync(join(folder, 'badge.dxf'), 'utf8');
    for (const layer of ['CUT', 'ENGRAVE', 'SCORE']) expect(dxf).toContain(layer);
    expect((await nuvet(...words, '--colours', 'red=cut')).error).toContain('#rrggbb=PURPOSE');
    expect((await nuvet(...words, '--colours', '#b23a2e=burn')).error).toContain('engrave');
  });
  it('the dark border of a scan is left out and told, or kept', async () => {
    const { width, height, data } = scanScene(plateScene, { dpi: 100, seed: 5 }).picture;
    const lid = data.map((v, k) => (k % width < 9 || Math.floor(k / width) > height - 7 ? 25 : v));
    writeFileSync(join(folder, 'lid.png'), await pngOf(greyPicture(lid, width, height), 100));
    const out = await nuvet('trace', 'lid.png', '--out', 'lid.svg');
    expect(out.out).toMatch(/lid\.svg: 1 piece, [\s\S]*the dark border of the scan was left out; --borders keeps it/);
    expect((await nuvet('trace', 'lid.png', '--borders', '--out', 'kept.svg')).out).toContain('kept.svg: 2 pieces');
  });
  it('walls stand along lines at their thickness, closed', async () => {
    writeFileSync(join(folder, 'maze.png'), await pngOf(scanScene(linesScene, { dpi: 200, seed: 4 }).picture, 200));
    const run = await nuvet('trace', 'maze.png', '--out', 'maze.dxf', '--take', 'network', '--wall', '2mm');
    expect(run).toMatchObject({ code: 0, error: '' });
    const [drawn] = dxfSeenByEzdxf(join(folder, 'maze.dxf'));
    // A frame of 90 mm, and half a wall outside it on either side.
    expect(drawn?.max[0]).toBeGreaterThan(91.9);
    expect((await nuvet('trace', 'maze.png', '--out', 'x.svg', '--wall', '2mm')).error).toContain('--take network');
  });
  it('relations are made exact', async () => {
    const run = await nuvet('trace', 'plate300.jpg', '--out', 'square.svg', '--straighten', 'auto', '--relations', 'on');
    expect(run).toMatchObject({ code: 0, error: '' });
    const steps = levelAndPlumb(readFileSync(join(folder, 'square.svg'), 'utf8'));
    expect(steps.straight).toBeGreaterThanOrEqual(4);
    expect(steps.askew).toBe(0);
    expect((await nuvet('trace', 'plate.png', '--out', 'x.svg', '--relations', 'maybe')).error).toContain('on and off');
  });
});
