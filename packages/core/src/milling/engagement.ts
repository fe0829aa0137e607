/**
 * In: a tool's moves that clear an area. Out: how much of its front bites at each, as an angle; and the same moves slowed where that is
 * more than it should be.
 * What stands is kept as a grid of heights; the front is the half circle towards where the tool goes. At a full slot the angle is 180
 * degrees; beside a straight wall of a stepover s it is acos(1 - s / r). Ways down are not counted: a tool that goes down into full stock
 * bites all round, and is slowed for it where it is led.
 */
import { type Box, boxAround, circleOf, directionOn, splitSegment } from '../plane/index.ts';
import { chordsOfMove, type Move, type Place, segmentOfMove } from './moves.ts';

export interface Engagement {
  /** Degrees, the largest and the mean by length. */
  readonly largest: number;
  readonly mean: number;
}

const rays = 36;
/** What stands less than this share of a pass over the tool's tip counts for nothing: the last of a ramp, say. */
const leastLedge = 0.25;
/** Moves that bite more than the limit by less than this are not slowed, degrees: the grid tells no less. */
const slackDegrees = 5;
const mostCells = 3_000_000;
/** Feeds are slowed by tenths, never to less than this share. */
const slowest = 0.3;

/**
 * Moves slowed where they bite more than `limit` degrees.
 * @param start where the tool is before the first of them
 * @param passMm how deep one pass is
 * @param before what another tool took off before, over the same place
 */
export function boundedEngagement(
  start: Place,
  moves: readonly Move[],
  radiusMm: number,
  passMm: number,
  limit: number,
  before: Cleared | null = null,
): { readonly moves: Move[]; readonly engagement: Engagement } {
  const box = boxAround(moves.flatMap((move, k) => (move.isRapid ? [] : [moves[k - 1]?.to ?? start, move.to])));
  if (!box) return { moves: [...moves], engagement: { largest: 0, mean: 0 } };
  const stock = new Standing(box, radiusMm, leastLedge * passMm);
  if (before) stock.clearedBy(before);
  // What none of the moves takes off is wall: it lies beside the tool, and is not bitten.
  stock.keep(start, moves);
  const made: Move[] = [];
  let at = start;
  let [largest, sum, length] = [0, 0, 0];
  for (const move of moves) {
    for (const part of partsOf(at, move, 2 * radiusMm)) {
      let angle = 0;
      if (!part.isRapid) {
        const places = chordsOfMove(at, part, radiusMm / 40);
        let from = at;
        for (const to of places) {
          const { max, total, gone } = stock.bite(from, to);
          angle = Math.max(angle, max);
          sum += total;
          length += gone;
          from = to;
        }
      }
      largest = Math.max(largest, angle);
      const factor = angle > limit + slackDegrees ? Math.max(slowest, Math.round((10 * limit) / angle) / 10) : 1;
      join(made, { ...part, feedMmPerMin: part.feedMmPerMin * factor }, at);
      at = part.to;
    }
  }
  return { moves: made, engagement: { largest, mean: length > 0 ? sum / length : 0 } };
}

/** Moves of another tool. */
export interface Cleared {
  readonly start: Place;
  readonly moves: readonly Move[];
  readonly radiusMm: number;
}

/** Long moves in parts, so that one bite does not slow all of them. */
function partsOf(from: Place, move: Move, mostMm: number): Move[] {
  const flat = segmentOfMove(move);
  const length = move.sweep === 0 ? Math.hypot(move.to.x - from.x, move.to.y - from.y) : circleOf(from, { kind: 'arc', to: move.to, sweep: move.sweep }).radius * Math.abs(move.sweep); // biome-ignore format: one line
  const count = move.isRapid ? 1 : Math.ceil(length / mostMm);
  if (count <= 1) return [move];
  const parts: Move[] = [];
  let [at, rest] = [{ x: from.x, y: from.y }, flat];
  for (let k = 0; k < count; k++) {
    const [first, after] = k === count - 1 ? [rest, rest] : splitSegment(at, rest, 1 / (count - k));
    const z = from.z + ((move.to.z - from.z) * (k + 1)) / count;
    parts.push({ ...move, to: { x: first.to.x, y: first.to.y, z }, sweep: first.kind === 'arc' ? first.sweep : 0 });
    [at, rest] = [first.to, after];
  }
  return parts;
}

/** Adds a move, as one with the one before where both go on along the same line or arc at the same feed. */
function join(made: Move[], move: Move, from: Place): void {
  const last = made.at(-1);
  const before = made.at(-2)?.to;
  if (
    last &&
    before &&
    !last.isRapid &&
    !move.isRapid &&
    last.feedMmPerMin === move.feedMmPerMin &&
    (last.sweep === 0) === (move.sweep === 0)
  ) {
    const isOn = last.sweep === 0 ? isStraightOn(before, from, move.to) : isRoundOn(before, last, from, move);
    if (isOn) {
      made[made.length - 1] = { ...move, sweep: last.sweep + move.sweep };
      return;
    }
  }
  made.push(move);
}

function isStraightOn(a: Place, b: Place, c: Place): boolean {
  const [u, v] = [
    [b.x - a.x, b.y - a.y, b.z - a.z],
    [c.x - b.x, c.y - b.y, c.z - b.z],
  ] as [number[], number[]];
  const [m, n] = [Math.hypot(...u), Math.hypot(...v)];
  return m > 0 && n > 0 && Math.hypot(...u.map((x, k) => x / m - (v[k] as number) / n)) < 1e-6;
}

function isRoundOn(a: Place, first: Move, b: Place, second: Move): boolean {
  if (first.sweep * second.sweep < 0 || Math.abs(first.sweep + second.sweep) > 5.5) return false;
  const [p, q] = [
    circleOf(a, { kind: 'arc', to: first.to, sweep: first.sweep }),
    circleOf(b, { kind: 'arc', to: second.to, sweep: second.sweep }),
  ];
  const slope = (from: Place, move: Move, radius: number): number => (move.to.z - from.z) / (radius * Math.abs(move.sweep));
  const isOne = Math.hypot(p.centre.x - q.centre.x, p.centre.y - q.centre.y) < 1e-6 && Math.abs(p.radius - q.radius) < 1e-6;
  return isOne && Math.abs(slope(a, first, p.radius) - slope(b, second, q.radius)) < 1e-6;
}

const rayTurns = Array.from({ length: rays }, (_, k) => ((k + 0.5) / rays - 0.5) * Math.PI);
const [rayCos, raySin] = [Float64Array.from(rayTurns, Math.cos), Float64Array.from(rayTurns, Math.sin)];

const placeAlong = (from: Place, to: Place, t: number): Place => ({
  x: from.x + (to.x - from.x) * t,
  y: from.y + (to.y - from.y) * t,
  z: from.z + (to.z - from.z) * t,
});

/** What still stands, as heights on a grid. */
class Standing {
  private readonly cell: number;
  private readonly width: number;
  private readonly height: number;
  private readonly tops: Float32Array;
  /** How low each cell is in the end. */
  private ends: Float32Array | null = null;
  private readonly left: number;
  private readonly low: number;
  /** Where the tool has cleared last, and stands. */
  private stood: Place | null = null;

  constructor(
    { minX, minY, maxX, maxY }: Box,
    private readonly radius: number,
    private readonly ledgeMm: number,
  ) {
    const margin = 2 * radius;
    const [w, h] = [maxX - minX + 2 * margin, maxY - minY + 2 * margin];
    this.cell = Math.max(radius / 16, Math.sqrt((w * h) / mostCells));
    [this.width, this.height] = [Math.ceil(w / this.cell), Math.ceil(h / this.cell)];
    this.tops = new Float32Array(this.width * this.height).fill(1);
    [this.left, this.low] = [minX - margin, minY - margin];
  }

  /** Learns what all moves together take off, and puts it back. */
  keep(start: Place, moves: readonly Move[]): void {
    const begun = this.tops.slice();
    let from = start;
    for (const move of moves) {
      if (!move.isRapid) for (const to of chordsOfMove(from, move, this.radius / 40)) from = this.sweep(from, to);
      from = move.to;
    }
    this.ends = this.tops.slice();
    this.tops.set(begun);
    this.stood = null;
  }

  /** Takes off what another tool has. */
  clearedBy({ start, moves, radiusMm }: Cleared): void {
    let from = start;
    for (const move of moves) {
      if (!move.isRapid) for (const to of chordsOfMove(from, move, radiusMm / 40)) from = this.sweep(from, to, radiusMm);
      from = move.to;
    }
    this.stood = null;
  }

  private sweep(from: Place, to: Place, radiusMm = this.radius): Place {
    const count = Math.max(1, Math.ceil(Math.hypot(to.x - from.x, to.y - from.y) / (radiusMm / 5)));
    let before: Place | null = this.stood === from ? from : null;
    for (let k = 1; k <= count; k++) {
      const at = placeAlong(from, to, k / count);
      this.clear(at.x, at.y, at.z, before, radiusMm);
      before = at;
    }
    this.stood = to;
    return to;
  }

  /** Takes a straight move off, and says how much its front bit on the way: the largest, the sum by length, and over which length. */
  bite(from: Place, to: Place): { max: number; total: number; gone: number } {
    const flat = Math.hypot(to.x - from.x, to.y - from.y);
    const count = Math.max(1, Math.ceil(flat / (this.radius / 5)));
    const isCounted = flat > 1e-9 && to.z > from.z - 1e-6;
    const direction = directionOn(from, { kind: 'line', to }, 0);
    let [max, total] = [0, 0];
    let passed: Place | null = this.stood === from ? from : null;
    for (let k = 1; k <= count; k++) {
      const [before, after] = [(k - 1) / count, k / count];
      if (isCounted) {
        const z = Math.max(from.z + (to.z - from.z) * before, from.z + (to.z - from.z) * after);
        const angle = this.front(from.x + (to.x - from.x) * before, from.y + (to.y - from.y) * before, direction, z);
        max = Math.max(max, angle);
        total += (angle * flat) / count;
      }
      const at = placeAlong(from, to, after);
      this.clear(at.x, at.y, at.z, passed);
      passed = at;
    }
    this.stood = to;
    return { max, total, gone: isCounted ? flat : 0 };
  }

  /** Degrees of the front that touch what stands just ahead of the rim and is taken off where the tool goes on. */
  private front(x: number, y: number, d: { x: number; y: number }, z: number): number {
    let touched = 0;
    // Half a cell's diagonal out: no cell that the tool has cleared where it stands is asked.
    const reach = this.radius + 0.75 * this.cell;
    const low = z + this.ledgeMm;
    for (let k = 0; k < rays; k++) {
      const [c, s] = [rayCos[k] as number, raySin[k] as number];
      const [u, v] = [d.x * c - d.y * s, d.y * c + d.x * s];
      // What is never taken off is wall, beside which the tool goes: there it is asked where it goes on.
      const out = this.cellAt(x + reach * u, y + reach * v);
      const on = this.cellAt(x + this.radius * u + 1.5 * this.cell * d.x, y + this.radius * v + 1.5 * this.cell * d.y);
      if (this.isTaken(out, low) || ((this.tops[out] as number) > low && this.isTaken(on, low))) touched++;
    }
    return (touched * 180) / rays;
  }

  /** Whether a cell stands over a height and does not in the end. */
  private isTaken(cell: number, z: number): boolean {
    return cell >= 0 && (this.tops[cell] as number) > z && (this.ends?.[cell] as number) <= z;
  }

  /** The number of the cell at a place; -1 where there is none. */
  private cellAt(x: number, y: number): number {
    const [column, row] = [Math.floor((x - this.left) / this.cell), Math.floor((y - this.low) / this.cell)];
    return column < 0 || row < 0 || column >= this.width || row >= this.height ? -1 : row * this.width + column;
  }

  /**
   * Takes off what lies under the tool at a place. On the way from another, at which it stood as deep or deeper, only what it has not passed
   * over there is looked at.
   */
  private clear(x: number, y: number, z: number, before: Place | null, radiusMm = this.radius): void {
    const [cx, cy, r] = [(x - this.left) / this.cell, (y - this.low) / this.cell, radiusMm / this.cell];
    const isPassed = before !== null && before.z <= z;
    const [bx, by] = isPassed ? [(before.x - this.left) / this.cell, (before.y - this.low) / this.cell] : [0, 0];
    const [low, high] = [Math.max(0, Math.ceil(cy - r - 0.5)), Math.min(this.height - 1, Math.floor(cy + r - 0.5))];
    for (let row = low; row <= high; row++) {
      const half = Math.sqrt(Math.max(0, r * r - (row + 0.5 - cy) ** 2));
      const first = Math.max(0, Math.ceil(cx - half - 0.5));
      const last = Math.min(this.width - 1, Math.floor(cx + half - 0.5));
      const over = r * r - (row + 0.5 - by) ** 2;
      if (!isPassed || over <= 0) {
        this.lower(row, first, last, z);
        continue;
      }
      const was = Math.sqrt(over);
      this.lower(row, first, Math.min(last, Math.ceil(bx - was - 0.5) - 1), z);
      this.lower(row, Math.max(first, Math.floor(bx + was - 0.5) + 1), last, z);
    }
  }

  private lower(row: number, first: number, last: number, z: number): void {
    const start = row * this.width;
    for (let k = start + first; k <= start + last; k++) if ((this.tops[k] as number) > z) this.tops[k] = z;
  }
}
