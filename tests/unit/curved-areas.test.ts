/**
 * Outlines of lines, arcs, ellipses and curves at random, united, taken away, set off, rounded and mirrored: held against
 * jsts, which does the same with chords, and against its word whether what comes out is an area.
 */
import { type Path, pathArea, pathLength, polygonPath, transformedPath } from '@nuvet/core/plane';
import {
  combined,
  cornersOf,
  largestCut,
  nested,
  offsetPiece,
  pathThrough,
  plainOffset,
  strokeOutline,
  withCornersCut,
} from '@nuvet/core/shape';
import { symmetriesOf, symmetrize } from '@nuvet/core/trace';
import fc from 'fast-check';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import { describe, expect, it } from 'vitest';
import { complaints, lineFrom, overlaid, polygonFrom } from './polygons-of-jsts.ts';
import { lawRuns } from './random-laws.ts';
import { areaOf, mixed, moved, number, outline, place, whole } from './random-outlines.ts';

describe('two curved areas', () => {
  it.each(['unite', 'take-away', 'keep-common'] as const)('%s: areas again, as large as jsts makes them of chords', (how) => {
    fc.assert(
      fc.property(outline, outline, (a, b) => {
        const made = nested(combined([a], [b], how));
        expect(complaints(made.filter((one) => areaOf([one]) > 1e-6))).toEqual([]);
        const truth = overlaid(polygonFrom(whole(a)), polygonFrom(whole(b)), how).getArea();
        // Chords cut a little off either.
        expect(Math.abs(areaOf(made) - truth)).toBeLessThan(0.0005 * (pathLength(a) + pathLength(b)));
      }),
      { numRuns: lawRuns(120), seed: 11 },
    );
  });
});

describe('a curved area set off', () => {
  it('is an area, or several, as large as jsts makes it of chords', () => {
    fc.assert(
      fc.property(outline, number(-6, 6), (path, by) => {
        fc.pre(Math.abs(by) > 0.02);
        const made = offsetPiece(whole(path), by, plainOffset);
        expect(complaints(made.filter((one) => areaOf([one]) > 1e-3))).toEqual([]);
        const truth = BufferOp.bufferOp(polygonFrom(whole(path)), by, 200);
        expect(Math.abs(areaOf(made) - truth.getArea())).toBeLessThan(0.01 * truth.getLength() + 0.01);
      }),
      { numRuns: lawRuns(250), seed: 11 },
    );
  });
  it('and taken back by the same is within what it was', () => {
    fc.assert(
      fc.property(outline, number(0.05, 2), (path, by) => {
        const shrunk = offsetPiece(whole(path), -by, plainOffset);
        const back = shrunk.flatMap((one) => offsetPiece(one, by, plainOffset));
        const outside = back.reduce(
          (sum, one) => sum + overlaid(polygonFrom(one, 0.002), polygonFrom(whole(path), 0.002), 'take-away').getArea(),
          0,
        );
        expect(outside).toBeLessThan(0.02 * pathLength(path));
      }),
      { numRuns: lawRuns(80), seed: 11 },
    );
  });
});

describe('a band about a curved line', () => {
  it.each(['round', 'flat', 'square'] as const)('with %s ends is an area of the width asked for', (ends) => {
    fc.assert(
      fc.property(mixed, number(0.4, 5), (path, width) => {
        const line: Path = { ...path, closed: false, segments: path.segments.slice(0, -1) };
        const made = strokeOutline(line, width, ends);
        expect(complaints(made.filter((one) => areaOf([one]) > 1e-3))).toEqual([]);
        // No more than the width along its length, its ends, and what its outer corners add.
        const max = width * pathLength(line) + 2 * width * width * line.segments.length;
        expect(areaOf(made)).toBeLessThan(max);
        expect(areaOf(made)).toBeGreaterThan(0.4 * width * pathLength(line));
      }),
      { numRuns: lawRuns(60), seed: 11 },
    );
  });
  it('is as large as jsts makes it, also about a line that winds more tightly than the band is wide, or crosses itself', () => {
    fc.assert(
      fc.property(fc.array(place, { minLength: 2, maxLength: 9 }), number(0.3, 6), (points, width) => {
        const line = pathThrough(points.map((at) => ({ at, corner: false })), false); // biome-ignore format: one line
        fc.pre(line !== null && pathLength(line) > 1);
        if (!line) return;
        const made = strokeOutline(line, width, 'round');
        expect(complaints(made.filter((one) => areaOf([one]) > 1e-3))).toEqual([]);
        const truth = BufferOp.bufferOp(lineFrom(line), width / 2, 120);
        expect(Math.abs(areaOf(made) - truth.getArea())).toBeLessThan(0.01 * truth.getLength() + 0.01);
      }),
      { numRuns: lawRuns(200) },
    );
  });
});

describe('corners that are cut', () => {
  it.each(['round', 'bevel'] as const)('%s: still an area, smaller at outer corners, and never by more than the corners', (how) => {
    fc.assert(
      fc.property(mixed, number(0.1, 0.9), (path, share) => {
        const corners = cornersOf(path).map(({ index }) => index);
        fc.pre(corners.length > 0);
        const size = share * largestCut(path, corners, how);
        fc.pre(size > 0.01);
        const { path: made, left } = withCornersCut(path, corners, size, how);
        expect(left).toEqual([]);
        expect(complaints([whole(made)])).toEqual([]);
        expect(made.segments.length).toBe(path.segments.length + corners.length);
        expect(Math.abs(Math.abs(pathArea(made)) - Math.abs(pathArea(path)))).toBeLessThan(corners.length * 12 * size * size + 1e-6);
      }),
      { numRuns: lawRuns(120), seed: 11 },
    );
  });
});

describe('nearly mirrored outlines', () => {
  it('made exactly so are areas that lie on their own image, and hardly leave what they were', () => {
    fc.assert(
      fc.property(
        fc.array(number(8, 20), { minLength: 3, maxLength: 5 }),
        number(0, 3.1),
        fc.array(number(-0.08, 0.08), { minLength: 12, maxLength: 12 }),
        (half, angle, jitter) => {
          const n = half.length;
          const corners = Array.from({ length: 2 * n }, (_, k) => {
            const r = (half[k < n ? k : 2 * n - 1 - k] as number) + (jitter[k] as number);
            const at = ((k + 0.5) * Math.PI) / n;
            return { x: r * Math.cos(at), y: r * Math.sin(at) };
          });
          const path = moved(polygonPath(corners), { x: 40, y: 30 }, angle);
          const mirror = symmetriesOf(whole(path), 0.4).find((s) => s.kind === 'mirror');
          fc.pre(mirror !== undefined);
          if (mirror?.kind !== 'mirror') return;
          const made = symmetrize(whole(path), mirror, 0.1, 0.2);
          fc.pre(made !== null);
          if (!made) return;
          expect(complaints([made])).toEqual([]);
          const [c, s] = [Math.cos(2 * mirror.angle), Math.sin(2 * mirror.angle)];
          const { x, y } = mirror.at;
          const image = transformedPath(made.outer, { a: c, b: s, c: s, d: -c, e: x - c * x - s * y, f: y - s * x + c * y });
          const [one, other, was] = [whole(made.outer), whole(image), whole(path)].map((area) => polygonFrom(area, 0.001)) as [ReturnType<typeof polygonFrom>, ReturnType<typeof polygonFrom>, ReturnType<typeof polygonFrom>]; // biome-ignore format: three
          expect(Math.abs(overlaid(one, other, 'unite').getArea() - one.getArea())).toBeLessThan(1e-3);
          expect(overlaid(one, was, 'take-away').getArea()).toBeLessThan(0.3 * pathLength(path));
        },
      ),
      { numRuns: lawRuns(40), seed: 11 },
    );
  });
});
