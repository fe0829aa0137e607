/**
 * Laws of milling over outlines at random, and over letters of Libre Baskerville (SIL Open Font License) and Bootstrap Icons (MIT): pockets
 * never gouge and leave what a round tool must; loops bite no more than they may; carvings end at their outlines.
 */
import { type Piece, plainMachine, plainStock } from '@nuvet/core/job';
import {
  chordsOfMove,
  type MillPlan,
  type MillTool,
  type Move,
  millPlan,
  millToolSchema,
  operationSchema,
  type Place,
  plainMilling,
  provedPlan,
} from '@nuvet/core/milling';
import { type Box, circlePath, type Path, pathArea, pathBox, reversedPath } from '@nuvet/core/plane';
import { distanceTo, nested, windingNumber } from '@nuvet/core/shape';
import { finished } from '@nuvet/core/steps';
import fc from 'fast-check';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import { describe, expect, it } from 'vitest';
import { icons, letters } from '../../bench/outside-outlines.ts';
import { polygonFrom } from './polygons-of-jsts.ts';
import { lawRuns } from './random-laws.ts';
import { mixed, number } from './random-outlines.ts';

const tool = (more: Partial<MillTool>): MillTool =>
  millToolSchema.parse({ id: 't', name: 'Tool', kind: 'end mill', diameterMm: 3, speedRpm: 18_000, feedMmPerMin: 900, plungeMmPerMin: 300, stepdownMm: 2, stepover: 0.4, ...more }); // biome-ignore format: fields
const pieceOf = (outer: Path, holes: Path[]): Piece =>
  ({ id: 'a', name: 'Area', purpose: 'pocket', outer, holes, leftOut: false }) as Piece;
const stock = { ...plainStock, thicknessMm: 8, widthMm: 90, heightMm: 90 };
const planOf = (piece: Piece, tools: MillTool[], operation: object) =>
  finished(millPlan([piece], { ...plainMilling, tools, operations: [operationSchema.parse(operation)] }, plainMachine, stock));

/** An outline with an island about its middle, where there is room. */
const withIsland = fc
  .record({ outer: mixed, radius: number(1, 5), has: fc.boolean(), diameterMm: number(1.5, 6) })
  .map(({ outer, radius, has, diameterMm }) => {
    const { minX, minY, maxX, maxY } = pathBox(outer);
    const middle = { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
    const turned = pathArea(outer) > 0 ? outer : reversedPath(outer);
    const fits = windingNumber([turned], middle) > 0 && distanceTo([turned])(middle) > radius + 1;
    return { outer: turned, holes: has && fits ? [reversedPath(circlePath(middle, radius))] : [], diameterMm };
  });

/** A corner between a chord and an arc that bends inwards: the straight way into it leaves the room of the tool's middle. */
const bentCorner = {
  outer: reversedPath({
    start: { x: -3, y: -15 },
    segments: [
      { kind: 'arc', to: { x: -6.514719, y: -23.485281 }, sweep: 0.4459898 },
      { kind: 'line', to: { x: -15, y: -27 } },
      { kind: 'line', to: { x: -27, y: -15 } },
      { kind: 'line', to: { x: -15, y: -3 } },
      { kind: 'line', to: { x: -3, y: -15 } },
    ],
    closed: true,
  }),
  holes: [reversedPath(circlePath({ x: -15, y: -15 }, 1))],
  diameterMm: 3.29336115,
};

describe('pockets at random', () => {
  it(
    'gouge nothing, and leave what opening by the tool loses, as jsts has it',
    () => {
      fc.assert(
        fc.property(withIsland, fc.constantFrom('rings', 'lines', 'spiral', 'loops'), ({ outer, holes, diameterMm }, pattern) => {
          const one = tool({ diameterMm });
          const plan = planOf(pieceOf(outer, holes), [one], { kind: 'pocket', id: 'k', tool: 't', depthMm: 3, pattern, lineAngle: 20 });
          if (plan.notes.some(({ isFailure }) => isFailure)) return;
          const { milled, simulated } = finished(provedPlan(plan));
          expect(milled.gouges).toEqual([]);
          expect(simulated.runsInto).toEqual([]);
          const whole = polygonFrom({ outer, holes });
          const opened = BufferOp.bufferOp(BufferOp.bufferOp(whole, -diameterMm / 2, 64), diameterMm / 2, 64);
          const left = milled.left.reduce((sum, { areaMm2 }) => sum + areaMm2, 0);
          const area = whole.getArea();
          expect(Math.abs(left - (area - opened.getArea()))).toBeLessThan(0.005 * area + 0.01 * outer.segments.length);
        }),
        { numRuns: lawRuns(24) + 1, seed: 5, examples: [[bentCorner, 'loops']] },
      );
    },
    lawRuns(24) * 20_000,
  );
});

/** What the grid reads too much, since it looks ahead of the rim by a part of a cell. */
const aheadDegrees = 3;
const radiusOfArc = (from: Place, { to, sweep }: Move): number =>
  Math.hypot(to.x - from.x, to.y - from.y) / (2 * Math.sin(Math.min(Math.abs(sweep), 3.14) / 2));

/** How much of the tool's front bites along moves at their levels, degrees: as a grid of its own has it, whose cells lie flat. */
function largestBite({ start, moves }: Pick<MillPlan['runs'][0], 'start' | 'moves'>, radius: number, around: Box, passMm: number): number {
  const box = { minX: around.minX - radius, minY: around.minY - radius, maxX: around.maxX + radius, maxY: around.maxY + radius };
  const cell = radius / 24;
  const [wide, high] = [Math.ceil((box.maxX - box.minX) / cell), Math.ceil((box.maxY - box.minY) / cell)];
  const heights = new Float32Array(wide * high);
  const cut = (at: Place): void => {
    for (
      let j = Math.max(0, Math.floor((at.y - radius - box.minY) / cell));
      j <= Math.min(high - 1, (at.y + radius - box.minY) / cell);
      j++
    )
      for (
        let i = Math.max(0, Math.floor((at.x - radius - box.minX) / cell));
        i <= Math.min(wide - 1, (at.x + radius - box.minX) / cell);
        i++
      )
        if (Math.hypot((i + 0.5) * cell + box.minX - at.x, (j + 0.5) * cell + box.minY - at.y) <= radius)
          heights[j * wide + i] = Math.min(heights[j * wide + i] as number, at.z);
  };
  const along = (visit: (from: Place, to: Place) => void): void => {
    let [at, hardlyFits] = [start, false];
    for (const move of moves) {
      // Where the tool hardly fits, by a tenth of its width, there is no room to bite less: on such loops, and from one to the next.
      if (move.sweep !== 0) hardlyFits = radiusOfArc(at, move) <= radius / 10;
      else if (Math.hypot(move.to.x - at.x, move.to.y - at.y) > radius / 10) hardlyFits = false;
      const isSeen = !hardlyFits;
      for (const to of move.isRapid ? [] : chordsOfMove(at, move, radius / 100)) {
        const count = Math.max(1, Math.ceil(Math.hypot(to.x - at.x, to.y - at.y) / (radius / 6)));
        let from = at;
        for (let k = 1; k <= count; k++) {
          const next = {
            x: at.x + ((to.x - at.x) * k) / count,
            y: at.y + ((to.y - at.y) * k) / count,
            z: at.z + ((to.z - at.z) * k) / count,
          };
          if (isSeen) visit(from, next);
          cut(next);
          from = next;
        }
        at = to;
      }
      at = move.to;
    }
  };
  along(() => {});
  const ends = heights.slice();
  heights.fill(0);
  let largest = 0;
  along((from, to) => {
    if (to.z < from.z - 1e-6 || Math.hypot(to.x - from.x, to.y - from.y) < 1e-9) return;
    const heading = Math.atan2(to.y - from.y, to.x - from.x);
    let count = 0;
    for (let ray = 0; ray < 90; ray++) {
      const angle = heading + ((2 * ray - 89) * Math.PI) / 180;
      const [u, v] = [Math.cos(angle), Math.sin(angle)];
      const cellAt = (x: number, y: number): number => Math.floor((y - box.minY) / cell) * wide + Math.floor((x - box.minX) / cell);
      const ledge = to.z + passMm / 4;
      const stands = (at: number): boolean => (heights[at] as number) > ledge;
      const isTaken = (at: number): boolean => stands(at) && (ends[at] as number) <= ledge;
      const out = cellAt(from.x + (radius + 0.75 * cell) * u, from.y + (radius + 0.75 * cell) * v);
      // Beside a wall, which stands for ever, it is asked a little further on.
      const on = cellAt(from.x + radius * u + 2 * cell * Math.cos(heading), from.y + radius * v + 2 * cell * Math.sin(heading));
      if (isTaken(out) || (stands(out) && isTaken(on))) count++;
    }
    largest = Math.max(largest, 2 * count);
  });
  return largest;
}

describe('loops at random', () => {
  it(
    'bite no more than they may by more than 5 degrees',
    () => {
      fc.assert(
        fc.property(
          withIsland,
          fc.integer({ min: 60, max: 120 }),
          fc.constantFrom('climb', 'conventional'),
          (one, engagement, direction) => {
            const { outer, holes, diameterMm } = one;
            const mill = tool({ diameterMm });
            const plan = planOf(pieceOf(outer, holes), [mill], { kind: 'pocket', id: 'k', tool: 't', depthMm: 2, pattern: 'loops', engagement, direction }); // biome-ignore format: one line
            if (plan.notes.some(({ isFailure }) => isFailure)) return;
            for (const run of plan.runs)
              expect(largestBite(run, diameterMm / 2, pathBox(outer), 2)).toBeLessThanOrEqual(engagement + 5 + aheadDegrees);
          },
        ),
        { numRuns: lawRuns(6), seed: 6, endOnFailure: true },
      );
    },
    lawRuns(6) * 30_000,
  );
});

describe('loops in outlines drawn by others', () => {
  it.each([...letters('libre-baskerville', 'Sg'), ...icons(3)])('$name is cleared, and nothing is gouged', ({ outlines }) => {
    const pieces = nested(outlines).map((area, k): Piece => ({ ...pieceOf(area.outer, [...area.holes]), id: `${k}` }));
    const operations = [operationSchema.parse({ kind: 'pocket', id: 'k', tool: 't', depthMm: 2, pattern: 'loops', engagement: 80 })];
    const settings = { ...plainMilling, tools: [tool({ diameterMm: 1.5 })], operations };
    const plan = finished(millPlan(pieces, settings, plainMachine, { ...stock, widthMm: null, heightMm: null }));
    expect(plan.runs.length).toBeGreaterThan(0);
    const { milled, simulated } = finished(provedPlan(plan));
    expect(milled.gouges).toEqual([]);
    expect(simulated.runsInto).toEqual([]);
  });
});

describe('carvings at random', () => {
  it(
    'end at the outline where the depth allows, and gouge nothing',
    () => {
      fc.assert(
        fc.property(withIsland, number(40, 100), number(1, 4), ({ outer, holes }, angle, depthMm) => {
          const bit = tool({ kind: 'V-bit', diameterMm: 8, tipMm: 0.4, angle, stepdownMm: 4 });
          const plan = planOf(pieceOf(outer, holes), [bit], { kind: 'carve', id: 'c', tool: 't', depthMm });
          const { milled, simulated } = finished(provedPlan(plan));
          expect(milled.gouges).toEqual([]);
          expect(milled.left).toEqual([]);
          expect(simulated.runsInto).toEqual([]);
          // Walls reach the outline at the top: cells just within it are touched, those beyond are not.
          const away = distanceTo([outer, ...holes]);
          const { field } = simulated;
          let [within, beyond] = [0, 0];
          for (let k = 0; k < field.heights.length; k += 53) {
            const p = field.middleOf(k);
            const d = away(p);
            if (d > 0.06 || d < 0.01) continue;
            const isIn = windingNumber([outer, ...holes], p) > 0;
            const isCut = (field.heights[k] as number) < -1e-5;
            if (isIn && !isCut && d > 0.02) within++;
            if (!isIn && isCut) beyond++;
          }
          expect(beyond).toBe(0);
          // In corners as narrow as the tip nothing can be reached.
          expect(within).toBeLessThan(8);
        }),
        { numRuns: lawRuns(10), seed: 5 },
      );
    },
    lawRuns(10) * 20_000,
  );
});
