import { plateScene, scanScene, starScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import { circlePath, polygonPath, transformedPath } from '../plane/index.ts';
import { contourDeviation, findInk, fitInk, plainTraceSettings, type TraceSettings } from './index.ts';

const max = (lists: readonly { off: readonly number[] }[]) => Math.max(...lists.flatMap(({ off }) => off));
const ring = (radius: number, count: number) =>
  Float64Array.from({ length: 2 * count }, (_, k) => 100 + radius * (k % 2 === 0 ? Math.cos : Math.sin)((2 * Math.PI * (k >> 1)) / count));

describe('the distance of outlines from the ink’s border', () => {
  it('of a circle from another about the same centre is the difference of their radii', () => {
    for (const gap of [0.5, 3, 20]) {
      const [{ points, off }] = contourDeviation([circlePath({ x: 100, y: 100 }, 40)], [ring(40 + gap, 4000)]) as [
        ReturnType<typeof contourDeviation>[0],
      ];
      expect(points.length).toBeGreaterThan(100);
      for (const d of off) expect(d).toBeCloseTo(gap, 1);
    }
  });
  it('is taken from the nearest contour, and along its chords, not only at their ends', () => {
    const square = polygonPath([{ x: 10, y: 10 }, { x: 50, y: 10 }, { x: 50, y: 50 }, { x: 10, y: 50 }]); // biome-ignore format: a square
    const far = Float64Array.of(200, 200, 210, 200, 210, 210);
    const near = Float64Array.of(10, 12, 26, 12, 42, 12, 50, 12, 50, 28, 50, 44, 50, 50, 34, 50, 18, 50, 10, 50, 10, 34, 10, 20);
    const [{ off }] = contourDeviation([square], [far, near]) as [ReturnType<typeof contourDeviation>[0]];
    expect(Math.max(...off)).toBeCloseTo(2, 6);
    expect(Math.min(...off)).toBe(0);
  });
  it.each([
    [plateScene, 0.05],
    [plateScene, 0.3],
    [starScene, 0.1],
  ])('of what was traced stays within the tolerance asked for, but for soft corners', (scene, toleranceMm) => {
    const scan = scanScene(scene, { dpi: 300, tiltDegrees: 1.2, noise: 4, seed: 9 });
    const settings: TraceSettings = { ...plainTraceSettings, toleranceMm };
    const ink = findInk(scan.picture, scan.mmPerPx, settings);
    const steps = fitInk(ink, scan.mmPerPx, settings);
    let step = steps.next();
    while (!step.done) step = steps.next();
    const paths = step.value.pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
    const contours = ink.contours.map(({ points }) => points);
    const lists = contourDeviation(paths, contours);
    // Where softness rounds a tip, the outline goes out to where the tip was.
    const within = lists.flatMap(({ off }) => off).filter((d) => d * scan.mmPerPx <= toleranceMm).length;
    expect(within / lists.flatMap(({ off }) => off).length).toBeGreaterThan(0.985);
    // Moved by ten pixels they are seen to be off.
    const moved = paths.map((path) => transformedPath(path, { a: 1, b: 0, c: 0, d: 1, e: 7, f: 7 }));
    expect(max(contourDeviation(moved, contours))).toBeGreaterThan(8);
  });
});
