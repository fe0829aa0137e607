/**
 * In: a plan. Out: the stock at any time of the work, quickly enough to be dragged through: what was milled up to some times is kept, and
 * gone on from.
 */
import { type Box, boxAroundBoxes, heightOf, widthOf } from '../plane/index.ts';
import { HeightField, sweepMoves } from './height-field.ts';
import type { MillPlan, MillRun } from './mill-plan.ts';
import { radiusOf } from './mill-tool.ts';
import { clearedBelow } from './milled-against.ts';
import { type Place, secondsOf } from './moves.ts';

export interface TrialShown {
  readonly columns: number;
  readonly rows: number;
  readonly box: Box;
  readonly heights: Float32Array;
  /** Of each cell which operation took it last, from 1; 0 for none. */
  readonly operations: Uint8Array;
  /** Of each cell whether it is to be cleared and still stands: 1. */
  readonly stands: Uint8Array;
  readonly at: Place;
  /** The run that is being made, by its place; null before the first. */
  readonly run: number | null;
}

/** So many cells are quick to mill and to draw. */
const cells = 180_000;

export class Trial {
  private readonly field: HeightField;
  private readonly operations: Uint8Array;
  private readonly below: Float32Array;
  /** How many moves, over all runs, are milled, and the stock after each run. */
  private readonly kept = new Map<number, { heights: Float32Array; operations: Uint8Array }>();
  private readonly ends: number[] = [];
  readonly seconds: number;

  constructor(
    private readonly plan: Pick<MillPlan, 'runs' | 'stock' | 'operations' | 'allowed' | 'bottomZ'>,
    private readonly rapidMmPerMin: number,
    private readonly accelerationMmPerS2: number,
  ) {
    const box = workedBox(plan);
    this.field = new HeightField(box, 0, Math.sqrt((widthOf(box) * heightOf(box)) / cells));
    this.operations = new Uint8Array(this.field.heights.length);
    this.below = clearedBelow(this.field, plan);
    let sum = 0;
    for (const run of plan.runs) {
      sum += run.seconds;
      this.ends.push(sum);
    }
    this.seconds = sum;
    this.keep(-1);
  }

  private keep(run: number): void {
    this.kept.set(run, { heights: this.field.heights.slice(), operations: this.operations.slice() });
  }

  /** The stock after so many seconds of cutting. */
  *at(seconds: number): Generator<number, TrialShown> {
    const { runs } = this.plan;
    const current = this.ends.findIndex((end) => seconds < end - 1e-9);
    const last = current < 0 ? runs.length : current;
    let done = -1;
    for (const run of this.kept.keys()) if (run < last) done = Math.max(done, run);
    const from = this.kept.get(done) as { heights: Float32Array; operations: Uint8Array };
    this.field.heights.set(from.heights);
    this.operations.set(from.operations);
    for (let k = done + 1; k < last; k++) {
      yield* this.mill(runs[k] as MillRun, null);
      // As many as there is room for: of many small runs every so often.
      if (k % Math.ceil(runs.length / 40) === 0) this.keep(k);
    }
    const run = runs[current];
    const place = run
      ? yield* this.mill(run, seconds - (this.ends[current - 1] ?? 0))
      : (runs.at(-1)?.moves.at(-1)?.to ?? { x: 0, y: 0, z: 5 });
    const { columns, rows, box, heights } = this.field;
    return {
      columns,
      rows,
      box,
      heights: heights.slice(),
      operations: this.operations.slice(),
      stands: Uint8Array.from(heights, (z, k) => (z > (this.below[k] as number) ? 1 : 0)),
      at: place,
      run: run ? current : runs.length - 1,
    };
  }

  /** One run, or its first seconds; where the tool is then. */
  private *mill(run: MillRun, seconds: number | null): Generator<number, Place> {
    const { start, moves, tool, operation } = run;
    const count = seconds === null ? moves.length : this.movesWithin(run, seconds);
    const before = this.field.heights.slice();
    yield* sweepMoves(this.field, start, moves.slice(0, count), tool);
    const number = this.plan.operations.indexOf(operation) + 1;
    for (let k = 0; k < before.length; k++) if ((this.field.heights[k] as number) < (before[k] as number)) this.operations[k] = number;
    return moves[count - 1]?.to ?? start;
  }

  private movesWithin({ start, moves, seconds: whole }: MillRun, seconds: number): number {
    // Move by move it takes a little longer than in one go: the share of that counts.
    const parts = moves.map((move, k) =>
      secondsOf(k === 0 ? start : (moves[k - 1]?.to ?? start), [move], this.rapidMmPerMin, this.accelerationMmPerS2),
    );
    const all = parts.reduce((a, b) => a + b, 0);
    let left = whole > 0 ? (seconds / whole) * all : 0;
    let count = 0;
    for (const part of parts) {
      if (left < part) break;
      left -= part;
      count++;
    }
    return count;
  }
}

/** Of the stock what is worked on, with a rim. */
function workedBox({ runs, stock }: Pick<MillPlan, 'runs' | 'stock'>): Box {
  const box = boxAroundBoxes(
    runs.flatMap(({ moves, tool }) =>
      moves.map(({ to: { x, y } }) => ({
        minX: x - radiusOf(tool),
        minY: y - radiusOf(tool),
        maxX: x + radiusOf(tool),
        maxY: y + radiusOf(tool),
      })),
    ),
  );
  if (!box) return stock;
  const rim = 0.04 * Math.max(widthOf(box), heightOf(box));
  return {
    minX: Math.max(stock.minX, box.minX - rim),
    minY: Math.max(stock.minY, box.minY - rim),
    maxX: Math.min(stock.maxX, box.maxX + rim),
    maxY: Math.min(stock.maxY, box.maxY + rim),
  };
}
