/**
 * In: a closed mesh and a height. Out: its section there, as closed contours with the solid on their left: for every triangle that the plane cuts
 * an edge from where it is entered to where it is left, linked by the mesh's own edges, so that a closed mesh has closed contours.
 */
import type { Point } from '../plane/index.ts';
import type { Mesh } from './mesh.ts';

export type Contour = readonly Point[];

/** For many heights of one mesh: triangles are sorted by where they begin. */
export class Slicer {
  private readonly order: Uint32Array;
  private readonly lows: Float64Array;
  private readonly tallest: number;

  constructor(private readonly mesh: Mesh) {
    const count = mesh.triangles.length / 3;
    const low = Float64Array.from({ length: count }, (_, t) => Math.min(this.z(3 * t), this.z(3 * t + 1), this.z(3 * t + 2)));
    this.order = Uint32Array.from({ length: count }, (_, t) => t).sort((a, b) => (low[a] as number) - (low[b] as number));
    this.lows = Float64Array.from(this.order, (t) => low[t] as number);
    let tallest = 0;
    for (let t = 0; t < count; t++)
      tallest = Math.max(tallest, Math.max(this.z(3 * t), this.z(3 * t + 1), this.z(3 * t + 2)) - (low[t] as number));
    this.tallest = tallest;
  }

  /** A corner just at the height counts as above it. */
  at(height: number): Contour[] {
    const next = new Map<string, { to: string; at: Point }>();
    for (let k = this.firstFrom(height - this.tallest - 1e-9); k < this.order.length && (this.lows[k] as number) < height; k++) {
      const cut = this.cut(3 * (this.order[k] as number), height);
      if (cut) next.set(cut.from, cut);
    }
    const contours: Point[][] = [];
    for (const [start] of next) {
      const contour: Point[] = [];
      for (let key = start, one = next.get(key); one; key = one.to, one = next.get(key)) {
        contour.push(one.at);
        next.delete(key);
      }
      if (contour.length > 2) contours.push(contour);
    }
    return contours;
  }

  private z(corner: number): number {
    return this.mesh.positions[3 * (this.mesh.triangles[corner] as number) + 2] as number;
  }

  private firstFrom(low: number): number {
    let [from, to] = [0, this.lows.length];
    while (from < to) {
      const middle = (from + to) >> 1;
      if ((this.lows[middle] as number) < low) from = middle + 1;
      else to = middle;
    }
    return from;
  }

  /** From the edge that goes up through the height to the one that comes down, so that the solid is on the left. */
  private cut(first: number, height: number): { from: string; to: string; at: Point } | null {
    let [up, down] = [null as [number, number] | null, null as [number, number] | null];
    for (let j = 0; j < 3; j++) {
      const [a, b] = [first + j, first + ((j + 1) % 3)];
      const [isAbove, willBe] = [this.z(a) >= height, this.z(b) >= height];
      if (!isAbove && willBe) up = [a, b];
      else if (isAbove && !willBe) down = [a, b];
    }
    if (!up || !down) return null;
    return { from: this.keyOf(down), to: this.keyOf(up), at: this.placeOn(down, height) };
  }

  private keyOf([a, b]: readonly [number, number]): string {
    const [p, q] = [this.mesh.triangles[a] as number, this.mesh.triangles[b] as number];
    return p < q ? `${p} ${q}` : `${q} ${p}`;
  }

  /** The same place from both triangles of an edge. */
  private placeOn([a, b]: readonly [number, number], height: number): Point {
    const [p, q] = [this.mesh.triangles[a] as number, this.mesh.triangles[b] as number].sort((m, n) => m - n) as [number, number];
    const of = (vertex: number, axis: number): number => this.mesh.positions[3 * vertex + axis] as number;
    const t = (height - of(p, 2)) / (of(q, 2) - of(p, 2));
    return { x: of(p, 0) + t * (of(q, 0) - of(p, 0)), y: of(p, 1) + t * (of(q, 1) - of(p, 1)) };
  }
}

/** Counter-clockwise contours count, clockwise ones are taken off, mm². */
export const contourArea = (contour: Contour): number =>
  contour.reduce((sum, p, k) => {
    const q = contour[(k + 1) % contour.length] as Point;
    return sum + (p.x * q.y - q.x * p.y) / 2;
  }, 0);

export const sectionArea = (contours: readonly Contour[]): number => contours.reduce((sum, contour) => sum + contourArea(contour), 0);
