/**
 * Planar maps, templates and rotary sizes held against jsts: faces by its polygonizer, allowances by its buffers; and stitches against
 * what a chord of a circle is.
 */
import { type Path, type Point, pathArea, polygonPath, rectanglePath } from '@nuvet/core/plane';
import { rotaryCut } from '@nuvet/core/quilting';
import { planarMap } from '@nuvet/core/shape';
import fc from 'fast-check';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import BufferParameters from 'jsts/org/locationtech/jts/operation/buffer/BufferParameters.js';
import Polygonizer from 'jsts/org/locationtech/jts/operation/polygonize/Polygonizer.js';
import UnaryUnionOp from 'jsts/org/locationtech/jts/operation/union/UnaryUnionOp.js';
import { describe, expect, it } from 'vitest';
import { linesFrom, polygonFrom } from './polygons-of-jsts.ts';
import { lawRuns } from './random-laws.ts';
import { number } from './random-outlines.ts';

const line = (a: Point, b: Point): Path => ({ start: a, segments: [{ kind: 'line', to: b }], closed: false });

/** Areas of the faces that jsts finds between lines, the largest first. */
function facesOf(paths: readonly Path[]): number[] {
  const polygonizer = new Polygonizer();
  polygonizer.add(UnaryUnionOp.union(linesFrom(paths)));
  const found: number[] = [];
  for (const it = polygonizer.getPolygons().iterator(); it.hasNext(); ) found.push(it.next().getArea());
  return found.sort((a, b) => b - a);
}

describe('a planar map', () => {
  it('has the faces that jsts finds between the same lines, those that lead nowhere left out', () => {
    const place = fc.record({ x: number(0, 100), y: number(0, 100) });
    fc.assert(
      fc.property(fc.array(fc.tuple(place, place), { minLength: 2, maxLength: 14 }), (ends) => {
        const paths = [
          rectanglePath({ minX: -1, minY: -1, maxX: 101, maxY: 101 }),
          ...ends.filter(([a, b]) => Math.hypot(a.x - b.x, a.y - b.y) > 1).map(([a, b]) => line(a, b)),
        ];
        const wanted = facesOf(paths);
        // Slivers may be welded away on either side.
        fc.pre(wanted.every((area) => area > 0.01));
        const found = planarMap(paths, 1e-7)
          .faces.map(({ area }) => area)
          .sort((a, b) => b - a);
        expect(found.length).toBe(wanted.length);
        found.forEach((area, k) => void expect(Math.abs(area - (wanted[k] as number))).toBeLessThan(1e-4 * Math.max(1, area)));
      }),
      { numRuns: lawRuns(120) },
    );
  });
});

/** How wide a polygon is across a direction. */
const widthAcross = (places: readonly Point[], along: number): number => {
  const across = places.map(({ x, y }) => -x * Math.sin(along) + y * Math.cos(along));
  return Math.max(...across) - Math.min(...across);
};

/** The corners of a patch with its allowance all round, corners sharp, by jsts. */
function withAllowance(corners: readonly Point[], by: number): Point[] {
  const settings = new BufferParameters(8, BufferParameters.CAP_FLAT, BufferParameters.JOIN_MITRE, 40);
  const ring = BufferOp.bufferOp(polygonFrom({ outer: polygonPath([...corners]), holes: [] }), by, settings).getExteriorRing();
  return ring.getCoordinates().map(({ x, y }: Point) => ({ x, y }));
}

describe('a rotary cut', () => {
  const allowance = 6.35;
  it.each(['parallelogram', 'diamond', 'trapezoid', 'rectangle'] as const)(
    'of a %s is a strip as wide as jsts makes the patch with its allowance',
    (figure) => {
      fc.assert(
        fc.property(number(40, 120), number(20, 60), number(35, 75), number(0, 3), (w, h, degrees, turn) => {
          const lean = h / Math.tan((degrees * Math.PI) / 180);
          const side = Math.hypot(h, lean);
          const flat: Record<typeof figure, Point[]> = {
          parallelogram: [{ x: 0, y: 0 }, { x: w + side, y: 0 }, { x: w + side + lean, y: h }, { x: lean, y: h }],
          diamond: [{ x: 0, y: 0 }, { x: side, y: 0 }, { x: side + lean, y: h }, { x: lean, y: h }],
          trapezoid: [{ x: 0, y: 0 }, { x: w + 2 * lean, y: 0 }, { x: w + lean, y: h }, { x: lean, y: h }],
          rectangle: [{ x: 0, y: 0 }, { x: w, y: 0 }, { x: w, y: h }, { x: 0, y: h }],
        }; // biome-ignore format: corners in a line
          fc.pre(figure !== 'rectangle' || Math.abs(w - h) > 2);
          const [c, s] = [Math.cos(turn), Math.sin(turn)];
          const corners = flat[figure].map(({ x, y }) => ({ x: c * x - s * y, y: s * x + c * y }));
          const cut = rotaryCut(polygonPath(corners), allowance);
          expect(cut.figure).toBe(figure);
          const grown = withAllowance(corners, allowance);
          const [along, square] = [widthAcross(grown, turn + Math.PI / 2), widthAcross(grown, turn)];
          const sides = [square, ...(figure === 'rectangle' ? [along] : [])];
          expect(Math.min(...sides.map((mm) => Math.abs(mm - (cut.stripMm as number))))).toBeLessThan(1e-6);
          if (figure === 'trapezoid') expect(cut.lengthMm).toBeCloseTo(along, 6);
          if (figure === 'rectangle') expect(cut.lengthMm).toBeCloseTo(Math.max(along, square), 6);
        }),
        { numRuns: lawRuns(40) },
      );
    },
  );
  it('of a triangle with a right angle is a rectangle whose halves hold the patch with its allowance', () => {
    fc.assert(
      fc.property(number(25, 120), number(25, 120), (p, q) => {
        const corners = [{ x: 0, y: 0 }, { x: p, y: 0 }, { x: 0, y: q }]; // biome-ignore format: corners
        const cut = rotaryCut(polygonPath(corners), allowance);
        const grown = withAllowance(corners, allowance);
        const sizes = [widthAcross(grown, 0), widthAcross(grown, Math.PI / 2)].sort((a, b) => a - b);
        const found = [cut.stripMm, cut.lengthMm].map(Number).sort((a, b) => a - b);
        if (cut.figure === 'half-rectangle triangle') found.forEach((mm, k) => void expect(mm).toBeCloseTo(sizes[k] as number, 5));
        // Cut in two from corner to corner it is the patch and its allowance, to the square millimetre.
        expect((found[0] as number) * (found[1] as number)).toBeCloseTo(
          2 * pathArea(polygonPath(grown.slice(0, 3))) * Math.sign(pathArea(polygonPath(grown.slice(0, 3)))),
          3,
        );
      }),
      { numRuns: lawRuns(40) },
    );
  });
});
