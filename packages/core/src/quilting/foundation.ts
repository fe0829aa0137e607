/**
 * In: a block. Out: the sections that it is pieced in on foundations, each with the order of its patches, or the patches that no
 * foundation can hold.
 * A section can be pieced where every next patch joins all that is sewn so far along one straight line right across: read backwards, the
 * last patch can be taken off along one line, then the one before it. A patch that can be taken off stays so when others are, since of
 * the line that it lies along only less is left; so taking off any that can be finds an order wherever there is one.
 * Sections are cut apart along seams right across the block, as few as there are.
 */
import { distance, type Point, subtract, unitVector } from '../plane/index.ts';
import type { PlanarMap } from '../shape/index.ts';
import { SeamFinder } from './piecing.ts';

export interface Section {
  /** Faces in the order that they are sewn in. */
  readonly order: readonly number[];
}

export interface Foundations {
  readonly sections: readonly Section[];
  /** Faces of regions that no seam right across divides and no order pieces: they must be set in. Empty where all can be pieced. */
  readonly setIn: readonly (readonly number[])[];
}

/** Patches of regions that are looked at, in all, before the search takes the first way that it finds. */
const mostLookedAt = 12_000;

export function foundationsOf(map: PlanarMap): Foundations {
  const finder = new SeamFinder(map);
  const orders = new PieceOrders(map);
  const known = new Map<string, Foundations>();
  let lookedAt = 0;
  const best = (faces: readonly number[]): Foundations => {
    const key = [...faces].sort((a, b) => a - b).join(' ');
    const before = known.get(key);
    if (before) return before;
    lookedAt += faces.length;
    const order = orders.orderOf(faces);
    let found: Foundations | null = order ? { sections: [{ order }], setIn: [] } : null;
    if (!found) {
      const cuts = finder.seamsAcross(faces).sort((a, b) => b.worth - a.worth);
      for (const { one, other } of cuts) {
        const both = together(best(one), best(other));
        if (!found || costOf(both) < costOf(found)) found = both;
        if (lookedAt > mostLookedAt || costOf(found) <= leastCost) break;
      }
    }
    found ??= { sections: [], setIn: [faces] };
    known.set(key, found);
    return found;
  };
  return best(map.faces.map((_, k) => k));
}

/** Two sections are the fewest that a region which is not one can have. */
const leastCost = 2;

const together = (a: Foundations, b: Foundations): Foundations => ({
  sections: [...a.sections, ...b.sections],
  setIn: [...a.setIn, ...b.setIn],
});

const costOf = ({ sections, setIn }: Foundations): number => sections.length + 1000 * setIn.length;

/** The order in which a region is pieced as one section; null where there is none. */
export const pieceOrder = (map: PlanarMap, faces: readonly number[]): number[] | null => new PieceOrders(map).orderOf(faces);

/** Corners lie on a line within this, mm. */
const offLineMm = 0.05;

/** Finds orders in regions of one map. */
class PieceOrders {
  /** Of each face its corners: x and y in turn. */
  private readonly corners: readonly Float64Array[];
  /** Of each side of each face where it runs, and the face beyond it. */
  private readonly sides: readonly (readonly Side[])[];

  constructor(private readonly map: PlanarMap) {
    const { nodes, edges, faces } = map;
    const at = (node: number | undefined): Point => nodes[node as number] as Point;
    this.sides = faces.map(({ sides }) =>
      sides.map(({ edge, isForward }) => {
        const { from, to, left, right, segment } = edges[edge] as PlanarMap['edges'][0];
        return {
          from: at(isForward ? from : to),
          to: at(isForward ? to : from),
          beyond: isForward ? right : left,
          isLine: segment.kind === 'line',
        };
      }),
    );
    this.corners = this.sides.map((sides) => Float64Array.from(sides.flatMap(({ from }) => [from.x, from.y])));
  }

  orderOf(faces: readonly number[]): number[] | null {
    const left = new Set(faces);
    const backwards: number[] = [];
    const areaOf = (face: number): number => this.map.faces[face]?.area as number;
    // Of those that can go the smallest goes first: the largest is where sewing begins.
    const bySize = [...faces].sort((a, b) => areaOf(a) - areaOf(b));
    while (left.size > 1) {
      const next = bySize.find((face) => left.has(face) && this.canGo(face, left));
      if (next === undefined) return null;
      left.delete(next);
      backwards.push(next);
    }
    return [...left, ...backwards.reverse()];
  }

  /**
   * Whether a patch lies along one straight line beside all that is left of the others, which lie all beyond that line: fabric that is
   * sewn and folded over needs it.
   */
  private canGo(face: number, left: ReadonlySet<number>): boolean {
    const sides = this.sides[face] as readonly Side[];
    const shared = sides.filter(({ beyond }) => left.has(beyond));
    if (shared.length === 0 || shared.some(({ isLine }) => !isLine)) return false;
    // One stretch of its border, not two with a gap between.
    if (sides.filter(({ beyond }, k) => left.has(beyond) && !left.has((sides.at(k - 1) as Side).beyond)).length > 1) return false;
    const [from, to] = farthest(shared.flatMap((side) => [side.from, side.to]));
    const { x, y } = unitVector(subtract(to, from));
    const off = (px: number, py: number): number => x * (py - from.y) - y * (px - from.x);
    if (shared.some((side) => Math.abs(off(side.from.x, side.from.y)) > offLineMm || Math.abs(off(side.to.x, side.to.y)) > offLineMm))
      return false;
    const farthestOff = (k: number, sign: number): number => {
      const corners = this.corners[k] as Float64Array;
      let most = -Infinity;
      for (let n = 0; n < corners.length; n += 2) most = Math.max(most, sign * off(corners[n] as number, corners[n + 1] as number));
      return most;
    };
    const sign = farthestOff(face, 1) >= farthestOff(face, -1) ? 1 : -1;
    for (const other of left) if (other !== face && farthestOff(other, sign) > offLineMm) return false;
    return true;
  }
}

interface Side {
  readonly from: Point;
  readonly to: Point;
  readonly beyond: number;
  readonly isLine: boolean;
}

function farthest(points: readonly Point[]): [Point, Point] {
  let best: [Point, Point] = [points[0] as Point, points[0] as Point];
  for (const p of points) for (const q of points) if (distance(p, q) > distance(...best)) best = [p, q];
  return best;
}
