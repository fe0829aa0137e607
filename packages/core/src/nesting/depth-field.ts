/**
 * In: two footprints, each turned as it may be. Out: for every way that the second can lie to the first on a grid how deep they lie in one
 * another: within their no-fit polygon how far it is to its edge, 0 beyond it. Footprints count as the cells that they touch, so that they
 * are apart for certain where it is 0, and may be so where it is no more than a few cells.
 * Rests on: the no-fit polygon as a Minkowski sum, Art 1966, here of runs of cells; chamfer distances, Borgefors 1986.
 */
import type { Point } from '../plane/index.ts';
import { type Footprint, pose, unposed } from './footprint.ts';
import { type Run, touchedRuns } from './touched-cells.ts';

/** A footprint as it may be turned, on the grid. */
export interface Variant {
  readonly id: number;
  readonly rows: readonly (readonly Run[])[];
  /** From its middle to the grid's corner, mm. */
  readonly cornerX: number;
  readonly cornerY: number;
  readonly columns: number;
}

export interface DepthField {
  /** How the second's middle lies from the first's at the first node, mm. */
  readonly x: number;
  readonly y: number;
  readonly columns: number;
  readonly rows: number;
  /** Depths at the nodes, mm, row by row. */
  readonly depths: Float32Array;
  /** What overlapping so costs; see `costOf`. */
  readonly costs: Float32Array;
}

/** Up to so many cells deep the two may be apart after all. */
export const doubtfulCells = 3;

/** How much an overlap costs that is so deep, mm: less than twice for one twice as deep, so that few deep ones are borne rather than many. */
export const costOf = (depthMm: number, cellMm: number): number => cellMm * (depthMm / cellMm) ** 0.75;

export class DepthFields {
  private readonly variants = new Map<Footprint, Map<string, Variant>>();
  private readonly fields = new Map<number, DepthField>();
  private count = 0;

  constructor(readonly cellMm: number) {}

  variant(footprint: Footprint, turn: number, isMirrored: boolean): Variant {
    const key = `${turn.toFixed(6)} ${isMirrored}`;
    let known = this.variants.get(footprint);
    if (!known) {
      known = new Map();
      this.variants.set(footprint, known);
    }
    let made = known.get(key);
    if (!made) {
      made = this.made(footprint, turn, isMirrored);
      known.set(key, made);
    }
    return made;
  }

  /** How the second lies in the first. */
  between(a: Variant, b: Variant): DepthField {
    const key = a.id * 65_536 + b.id;
    let field = this.fields.get(key);
    if (!field) {
      const opposite = this.fields.get(b.id * 65_536 + a.id);
      field = opposite ? reversed(opposite, this.cellMm) : fieldOf(a, b, this.cellMm);
      this.fields.set(key, field);
    }
    return field;
  }

  private made(footprint: Footprint, turn: number, isMirrored: boolean): Variant {
    const posed = unposed(footprint);
    pose(posed, turn, isMirrored, 0, 0);
    const cell = this.cellMm;
    const { minX, minY, maxX, maxY, xs, ys } = posed;
    const [columns, rows] = [Math.max(1, Math.ceil((maxX - minX) / cell)), Math.max(1, Math.ceil((maxY - minY) / cell))];
    const polygons: Point[][] = [];
    let last = -2;
    for (const k of footprint.edges) {
      if (k !== last + 1) polygons.push([]);
      (polygons.at(-1) as Point[]).push({ x: ((xs[k] as number) - minX) / cell, y: ((ys[k] as number) - minY) / cell });
      last = k;
    }
    const byRow: Run[][] = Array.from({ length: rows }, () => []);
    for (const run of touchedRuns(polygons, columns, rows)) (byRow[run.row] as Run[]).push(run);
    return { id: this.count++, rows: byRow, cornerX: minX, cornerY: minY, columns };
  }
}

function reversed({ x, y, columns, rows, depths, costs }: DepthField, cell: number): DepthField {
  return {
    x: -(x + (columns - 1) * cell),
    y: -(y + (rows - 1) * cell),
    columns,
    rows,
    depths: depths.slice().reverse(),
    costs: costs.slice().reverse(),
  };
}

/** Nodes with a rim of 1 about them, where the two are apart. */
function fieldOf(a: Variant, b: Variant, cell: number): DepthField {
  const [columns, rows] = [a.columns + b.columns + 1, a.rows.length + b.rows.length + 1];
  const depths = new Float32Array(columns * rows);
  // The node (k, l) is b's corner at (k - b.columns, l - b.rows) cells from a's.
  for (let i = 0; i < a.rows.length; i++)
    for (let j = 0; j < b.rows.length; j++) {
      const base = (i - j + b.rows.length) * columns + b.columns;
      for (const of of a.rows[i] as readonly Run[])
        for (const at of b.rows[j] as readonly Run[]) depths.fill(1, base + of.from - at.to, base + of.to - at.from + 1);
    }
  chamfer(depths, columns, rows, cell);
  return {
    x: a.cornerX - b.cornerX - b.columns * cell,
    y: a.cornerY - b.cornerY - b.rows.length * cell,
    columns,
    rows,
    depths,
    costs: depths.map((depth) => costOf(depth, cell)),
  };
}

/** Distances from what is 0, by steps along rows and columns and across: within 8 % of the true ones. */
function chamfer(depths: Float32Array, columns: number, rows: number, cell: number): void {
  const [straight, across] = [0.955 * cell, 1.3693 * cell];
  for (let row = 1; row < rows - 1; row++)
    for (let k = row * columns + 1; k < (row + 1) * columns - 1; k++) {
      if (depths[k] === 0) continue;
      depths[k] = Math.min((depths[k - 1] as number) + straight, (depths[k - columns] as number) + straight, (depths[k - columns - 1] as number) + across, (depths[k - columns + 1] as number) + across); // biome-ignore format: one line
    }
  for (let row = rows - 2; row > 0; row--)
    for (let k = (row + 1) * columns - 2; k > row * columns; k--) {
      if (depths[k] === 0) continue;
      const depth = depths[k] as number;
      depths[k] = Math.min(depth, (depths[k + 1] as number) + straight, (depths[k + columns] as number) + straight, (depths[k + columns + 1] as number) + across, (depths[k + columns - 1] as number) + across); // biome-ignore format: one line
    }
}

/** Between the nodes, by the four about a place; 0 beyond them. */
export function depthAt({ x, y, columns, rows, depths }: DepthField, cell: number, dx: number, dy: number): number {
  const u = (dx - x) / cell;
  const v = (dy - y) / cell;
  if (!(u > 0 && v > 0 && u < columns - 1 && v < rows - 1)) return 0;
  const k = Math.floor(u);
  const l = Math.floor(v);
  const s = u - k;
  const t = v - l;
  const at = l * columns + k;
  return (1 - t) * ((1 - s) * (depths[at] as number) + s * (depths[at + 1] as number)) + t * ((1 - s) * (depths[at + columns] as number) + s * (depths[at + columns + 1] as number)); // biome-ignore format: one line
}
