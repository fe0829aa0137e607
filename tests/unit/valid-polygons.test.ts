/** Are traced outlines areas, and what is made of them? Defined by jsts, which knows nothing of how they were made. */
import { pathArea } from '@nuvet/core/plane';
import { offsetPiece, plainOffset } from '@nuvet/core/shape';
import { plainTraceSettings, traceColours, tracePicture } from '@nuvet/core/trace';
import { badgeSheet, demoJobs, fullSheetScene, linesScene, plateScene, scanColours, scanScene, smoothScene, starScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import { complaints, overlaid, polygonFrom } from './polygons-of-jsts.ts';

const scenes = [['plate', plateScene], ['star', starScene], ['free shapes', smoothScene], ['150 shapes', fullSheetScene()], ...demoJobs.filter(({ take }) => take === 'shape').map(({ name, scene }) => [name, scene] as const)] as const; // biome-ignore format: a list

describe.each(scenes)('the pieces of %s', (_, scene) => {
  it.each([
    [110, 0.6, 0.1],
    [200, -1.7, 0.05],
    [200, 2.4, 0.4],
    [300, 0.9, 0.1],
  ])('are areas, at %i dpi turned by %f degrees, within %f mm', (dpi, tiltDegrees, toleranceMm) => {
    const { picture, mmPerPx } = scanScene(scene, { dpi, tiltDegrees, seed: dpi });
    const trace = tracePicture(picture, mmPerPx, { ...plainTraceSettings, toleranceMm });
    expect(trace.pieces.length).toBeGreaterThan(0);
    expect(complaints(trace.pieces)).toEqual([]);
  });
});

it('curved ones have the area that jsts finds for them', () => {
  const { picture, mmPerPx } = scanScene(smoothScene, { dpi: 200, seed: 2 });
  for (const { outer, holes } of tracePicture(picture, mmPerPx, plainTraceSettings).pieces) {
    const ours = Math.abs(pathArea(outer)) - holes.reduce((sum, hole) => sum + Math.abs(pathArea(hole)), 0);
    expect(polygonFrom({ outer, holes }).getArea() / ours).toBeCloseTo(1, 4);
  }
});

describe.each([
  ['150 shapes', fullSheetScene(), 150],
  ['free shapes', smoothScene, 200],
  ...demoJobs.filter(({ take }) => take === 'shape').map(({ name, scene }) => [name, scene, 150] as const),
] as const)('the pieces of %s, set off', (_, scene, dpi) => {
  const { picture, mmPerPx } = scanScene(scene, { dpi, seed: 8 });
  const { pieces } = tracePicture(picture, mmPerPx, plainTraceSettings);
  it.each([0.3, 0.8, 2.1, 5, -0.3, -0.8, -2.1, -5])('by %f pixels, stay areas', (by) => {
    const set = pieces.flatMap(({ outer, holes }) => offsetPiece({ outer, holes }, by, plainOffset));
    expect(set.length).toBeGreaterThan(0);
    expect(complaints(set)).toEqual([]);
  });
});

it('walls along lines are areas', () => {
  const { picture, mmPerPx } = scanScene(linesScene, { dpi: 300, seed: 4 });
  const trace = tracePicture(picture, mmPerPx, { ...plainTraceSettings, take: 'network', wallMm: 2 });
  const closed = trace.pieces.filter(({ outer }) => outer.closed);
  expect(closed.length).toBeGreaterThan(0);
  expect(complaints(closed)).toEqual([]);
});

it('areas of several colours share their borders: neighbours neither overlap nor leave a gap', () => {
  const scan = scanColours(badgeSheet, { dpi: 200, tiltDegrees: 1, seed: 3 });
  const colours = ['#b23a2e', '#263e70', '#468054', '#ecb23c'].map((hex) => ({ hex }));
  const { pieces } = traceColours(scan.picture, scan.mmPerPx, { ...plainTraceSettings, colours });
  expect(complaints(pieces)).toEqual([]);
  const polygons = pieces.map((piece) => polygonFrom(piece));
  for (const [k, one] of polygons.entries()) {
    for (const other of polygons.slice(k + 1)) {
      const common = overlaid(one, other, 'keep-common').getArea() as number;
      expect(common).toBeLessThan(0.5);
    }
  }
  const together = polygons.reduce((all, one) => overlaid(all, one, 'unite'));
  const sum = polygons.reduce((all, one) => all + (one.getArea() as number), 0);
  expect(together.getArea() / sum).toBeCloseTo(1, 6);
});
