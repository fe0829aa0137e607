/**
 * Stock as a field of heights over the sheet, and what tools take off it. Every place that a cell's middle is swept at by the tool is
 * taken into account exactly: the height of a cell is the least of the tool's profile along the whole move.
 */
import { type Box, heightOf, widthOf } from '../plane/index.ts';
import { halfAngleOf, profileOf, radiusOf, reachOf, type ToolShape } from './mill-tool.ts';
import { chordsOfMove, type Move, type Place } from './moves.ts';

/** As many cells as a field may have. */
export const mostCells = 24_000_000;
/** Arcs are swept along chords that leave them by at most this, mm. */
const chordMm = 0.001;

export class HeightField {
  readonly cellMm: number;
  readonly columns: number;
  readonly rows: number;
  readonly heights: Float32Array;

  /**
   * @param box of the stock on the sheet, mm
   * @param cellMm the side of a cell, as wide as it must be for `mostCells` where that is more
   */
  constructor(
    readonly box: Box,
    readonly topZ: number,
    cellMm: number,
  ) {
    const [w, h] = [widthOf(box), heightOf(box)];
    this.cellMm = Math.max(cellMm, Math.sqrt((w * h) / mostCells));
    [this.columns, this.rows] = [Math.max(1, Math.round(w / this.cellMm)), Math.max(1, Math.round(h / this.cellMm))];
    this.heights = new Float32Array(this.columns * this.rows).fill(topZ);
  }

  /** The middle of a cell on the sheet. */
  middleOf(index: number): { x: number; y: number } {
    return {
      x: this.box.minX + ((index % this.columns) + 0.5) * this.cellMm,
      y: this.box.minY + (Math.floor(index / this.columns) + 0.5) * this.cellMm,
    };
  }

  /** The cell that a place lies in; -1 beside the stock. */
  cellAt(x: number, y: number): number {
    const [column, row] = [Math.floor((x - this.box.minX) / this.cellMm), Math.floor((y - this.box.minY) / this.cellMm)];
    return column < 0 || row < 0 || column >= this.columns || row >= this.rows ? -1 : row * this.columns + column;
  }

  /** What is gone of the stock above a height, cubic mm. */
  removedMm3(bottomZ: number): number {
    let sum = 0;
    for (let k = 0; k < this.heights.length; k++) sum += this.topZ - Math.max(bottomZ, this.heights[k] as number);
    return sum * this.cellMm * this.cellMm;
  }
}

/** A move of a rapid that took something off. */
export interface RapidThrough {
  readonly move: number;
  readonly at: Place;
  readonly depthMm: number;
}

export interface SweptMoves {
  readonly rapids: readonly RapidThrough[];
  /** The lowest that the tip went, mm. */
  readonly lowestZ: number;
}

/** A rapid that touches no deeper than this touches nothing, mm. */
const touchMm = 0.01;

/** Takes moves off a field, one after another; yields the share done. */
export function* sweepMoves(field: HeightField, start: Place, moves: readonly Move[], tool: ToolShape): Generator<number, SweptMoves> {
  const sweep = sweeperOf(field, tool);
  const rapids: RapidThrough[] = [];
  let [at, lowestZ] = [start, Infinity];
  for (let k = 0; k < moves.length; k++) {
    const move = moves[k] as Move;
    let deepest = 0;
    if (move.sweep === 0) {
      deepest = sweep(at, move.to, move.isRapid);
      at = move.to;
    } else
      for (const to of chordsOfMove(at, move, chordMm)) {
        deepest = Math.max(deepest, sweep(at, to, move.isRapid));
        at = to;
      }
    if (move.isRapid && deepest > touchMm) rapids.push({ move: k, at: move.to, depthMm: deepest });
    if (!move.isRapid) lowestZ = Math.min(lowestZ, move.to.z);
    if (k % 2000 === 1999) yield k / moves.length;
  }
  return { rapids, lowestZ };
}

/** Sweeps a straight move; how much the deepest cell lost, where that is asked for, mm. */
type Sweep = (from: Place, to: Place, asksDepth: boolean) => number;

function sweeperOf(field: HeightField, tool: ToolShape): Sweep {
  const sweeper = new Sweeper(field, tool);
  return (from, to, asksDepth) => sweeper.sweep(from, to, asksDepth);
}

/** A tool over a field; places of a move are in cells, a cell's middle on whole numbers. */
class Sweeper {
  private readonly radius: number;
  private readonly reach: (heightMm: number) => number;
  private readonly rise: Rise;
  private readonly lowest: Lowest;
  private readonly isFlat: boolean;
  /** Where the move before ended: what a flat tool cut there need not be cut again. */
  private last: Place | null = null;
  private deepest = 0;
  // The move that is swept.
  private ax = 0;
  private ay = 0;
  private bx = 0;
  private by = 0;
  private ux = 1;
  private uy = 0;
  private length = 0;
  private r = 0;
  // The columns of a row that it covers, and those that the move before has taken.
  private first = 0;
  private end = -1;
  private skipFirst = 0;
  private skipEnd = -1;

  constructor(
    private readonly field: HeightField,
    tool: ToolShape,
  ) {
    this.radius = radiusOf(tool) / field.cellMm;
    this.reach = reachOf(tool);
    this.rise = riseOf(tool);
    this.lowest = lowestAlong(tool, this.rise);
    this.isFlat = tool.kind === 'end mill';
  }

  sweep(from: Place, to: Place, asksDepth: boolean): number {
    const { cellMm, rows, topZ, box } = this.field;
    const bottom = Math.min(from.z, to.z);
    const before = this.last;
    this.last = asksDepth || bottom >= topZ ? null : to;
    if (bottom >= topZ) return 0;
    this.deepest = 0;
    this.r = this.isFlat ? this.radius : Math.min(this.radius, this.reach(topZ - bottom) / cellMm + 1e-6);
    [this.ax, this.ay] = [(from.x - box.minX) / cellMm - 0.5, (from.y - box.minY) / cellMm - 0.5];
    [this.bx, this.by] = [(to.x - box.minX) / cellMm - 0.5, (to.y - box.minY) / cellMm - 0.5];
    this.length = Math.hypot(this.bx - this.ax, this.by - this.ay);
    [this.ux, this.uy] = this.length > 1e-9 ? [(this.bx - this.ax) / this.length, (this.by - this.ay) / this.length] : [1, 0];
    const isLevel = Math.abs(to.z - from.z) < 1e-9;
    const isOn = isLevel && !asksDepth && before !== null && before.x === from.x && before.y === from.y && before.z <= from.z;
    const last = Math.min(rows - 1, Math.floor(Math.max(this.ay, this.by) + this.r));
    for (let row = Math.max(0, Math.ceil(Math.min(this.ay, this.by) - this.r)); row <= last; row++) {
      this.span(row, this.isFlat && isOn);
      if (this.isFlat && isLevel) this.cutLevel(row, bottom, asksDepth);
      else this.cutProfile(row, bottom, from.z, to.z - from.z, asksDepth);
    }
    return this.deepest;
  }

  /** The columns of a row under the band that is swept: a disc at either end, and the straight sides between. */
  private span(row: number, skips: boolean): void {
    const { ax, ay, bx, by, ux, uy, r, length } = this;
    const [ha, hb] = [r * r - (row - ay) ** 2, r * r - (row - by) ** 2];
    let [x0, x1] = [Infinity, -Infinity];
    [this.skipFirst, this.skipEnd] = [0, -1];
    if (ha >= 0) {
      const half = Math.sqrt(ha);
      [x0, x1] = [ax - half, ax + half];
      if (skips) [this.skipFirst, this.skipEnd] = [Math.ceil(x0), Math.floor(x1)];
    }
    if (hb >= 0) {
      const half = Math.sqrt(hb);
      x0 = Math.min(x0, bx - half);
      x1 = Math.max(x1, bx + half);
    }
    if (length > 1e-9 && Math.abs(uy) > 1e-12)
      for (let side = -r; side <= r; side += 2 * r) {
        const t = (row - ay - ux * side) / uy;
        if (t < 0 || t > length) continue;
        const x = ax - uy * side + ux * t;
        x0 = Math.min(x0, x);
        x1 = Math.max(x1, x);
      }
    [this.first, this.end] = [Math.max(0, Math.ceil(x0)), Math.min(this.field.columns - 1, Math.floor(x1))];
  }

  private cutLevel(row: number, bottom: number, asksDepth: boolean): void {
    const { heights, columns } = this.field;
    const base = row * columns;
    for (let c = this.first; c <= this.end; c++) {
      if (c === this.skipFirst && this.skipEnd >= c) {
        c = this.skipEnd;
        continue;
      }
      const height = heights[base + c] as number;
      if (height <= bottom) continue;
      if (asksDepth) this.deepest = Math.max(this.deepest, height - bottom);
      heights[base + c] = bottom;
    }
  }

  private cutProfile(row: number, bottom: number, z: number, dz: number, asksDepth: boolean): void {
    const { heights, columns, cellMm } = this.field;
    const { ax, ux, uy, lowest, rise } = this;
    const [base, vy, length] = [row * columns, row - this.ay, this.length * cellMm];
    for (let c = this.first; c <= this.end; c++) {
      const height = heights[base + c] as number;
      // Nothing of the tool is lower than its tip.
      if (height <= bottom) continue;
      const vx = c - ax;
      const along = (vx * ux + vy * uy) * cellMm;
      const across = Math.abs(vx * uy - vy * ux) * cellMm;
      // Nor lower than its profile there, were it all along at its lowest.
      const beyond = along < 0 ? along : along > length ? along - length : 0;
      if (rise(beyond, across) + bottom >= height) continue;
      const made = lowest(along, across, length, z, dz);
      if (made >= height) continue;
      if (asksDepth) this.deepest = Math.max(this.deepest, height - made);
      heights[base + c] = made;
    }
  }
}

/**
 * The least height of a tool over a place while it goes straight from one height to another: `along` and `across` the way from its
 * start, all mm.
 */
type Lowest = (along: number, across: number, length: number, z: number, dz: number) => number;

/**
 * A profile rises outwards ever more steeply, so along the way the height falls and then rises: of a cone and a ball the lowest is
 * where its slope is the way's, worked out; of others it is looked for.
 */
function lowestAlong(tool: ToolShape, rise: Rise): Lowest {
  const radius = radiusOf(tool);
  const behind = lowestBehind(tool);
  return (along, across, length, z, dz) => {
    if (across > radius) return Infinity;
    // The part of the way from which the tool covers the place.
    const rim = Math.sqrt(radius * radius - across * across);
    const from = Math.max(0, along - rim);
    const to = Math.min(length, along + rim);
    if (from > to) return Infinity;
    if (length < 1e-9) return rise(along, across) + Math.min(z, z + dz);
    const slope = dz / length;
    const isLevel = Math.abs(slope) < 1e-9;
    if (behind === null && !isLevel) return least((t) => rise(t - along, across) + z + slope * t, from, to);
    const off = isLevel || behind === null ? 0 : behind(across, Math.abs(slope), rim);
    const t = Math.min(to, Math.max(from, slope < 0 ? along + off : along - off));
    return rise(t - along, across) + z + slope * t;
  };
}

/** The profile by how far along and across its axis a place lies. */
type Rise = (along: number, across: number) => number;

/** What lies at the rim but for rounding is taken as within. */
function riseOf(tool: ToolShape): Rise {
  const profile = profileOf(tool);
  const radius = radiusOf(tool);
  if (tool.kind !== 'V-bit' && tool.kind !== 'drill')
    return (along, across) => profile(Math.min(radius, Math.sqrt(along * along + across * across)));
  const cot = 1 / Math.tan(halfAngleOf(tool));
  const flat = tool.kind === 'drill' ? 0 : Math.min(tool.tipMm / 2, radius);
  return (along, across) => {
    const d = Math.sqrt(along * along + across * across);
    return d > flat ? (d - flat) * cot : 0;
  };
}

/** How far beside a place, on the lower side of the way, its lowest is, mm; null where that is looked for. */
function lowestBehind(tool: ToolShape): ((across: number, steepness: number, rim: number) => number) | null {
  const radius = radiusOf(tool);
  if (tool.kind === 'end mill') return (_, __, rim) => rim;
  if (tool.kind === 'ball')
    return (across, steepness) =>
      (Math.sqrt(Math.max(0, radius * radius - across * across)) * steepness) / Math.sqrt(1 + steepness * steepness);
  if (tool.kind === 'tapered') return null;
  const cot = 1 / Math.tan(halfAngleOf(tool));
  const flat = tool.kind === 'drill' ? 0 : Math.min(tool.tipMm / 2, radius);
  // From the middle of the flat out: first along the flat, then up the flank as far as that rises less than the way falls.
  return (across, steepness, rim) =>
    steepness < cot
      ? Math.max(Math.sqrt(Math.max(0, flat * flat - across * across)), (across * steepness) / Math.sqrt(cot * cot - steepness * steepness))
      : rim;
}

/** The least of what falls and then rises. */
function least(at: (t: number) => number, from: number, to: number): number {
  let [a, b] = [from, to];
  for (let round = 0; round < 24; round++) {
    const [p, q] = [a + (b - a) / 3, b - (b - a) / 3];
    if (at(p) < at(q)) b = q;
    else a = p;
  }
  return at((a + b) / 2);
}
