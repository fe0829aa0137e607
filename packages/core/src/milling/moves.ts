/**
 * In: where a tool goes, as paths on the sheet and heights. Out: its moves in three dimensions: lines, arcs, helices; and how long they
 * take. Heights are above the top of the stock, down negative, mm.
 */
import { type Leg, travelTime } from '../make/motion.ts';
import {
  circleOf,
  directionOn,
  distance,
  type Path,
  type Point,
  reducedSteps,
  type Segment,
  segmentLength,
  splitSegment,
} from '../plane/index.ts';
import type { MillTool } from './mill-tool.ts';

export interface Place extends Point {
  readonly z: number;
}

export interface Move {
  /** A rapid touches nothing; all else cuts, or may. */
  readonly isRapid: boolean;
  readonly to: Place;
  /** Of an arc its turn, radians, counter-clockwise positive; 0 for a straight move. Its height changes evenly along it. */
  readonly sweep: number;
  readonly feedMmPerMin: number;
}

/** How far arcs and lines may leave curves that they stand for, mm. */
const pathToleranceMm = 0.002;
/** A path starts where the tool is but for rounding, mm. */
const startSlackMm = 1e-3;

/** A height at a length along a path; between two it changes evenly. */
export interface Knot {
  readonly along: number;
  readonly z: number;
}

/** How high above the work the tool goes from place to place, mm. */
export interface Heights {
  /** Over everything. */
  readonly safeZ: number;
  /** Over stock that is already low, or between places of one piece. */
  readonly hopZ: number;
}

/** How high above the last pass the tool comes down fast, mm. */
export const aboveMm = 0.5;

/** A tool's way, move by move. */
export class Moves {
  readonly list: Move[] = [];
  readonly start: Place;
  at: Place;

  /** @param over where it begins, at the safe height */
  constructor(
    private readonly tool: Pick<MillTool, 'feedMmPerMin' | 'plungeMmPerMin'>,
    over: Point,
    { safeZ }: Heights,
  ) {
    this.start = { x: over.x, y: over.y, z: safeZ };
    this.at = this.start;
  }

  /** Up to a height, across at that height, and down to just above where it cuts next. */
  over({ x, y }: Point, travelZ: number, downToZ: number): void {
    const isThere = Math.hypot(x - this.at.x, y - this.at.y) < 1e-9;
    if (!isThere && this.at.z < travelZ) this.put(true, { ...this.at, z: travelZ });
    if (!isThere) this.put(true, { x, y, z: Math.max(travelZ, this.at.z) });
    if (this.at.z > downToZ) this.put(true, { x, y, z: downToZ });
  }

  lift(z: number): void {
    if (this.at.z < z) this.put(true, { ...this.at, z });
  }

  /** Straight down, at the plunge feed. */
  plunge(z: number): void {
    if (Math.abs(this.at.z - z) > 1e-9) this.put(false, { ...this.at, z }, this.tool.plungeMmPerMin);
  }

  /** Straight to a place. */
  line(to: Place): void {
    if (Math.hypot(to.x - this.at.x, to.y - this.at.y, to.z - this.at.z) < 1e-9) return;
    this.put(false, to, this.slowed(to, Math.hypot(to.x - this.at.x, to.y - this.at.y)));
  }

  /**
   * Along a path that starts where the tool is.
   * @param knots heights by length along the path, in order; before the first and after the last the height stays
   * @throws Error where it starts elsewhere: an arc from a wrong start would be another arc
   */
  along(path: Path, knots: readonly Knot[]): void {
    if (distance(path.start, this.at) > startSlackMm) throw new Error('a path of the tool starts where the tool is not');
    let [at, next] = [0, 0];
    for (const { from, segment } of reducedSteps(path, ['line', 'arc'], pathToleranceMm)) {
      let [start, rest]: [Point, Segment] = [from, segment];
      let left = segmentLength(start, rest);
      if (left < 1e-9) continue;
      while (next < knots.length && (knots[next] as Knot).along < at + left - 1e-7) {
        const { along } = knots[next] as Knot;
        next++;
        if (along <= at + 1e-7) continue;
        const [before, after] = splitSegment(start, rest, (along - at) / left);
        this.step(start, before, heightAt(knots, along));
        left -= along - at;
        [start, rest, at] = [before.to, after, along];
      }
      at += left;
      this.step(start, rest, heightAt(knots, at));
    }
  }

  private step(from: Point, segment: Segment, z: number): void {
    const to = { x: segment.to.x, y: segment.to.y, z };
    const sweep = segment.kind === 'arc' ? segment.sweep : 0;
    this.put(false, to, this.slowed(to, segmentLength(from, segment)), sweep);
  }

  /** Steep ways down are taken no faster than straight down. */
  private slowed({ z }: Place, flatMm: number): number {
    const { feedMmPerMin, plungeMmPerMin } = this.tool;
    const down = this.at.z - z;
    if (down <= 1e-9) return feedMmPerMin;
    return Math.min(feedMmPerMin, (plungeMmPerMin * Math.hypot(down, flatMm)) / down);
  }

  private put(isRapid: boolean, to: Place, feedMmPerMin = 0, sweep = 0): void {
    this.list.push({ isRapid, to, sweep, feedMmPerMin });
    this.at = to;
  }
}

/** The height at a length along, between knots. */
export function heightAt(knots: readonly Knot[], along: number): number {
  const k = knots.findIndex((knot) => knot.along >= along - 1e-9);
  if (k < 0) return (knots.at(-1) as Knot).z;
  const b = knots[k] as Knot;
  const a = knots[k - 1];
  if (!a || b.along - a.along < 1e-9) return b.z;
  return a.z + ((b.z - a.z) * (along - a.along)) / (b.along - a.along);
}

/** The move as a segment on the sheet. */
export const segmentOfMove = ({ to, sweep }: Move): Segment =>
  sweep === 0 ? { kind: 'line', to: { x: to.x, y: to.y } } : { kind: 'arc', to: { x: to.x, y: to.y }, sweep };

/** How far a move goes, mm. */
export function moveLength(from: Place, move: Move): number {
  return Math.hypot(segmentLength(from, segmentOfMove(move)), move.to.z - from.z);
}

/** Places along a move that leave it by at most a tolerance, its end included and its start left out. */
export function chordsOfMove(from: Place, move: Move, toleranceMm: number): Place[] {
  if (move.sweep === 0) return [move.to];
  const { centre, radius, startAngle } = circleOf(from, { kind: 'arc', to: move.to, sweep: move.sweep });
  const widest = 2 * Math.acos(Math.max(0, 1 - toleranceMm / Math.max(radius, toleranceMm)));
  const count = Math.max(1, Math.ceil(Math.abs(move.sweep) / Math.min(widest, Math.PI / 4)));
  return Array.from({ length: count }, (_, k) => {
    if (k === count - 1) return move.to;
    const share = (k + 1) / count;
    const angle = startAngle + move.sweep * share;
    return { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle), z: from.z + (move.to.z - from.z) * share };
  });
}

/** Seconds for moves, one after another: speeds rise and fall evenly, and corners are slowed for, within each run at one speed. */
export function secondsOf(start: Place, moves: readonly Move[], rapidMmPerMin: number, accelerationMmPerS2: number): number {
  let seconds = 0;
  let legs: Leg[] = [];
  let speed = 0;
  let at = start;
  const close = (): void => {
    seconds += travelTime(legs, speed / 60, accelerationMmPerS2);
    legs = [];
  };
  for (const move of moves) {
    const own = move.isRapid ? rapidMmPerMin : Math.min(rapidMmPerMin, move.feedMmPerMin);
    if (own !== speed) close();
    speed = own;
    const flat = { from: at, segment: segmentOfMove(move) };
    const isFlat = Math.hypot(move.to.x - at.x, move.to.y - at.y) > 1e-9 || move.sweep !== 0;
    // A way straight up or down stands across everything: the tool stops before and after it.
    const upright = { x: 0, y: 0 };
    legs.push({
      lengthMm: moveLength(at, move),
      from: isFlat ? directionOn(flat.from, flat.segment, 0) : upright,
      to: isFlat ? directionOn(flat.from, flat.segment, 1) : upright,
    });
    at = move.to;
  }
  close();
  return seconds;
}
