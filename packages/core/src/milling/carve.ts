/**
 * In: an area, and a pointed tool. Out: its moves: it rides on the area's medial axis, as deep as its flanks touch both borders at the
 * top, so that corners come out sharp; where that would be deeper than the limit it goes round the edge of a flat floor.
 */
import { between, distance, type Path, type Point, polygonOf, reducedSteps } from '../plane/index.ts';
import { type AxisPlace, medialAxis } from '../shape/index.ts';
import { levelsTo } from './levels.ts';
import { type MillTool, profileOf, radiusOf, reachOf, type ToolShape } from './mill-tool.ts';
import { aboveMm, type Heights, Moves, type Place } from './moves.ts';
import { type PocketSettings, pocketMoves } from './pocket.ts';
import { type Area, inset } from './tool-rings.ts';

interface CarveSettings {
  readonly topZ: number;
  /** No deeper than this below the top, mm. */
  readonly depthMm: number;
}

/** Ridges between passes over a flat floor are no higher, mm. */
const scallopMm = 0.02;

/** How deep a tool goes that touches borders at a distance, mm below the top. */
export function carveDepth(tool: MillTool, depthMm: number): (clearanceMm: number) => number {
  const profile = profileOf(tool);
  const radius = radiusOf(tool);
  const deepest = Math.min(depthMm, profile(radius));
  return (clearance) => Math.min(deepest, profile(Math.min(radius, clearance)));
}

/** Moves of the pointed tool; null where it can go nowhere in. */
export function* carveMoves(
  area: Area,
  tool: MillTool,
  { topZ, depthMm }: CarveSettings,
  heights: Heights,
  isCleared: ((p: Point) => boolean) | null,
): Generator<number, Moves | null> {
  const depthAt = carveDepth(tool, depthMm);
  const deepest = depthAt(Infinity);
  const edge = floorEdge(tool, deepest);
  const branches = yield* medialAxis([area.outer, ...area.holes]);
  const ridden = branches.flatMap(({ places }) => withinClearance(places, tool.tipMm / 2, edge));
  const alongAxis = joined(ridden.map((places) => places.map((p): Place => ({ x: p.x, y: p.y, z: topZ - depthAt(p.clearanceMm) }))));
  const levels = levelsTo(topZ, topZ - deepest, tool.stepdownMm);
  // Passes of a flat tip leave nothing where they meet, and ridges as high as may be where they do not.
  const fine = Math.max(0.02, 2 * reachOf(tool)(scallopMm) - 0.002);
  const widest = branches.reduce((max, { places }) => places.reduce((most, { clearanceMm }) => Math.max(most, clearanceMm), max), 0);
  const hasFloor = branches.length === 0 || widest > edge;
  const overFloor = (step: number): Place[][] => (hasFloor ? floorLines(area, step, edge, topZ - deepest, isCleared) : []);
  // On the way down ridges may stand that the next pass takes.
  const rough = levels.length > 1 ? overFloor(Math.max(fine, 0.8 * reachOf(tool)(deepest / levels.length))) : [];
  const lines = [...alongAxis, ...overFloor(fine)];
  if (lines.length === 0) return null;
  const moves = new Moves(tool, (lines[0] as Place[])[0] as Place, heights);
  for (const [k, z] of levels.entries()) {
    const above = k === 0 ? topZ + 1 : (levels[k - 1] as number);
    const parts = (k === levels.length - 1 ? lines : [...alongAxis, ...rough])
      .flatMap((line) => below(line, above))
      .map((line) => raisedTo(line, z));
    for (const line of nearestFirst(parts, moves.at)) {
      const [first, ...rest] = line as [Place, ...Place[]];
      if (distance(moves.at, first) > 1e-6 || moves.at.z > first.z + 1e-6) {
        moves.over(first, heights.hopZ, Math.max(topZ, first.z) + aboveMm);
        moves.plunge(first.z);
      }
      for (const place of rest) moves.line(place);
    }
    moves.lift(heights.hopZ);
    yield (k + 1) / levels.length;
  }
  moves.lift(heights.safeZ);
  return moves;
}

/** How far from the border the middle of a tool is where the floor begins, mm. */
export const floorEdge = (tool: ToolShape, depthMm: number): number => Math.max(tool.tipMm / 2, reachOf(tool)(depthMm));

/** The lowest that a pointed tool may come at a distance from the border: as its flank lies where it goes along the edge of the floor. */
export function wallOf(tool: ToolShape, bottomZ: number, topZ: number): (clearanceMm: number) => number {
  const profile = profileOf(tool);
  const edge = floorEdge(tool, topZ - bottomZ);
  return (clearance) => (clearance >= edge ? bottomZ : Math.min(topZ, bottomZ + profile(edge - clearance)));
}

/** The floor that a carving of a depth leaves, where its walls end. */
export const floorOf = (area: Area, tool: MillTool, depthMm: number): Area[] => inset(area, floorEdge(tool, depthMm) - tool.tipMm / 2);

/** Clears the floor of a carving with an upright tool, before the pointed one follows; nothing where it does not fit. */
export function* floorMoves(
  area: Area,
  pointed: MillTool,
  upright: MillTool,
  depthMm: number,
  settings: Omit<PocketSettings, 'bottomZ'>,
  heights: Heights,
): Generator<number, Moves[]> {
  const made: Moves[] = [];
  for (const floor of floorOf(area, pointed, depthMm)) {
    const one = yield* pocketMoves(floor, upright, { ...settings, bottomZ: settings.topZ - depthMm }, heights);
    if (one) made.push(one);
  }
  return made;
}

/** The parts of a branch whose clearance lies between two limits. */
function withinClearance(places: readonly AxisPlace[], min: number, max: number): AxisPlace[][] {
  return clipped(
    places,
    ({ clearanceMm }) => clearanceMm,
    min,
    max,
    (a, b, t) => ({ ...between(a, b, t), clearanceMm: a.clearanceMm + (b.clearanceMm - a.clearanceMm) * t }),
  );
}

/** The parts of a line that lie deeper than a height. */
const below = (line: readonly Place[], z: number): Place[][] =>
  clipped(
    line,
    (p) => p.z,
    -Infinity,
    z - 1e-6,
    (a, b, t) => ({ ...between(a, b, t), z: a.z + (b.z - a.z) * t }),
  );

/** A line that goes nowhere below a height. */
function raisedTo(line: readonly Place[], z: number): Place[] {
  return line.flatMap((p, k) => {
    const before = line[k - 1];
    const crossing = before && (before.z - z) * (p.z - z) < 0 ? [{ ...between(before, p, (z - before.z) / (p.z - before.z)), z }] : [];
    return [...crossing, { ...p, z: Math.max(p.z, z) }];
  });
}

/** The runs of a polyline where a value that changes evenly between its places lies between two limits. */
function clipped<P>(places: readonly P[], measure: (p: P) => number, min: number, max: number, at: (a: P, b: P, t: number) => P): P[][] {
  const runs: P[][] = [];
  let run: P[] = [];
  const close = (): void => {
    if (run.length > 1) runs.push(run);
    run = [];
  };
  for (let k = 1; k < places.length; k++) {
    const [a, b] = [places[k - 1] as P, places[k] as P];
    const [from, to] = shareWithin(measure(a), measure(b), min, max);
    if (from >= to) {
      close();
      continue;
    }
    if (run.length === 0) run.push(from > 0 ? at(a, b, from) : a);
    run.push(to < 1 ? at(a, b, to) : b);
    if (to < 1) close();
  }
  close();
  return runs;
}

/** From where to where on the way from one value to another it lies between two limits, 0 to 1. */
function shareWithin(u: number, v: number, min: number, max: number): [number, number] {
  if (u === v) return u < min || u > max ? [1, 0] : [0, 1];
  const [p, q] = [(min - u) / (v - u), (max - u) / (v - u)];
  return [Math.max(0, Math.min(p, q)), Math.min(1, Math.max(p, q))];
}

/** Round the edge of a flat floor, and over what an upright tool did not clear of it. */
function floorLines(area: Area, step: number, edgeMm: number, z: number, isCleared: ((p: Point) => boolean) | null): Place[][] {
  const lines: Place[][] = [];
  // As lines and arcs, whose offsets are exact: of curves ring after ring would be fitted anew.
  const bare: Area = { outer: asLinesAndArcs(area.outer), holes: area.holes.map(asLinesAndArcs) };
  for (let rooms = inset(bare, edgeMm), k = 0; rooms.length > 0 && k < 2000; k++) {
    const rings = rooms.flatMap(({ outer, holes }) => [outer, ...holes]);
    const made =
      k === 0
        ? rings.map((ring) => placesOn(ring, z, edgeChordMm))
        : rings.flatMap((ring) => (isCleared ? uncleared(ring, z, isCleared) : [placesOn(ring, z, floorChordMm)]));
    // Once the upright tool has taken all of a ring it has all inside it.
    if (k > 0 && made.length === 0) break;
    lines.push(...made);
    rooms = rooms.flatMap((room) => inset(room, step));
  }
  return lines;
}

const asLinesAndArcs = (path: Path): Path => ({
  ...path,
  segments: reducedSteps(path, ['line', 'arc'], edgeChordMm / 3).map(({ segment }) => segment),
});

/** Along the edge of the floor, whose flanks are the walls, and over the floor, which is flat, mm. */
const [edgeChordMm, floorChordMm] = [0.0015, 0.02];

const placesOn = (ring: Path, z: number, chordMm: number): Place[] => [...polygonOf(ring, chordMm), ring.start].map((p) => ({ ...p, z }));

/** The runs of a ring that an upright tool has not cleared. */
function uncleared(ring: Path, z: number, isCleared: (p: Point) => boolean): Place[][] {
  const runs: Place[][] = [];
  let run: Place[] = [];
  const places = placesOn(ring, z, floorChordMm);
  for (let k = 1; k < places.length; k++) {
    const [a, b] = [places[k - 1] as Place, places[k] as Place];
    const count = Math.max(1, Math.ceil(distance(a, b) / 0.2));
    for (let j = 0; j < count; j++) {
      const [p, q] = [between(a, b, j / count), between(a, b, (j + 1) / count)];
      if (isCleared(p) && isCleared(q)) {
        if (run.length > 1) runs.push(run);
        run = [];
      } else {
        if (run.length === 0) run.push({ ...p, z });
        run.push({ ...q, z });
      }
    }
  }
  if (run.length > 1) runs.push(run);
  return runs;
}

/** Ends nearer than this are one, mm. */
const sameMm = 0.003;

/** Branches that meet led on into one another, so that the tool need not be lifted. */
function joined(branches: readonly Place[][]): Place[][] {
  const ends = new Map<string, { line: number; isStart: boolean }[]>();
  const cell = (p: Point): [number, number] => [Math.round(p.x / sameMm), Math.round(p.y / sameMm)];
  const put = (p: Place, end: { line: number; isStart: boolean }): void => {
    const key = cell(p).join();
    ends.set(key, [...(ends.get(key) ?? []), end]);
  };
  branches.forEach((places, line) => {
    put(places[0] as Place, { line, isStart: true });
    put(places.at(-1) as Place, { line, isStart: false });
  });
  const used = new Uint8Array(branches.length);
  const near = (p: Place): { line: number; isStart: boolean } | null => {
    const [x, y] = cell(p);
    for (let dx = -1; dx <= 1; dx++)
      for (let dy = -1; dy <= 1; dy++)
        for (const end of ends.get(`${x + dx},${y + dy}`) ?? []) {
          const places = branches[end.line] as Place[];
          if (!used[end.line] && distance(end.isStart ? (places[0] as Place) : (places.at(-1) as Place), p) < sameMm) return end;
        }
    return null;
  };
  const lines: Place[][] = [];
  // The shallowest first: a way that begins in a corner begins at the top.
  const order = branches.map((_, k) => k).sort((a, b) => topOf(branches[b] as Place[]) - topOf(branches[a] as Place[]));
  for (const k of order) {
    if (used[k]) continue;
    used[k] = 1;
    const own = branches[k] as Place[];
    const line = (own[0] as Place).z >= (own.at(-1) as Place).z ? [...own] : [...own].reverse();
    for (let next = near(line.at(-1) as Place); next; next = near(line.at(-1) as Place)) {
      used[next.line] = 1;
      const places = branches[next.line] as Place[];
      line.push(...(next.isStart ? places : [...places].reverse()).slice(1));
    }
    lines.push(line);
  }
  return lines;
}

const topOf = (places: readonly Place[]): number => Math.max((places[0] as Place).z, (places.at(-1) as Place).z);

/** Lines one after another, the nearest next, turned round where that is nearer. */
function* nearestFirst(lines: readonly Place[][], from: Point): Generator<Place[]> {
  const left = new Set(lines.keys());
  let at = from;
  while (left.size > 0) {
    let [best, away, isTurned] = [-1, Infinity, false];
    for (const k of left) {
      const line = lines[k] as Place[];
      const [a, b] = [distance(at, line[0] as Place), distance(at, line.at(-1) as Place)];
      if (Math.min(a, b) < away) [best, away, isTurned] = [k, Math.min(a, b), b < a];
      if (away < 1e-6) break;
    }
    left.delete(best);
    const line = lines[best] as Place[];
    const turned = isTurned ? [...line].reverse() : line;
    at = turned.at(-1) as Place;
    yield turned;
  }
}
