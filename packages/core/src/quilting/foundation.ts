/**
 * In: a block. Out: the sections that it is pieced in on foundations, each with the order of its patches, or the patches that no
 * foundation can hold.
 * A section can be pieced where every next patch joins all that is sewn so far along one straight line right across: read backwards, the
 * last patch can be taken off along one line, then the one before it. A patch that can be taken off stays so when others are, since of
 * the line that it lies along only less is left; so taking off any that can be finds an order wherever there is one.
 * Sections are cut apart along seams right across the block, as few as there are.
 */
import { cross, distance, type Point, subtract, unitVector } from '../plane/index.ts';
import type { MapSide, PlanarMap } from '../shape/index.ts';
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

/** Regions that are tried before the search takes the first way that it finds. */
const mostTried = 4000;

export function foundationsOf(map: PlanarMap): Foundations {
  const finder = new SeamFinder(map);
  const known = new Map<string, Foundations>();
  let tried = 0;
  const best = (faces: readonly number[]): Foundations => {
    const key = [...faces].sort((a, b) => a - b).join(' ');
    const before = known.get(key);
    if (before) return before;
    tried++;
    const order = pieceOrder(map, faces);
    let found: Foundations | null = order ? { sections: [{ order }], setIn: [] } : null;
    if (!found) {
      const cuts = finder.seamsAcross(faces).sort((a, b) => b.worth - a.worth);
      for (const { one, other } of cuts) {
        const both = together(best(one), best(other));
        if (!found || costOf(both) < costOf(found)) found = both;
        if (tried > mostTried || costOf(found) <= leastCost) break;
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
export function pieceOrder(map: PlanarMap, faces: readonly number[]): number[] | null {
  const left = new Set(faces);
  const backwards: number[] = [];
  while (left.size > 1) {
    // Of those that can go the smallest goes first: the largest is where sewing begins.
    const next = [...left].filter((face) => canGo(map, face, left)).sort((a, b) => (map.faces[a]?.area as number) - (map.faces[b]?.area as number))[0]; // biome-ignore format: one line
    if (next === undefined) return null;
    left.delete(next);
    backwards.push(next);
  }
  return [...left, ...backwards.reverse()];
}

/** Corners lie on a line within this, mm. */
const offLineMm = 0.05;

/**
 * Whether a patch lies along one straight line beside all that is left of the others, which lie all beyond that line: fabric that is sewn
 * and folded over needs it.
 */
function canGo(map: PlanarMap, face: number, left: ReadonlySet<number>): boolean {
  const sides = map.faces[face]?.sides ?? [];
  const isShared = sides.map(({ edge, isForward }) => left.has((isForward ? map.edges[edge]?.right : map.edges[edge]?.left) as number));
  const shared = sides.filter((_, k) => isShared[k]);
  if (shared.length === 0 || shared.some(({ edge }) => map.edges[edge]?.segment.kind !== 'line')) return false;
  // One stretch of its border, not two with a gap between.
  if (isShared.filter((own, k) => own && !isShared.at(k - 1)).length > 1) return false;
  const [from, to] = farthest(shared.flatMap((side) => endsOf(map, side)));
  const along = unitVector(subtract(to, from));
  const beyond = (p: Point): number => cross(along, subtract(p, from));
  if (shared.some((side) => endsOf(map, side).some((p) => Math.abs(beyond(p)) > offLineMm))) return false;
  const corners = (k: number): Point[] => (map.faces[k]?.sides ?? []).flatMap((side) => endsOf(map, side));
  const own = corners(face)
    .map(beyond)
    .reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a), 0);
  return [...left].every((other) => other === face || corners(other).every((p) => beyond(p) * Math.sign(own) <= offLineMm));
}

const endsOf = ({ edges, nodes }: PlanarMap, { edge }: MapSide): [Point, Point] => [
  nodes[edges[edge]?.from as number] as Point,
  nodes[edges[edge]?.to as number] as Point,
];

function farthest(points: readonly Point[]): [Point, Point] {
  let best: [Point, Point] = [points[0] as Point, points[0] as Point];
  for (const p of points) for (const q of points) if (distance(p, q) > distance(...best)) best = [p, q];
  return best;
}
