/** Lettering and dimension lines told from what is to be cut. */
import { demoJobs, type Scene, scanScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import {
  chain,
  circlePath,
  type Path,
  type Point,
  polygonPath,
  reversedPath,
  shift,
  stretch,
  transformedPath,
  turn,
} from '../plane/index.ts';
import { annotationsOf } from './annotations.ts';
import { plainTraceSettings, tracePicture } from './index.ts';

/** Block letters 5 wide and 7 high, each one outline. */
const letters: Record<string, readonly [number, number][]> = {
  L: [[0, 0], [5, 0], [5, 1.4], [1.4, 1.4], [1.4, 7], [0, 7]], // biome-ignore format: corners
  T: [[1.8, 0], [3.2, 0], [3.2, 5.6], [5, 5.6], [5, 7], [0, 7], [0, 5.6], [1.8, 5.6]], // biome-ignore format: corners
  E: [[0, 0], [5, 0], [5, 1.2], [1.4, 1.2], [1.4, 2.9], [4, 2.9], [4, 4.1], [1.4, 4.1], [1.4, 5.8], [5, 5.8], [5, 7], [0, 7]], // biome-ignore format: corners
  1: [[1, 0], [2.6, 0], [2.6, 7], [1.6, 7], [0.4, 5.6], [1, 5]], // biome-ignore format: corners
  7: [[1, 0], [2.6, 0], [5, 5.8], [5, 7], [0, 7], [0, 5.8], [3.2, 5.8]], // biome-ignore format: corners
};
const word = (text: string, at: Point, height: number, angle = 0): Path[] =>
  [...text].map((letter, k) => {
    const corners = (letters[letter] as readonly [number, number][]).map(([x, y]) => ({ x: x + 6.4 * k, y }));
    return transformedPath(polygonPath(corners), chain(shift(at.x, at.y), chain(turn(angle), stretch(height / 7))));
  });
const bar = (x: number, y: number, w: number, h: number): Path => polygonPath([{ x, y }, { x: x + w, y }, { x: x + w, y: y + h }, { x, y: y + h }]); // biome-ignore format: corners
/** A line with arrow heads at both ends, one outline. */
const arrow = (x: number, y: number, length: number): Path =>
  polygonPath([[0, 0], [3, 0.9], [3, 0.2], [length - 3, 0.2], [length - 3, 0.9], [length, 0], [length - 3, -0.9], [length - 3, -0.2], [3, -0.2], [3, -0.9]].map(([px, py]) => ({ x: x + (px as number), y: y + (py as number) }))); // biome-ignore format: corners
const named = (paths: readonly Path[], name: string) => paths.map((outer, k) => ({ id: `${name}${k}`, outer }));

const panel = bar(20, 30, 120, 70);
const drawn = [
  ...named([panel], 'panel'),
  ...named(word('TELL', { x: 50, y: 110 }, 4), 'title'),
  ...named([arrow(20, 20, 120)], 'line'),
  ...named(word('177', { x: 70, y: 22.5 }, 3.5), 'figure'),
  ...named([bar(19.8, 18, 0.4, 10), bar(139.8, 18, 0.4, 10)], 'end'),
  ...named(word('71', { x: 152, y: 60 }, 3.5, Math.PI / 2), 'upright'),
];

describe('annotations', () => {
  it('are words, figures in any of four directions, and the lines that carry figures', () => {
    const found = annotationsOf(drawn);
    expect(found).toEqual(drawn.slice(1).map(({ id }) => id));
  });
  it('are a table of line kinds, its frame and its samples, too', () => {
    const sample: Path = { start: { x: 152, y: 40 }, segments: [{ kind: 'line', to: { x: 164, y: 40 } }], closed: false };
    const table = [
      ...named([bar(150, 30, 50, 30)], 'frame'),
      ...named(word('TELL', { x: 168, y: 38 }, 4), 'kind'),
      { id: 'sample', outer: sample },
    ];
    expect(annotationsOf([...named([panel], 'panel'), ...table])).toEqual(table.map(({ id }) => id));
    // A plate with a word on it and a slot is what is made.
    const plate = [...table, ...named([bar(153, 45, 6, 8)], 'slot')];
    expect(annotationsOf([...named([panel], 'panel'), ...plate])).not.toContain('frame0');
  });
  it('are not what is to be cut: beads in a row, a strip by itself, a panel with slots, parts of one size', () => {
    const beads = Array.from({ length: 12 }, (_, k) => circlePath({ x: 20 + 5 * k, y: 15 }, 2));
    expect(annotationsOf(named([panel, ...beads], 'bead'))).toEqual([]);
    expect(annotationsOf(named([panel, bar(20, 15, 100, 0.8), bar(20, 5, 60, 4)], 'strip'))).toEqual([]);
    const tiles = Array.from({ length: 9 }, (_, k) => bar(20 + 14 * (k % 3), 30 + 14 * Math.floor(k / 3), 12, 12 - (k % 2)));
    expect(annotationsOf(named(tiles, 'tile'))).toEqual([]);
    expect(annotationsOf(named(word('TELL', { x: 0, y: 0 }, 4), 'sign'))).toEqual([]);
  });
  it('are lines without an area, too: middles of drawn lines', () => {
    const middle = (a: Point, b: Point): Path => ({ start: a, segments: [{ kind: 'line', to: b }], closed: false });
    const traced = [
      { id: 'panel', outer: panel },
      { id: 'line', outer: middle({ x: 20, y: 20 }, { x: 140, y: 20 }) },
      ...named(word('177', { x: 70, y: 22.5 }, 3.5), 'figure'),
      { id: 'crease', outer: middle({ x: 20, y: 60 }, { x: 140, y: 60 }) },
    ];
    expect(annotationsOf(traced)).toEqual(['line', 'figure0', 'figure1', 'figure2']);
  });
  it('are found in a scan, too', () => {
    const ring = { purpose: 'cut' as const, outer: panel, holes: [reversedPath(bar(24, 34, 112, 62))] };
    const scene: Scene = {
      name: 'plan',
      widthMm: 170,
      heightMm: 125,
      pieces: [ring, ...drawn.slice(1).map(({ outer }) => ({ purpose: 'cut' as const, outer, holes: [] }))],
    };
    const scan = scanScene(scene, { dpi: 300, tiltDegrees: 0.4, noise: 5, seed: 4 });
    const { pieces } = tracePicture(scan.picture, scan.mmPerPx, plainTraceSettings);
    const sized = pieces.map(({ outer }, k) => ({ id: `p${k}`, outer: transformedPath(outer, stretch(scan.mmPerPx)) }));
    const found = new Set(annotationsOf(sized));
    const left = sized.filter(({ id }) => !found.has(id));
    // The dimension line has become one with the lines that it ends on.
    expect(sized.length).toBe(scene.pieces.length - 2);
    expect(left).toHaveLength(1);
  });
  it.each(demoJobs.map((job) => [job.name, job] as const))('are none in %s, where there is nothing but what is cut', (_, job) => {
    const scene = job.scene.pieces.map(({ outer }, k) => ({ id: `p${k}`, outer }));
    expect(annotationsOf(scene)).toEqual([]);
  });
});
