import { deviationOf, plateScene, type Scene, scanScene, smoothScene, starScene } from '@nuvet/truth';
import { describe, expect, it } from 'vitest';
import { circlePath, inverse, type Path, pathArea, transformedPath } from '../plane/index.ts';
import { imageOf, type Outlines, plainTraceSettings, type Symmetry, symmetriesOf, symmetrize, tracePicture } from './index.ts';

/** The pieces of a scanned scene, on the sheet. */
function scanned(scene: Scene, tiltDegrees: number, seed: number): Outlines[] {
  const scan = scanScene(scene, { dpi: 300, tiltDegrees, noise: 5, seed });
  const back = inverse(scan.toPixels);
  return tracePicture(scan.picture, scan.mmPerPx, plainTraceSettings).pieces.map(({ outer, holes }) => ({
    outer: transformedPath(outer, back),
    holes: holes.map((hole) => transformedPath(hole, back)),
  }));
}

const all = ({ outer, holes }: Outlines): Path[] => [outer, ...holes];
const degrees = (angle: number) => (angle * 180) / Math.PI;
const kindOf = <K extends Symmetry['kind']>(list: readonly Symmetry[], kind: K) =>
  list.find((s) => s.kind === kind) as Extract<Symmetry, { kind: K }>;

describe.each([
  [0.4, 3],
  [-2.3, 4],
])('scans turned by %d degrees', (tilt, seed) => {
  it('of a star: its axis within 0.05 degrees and 0.05 mm, five parts about its centre', () => {
    const [star] = scanned(starScene, tilt, seed) as [Outlines];
    const found = symmetriesOf(star, 0.05);
    const mirror = kindOf(found, 'mirror');
    expect(Math.abs(degrees(mirror.angle) - 90)).toBeLessThan(0.05);
    expect(Math.abs(mirror.at.x - 55)).toBeLessThan(0.05);
    const turned = kindOf(found, 'turned');
    expect(turned.order).toBe(5);
    expect(Math.hypot(turned.at.x - 55, turned.at.y - 52)).toBeLessThan(0.05);
  });
  it('of a plate with holes: made exactly mirrored, and nearer to the truth than to the scan’s noise', () => {
    const [plate] = scanned(plateScene, tilt, seed) as [Outlines];
    for (const symmetry of symmetriesOf(plate, 0.05)) {
      const made = symmetrize(plate, symmetry, 25.4 / 300, 0.1);
      expect(made).not.toBeNull();
      const paths = all(made as Outlines);
      const images = paths.map((path) => transformedPath(path, imageOf(symmetry)));
      expect(deviationOf(paths, images).worstMm).toBeLessThan(1e-9);
      expect(deviationOf(paths, all(plateScene.pieces[0] as Outlines)).rmsMm).toBeLessThan(0.006);
      expect(paths.map((path) => Math.sign(pathArea(path)))).toEqual(all(plate).map((path) => Math.sign(pathArea(path))));
    }
  });
});

it('a star made alike five times keeps ten straight sides', () => {
  const [star] = scanned(starScene, 1, 8) as [Outlines];
  const made = symmetrize(star, kindOf(symmetriesOf(star, 0.05), 'turned'), 25.4 / 300, 0.1) as Outlines;
  expect(made.outer.segments.map((s) => s.kind)).toEqual(Array(10).fill('line'));
});

it('finds none in a pebble and a leaf, and tells nothing of rings', () => {
  for (const piece of scanned(smoothScene, 1, 5)) expect(symmetriesOf(piece, 0.05)).toEqual([]);
});

it('a half that was drawn a millimetre off is still offered, and both halves meet in the middle', () => {
  // A kite whose right tip lies 0.8 mm farther out than its left one.
  const corners = [{ x: 0, y: 0 }, { x: 20.8, y: 15 }, { x: 0, y: 40 }, { x: -20, y: 15 }]; // biome-ignore format: a kite
  const outer: Path = {
    start: corners[3] as Path['start'],
    segments: corners.map((to) => ({ kind: 'line', to })),
    closed: true,
  };
  const mirror = kindOf(symmetriesOf({ outer, holes: [] }, 0.6), 'mirror');
  const made = symmetrize({ outer, holes: [] }, mirror, 0.05, 0.1) as Outlines;
  const off = ({ x, y }: Path['start']) =>
    Math.abs(Math.cos(mirror.angle) * (y - mirror.at.y) - Math.sin(mirror.angle) * (x - mirror.at.x));
  const widths = made.outer.segments.map((s) => off(s.to)).sort((a, b) => b - a);
  expect(widths[0]).toBeCloseTo(20.4, 1);
  expect(widths[1]).toBeCloseTo(widths[0] as number, 9);
});

it.each(['left', 'right'] as const)('lets the %s half stand for both, as it is', (stands) => {
  // The same kite with a round hole in each half, the right one larger: hole and tip come from the half that is kept.
  const corners = [{ x: 0, y: 0 }, { x: 20.8, y: 15 }, { x: 0, y: 40 }, { x: -20, y: 15 }]; // biome-ignore format: a kite
  const outer: Path = { start: corners[3] as Path['start'], segments: corners.map((to) => ({ kind: 'line', to })), closed: true };
  const holes = [circlePath({ x: -8, y: 15 }, 3), circlePath({ x: 8.3, y: 15 }, 3.2)];
  const mirror = kindOf(symmetriesOf({ outer, holes }, 0.6), 'mirror');
  const made = symmetrize({ outer, holes }, mirror, 0.05, 0.1, stands) as Outlines;
  const off = ({ x, y }: Path['start']) => Math.cos(mirror.angle) * (y - mirror.at.y) - Math.sin(mirror.angle) * (x - mirror.at.x);
  // Left of an axis that runs upward is where `off` is positive.
  const kept = (stands === 'left') === Math.sin(mirror.angle) > 0 ? (corners[3] as Path['start']) : (corners[1] as Path['start']);
  const tips = made.outer.segments.map(({ to }) => off(to)).sort((a, b) => a - b);
  expect(tips.at(-1)).toBeCloseTo(Math.abs(off(kept)), 9);
  expect(tips[0]).toBeCloseTo(-Math.abs(off(kept)), 9);
  const [first, second] = made.holes.map((hole) => Math.abs(pathArea(hole))) as [number, number];
  expect(first).toBeCloseTo(second, 9);
  expect(first).toBeCloseTo(Math.PI * (kept === corners[3] ? 3 : 3.2) ** 2, 6);
});
