/**
 * In: an area to clear, a tool and how deep. Out: the tool's moves: rings from the inside out, one spiral, lines to and fro, or loops.
 * Of two rings a stepover apart the inner leaves nothing that the outer does not take, as long as the stepover is no more than the
 * radius: every place between them lies within a stepover of the outer one.
 */

import { hatchLines } from '../make/hatch.ts';
import { startedAt } from '../make/start-points.ts';
import {
  centreOf,
  distance,
  endOf,
  nearestOnPath,
  type Path,
  type Point,
  pathBox,
  pathLength,
  polygonOf,
  reversedPath,
  subPath,
} from '../plane/index.ts';
import { type AxisBranch, medialAxis, nearnessTo, windingNumber } from '../shape/index.ts';
import { downAndRound, downToAndFro, entryFor, levelsTo, plainEntry } from './levels.ts';
import { type MillTool, radiusOf } from './mill-tool.ts';
import { aboveMm, type Heights, Moves } from './moves.ts';
import { type Area, inset, type Ring, ringsIn, turnedFor } from './tool-rings.ts';
import { TrochoidPlan } from './trochoid.ts';

export interface PocketSettings {
  readonly topZ: number;
  readonly bottomZ: number;
  readonly pattern: 'rings' | 'spiral' | 'lines' | 'loops';
  /** Of lines, degrees. */
  readonly lineAngle: number;
  readonly direction: 'climb' | 'conventional';
  /** Left on the walls until a last pass at full depth, mm; 0 for none. */
  readonly finishMm: number;
  readonly entryAngle: number | null;
  /** Of loops: how much of the tool's front may bite, degrees. */
  readonly engagement: number;
}

/** Loops aim for so much less than may be bitten, degrees: between the places that are looked at it is a little more. */
const aimBelow = 2;

/** Rings lie no further apart than this share of the radius, so that nothing stands between them. */
const widestStep = 0.96;
export const stepoverOf = ({ diameterMm, stepover }: MillTool): number => Math.min(stepover * diameterMm, (widestStep * diameterMm) / 2);

/** Clears an area; yields now and then. Null where the tool fits nowhere. */
export function* pocketMoves(area: Area, tool: MillTool, settings: PocketSettings, heights: Heights): Generator<number, Moves | null> {
  const radius = radiusOf(tool);
  const rooms = inset(area, radius + settings.finishMm);
  const [first] = rooms;
  if (!first) return settings.finishMm > 0 ? yield* pocketMoves(area, tool, { ...settings, finishMm: 0 }, heights) : null;
  const moves = new Moves(tool, first.outer.start, heights);
  const levels = levelsTo(settings.topZ, settings.bottomZ, tool.stepdownMm);
  for (const room of rooms) {
    const clearing = new Clearing(room, tool, settings, moves, heights);
    yield* clearing.prepare();
    for (const [k, z] of levels.entries()) {
      yield* clearing.level(k === 0 ? settings.topZ : (levels[k - 1] as number), z);
      yield 0;
    }
  }
  if (settings.finishMm > 0) finish(area, rooms, tool, settings, moves, heights);
  moves.lift(heights.safeZ);
  return moves;
}

/** One last time round all walls at full depth, from the room that is already cleared. */
function finish(area: Area, rooms: readonly Area[], tool: MillTool, settings: PocketSettings, moves: Moves, { safeZ }: Heights): void {
  for (const { outer, holes } of inset(area, radiusOf(tool)))
    for (const [k, border] of [outer, ...holes].entries()) {
      const path = turnedFor(border, k > 0, settings.direction);
      // Down where it is cleared, and from there to the wall.
      const cleared = rooms.flatMap((room) => [room.outer, ...room.holes]).map((ring) => nearestOnPath(ring, path.start));
      const from = cleared.reduce((best, near) => (near.distance < best.distance ? near : best)).point;
      moves.over(from, safeZ, settings.bottomZ + aboveMm);
      moves.plunge(settings.bottomZ);
      moves.line({ ...path.start, z: settings.bottomZ });
      moves.along(path, [{ along: 0, z: settings.bottomZ }]);
      moves.lift(safeZ);
    }
}

/** One room, level by level: its rings or lines are worked out once. */
class Clearing {
  private root: Ring | null = null;
  private lines: readonly Path[] = [];
  private loops: TrochoidPlan | null = null;
  /** How steep it goes down, radians. */
  private readonly entry: number | null;
  private readonly isClear: (a: Point, b: Point) => boolean;

  constructor(
    private readonly room: Area,
    private readonly tool: MillTool,
    private readonly settings: PocketSettings,
    private readonly moves: Moves,
    private readonly heights: Heights,
  ) {
    this.entry = entryFor(tool, settings.entryAngle);
    this.isClear = clearIn(room);
  }

  *prepare(): Generator<number, void> {
    const step = stepoverOf(this.tool);
    if (this.settings.pattern === 'lines') {
      this.lines = hatchLines([this.room.outer, ...this.room.holes], (this.settings.lineAngle * Math.PI) / 180, step);
      this.root = { area: this.room, inside: [] };
      return;
    }
    if (this.settings.pattern === 'loops') {
      const plan = new TrochoidPlan(yield* roomAxis(this.room), {
        radiusMm: radiusOf(this.tool),
        engagement: ((this.settings.engagement - aimBelow) * Math.PI) / 180,
        direction: this.settings.direction,
        entryAngle: this.entry ?? plainEntry,
        hopZ: this.heights.hopZ,
        aboveMm,
      });
      if (plan.hasRoom) this.loops = plan;
    }
    if (this.loops) this.root = { area: this.room, inside: [] };
    else this.root = yield* ringsIn(this.room, this.settings.pattern === 'spiral' ? step * Math.SQRT1_2 : step, radiusOf(this.tool));
  }

  *level(fromZ: number, toZ: number): Generator<number, void> {
    const root = this.root as Ring;
    if (this.lines.length > 0) this.alongLines(fromZ, toZ);
    if (this.loops) yield* this.loops.level(this.moves, fromZ, toZ);
    const chain = this.settings.pattern === 'spiral' ? chainOf(root) : null;
    if (chain) this.spiral(chain, fromZ, toZ);
    else this.ring(root, fromZ, toZ, this.lines.length > 0 || this.loops !== null);
    this.moves.lift(this.heights.hopZ);
  }

  /** What lies inside a ring, and then the ring itself. */
  private ring({ area, inside }: Ring, fromZ: number, toZ: number, isOpened = false): void {
    for (const one of inside) this.ring(one, fromZ, toZ);
    let isThere = inside.length > 0 || isOpened;
    for (const [k, border] of [area.outer, ...area.holes].entries()) {
      const path = startedAt(turnedFor(border, k > 0, this.settings.direction), nearestOnPath(border, this.moves.at).point);
      // From the ring inside it straight on; to others over what stands between.
      if (isThere && this.moves.at.z <= toZ + 1e-9 && this.isNearBy(path.start)) {
        this.moves.line({ ...path.start, z: toZ });
        this.moves.along(path, [{ along: 0, z: toZ }]);
      } else {
        this.moves.over(path.start, this.heights.hopZ, fromZ + aboveMm);
        this.moves.plunge(fromZ);
        downAndRound(this.moves, path, fromZ, toZ, this.entry);
      }
      isThere = true;
    }
  }

  /** Whether the tool may go straight to a place: within a stepover of a ring nothing lies between; farther off it is looked at. */
  private isNearBy(to: Point): boolean {
    const away = distance(this.moves.at, to);
    return away <= stepoverOf(this.tool) + 1e-3 || (away < 2 * this.tool.diameterMm && this.isClear(this.moves.at, to));
  }

  private alongLines(fromZ: number, toZ: number): void {
    let left = [...this.lines];
    while (left.length > 0) {
      const near = (p: Path): number => Math.min(distance(this.moves.at, p.start), distance(this.moves.at, endOf(p)));
      const next = left.reduce((best, p) => (near(p) < near(best) ? p : best));
      left = left.filter((p) => p !== next);
      const path = distance(this.moves.at, next.start) <= distance(this.moves.at, endOf(next)) ? next : reversedPath(next);
      const isNear = distance(this.moves.at, path.start) < 2 * this.tool.diameterMm;
      if (this.moves.at.z <= toZ + 1e-9 && isNear && this.isClear(this.moves.at, path.start)) this.moves.line({ ...path.start, z: toZ });
      else {
        this.moves.over(path.start, this.heights.hopZ, fromZ + aboveMm);
        this.moves.plunge(fromZ);
        downToAndFro(this.moves, path, fromZ, toZ, this.entry);
      }
      this.moves.along(path, [{ along: 0, z: toZ }]);
    }
  }

  /** From the innermost ring outwards in one line without an end, and once round the outermost. */
  private spiral(rings: readonly Path[], fromZ: number, toZ: number): void {
    const { moves } = this;
    let [inner, ...outer] = rings.map((ring) => turnedFor(ring, false, this.settings.direction)) as [Path, ...Path[]];
    moves.over(inner.start, this.heights.hopZ, fromZ + aboveMm);
    moves.plunge(fromZ);
    downAndRound(moves, inner, fromZ, toZ, this.entry);
    for (const ring of outer) {
      const next = startedAt(ring, nearestOnPath(ring, moves.at).point);
      // Each place of the outer ring is neared from the nearest of the inner one, more and more as it goes round.
      const places = polygonOf(subPath(next, 0, pathLength(next)), 0.01);
      let gone = 0;
      const whole = pathLength(next);
      places.forEach((p, k) => {
        if (k > 0) gone += distance(places[k - 1] as Point, p);
        const from = nearestOnPath(inner, p).point;
        const share = Math.min(1, gone / whole);
        moves.line({ x: from.x + (p.x - from.x) * share, y: from.y + (p.y - from.y) * share, z: toZ });
      });
      inner = next;
    }
    moves.line({ ...inner.start, z: toZ });
    moves.along(inner, [{ along: 0, z: toZ }]);
  }
}

/** The medial axis of a room; of a round one its middle alone. */
function* roomAxis({ outer, holes }: Area): Generator<number, AxisBranch[]> {
  const branches = yield* medialAxis([outer, ...holes]);
  if (branches.some(({ places }) => places.length > 1)) return branches;
  const middle = centreOf(pathBox(outer));
  const place = { ...middle, clearanceMm: nearestOnPath(outer, middle).distance };
  return [{ places: [place, place] }];
}

/** The rings from the inside out where no ring parts and none has a hole. */
function chainOf(root: Ring): Path[] | null {
  const chain: Path[] = [];
  for (let ring: Ring | undefined = root; ring; ring = ring.inside[0]) {
    if (ring.inside.length > 1 || ring.area.holes.length > 0) return null;
    chain.unshift(ring.area.outer);
  }
  return chain;
}

/** Whether the tool's middle may go straight from one place to another within a room. */
function clearIn({ outer, holes }: Area): (a: Point, b: Point) => boolean {
  const borders = [outer, ...holes];
  const isNear = nearnessTo(borders);
  return (a, b) => {
    const count = Math.max(2, Math.ceil(distance(a, b) / 0.1));
    for (let k = 0; k <= count; k++) {
      const p = { x: a.x + ((b.x - a.x) * k) / count, y: a.y + ((b.y - a.y) * k) / count };
      // On its border the room is clear; a place off it must lie within.
      if (!isNear(p, 0.003) && windingNumber(borders, p) <= 0) return false;
    }
    return true;
  };
}
