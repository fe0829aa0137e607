/**
 * In: ways of the tool, each with where it is entered and left and which one must wait for it. Out: the order that travels
 * least between them: nearest first, then parts turned round (2-opt, Croes 1958) and moved (Or-opt, Or 1976) among near
 * neighbours until nothing gets shorter. What must come before stays before.
 */
import Flatbush from 'flatbush';
import { distance, type Point } from '../plane/index.ts';

export interface Stop {
  readonly entry: Point;
  readonly exit: Point;
  /** Whether it can be travelled from its exit to its entry as well. */
  readonly isReversible: boolean;
  /** The stop that may only follow once this one is done; null where none waits. */
  readonly before: number | null;
}

export interface Ordered {
  /** Stops in order of travel. */
  readonly order: readonly number[];
  readonly isReversed: readonly boolean[];
  readonly travelMm: number;
}

/** How many near neighbours a stop is tried beside. */
const neighbours = 8;

/** The travel of an order, from home to the last stop's exit, mm. */
export function travelOf(stops: readonly Stop[], order: readonly number[], home: Point, isReversed?: readonly boolean[]): number {
  let at = home;
  let sum = 0;
  for (const k of order) {
    const { entry, exit } = stops[k] as Stop;
    const turned = isReversed?.[k] ?? false;
    sum += distance(at, turned ? exit : entry);
    at = turned ? entry : exit;
  }
  return sum;
}

/** Orders the stops; yields now and then, so that it can be stopped between. */
export function* orderedStops(stops: readonly Stop[], home: Point): Generator<number, Ordered> {
  const tour = new Tour(stops, home);
  tour.nearestFirst();
  const near = nearLists(stops);
  for (let round = 0; round < 60; round++) {
    let gained = 0;
    for (let k = 0; k < stops.length; k++) {
      gained += tour.improve(k, near[k] as number[]);
      if (k % 200 === 199) yield Math.min(0.95, (round + k / stops.length) / 12);
    }
    gained += tour.flip();
    if (gained < 1e-6) break;
  }
  return { order: tour.order, isReversed: tour.isReversed, travelMm: travelOf(stops, tour.order, home, tour.isReversed) };
}

function nearLists(stops: readonly Stop[]): number[][] {
  if (stops.length === 0) return [];
  const index = new Flatbush(stops.length * 2);
  for (const { entry, exit } of stops) {
    index.add(entry.x, entry.y, entry.x, entry.y);
    index.add(exit.x, exit.y, exit.x, exit.y);
  }
  index.finish();
  return stops.map(({ exit, entry }, k) => {
    const found = [...index.neighbors(exit.x, exit.y, 2 * neighbours + 2), ...index.neighbors(entry.x, entry.y, 2 * neighbours + 2)];
    return [...new Set(found.map((j) => j >> 1))].filter((j) => j !== k).slice(0, 2 * neighbours);
  });
}

class Tour {
  order: number[] = [];
  readonly isReversed: boolean[];
  private readonly place: Int32Array;
  private readonly waiting: number[][];
  /** Whether every stop is as far either way, so that a part turned round keeps its inner travel. */
  private readonly isSymmetric: boolean;

  constructor(
    private readonly stops: readonly Stop[],
    private readonly home: Point,
  ) {
    this.isReversed = stops.map(() => false);
    this.place = new Int32Array(stops.length);
    this.waiting = stops.map(() => []);
    stops.forEach(({ before }, k) => {
      if (before !== null) this.waiting[before]?.push(k);
    });
    this.isSymmetric = stops.every((s) => s.isReversible || distance(s.entry, s.exit) < 1e-9);
  }

  private entry(k: number): Point {
    const s = this.stops[k] as Stop;
    return this.isReversed[k] ? s.exit : s.entry;
  }

  private exit(k: number): Point {
    const s = this.stops[k] as Stop;
    return this.isReversed[k] ? s.entry : s.exit;
  }

  /** From the stop at one place in the order to the one at the next; -1 is home, past the end nothing. */
  private leg(from: number, to: number): number {
    if (to >= this.order.length) return 0;
    const a = from < 0 ? this.home : this.exit(this.order[from] as number);
    return distance(a, this.entry(this.order[to] as number));
  }

  nearestFirst(): void {
    const { stops } = this;
    const left = new Set(stops.keys());
    const pending = this.waiting.map((list) => list.length);
    const cell = cellOf(stops);
    const grid = new Map<string, Set<number>>();
    const key = (p: Point, dx = 0, dy = 0): string => `${Math.floor(p.x / cell) + dx} ${Math.floor(p.y / cell) + dy}`;
    const put = (k: number): void => {
      const s = stops[k] as Stop;
      for (const p of s.isReversible ? [s.entry, s.exit] : [s.entry]) {
        const list = grid.get(key(p)) ?? new Set();
        list.add(k);
        grid.set(key(p), list);
      }
    };
    const free = new Set<number>();
    const release = (k: number): void => {
      free.add(k);
      put(k);
    };
    for (const k of left) if (pending[k] === 0) release(k);
    let at = this.home;
    while (left.size > 0) {
      const next = this.nearestFree(at, grid, key, free);
      const s = stops[next] as Stop;
      this.isReversed[next] = s.isReversible && distance(at, s.exit) < distance(at, s.entry);
      this.order.push(next);
      left.delete(next);
      free.delete(next);
      for (const p of [s.entry, s.exit]) grid.get(key(p))?.delete(next);
      at = this.exit(next);
      if (s.before !== null) {
        pending[s.before] = (pending[s.before] as number) - 1;
        if (pending[s.before] === 0) release(s.before);
      }
    }
    this.renumber(0, this.order.length - 1);
  }

  private nearestFree(
    at: Point,
    grid: ReadonlyMap<string, ReadonlySet<number>>,
    key: (p: Point, dx?: number, dy?: number) => string,
    free: ReadonlySet<number>,
  ): number {
    let best = -1;
    const take = (k: number): void => {
      if (best < 0 || this.reach(k, at) < this.reach(best, at)) best = k;
    };
    for (let ring = 0; ring < 24; ring++) {
      for (const [dx, dy] of ringOf(ring)) for (const k of grid.get(key(at, dx, dy)) ?? []) take(k);
      // One ring more, since a nearer one may lie just over the edge of the next cell.
      if (best >= 0 && ring > 0) return best;
    }
    if (best < 0) for (const k of free) take(k);
    return best;
  }

  /** How far it is to where a stop can be entered. */
  private reach(k: number, at: Point): number {
    const s = this.stops[k] as Stop;
    return s.isReversible ? Math.min(distance(at, s.entry), distance(at, s.exit)) : distance(at, s.entry);
  }

  private renumber(from: number, to: number): void {
    for (let i = from; i <= to; i++) this.place[this.order[i] as number] = i;
  }

  /** Tries a stop beside each of its neighbours; what was gained, mm. */
  improve(k: number, near: readonly number[]): number {
    let gained = 0;
    for (const j of near) gained += this.moved(k, j) + this.turned(k, j);
    return gained;
  }

  /** Turns round the part that begins after one of two stops and ends at the other, so that they become neighbours. */
  private turned(k: number, j: number): number {
    const [p, q] = [this.place[k] as number, this.place[j] as number];
    const [i, e] = p < q ? [p + 1, q] : [q + 1, p];
    if (e <= i) return 0;
    const before = this.leg(i - 1, i) + this.leg(e, e + 1);
    const last = this.order[e] as number;
    const first = this.order[i] as number;
    const entered = i > 0 ? this.exit(this.order[i - 1] as number) : this.home;
    const turnedIn = (n: number): Point => ((this.stops[n] as Stop).isReversible ? this.exit(n) : this.entry(n));
    const turnedOut = (n: number): Point => ((this.stops[n] as Stop).isReversible ? this.entry(n) : this.exit(n));
    const after =
      distance(entered, turnedIn(last)) +
      (e + 1 < this.order.length ? distance(turnedOut(first), this.entry(this.order[e + 1] as number)) : 0);
    let gain = before - after;
    if (gain < 1e-6 && this.isSymmetric) return 0;
    if (!this.mayTurn(i, e)) return 0;
    if (!this.isSymmetric) gain += this.innerGain(i, e, turnedIn, turnedOut);
    if (gain < 1e-6) return 0;
    const part = this.order.slice(i, e + 1).reverse();
    for (const n of part) if ((this.stops[n] as Stop).isReversible) this.isReversed[n] = !this.isReversed[n];
    this.order.splice(i, part.length, ...part);
    this.renumber(i, e);
    return gain;
  }

  private innerGain(i: number, e: number, turnedIn: (n: number) => Point, turnedOut: (n: number) => Point): number {
    let gain = 0;
    for (let m = i; m < e; m++) {
      const [a, b] = [this.order[m] as number, this.order[m + 1] as number];
      gain += this.leg(m, m + 1) - distance(turnedOut(b), turnedIn(a));
    }
    return gain;
  }

  /** Whether no stop in a part waits for another of that part. */
  private mayTurn(i: number, e: number): boolean {
    for (let m = i; m <= e; m++) {
      const { before } = this.stops[this.order[m] as number] as Stop;
      if (before !== null && (this.place[before] as number) <= e) return false;
    }
    return true;
  }

  /** Moves a run of one to three stops that begins at one of two to just after, or before, the other. */
  private moved(k: number, j: number): number {
    for (const length of [1, 2, 3]) {
      const i = this.place[k] as number;
      const e = i + length - 1;
      const target = this.place[j] as number;
      if (e >= this.order.length || (target >= i && target <= e)) continue;
      for (const after of [target, target - 1]) {
        if (after >= i - 1 && after <= e) continue;
        const gain = this.moveGain(i, e, after);
        if (gain > 1e-6 && this.mayMove(i, e, after)) {
          this.move(i, e, after);
          return gain;
        }
      }
    }
    return 0;
  }

  private moveGain(i: number, e: number, after: number): number {
    const taken = this.leg(i - 1, i) + this.leg(e, e + 1) - this.leg(i - 1, e + 1);
    const [first, last] = [this.order[i] as number, this.order[e] as number];
    const from = after < 0 ? this.home : this.exit(this.order[after] as number);
    const next = after + 1 < this.order.length ? this.entry(this.order[after + 1] as number) : null;
    return taken + this.leg(after, after + 1) - distance(from, this.entry(first)) - (next ? distance(this.exit(last), next) : 0);
  }

  private mayMove(i: number, e: number, after: number): boolean {
    for (let m = i; m <= e; m++) {
      const n = this.order[m] as number;
      const { before } = this.stops[n] as Stop;
      if (after > e) {
        const waits = before !== null ? (this.place[before] as number) : Infinity;
        if (waits <= after && waits > e) return false;
      } else {
        for (const child of this.waiting[n] as number[]) {
          const at = this.place[child] as number;
          if (at > after && at < i) return false;
        }
      }
    }
    return true;
  }

  private move(i: number, e: number, after: number): void {
    const part = this.order.splice(i, e - i + 1);
    const at = after > e ? after - part.length + 1 : after + 1;
    this.order.splice(at, 0, ...part);
    this.renumber(Math.min(i, at), Math.max(e, after));
  }

  /** Turns single stops round where that is shorter. */
  flip(): number {
    let gained = 0;
    this.order.forEach((k, i) => {
      if (!(this.stops[k] as Stop).isReversible) return;
      const before = this.leg(i - 1, i) + this.leg(i, i + 1);
      this.isReversed[k] = !this.isReversed[k];
      const after = this.leg(i - 1, i) + this.leg(i, i + 1);
      if (after < before - 1e-9) gained += before - after;
      else this.isReversed[k] = !this.isReversed[k];
    });
    return gained;
  }
}

/** About as many cells as stops. */
function cellOf(stops: readonly Stop[]): number {
  const xs = stops.map((s) => s.entry.x);
  const ys = stops.map((s) => s.entry.y);
  const span = (v: number[]): number => v.reduce((a, b) => Math.max(a, b), -Infinity) - v.reduce((a, b) => Math.min(a, b), Infinity);
  return Math.max(1e-3, Math.sqrt((Math.max(span(xs), 1e-3) * Math.max(span(ys), 1e-3)) / Math.max(1, stops.length)));
}

/** Cells so many steps away, the ring round them. */
function* ringOf(ring: number): Generator<readonly [number, number]> {
  for (let dx = -ring; dx <= ring; dx++) {
    const isSide = Math.abs(dx) === ring;
    for (let dy = -ring; dy <= ring; dy += isSide || ring === 0 ? 1 : 2 * ring) yield [dx, dy];
  }
}
