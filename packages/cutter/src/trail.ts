/** What a machine has cut, seen from above, as stretches without a break; the last place moves along with the tool. */

interface Seen {
  readonly x: number;
  readonly y: number;
}

export interface Stretch {
  /** Of the program, where it began. */
  readonly line: number;
  readonly points: Seen[];
}

export class Trail {
  readonly stretches: Stretch[] = [];
  /** How far the move under way has left places behind, 0 to 1, and whether the last place moves with the tool. */
  private marked = 0;
  private isMoving = false;

  /**
   * Keeps what is cut up to a share of the move under way.
   * @param widest of an arc, the share after which a place is left behind, so that chords are near enough; 1 for a line
   */
  mark(line: number, placeOn: (t: number) => Seen, widest: number, t: number): void {
    const last = this.stretches.at(-1);
    const start = placeOn(this.marked);
    const end = last?.points.at(this.isMoving ? -2 : -1);
    const goesOn = end !== undefined && Math.hypot(end.x - start.x, end.y - start.y) < 1e-6;
    const stretch = goesOn && last ? last : { line, points: [start] };
    if (stretch !== last) this.stretches.push(stretch);
    else if (this.isMoving) stretch.points.pop();
    while (t - this.marked > widest) {
      this.marked += widest;
      stretch.points.push(placeOn(this.marked));
    }
    stretch.points.push(placeOn(t));
    this.isMoving = t < 1;
    if (!this.isMoving) this.marked = 1;
  }

  /** The move under way is over. */
  next(): void {
    [this.marked, this.isMoving] = [0, false];
  }
}

/** After which share of an arc a chord leaves it by `chordMm`. */
export const widestChord = (radius: number, sweep: number, chordMm: number): number =>
  (2 * Math.acos(Math.max(-1, 1 - chordMm / Math.max(radius, chordMm)))) / Math.abs(sweep);
