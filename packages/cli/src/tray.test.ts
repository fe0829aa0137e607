/** `nuvet make --for tray`, and what foam writes beside its formers. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readWireProgram } from '@nuvet/core/formats';
import { defaultTraceSettings, documentOf, emptyJob, newPicture, type Piece, seenFrom } from '@nuvet/core/job';
import { rectanglePath } from '@nuvet/core/plane';
import { markerCorners } from '@nuvet/core/trueup';
import { onScaleCard, photographScene, type Scene } from '@nuvet/truth';
import Papa from 'papaparse';
import { afterAll, describe, expect, it } from 'vitest';
import { nuvetIn } from '../../../tests/unit/nuvet-command.ts';
import { dxfSeenByEzdxf } from '../../../tests/unit/outside-readers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-tray-'));
afterAll(() => rmSync(folder, { recursive: true }));
const nuvet = nuvetIn(folder);
const drawn = (name: string, inside: string): string => {
  writeFileSync(
    join(folder, name),
    `<svg xmlns="http://www.w3.org/2000/svg" width="700mm" height="400mm" viewBox="0 0 700 400" fill="black">${inside}</svg>`,
  );
  return name;
};
const tools = drawn('tools.svg', '<rect x="20" y="20" width="160" height="14"/><rect x="40" y="60" width="90" height="30"/><circle cx="240" cy="70" r="25"/>'); // biome-ignore format: one line

describe('nuvet make --for tray', () => {
  it('lays what was drawn in a drawer: sheets with pockets as a drawing, a list, a report', async () => {
    const { code, error } = await nuvet('make', tools, '--for', 'tray', '--drawer', '300x200mm', '--clearance', '1mm', '--height', '20mm', '--stock', 'Foam, 15mm', '--out', 'tray.dxf', '--out', 'list.csv', '--out', 'tray.pdf', '--report', 'tray.json'); // biome-ignore format: one line
    expect([code, error]).toEqual([0, '']);
    const [dxf] = dxfSeenByEzdxf(join(folder, 'tray.dxf'));
    expect(dxf?.errors).toEqual([]);
    const [head, ...rows] = Papa.parse<string[]>(readFileSync(join(folder, 'list.csv'), 'utf8'), { skipEmptyLines: true }).data;
    expect([head?.[0], rows.length]).toEqual(['number', 3]);
    const report = JSON.parse(readFileSync(join(folder, 'tray.json'), 'utf8'));
    expect(report).toMatchObject({ tray: { widthMm: 300, lengthMm: 200, sheets: [{ thicknessMm: 15, cuts: 3 }] }, camera: null });
  });
  it('brings outlines of a photograph to their true size by their height and where the camera was', async () => {
    const card = onScaleCard({ name: '', widthMm: 0, heightMm: 0, pieces: [] } as Scene, { x: 0, y: 0 });
    const photo = photographScene(card, { widthPx: 900, heightPx: 1200, tiltDegrees: 16, seed: 5 });
    const places = [[-75, 110], [75, 110], [75, -110], [-75, -110]].flatMap(([x, y]) => markerCorners({ x: x as number, y: y as number })); // biome-ignore format: one line
    const points = places.map(({ x, y }) => photo.at({ x: x + 105, y: y + 148.5 }));
    const id = '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10';
    const picture = { ...newPicture({ id, name: 'tools.jpg', widthPx: 900, heightPx: 1200, resolution: null }), marks: [{ id: 'card', kind: 'scale-card' as const, points, places, stated: [{ text: '100', value: 100 }] }] }; // biome-ignore format: one line
    const { camera } = seenFrom(picture, null) as NonNullable<ReturnType<typeof seenFrom>>;
    // A round plate 30 mm high about the place under the camera is seen z / (z - 30) times as large.
    const grow = camera.z / (camera.z - 30);
    const seen = rectanglePath({ minX: camera.x - 20 * grow, minY: camera.y - 20 * grow, maxX: camera.x + 20 * grow, maxY: camera.y + 20 * grow }); // biome-ignore format: one line
    const piece: Piece = { id: 'block', name: 'Block', purpose: 'cut', leftOut: false, runsOff: false, outer: seen, holes: [] };
    const trace = { pictureId: id, settings: defaultTraceSettings, threshold: 128, dropped: 0, insideFrame: false, mmPerPx: 0.3, toSheet: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 }, projection: null, pieces: [piece] }; // biome-ignore format: one line
    writeFileSync(join(folder, 'job.json'), JSON.stringify(documentOf({ ...emptyJob('Tools'), pictures: [picture], traces: [trace] })));
    const { code, error } = await nuvet('make', 'job.json', '--for', 'tray', '--height', '30mm', '--upright', '--out', 'list.csv', '--report', 'r.json', '--force'); // biome-ignore format: one line
    expect([code, error]).toEqual([0, '']);
    const report = JSON.parse(readFileSync(join(folder, 'r.json'), 'utf8'));
    expect(report.camera.heightMm).toBeCloseTo(photo.camera.z, 0);
    expect(report.camera.tiltDegrees).toBeCloseTo(16, 1);
    expect(report.objects[0]).toMatchObject({ widthMm: expect.closeTo(40, 2), lengthMm: expect.closeTo(40, 2) });
  });
  it.each([
    [['--drawer', '300'], /write it as 400x300mm/],
    [['--height', 'tall'], /--height tall/],
    [['--camera', '0'], /--camera 0/],
  ] as const)('%j: refused in one line, no file', async (words, said) => {
    const { code, error } = await nuvet('make', tools, '--for', 'tray', ...words, '--out', 'x.dxf');
    expect(code).not.toBe(0);
    expect(error).toMatch(said);
  });
});

describe('nuvet make --for foam', () => {
  it('writes a program for the wire for each former, and the sheet to build by', async () => {
    const float = drawn('float.svg', '<ellipse cx="340" cy="80" rx="150" ry="50"/><ellipse cx="340" cy="260" rx="150" ry="70"/>');
    const { code, error } = await nuvet('make', float, '--for', 'foam', '--board', '60mm', '--shell', '15mm', '--out', 'float.gcode', '--out', 'build.pdf'); // biome-ignore format: one line
    expect([code, error]).toEqual([0, '']);
    for (const part of ['01', '03', '05']) expect(readWireProgram(readFileSync(join(folder, `float-${part}.gcode`), 'utf8'), 'UV').length).toBeGreaterThan(40); // biome-ignore format: one line
    expect(readFileSync(join(folder, 'build.pdf')).subarray(0, 5).toString()).toBe('%PDF-');
  });
});
