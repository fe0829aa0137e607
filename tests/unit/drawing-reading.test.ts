/** Drawing files read by Nuvet, against what ezdxf (Debian), svg-path-properties (npm) and closed forms say of them. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { DrawingError, type DrawingRead, pathData, piecesOfDrawing, readDxf, readSvg, writeDxf, writeSvg } from '@nuvet/core/formats';
import { measuresOf, type Piece } from '@nuvet/core/job';
import { distance, type Path, pathBox, pathLength, stepsOf } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import { demoJobs, plateScene, type Scene } from '@nuvet/truth';
import fc from 'fast-check';
import { svgPathProperties } from 'svg-path-properties';
import { afterAll, describe, expect, it } from 'vitest';
import { lawRuns } from './random-laws.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-drawings-'));
afterAll(() => rmSync(folder, { recursive: true }));

const dxf = (text: string): DrawingRead => finished(readDxf(text));
const svg = (text: string): DrawingRead => finished(readSvg(text));
const pieces = (read: DrawingRead): Piece[] => finished(piecesOfDrawing(read, 'd')).pieces;

interface Row {
  kind: string;
  length: number;
  box: [number, number, number, number];
}
const script = fileURLToPath(new URL('./write-dxf.py', import.meta.url));
const truth = JSON.parse(execFileSync('/usr/bin/python3', [script, folder], { encoding: 'utf8' })) as Record<'entities' | 'blocks', Row[]>;
const file = (name: string) => readFileSync(join(folder, name), 'utf8');

function agree(paths: readonly Path[], rows: readonly Row[], mm: number): void {
  expect(paths).toHaveLength(rows.length);
  rows.forEach((row, k) => {
    const path = paths[k] as Path;
    expect(Math.abs(pathLength(path) - row.length * mm), `${row.kind} length`).toBeLessThan(2e-4 * row.length * mm);
    const { minX, minY, maxX, maxY } = pathBox(path);
    [minX, minY, maxX, maxY].forEach((v, j) => {
      // That library draws an ellipse by four cubics, true to 2.7e-4 of its radius.
      expect(Math.abs(v - (row.box[j] as number) * mm), `${row.kind} box`).toBeLessThan(row.kind === 'ELLIPSE' ? 0.025 : 0.005);
    });
  });
}

describe('a DXF', () => {
  it('of every kind of entity, in inches, comes out as ezdxf sees it, in mm', () => {
    const read = dxf(file('entities.dxf'));
    expect(read).toMatchObject({ mmPerUnit: 25.4, unitIsStated: true, asides: [] });
    agree(read.outlines.map((o) => o.path), truth.entities, 25.4); // biome-ignore format: one line
    expect(read.outlines[1]?.path.segments.map((s) => s.kind)).toEqual(['arc', 'arc']);
    expect(read.outlines[5]?.path.segments.map((s) => s.kind)).toEqual(['arc', 'line', 'arc', 'line']);
  });
  it('with blocks, turned, stretched and mirrored, comes out as ezdxf explodes it; creases are told by their layer', () => {
    const read = dxf(file('blocks.dxf'));
    // It takes a stretched polyline apart into lines and ellipses: the whole is compared.
    const ours = read.outlines.map((o) => ({ length: pathLength(o.path), box: pathBox(o.path) }));
    const sum = (rows: readonly { length: number }[]) => rows.reduce((total, r) => total + r.length, 0);
    expect(sum(ours) / sum(truth.blocks)).toBeCloseTo(1, 3);
    for (const [mine, theirs] of [[Math.min(...ours.map((o) => o.box.minX)), Math.min(...truth.blocks.map((r) => r.box[0]))], [Math.max(...ours.map((o) => o.box.maxY)), Math.max(...truth.blocks.map((r) => r.box[3]))]] as const) expect(Math.abs(mine - theirs)).toBeLessThan(0.005); // biome-ignore format: two sides
    expect(read.outlines.map((o) => o.purpose)).toEqual(['cut', 'score', 'cut', 'score']);
    expect(read.asides.map(({ what }) => what)).toEqual(['text']);
  });
  it('without a unit says so', () => expect(dxf(file('unitless.dxf'))).toMatchObject({ mmPerUnit: 1, unitIsStated: false }));
  it('that is none, or binary, is refused in plain words', () => {
    for (const text of ['', 'Dear workshop', '0\nSECTION\nnot a code\nx\n', 'Some Binary DXF\r\n'])
      expect(() => dxf(text)).toThrow(DrawingError);
  });
});

describe('an SVG', () => {
  const wrap = (inside: string, head = 'width="100mm" height="60mm" viewBox="0 0 100 60"') =>
    `<svg xmlns="http://www.w3.org/2000/svg" ${head}>${inside}</svg>`;
  it('path data of every command has the length that svg-path-properties finds', () => {
    const at = fc.integer({ min: -40, max: 40 });
    const pair = fc.tuple(at, at).map(([x, y]) => `${x} ${y}`);
    const flag = fc.constantFrom(0, 1);
    const command = fc.oneof(
      fc.tuple(fc.constantFrom('L', 'l'), pair).map((p) => p.join('')),
      // A smooth quadratic after anything but a quadratic is a line by the standard, and something else to that reader.
      fc.tuple(fc.constantFrom('Q', 'q'), pair, pair, fc.constantFrom('T', 't'), pair).map(([q, a, b, t, c]) => `${q}${a} ${b}${t}${c}`),
      fc.tuple(fc.constantFrom('H', 'h', 'V', 'v'), at).map((p) => p.join('')),
      fc.tuple(fc.constantFrom('C', 'c'), pair, pair, pair).map(([c, ...p]) => c + p.join(',')),
      fc.tuple(fc.constantFrom('S', 's', 'Q', 'q'), pair, pair).map(([c, ...p]) => c + p.join(' ')),
      fc.tuple(fc.constantFrom('A', 'a'), fc.integer({ min: 5, max: 60 }), fc.integer({ min: 5, max: 60 }), fc.integer({ min: 0, max: 90 }), flag, flag, pair)
        .map(([c, rx, ry, turn, large, sweep, p]) => `${c}${rx},${ry} ${turn} ${large}${sweep}${p}`),
    ); // biome-ignore format: a kind of command a line
    fc.assert(
      fc.property(fc.array(command, { minLength: 1, maxLength: 6 }), fc.boolean(), (list, closes) => {
        const d = `M1 2${list.join('')}${closes ? 'z' : ''}`;
        // That reader wants spaces where the grammar needs none.
        const spaced = d.replace(/ ([01])([01])(-?\d)/g, ' $1 $2 $3');
        const expected = new svgPathProperties(spaced).getTotalLength();
        // That reader knows no length for an arc that is exactly half its ellipse.
        fc.pre(Number.isFinite(expected));
        const { outlines } = svg(wrap(`<path d="${d}"/>`));
        // Curves of no length stop that reader's reflected handles.
        fc.pre(outlines.every((o) => stepsOf(o.path).every(({ from, segment }) => distance(from, segment.to) > 0.4)));
        const ours = outlines.reduce((sum, o) => sum + pathLength(o.path), 0);
        expect(Math.abs(ours - expected)).toBeLessThan(0.003 * expected + 0.02);
      }),
      { numRuns: lawRuns(200) },
    );
  });
  it('shapes and transforms have the sizes of their closed forms', () => {
    const read = svg(
      wrap(`<rect x="5" y="5" width="20" height="10" rx="2"/><g transform="translate(50 20) rotate(90)"><ellipse rx="9" ry="4"/></g>
      <circle cx="80" cy="20" r="5" transform="scale(2 1)"/><line x1="0" y1="0" x2="3cm" y2="0" stroke="black"/><polygon points="0,0 10,0 10,10"/>
      <defs><circle id="dot" r="1"/></defs><use href="#dot" x="7" y="8"/><use href="other.svg#dot"/>`),
    );
    const sizes = read.outlines.map((o) => pathBox(o.path)).map((b) => [b.maxX - b.minX, b.maxY - b.minY].map((v) => Number(v.toFixed(2))));
    expect(sizes).toEqual([[20, 10], [8, 18], [20, 10], [113.39, 0], [10, 10], [2, 2]]); // biome-ignore format: a size a shape
    expect(pathLength(read.outlines[0]?.path as Path)).toBeCloseTo(60 - 16 + 4 * Math.PI, 9);
    expect(read.outlines[0]?.path.segments.filter((s) => s.kind === 'arc')).toHaveLength(4);
    expect(read.asides.map(({ what }) => what)).toEqual(['links to other files']);
    // y up: the circle of the block below the top edge lies below zero.
    expect(pathBox(read.outlines[5]?.path as Path).maxY).toBeCloseTo(-7, 9);
  });
  it.each([
    ['width="4in" viewBox="0 0 4 4"', 25.4, true],
    ['width="210mm" height="297mm" viewBox="0 0 2100 2970"', 0.1, true],
    ['width="800" height="600" viewBox="0 0 400 300"', (2 * 25.4) / 96, false],
    ['viewBox="0 0 400 300"', 25.4 / 96, false],
    ['width="72pt"', 25.4 / 96, true],
  ])('with %s has a unit of %f mm, stated: %s', (head, mmPerUnit, unitIsStated) => {
    const read = svg(wrap('<circle r="1"/>', head));
    expect(read.mmPerUnit).toBeCloseTo(mmPerUnit, 9);
    expect(read.unitIsStated).toBe(unitIsStated);
  });
  it('with a script, an entity, a picture from elsewhere and an event handler gives its outlines and nothing else', () => {
    const read = svg(
      `<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY a SYSTEM "file:///etc/passwd"><!ENTITY b "&a;&a;">]><svg xmlns="http://www.w3.org/2000/svg" width="9mm" viewBox="0 0 9 9" onload="alert(1)"><script>alert(1)</script><image href="http://elsewhere/x.png"/><circle r="2"/><text>&b;</text></svg>`,
    );
    expect(read.outlines).toHaveLength(1);
    expect(read.asides.map(({ what }) => what).join(' ')).toMatch(/entit/);
    expect(read.asides.find(({ what }) => what === 'scripts')?.count).toBe(2);
    expect(JSON.stringify(read)).not.toMatch(/passwd|alert/);
  });
  it('that is none is refused', () => expect(() => svg('<html></html>')).toThrow(DrawingError));
});

describe('pieces of a drawing', () => {
  it('what Nuvet writes it reads again: same outlines, holes nested, at the same size', () => {
    for (const scene of [plateScene, demoJobs[1]?.scene as Scene]) {
      const out = scene.pieces.map((p, k) => ({ outer: p.outer, holes: [...p.holes], name: `Piece ${k + 1}`, purpose: 'cut' as const }));
      const box = out.map((p) => measuresOf(p).box).reduce((a, b) => ({ minX: Math.min(a.minX, b.minX), minY: Math.min(a.minY, b.minY), maxX: Math.max(a.maxX, b.maxX), maxY: Math.max(a.maxY, b.maxY) })); // biome-ignore format: one line
      for (const read of [dxf(writeDxf(out, 'x')), svg(writeSvg(out, 'x'))]) {
        const back = pieces(read);
        expect(back.map((p) => p.holes.length).sort()).toEqual(out.map((p) => p.holes.length).sort());
        const whole = back.map((p) => measuresOf(p));
        expect(Math.max(...whole.map((m) => m.box.maxX))).toBeCloseTo(box.maxX - box.minX, 2);
        expect(Math.max(...whole.map((m) => m.box.maxY))).toBeCloseTo(box.maxY - box.minY, 2);
        const area = (list: { areaMm2: number }[]) => list.reduce((sum, m) => sum + m.areaMm2, 0);
        expect(area(whole) / area(out.map((p) => measuresOf(p)))).toBeCloseTo(1, 4);
      }
    }
  });
  it('loose lines whose ends meet become one closed outline, whichever way each was drawn', () => {
    const corners = [[0, 0], [30, 0], [30, 20], [0, 20]]; // biome-ignore format: a rectangle
    const line = (k: number, turned: boolean) => {
      const [a, b] = turned ? [corners[(k + 1) % 4], corners[k]] : [corners[k], corners[(k + 1) % 4]];
      return `<line x1="${a?.[0]}" y1="${a?.[1]}" x2="${b?.[0]}" y2="${b?.[1]}" stroke="black"/>`;
    };
    const text = [2, 0, 3, 1].map((k) => line(k, k % 2 === 0)).join('');
    const [only, ...more] = pieces(svg(`<svg xmlns="http://www.w3.org/2000/svg" width="30mm" viewBox="0 0 30 20">${text}</svg>`));
    expect(more).toEqual([]);
    expect(only?.outer.closed).toBe(true);
    expect(measuresOf(only as Piece).areaMm2).toBeCloseTo(600, 9);
    expect(pathData((only as Piece).outer, 20)).toMatch(/Z$/);
  });
  it('more separate outlines than a job can hold are refused with their number', () => {
    const text = Array.from({ length: 20_001 }, (_, k) => `0\nCIRCLE\n10\n${k * 3}\n20\n0\n40\n1\n`).join('');
    const read = dxf(`0\nSECTION\n2\nENTITIES\n${text}0\nENDSEC\n0\nEOF\n`);
    expect(() => pieces(read)).toThrow(/20001 separate outlines/);
  });
});
