/** What of a picture is meant: edges and middles of drawn lines, networks, light on dark, uneven light. */
import { deviationOf, fullSheetScene, linesScene, plateScene, type Scan, scanScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import {
  circlePath,
  distance,
  inverse,
  nearestOnPath,
  type Path,
  pathArea,
  pathBox,
  polygonPath,
  stepsOf,
  transformedPath,
} from '../plane/index.ts';
import { greyPicture } from '../raster/index.ts';
import { plainTraceSettings, type Take, type Trace, tracePicture } from './index.ts';

const back = (path: Path, scan: Scan) => transformedPath(path, inverse(scan.toPixels));
const tracedAs = (scan: Scan, take: Take): Trace => tracePicture(scan.picture, scan.mmPerPx, { ...plainTraceSettings, take });

describe.each([
  { tiltDegrees: 0.7, noise: 4, seed: 11 },
  { tiltDegrees: -2, noise: 5, seed: 12 },
  { tiltDegrees: 3, noise: 6, seed: 13 },
])('the middles of lines of 0.9 mm, turned by $tiltDegrees degrees', (settings) => {
  const scan = scanScene(linesScene, { dpi: 300, ...settings });
  const trace = tracedAs(scan, 'network');
  const paths = trace.pieces.map(({ outer }) => back(outer, scan));
  it('are as many as were drawn, no spur among them', () => {
    expect(paths).toHaveLength(linesScene.middles.length);
    expect(paths.filter((p) => p.closed)).toHaveLength(linesScene.middles.filter((p) => p.closed).length);
  });
  it('lie within 0.012 mm RMS of the truth', () => {
    expect(deviationOf(paths, linesScene.middles).rmsMm).toBeLessThan(0.012);
  });
  it('meet within 0.03 mm of where they were drawn to, and leave no gap there', () => {
    for (const junction of linesScene.junctions) {
      const near = paths.map((path) => nearestOnPath(path, junction)).filter((n) => n.distance < 0.3);
      expect(near.length).toBeGreaterThan(1);
      for (const { distance: off } of near) expect(off).toBeLessThan(0.03);
    }
    // Every end that lies near another line lies on it.
    for (const [k, path] of paths.entries()) {
      if (path.closed) continue;
      for (const end of [path.start, stepsOf(path).at(-1)?.segment.to as Path['start']]) {
        const off = Math.min(...paths.filter((_, j) => j !== k).map((other) => nearestOnPath(other, end).distance));
        if (off < 0.5) expect(off).toBeLessThan(1e-3);
      }
    }
  });
  it('know the pen’s width within 0.02 mm, and the dashed line for one crease from end to end', () => {
    for (const { strokePx } of trace.pieces) expect(Math.abs((strokePx as number) * scan.mmPerPx - linesScene.penMm)).toBeLessThan(0.02);
    const dashed = paths.filter((_, k) => trace.pieces[k]?.isDashed);
    expect(dashed).toHaveLength(linesScene.dashed);
    const crease = dashed[0] as Path;
    // The last dash ends before the line does: 14 dashes of 4 mm and 13 gaps of 2 mm.
    expect(distance(crease.start, stepsOf(crease).at(-1)?.segment.to as Path['start'])).toBeCloseTo(82, 1);
    expect(crease.segments.every((s) => s.kind === 'line')).toBe(true);
  });
});

describe('a closed drawn line', () => {
  // A ring between circles of 25 and 18 mm, and one between 12 and 2 mm within it: two pen lines, very thick.
  const scene = {
    name: 'rings',
    widthMm: 70,
    heightMm: 70,
    pieces: [{ outer: circlePath({ x: 35, y: 35 }, 25), holes: [] as Path[] }],
  };
  const ring = (outer: number, inner: number) => ({
    outer: circlePath({ x: 35, y: 35 }, outer),
    holes: [transformedPath(circlePath({ x: 35, y: 35 }, inner), { a: -1, b: 0, c: 0, d: 1, e: 70, f: 0 })],
  });
  const scan = scanScene({ ...scene, pieces: [ring(25, 24), ring(12, 11)] }, { dpi: 300, tiltDegrees: 1, noise: 4, seed: 3 });
  const radii = (take: Take) =>
    tracedAs(scan, take).pieces.map(({ outer, holes }) =>
      [outer, ...holes].map((path) => {
        const { minX, maxX } = pathBox(back(path, scan));
        return (maxX - minX) / 2;
      }),
    );
  it.each([
    ['line-outer', [25, 12]],
    ['line-inner', [24, 11]],
    ['line-middle', [24.5, 11.5]],
  ] as const)('taken by its %s is one path, and a line inside it a hole', (take, expected) => {
    const found = radii(take);
    expect(found).toHaveLength(1);
    expect(found[0]).toHaveLength(2);
    found[0]?.forEach((radius, k) => {
      expect(Math.abs(radius - (expected[k] as number))).toBeLessThan(0.012);
    });
  });
  it('taken as ink is both its edges', () => {
    expect(radii('shape').map((r) => r.map(Math.round))).toEqual([
      [25, 24],
      [12, 11],
    ]);
  });
  it('runs counter-clockwise on the sheet outside, clockwise in its hole, whatever is taken', () => {
    for (const take of ['shape', 'line-outer', 'line-inner', 'line-middle'] as const)
      for (const { outer, holes } of tracedAs(scan, take).pieces) {
        expect(pathArea(back(outer, scan))).toBeGreaterThan(0);
        for (const hole of holes) expect(pathArea(back(hole, scan))).toBeLessThan(0);
      }
  });
});

describe('light and dark', () => {
  it('a negative traced inverted is the picture traced as it is', () => {
    const scan = scanScene(plateScene, { dpi: 200, noise: 0, grain: 0, seed: 2 });
    const { width, height, data } = scan.picture;
    const negative = greyPicture(
      data.map((v) => 255 - v),
      width,
      height,
    );
    const settings = { ...plainTraceSettings, threshold: 137 };
    const straight = tracePicture(scan.picture, scan.mmPerPx, settings).pieces;
    const inverted = tracePicture(negative, scan.mmPerPx, { ...settings, threshold: 255 - 137, inverted: true }).pieces;
    expect(inverted).toEqual(straight);
  });

  it.each([
    ['a lamp at one side, 60 levels', (x: number, y: number) => 60 * (x + 0.3 * y)],
    ['a fold’s shadow', (x: number) => 70 * Math.exp(-(((x - 0.55) / 0.04) ** 2))],
    ['a corner in the dark', (x: number, y: number) => 90 * Math.max(0, x + y - 1)],
  ] as const)('pieces are right under %s with a local threshold', (_, shade) => {
    const scene = fullSheetScene();
    const scan = scanScene(scene, { dpi: 150, tiltDegrees: 0.6, noise: 4, seed: 21 });
    const { width, height, data } = scan.picture;
    const dim = greyPicture(
      data.map((v, k) => Math.max(0, v - shade((k % width) / width, Math.floor(k / width) / height))),
      width,
      height,
    );
    const trace = tracePicture(dim, scan.mmPerPx, { ...plainTraceSettings, threshold: 'local' });
    expect(trace.pieces).toHaveLength(scene.pieces.length);
    const paths = trace.pieces.flatMap(({ outer, holes }) => [outer, ...holes]).map((path) => back(path, scan));
    const truth = scene.pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
    expect(paths).toHaveLength(truth.length);
    expect(deviationOf(paths, truth).rmsMm).toBeLessThan(0.03);
  });

  it('faint pencil on cream paper is found by the local threshold, with no speck', () => {
    const scene = { ...plateScene, pieces: [{ outer: polygonPath([{ x: 20, y: 20 }, { x: 90, y: 20 }, { x: 90, y: 60 }, { x: 20, y: 60 }]), holes: [] }] }; // biome-ignore format: a box
    const scan = scanScene(scene, { dpi: 200, ink: 150, paper: 215, noise: 6, grain: 6, seed: 5 });
    const trace = tracePicture(scan.picture, scan.mmPerPx, { ...plainTraceSettings, threshold: 'local' });
    expect(trace.pieces).toHaveLength(1);
    const outer = trace.pieces[0]?.outer as Path;
    expect(deviationOf([back(outer, scan)], [scene.pieces[0]?.outer as Path]).rmsMm).toBeLessThan(0.03);
  });
});
