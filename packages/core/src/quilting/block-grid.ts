/**
 * In: the corners of a block, in shares of its width and height. Out: the drafting grid that they lie on, and where each lies on it.
 * Grids are those that blocks are drafted on (common practice): equal divisions, the divisions of an eight-pointed star (1 : sqrt 2 : 1),
 * and triangles of 60 degrees.
 */
import { distance, type Point } from '../plane/index.ts';

export interface BlockGrid {
  /** `6` for six divisions, `star 8` for an eight-pointed star's, `triangles 4` for four triangles along the width. */
  readonly name: string;
  /** The distance between neighbouring grid points, as a share of the width. */
  readonly unit: number;
  /** The grid point next to a place. */
  nearest(p: Point): Point;
}

const fewestDivisions = 2;
const mostDivisions = 24;

const divisions = (count: number): BlockGrid => ({
  name: String(count),
  unit: 1 / count,
  nearest: ({ x, y }) => ({ x: Math.round(x * count) / count, y: Math.round(y * count) / count }),
});

/** Along each side 1 : sqrt 2 : 1, the middle, and halves of each part where `halves` is 2. */
function starGrid(halves: number): BlockGrid {
  const short = 1 / (2 + Math.SQRT2);
  const marks = [0, short, 0.5, 1 - short, 1];
  const all = halves === 1 ? marks : [...new Set(marks.flatMap((m, k) => (k === 0 ? [m] : [(m + (marks[k - 1] as number)) / 2, m])))];
  const next = (v: number): number => all.reduce((a, b) => (Math.abs(b - v) < Math.abs(a - v) ? b : a));
  return {
    name: `star ${8 * halves}`,
    unit: Math.min(...all.slice(1).map((m, k) => m - (all[k] as number))),
    nearest: ({ x, y }) => ({ x: next(x), y: next(y) }),
  };
}

/** Triangles with sides of 1 / count of the width, a row along the lower side. */
function triangles(count: number): BlockGrid {
  const rise = Math.sqrt(3) / 2 / count;
  return {
    name: `triangles ${count}`,
    unit: 1 / count,
    nearest: (p) => {
      const row = Math.round(p.y / rise);
      const places = [row - 1, row, row + 1].map((r) => {
        const shift = Math.abs(r % 2) === 1 ? 0.5 : 0;
        return { x: (Math.round(p.x * count - shift) + shift) / count, y: r * rise };
      });
      return places.reduce((a, b) => (distance(b, p) < distance(a, p) ? b : a));
    },
  };
}

export const blockGrids: readonly BlockGrid[] = [
  ...Array.from({ length: mostDivisions - fewestDivisions + 1 }, (_, k) => divisions(k + fewestDivisions)),
  starGrid(1),
  starGrid(2),
  ...[2, 3, 4, 6, 8, 12].map(triangles),
];

/** The grid of that name; null for none. */
export const gridNamed = (name: string): BlockGrid | null => blockGrids.find((grid) => grid.name === name) ?? null;

/** How far a corner may be drawn beside its grid point: as a share of the width, and of the grid's unit. */
const nearShare = 0.012;
const nearUnit = 0.22;
/** So many of the corners must lie on the grid. */
const leastOnGrid = 0.9;

export const reachOf = ({ unit }: BlockGrid): number => Math.min(nearShare, nearUnit * unit);

/**
 * The coarsest grid that the corners lie on; null where there is none. Places that hit a grid by chance do not count: on a fine grid
 * nearly all of them would.
 */
export function gridOf(corners: readonly Point[]): BlockGrid | null {
  const tried = blockGrids.flatMap((grid) => {
    const reach = reachOf(grid);
    const off = corners.map((p) => distance(grid.nearest(p), p));
    const on = off.filter((d) => d <= reach);
    if (on.length < leastOnGrid * corners.length || on.length < 4) return [];
    // Under chance alone places lie evenly in the cell: how unlikely so many hits would be is what speaks for the grid.
    const byChance = Math.min(1, Math.PI * (reach / grid.unit) ** 2);
    const evidence = -on.length * Math.log(byChance) - (corners.length - on.length) * missCost;
    return [{ grid, evidence }];
  });
  const best = Math.max(...tried.map(({ evidence }) => evidence));
  // A grid is also a grid of twice its divisions: the coarsest of those that explain as much.
  return tried.filter(({ evidence }) => evidence > 0 && evidence >= 0.999 * best).sort((a, b) => b.grid.unit - a.grid.unit)[0]?.grid ?? null; // biome-ignore format: one line
}
/** What a corner off the grid costs, in units of the logarithm of odds. */
const missCost = 6;
