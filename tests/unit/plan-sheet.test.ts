/** Plan sheets: what their dimensions say, where they stand, views and sections, and files that an outside program reads with their dimensions. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type PlanSheetSettings, plainPlanSheet, planSheet, type SheetPlan, sheetScales, textWidth } from '@nuvet/core/drafting';
import { type Piece, plainMachine, plainStock } from '@nuvet/core/job';
import { circlePath, type Path, type Point, pathBox, polygonPath, rectanglePath, reversedPath } from '@nuvet/core/plane';
import { type ProcessFileMade, processKinds } from '@nuvet/core/processes';
import { randomFrom } from '@nuvet/truth';
import { afterAll, describe, expect, it } from 'vitest';

const piece = (id: string, outer: Path, holes: readonly Path[] = []): Piece => ({ id, name: id, purpose: 'cut', leftOut: false, runsOff: false, outer, holes: [...holes] }); // biome-ignore format: one line
const stock = { ...plainStock, name: 'Brass', thicknessMm: 3 };
const hole = (x: number, y: number, r: number): Path => reversedPath(circlePath({ x, y }, r));
/** A bracket with a slanting corner and a round one, two holes alike and one larger. */
const bracket = piece('Bracket', { start: { x: 10, y: 20 }, segments: [{ kind: 'line', to: { x: 90, y: 20 } }, { kind: 'line', to: { x: 90, y: 50 } }, { kind: 'arc', to: { x: 80, y: 60 }, sweep: Math.PI / 2 }, { kind: 'line', to: { x: 30, y: 60 } }, { kind: 'line', to: { x: 10, y: 40 } }, { kind: 'line', to: { x: 10, y: 20 } }], closed: true }, [hole(25, 30, 3), hole(75, 30, 3), hole(50, 42, 6.25)]); // biome-ignore format: one line
const sheet = (change: Partial<PlanSheetSettings> = {}, pieces = [bracket]): SheetPlan => planSheet('Bell bracket', pieces, stock, { ...plainPlanSheet, ...change }); // biome-ignore format: one line
const said = ({ dimensions }: SheetPlan): string[] => dimensions.map(({ text: { text } }) => text);

describe('dimensions', () => {
  it('say what the outlines are: overall, holes from the datum, diameters, radii and angles', () => {
    const plan = sheet();
    expect(plan.scale).toBe('1:1');
    const of = (kind: string): number[] => plan.dimensions.filter((one) => one.kind === kind).map(({ value }) => Number(value.toFixed(6)));
    expect(of('horizontal')).toEqual([15, 40, 65, 80]);
    expect(of('vertical')).toEqual([10, 22, 40]);
    expect(of('diameter')).toEqual([12.5, 6]);
    expect(of('radius')).toEqual([10]);
    expect(of('angle')).toEqual([135, 135]);
    expect(said(plan)).toEqual(expect.arrayContaining(['80', 'Ø12.5', '2x Ø6', 'R10', '135°']));
  });
  it('from the middle count both ways; in inches they are decimal, to a thousandth', () => {
    const plan = sheet({ datum: 'middle', system: 'inch' });
    expect(plan.dimensions.filter(({ name }) => /^across/.test(name)).map(({ value }) => value)).toEqual([25, 25]);
    expect(said(plan)).toEqual(expect.arrayContaining(['3.150"', 'Ø0.492"', '2x Ø0.236"', 'R0.394"']));
  });
  it('are as long on the paper as they say, at any scale that there is', () => {
    for (const scale of Object.keys(sheetScales) as (keyof typeof sheetScales)[]) {
      const plan = sheet({ scale, paper: 'A1' });
      for (const { kind, from, to, value } of plan.dimensions) {
        const along = kind === 'horizontal' ? Math.abs(to.x - from.x) : kind === 'vertical' ? Math.abs(to.y - from.y) : null;
        if (along !== null) expect(along / sheetScales[scale]).toBeCloseTo(value, 9);
      }
    }
  });
  it('stand clear of the outlines and of one another, as long as there is room', () => {
    const random = randomFrom(5);
    for (let k = 0; k < 25; k++) {
      const [w, h] = [50 + 90 * random(), 30 + 50 * random()];
      const holes = Array.from({ length: 1 + Math.floor(3 * random()) }, (_, n) => hole(12 + n * (w / 4), 10 + (h - 20) * random(), 1.5 + 2 * random())); // biome-ignore format: one line
      const plan = sheet({}, [piece('Plate', rectanglePath({ minX: 0, minY: 0, maxX: w, maxY: h }), holes)]);
      const boxes = plan.dimensions
        .filter(({ kind }) => kind === 'horizontal' || kind === 'vertical')
        .map(({ text: { at, text, heightMm, degrees } }) => {
          const half = textWidth(text, heightMm) / 2;
          return degrees === 0 ? { minX: at.x - half, maxX: at.x + half, minY: at.y, maxY: at.y + heightMm } : { minX: at.x - heightMm, maxX: at.x, minY: at.y - half, maxY: at.y + half }; // biome-ignore format: one line
        });
      const view = pathBox(plan.front[0] as Path);
      const meet = (a: (typeof boxes)[0], b: (typeof boxes)[0]): boolean => a.minX < b.maxX && b.minX < a.maxX && a.minY < b.maxY && b.minY < a.maxY; // biome-ignore format: one line
      for (const [n, one] of boxes.entries()) {
        expect(meet(one, view)).toBe(false);
        for (const other of boxes.slice(n + 1)) expect(meet(one, other)).toBe(false);
      }
    }
  });
  it('that are left out are gone, and those that were dragged lie where they were dragged to', () => {
    const before = sheet();
    const [first] = before.dimensions;
    expect(sheet({ leftOut: [first?.name ?? ''] }).dimensions.map(({ name }) => name)).toEqual(
      before.dimensions.slice(1).map(({ name }) => name),
    );
    const moved = sheet({ moved: [{ name: first?.name ?? '', dx: 0, dy: -9 }] }).dimensions[0];
    expect(moved?.text.at.y).toBeCloseTo((first?.text.at.y ?? 0) - 9, 9);
    expect(moved?.value).toBe(first?.value);
  });
});

describe('a plan sheet', () => {
  it('takes the largest scale that fits, and says so where the one that was named does not', () => {
    const large = [piece('Board', rectanglePath({ minX: 0, minY: 0, maxX: 900, maxY: 300 }))];
    expect(sheet({}, large).scale).toBe('1:5');
    expect(sheet({ paper: 'A1' }, large).scale).toBe('1:2');
    expect(sheet({ scale: '1:1' }, large).notes.map(({ message }) => message)).toEqual([
      expect.stringMatching(/At 1:1 the views do not fit on A4/),
    ]);
    expect(() => sheet({}, [])).toThrow(/nothing to draw/);
  });
  it('shows plates from the side and from above as thick as they are, holes hidden; or a section, hatched', () => {
    const plan = sheet();
    const hidden = plan.strokes.filter(({ kind }) => kind === 'hidden');
    // Three holes, two edges each, in two views; in the side view the two that are level are one.
    expect(hidden.length).toBe(2 * 3 + 2 * 2);
    for (const { path } of hidden) {
      const { minX, maxX, minY, maxY } = pathBox(path);
      expect(Math.max(maxX - minX, maxY - minY)).toBeCloseTo(3, 9);
    }
    const cut = sheet({ sectionAtMm: 40 });
    const hatch = cut.strokes.filter(({ kind }) => kind === 'hatch');
    expect(hatch.length).toBeGreaterThan(4);
    // Through the middle of the large hole: two stretches of material, 22 - 6.25 and 18 - 6.25 high.
    const stretches = cut.strokes.filter(({ kind, path }) => kind === 'visible' && path.closed && Math.abs(pathBox(path).maxX - pathBox(path).minX - 3) < 1e-6).map(({ path }) => pathBox(path).maxY - pathBox(path).minY); // biome-ignore format: one line
    expect(stretches).toEqual([expect.closeTo(15.75, 2), expect.closeTo(11.75, 2)]);
  });
  it('has a detail that is larger by as much as it says, and lies within its circle', () => {
    const plan = sheet({ detail: { x: 75, y: 35, radiusMm: 6, times: 4 } });
    expect(plan.texts.map(({ text }) => text)).toContain('Detail B, 4:1');
    const circle = pathBox(plan.strokes.filter(({ kind, path }) => kind === 'dimension' && path.closed).at(-1)?.path as Path);
    expect(circle.maxX - circle.minX).toBeCloseTo(2 * 24, 6);
    const middle = { x: (circle.minX + circle.maxX) / 2, y: (circle.minY + circle.maxY) / 2 };
    const ends = plan.strokes.flatMap(({ kind, path }): Point[] => (kind === 'visible' && !path.closed ? [path.start, ...path.segments.map(({ to }) => to)] : [])); // biome-ignore format: one line
    const near = ends.filter(({ x, y }) => Math.hypot(x - middle.x, y - middle.y) < 24 + 1e-6);
    // The arc of 10 mm about 80, 50, four times as large: its places within the detail lie on a circle of 40 mm.
    const off = near.map(({ x, y }) => Math.hypot(x - middle.x + 4 * 5, y - middle.y + 4 * 5) - 40).filter((mm) => Math.abs(mm) < 0.5);
    expect(off.length).toBeGreaterThan(6);
    for (const mm of off) expect(Math.abs(mm)).toBeLessThan(0.03);
  });
  it('lists parts that are alike once, with how many, and fills in the title block', () => {
    const plan = sheet({ number: 'HL-7', drawnBy: 'Wren', revision: 'B' }, [bracket, piece('Tag', rectanglePath({ minX: 0, minY: 70, maxX: 20, maxY: 80 })), piece('Tag', rectanglePath({ minX: 40, minY: 70, maxX: 60, maxY: 80 }))]); // biome-ignore format: one line
    const texts = plan.texts.map(({ text }) => text);
    expect(texts).toEqual(
      expect.arrayContaining(['Bell bracket', 'HL-7', 'Wren', 'B', 'Brass, 3', '± 0.1', 'Tag', '2', '20 x 10', '80 x 40']),
    );
  });
});

describe('its files', () => {
  const folder = mkdtempSync(join(tmpdir(), 'nuvet-plans-'));
  afterAll(() => rmSync(folder, { recursive: true }));
  const slanted = piece('Slanted', polygonPath([{ x: 0, y: 0 }, { x: 70, y: 0 }, { x: 50, y: 40 }, { x: 0, y: 40 }]), [hole(20, 20, 5)]); // biome-ignore format: one line
  const make = async (name: string, pieces: readonly Piece[], change: Partial<PlanSheetSettings> = {}) => {
    const kind = processKinds['plan-sheet'];
    const work = { title: 'Bell bracket', pieces, settings: { ...plainPlanSheet, ...change }, machine: plainMachine, stock };
    return (await kind?.files[name]?.make(work, planSheet('Bell bracket', pieces, stock, work.settings), { dpi: 600, underlay: null })) as ProcessFileMade; // biome-ignore format: one line
  };
  it.each(['pdf', 'svg', 'dxf'])('%s comes back as it was drawn', async (name) => {
    for (const pieces of [[bracket], [slanted], [bracket, slanted]]) expect((await make(name, pieces)).largestMm).toBeLessThan(0.02);
  });
  it('DXF has real dimensions, which an outside program measures as they say (ezdxf, Debian)', async () => {
    for (const [pieces, scale] of [
      [[bracket], '1:1'],
      [[slanted], '2:1'],
      [[bracket], '1:2'],
    ] as const) {
      const path = join(folder, 'plan.dxf');
      writeFileSync(path, (await make('dxf', pieces, { scale, paper: 'A3' })).bytes);
      const script = `import ezdxf, json, sys
doc = ezdxf.readfile(sys.argv[1])
audit = doc.audit()
dims = [(d.dimtype, float(d.get_measurement()) if d.dimtype != 5 else 0.0, d.get_geometry_block() is not None) for d in doc.modelspace().query('DIMENSION')]
print(json.dumps([len(audit.errors), dims]))`;
      const [errors, found] = JSON.parse(execFileSync('/usr/bin/python3', ['-c', script, path], { encoding: 'utf8' })) as [number, [number, number, boolean][]]; // biome-ignore format: one line
      expect(errors).toBe(0);
      const plan = sheet({ scale, paper: 'A3' }, [...pieces]);
      expect(found.length).toBe(plan.dimensions.length);
      for (const [k, { kind, value }] of plan.dimensions.entries()) {
        expect(found[k]?.[2]).toBe(true);
        if (kind !== 'angle') expect(found[k]?.[1]).toBeCloseTo(value, 4);
      }
    }
  });
});
