/** A path drawn roughly by hand is led along the border that it was drawn by: held against the drawn truth. */
import { plateScene, scanScene } from '@nuvet/truth';
import { expect, it } from 'vitest';
import { circlePath, nearestOnPath, type Path, type Point, pointOn, polygonPath, stepsOf, transformedPath } from '../plane/index.ts';
import { findInk, plainTraceSettings, snapToEdge } from './index.ts';

const scan = scanScene(plateScene, { dpi: 300, tiltDegrees: 1.2, noise: 4, seed: 5 });
const ink = findInk(scan.picture, scan.mmPerPx, plainTraceSettings);
const contours = ink.contours.map(({ points }) => points);
const settings = { blur: ink.blur, tolerancePx: 0.1 / scan.mmPerPx, searchRadiusPx: 3 / scan.mmPerPx };
const truth = transformedPath(plateScene.pieces[0]?.outer as Path, scan.toPixels);
const worst = (path: Path): number =>
  Math.max(
    ...stepsOf(path).flatMap(({ from, segment }) => [0.25, 0.5, 0.75].map((t) => nearestOnPath(truth, pointOn(from, segment, t)).distance)),
  );

/** The truth, drawn by a hand that is up to a millimetre off. */
const rough = (): Path => {
  const points = stepsOf(truth).flatMap(({ from, segment }) => [from, pointOn(from, segment, 0.5)]);
  const shaken = points.map(
    ({ x, y }, k): Point => ({ x: x + (0.8 * Math.sin(3 * k)) / scan.mmPerPx, y: y + (0.8 * Math.cos(5 * k)) / scan.mmPerPx }),
  );
  return polygonPath(shaken);
};

it('the whole of it comes to lie on the border', () => {
  expect(worst(rough()) * scan.mmPerPx).toBeGreaterThan(0.3);
  const closer = snapToEdge(rough(), null, contours, settings) as Path;
  expect(closer.closed).toBe(true);
  expect(worst(closer) * scan.mmPerPx).toBeLessThan(0.03);
});
it('a run of it does, the rest stays and everything hangs together', () => {
  const path = rough();
  const closer = snapToEdge(path, [2, 7], contours, settings) as Path;
  const kept = stepsOf(path).at(-2) as ReturnType<typeof stepsOf>[0];
  expect(stepsOf(closer).at(-2)).toEqual(kept);
  const run: Path = { start: (stepsOf(closer)[2] as typeof kept).from, segments: closer.segments.slice(2, closer.segments.length - (path.segments.length - 7)), closed: false }; // biome-ignore format: one line
  expect(worst(run) * scan.mmPerPx).toBeLessThan(0.05);
});
it('where there is no border near it nothing is done', () => {
  expect(snapToEdge(circlePath({ x: 20, y: 20 }, 10), null, contours, settings)).toBeNull();
});
