/** `nuvet make --for solid`. */
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { read3mf, readStl } from '@nuvet/core/formats';
import { eulerCharacteristic, openEdges, sizeOf } from '@nuvet/core/solid';
import { afterAll, describe, expect, it } from 'vitest';
import { nuvetIn, nuvetProcessIn } from '../../../tests/unit/nuvet-command.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-solid-'));
afterAll(() => rmSync(folder, { recursive: true }));
const nuvet = nuvetIn(folder);
const bytesOf = (name: string): Uint8Array => new Uint8Array(readFileSync(join(folder, name)));
writeFileSync(
  join(folder, 'plate.svg'),
  '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="60mm" viewBox="0 0 80 60"><path fill="black" fill-rule="evenodd" d="M10 10 H70 V50 H10 Z M30 20 H50 V40 H30 Z"/></svg>',
);

describe('nuvet make --for solid', () => {
  it('works as a person runs it, as a process of its own', async () => {
    const { code, error } = await nuvetProcessIn(folder)('make', 'plate.svg', '--for', 'solid', '--thickness', '4mm', '--out', 'own.stl');
    expect([code, error]).toEqual([0, '']);
    expect(sizeOf(readStl(bytesOf('own.stl'))).volumeMm3).toBeCloseTo((60 * 40 - 400) * 4, -0.5);
  });
  it('makes a plate as thick as said on a base, as STL and 3MF, and reports what it holds', async () => {
    const { code, out, error } = await nuvet('make', 'plate.svg', '--for', 'solid', '--thickness', '4mm', '--base', '2mm', '--out', 'part.stl', '--out', 'part.3mf', '--report', 'part.json'); // biome-ignore format: one line
    expect([code, error]).toEqual([0, '']);
    expect(out).toMatch(/part\.stl: 0\.0000? mm off at most|part\.stl/);
    // The base is 3 mm wider all round, its corners rounded by 3 mm.
    const volumeMm3 = (60 * 40 - 400) * 4 + (66 * 46 - (4 - Math.PI) * 9) * 2;
    for (const mesh of [readStl(bytesOf('part.stl')), read3mf(bytesOf('part.3mf'))[0]?.mesh]) {
      if (!mesh) throw new Error('no body');
      expect(openEdges(mesh)).toBe(0);
      expect(eulerCharacteristic(mesh)).toBe(2);
      expect(sizeOf(mesh).volumeMm3).toBeCloseTo(volumeMm3, -0.5);
      expect([sizeOf(mesh).min[2], sizeOf(mesh).max[2]]).toEqual([expect.closeTo(-2, 4), expect.closeTo(4, 4)]);
    }
    const report = JSON.parse(readFileSync(join(folder, 'part.json'), 'utf8'));
    expect(report).toMatchObject({
      bodies: [{ isClosed: true }],
      layers: 30,
      printed: { layers: 30, volumeMm3: expect.closeTo(volumeMm3, -2.3) },
      volumeMm3: expect.closeTo(volumeMm3, -0.5),
    });
  });
  it.each([
    [['--thickness', 'thick'], /--thickness thick/],
    [['--thickness', '0'], /--thickness 0|Nothing is left/],
  ] as const)('%j: refused in one line, no file', async (words, said) => {
    const { code, error } = await nuvet('make', 'plate.svg', '--for', 'solid', ...words, '--out', 'none.stl');
    expect([code > 0, error.trim().split('\n').length]).toEqual([true, 1]);
    expect(error).toMatch(said);
    expect(existsSync(join(folder, 'none.stl'))).toBe(false);
  });
});
