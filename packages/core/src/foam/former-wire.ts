/**
 * In: a former, how wide the wire melts, and the block that it is cut from. Out: the one way that the wire goes: in from the nearest edge of the
 * block, round the outline and out as it came; a hollow or a hole is reached through a slit where it is nearest, gone round, and left again.
 * Which hole is reached from which is the least tree over them (Prim 1957), the outline being its root.
 */
import { distance, largestPath, type Path, type Point, pathArea, pathBox, polygonOf, reversedPath } from '../plane/index.ts';
import { offsetClosed } from '../shape/index.ts';

export interface FormerWireSettings {
  /** How wide the wire melts at its feed, mm. */
  readonly burnMm: number;
  /** From the former to the edges of its block, mm. */
  readonly marginMm: number;
}

export interface FormerWire {
  readonly places: readonly Point[];
  readonly lengthMm: number;
  /** Where it goes there and back: the way in, and to each hole. */
  readonly slits: readonly (readonly [Point, Point])[];
  /** How much of that is in slits and on the way in, there and back, mm. */
  readonly slitMm: number;
}

const chordMm = 0.01;

/** A loop of the wire, with the loops that it leads off to. */
interface Loop {
  readonly points: readonly Point[];
  readonly branches: { readonly from: number; readonly to: number; readonly loop: Loop }[];
}

/** Null where the former is too small for the wire. */
export function formerWire(
  { outline, holes }: { readonly outline: Path; readonly holes: readonly Path[] },
  { burnMm, marginMm }: FormerWireSettings,
): FormerWire | null {
  const around = largestPath(burnMm > 0 ? offsetClosed(counterClockwise(outline), -burnMm / 2) : [counterClockwise(outline)]);
  if (!around) return null;
  const inner = holes.flatMap(
    (hole) => largestPath(burnMm > 0 ? offsetClosed(counterClockwise(hole), burnMm / 2) : [counterClockwise(hole)]) ?? [],
  );
  const root: Loop = { points: polygonOf(around, chordMm), branches: [] };
  const free = inner.map((path): Loop => ({ points: polygonOf(reversedPath(path), chordMm), branches: [] }));
  const reached = [root];
  const slits: [Point, Point][] = [];
  while (free.length > 0) {
    const next = nearestPair(reached, free);
    next.from.branches.push({ from: next.fromAt, to: next.toAt, loop: next.to });
    slits.push([next.from.points[next.fromAt] as Point, next.to.points[next.toAt] as Point]);
    reached.push(next.to);
    free.splice(free.indexOf(next.to), 1);
  }
  // Straight in from the edge that is nearest: all are as near, so from below, where the former stands.
  const start = root.points.reduce((best, p, k) => (p.y < (root.points[best] as Point).y ? k : best), 0);
  const first = root.points[start] as Point;
  const edge = { x: first.x, y: pathBox(around).minY - marginMm };
  const places = [edge, ...walked(root, start), edge];
  const lengthMm = places.slice(1).reduce((sum, p, k) => sum + distance(places[k] as Point, p), 0);
  slits.push([edge, first]);
  return { places, lengthMm, slits, slitMm: 2 * slits.reduce((sum, [a, b]) => sum + distance(a, b), 0) };
}

const counterClockwise = (path: Path): Path => (pathArea(path) < 0 ? reversedPath(path) : path);

/** Once round a loop from one of its places, with all that it leads off to. */
function walked({ points, branches }: Loop, start: number): Point[] {
  const n = points.length;
  const made: Point[] = [];
  for (let k = 0; k <= n; k++) {
    const at = (start + k) % n;
    made.push(points[at] as Point);
    if (k === n) break;
    for (const { from, to, loop } of branches) if (from === at) made.push(...walked(loop, to), points[at] as Point);
  }
  return made;
}

/** Of loops that are reached and loops that are not the two places that lie nearest. */
function nearestPair(
  reached: readonly Loop[],
  free: readonly Loop[],
): { from: Loop; fromAt: number; to: Loop; toAt: number; away: number } {
  let best = { from: reached[0] as Loop, fromAt: 0, to: free[0] as Loop, toAt: 0, away: Infinity };
  for (const from of reached)
    for (const to of free)
      from.points.forEach((p, fromAt) => {
        to.points.forEach((q, toAt) => {
          const away = Math.abs(p.x - q.x) < best.away ? distance(p, q) : Infinity;
          if (away < best.away) best = { from, fromAt, to, toAt, away };
        });
      });
  return best;
}
