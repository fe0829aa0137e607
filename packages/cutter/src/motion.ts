/**
 * In: moves, as they come, and the time that passes. Out: how far along which move a machine is: it speeds up and slows down evenly and
 * takes corners as slowly as they ask for, looking as far ahead as moves are queued.
 */

/** How a machine's moves are gone along; lengths in mm, speeds in mm a second. */
export interface MotionRules<M> {
  readonly accelerationMmPerS2: number;
  length(move: M): number;
  top(move: M): number;
  /** The speed from one move into the next. */
  cornerSpeed(before: M, after: M): number;
  /** The machine has come to a share of a move, 0 to 1. */
  reached(move: M, t: number): void;
}

/** How far a corner may be rounded in thought when its speed is reckoned, mm. */
const roundingMm = 0.02;
/** Moves looked ahead over. */
export const queueLength = 40;

/** The speed round a corner, mm a second, from the cosine between its directions. */
export function speedRound(cosine: number, accelerationMmPerS2: number): number {
  const sine = Math.sqrt(Math.max(0, (1 + cosine) / 2));
  return sine > 1 - 1e-9 ? Infinity : Math.sqrt((accelerationMmPerS2 * roundingMm * sine) / (1 - sine));
}

export class Motion<M> {
  private readonly queue: M[] = [];
  private speed = 0;
  private along = 0;
  /** The speed at the end of the first move, as it is worked out once; null where moves or speeds have changed since. */
  private exit: number | null = null;

  constructor(private readonly rules: MotionRules<M>) {}

  get isIdle(): boolean {
    return this.queue.length === 0;
  }

  get hasRoom(): boolean {
    return this.queue.length < queueLength;
  }

  take(move: M): void {
    if (this.rules.length(move) <= 0) return;
    this.queue.push(move);
    this.exit = null;
  }

  /** Stands still where it is; what was queued is forgotten. */
  halt(): void {
    this.queue.length = 0;
    [this.speed, this.along, this.exit] = [0, 0, null];
  }

  /** Speeds are no longer what they were. */
  speedsChanged(): void {
    this.exit = null;
  }

  /** Lets time pass, in seconds. */
  pass(seconds: number): void {
    let left = seconds;
    while (left > 1e-9 && this.queue.length > 0) left -= this.step(left);
  }

  /** Slows down to a stand while time passes; whether it stands. */
  slow(seconds: number): boolean {
    const a = this.rules.accelerationMmPerS2;
    let left = seconds;
    while (left > 1e-9 && this.speed > 1e-6 && this.queue.length > 0) {
      const dt = Math.min(left, 0.002);
      this.advance(Math.max(0, this.speed * dt - (a * dt * dt) / 2));
      this.speed = Math.max(0, this.speed - a * dt);
      left -= dt;
    }
    return this.speed <= 1e-6 || this.queue.length === 0;
  }

  /** The speed that the machine may have at the end of the first move, so that it can still stop by the last one's end. */
  private exitSpeed(): number {
    const { accelerationMmPerS2: a } = this.rules;
    let speed = 0;
    for (let k = this.queue.length - 1; k > 0; k--) {
      const [move, before] = [this.queue[k] as M, this.queue[k - 1] as M];
      const reach = Math.sqrt(speed * speed + 2 * a * this.rules.length(move));
      speed = Math.min(reach, this.rules.top(move), this.rules.top(before), this.rules.cornerSpeed(before, move));
    }
    return speed;
  }

  /** One small step of time, at most a thousandth of a second of motion; how much was used. */
  private step(max: number): number {
    const move = this.queue[0] as M;
    const { accelerationMmPerS2: a } = this.rules;
    const left = this.rules.length(move) - this.along;
    this.exit ??= this.exitSpeed();
    const { exit } = this;
    const dt = Math.min(max, 0.001);
    // The fastest from which it can still come down to the exit's speed.
    const limit = Math.min(this.rules.top(move), Math.sqrt(exit * exit + 2 * a * left));
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
    const move = this.queue[0] as M;
    const length = this.rules.length(move);
    this.along = Math.min(length, this.along + by);
    if (this.along >= length) this.finish(move);
    else this.rules.reached(move, this.along / length);
  }

  private finish(move: M): void {
    this.queue.shift();
    [this.along, this.exit] = [0, null];
    this.rules.reached(move, 1);
  }
}
