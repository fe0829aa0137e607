/**
 * In: a plan, or programs read back. Out: the stock as they leave it, with what they would run into: rapid moves through stock, clamps.
 */
import type { Box, Point } from '../plane/index.ts';
import { asPart } from '../steps.ts';
import { HeightField, sweepMoves } from './height-field.ts';
import type { MillPlan } from './mill-plan.ts';
import { type MillTool, radiusOf } from './mill-tool.ts';
import { type Milled, milledAgainst } from './milled-against.ts';
import type { Move, Place } from './moves.ts';
import type { Clamp } from './settings.ts';

/** Cells of a simulation are no wider than this, and there are no more than so many of them. */
const simulationCellMm = 0.05;
const fewCells = 2_500_000;

/** Moves of one tool, on the sheet, heights above the top of the stock. */
export interface ToolMoves {
  readonly tool: MillTool;
  readonly start: Place;
  readonly moves: readonly Move[];
}

export interface RunInto {
  readonly what: 'stock' | 'clamp';
  readonly tool: string;
  readonly at: Point;
  readonly depthMm: number;
}

export interface Simulated {
  readonly field: HeightField;
  readonly runsInto: readonly RunInto[];
  readonly lowestZ: number;
}

/** A width of cells for a box that keeps a simulation quick. */
export const cellFor = ({ minX, minY, maxX, maxY }: Box): number =>
  Math.max(simulationCellMm, Math.sqrt(((maxX - minX) * (maxY - minY)) / fewCells));

/** Mills a field; yields the share done. */
export function* simulated(
  field: HeightField,
  programs: readonly ToolMoves[],
  clamps: readonly Clamp[] = [],
): Generator<number, Simulated> {
  const runsInto: RunInto[] = [];
  let lowestZ = 0;
  for (const [k, { tool, start, moves }] of programs.entries()) {
    const swept = yield* asPart(sweepMoves(field, start, moves, tool), k / programs.length, (k + 1) / programs.length);
    lowestZ = Math.min(lowestZ, swept.lowestZ);
    runsInto.push(...swept.rapids.map(({ at, depthMm }) => ({ what: 'stock' as const, tool: tool.name, at, depthMm })));
    runsInto.push(...clampsHit(start, moves, tool, clamps));
  }
  return { field, runsInto, lowestZ };
}

/** Where a tool, as wide as it is, goes into a clamp: it stands on the stock. */
function clampsHit(start: Place, moves: readonly Move[], tool: MillTool, clamps: readonly Clamp[]): RunInto[] {
  const radius = radiusOf(tool);
  return clamps.flatMap(({ x, y, widthMm, heightMm, overMm }) => {
    let at = start;
    for (const { to } of moves) {
      const low = Math.min(at.z, to.z);
      const hit =
        low < overMm && boxMet(at, to, { minX: x - radius, minY: y - radius, maxX: x + widthMm + radius, maxY: y + heightMm + radius });
      if (hit) return [{ what: 'clamp' as const, tool: tool.name, at: { x: to.x, y: to.y }, depthMm: overMm - low }];
      at = to;
    }
    return [];
  });
}

/** Whether a straight way meets a box (Liang & Barsky 1984). */
function boxMet(a: Point, b: Point, { minX, minY, maxX, maxY }: Box): boolean {
  let [from, to] = [0, 1];
  for (const [p, q] of [
    [a.x - b.x, a.x - minX],
    [b.x - a.x, maxX - a.x],
    [a.y - b.y, a.y - minY],
    [b.y - a.y, maxY - a.y],
  ] as const) {
    if (p === 0) {
      if (q < 0) return false;
    } else if (p < 0) from = Math.max(from, q / p);
    else to = Math.min(to, q / p);
  }
  return from <= to;
}

/** A plan, or programs for it that were read back, simulated and measured against the outlines. */
export function* provedPlan(
  plan: MillPlan,
  programs: readonly ToolMoves[] = plan.runs,
): Generator<number, { simulated: Simulated; milled: Milled }> {
  const field = new HeightField(plan.stock, 0, cellFor(plan.stock));
  const stock = yield* asPart(simulated(field, programs, plan.clamps), 0, 0.7);
  return { simulated: stock, milled: yield* asPart(milledAgainst(field, plan), 0.7, 1) };
}
