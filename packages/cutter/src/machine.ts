/**
 * In: moves of a flat cutter, as they come, and the time that passes. Out: where the head is and what it has burnt.
 */
import { directionAt, type Move, moveLength, type Place, placeOn } from './interpreter.ts';
import { Motion, speedRound } from './motion.ts';
import { type Stretch, Trail, widestChord } from './trail.ts';

export interface MachineFacts {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly travelMmPerMin: number;
  readonly accelerationMmPerS2: number;
}

/** Burnt arcs are kept as places whose chords leave them by at most this, mm. */
const chordMm = 0.0005;

export class Machine {
  private readonly motion: Motion<Move>;
  private readonly trail = new Trail();
  at: Place = { x: 0, y: 0 };
  /** The program's line that is under way. */
  line = 0;

  constructor(readonly facts: MachineFacts) {
    const { travelMmPerMin, accelerationMmPerS2 } = facts;
    this.motion = new Motion<Move>({
      accelerationMmPerS2,
      length: moveLength,
      top: ({ feedMmPerMin }) => Math.min(feedMmPerMin ?? travelMmPerMin, travelMmPerMin) / 60,
      cornerSpeed(before, after) {
        // Between moves with the tool on and off the head stands.
        if (before.burns !== after.burns && (before.feedMmPerMin === null || after.feedMmPerMin === null)) return 0;
        const [d, e] = [directionAt(before, 1), directionAt(after, 0)];
        return speedRound(d.x * e.x + d.y * e.y, accelerationMmPerS2);
      },
      reached: (move, t) => this.reached(move, t),
    });
  }

  /** What it has burnt. */
  get burns(): readonly Stretch[] {
    return this.trail.stretches;
  }

  get isIdle(): boolean {
    return this.motion.isIdle;
  }

  get hasRoom(): boolean {
    return this.motion.hasRoom;
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
    this.motion.take(move);
  }

  /** Stands still where it is; what was queued is forgotten. */
  halt(): void {
    this.motion.halt();
    this.trail.next();
  }

  /** Lets time pass, in seconds. */
  pass(seconds: number): void {
    this.motion.pass(seconds);
  }

  /** Slows down to a stand while time passes; whether it stands. */
  slow(seconds: number): boolean {
    return this.motion.slow(seconds);
  }

  private reached(move: Move, t: number): void {
    this.line = move.line;
    if (move.burns) {
      const { arc } = move;
      this.trail.mark(move.line, (share) => placeOn(move, share), arc ? widestChord(arc.radius, arc.sweep, chordMm) : 1, t);
    }
    this.at = t < 1 ? placeOn(move, t) : move.to;
    if (t >= 1) this.trail.next();
  }
}
