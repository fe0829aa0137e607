/**
 * In: parts, how often each is needed, and a sheet. Out: where each lies so that the sheets are well used and no two come nearer to one another
 * than a gap: the lowest free place, and there the leftmost (bottom-left placement, Baker, Coffman & Rivest 1980), the largest parts first.
 * Parts are grown by half the gap and laid on a grid, every cell that they touch counted as theirs, so that they are apart on the sheet, too.
 */
import {
  type Box,
  boxAroundBoxes,
  chain,
  heightOf,
  levelCrossings,
  type Path,
  type Point,
  pathArea,
  pathBox,
  polygonOf,
  shift,
  type Transform,
  transformedPath,
  turn,
  widthOf,
} from '../plane/index.ts';
import { offsetPiece } from '../shape/index.ts';
import { markEdge, type Run, touchedRuns } from './touched-cells.ts';

export interface NestingPart {
  readonly outer: Path;
  readonly holes: readonly Path[];
  readonly count: number;
}

export interface NestingSettings {
  readonly widthMm: number;
  /** How far up a sheet goes. */
  readonly heightMm: number;
  /** Of a sheet that is no rectangle, its outline: the lower left corner of its box is the origin. */
  readonly outline?: Path | undefined;
  /** What parts keep off, beside its edge. */
  readonly keepOff?: readonly Path[];
  /** How many there are; as many as it takes, up to `mostSheets`, where it does not say. */
  readonly sheets?: number;
  /** Left along the sheet's edge, and between parts, mm. */
  readonly marginMm: number;
  readonly gapMm: number;
  /** By which a part may be turned, radians: 0 and pi keep the grain. */
  readonly angles: readonly number[];
}

export interface NestedPart {
  /** Which part it is, by its place among them. */
  readonly part: number;
  readonly sheet: number;
  /** From where it is drawn to the sheet, whose lower left corner is the origin. */
  readonly place: Transform;
}

export interface Nesting {
  readonly placed: readonly NestedPart[];
  readonly sheets: number;
  /** How far up the last sheet is used, margin included, mm. */
  readonly usedMm: number;
  /** Parts that are larger than a sheet, by their place among them. */
  readonly tooLarge: readonly number[];
  /** How many copies would need more sheets than are begun. */
  readonly left: number;
}

/** The grid has about so many cells, none smaller than this, mm. */
const mostCells = 400_000;
const finestMm = 0.5;
/** No more sheets are begun than this. */
export const mostSheets = 500;

/** Yields the share of the parts that are placed. */
export function* nestedOnSheets(parts: readonly NestingPart[], settings: NestingSettings): Generator<number, Nesting> {
  const { widthMm, heightMm, marginMm, gapMm } = settings;
  // Half a gap may reach into the margin: there is no neighbour.
  const rim = Math.max(0, marginMm - gapMm / 2);
  const [width, height] = [widthMm - 2 * rim, heightMm - 2 * rim];
  const cell = Math.max(finestMm, Math.sqrt((Math.max(0, width) * Math.max(0, height)) / mostCells));
  const [columns, rows] = [Math.floor(width / cell + 1e-9), Math.floor(height / cell + 1e-9)];
  const outside = outsideOf(settings, rim, cell, columns, rows);
  const order = [...parts.keys()].sort((a, b) => areaOf(parts[b] as NestingPart) - areaOf(parts[a] as NestingPart));
  const all = parts.reduce((sum, { count }) => sum + count, 0);
  const sheets: SheetGrid[] = [];
  const placed: NestedPart[] = [];
  const tooLarge: number[] = [];
  let left = 0;
  let top = 0;
  for (const part of order) {
    const { count } = parts[part] as NestingPart;
    const masks = settings.angles.map((angle) => maskOf(parts[part] as NestingPart, angle, gapMm / 2, cell)).filter((mask) => mask.columns <= columns && mask.rows <= rows); // biome-ignore format: one line
    if (masks.length === 0) {
      if (count > 0) tooLarge.push(part);
      continue;
    }
    // Places that were taken for one copy are taken for the next one, too.
    const from = new Map<string, number>();
    for (let copy = 0, sheet = 0; copy < count; ) {
      if (sheet === sheets.length) {
        if (sheets.length >= Math.min(mostSheets, settings.sheets ?? mostSheets)) {
          left += count - copy;
          break;
        }
        sheets.push(new SheetGrid(columns, rows, outside));
        top = 0;
      }
      const grid = sheets[sheet] as SheetGrid;
      const best = lowest(grid, masks, sheet, from);
      if (!best) {
        sheet++;
        continue;
      }
      grid.take(best.mask, best.x, best.y);
      if (sheet === sheets.length - 1) top = Math.max(top, (best.y + best.mask.rows) * cell);
      placed.push({ part, sheet, place: chain(shift(rim + best.x * cell, rim + best.y * cell), best.mask.toCorner) });
      copy++;
      yield placed.length / all;
    }
  }
  return { placed, sheets: sheets.length, usedMm: sheets.length > 0 ? Math.min(heightMm, top + 2 * rim) : 0, tooLarge, left };
}

const areaOf = ({ outer }: NestingPart): number => Math.abs(pathArea(outer));

/** The cells that a turned part touches, as runs along rows; and the transform that brings it to the grid's corner. */
interface Mask {
  readonly columns: number;
  readonly rows: number;
  readonly runs: readonly Run[];
  readonly toCorner: Transform;
}

function maskOf({ outer, holes }: NestingPart, angle: number, grow: number, cell: number): Mask {
  const turned = turn(angle);
  const own = { outer: transformedPath(outer, turned), holes: holes.map((hole) => transformedPath(hole, turned)) };
  const grown = grow > 0 ? offsetPiece(own, grow) : [own];
  const paths = grown.flatMap((piece) => [piece.outer, ...piece.holes]);
  const box = boxAroundBoxes(paths.map(pathBox)) as Box;
  const polygons = paths.map((path) => polygonOf(path, cell / 8).map(({ x, y }): Point => ({ x: (x - box.minX) / cell, y: (y - box.minY) / cell }))); // biome-ignore format: one line
  const [columns, rows] = [Math.max(1, Math.ceil(widthOf(box) / cell - 1e-9)), Math.max(1, Math.ceil(heightOf(box) / cell - 1e-9))];
  return { columns, rows, runs: touchedRuns(polygons, columns, rows), toCorner: chain(shift(-box.minX, -box.minY), turned) }; // biome-ignore format: one line
}

/** Cells of a sheet that do not lie within its outline with a rim, or that are kept off; none of a plain one. The grid begins a rim from its corner. */
function outsideOf(
  { outline, keepOff = [], gapMm }: NestingSettings,
  rim: number,
  cell: number,
  columns: number,
  rows: number,
): Uint8Array | undefined {
  if (!outline && keepOff.length === 0) return undefined;
  const onGrid = (path: Path): Point[] =>
    polygonOf(path, cell / 8).map(({ x, y }): Point => ({ x: (x - rim) / cell, y: (y - rim) / cell }));
  const outside = new Uint8Array(columns * rows);
  const fill = (value: number, polygons: readonly Point[][], inwards: 1 | -1): void => {
    for (let row = 0; row < rows; row++) {
      const crossings = polygons.flatMap((polygon) => levelCrossings(polygon, row + 0.5)).sort((a, b) => a - b);
      for (let k = 0; k + 1 < crossings.length; k += 2) {
        const [from, to] = [(crossings[k] as number) - inwards * 1e-9, (crossings[k + 1] as number) + inwards * 1e-9];
        const [first, last] = inwards > 0 ? [Math.ceil(from), Math.floor(to)] : [Math.floor(from), Math.ceil(to)];
        outside.fill(value, row * columns + clamped(first, columns), row * columns + clamped(last, columns));
      }
    }
  };
  const mark = (row: number, from: number, to: number): void => {
    outside.fill(1, row * columns + clamped(Math.floor(from + 1e-9), columns), row * columns + clamped(Math.ceil(to - 1e-9), columns));
  };
  const markAll = (polygons: readonly Point[][]): void => {
    for (const polygon of polygons)
      for (const [k, p] of polygon.entries()) markEdge(p, polygon[(k + 1) % polygon.length] as Point, rows, mark);
  };
  if (outline) {
    outside.fill(1);
    const within = rim > 0 ? offsetPiece({ outer: outline, holes: [] }, -rim).map(({ outer }) => outer) : [outline];
    const polygons = within.map(onGrid);
    fill(0, polygons, 1);
    markAll(polygons);
  }
  const kept = keepOff.map((path) => offsetPiece({ outer: path, holes: [] }, gapMm / 2).map(({ outer }) => onGrid(outer)));
  for (const polygons of kept) {
    fill(1, polygons, -1);
    markAll(polygons);
  }
  return outside;
}

const clamped = (column: number, columns: number): number => Math.min(columns, Math.max(0, column));

interface Place {
  readonly mask: Mask;
  readonly x: number;
  readonly y: number;
}

/** Of the ways to turn a part the one whose top lies lowest, then leftmost. @param from where to begin to look, by sheet and way */
function lowest(grid: SheetGrid, masks: readonly Mask[], sheet: number, from: Map<string, number>): Place | null {
  let best: Place | null = null;
  masks.forEach((mask, k) => {
    const key = `${sheet} ${k}`;
    const limit = best ? best.y + best.mask.rows - mask.rows : Infinity;
    const found = grid.lowestFor(mask, from.get(key) ?? 0, limit);
    // Below the row that was searched up to there is no room for a copy either.
    from.set(key, found ? found.y : Math.max(from.get(key) ?? 0, Math.min(grid.rows, limit + 1)));
    if (!found) return;
    const [top, bestTop] = [found.y + mask.rows, best ? best.y + best.mask.rows : Infinity];
    if (top < bestTop || (top === bestTop && found.x < (best as Place).x)) best = { mask, ...found };
  });
  return best;
}

/** Which cells of a sheet are taken: for each the next taken one along its row, and the next free one. */
class SheetGrid {
  private readonly taken: Uint8Array;
  private readonly nextTaken: Int32Array;
  private readonly nextFree: Int32Array;

  constructor(
    private readonly columns: number,
    readonly rows: number,
    outside?: Uint8Array,
  ) {
    this.taken = outside ? outside.slice() : new Uint8Array(columns * rows);
    this.nextTaken = new Int32Array(columns * rows).fill(columns);
    this.nextFree = Int32Array.from({ length: columns * rows }, (_, k) => k % columns);
    if (outside) for (let row = 0; row < rows; row++) this.count(row);
  }

  /** The lowest place for a mask, from a row on and up to another; leftmost there. */
  lowestFor({ columns, rows, runs }: Mask, fromRow: number, lastRow: number): { x: number; y: number } | null {
    for (let y = fromRow; y <= Math.min(lastRow, this.rows - rows); y++) {
      let x = 0;
      search: while (x <= this.columns - columns) {
        for (const { row, from, to } of runs) {
          const base = (y + row) * this.columns;
          const blocked = this.nextTaken[base + x + from] as number;
          if (blocked > x + to) continue;
          // Beyond the run of taken cells that is in the way.
          x = (this.nextFree[base + blocked] as number) - from;
          continue search;
        }
        return { x, y };
      }
    }
    return null;
  }

  take({ runs }: Mask, x: number, y: number): void {
    const rows = new Set<number>();
    for (const { row, from, to } of runs) {
      const base = (y + row) * this.columns;
      this.taken.fill(1, base + x + from, base + x + to + 1);
      rows.add(y + row);
    }
    for (const row of rows) this.count(row);
  }

  private count(row: number): void {
    const base = row * this.columns;
    let [taken, free] = [this.columns, this.columns];
    for (let k = this.columns - 1; k >= 0; k--) {
      if (this.taken[base + k]) taken = k;
      else free = k;
      this.nextTaken[base + k] = taken;
      this.nextFree[base + k] = free;
    }
  }
}
