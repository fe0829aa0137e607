/**
 * In: the cut outline and the creases of a die line, as traced or drawn, where creases end a little short of what they run to.
 * Out: the same as one plane graph of straight edges: creases led on to where they meet outline or crease.
 */
import { makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { distance, type Path, type Point, pathArea, pathBox, polygonOf, reversedPath } from '../plane/index.ts';
import { norm } from '../plane/point.ts';

export interface Line {
  readonly from: Point;
  readonly to: Point;
}

/** An edge of the graph: between two of its places; of a crease the crease's number. */
export interface DieEdge {
  readonly from: number;
  readonly to: number;
  readonly crease: number | null;
}

export interface DieLine {
  readonly places: readonly Point[];
  readonly edges: readonly DieEdge[];
  /** The creases as they were led on, in the order of their pieces, each with the line as it was drawn. */
  readonly creases: readonly { readonly pieceId: string; readonly from: Point; readonly to: Point; readonly drawn: Line }[];
}

/** Chords of the outline leave it by at most this, mm. */
const chordMm = 0.05;
/** A crease is led on over a gap this wide, or as wide as a share of its length, whichever is more, mm. */
const minReachMm = 6;
const reachShare = 0.12;
const maxReachMm = 8;
/** Places nearer than this are one, mm. */
const weldMm = 0.3;
/** A crease may run beside a corner by this much and still mean it, mm. */
const besideMm = 0.8;

/** The die line of the largest piece that is cut, with the creases that lie on it. */
export function dieLineOf(pieces: readonly Piece[]): DieLine {
  const body = pieces
    .filter((p) => makeOf(p) === 'part' && p.outer.closed)
    .reduce<Piece | null>((best, p) => (!best || Math.abs(pathArea(p.outer)) > Math.abs(pathArea(best.outer)) ? p : best), null);
  if (!body) return { places: [], edges: [], creases: [] };
  const box = pathBox(body.outer);
  const isOnIt = ({ x, y }: Point): boolean => x > box.minX - 1 && x < box.maxX + 1 && y > box.minY - 1 && y < box.maxY + 1;
  const scores = pieces
    .filter((p) => p.purpose === 'score')
    .flatMap((p) => straightParts(p.outer).map(({ from, to }) => ({ pieceId: p.id, from, to })))
    .filter(({ from, to }) => isOnIt(from) && isOnIt(to) && distance(from, to) > 1);
  const rings = [body.outer, ...body.holes].map((path, k) => corners(turnedTo(path, k === 0)));
  const walls = rings.flatMap((ring) => ring.map((p, k) => ({ from: p, to: ring[(k + 1) % ring.length] as Point })));
  const creases = ledOn(scores, walls);
  return graphOf(walls, creases);
}

const turnedTo = (path: Path, left: boolean): Path => (pathArea(path) > 0 === left ? path : reversedPath(path));
const corners = (path: Path): Point[] =>
  polygonOf(path, chordMm).filter((p, k, all) => distance(p, all[(k + 1) % all.length] as Point) > 1e-6);

/** A crease with corners is several. */
function straightParts(path: Path): { from: Point; to: Point }[] {
  const points = polygonOf(path, 0.2);
  if (path.closed && points[0]) points.push(points[0]);
  const parts: { from: Point; to: Point }[] = [];
  let start = 0;
  for (let k = 1; k < points.length; k++) {
    const [a, b, c] = [points[start] as Point, points[k] as Point, points[k + 1]];
    if (c && turnAt(a, b, c) < 0.12) continue;
    parts.push({ from: a, to: b });
    start = k;
  }
  return parts;
}

const turnAt = (a: Point, b: Point, c: Point): number => {
  const [px, py, qx, qy] = [b.x - a.x, b.y - a.y, c.x - b.x, c.y - b.y];
  return Math.abs(Math.atan2(px * qy - py * qx, px * qx + py * qy));
};

const reachOf = ({ from, to }: Line): number => Math.min(maxReachMm, Math.max(minReachMm, reachShare * distance(from, to)));

/** Each crease led on, or cut back, to the nearest of what lies in its way about its ends. */
function ledOn(scores: readonly (Line & { pieceId: string })[], walls: readonly Line[]): DieLine['creases'] {
  const grown = scores.map((s) => lengthened(s, reachOf(s)));
  return scores.map((score, k) => {
    const others = [...walls, ...grown.filter((_, l) => l !== k)];
    const points = walls.map((w) => w.from);
    return {
      pieceId: score.pieceId,
      drawn: score,
      from: endOfCrease(score.from, score, others, points) ?? score.from,
      to: endOfCrease(score.to, score, others, points) ?? score.to,
    };
  });
}

function lengthened({ from, to }: Line, by: number): Line {
  const size = distance(from, to);
  const [x, y] = [((to.x - from.x) / size) * by, ((to.y - from.y) / size) * by];
  return { from: { x: from.x - x, y: from.y - y }, to: { x: to.x + x, y: to.y + y } };
}

/** Where a crease's end belongs: a corner of the outline beside its line, or where its line meets another, whichever is nearer. */
function endOfCrease(end: Point, score: Line, lines: readonly Line[], points: readonly Point[]): Point | null {
  const reach = reachOf(score);
  const whole = lengthened(score, reach);
  let best: { at: Point; off: number } | null = null;
  const take = (at: Point, more = 0): void => {
    const off = distance(at, end) + more;
    if (off <= reach && (!best || off < best.off)) best = { at, off };
  };
  for (const p of points) if (sideways(p, whole) <= besideMm) take(p, -besideMm);
  for (const line of lines) {
    const at = meeting(whole, line);
    if (at) take(at);
  }
  return (best as { at: Point } | null)?.at ?? null;
}

function sideways(p: Point, { from, to }: Line): number {
  const size = distance(from, to) || 1;
  return Math.abs(((to.x - from.x) * (p.y - from.y) - (to.y - from.y) * (p.x - from.x)) / size);
}

/** Where two straight lines cross, their ends included; null for those that run along each other. */
function meeting(a: Line, b: Line): Point | null {
  const [px, py, qx, qy] = [a.to.x - a.from.x, a.to.y - a.from.y, b.to.x - b.from.x, b.to.y - b.from.y];
  const det = px * qy - py * qx;
  if (Math.abs(det) < 0.02 * norm(px, py) * norm(qx, qy)) return null;
  const [dx, dy] = [b.from.x - a.from.x, b.from.y - a.from.y];
  const [t, u] = [(dx * qy - dy * qx) / det, (dx * py - dy * px) / det];
  const slack = 1e-6;
  if (t < -slack || t > 1 + slack || u < -slack || u > 1 + slack) return null;
  return { x: a.from.x + px * t, y: a.from.y + py * t };
}

/** All edges cut where another ends or crosses, places that lie together made one. */
function graphOf(walls: readonly Line[], creases: DieLine['creases']): DieLine {
  const places: Point[] = [];
  const place = (p: Point): number => {
    const known = places.findIndex((q) => distance(p, q) < weldMm);
    return known >= 0 ? known : places.push(p) - 1;
  };
  const lines = [
    ...walls.map((line) => ({ ...line, crease: null as number | null })),
    ...creases.map((line, crease) => ({ ...line, crease })),
  ];
  // The outline's own corners come first, so that creases are drawn to them.
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
      if (!found.has(key)) found.set(key, { from, to, crease: line.crease });
    }
  }
  return { places, edges: [...found.values()], creases };
}

function cutsOn(line: Line, lines: readonly Line[], places: readonly Point[]): Point[] {
  const size = distance(line.from, line.to);
  const along = (p: Point): number =>
    ((line.to.x - line.from.x) * (p.x - line.from.x) + (line.to.y - line.from.y) * (p.y - line.from.y)) / size;
  const cuts: { at: Point; s: number }[] = [
    { at: line.from, s: 0 },
    { at: line.to, s: size },
  ];
  for (const p of places) {
    const s = along(p);
    if (s > 0 && s < size && sideways(p, line) < weldMm) cuts.push({ at: p, s });
  }
  for (const other of lines) {
    if (other === line) continue;
    const at = meeting(line, other);
    if (at) cuts.push({ at, s: along(at) });
  }
  return cuts.sort((a, b) => a.s - b.s).map(({ at }) => at);
}
