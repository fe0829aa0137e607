/**
 * In: the triangles of a file for a printer, as they were read back. Out: what a printer lays down of them, layer by layer on a bed of small cells
 * filled by the even-odd rule along every row, and how far that is from what was drawn.
 */
import type { Path, Point } from '../plane/index.ts';
import { distanceTo } from '../shape/index.ts';
import type { Mesh } from './mesh.ts';
import { type Contour, Slicer } from './slicing.ts';

export interface PrintedLayer {
  /** The middle of the layer. */
  readonly z: number;
  readonly areaMm2: number;
  /** Middles of cells that are laid down beside ones that are not. */
  readonly rim: readonly Point[];
}

export interface Printed {
  readonly cellMm: number;
  readonly layers: readonly PrintedLayer[];
  readonly volumeMm3: number;
}

/** A side of the bed has no more cells than this. */
const mostCells = 3000;

/** @param wantedMm how large a cell is; larger where the bed would have too many */
export function* virtualPrint(mesh: Mesh, layerMm: number, wantedMm: number): Generator<number, Printed> {
  const slicer = new Slicer(mesh);
  const range = (axis: number): [number, number] => {
    let [low, high] = [Infinity, -Infinity];
    for (let k = axis; k < mesh.positions.length; k += 3) {
      low = Math.min(low, mesh.positions[k] as number);
      high = Math.max(high, mesh.positions[k] as number);
    }
    return [low, high];
  };
  const [[minX, maxX], [minY, maxY], [minZ, maxZ]] = [range(0), range(1), range(2)];
  const cellMm = Math.max(wantedMm, (maxX - minX) / mostCells, (maxY - minY) / mostCells);
  const [columns, rows] = [Math.ceil((maxX - minX) / cellMm) + 2, Math.ceil((maxY - minY) / cellMm) + 2];
  const corner = { x: minX - cellMm, y: minY - cellMm };
  const count = Math.max(1, Math.round((maxZ - minZ) / layerMm));
  const step = (maxZ - minZ) / count;
  const layers: PrintedLayer[] = [];
  for (let layer = 0; layer < count; layer++) {
    const z = minZ + (layer + 0.5) * step;
    const filled = filledBy(slicer.at(z), corner, cellMm, columns, rows);
    const rim: Point[] = [];
    let cells = 0;
    for (let row = 1; row < rows - 1; row++)
      for (let column = 1; column < columns - 1; column++) {
        const k = row * columns + column;
        if (!filled[k]) continue;
        cells++;
        if (!(filled[k - 1] && filled[k + 1] && filled[k - columns] && filled[k + columns]))
          rim.push({ x: corner.x + (column + 0.5) * cellMm, y: corner.y + (row + 0.5) * cellMm });
      }
    layers.push({ z, areaMm2: cells * cellMm * cellMm, rim });
    yield (layer + 1) / count;
  }
  return { cellMm, layers, volumeMm3: layers.reduce((sum, { areaMm2 }) => sum + step * areaMm2, 0) };
}

function filledBy(contours: readonly Contour[], corner: Point, cellMm: number, columns: number, rows: number): Uint8Array {
  const filled = new Uint8Array(columns * rows);
  const crossings: number[][] = Array.from({ length: rows }, () => []);
  for (const contour of contours)
    for (const [k, a] of contour.entries()) {
      const b = contour[(k + 1) % contour.length] as Point;
      if (a.y === b.y) continue;
      const [low, high] = a.y < b.y ? [a, b] : [b, a];
      const last = Math.min(rows - 1, Math.ceil((high.y - corner.y) / cellMm - 0.5) - 1);
      for (let row = Math.max(0, Math.ceil((low.y - corner.y) / cellMm - 0.5)); row <= last; row++) {
        const y = corner.y + (row + 0.5) * cellMm;
        (crossings[row] as number[]).push(low.x + ((high.x - low.x) * (y - low.y)) / (high.y - low.y));
      }
    }
  for (const [row, found] of crossings.entries()) {
    found.sort((p, q) => p - q);
    for (let k = 0; k + 1 < found.length; k += 2) {
      const from = Math.max(0, Math.ceil(((found[k] as number) - corner.x) / cellMm - 0.5));
      const to = Math.min(columns, Math.ceil(((found[k + 1] as number) - corner.x) / cellMm - 0.5));
      if (to > from) filled.fill(1, row * columns + from, row * columns + to);
    }
  }
  return filled;
}

/** How far the rim of what is laid down lies from outlines at most, mm: half a cell's diagonal, where it is as it was drawn. */
export function rimOff({ rim }: PrintedLayer, outlines: readonly Path[]): number {
  const distance = distanceTo(outlines);
  return rim.reduce((most, p) => Math.max(most, distance(p)), 0);
}
