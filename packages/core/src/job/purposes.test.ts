import { describe, expect, it } from 'vitest';
import { type FilePiece, readDxf, readHpgl, readSvg, writeDxf, writeHpgl, writeSvg } from '../formats/index.ts';
import { circlePath } from '../plane/index.ts';
import { finished } from '../steps.ts';
import { isFollowed, machineSchema, makeOf, mustClose, type Purpose, purposeKinds, purposeNamed, purposes } from './index.ts';

const ring = (purpose: Purpose): FilePiece => ({ name: `ring to ${purpose}`, purpose, outer: circlePath({ x: 20, y: 20 }, 8), holes: [] });
const zigzag = (purpose: Purpose): FilePiece => ({
  name: 'zigzag',
  purpose,
  outer: { start: { x: 0, y: 0 }, segments: [{ kind: 'line', to: { x: 10, y: 4 } }, { kind: 'line', to: { x: 20, y: 0 } }], closed: false }, // biome-ignore format: points
  holes: [],
});

describe('purposes', () => {
  it('each have a pen and a turn of their own', () => {
    for (const of of ['pen', 'order'] as const) expect(new Set(purposes.map((p) => purposeKinds[p][of])).size).toBe(purposes.length);
  });
  it('are told apart on the table and in print by more than colour: no two look alike', () => {
    const looks = purposes.map((p) => purposeKinds[p].look).map(({ widthMm, dashMm }) => `${widthMm} ${dashMm.join(' ')}`);
    expect(new Set(looks).size).toBe(purposes.length);
  });
  it('mark the surface before they part it (common practice)', () => {
    const turn = (p: Purpose): number => purposeKinds[p].order;
    for (const marks of ['engrave', 'pocket', 'stitch', 'score'] as const)
      for (const parts of ['perforate', 'cut'] as const) expect(turn(marks)).toBeLessThan(turn(parts));
    expect(turn('perforate')).toBeLessThan(turn('cut'));
  });
  it('must close where there is an inside to make, and nothing follows a guide', () => {
    expect(purposes.filter((purpose) => mustClose({ purpose }))).toEqual(['cut', 'pocket']);
    expect(purposes.filter((purpose) => !isFollowed({ purpose }))).toEqual(['pocket', 'guide']);
    expect(purposes.filter((purpose) => makeOf({ purpose }) === 'nothing')).toEqual(['guide']);
  });
  it('are understood from what makers call their layers', () => {
    const said: Record<string, Purpose | null> = {
      CUT: 'cut', 'Outline, outer': 'cut', 'fold lines': 'score', CREASE: 'score', 'score cut': 'score', tear_off: 'perforate',
      'perf-cut': 'perforate', ETCH: 'engrave', 'Engraving 2': 'engrave', Pocket_6mm: 'pocket', 'quilting lines': 'stitch', sew: 'stitch',
      construction: 'guide', 'Layer 1': null, '0': null,
    }; // biome-ignore format: a table
    for (const [name, purpose] of Object.entries(said)) expect([name, purposeNamed(name)]).toEqual([name, purpose]);
  });
  it('come back from SVG and DXF as they were written, closed and open', () => {
    for (const purpose of purposes)
      for (const piece of mustClose({ purpose }) ? [ring(purpose)] : [ring(purpose), zigzag(purpose)]) {
        const found = [finished(readSvg(writeSvg([piece], 'work'))), finished(readDxf(writeDxf([piece], 'work')))];
        for (const { outlines } of found) expect(outlines.map((o) => [o.purpose, o.path.closed])).toEqual([[purpose, piece.outer.closed]]);
      }
  });
  it('come back from a plot, each by its pen', () => {
    const machine = machineSchema.parse({});
    const box = { minX: 0, minY: 0, maxX: 40, maxY: 40 };
    const toolpaths = purposes
      .filter((p) => makeOf({ purpose: p }) !== 'nothing')
      .map((purpose) => ({ ...ring(purpose), path: ring(purpose).outer, overscanMm: 0 }));
    const powerSettingOf = (p: Purpose) => purposeKinds[p].settings;
    const plot = readHpgl(writeHpgl(toolpaths, { machine, box, powerSettingOf }));
    expect(plot.toolpaths.map((t) => t.purpose)).toEqual(toolpaths.map((t) => t.purpose));
  });
});
