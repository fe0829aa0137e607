/**
 * In: stock that has been milled, and the outlines that it was milled for. Out: how it came out, by a reckoning apart from the
 * application's: what is gone that should stand, how deep floors are, and how far cut edges lie from their outlines.
 */
import { z } from 'zod';
import type { VirtualStock } from './virtual-stock.ts';

/** x and y in turn, mm from the stock's lower left corner; closed by itself. */
const ring = z.array(z.number().min(-1e4).max(1e4)).min(6).max(40_000);
const rings = z.array(ring).min(1).max(2000);
const named = z.string().max(200);
export const outlinesSchema = z.object({
  /** What must stand, but for what is taken: outer outlines and their holes. */
  parts: z.array(z.object({ name: named, rings })).max(2000),
  /** What may be taken off down to a depth; its floor is looked at where its walls are upright. */
  taken: z.array(z.object({ name: named, rings, depthMm: z.number().min(0).max(1000), isFloor: z.boolean() })).max(2000),
  /** What may be taken off beside a line, so far on both sides. */
  lines: z.array(z.object({ points: z.array(z.number().min(-1e4).max(1e4)).min(4).max(40_000), besideMm: z.number().min(0).max(200) })).max(4000), // biome-ignore format: one line
});
export type Outlines = z.infer<typeof outlinesSchema>;

export interface MilledMeasured {
  readonly cellMm: number;
  /** Gone that should stand. */
  readonly gougedMm2: number;
  readonly deepestMm: number;
  readonly gougedAt: readonly [number, number] | null;
  readonly floors: readonly { readonly name: string; readonly worstMm: number; readonly leftMm2: number }[];
  /**
   * Where a border is cut right through: how far its edge lies from it, outwards positive, as the middle of all places (corners that a round
   * tool cannot reach are few) and at most; and the share that is cut through.
   */
  readonly edges: readonly { readonly name: string; readonly offMm: number; readonly worstMm: number; readonly cutShare: number }[];
}

/** What lies so near to an outline, in cells, may belong to either side. */
const doubtCells = 2;
/** Less than this is no gouge and no fault of a floor, mm. */
const slackMm = 0.02;

export function milledMeasured(stock: VirtualStock, thicknessMm: number, { parts, taken, lines }: Outlines): MilledMeasured {
  const { columns, cellMm, tops } = stock;
  const takenMasks = taken.map((one) => ({ one, mask: filled(stock, one.rings) }));
  const beside = new Uint8Array(tops.length);
  for (const { points, besideMm } of lines) stroke(stock, beside, points, besideMm + doubtCells * cellMm);
  const free = beside.slice();
  for (const { mask } of takenMasks) merge(free, grown(stock, mask, doubtCells));
  // Where nothing of a part is, all may be gone; there floors have no say.
  const kept = new Uint8Array(tops.length);
  let [gougedCells, deepestMm]: [number, number] = [0, 0];
  let gougedAt: [number, number] | null = null;
  for (const part of parts) {
    const inner = shrunk(stock, filled(stock, part.rings), doubtCells);
    merge(kept, inner);
    for (let k = 0; k < tops.length; k++) {
      const depth = -(tops[k] as number);
      if (!inner[k] || free[k] || depth <= slackMm) continue;
      gougedCells++;
      if (depth <= deepestMm) continue;
      deepestMm = depth;
      gougedAt = [((k % columns) + 0.5) * cellMm, (Math.floor(k / columns) + 0.5) * cellMm];
    }
  }
  /** What lines and deeper areas let be taken, with what is in doubt beside them. */
  const deeperThan = (depthMm: number): Uint8Array => {
    const deeper = beside.slice();
    for (const { one, mask } of takenMasks) if (one.depthMm > depthMm) merge(deeper, grown(stock, mask, doubtCells));
    return deeper;
  };
  const floors = takenMasks
    .filter(({ one }) => one.isFloor)
    .map(({ one, mask }) => {
      const inner = shrunk(stock, mask, doubtCells);
      const deeper = deeperThan(one.depthMm);
      let [worstMm, left] = [0, 0];
      for (let k = 0; k < tops.length; k++) {
        if (!inner[k]) continue;
        const off = (tops[k] as number) + one.depthMm;
        if (off < 0 && (deeper[k] || (parts.length > 0 && !kept[k]))) continue;
        if (off > slackMm) left++;
        else worstMm = Math.max(worstMm, Math.abs(off));
      }
      return { name: one.name, worstMm, leftMm2: left * cellMm ** 2 };
    });
  const edges = parts.flatMap(({ name, rings: all }) => all.map((border) => ({ name, ...edgeOff(stock, thicknessMm, border, all) })));
  return { cellMm, gougedMm2: gougedCells * cellMm ** 2, deepestMm, gougedAt, floors, edges };
}

/** Cells whose middles lie within rings, by even and odd. */
function filled({ columns, rows, cellMm }: VirtualStock, all: readonly (readonly number[])[]): Uint8Array {
  const mask = new Uint8Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    const y = (row + 0.5) * cellMm;
    const crossings: number[] = [];
    for (const one of all)
      for (let k = 0; k < one.length; k += 2) {
        const [ax, ay] = [one[k] as number, one[k + 1] as number];
        const [bx, by] = [one[(k + 2) % one.length] as number, one[(k + 3) % one.length] as number];
        if (ay > y !== by > y) crossings.push(ax + ((y - ay) / (by - ay)) * (bx - ax));
      }
    crossings.sort((a, b) => a - b);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const first = Math.max(0, Math.ceil((crossings[k] as number) / cellMm - 0.5));
      const last = Math.min(columns - 1, Math.floor((crossings[k + 1] as number) / cellMm - 0.5));
      if (last >= first) mask.fill(1, row * columns + first, row * columns + last + 1);
    }
  }
  return mask;
}

const merge = (into: Uint8Array, more: Uint8Array): void => {
  for (let k = 0; k < into.length; k++) into[k] = (into[k] as number) | (more[k] as number);
};

/** A mask with a rim of so many cells more all round, in a square. */
function grown({ columns, rows }: VirtualStock, mask: Uint8Array, by: number): Uint8Array {
  const along = spread(mask, columns, rows, 1, columns, by);
  return spread(along, rows, columns, columns, 1, by);
}

const shrunk = (stock: VirtualStock, mask: Uint8Array, by: number): Uint8Array => inverted(grown(stock, inverted(mask), by));
const inverted = (mask: Uint8Array): Uint8Array => mask.map((value) => 1 - value);

function spread(mask: Uint8Array, count: number, lines: number, step: number, lineStep: number, by: number): Uint8Array {
  const made = new Uint8Array(mask.length);
  for (let line = 0; line < lines; line++) {
    let until = -1;
    for (let k = 0; k < count; k++) if (mask[line * lineStep + k * step]) {
      for (let j = Math.max(until + 1, k - by); j <= Math.min(count - 1, k + by); j++) made[line * lineStep + j * step] = 1;
      until = k + by;
    } // biome-ignore format: one loop
  }
  return made;
}

/** Marks all within a distance of a line. */
function stroke({ columns, rows, cellMm }: VirtualStock, mask: Uint8Array, points: readonly number[], besideMm: number): void {
  for (let k = 0; k + 3 < points.length; k += 2) {
    const [ax, ay, bx, by] = points.slice(k, k + 4) as [number, number, number, number];
    const low = Math.max(0, Math.floor((Math.min(ay, by) - besideMm) / cellMm));
    const high = Math.min(rows - 1, Math.ceil((Math.max(ay, by) + besideMm) / cellMm));
    const left = Math.max(0, Math.floor((Math.min(ax, bx) - besideMm) / cellMm));
    const right = Math.min(columns - 1, Math.ceil((Math.max(ax, bx) + besideMm) / cellMm));
    const square = (bx - ax) ** 2 + (by - ay) ** 2;
    for (let row = low; row <= high; row++)
      for (let column = left; column <= right; column++) {
        const [x, y] = [(column + 0.5) * cellMm - ax, (row + 0.5) * cellMm - ay];
        const t = square === 0 ? 0 : Math.max(0, Math.min(1, (x * (bx - ax) + y * (by - ay)) / square));
        if (Math.hypot(x - t * (bx - ax), y - t * (by - ay)) <= besideMm) mask[row * columns + column] = 1;
      }
  }
}

/** How far along a normal an edge is looked for, cells, and how near the places are that are looked at, mm. */
const reachCells = 6;
const everyMm = 0.5;

/** Where the stock is cut through beside a border, how far from it, across the border, and in which share of places. */
function edgeOff(
  stock: VirtualStock,
  thicknessMm: number,
  border: readonly number[],
  all: readonly (readonly number[])[],
): { offMm: number; worstMm: number; cutShare: number } {
  const { cellMm } = stock;
  const isThrough = (x: number, y: number): boolean => !(stock.at(x, y) > -thicknessMm + slackMm);
  const offs: number[] = [];
  let places = 0;
  for (let k = 0; k < border.length; k += 2) {
    const [ax, ay] = [border[k] as number, border[k + 1] as number];
    const [bx, by] = [border[(k + 2) % border.length] as number, border[(k + 3) % border.length] as number];
    const length = Math.hypot(bx - ax, by - ay);
    if (length === 0) continue;
    // Away from the part: where the middle of the chord, moved a little, lies outside.
    const sign = isWithin(all, (ax + bx) / 2 + (1e-4 * (by - ay)) / length, (ay + by) / 2 - (1e-4 * (bx - ax)) / length) ? -1 : 1;
    const [nx, ny] = [(sign * (by - ay)) / length, (sign * (ax - bx)) / length];
    for (let along = everyMm / 2; along < length; along += everyMm) {
      const [x, y] = [ax + ((bx - ax) * along) / length, ay + ((by - ay) * along) / length];
      places++;
      const found = firstThrough((away) => isThrough(x + away * nx, y + away * ny), reachCells * cellMm, cellMm / 8);
      // A cell is through as a whole once its middle is: in the middle of many neither too soon nor too late.
      if (found !== null) offs.push(found);
    }
  }
  offs.sort((a, b) => a - b);
  return {
    offMm: offs[Math.floor(offs.length / 2)] ?? 0,
    worstMm: offs.reduce((most, off) => Math.max(most, Math.abs(off)), 0),
    cutShare: places > 0 ? offs.length / places : 0,
  };
}

function firstThrough(isThrough: (away: number) => boolean, reachMm: number, stepMm: number): number | null {
  for (let away = -reachMm; away <= reachMm; away += stepMm) if (isThrough(away)) return away;
  return null;
}

function isWithin(all: readonly (readonly number[])[], x: number, y: number): boolean {
  let isIn = false;
  for (const one of all)
    for (let k = 0; k < one.length; k += 2) {
      const [ax, ay] = [one[k] as number, one[k + 1] as number];
      const [bx, by] = [one[(k + 2) % one.length] as number, one[(k + 3) % one.length] as number];
      if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) isIn = !isIn;
    }
  return isIn;
}
