/**
 * Chains of live steps at random: what follows from a master is held against jsts, which takes the same steps with chords.
 */
import { type Path, type Point, pathArea, pathBox, pathLength, reversedPath, transformedPath } from '@nuvet/core/plane';
import { followed, type LiveStep, nested } from '@nuvet/core/shape';
import fc from 'fast-check';
import AffineTransformation from 'jsts/org/locationtech/jts/geom/util/AffineTransformation.js';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import { describe, expect, it } from 'vitest';
import { complaints, overlaid, type Polygon, polygonFrom } from './polygons-of-jsts.ts';
import { lawRuns } from './random-laws.ts';
import { areaOf, mixed, number, outline, place, whole } from './random-outlines.ts';

type Step = Extract<LiveStep, { kind: 'offset' | 'mirror' | 'turn' | 'cut-out' }>;

/** An outline, or one with a hole of its own form in it. */
const master = fc.record({ outer: mixed, share: number(0.2, 0.6), isPierced: fc.boolean() }).map(({ outer, share, isPierced }): Path[] => {
  if (!isPierced) return [outer];
  const { minX, maxX, minY, maxY } = pathBox(outer);
  const [x, y] = [(minX + maxX) / 2, (minY + maxY) / 2];
  const hole = transformedPath(outer, { a: share, b: 0, c: 0, d: share, e: x * (1 - share), f: y * (1 - share) });
  return overlaid(polygonFrom(whole(hole)), polygonFrom(whole(outer)), 'take-away').getArea() < 1e-9
    ? [outer, reversedPath(hole)]
    : [outer];
});

const step: fc.Arbitrary<Step> = fc.oneof(
  number(-3, 4).map((by): Step => ({ kind: 'offset', by, count: 1, corners: 'round', keeps: false })),
  fc.tuple(place, place).map(([a, b]): Step => ({ kind: 'mirror', a, b })),
  fc.record({ centre: place, count: fc.integer({ min: 2, max: 6 }), mirrored: fc.boolean(), axis: number(0, 3) }).map((s): Step => ({ kind: 'turn', ...s })),
  fc.constant<Step>({ kind: 'cut-out', ids: ['other'] }),
); // biome-ignore format: one each

/** The same step by jsts. */
function judged(area: Polygon, one: Step, other: Polygon): Polygon {
  const united = (images: readonly AffineTransformation[]): Polygon =>
    images.map((image) => image.transform(area)).reduce((sum, image) => overlaid(sum, image, 'unite'));
  if (one.kind === 'offset') return BufferOp.bufferOp(area, one.by, 60);
  if (one.kind === 'cut-out') return overlaid(area, other, 'take-away');
  const about = (a: Point, b: Point) => AffineTransformation.reflectionInstance(a.x, a.y, b.x, b.y);
  if (one.kind === 'mirror') return united([new AffineTransformation(), about(one.a, one.b)]);
  const { centre, count, mirrored, axis } = one;
  const turns = Array.from({ length: count }, (_, k) =>
    AffineTransformation.rotationInstance((2 * Math.PI * k) / count, centre.x, centre.y),
  );
  const far = { x: centre.x + Math.cos(axis), y: centre.y + Math.sin(axis) };
  return united(turns.flatMap((turn) => (mirrored ? [turn, about(centre, far).compose(turn)] : [turn])));
}

describe('what follows from a master by live steps', () => {
  it('is as large as jsts makes it by the same steps, and made of areas', () => {
    fc.assert(
      fc.property(master, outline, fc.array(step, { minLength: 1, maxLength: 3 }), (paths, other, steps) => {
        const [outer, ...holes] = paths as [Path];
        const cutter = polygonFrom(whole(other), 0.001);
        const truth = steps.reduce((area, one) => judged(area, one, cutter), polygonFrom({ outer, holes }, 0.001));
        const made = nested(followed(paths, steps, () => [other]).paths);
        const length = made.reduce((sum, one) => sum + [one.outer, ...one.holes].reduce((l, path) => l + pathLength(path), 0), 0);
        // Every offset may be off by its tolerance all along.
        expect(Math.abs(areaOf(made) - truth.getArea())).toBeLessThan(0.008 * steps.length * (length + pathLength(outer)) + 0.02);
        expect(complaints(made.filter((one) => areaOf([one]) > 1e-3))).toEqual([]);
        expect(made.every((one) => pathArea(one.outer) > 0)).toBe(true);
      }),
      { numRuns: lawRuns(150) },
    );
  });
});
