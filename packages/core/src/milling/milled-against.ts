/**
 * In: stock as it was milled, and the plan with the outlines that it was milled to. Out: where it went too far (gouges), what was left
 * standing, whether floors are as deep as they should be, and tabs as thick. Heights are looked at in the middle of every cell; how far
 * a place lies from an outline is worked out on the outline itself.
 */
import { type Path, type Point, pathBox, polygonOf } from '../plane/index.ts';
import { distanceTo } from '../shape/index.ts';
import { floorEdge, wallOf } from './carve.ts';
import type { HeightField } from './height-field.ts';
import type { MillPlan } from './mill-plan.ts';
import { halfAngleOf, profileOf, type ToolShape } from './mill-tool.ts';
import type { Allowed } from './operation-made.ts';
import { inset } from './tool-rings.ts';

/** Somewhere too much was taken off. */
export interface Gouge {
  readonly name: string;
  readonly pieceId: string;
  /** How far beyond the outline it went, or below the floor, mm. */
  readonly beyondMm: number;
  readonly depthMm: number;
  readonly areaMm2: number;
  readonly at: Point;
}

export interface LeftStanding {
  readonly name: string;
  readonly pieceId: string;
  readonly areaMm2: number;
  /** Across the widest of what stands, mm. */
  readonly widestMm: number;
  readonly at: Point;
}

export interface Milled {
  readonly gouges: readonly Gouge[];
  readonly left: readonly LeftStanding[];
  /** How far floors lie off their depth at most, and sloped walls off their outline, mm. */
  readonly floorOffMm: number;
  readonly wallOffMm: number;
  readonly removedMm3: number;
  /** Of each tab that was asked for how much of its height stands, mm. */
  readonly tabs: readonly { readonly at: Point; readonly heightMm: number }[];
}

/** Less than this beyond an outline is what arcs and printed digits are off by, mm. */
const gougeMm = 0.005;
/** Heights that differ by less are one, mm. */
const sameHeightMm = 0.01;
/** What stands less above its floor than this stands not, mm: ridges between passes. */
const standingMm = 0.05;

/** Measures a field against its plan; yields now and then. */
export function* milledAgainst(
  field: HeightField,
  plan: Pick<MillPlan, 'parts' | 'allowed' | 'bottomZ' | 'runs'>,
): Generator<number, Milled> {
  const permitted = new Float32Array(field.heights.length).fill(-Infinity);
  const owner = new Int32Array(field.heights.length).fill(-1);
  for (const [k, piece] of plan.parts.entries())
    eachCellIn(field, [piece.outer, ...piece.holes], (cell) => {
      permitted[cell] = field.topZ;
      owner[cell] = k;
    });
  yield 0.1;
  // Where no piece is cut out, all of the stock stays but for what areas and lines let be taken.
  if (plan.parts.length === 0) permitted.fill(field.topZ);
  const lowest = new Float32Array(field.heights.length).fill(Infinity);
  const floors: { readonly one: AllowedArea; readonly wanted: ReadonlyMap<number, number> }[] = [];
  const left: LeftStanding[] = [];
  for (const [k, one] of plan.allowed.entries()) {
    yield 0.1 + (0.5 * k) / plan.allowed.length;
    if (one.kind === 'line') {
      permitLine(field, one, lowest);
      continue;
    }
    const wanted = wantedHeights(field, one);
    for (const [cell, z] of wanted) lowest[cell] = Math.min(lowest[cell] as number, z);
    const found = standing(field, wanted, one, plan.bottomZ);
    if (found) left.push(found);
    // Where nothing has to be cleared there is no floor: a drill's point goes deeper than its hole.
    if (one.isWanted) floors.push({ one, wanted });
  }
  for (let cell = 0; cell < permitted.length; cell++) permitted[cell] = Math.min(permitted[cell] as number, lowest[cell] as number);
  // Beside the parts that are cut out all may be gone.
  const isWaste = (cell: number): boolean => plan.parts.length > 0 && owner[cell] === -1;
  const offs = floors.map(({ one, wanted }) =>
    offOf(field, wanted, one, (cell, z) => isWaste(cell) || (lowest[cell] as number) < z - 1e-6),
  );
  const floorOffMm = offs.reduce((most, { floor }) => Math.max(most, floor), 0);
  const wallOffMm = offs.reduce((most, { wall }) => Math.max(most, wall), 0);
  yield 0.7;
  const gouges = gougesIn(field, plan, permitted, owner);
  const tabs = plan.runs.flatMap(({ tabsAt }) => tabsAt).map((at) => ({ at, heightMm: heightAbout(field, at, plan.bottomZ) }));
  return { gouges, left, floorOffMm, wallOffMm, removedMm3: field.removedMm3(plan.bottomZ), tabs };
}

const chordMm = 0.0005;

/** Calls for every cell whose middle lies within closed paths (even-odd), row by row. */
function eachCellIn(field: HeightField, paths: readonly Path[], visit: (cell: number) => void): void {
  const { cellMm, columns, rows, box } = field;
  const crossings: number[][] = Array.from({ length: rows }, () => []);
  for (const path of paths) {
    const points = polygonOf(path, chordMm);
    points.forEach((a, k) => {
      const b = points[(k + 1) % points.length] as Point;
      const [u, v] = [(a.y - box.minY) / cellMm - 0.5, (b.y - box.minY) / cellMm - 0.5];
      if (u === v) return;
      const [low, high] = [Math.max(0, Math.ceil(Math.min(u, v))), Math.min(rows - 1, Math.ceil(Math.max(u, v)) - 1)];
      for (let row = low; row <= high; row++) crossings[row]?.push((a.x + ((b.x - a.x) * (row - u)) / (v - u) - box.minX) / cellMm - 0.5);
    });
  }
  crossings.forEach((list, row) => {
    list.sort((a, b) => a - b);
    for (let k = 0; k + 1 < list.length; k += 2) {
      const [from, to] = [Math.max(0, Math.ceil(list[k] as number)), Math.min(columns - 1, Math.floor(list[k + 1] as number))];
      for (let c = from; c <= to; c++) visit(row * columns + c);
    }
  });
}

type AllowedArea = Extract<Allowed, { kind: 'area' }>;

/** The height that each cell of an area should have. */
function wantedHeights(field: HeightField, { area, topZ, bottomZ, wall }: AllowedArea): Map<number, number> {
  const wanted = new Map<number, number>();
  const borders = [area.outer, ...area.holes];
  eachCellIn(field, borders, (cell) => wanted.set(cell, bottomZ));
  if (!wall) return wanted;
  // Only beside the border, as far as its walls go, the height depends on how near it is.
  const floor = new Set<number>();
  for (const { outer, holes } of inset(area, floorEdge(wall, topZ - bottomZ)))
    eachCellIn(field, [outer, ...holes], (cell) => floor.add(cell));
  const [wallZ, away] = [wallOf(wall, bottomZ, topZ), distanceTo(borders)];
  for (const cell of wanted.keys()) if (!floor.has(cell)) wanted.set(cell, wallZ(away(field.middleOf(cell))));
  return wanted;
}

function permitLine(
  field: HeightField,
  { path, bottomZ, tool, widthMm }: Extract<Allowed, { kind: 'line' }>,
  permitted: Float32Array,
): void {
  const away = distanceTo([path]);
  const profile = profileOf(tool);
  const { box, cellMm, columns, rows } = field;
  // Only cells near the line: round places along it that are closer together than the tool reaches.
  const reach = Math.ceil((widthMm + gougeMm) / cellMm) + 1;
  const near = new Set<number>();
  for (const { x, y } of placesAlong(path, (cellMm * reach) / 2)) {
    const [column, row] = [Math.floor((x - box.minX) / cellMm), Math.floor((y - box.minY) / cellMm)];
    for (let r = Math.max(0, row - 2 * reach); r <= Math.min(rows - 1, row + 2 * reach); r++)
      for (let c = Math.max(0, column - 2 * reach); c <= Math.min(columns - 1, column + 2 * reach); c++) near.add(r * columns + c);
  }
  for (const cell of near) {
    const d = away(field.middleOf(cell));
    if (d <= widthMm + gougeMm) permitted[cell] = Math.min(permitted[cell] as number, bottomZ + profile(Math.min(d, widthMm)));
  }
}

/** Places along a path no further apart than a step. */
function* placesAlong(path: Path, stepMm: number): Generator<Point> {
  const points = polygonOf(path, 0.05);
  for (const [k, a] of points.entries()) {
    const b = points[k + 1] ?? (path.closed ? (points[0] as Point) : a);
    const count = Math.max(1, Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / stepMm));
    for (let j = 0; j <= count; j++) yield { x: a.x + ((b.x - a.x) * j) / count, y: a.y + ((b.y - a.y) * j) / count };
  }
}

/** Over which height each cell still stands of what is to be cleared; plus infinity where nothing is. */
export function clearedBelow(field: HeightField, { allowed, bottomZ }: Pick<MillPlan, 'allowed' | 'bottomZ'>): Float32Array {
  const heights = new Float32Array(field.heights.length).fill(Infinity);
  for (const one of allowed) {
    if (one.kind === 'line' || !one.isWanted) continue;
    const slackMm = standingMm + (one.wall ? tipSlack(one.wall) : 0);
    for (const [cell, z] of wantedHeights(field, one)) heights[cell] = Math.min(heights[cell] as number, Math.max(z, bottomZ) + slackMm);
  }
  return heights;
}

/** What stands in an area above its wanted height: how much, how wide, and where it is widest. */
function standing(
  field: HeightField,
  wanted: ReadonlyMap<number, number>,
  { isWanted, wall, name, pieceId }: AllowedArea,
  bottomZ: number,
): LeftStanding | null {
  if (!isWanted) return null;
  // Where two walls meet before the floor the flat of a tip stands higher than either.
  const slackMm = wall ? tipSlack(wall) : 0;
  const stands = new Set<number>();
  for (const [cell, z] of wanted) if ((field.heights[cell] as number) > Math.max(z, bottomZ) + standingMm + slackMm) stands.add(cell);
  if (stands.size === 0) return null;
  // The widest: peeled cell by cell from its edge until nothing is left.
  let [ring, layers, last] = [new Set(stands), 0, [...stands][0] as number];
  while (ring.size > 0) {
    const inner = new Set<number>();
    for (const cell of ring) {
      last = cell;
      if ([cell - 1, cell + 1, cell - field.columns, cell + field.columns].every((n) => ring.has(n))) inner.add(cell);
    }
    layers++;
    ring = inner;
  }
  return { name, pieceId, areaMm2: stands.size * field.cellMm ** 2, widestMm: (2 * layers - 1) * field.cellMm, at: field.middleOf(last) };
}

/** How much higher a flat tip leaves the line where two walls meet; of a round one it is not told. */
const tipSlack = (tool: ToolShape): number => (tool.kind === 'V-bit' ? tool.tipMm / 2 / Math.tan(halfAngleOf(tool)) : Infinity);

/** How far a floor lies off its depth where it was cleared, and walls off their outline. */
function offOf(
  field: HeightField,
  wanted: ReadonlyMap<number, number>,
  { wall, bottomZ }: AllowedArea,
  mayBeDeeper: (cell: number, z: number) => boolean,
): { floor: number; wall: number } {
  let [floor, flank] = [0, 0];
  for (const [cell, z] of wanted) {
    const off = (field.heights[cell] as number) - z;
    if (off > standingMm || (off < 0 && mayBeDeeper(cell, z))) continue;
    if (z <= bottomZ + 1e-6) floor = Math.max(floor, Math.abs(off));
    else if (wall && tipSlack(wall) === 0) flank = Math.max(flank, Math.abs(off));
  }
  return { floor, wall: flank };
}

function gougesIn(field: HeightField, plan: Pick<MillPlan, 'parts' | 'allowed'>, permitted: Float32Array, owner: Int32Array): Gouge[] {
  const areas = plan.allowed.flatMap((one) => (one.kind === 'area' ? [one.area.outer, ...one.area.holes] : []));
  const borders = [...plan.parts.flatMap(({ outer, holes }) => [outer, ...holes]), ...areas];
  const toBorder = distanceTo(borders);
  const beyondLines = plan.allowed.flatMap((one) => (one.kind === 'line' ? [beyondLine(one)] : []));
  const found = new Map<string, { beyondMm: number; depthMm: number; cells: number; at: Point; pieceId: string; name: string }>();
  for (let cell = 0; cell < field.heights.length; cell++) {
    const deep = (permitted[cell] as number) - (field.heights[cell] as number);
    if (!(deep > sameHeightMm)) continue;
    const at = field.middleOf(cell);
    // Beyond an outline by as far as the place lies from it; within an area, by how much it is too deep.
    const beyond = beyondLines.reduce((least, beyond) => Math.min(least, beyond(at)), Math.min(toBorder(at), deep));
    if (beyond <= gougeMm) continue;
    const piece = plan.parts[owner[cell] as number];
    const before = found.get(piece?.id ?? '');
    found.set(piece?.id ?? '', {
      name: piece?.name ?? '',
      pieceId: piece?.id ?? '',
      cells: (before?.cells ?? 0) + 1,
      depthMm: Math.max(before?.depthMm ?? 0, deep),
      ...(before && before.beyondMm >= beyond ? { beyondMm: before.beyondMm, at: before.at } : { beyondMm: beyond, at }),
    });
  }
  return [...found.values()].map(({ cells, ...gouge }) => ({ ...gouge, areaMm2: cells * field.cellMm ** 2 }));
}

/** How far a place lies beyond what follows a line; infinitely where it is far from it. */
function beyondLine({ path, widthMm }: Extract<Allowed, { kind: 'line' }>): (at: Point) => number {
  const { minX, minY, maxX, maxY } = pathBox(path);
  const margin = widthMm + 1;
  const away = distanceTo([path]);
  return (at) =>
    at.x < minX - margin || at.x > maxX + margin || at.y < minY - margin || at.y > maxY + margin ? Infinity : Math.abs(away(at) - widthMm);
}

/** How much stands about a place over the bottom: the most within a tool's width, mm. */
function heightAbout(field: HeightField, at: Point, bottomZ: number): number {
  let most = 0;
  for (let dx = -4; dx <= 4; dx++)
    for (let dy = -4; dy <= 4; dy++) {
      const cell = field.cellAt(at.x + dx * field.cellMm, at.y + dy * field.cellMm);
      if (cell >= 0) most = Math.max(most, (field.heights[cell] as number) - bottomZ);
    }
  return most;
}
