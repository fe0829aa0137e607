/** Tips that are cut off, slots' round ends, corners of one-bit scans: drawn exactly, scanned, traced and held against the truth. */
import { demoJobs, type Scene, scanScene, starScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import {
  distance,
  inverse,
  nearestOnPath,
  type Path,
  type Point,
  pathArea,
  polygonPath,
  stepsOf,
  transformedPath,
} from '../plane/index.ts';
import { greyPicture } from '../raster/index.ts';
import { figurePath, selfCrossings } from '../shape/index.ts';
import { plainTraceSettings, tracePicture } from './index.ts';

function traced(outer: Path, dpi: number, tilt = 0.8, softnessMm?: number): Path {
  const scene: Scene = { name: 'figure', widthMm: 60, heightMm: 50, pieces: [{ outer, holes: [] }] };
  const scan = scanScene(scene, { dpi, tiltDegrees: tilt, noise: 4, seed: 21, ...(softnessMm === undefined ? {} : { softnessMm }) });
  const { pieces } = tracePicture(scan.picture, scan.mmPerPx, { ...plainTraceSettings, toleranceMm: 0.05 });
  expect(pieces).toHaveLength(1);
  return transformedPath((pieces[0] as { outer: Path }).outer, inverse(scan.toPixels));
}
const corners = (path: Path): Point[] => stepsOf(path).map(({ from }) => from);
const farthest = (of: Path, to: Path): number => Math.max(...corners(to).map((p) => Math.min(...corners(of).map((q) => distance(p, q)))));

describe('tips that are cut off', () => {
  it.each([
    [0.25, 0.02],
    [0.35, undefined],
    [0.5, undefined],
  ])('%f mm wide at 600 dpi are two corners and a straight between', (flat, softnessMm) => {
    const spike = polygonPath([{ x: 10, y: 10 }, { x: 50, y: 10 }, { x: 30 + flat / 2, y: 42 }, { x: 30 - flat / 2, y: 42 }]); // biome-ignore format: one line
    const path = traced(spike, 600, 0.8, softnessMm);
    expect(path.segments.map((s) => s.kind)).toEqual(['line', 'line', 'line', 'line']);
    expect(farthest(path, spike)).toBeLessThan(0.08);
  });
  it('a pointed one stays one corner', () => {
    const spike = polygonPath([{ x: 10, y: 10 }, { x: 50, y: 10 }, { x: 30, y: 42 }]); // biome-ignore format: one line
    const path = traced(spike, 600);
    expect(path.segments).toHaveLength(3);
    expect(farthest(path, spike)).toBeLessThan(0.04);
  });
  it('a round one is no straight', () => {
    const drop: Path = { start: { x: 10, y: 10 }, closed: true, segments: [{ kind: 'line', to: { x: 50, y: 10 } }, { kind: 'line', to: { x: 31.2, y: 40 } }, { kind: 'arc', to: { x: 28.8, y: 40 }, sweep: 2.0 }, { kind: 'line', to: { x: 10, y: 10 } }] }; // biome-ignore format: one line
    expect(traced(drop, 600).segments.some((s) => s.kind !== 'line')).toBe(true);
  });
});

describe('round ends of slots', () => {
  it.each([0, 0.7, 33, 90])('turned by %f degrees are two lines and two half circles, tangent', (degrees) => {
    const angle = (degrees * Math.PI) / 180;
    const [dx, dy] = [14 * Math.cos(angle), 14 * Math.sin(angle)];
    const slot = figurePath({
      kind: 'slot',
      from: { x: 30 - dx, y: 25 - dy },
      to: { x: 30 + dx, y: 25 + dy },
      width: 5,
      play: 0,
      ends: 'round',
    });
    const path = traced(slot, 300, 0);
    expect(path.segments.map((s) => s.kind).sort()).toEqual(['arc', 'arc', 'line', 'line']);
    for (const s of path.segments) if (s.kind === 'arc') expect(Math.abs(s.sweep)).toBeCloseTo(Math.PI, 2);
    expect(Math.abs(pathArea(path))).toBeCloseTo(pathArea(slot), 0);
  });
  it('rounded rectangles have no needless straight beside their arcs', () => {
    for (const radius of [3, 6, 9]) {
      const plate = figurePath({ kind: 'rectangle', centre: { x: 30, y: 25 }, width: 44, height: 32, radius, angle: 0 });
      expect(traced(plate, 600).segments).toHaveLength(8);
    }
  });
});

describe('one-bit scans', () => {
  it('of a star keep its ten corners', () => {
    for (const [tiltDegrees, noise, seed] of [
      [0.7, 4, 11],
      [-1.6, 5, 12],
      [3, 6, 13],
    ] as const) {
      // biome-ignore format: one line
      const scan = scanScene(starScene, { dpi: 300, tiltDegrees, noise, seed });
      const { width, height, data } = scan.picture;
      const picture = greyPicture(data.map((v) => (v < 137 ? 0 : 255)), width, height); // biome-ignore format: one line
      const { pieces } = tracePicture(picture, scan.mmPerPx, plainTraceSettings);
      const path = transformedPath((pieces[0] as { outer: Path }).outer, inverse(scan.toPixels));
      const truth = starScene.pieces[0]?.outer as Path;
      expect(path.segments).toHaveLength(10);
      expect(farthest(path, truth)).toBeLessThan(0.05);
      for (const p of corners(path)) expect(nearestOnPath(truth, p).distance).toBeLessThan(0.03);
    }
  });
});

describe.each(demoJobs.slice(0, 4).flatMap((job) => [100, 150].map((dpi) => ({ ...job, dpi }))))('$name at $dpi dpi', ({ scene, dpi }) => {
  it.each([3, 5, 17])('crosses itself nowhere, thin as its tips are (%i)', (seed) => {
    const { picture } = scanScene(scene, { dpi, seed });
    const { pieces } = tracePicture(picture, 25.4 / dpi, plainTraceSettings);
    for (const { outer, holes } of pieces) for (const path of [outer, ...holes]) expect(selfCrossings([path])).toEqual([]);
  });
});
