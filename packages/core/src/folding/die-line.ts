/**
 * In: the cut outline and the creases of a die line, as traced or drawn, where creases end a little short of what they run to.
 * Out: the same as one plane graph of straight edges: creases led on to where they meet outline or crease.
 */
import { makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { distance, type Path, type Point, pathArea, pathBox, polygonOf, reversedPath } from '../plane/index.ts';
import { chordsOf, cornersOf, type Line, ledOn, lengthOf, meeting, type Polyline, sideways, turnAt, weldMm } from './crease-ends.ts';

/** An edge of the graph: between two of its places; of a crease the crease's number. */
export interface DieEdge {
  readonly from: number;
  readonly to: number;
  readonly crease: number | null;
  /** Whether it is the border of an opening within the carton, which is no panel. */
  readonly isOpening: boolean;
}

export interface DieLine {
  readonly places: readonly Point[];
  readonly edges: readonly DieEdge[];
  /** The creases as they were led on, parted at their corners. */
  readonly creases: readonly Crease[];
}

export interface Crease {
  readonly pieceId: string;
  /** From end to end; two where it is straight. */
  readonly points: readonly Point[];
  /** Of a straight crease the line as it was drawn; null for a bowed one. */
  readonly drawn: Line | null;
}

/** Chords of cuts and bowed creases leave them by at most this, mm. */
const chordMm = 0.05;
/** A crease that leaves the line between its ends by no more is straight, mm. */
const straightMm = 0.2;
/** A crease is led on over a gap this wide, or as wide as a share of its length, whichever is more, mm. */
const minReachMm = 6;
const reachShare = 0.12;
const maxReachMm = 8;
/** A cut that ends this near to what lies ahead of it is meant to reach it, mm: common practice. */
const cutReachMm = 2;
/** Creases that turn by more are two that meet, radians; bows are divided so finely that they turn by less. */
const creaseTurn = 0.25;
const bowChordMm = 0.01;

/**
 * The die line of the largest piece that is cut, with the cuts and creases that lie on it. Where no piece is closed, the contour is
 * put together from the cuts there are, led on to each other.
 */
export function dieLineOf(pieces: readonly Piece[]): DieLine {
  const parts = pieces.filter((p) => makeOf(p) === 'part');
  const body = parts
    .filter((p) => p.outer.closed)
    .reduce<Piece | null>((best, p) => (!best || Math.abs(pathArea(p.outer)) > Math.abs(pathArea(best.outer)) ? p : best), null);
  const box = body && pathBox(body.outer);
  const isOnIt = ({ x, y }: Point): boolean => !box || (x > box.minX - 1 && x < box.maxX + 1 && y > box.minY - 1 && y < box.maxY + 1);
  const isLineOnIt = (points: readonly Point[]): boolean =>
    isOnIt(points[0] as Point) && isOnIt(points.at(-1) as Point) && lengthOf(points) > 1;
  const rings = body
    ? [body.outer, ...body.holes].map((path, k): Polyline => {
        const ring = corners(turnedTo(path, k === 0));
        return { points: [...ring, ring[0] as Point], reachMm: 0, crease: null, isOpening: k > 0 };
      })
    : [];
  const cuts = parts
    .filter((p) => !p.outer.closed)
    .map((p): Polyline => ({ points: polygonOf(p.outer, chordMm), reachMm: cutReachMm, crease: null, isOpening: false }))
    .filter(({ points }) => isLineOnIt(points));
  const creases = pieces
    .filter((p) => p.purpose === 'score')
    .flatMap((p) =>
      creaseParts(p.outer).map((points): Polyline => ({ points, reachMm: reachOf(points), crease: { pieceId: p.id }, isOpening: false })),
    )
    .filter(({ points }) => isLineOnIt(points));
  if (rings.length + cuts.length === 0) return { places: [], edges: [], creases: [] };
  return graphOf(rings, ledOn([...cuts, ...creases], rings));
}

const turnedTo = (path: Path, left: boolean): Path => (pathArea(path) > 0 === left ? path : reversedPath(path));
const corners = (path: Path): Point[] =>
  polygonOf(path, chordMm).filter((p, k, all) => distance(p, all[(k + 1) % all.length] as Point) > 1e-6);

/** A crease with corners is several; each is straight, or a bow of chords. */
function creaseParts(path: Path): Point[][] {
  const points = polygonOf(path, bowChordMm);
  if (path.closed && points[0]) points.push(points[0]);
  const parts: Point[][] = [];
  let start = 0;
  for (let k = 1; k < points.length; k++) {
    const [a, b, c] = [points[k - 1] as Point, points[k] as Point, points[k + 1]];
    if (c && turnAt(a, b, c) < creaseTurn) continue;
    const part = points.slice(start, k + 1);
    const ends = { from: part[0] as Point, to: part.at(-1) as Point };
    parts.push(part.every((p) => sideways(p, ends) <= straightMm) ? [ends.from, ends.to] : part);
    start = k;
  }
  return withoutBends(parts);
}

/** Parts that meet at a corner too slight to part a straight crease, as one. */
function withoutBends(parts: readonly Point[][]): Point[][] {
  const whole = parts.flat();
  const [from, to] = [whole[0], whole.at(-1)];
  if (!from || !to || distance(from, to) < 1e-6) return [...parts];
  return whole.every((p) => sideways(p, { from, to }) <= straightMm) ? [[from, to]] : [...parts];
}

const reachOf = (points: readonly Point[]): number => Math.min(maxReachMm, Math.max(minReachMm, reachShare * lengthOf(points)));

/** All edges cut where another ends or crosses, places that lie together made one. */
function graphOf(rings: readonly Polyline[], led: readonly (Polyline & { drawn: Line | null })[]): DieLine {
  const places: Point[] = [];
  const place = (p: Point): number => {
    const known = places.findIndex((q) => distance(p, q) < weldMm);
    return known >= 0 ? known : places.push(p) - 1;
  };
  const creases: Crease[] = [];
  const lines = [...rings, ...led].flatMap((line) => {
    const { points, crease, isOpening } = line;
    const drawn = 'drawn' in line ? (line.drawn as Line | null) : null;
    const number = crease ? creases.push({ pieceId: crease.pieceId, points, drawn }) - 1 : null;
    return chordsOf(points).map((chord) => ({ ...chord, crease: number, isOpening }));
  });
  // What lies near to another place moves there: to the outline's corners first, then to where creases end, last to the ends of chords.
  for (const corner of cornersOf(rings)) place(corner);
  for (const { points } of led) for (const end of [points[0], points.at(-1)] as Point[]) place(end);
  for (const { from, to } of lines) {
    place(from);
    place(to);
  }
  const found = new Map<string, DieEdge>();
  for (const line of lines) {
    const on = cutsOn(line, lines, places).map(place);
    for (let k = 1; k < on.length; k++) {
      const [from, to] = [on[k - 1] as number, on[k] as number];
      if (from === to) continue;
      const key = from < to ? `${from} ${to}` : `${to} ${from}`;
      // Where a crease runs along the outline it is cut.
      if (!found.has(key)) found.set(key, { from, to, crease: line.crease, isOpening: line.isOpening });
    }
  }
  return { places, edges: [...found.values()], creases };
}

function cutsOn(line: Line, lines: readonly Line[], places: readonly Point[]): Point[] {
  const size = distance(line.from, line.to);
  const along = (p: Point): number =>
    ((line.to.x - line.from.x) * (p.x - line.from.x) + (line.to.y - line.from.y) * (p.y - line.from.y)) / size;
  // What lies near to an end is that end.
  const isWithin = (s: number): boolean => s > weldMm && s < size - weldMm;
  const cuts: { at: Point; s: number }[] = [
    { at: line.from, s: 0 },
    { at: line.to, s: size },
  ];
  for (const p of places) {
    const s = along(p);
    if (isWithin(s) && sideways(p, line) < weldMm) cuts.push({ at: p, s });
  }
  for (const other of lines) {
    if (other === line) continue;
    const at = meeting(line, other);
    if (at && isWithin(along(at))) cuts.push({ at, s: along(at) });
  }
  return cuts.sort((a, b) => a.s - b.s).map(({ at }) => at);
}
