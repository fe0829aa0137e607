/** Laws of profiles over pieces at random: what they take off as jsts has it, what they leave alone, their order and their tabs. */
import { type Piece, plainMachine, plainStock } from '@nuvet/core/job';
import { HeightField, type MillPlan, type MillTool, millPlan, millToolSchema, operationSchema, plainMilling, provedPlan, sweepMoves } from '@nuvet/core/milling'; // biome-ignore format: one line
import { circlePath, nearestOnPath, type Path, pathArea, rectanglePath, reversedPath } from '@nuvet/core/plane';
import { insidePoint, windingNumber } from '@nuvet/core/shape';
import { finished } from '@nuvet/core/steps';
import fc from 'fast-check';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import { describe, expect, it } from 'vitest';
import { lineFrom, overlaid, type Polygon, polygonFrom } from './polygons-of-jsts.ts';
import { lawRuns } from './random-laws.ts';
import { mixed, number } from './random-outlines.ts';

const mill = (diameterMm: number): MillTool =>
  millToolSchema.parse({ id: 't', name: 'End mill', kind: 'end mill', diameterMm, speedRpm: 18_000, feedMmPerMin: 900, plungeMmPerMin: 300, stepdownMm: 3, stepover: 0.4 }); // biome-ignore format: fields
const part = (id: string, outer: Path, holes: Path[] = []): Piece =>
  ({ id, name: id, purpose: 'cut', outer, holes, leftOut: false }) as Piece;
const stock = { ...plainStock, thicknessMm: 5, widthMm: 120, heightMm: 120 };
const planOf = (pieces: Piece[], tool: MillTool, more: object): MillPlan => {
  const operations = [operationSchema.parse({ kind: 'profile', id: 'p', tool: 't', tabs: null, ...more })];
  return finished(millPlan(pieces, { ...plainMilling, tools: [tool], operations }, plainMachine, stock));
};
const leftward = (path: Path): Path => (pathArea(path) > 0 ? path : reversedPath(path));

/** What a round tool takes off whose middle goes round a border, as jsts has it: the border's own line moved, made wide. */
function groove(border: Path, diameterMm: number, side: 1 | -1): Polygon {
  const way = BufferOp.bufferOp(polygonFrom({ outer: border, holes: [] }), (side * diameterMm) / 2, 64).getExteriorRing();
  return BufferOp.bufferOp(way, diameterMm / 2, 64) as Polygon;
}

describe('profiles at random', () => {
  it('take off round the outside what jsts takes off, climb or conventional, with rough passes or none', () => {
    fc.assert(
      fc.property(
        mixed,
        number(1, 6),
        fc.constantFrom('climb', 'conventional'),
        fc.constantFrom(0, 0.3),
        (outline, diameterMm, direction, finishMm) => {
          const outer = leftward(outline);
          const tool = mill(diameterMm);
          const plan = planOf([part('a', outer)], tool, { direction, finishMm });
          const field = new HeightField(plan.stock, 0, 0.1);
          for (const run of plan.runs) finished(sweepMoves(field, run.start, run.moves, run.tool));
          const cut = field.heights.reduce((count, z) => count + (z < plan.bottomZ + 1e-3 ? 1 : 0), 0) * field.cellMm ** 2;
          // A rough pass goes an allowance further out.
          const last = groove(outer, diameterMm, 1);
          const asFar = BufferOp.bufferOp(lineFrom(outer), diameterMm + finishMm, 64) as Polygon;
          const further = overlaid(overlaid(asFar, polygonFrom({ outer, holes: [] }), 'take-away'), last, 'take-away').getArea();
          const area = last.getArea() + (finishMm > 0 ? further : 0);
          // Cells are counted whole: as many as the rims are long may be counted wrongly, half of them each way.
          expect(Math.abs(cut / area - 1)).toBeLessThan(0.02);
          const { milled, simulated } = finished(provedPlan(plan));
          expect(milled.gouges).toEqual([]);
          expect(simulated.runsInto).toEqual([]);
        },
      ),
      { numRuns: lawRuns(30), seed: 11 },
    );
  });
  it('are led in and out without touching the piece, however steep the way down', () => {
    fc.assert(
      fc.property(
        mixed,
        number(1, 4),
        number(0.5, 4),
        fc.constantFrom(null, 1, 3, 10),
        fc.constantFrom('climb', 'conventional'),
        fc.constantFrom(0, 0.3),
        (outline, diameterMm, leadMm, entryAngle, direction, finishMm) => {
          const at = insidePoint(outline);
          const hole = nearestOnPath(outline, at).distance > 3 ? [reversedPath(circlePath(at, 2.5))] : [];
          const plan = planOf([part('a', leftward(outline), hole)], mill(diameterMm), { leadMm, entryAngle, direction, finishMm });
          const { milled, simulated } = finished(provedPlan(plan));
          expect(milled.gouges).toEqual([]);
          expect(simulated.runsInto).toEqual([]);
        },
      ),
      { numRuns: lawRuns(30), seed: 15 },
    );
  });
  it('of a hole leave its corners as round as the tool, and nothing of its rim', () => {
    fc.assert(
      fc.property(mixed, number(1, 5), (outline, diameterMm) => {
        const hole = reversedPath(leftward(outline));
        const tool = mill(diameterMm);
        const plan = planOf([part('a', rectanglePath({ minX: -45, minY: -45, maxX: 45, maxY: 45 }), [hole])], tool, { side: 'inside' });
        const field = new HeightField(plan.stock, 0, 0.1);
        for (const run of plan.runs) finished(sweepMoves(field, run.start, run.moves, run.tool));
        const cut = field.heights.reduce((count, z) => count + (z < plan.bottomZ + 1e-3 ? 1 : 0), 0) * field.cellMm ** 2;
        expect(Math.abs(cut / groove(leftward(outline), diameterMm, -1).getArea() - 1)).toBeLessThan(0.02);
        expect(finished(provedPlan(plan)).milled.gouges).toEqual([]);
      }),
      { numRuns: lawRuns(20), seed: 12 },
    );
  });
  it('cut what lies within a border before the border', () => {
    const nest = fc.record({ count: fc.integer({ min: 1, max: 4 }), holes: fc.integer({ min: 1, max: 3 }), turn: number(0, 6) });
    fc.assert(
      fc.property(fc.array(nest, { minLength: 1, maxLength: 3 }), (nests) => {
        const middles = [{ x: 0, y: 0 }, { x: 60, y: 0 }, { x: 0, y: 60 }]; // biome-ignore format: one line
        const pieces = nests.flatMap(({ count, holes, turn }, n): Piece[] => {
          const at = middles[n] as { x: number; y: number };
          // Rings in one another, as targets are cut; the innermost has holes beside each other.
          const rings = Array.from({ length: count }, (_, k) => {
            const inner = 25 - 6 * k - 3;
            const within = k + 1 < count ? [reversedPath(circlePath(at, inner))] : Array.from({ length: holes }, (_h, h) => reversedPath(circlePath({ x: at.x + 1.6 * Math.cos(turn + 2.1 * h), y: at.y + 1.6 * Math.sin(turn + 2.1 * h) }, 0.75))); // biome-ignore format: one line
            return part(`${n}-${k}`, circlePath(at, 25 - 6 * k), within);
          });
          // As they come from a drawing: in no order.
          return turn > 3 ? rings.reverse() : rings;
        });
        const plan = finished(
          millPlan(
            pieces,
            { ...plainMilling, tools: [mill(1)], operations: [operationSchema.parse({ kind: 'profile', id: 'p', tool: 't', tabs: null })] },
            plainMachine,
            { ...stock, widthMm: 200, heightMm: 200 },
          ),
        );
        expect(plan.notes.filter(({ isFailure }) => isFailure)).toEqual([]);
        // The ways at their deepest, as loops of their own places.
        const ways = plan.runs.map(({ moves }): Path => {
          const deep = moves.filter(({ isRapid, to }) => !isRapid && to.z < plan.bottomZ).map(({ to, sweep }) => ({ to, sweep }));
          const [first] = deep as [(typeof deep)[0]];
          return { start: first.to, closed: true, segments: deep.slice(1).map(({ to, sweep }) => (sweep === 0 ? { kind: 'line', to } : { kind: 'arc', to, sweep })) }; // biome-ignore format: one line
        });
        ways.forEach((way, k) => {
          const at = insidePoint(way);
          for (const later of ways.slice(0, k))
            if (Math.abs(pathArea(later)) > Math.abs(pathArea(way))) expect(windingNumber([later], at)).toBe(0);
        });
      }),
      { numRuns: lawRuns(30), seed: 13 },
    );
  });
  it('leave as many tabs as asked, as high as asked, and nothing else that holds', () => {
    fc.assert(
      fc.property(
        mixed,
        fc.integer({ min: 2, max: 6 }),
        number(0.6, 3),
        fc.constantFrom('straight', 'sloped'),
        (outline, count, heightMm, flanks) => {
          const plan = planOf([part('a', leftward(outline))], mill(2), {
            tabs: { count, spacingMm: 0, widthMm: 3, heightMm, flanks, places: null },
          });
          const { milled } = finished(provedPlan(plan));
          expect(milled.gouges).toEqual([]);
          expect(milled.tabs).toHaveLength(count);
          for (const tab of milled.tabs) expect(Math.abs(tab.heightMm - heightMm)).toBeLessThan(0.02);
        },
      ),
      { numRuns: lawRuns(30), seed: 14 },
    );
  });
});
