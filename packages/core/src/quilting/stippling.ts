/**
 * In: an area and a spacing. Out: one line that wanders all over it and never crosses itself, its turns about so far apart.
 * A tree is grown at random over the squares of a grid that lie within the area; the line goes round the tree, a quarter of a square from
 * its branches, so that it cannot cross itself; its corners are rounded by a quadratic B-spline, which keeps within its control polygon.
 */
import { randomFrom } from '../numeric/random.ts';
import { type CubicSegment, type Path, type Point, pathBox, pathLength } from '../plane/index.ts';
import { nearnessTo, windingNumber } from '../shape/index.ts';

export interface StippleSettings {
  /** Between neighbouring stretches of the line, mm. */
  readonly spacingMm: number;
  /** Another number makes another line. */
  readonly seed: number;
}

/** How far a control point is moved off the grid at most, as a share of the spacing: less than a quarter, so that none pass each other. */
const wander = 0.21;

/** @returns closed lines, one for each part of the area that a grid of the spacing hangs together in */
export function stippled(area: readonly Path[], { spacingMm, seed }: StippleSettings): Path[] {
  const cell = 2 * spacingMm;
  const boxes = area.map(pathBox);
  const [minX, minY] = [Math.min(...boxes.map((b) => b.minX)), Math.min(...boxes.map((b) => b.minY))];
  const [maxX, maxY] = [Math.max(...boxes.map((b) => b.maxX)), Math.max(...boxes.map((b) => b.maxY))];
  const [columns, rows] = [Math.floor((maxX - minX) / cell), Math.floor((maxY - minY) / cell)];
  const [left, low] = [minX + (maxX - minX - columns * cell) / 2, minY + (maxY - minY - rows * cell) / 2];
  const isNearBorder = nearnessTo(area);
  const isIn = (c: number, r: number): boolean => {
    const p = { x: left + (c + 0.5) * cell, y: low + (r + 0.5) * cell };
    return windingNumber(area, p) !== 0 && !isNearBorder(p, 0.75 * spacingMm);
  };
  const random = randomFrom(seed);
  const open = new Set<number>();
  for (let r = 0; r < rows; r++) for (let c = 0; c < columns; c++) if (isIn(c, r)) open.add(r * columns + c);
  const lines: Path[] = [];
  while (open.size > 0) {
    const tree = treeFrom(open.values().next().value as number, open, columns, random);
    for (const k of tree.cells) open.delete(k);
    if (tree.cells.length < 2) continue;
    lines.push(smooth(wallFollowed(tree, columns), (i, j) => {
      const [a, b] = [hashed(i, j, seed), hashed(j, i, seed + 1)];
      return { x: left + (i + 0.5 + wander * (2 * a - 1)) * spacingMm, y: low + (j + 0.5 + wander * (2 * b - 1)) * spacingMm };
    })); // biome-ignore format: as it reads
  }
  return lines.sort((a, b) => pathLength(b) - pathLength(a));
}

const hashed = (i: number, j: number, seed: number): number =>
  randomFrom(Math.imul(i + 1, 73856093) ^ Math.imul(j + 1, 19349663) ^ Math.imul(seed + 1, 83492791))();

interface Tree {
  readonly cells: readonly number[];
  /** Neighbours that a branch leads to, as `smaller larger`. */
  readonly branches: ReadonlySet<string>;
}

const branch = (a: number, b: number): string => (a < b ? `${a} ${b}` : `${b} ${a}`);

/** A spanning tree of the cells that hang together with one, grown now from the newest cell, now from any. */
function treeFrom(first: number, open: ReadonlySet<number>, columns: number, random: () => number): Tree {
  const cells = [first];
  const known = new Set(cells);
  const branches = new Set<string>();
  const active = [first];
  while (active.length > 0) {
    const k = random() < 0.6 ? active.length - 1 : Math.floor(random() * active.length);
    const at = active[k] as number;
    const column = at % columns;
    const next = [column > 0 ? at - 1 : -1, column < columns - 1 ? at + 1 : -1, at - columns, at + columns].filter(
      (n) => open.has(n) && !known.has(n),
    );
    if (next.length === 0) {
      active.splice(k, 1);
      continue;
    }
    const to = next[Math.floor(random() * next.length)] as number;
    known.add(to);
    cells.push(to);
    active.push(to);
    branches.add(branch(at, to));
  }
  return { cells, branches };
}

/** Round the tree on a grid twice as fine, the tree on the right hand: places by column and row there. */
function wallFollowed({ cells, branches }: Tree, columns: number): [number, number][] {
  const joins = (a: number, b: number): boolean => branches.has(branch(a, b));
  // Each cell has four places; from each the line goes to the next one round the cell, or over into the neighbour that a branch leads to.
  const places: [number, number][] = [];
  const first = cells[0] as number;
  let [cell, corner] = [first, 0];
  /** Corners counter-clockwise from the lower left; towards which neighbour each side leads: down, right, up, left. */
  const corners = [[0, 0], [1, 0], [1, 1], [0, 1]] as const; // biome-ignore format: one line
  const beyond = [-columns, 1, columns, -1] as const;
  do {
    const [dx, dy] = corners[corner] as readonly [number, number];
    places.push([2 * (cell % columns) + dx, 2 * Math.floor(cell / columns) + dy]);
    const next = cell + (beyond[corner] as number);
    if (joins(cell, next)) {
      cell = next;
      corner = (corner + 3) % 4;
    } else corner = (corner + 1) % 4;
  } while (cell !== first || corner !== 0);
  return places;
}

/** A closed quadratic B-spline with a control point at each place, as cubics. */
function smooth(places: readonly (readonly [number, number])[], at: (i: number, j: number) => Point): Path {
  const points = places.map(([i, j]) => at(i, j));
  const middle = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
  const third = (end: Point, control: Point): Point => ({
    x: end.x + (2 / 3) * (control.x - end.x),
    y: end.y + (2 / 3) * (control.y - end.y),
  });
  let from = middle(points.at(-1) as Point, points[0] as Point);
  const start = from;
  const segments = points.map((p, k): CubicSegment => {
    const to = k === points.length - 1 ? start : middle(p, points[(k + 1) % points.length] as Point);
    const made: CubicSegment = { kind: 'cubic', c1: third(from, p), c2: third(to, p), to };
    from = to;
    return made;
  });
  return { start, segments, closed: true };
}
