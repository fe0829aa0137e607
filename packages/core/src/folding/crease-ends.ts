/**
 * In: the cuts and creases of a die line, chord by chord, that end a little short of what they run to, or a little beyond.
 * Out: the same led on, or cut back, to where they meet cut or crease.
 */
import { between, distance, type Point } from '../plane/index.ts';
import { nearestOnLine } from '../plane/line.ts';
import { norm } from '../plane/point.ts';
import { circleThrough } from '../shape/index.ts';

export interface Line {
  readonly from: Point;
  readonly to: Point;
}

/** A cut or a crease, chord by chord. */
export interface Polyline {
  readonly points: readonly Point[];
  readonly reachMm: number;
  readonly crease: { readonly pieceId: string } | null;
  readonly isOpening: boolean;
}

/** Places nearer than this are one, mm. */
export const weldMm = 0.3;
/** A crease may run beside a corner by this much and still mean it, mm. */
const besideMm = 0.8;
/** Cuts that turn by more have a corner there, radians. */
const cornerTurn = 0.7;

export const lengthOf = (points: readonly Point[]): number =>
  points.reduce((sum, p, k) => sum + (k > 0 ? distance(points[k - 1] as Point, p) : 0), 0);

export const turnAt = (a: Point, b: Point, c: Point): number => {
  const [px, py, qx, qy] = [b.x - a.x, b.y - a.y, c.x - b.x, c.y - b.y];
  return Math.abs(Math.atan2(px * qy - py * qx, px * qx + py * qy));
};

export const chordsOf = (points: readonly Point[]): Line[] => points.slice(1).map((to, k) => ({ from: points[k] as Point, to }));

/** Each cut and crease led on, or cut back, to the nearest of what lies in its way about its ends. */
export function ledOn(lines: readonly Polyline[], rings: readonly Polyline[]): (Polyline & { drawn: Line | null })[] {
  const walls = rings.flatMap(({ points }) => chordsOf(points));
  const corners = cornersOf(rings);
  const ways = lines.map(({ points, reachMm }) => [wayOn(points.toReversed(), reachMm), wayOn(points, reachMm)] as const);
  const grown = lines.map(({ points }, k) => chordsOf([...(ways[k]?.[0].toReversed() ?? []), ...points, ...(ways[k]?.[1] ?? [])]));
  const ends = lines.map(({ points, reachMm }, k) => {
    const others = grown.flatMap((chords, l) => (l === k ? [] : chords));
    const [start, end] = ways[k] as (typeof ways)[0];
    return [
      endOn(points.toReversed(), start, reachMm, walls, others, corners),
      endOn(points, end, reachMm, walls, others, corners),
    ] as const;
  });
  const met = metAtPlaces(lines, ends, walls, corners);
  return lines.map((line, k) => {
    const { points } = line;
    const [from, to] = met[k] as readonly [Point, Point];
    const drawn = points.length === 2 ? { from: points[0] as Point, to: points[1] as Point } : null;
    return { ...line, points: drawn ? [from, to] : bowedTo(bowedTo(points, to).toReversed(), from).toReversed(), drawn };
  });
}

/** Lines whose ends come this near to each other end at one place, mm; those that run beside each other do not. */
const meetMm = 0.7;
const besideTurn = 0.2;

/** An end this near to the outline lies on it, mm. */
const onWallMm = 0.05;

/** Ends that nearly meet at one place: a corner of the outline, a place on it, or where a straight line ends. */
function metAtPlaces(
  lines: readonly Polyline[],
  ends: readonly (readonly [Point, Point])[],
  walls: readonly Line[],
  corners: readonly Point[],
): [Point, Point][] {
  const all = lines.flatMap(({ points }, line) =>
    ([0, 1] as const).map((side) => {
      const end = ends[line]?.[side] as Point;
      const before = side === 0 ? (points[1] as Point) : (points.at(-2) as Point);
      return { line, side, end, angle: Math.atan2(end.y - before.y, end.x - before.x), isStraight: points.length === 2 };
    }),
  );
  const moved = ends.map(([a, b]): [Point, Point] => [a, b]);
  const left = new Set(all);
  for (const first of all) {
    if (!left.delete(first)) continue;
    const group = [first];
    for (const one of group)
      for (const other of left) {
        if (distance(one.end, other.end) > meetMm || Math.abs(Math.sin(one.angle - other.angle)) < besideTurn) continue;
        left.delete(other);
        group.push(other);
      }
    if (group.length < 2) continue;
    const corner = corners.find((p) => group.some(({ end }) => distance(p, end) <= weldMm));
    const isOnWall = ({ end }: { end: Point }): boolean =>
      walls.some(({ from, to }) => nearestOnLine(from, { kind: 'line', to }, end).distance < onWallMm);
    const best = group.toSorted((a, b) => 2 * (Number(isOnWall(b)) - Number(isOnWall(a))) + Number(b.isStraight) - Number(a.isStraight));
    const place = corner ?? best[0]?.end ?? first.end;
    for (const { line, side } of group) (moved[line] as [Point, Point])[side] = place;
  }
  return moved;
}

/** The rings' corners; the chords of a bow make none. */
export const cornersOf = (rings: readonly Polyline[]): Point[] =>
  rings.flatMap(({ points }) =>
    points.filter((p, k) => k > 0 && turnAt(points[k - 1] as Point, p, (points[k + 1] ?? points[1]) as Point) > cornerTurn),
  );

/** Of a bowed line so much of its end tells how it bows on, as a share of it. */
const bowShare = 0.4;
/** So many chords it goes on by. */
const bowSteps = 8;

/** Where a line would run on beyond its last point: straight, or about the circle through its last stretch. */
function wayOn(points: readonly Point[], reach: number): Point[] {
  const [before, end] = points.slice(-2) as [Point, Point];
  const straight = (d: number): Point => {
    const size = distance(before, end);
    return { x: end.x + ((end.x - before.x) / size) * d, y: end.y + ((end.y - before.y) / size) * d };
  };
  if (reach === 0) return [];
  if (points.length === 2) return [straight(reach)];
  const stretch = bowShare * lengthOf(points);
  const back = (d: number): Point => placeBack(points, d);
  const circle = circleThrough(back(stretch), back(stretch / 2), end);
  if (!circle) return [straight(reach)];
  const { centre, radius } = circle;
  const [a, b] = [end, back(stretch / 2)].map((p) => Math.atan2(p.y - centre.y, p.x - centre.x)) as [number, number];
  const way = Math.sign(Math.sin(a - b));
  return Array.from({ length: bowSteps }, (_, k) => {
    const angle = a + (way * reach * (k + 1)) / (bowSteps * radius);
    return { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) };
  });
}

/** The end of a bow is read from a row of dashes, and leads less surely than what lies before it, mm. */
const unsureMm = 2;

/** A bowed line led on to a place: its last stretch about the circle through two places before it. */
function bowedTo(points: readonly Point[], place: Point): readonly Point[] {
  const [near, far] = [placeBack(points, unsureMm), placeBack(points, 4 * unsureMm)];
  const kept = points.filter((_, k) => k === 0 || lengthOf(points.slice(k)) > unsureMm);
  const circle = circleThrough(far, near, place);
  if (!circle || kept.length < 2) return [...kept, place];
  const { centre, radius } = circle;
  const [a, b] = [near, place].map((p) => Math.atan2(p.y - centre.y, p.x - centre.x)) as [number, number];
  const turn = Math.atan2(Math.sin(b - a), Math.cos(b - a));
  const arc = Array.from({ length: bowSteps }, (_, k) => {
    const angle = a + (turn * k) / bowSteps;
    return { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) };
  });
  return [...kept, ...arc, place];
}

/** The place so far before a line's end. */
function placeBack(points: readonly Point[], d: number): Point {
  let left = d;
  for (let k = points.length - 1; k > 0; k--) {
    const [p, q] = [points[k] as Point, points[k - 1] as Point];
    const step = distance(p, q);
    if (step >= left) return between(p, q, left / step);
    left -= step;
  }
  return points[0] as Point;
}

/** Where a line's last point belongs: on a corner of the outline beside its way, or where that meets another line, whichever is nearer. */
function endOn(
  points: readonly Point[],
  way: readonly Point[],
  reach: number,
  walls: readonly Line[],
  others: readonly Line[],
  corners: readonly Point[],
): Point {
  const [before, end] = points.slice(-2) as [Point, Point];
  // A line drawn too far is cut back along its last chord.
  const size = distance(before, end);
  const [start, ...chords] = [size > reach ? between(end, before, reach / size) : before, end, ...way] as [Point, ...Point[]];
  const found: { at: Point; off: number }[] = [];
  chords.forEach((to, k) => {
    const chord = { from: k > 0 ? (chords[k - 1] as Point) : start, to };
    const take = (line: Line, less: number): void => {
      const at = meeting(chord, line);
      if (at) found.push({ at, off: distance(at, end) - less });
    };
    // The outline close behind another crease is what is meant.
    for (const wall of walls) take(wall, meetMm);
    for (const other of others) take(other, 0);
    for (const at of corners) if (isBeside(at, chord)) found.push({ at, off: distance(at, end) - besideMm });
  });
  const best = found.filter(({ off }) => off <= reach).sort((p, q) => p.off - q.off)[0];
  return best?.at ?? end;
}

/** Whether a place lies so near to a chord that it is meant. */
function isBeside(p: Point, { from, to }: Line): boolean {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const t = ((p.x - from.x) * dx + (p.y - from.y) * dy) / (dx * dx + dy * dy || 1);
  return t >= 0 && t <= 1 && sideways(p, { from, to }) <= besideMm;
}

export function sideways(p: Point, { from, to }: Line): number {
  const size = distance(from, to) || 1;
  return Math.abs(((to.x - from.x) * (p.y - from.y) - (to.y - from.y) * (p.x - from.x)) / size);
}

/** Where two straight lines cross, their ends included; null for those that run along each other. */
export function meeting(a: Line, b: Line): Point | null {
  const [px, py, qx, qy] = [a.to.x - a.from.x, a.to.y - a.from.y, b.to.x - b.from.x, b.to.y - b.from.y];
  const det = px * qy - py * qx;
  if (Math.abs(det) < 0.02 * norm(px, py) * norm(qx, qy)) return null;
  const [dx, dy] = [b.from.x - a.from.x, b.from.y - a.from.y];
  const [t, u] = [(dx * qy - dy * qx) / det, (dx * py - dy * px) / det];
  const slack = 1e-6;
  if (t < -slack || t > 1 + slack || u < -slack || u > 1 + slack) return null;
  return { x: a.from.x + px * t, y: a.from.y + py * t };
}
