/** Relations: found where they nearly hold, made to hold together, given up where they contradict or move too much. */
import { deviationOf, plateScene, scanScene, straightScene } from '@nuvet/truth';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { circleOf } from '../plane/arc.ts';
import { circlePath, inverse, type Path, type Point, polygonPath, stepsOf, transformedPath } from '../plane/index.ts';
import type { ArcSegment } from '../plane/segment.ts';
import { plainTraceSettings, type Relation, regularize, relationsIn, tracePicture } from './index.ts';

const kinds = (list: readonly Relation[]) => list.map(({ kind }) => kind).sort();
const corners = (path: Path): Point[] => stepsOf(path).map(({ from }) => from);
const quad = (...points: [number, number][]): Path => polygonPath(points.map(([x, y]) => ({ x, y })));

describe('a rectangle drawn a little askew', () => {
  const askew = quad([0, 0.02], [60, -0.01], [60.02, 40.01], [-0.01, 39.98]);
  const found = relationsIn([askew], 0.1);
  it('is nearly level, plumb and equal in its sides', () => {
    expect(kinds(found)).toEqual(['equal-length', 'level', 'level', 'plumb', 'plumb']);
  });
  it('becomes one exactly, and no corner goes farther than it must', () => {
    const { paths, held, moved } = regularize([askew], found, 0.1);
    expect(held).toHaveLength(5);
    const [a, b, c, d] = corners(paths[0] as Path) as [Point, Point, Point, Point];
    expect(a.y).toBeCloseTo(b.y, 9);
    expect(b.x).toBeCloseTo(c.x, 9);
    expect(c.y).toBeCloseTo(d.y, 9);
    expect(d.x).toBeCloseTo(a.x, 9);
    // The nearest rectangle lies through the means of the sides.
    expect(a.y).toBeCloseTo(0.005, 6);
    expect(c.x).toBeCloseTo(60.01, 6);
    expect(moved).toBeLessThan(0.03);
  });
  it('stays as it is where all are refused', () => {
    expect(regularize([askew], [], 0.1).paths).toEqual([askew]);
  });
  it('gives up what would move a corner too far', () => {
    const { held, moved } = regularize([askew], found, 0.006);
    expect(held.length).toBeLessThan(5);
    expect(moved).toBeLessThanOrEqual(0.006);
  });
});

it('what contradicts the rest is left out', () => {
  const triangle = quad([0, 0], [40, 0.01], [20, 30]);
  const [first] = relationsIn([triangle], 0.1);
  const sides = [0, 1, 2].map((segment) => ({ path: 0, segment }));
  // Two sides of a triangle cannot be parallel.
  const wrong: Relation = { kind: 'parallel', of: [sides[1], sides[2]] as Relation['of'], at: { x: 0, y: 0 }, off: 30 };
  const { held } = regularize([triangle], [first as Relation, wrong], 1);
  expect(kinds(held)).toEqual(['level']);
});

it('circles nearly alike and nearly about one centre become so', () => {
  const rings = [circlePath({ x: 10, y: 10 }, 8), circlePath({ x: 10.01, y: 9.99 }, 5), circlePath({ x: 40, y: 10 }, 5.012)];
  const found = relationsIn(rings, 0.1);
  expect(kinds(found)).toEqual(['concentric', 'equal-radius']);
  const { paths, held } = regularize(rings, found, 0.1);
  expect(held).toHaveLength(2);
  const circle = (path: Path) => {
    const arcs = path.segments as ArcSegment[];
    const { centre, radius } = circleOf(path.start, arcs[0] as ArcSegment);
    return { ...centre, r: radius, sweeps: arcs.map(({ sweep }) => sweep) };
  };
  const [large, small, other] = paths.map(circle) as [ReturnType<typeof circle>, ReturnType<typeof circle>, ReturnType<typeof circle>];
  expect(Math.hypot(large.x - small.x, large.y - small.y)).toBeLessThan(1e-8);
  expect(small.r).toBeCloseTo(other.r, 8);
  // Whole circles stay whole.
  for (const { sweeps } of [large, small, other]) expect(sweeps.reduce((a, b) => a + b, 0)).toBeCloseTo(2 * Math.PI, 8);
});

it.each([plateScene, straightScene])('scans of $name come no farther from the truth, tangent joints stay tangent', (scene) => {
  const scan = scanScene(scene, { dpi: 300, noise: 5 });
  const truth = scene.pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
  for (const { outer, holes } of tracePicture(scan.picture, scan.mmPerPx, plainTraceSettings).pieces) {
    const paths = [outer, ...holes].map((path) => transformedPath(path, inverse(scan.toPixels)));
    const { paths: made, held } = regularize(paths, relationsIn(paths, 0.1), 0.1);
    expect(held.length).toBeGreaterThan(1);
    expect(deviationOf(made, truth).rmsMm).toBeLessThan(deviationOf(paths, truth).rmsMm + 0.001);
    expect(made.map(({ segments }) => segments.length)).toEqual(paths.map(({ segments }) => segments.length));
  }
});

it.each([21, 22, 23, 24])('all that a scanned plate nearly is holds together, though much of it says the same twice (%i)', (seed) => {
  const scan = scanScene(plateScene, { dpi: 300, noise: 5, seed });
  const [plate] = tracePicture(scan.picture, scan.mmPerPx, plainTraceSettings).pieces;
  const paths = [plate?.outer as Path, ...(plate?.holes ?? [])].map((path) => transformedPath(path, inverse(scan.toPixels)));
  const wanted = relationsIn(paths, 0.1);
  const { held, moved } = regularize(paths, wanted, 0.1);
  expect(wanted.length).toBeGreaterThan(9);
  expect(held).toHaveLength(wanted.length);
  expect(moved).toBeLessThan(0.01);
});

it('what is found among sides of chance moves no corner beyond its reach', () => {
  const place = fc.record({ x: fc.double({ min: 0, max: 100, noNaN: true }), y: fc.double({ min: 0, max: 100, noNaN: true }) });
  fc.assert(
    fc.property(fc.array(place, { minLength: 3, maxLength: 8 }), (points) => {
      const path = polygonPath(points);
      const { moved, paths } = regularize([path], relationsIn([path], 0.1), 0.1);
      expect(moved).toBeLessThanOrEqual(0.1);
      expect(paths[0]?.segments).toHaveLength(points.length);
    }),
    { numRuns: lawRuns(60) },
  );
});
