/** In: depth fields about parts on a sheet, each with a weight. Out: where another part overlaps them least, of all places on the sheet's grid. */
import type { Point } from '../plane/index.ts';
import type { DepthField } from './depth-field.ts';

/** One grid after another in the same memory. */
export class FieldSums {
  private sums = new Float32Array(0);
  private columns = 0;
  private rows = 0;
  private x = 0;
  private y = 0;
  private cellMm = 1;

  /** A grid of places from one on, so far across and up; its nodes are spread by chance between both edges. */
  over(fromX: number, fromY: number, wideMm: number, highMm: number, cellMm: number, random: () => number): this {
    this.columns = Math.floor(wideMm / cellMm) + 1;
    this.rows = Math.floor(highMm / cellMm) + 1;
    this.x = fromX + (wideMm % cellMm) * random();
    this.y = fromY + (highMm % cellMm) * random();
    this.cellMm = cellMm;
    const count = this.columns * this.rows;
    if (this.sums.length < count) this.sums = new Float32Array(2 * count);
    else this.sums.fill(0, 0, count);
    return this;
  }

  /** Adds the field about a part as if its nodes lay on the nearest of the grid's. */
  add(field: DepthField, at: Point, weight: number): void {
    const { sums, columns, rows, cellMm } = this;
    // Whole numbers for certain: this is where the time goes.
    const x = Math.round((at.x + field.x - this.x) / cellMm) | 0;
    const y = Math.round((at.y + field.y - this.y) / cellMm) | 0;
    const { costs } = field;
    const wide = field.columns | 0;
    const fromX = Math.max(0, -x) | 0;
    const count = (Math.min(wide, columns - x) - fromX) | 0;
    const toY = Math.min(field.rows, rows - y) | 0;
    for (let l = Math.max(0, -y) | 0; l < toY; l = (l + 1) | 0) {
      const into = ((l + y) * columns + x + fromX) | 0;
      const from = (l * wide + fromX) | 0;
      for (let m = 0; m < count; m = (m + 1) | 0) sums[(into + m) | 0] = (sums[(into + m) | 0] as number) + weight * (costs[(from + m) | 0] as number); // biome-ignore format: one line
    }
  }

  /** The place of the least sum, by chance where there are several. */
  least(random: () => number): Point {
    const { sums } = this;
    const count = this.columns * this.rows;
    const from = Math.floor(count * random());
    let [least, at] = [Infinity, 0];
    for (let m = 0; m < count; m++) {
      const k = m + from < count ? m + from : m + from - count;
      if ((sums[k] as number) >= least) continue;
      least = sums[k] as number;
      at = k;
    }
    return { x: this.x + (at % this.columns) * this.cellMm, y: this.y + Math.floor(at / this.columns) * this.cellMm };
  }
}
