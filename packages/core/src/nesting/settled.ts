/**
 * In: parts as they lie. Out: the same, moved by a little so that straight edges that face each other lie just the gap apart: then one cut as wide
 * as the gap frees both.
 */
import { chain, type Path, type Point, pathBox, shift, stepsOf, transformedPath } from '../plane/index.ts';
import { combined, offsetPiece } from '../shape/index.ts';
import type { NestedPart, NestingPart } from './bottom-left.ts';
import { layoutFaults } from './layout-faults.ts';
import type { NestSheet } from './nest.ts';

/** Edges move towards each other by no more than this, and lie beside each other at least so far, mm. */
const farthestMm = 1.5;
const besideMm = 5;
const sameMm = 1e-6;

interface Edge {
  readonly from: Point;
  readonly u: Point;
  readonly length: number;
}

/** @param sheets each that is used */
export function settled(
  placed: readonly NestedPart[],
  parts: readonly NestingPart[],
  gapMm: number,
  sheets: readonly NestSheet[],
  marginMm: number,
): NestedPart[] {
  const outerOf = ({ part, place }: NestedPart): Path => transformedPath((parts[part] as NestingPart).outer, place);
  const roomOf = sheets.map((sheet) => roomOn(sheet, gapMm, marginMm));
  const order = placed
    .map((one, k) => ({ k, box: pathBox(outerOf(one)) }))
    .sort((a, b) => a.box.minX + a.box.minY - b.box.minX - b.box.minY);
  const now = [...placed];
  const done: number[] = [];
  for (const { k } of order) {
    // First to one edge, then square to that to another.
    let along: Point | null = null;
    for (let turns = 0; turns < 2; turns++) {
      const own = now[k] as NestedPart;
      const there = done.map((n) => now[n] as NestedPart).filter(({ sheet }) => sheet === own.sheet);
      const way = nearest(edgesOf(outerOf(own)), there.flatMap((one) => edgesOf(outerOf(one))), gapMm, along); // biome-ignore format: one line
      if (!way) break;
      const moved = { ...own, place: chain(shift(way.by * way.n.x, way.by * way.n.y), own.place) };
      const others = now.filter((one, n) => n !== k && one.sheet === own.sheet);
      if (!roomOf[own.sheet]?.(outerOf(moved)) || others.some((other) => layoutFaults([moved, other], parts, gapMm).length > 0)) break;
      now[k] = moved;
      along = way.n;
    }
    done.push(k);
  }
  return now;
}

/** Tells whether a part lies within the sheet's margin, and clear of what is kept off on it. */
function roomOn({ widthMm, heightMm, outline, keepOff }: NestSheet, gapMm: number, marginMm: number): (outer: Path) => boolean {
  const within = outline && offsetPiece({ outer: outline, holes: [] }, -marginMm).map(({ outer }) => outer);
  const kept = keepOff.flatMap((path) => offsetPiece({ outer: path, holes: [] }, gapMm).map(({ outer }) => outer));
  return (outer) => {
    const { minX, minY, maxX, maxY } = pathBox(outer);
    if (minX < marginMm - sameMm || minY < marginMm - sameMm || maxX > widthMm - marginMm + sameMm || maxY > heightMm - marginMm + sameMm)
      return false;
    if (within && combined([outer], within, 'take-away').length > 0) return false;
    return kept.every((path) => combined([outer], [path], 'keep-common').length === 0);
  };
}

interface Way {
  readonly by: number;
  /** Which way, of length 1. */
  readonly n: Point;
}

/** The shortest way to an edge that faces one of a part's, square to one before; null where none is within reach, or it lies right. */
function nearest(edges: readonly Edge[], there: readonly Edge[], gapMm: number, along: Point | null): Way | null {
  let best: Way | null = null;
  for (const here of edges) {
    const n = { x: here.u.y, y: -here.u.x };
    if (along && Math.abs(along.x * n.x + along.y * n.y) > 1e-6) continue;
    for (const edge of there) {
      const by = wayTo(here, edge, gapMm);
      if (by !== null && Math.abs(by) > sameMm && Math.abs(by) < Math.abs(best?.by ?? farthestMm)) best = { by, n };
    }
  }
  return best;
}

/** How far an edge has to move outwards until it lies the gap from one that faces it; null where it does not face it. */
function wayTo(here: Edge, there: Edge, gapMm: number): number | null {
  if (here.u.x * there.u.x + here.u.y * there.u.y > -1 + 1e-7) return null;
  const [dx, dy] = [there.from.x - here.from.x, there.from.y - here.from.y];
  const away = dx * here.u.y - dy * here.u.x;
  if (away < gapMm - 0.01 || away > gapMm + farthestMm) return null;
  const start = dx * here.u.x + dy * here.u.y;
  const beside = Math.min(here.length, start) - Math.max(0, start - there.length);
  return beside >= besideMm ? away - gapMm : null;
}

/** Straight edges, counter-clockwise round the part. */
function edgesOf(path: Path): Edge[] {
  return stepsOf(path).flatMap(({ from, segment }): Edge[] => {
    if (segment.kind !== 'line') return [];
    const length = Math.hypot(segment.to.x - from.x, segment.to.y - from.y);
    return length < besideMm ? [] : [{ from, length, u: { x: (segment.to.x - from.x) / length, y: (segment.to.y - from.y) / length } }];
  });
}
