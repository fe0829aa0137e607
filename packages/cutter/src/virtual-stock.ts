/**
 * Stock that a mill has worked on, as columns of a grid, and what it lost: by its own reckoning, place after place along each move, apart
 * from the application's simulation.
 */
import { type MillingMove, millingMoveLength, millingPlaceOn } from './milling-interpreter.ts';

/** A tool from the side: how high its edge stands at a distance from its axis, mm; not a number beyond it. */
export type EdgeHeight = (fromAxisMm: number) => number;

export class VirtualStock {
  readonly columns: number;
  readonly rows: number;
  /** Heights row by row, mm below the top as it came. */
  readonly tops: Float64Array;

  constructor(
    readonly widthMm: number,
    readonly heightMm: number,
    readonly cellMm: number,
  ) {
    [this.columns, this.rows] = [Math.round(widthMm / cellMm), Math.round(heightMm / cellMm)];
    this.tops = new Float64Array(this.columns * this.rows);
  }

  /** Takes off what a tool passes through, looked at every so often along the move. */
  mill(move: MillingMove, edge: EdgeHeight, radiusMm: number, stepMm = this.cellMm / 2): void {
    const count = Math.max(1, Math.ceil(millingMoveLength(move) / stepMm));
    for (let k = 0; k <= count; k++) {
      const [x, y, z] = millingPlaceOn(move, k / count);
      this.plunge(x, y, z, edge, radiusMm);
    }
  }

  /** Takes off what a tool is in at a place; how much that was, cubic mm. */
  plunge(x: number, y: number, z: number, edge: EdgeHeight, radiusMm: number): number {
    let gone = 0;
    if (z >= 0) return 0;
    this.under(x, y, radiusMm, (at, away) => {
      const height = z + edge(away);
      const top = this.tops[at] as number;
      if (!(height < top)) return;
      this.tops[at] = height;
      gone += top - height;
    });
    return gone * this.cellMm ** 2;
  }

  /** How low a tool comes at a place until it touches; minus infinity beside the stock. */
  touchedAt(x: number, y: number, edge: EdgeHeight, radiusMm: number): number {
    let highest = -Infinity;
    this.under(x, y, radiusMm, (at, away) => {
      highest = Math.max(highest, (this.tops[at] as number) - edge(away));
    });
    return highest;
  }

  private under(x: number, y: number, radiusMm: number, visit: (at: number, awayMm: number) => void): void {
    const [left, right] = [Math.floor((x - radiusMm) / this.cellMm), Math.ceil((x + radiusMm) / this.cellMm)];
    const [low, high] = [Math.floor((y - radiusMm) / this.cellMm), Math.ceil((y + radiusMm) / this.cellMm)];
    for (let r = Math.max(0, low); r <= Math.min(this.rows - 1, high); r++)
      for (let c = Math.max(0, left); c <= Math.min(this.columns - 1, right); c++) {
        const [dx, dy] = [(c + 0.5) * this.cellMm - x, (r + 0.5) * this.cellMm - y];
        const square = dx * dx + dy * dy;
        if (square <= radiusMm * radiusMm) visit(r * this.columns + c, Math.sqrt(square));
      }
  }

  /** The height over a place, mm below the top as it came. */
  at(x: number, y: number): number {
    const [c, r] = [Math.floor(x / this.cellMm), Math.floor(y / this.cellMm)];
    return c < 0 || r < 0 || c >= this.columns || r >= this.rows ? Number.NaN : (this.tops[r * this.columns + c] as number);
  }
}
