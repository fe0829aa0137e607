/** DXF drawings of every version and kind of entity, read by Nuvet, against what ezdxf (Debian) sees in the same files, which it wrote: 80 of them, by chance. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { type DrawingRead, readDxf } from '@nuvet/core/formats';
import { type Path, pathBox, polygonOf } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import { afterAll, describe, expect, it } from 'vitest';
import { type At, farthest } from './lines-apart.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-dxf-'));
afterAll(() => rmSync(folder, { recursive: true }));
const files = 80;

const linesOf = ({ outlines }: DrawingRead): At[][] =>
  outlines.map(({ path }) => {
    const open = polygonOf({ ...path, closed: false } as Path, 0.001).map(({ x, y }): At => [x, y]);
    return path.closed ? [...open, open[0] as At] : open;
  });

it('a DXF drawing of any version is seen as ezdxf sees it: places within a hundredth of a millimetre, nothing lost, nothing more', {
  timeout: 120_000,
}, () => {
  const script = fileURLToPath(new URL('./random-dxf.py', import.meta.url));
  const said = execFileSync('/usr/bin/python3', [script, folder, String(files)], { encoding: 'utf8', maxBuffer: 1e9 });
  const truth = JSON.parse(said) as { mm: number; lines: At[][] }[];
  const off: [file: number, ours: number, theirs: number][] = [];
  for (const [k, { mm, lines }] of truth.entries()) {
    const read = finished(readDxf(readFileSync(join(folder, `random-${k + 1}.dxf`), 'utf8')));
    expect(read.mmPerUnit).toBeCloseTo(mm, 9);
    const ours = linesOf(read);
    off.push([k + 1, farthest(ours, lines), farthest(lines, ours)]);
  }
  expect(off.filter(([, p, q]) => !(Math.max(p, q) < 0.01)).map((one) => one.map((v) => Number(v.toFixed(4))).join(' '))).toEqual([]);
});

/** A drawing of entities alone, each as its groups. */
const dxf = (entities: string, { layers = '', blocks = '' } = {}): DrawingRead => {
  const section = (name: string, text: string): string => `0\nSECTION\n2\n${name}\n${text}0\nENDSEC\n`;
  const table = layers ? section('TABLES', `0\nTABLE\n2\nLAYER\n${layers}0\nENDTAB\n`) : '';
  return finished(
    readDxf(`${section('HEADER', '9\n$INSUNITS\n70\n4\n')}${table}${section('BLOCKS', blocks)}${section('ENTITIES', entities)}0\nEOF\n`),
  );
};
const groups = (...pairs: readonly (readonly [number, string | number])[]): string =>
  pairs.map(([code, value]) => `${code}\n${value}\n`).join('');
const circle = (layer: string, x: number, more: readonly (readonly [number, number])[] = []): string => groups([0, 'CIRCLE'], [8, layer], [10, x], [20, 0], [40, 1], ...more); // biome-ignore format: one line
const layer = (name: string, flags: number, colour: number): string =>
  groups([0, 'LAYER'], [2, name], [70, flags], [62, colour], [6, 'CONTINUOUS']);
const xs = ({ outlines }: DrawingRead): number[] => outlines.map(({ path }) => pathBox(path).minX + 1);

describe('what the reference says of', () => {
  const layers = layer('on', 0, 7) + layer('off', 0, -7) + layer('frozen', 1, 7);
  const blocks = groups([0, 'BLOCK'], [2, 'B'], [10, 0], [20, 0]) + circle('0', 10) + circle('on', 20) + circle('off', 30) + circle('frozen', 40) + groups([0, 'ENDBLK']); // biome-ignore format: one line
  const insert = (on: string): string => groups([0, 'INSERT'], [8, on], [2, 'B'], [10, 0], [20, 0]);
  it('layers: a block on one that is off hides what lies on layer 0 in it; on a frozen one it hides all', () => {
    expect(xs(dxf(insert('on'), { layers, blocks }))).toEqual([10, 20]);
    expect(xs(dxf(insert('off'), { layers, blocks }))).toEqual([20]);
    expect(xs(dxf(insert('frozen') + circle('on', 5), { layers, blocks }))).toEqual([5]);
  });
  it('invisible entities, which are not drawn; and kinds that are no outlines, which are named with their count and the place of the first', () => {
    const text = groups([0, 'TEXT'], [8, '0'], [10, 3], [20, 4], [1, 'a']);
    const read = dxf(circle('0', 5) + circle('0', 9, [[60, 1]]) + text + text + groups([0, 'MLINE'], [8, '0'], [10, 1], [20, 2]) + groups([0, 'LEADER'], [8, '0'], [10, 1], [20, 2])); // biome-ignore format: one line
    expect(xs(read)).toEqual([5]);
    expect(read.asides).toEqual([
      { what: 'entities that are invisible', count: 1, at: null, isSeen: false },
      { what: 'text', count: 2, at: { x: 3, y: 4 }, isSeen: true },
      { what: 'multiple lines (explode them first)', count: 1, at: { x: 1, y: 2 }, isSeen: true },
      { what: 'leaders', count: 1, at: { x: 1, y: 2 }, isSeen: true },
    ]);
  });
  it('wide lines: the outline of their band, mitred; one that narrows is a trapezoid', () => {
    const light = (pairs: readonly (readonly [number, number])[]): DrawingRead => dxf(groups([0, 'LWPOLYLINE'], [8, '0'], ...pairs));
    const [bar] = light([[70, 0], [43, 4], [10, 0], [20, 0], [10, 30], [20, 0], [10, 30], [20, 20]]).outlines; // biome-ignore format: one line
    expect(pathBox(bar?.path as Path)).toEqual({ minX: 0, minY: -2, maxX: 32, maxY: 20 });
    expect(bar?.path.closed).toBe(true);
    const [wedge] = light([[70, 0], [10, 0], [20, 0], [40, 6], [41, 0], [10, 30], [20, 0]]).outlines; // biome-ignore format: one line
    expect(wedge?.path.segments.length).toBe(3);
    const ring = light([[70, 1], [43, 2], [10, 0], [20, 0], [42, 1], [10, 20], [20, 0], [42, 1]]).outlines; // biome-ignore format: one line
    expect(ring.map(({ path }) => pathBox(path).maxX - pathBox(path).minX).sort()).toEqual([expect.closeTo(18, 6), expect.closeTo(22, 6)]);
  });
  it('a hatch that fills an outline, which is cut once', () => {
    const corners = [[0, 0], [20, 0], [20, 10], [0, 10]] as const; // biome-ignore format: one line
    const hatch = groups([0, 'HATCH'], [8, '0'], [91, 1], [92, 2], [72, 0], [73, 1], [93, 4], ...corners.flatMap(([x, y]) => [[10, x], [20, y]] as const)); // biome-ignore format: one line
    const outline = groups(
      [0, 'LWPOLYLINE'],
      [8, '0'],
      [70, 1],
      ...corners.flatMap(
        ([x, y]) =>
          [
            [10, x],
            [20, y],
          ] as const,
      ),
    );
    expect(dxf(hatch).outlines.length).toBe(1);
    expect(dxf(outline + hatch).outlines.length).toBe(1);
  });
  it('a circle that stands upright, which is seen as no outline, and is told', () => {
    expect(dxf(circle('0', 5) + circle('0', 9, [[210, 1], [220, 0], [230, 0]])).asides.map(({ what }) => what)).toEqual(['shapes seen edge-on']); // biome-ignore format: one line
  });
  it('a closed spline through places, which comes back to its start as smoothly as it goes on', () => {
    const [ring] = dxf(groups([0, 'SPLINE'], [8, '0'], [70, 1], [71, 3], ...Array.from({ length: 24 }, (_, k) => [[11, 30 * Math.cos((k * Math.PI) / 12)], [21, 30 * Math.sin((k * Math.PI) / 12)]] as const).flat())).outlines; // biome-ignore format: one line
    expect(ring?.path.closed).toBe(true);
    // Nearly a circle everywhere, also where it begins.
    for (const { x, y } of polygonOf(ring?.path as Path, 0.0005)) expect(Math.hypot(x, y)).toBeCloseTo(30, 2);
  });
});
