/**
 * In: a block. Out: the order in which it is sewn: units joined two by two along seams that run right across both, or what has to be
 * set in where no such order exists.
 * A region is sewn along a seam that divides it in two from border to border. Whatever is cut along one such seam keeps the others,
 * since a seam right across a region lies right across each of its parts that it meets: so any seam may come last, and where none is
 * found, no order exists.
 */
import { distance, type Point } from '../plane/index.ts';
import { segmentLength } from '../plane/segment.ts';
import type { PlanarMap } from '../shape/index.ts';
import { edgesAt, seamLines } from './seam-lines.ts';

export interface Seam {
  readonly edges: readonly number[];
  readonly lengthMm: number;
  readonly isStraight: boolean;
}

/** A part of the block as it is sewn. */
export interface Unit {
  readonly faces: readonly number[];
  /** Of two units sewn along a seam; of patches that must be set in there are more, and no seam right across. */
  readonly parts: readonly Unit[];
  readonly seam: Seam | null;
}

/** Seams of a block by how they are sewn. */
export interface SeamKinds {
  readonly straight: number;
  readonly curved: number;
  /** Seams inside of regions that no seam divides. */
  readonly setIn: number;
}

/** The last seam is sewn at the root. */
export function piecingOrder(map: PlanarMap): Unit {
  const finder = new SeamFinder(map);
  const unitOf = (faces: readonly number[]): Unit => {
    if (faces.length === 1) return { faces, parts: [], seam: null };
    const choices = finder.seamsAcross(faces);
    const [best] = choices.sort((a, b) => b.worth - a.worth);
    if (!best) return { faces, parts: faces.map((face) => ({ faces: [face], parts: [], seam: null })), seam: null };
    return { faces, parts: [unitOf(best.one), unitOf(best.other)], seam: best.seam };
  };
  return unitOf(map.faces.map((_, k) => k));
}

/** All units of a tree, those sewn first before what they are parts of. */
export const unitsOf = (root: Unit): Unit[] => [...root.parts.flatMap(unitsOf), root];

/** Whether it can only be sewn by setting patches in. */
export const isSetIn = ({ parts, seam }: Unit): boolean => parts.length > 0 && seam === null;

export function seamKinds(map: PlanarMap, root: Unit): SeamKinds {
  const units = unitsOf(root);
  const seams = units.flatMap(({ seam }) => (seam ? [seam] : []));
  const setIn = units.filter(isSetIn).reduce((sum, { faces }) => {
    const own = new Set(faces);
    const inner = new Set(map.edges.flatMap(({ left, right }, k) => (own.has(left) && own.has(right) ? [k] : [])));
    return sum + seamLines(map).reduce((count, { edges }) => count + runsOf(edges, inner), 0);
  }, 0);
  return {
    straight: seams.filter(({ isStraight }) => isStraight).length,
    curved: seams.filter(({ isStraight }) => !isStraight).length,
    setIn,
  };
}

/** How often a line enters a set of its edges. */
const runsOf = (edges: readonly number[], own: ReadonlySet<number>): number =>
  edges.filter((edge, k) => own.has(edge) && !(k > 0 && own.has(edges[k - 1] as number))).length;

interface Division {
  readonly one: readonly number[];
  readonly other: readonly number[];
  readonly seam: Seam;
  /** How well it is sewn last: long, and between parts about as large. */
  readonly worth: number;
}

/** Finds the seams that divide regions of a map. */
export class SeamFinder {
  private readonly lines;
  private readonly around: readonly (readonly number[])[];
  private readonly lengths: readonly number[];

  constructor(private readonly map: PlanarMap) {
    this.lines = seamLines(map);
    this.around = edgesAt(map);
    this.lengths = map.edges.map(({ from, segment }) => segmentLength(map.nodes[from] as Point, segment));
  }

  /** Every stretch of a seam line that runs from border to border of a region and divides it in two. */
  seamsAcross(faces: readonly number[]): Division[] {
    const own = new Set(faces);
    const { edges } = this.map;
    const isInner = (k: number): boolean => own.has(edges[k]?.left as number) && own.has(edges[k]?.right as number);
    const isBorder = (k: number): boolean => own.has(edges[k]?.left as number) !== own.has(edges[k]?.right as number);
    const isOnBorder = (node: number): boolean => (this.around[node] ?? []).some(isBorder);
    return this.lines.flatMap((line) => {
      const runs: number[][] = [];
      line.edges.forEach((edge, k) => {
        if (!isInner(edge)) return;
        const goesOn = k > 0 && isInner(line.edges[k - 1] as number) && !isOnBorder(line.nodes[k] as number);
        if (goesOn) runs.at(-1)?.push(k);
        else runs.push([k]);
      });
      return runs.flatMap((run): Division[] => {
        const [first, last] = [run[0] as number, run.at(-1) as number];
        if (!isOnBorder(line.nodes[first] as number) || !isOnBorder(line.nodes[last + 1] as number)) return [];
        const cut = run.map((k) => line.edges[k] as number);
        const parts = this.partsWithout(faces, own, new Set(cut));
        if (parts.length !== 2) return [];
        const [one, other] = parts as [number[], number[]];
        const seam = this.seamOf(cut, line.nodes[first] as number, line.nodes[last + 1] as number);
        return [{ one, other, seam, worth: seam.lengthMm * (0.3 + Math.min(one.length, other.length) / faces.length) }];
      });
    });
  }

  private seamOf(edges: readonly number[], from: number, to: number): Seam {
    const lengthMm = edges.reduce((sum, k) => sum + (this.lengths[k] as number), 0);
    const { nodes } = this.map;
    return { edges, lengthMm, isStraight: lengthMm - distance(nodes[from] as Point, nodes[to] as Point) < 1e-4 * lengthMm };
  }

  /** What hangs together of a region when some edges are cut. */
  private partsWithout(faces: readonly number[], own: ReadonlySet<number>, cut: ReadonlySet<number>): number[][] {
    const { edges } = this.map;
    const left = new Set(faces);
    const parts: number[][] = [];
    for (const first of faces) {
      if (!left.delete(first)) continue;
      const part = [first];
      for (let k = 0; k < part.length; k++)
        for (const { edge, isForward } of this.map.faces[part[k] as number]?.sides ?? []) {
          if (cut.has(edge)) continue;
          const next = (isForward ? edges[edge]?.right : edges[edge]?.left) as number;
          if (own.has(next) && left.delete(next)) part.push(next);
        }
      parts.push(part);
    }
    return parts;
  }
}
