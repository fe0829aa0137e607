/**
 * In: moves, as they come, and the time that passes. Out: where the head is and what it has burnt. The head speeds up and slows
 * down evenly and takes corners as slowly as they ask for, looking as far ahead as moves are queued.
 */
import { directionAt, type Move, moveLength, type Place, placeOn } from './interpreter.ts';

export interface MachineFacts {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly travelMmPerMin: number;
  readonly accelerationMmPerS2: number;
}

/** A stretch burnt without a break: places on the sheet, and the line of the program that it began on. */
export interface Burn {
  readonly line: number;
  readonly points: Place[];
}

/** How far a corner may be rounded in thought when its speed is reckoned, mm. */
const roundingMm = 0.02;
/** Burnt arcs are kept as places whose chords leave them by at most this, mm. */
const chordMm = 0.0005;
/** Moves looked ahead over. */
export const queueLength = 40;

export class Machine {
  private readonly queue: Move[] = [];
  private speed = 0;
  private along = 0;
  /** How far the move under way has left places behind, 0 to 1, and whether the last place moves with the head. */
  private marked = 0;
  private isMoving = false;
  at: Place = { x: 0, y: 0 };
  readonly burns: Burn[] = [];
  /** The program's line that is under way. */
  line = 0;

  constructor(readonly facts: MachineFacts) {}

  get isIdle(): boolean {
    return this.queue.length === 0;
  }

  get hasRoom(): boolean {
    return this.queue.length < queueLength;
  }

  /** Why a move cannot be made; null where it can. The head may only go where the sheet is. */
  refusal(move: Move): string | null {
    const { widthMm, heightMm } = this.facts;
    const beyond = Array.from({ length: 9 }, (_, k) => placeOn(move, k / 8)).find(
      ({ x, y }) => x < -0.001 || y < -0.001 || x > widthMm + 0.001 || y > heightMm + 0.001,
    );
    return beyond ? `it leads to ${beyond.x.toFixed(2)}, ${beyond.y.toFixed(2)} mm, off the bed of ${widthMm} x ${heightMm} mm` : null;
  }

  take(move: Move): void {
    if (moveLength(move) > 0) this.queue.push(move);
  }

  /** Stands still where it is; what was queued is forgotten. */
  halt(): void {
    this.queue.length = 0;
    [this.speed, this.along, this.marked, this.isMoving] = [0, 0, 0, false];
  }

  /** Lets time pass, in seconds. */
  pass(seconds: number): void {
    let left = seconds;
    while (left > 1e-9 && this.queue.length > 0) left -= this.step(left);
  }

  /** Slows down to a stand while time passes; whether it stands. */
  slow(seconds: number): boolean {
    const a = this.facts.accelerationMmPerS2;
    let left = seconds;
    while (left > 1e-9 && this.speed > 1e-6 && this.queue.length > 0) {
      const dt = Math.min(left, 0.002);
      this.advance(Math.max(0, this.speed * dt - (a * dt * dt) / 2));
      this.speed = Math.max(0, this.speed - a * dt);
      left -= dt;
    }
    return this.speed <= 1e-6 || this.queue.length === 0;
  }

  private top(move: Move): number {
    return (move.feedMmPerMin === null ? this.facts.travelMmPerMin : Math.min(move.feedMmPerMin, this.facts.travelMmPerMin)) / 60;
  }

  /** The speed that the head may have at the end of the first move, so that it can still stop by the last one's end. */
  private exitSpeed(): number {
    const a = this.facts.accelerationMmPerS2;
    let speed = 0;
    for (let k = this.queue.length - 1; k > 0; k--) {
      const [move, before] = [this.queue[k] as Move, this.queue[k - 1] as Move];
      const reach = Math.sqrt(speed * speed + 2 * a * moveLength(move));
      speed = Math.min(reach, this.top(move), this.top(before), this.cornerSpeed(before, move));
    }
    return speed;
  }

  private cornerSpeed(before: Move, after: Move): number {
    // Between moves with the tool on and off the head stands.
    if (before.burns !== after.burns && (before.feedMmPerMin === null || after.feedMmPerMin === null)) return 0;
    const [d, e] = [directionAt(before, 1), directionAt(after, 0)];
    const sine = Math.sqrt(Math.max(0, (1 + d.x * e.x + d.y * e.y) / 2));
    if (sine > 1 - 1e-9) return Infinity;
    return Math.sqrt((this.facts.accelerationMmPerS2 * roundingMm * sine) / (1 - sine));
  }

  /** One small step of time, at most a thousandth of a second of motion; how much was used. */
  private step(most: number): number {
    const move = this.queue[0] as Move;
    const a = this.facts.accelerationMmPerS2;
    const left = moveLength(move) - this.along;
    const exit = this.exitSpeed();
    const dt = Math.min(most, 0.001);
    // The fastest from which it can still come down to the exit's speed.
    const limit = Math.min(this.top(move), Math.sqrt(exit * exit + 2 * a * left));
    const next = Math.min(limit, this.speed + a * dt);
    const moved = Math.max(1e-7, ((this.speed + next) / 2) * dt);
    this.speed = next;
    if (moved >= left) {
      this.finish(move);
      this.speed = Math.min(this.speed, Math.max(exit, 0));
      return moved > 0 ? (dt * left) / moved : dt;
    }
    this.advance(moved);
    return dt;
  }

  private advance(by: number): void {
    const move = this.queue[0] as Move;
    const length = moveLength(move);
    this.along = Math.min(length, this.along + by);
    this.line = move.line;
    if (this.along >= length) this.finish(move);
    else {
      this.mark(move, this.along / length);
      this.at = placeOn(move, this.along / length);
    }
  }

  private finish(move: Move): void {
    this.mark(move, 1);
    this.at = move.to;
    this.line = move.line;
    this.queue.shift();
    [this.along, this.marked, this.isMoving] = [0, 0, false];
  }

  /**
   * Keeps what is burnt up to a place on the move under way. The last place is where the head is now and moves along with it;
   * arcs leave places behind, near enough for their chords.
   */
  private mark(move: Move, t: number): void {
    if (!move.burns) return;
    const last = this.burns.at(-1);
    const start = placeOn(move, this.marked);
    const end = last?.points.at(this.isMoving ? -2 : -1);
    const goesOn = end !== undefined && Math.hypot(end.x - start.x, end.y - start.y) < 1e-6;
    const burn = goesOn && last ? last : { line: move.line, points: [start] };
    if (burn !== last) this.burns.push(burn);
    else if (this.isMoving) burn.points.pop();
    const { arc } = move;
    const widest = arc ? (2 * Math.acos(Math.max(-1, 1 - chordMm / arc.radius))) / Math.abs(arc.sweep) : 1;
    while (t - this.marked > widest) {
      this.marked += widest;
      burn.points.push(placeOn(move, this.marked));
    }
    burn.points.push(placeOn(move, t));
    this.isMoving = t < 1;
    if (!this.isMoving) this.marked = 1;
  }
}
