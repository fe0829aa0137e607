/** `nuvet wing`. */
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { nacaAirfoil } from '@nuvet/core/foam';
import { readWireProgram } from '@nuvet/core/formats';
import { HotWire } from '@nuvet/cutter/hot-wire';
import { afterAll, describe, expect, it } from 'vitest';
import { nuvetIn } from '../../../tests/unit/nuvet-command.ts';
import { dxfSeenByEzdxf } from '../../../tests/unit/outside-readers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-wing-'));
afterAll(() => rmSync(folder, { recursive: true }));
const nuvet = nuvetIn(folder);
const read = (name: string): string => readFileSync(join(folder, name), 'utf8');
const panel = ['--root', 'naca 2412', '--root-chord', '200mm', '--tip', 'naca 0012', '--tip-chord', '150mm', '--span', '400mm', '--sweep', '30mm', '--washout', '2']; // biome-ignore format: one line

describe('nuvet wing', () => {
  it('writes a program that cuts the panel, templates at their size, and a report of both sections', async () => {
    const { code, out } = await nuvet('wing', ...panel, '--out', 'wing.gcode', '--out', 'wing.dxf', '--report', 'wing.json');
    expect([code, out]).toEqual([0, expect.stringMatching(/NACA 2412 to NACA 0012: .* min at 300 mm\/min; files off by 0.000 mm/)]);
    const report = JSON.parse(read('wing.json'));
    expect(report.root).toMatchObject({ section: 'NACA 2412', chordMm: 200, camber: expect.closeTo(0.02, 4), camberAt: 0.4 });
    expect(report.tip).toMatchObject({ chordMm: 150, thickness: expect.closeTo(0.12, 3), thicknessAt: expect.closeTo(0.3, 1), camber: 0 });
    const wire = new HotWire({ burnMm: 0, burnMm2PerMin: 0, betweenMm: 600, toBlockMm: 100, spanMm: 400, axes: ['U', 'V'], fastestMmPerMin: 1000 }); // biome-ignore format: one line
    for (const line of read('wing.gcode').split('\n')) wire.read(line);
    // The root's face is the published section at its size.
    const { upper } = nacaAirfoil('2412');
    expect(
      wire.offBy(
        0,
        upper.segments.map(({ to }) => ({ x: 200 * to.x, y: 200 * to.y })),
      ).mostMm,
    ).toBeLessThan(0.01);
    const [dxf] = dxfSeenByEzdxf(join(folder, 'wing.dxf'));
    expect(dxf?.errors).toEqual([]);
  });
  it('reads sections from files, cuts pairs, slots and sheeting, and keeps a tower from going too fast', async () => {
    const { upper, lower } = nacaAirfoil('4415');
    const nodes = (path: typeof upper) => [path.start, ...path.segments.map(({ to }) => to)];
    const rows = [...nodes(upper).reverse(), ...nodes(lower).slice(1)].map(({ x, y }) => `${x.toFixed(6)} ${y.toFixed(6)}`);
    writeFileSync(join(folder, 'mill.dat'), ['Mill 15', ...rows].join('\n'));
    const { code, out } = await nuvet('wing', '--root', 'mill.dat', '--root-chord', '8in', '--span', '20in', '--tip-chord', '4in', '--sheeting', '1/16in', '--trailing', '10mm', '--spar', '30% lower 6mm x 4mm', '--burn', '1mm@200', '--burn', '0.7mm@400', '--fastest', '250', '--axes', 'AB', '--pair', '--out', 'mill.gcode'); // biome-ignore format: one line
    expect([code, out]).toEqual([0, expect.stringContaining('slowed down for the towers')]);
    expect(existsSync(join(folder, 'mill-mirrored.gcode'))).toBe(true);
    const [own, other] = ['mill.gcode', 'mill-mirrored.gcode'].map((name) => readWireProgram(read(name), 'AB'));
    // The other panel is the same between the towers, seen from the other side.
    own?.forEach(({ left, right }, k) => {
      expect(other?.[k]?.right).toEqual({ x: expect.closeTo(left.x, 3), y: expect.closeTo(left.y, 3) });
      expect(other?.[k]?.left).toEqual({ x: expect.closeTo(right.x, 3), y: expect.closeTo(right.y, 3) });
    });
  });
  it.each([
    [[], /say the section at the root/],
    [['--root', 'naca 24'], /--root-chord is needed/],
    [['--root', 'naca 24', '--root-chord', '200mm', '--span', '400mm', '--out', 'x.gcode'], /“24” names no section/],
    [['--root', 'not-there.dat', '--root-chord', '200mm', '--span', '400mm', '--out', 'x.gcode'], /a file of coordinates that is there/],
    [[...panel, '--out', 'x.pdf'], /must end in .gcode, .dxf or .svg/],
    [[...panel, '--towers', '300mm', '--out', 'x.gcode'], /lie between the towers/],
    [[...panel, '--sheeting', '20mm', '--out', 'x.gcode'], /leaves nothing of the core/],
    [[...panel, '--washout', 'much', '--out', 'x.gcode'], /a number from -45 to 45/],
    [[...panel, '--spar', 'front', '--out', 'x.gcode'], /write it as "30% upper 6mm x 4mm"/],
  ] as const)('%j: refused in one line, no file', async (words, said) => {
    const { code, error } = await nuvet('wing', ...words);
    expect([code, error]).toEqual([2, expect.stringMatching(said)]);
    expect(existsSync(join(folder, 'x.gcode'))).toBe(false);
  });
});
