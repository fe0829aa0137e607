/** In: polygons on a grid. Out: the cells that they touch, as runs along rows. */
import { levelCrossings, type Point } from '../plane/index.ts';

/** From one column to another, both of them within. */
export interface Run {
  readonly row: number;
  readonly from: number;
  readonly to: number;
}

/** @param polygons in cells, together by the even-odd rule */
export function touchedRuns(polygons: readonly (readonly Point[])[], columns: number, rows: number): Run[] {
  const touched = Array.from({ length: rows }, () => new Uint8Array(columns));
  const mark = (row: number, from: number, to: number): void => {
    const last = Math.min(columns - 1, Math.floor(to));
    for (let k = Math.max(0, Math.floor(from)); k <= last; k++) (touched[row] as Uint8Array)[k] = 1;
  };
  for (const polygon of polygons)
    for (const [k, p] of polygon.entries()) markEdge(p, polygon[(k + 1) % polygon.length] as Point, rows, mark);
  for (let row = 0; row < rows; row++) {
    const crossings = polygons.flatMap((polygon) => levelCrossings(polygon, row + 0.5)).sort((a, b) => a - b);
    for (let k = 0; k + 1 < crossings.length; k += 2) mark(row, crossings[k] as number, crossings[k + 1] as number);
  }
  return touched.flatMap((cells, row) => runsOf(cells).map((run) => ({ row, ...run })));
}

/** Every cell that an edge passes through. */
export function markEdge(p: Point, q: Point, rows: number, mark: (row: number, from: number, to: number) => void): void {
  const [low, high] = p.y <= q.y ? [p, q] : [q, p];
  const last = Math.min(rows - 1, Math.floor(high.y));
  for (let row = Math.max(0, Math.floor(low.y)); row <= last; row++) {
    const at = (y: number): number => (high.y === low.y ? low.x : low.x + ((high.x - low.x) * (Math.min(high.y, Math.max(low.y, y)) - low.y)) / (high.y - low.y)); // biome-ignore format: one line
    const ends = high.y === low.y ? [p.x, q.x] : [at(row), at(row + 1)];
    mark(row, Math.min(...ends), Math.max(...ends));
  }
}

function runsOf(cells: Uint8Array): { from: number; to: number }[] {
  const runs: { from: number; to: number }[] = [];
  for (let k = 0; k < cells.length; k++) {
    if (!cells[k]) continue;
    const from = k;
    while (cells[k + 1]) k++;
    runs.push({ from, to: k });
  }
  return runs;
}
