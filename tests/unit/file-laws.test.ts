/** Whatever is written, in SVG and DXF, other readers see the size and the outlines that went in. */
import { dxfCurveToleranceMm, type FilePiece, writeDxf, writeSvg } from '@nuvet/core/formats';
import { measuresOf, overallBox, purposes } from '@nuvet/core/job';
import { circlePath, heightOf, type Path, pathLength, shift, transformedPath, widthOf } from '@nuvet/core/plane';
import { curveThrough, degrees, ellipse, piece, polar, regularPolygon, roundedRectangle } from '@nuvet/truth';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { polylinesSeenByDxfParser, svgSeen } from './outside-readers.ts';
import { lawRuns } from './random-laws.ts';

const radius = fc.double({ min: 4, max: 30, noNaN: true });
const outline: fc.Arbitrary<Path> = fc.oneof(
  radius.map((r) => circlePath({ x: 0, y: 0 }, r)),
  fc.tuple(radius, fc.integer({ min: 3, max: 9 })).map(([r, sides]) => regularPolygon({ x: 0, y: 0 }, sides, r)),
  fc.tuple(radius, radius).map(([w, h]) => roundedRectangle(-w, -h, 2 * w, 2 * h, 2)),
  fc.tuple(radius, fc.double({ min: 0.4, max: 1, noNaN: true })).map(([r, flat]) => ellipse({ x: 0, y: 0 }, r, r * flat, 0.3)),
  fc.array(fc.double({ min: 0.6, max: 1, noNaN: true }), { minLength: 5, maxLength: 9 }).map((reach) =>
    curveThrough(
      reach.map((k, n) => {
        const p = polar({ x: 0, y: 0 }, degrees((360 * n) / reach.length), 20 * k);
        return [p.x, p.y] as const;
      }),
    ),
  ),
);
const pieces: fc.Arbitrary<FilePiece[]> = fc
  .array(
    fc.record({
      path: outline,
      x: fc.integer({ min: -300, max: 300 }),
      y: fc.integer({ min: -300, max: 300 }),
      purpose: fc.constantFrom(...purposes),
      hole: fc.boolean(),
    }),
    { minLength: 1, maxLength: 4 },
  )
  .map((list) =>
    list.map(({ path, x, y, purpose, hole }, k) => ({
      name: `Piece ${k + 1}`,
      purpose,
      ...piece(transformedPath(path, shift(x, y)), hole ? [circlePath({ x, y }, 1.5)] : []),
    })),
  );
const sizeOf = (list: FilePiece[]) => {
  const box = overallBox(list.map((p) => ({ ...p, id: p.name, leftOut: false, runsOff: false, holes: [...p.holes] })));
  return box ? [widthOf(box), heightOf(box)] : [0, 0];
};

it('SVG: a circle whose radius has more digits than the file keeps its radius all round', () => {
  const r = 5.40875;
  const [path] = svgSeen(writeSvg([{ name: 'Disc', purpose: 'cut', ...piece(circlePath({ x: 0, y: 0 }, r)) }], 'Disc')).paths;
  expect(path?.length).toBeCloseTo(2 * Math.PI * r, 2);
  expect((path?.box.maxY ?? 0) - (path?.box.minY ?? 0)).toBeCloseTo(2 * r, 2);
});

it('SVG: overall size, one path a piece, lengths', () => {
  fc.assert(
    fc.property(pieces, (list) => {
      const seen = svgSeen(writeSvg(list, 'Laws'));
      const [width, height] = sizeOf(list);
      expect(seen.widthMm).toBeCloseTo(width as number, 3);
      expect(seen.heightMm).toBeCloseTo(height as number, 3);
      expect(seen.paths).toHaveLength(list.length);
      const theirs = seen.paths.map((p) => p.length).sort((a, b) => a - b);
      const ours = list.map((p) => measuresOf({ outer: p.outer, holes: [...p.holes] }).perimeterMm).sort((a, b) => a - b);
      theirs.forEach((length, k) => {
        expect(Math.abs(length - (ours[k] as number))).toBeLessThan(0.002 * length);
      });
    }),
    { numRuns: lawRuns(25) },
  );
});

/** Arcs may leave the curve that they stand for by this much, mm. */
const slack = dxfCurveToleranceMm + 1e-6;

it('DXF: every outline closed on the layer of its purpose, as long as it was, inside the stated size', () => {
  fc.assert(
    fc.property(pieces, (list) => {
      const seen = polylinesSeenByDxfParser(writeDxf(list, 'Laws', { dxf: 'plain', unit: 'mm', toleranceMm: dxfCurveToleranceMm }));
      const outlines = list.flatMap((p) => [p.outer, ...p.holes].map((path) => ({ path, layer: p.purpose.toUpperCase() })));
      expect(seen.map((s) => [s.shape, s.layer])).toEqual(outlines.map(({ layer }) => [true, layer]));
      const [width, height] = sizeOf(list);
      seen.forEach(({ vertices }, k) => {
        const length = vertices.reduce((sum, a, n) => {
          const b = vertices[(n + 1) % vertices.length] as typeof a;
          const chord = Math.hypot(b.x - a.x, b.y - a.y);
          const sweep = 4 * Math.atan(a.bulge ?? 0);
          return sum + (sweep === 0 ? chord : (chord * Math.abs(sweep)) / (2 * Math.sin(Math.abs(sweep) / 2)));
        }, 0);
        const truth = pathLength(outlines[k]?.path as Path);
        expect(Math.abs(length - truth)).toBeLessThan(0.0005 * truth + 0.005);
        for (const { x, y } of vertices) {
          expect(x > -slack && y > -slack && x < (width as number) + slack && y < (height as number) + slack).toBe(true);
        }
      });
    }),
    { numRuns: lawRuns(40) },
  );
});
