/**
 * In: parts as they lie. Out: the same, moved by a little so that straight edges that face each other lie just the gap apart: then one cut as wide
 * as the gap frees both.
 */
import { chain, type Path, type Point, pathBox, shift, stepsOf, transformedPath } from '../plane/index.ts';
import type { NestedPart, NestingPart } from './bottom-left.ts';
import { layoutFaults } from './layout-faults.ts';

/** Edges move towards each other by no more than this, and lie beside each other at least so far, mm. */
const farthestMm = 1.5;
const besideMm = 5;

interface Edge {
  readonly from: Point;
  readonly u: Point;
  readonly length: number;
}

/** @param sheets width and height of each sheet, and the margin that is kept, mm */
export function settled(
  placed: readonly NestedPart[],
  parts: readonly NestingPart[],
  gapMm: number,
  sheets: readonly { readonly widthMm: number; readonly heightMm: number }[],
  marginMm: number,
): NestedPart[] {
  // biome-ignore format: one line
  const boxOf = ({ part, place }: NestedPart) => pathBox(transformedPath((parts[part] as NestingPart).outer, place));
  const order = placed.map((one, k) => ({ k, box: boxOf(one) })).sort((a, b) => a.box.minX + a.box.minY - b.box.minX - b.box.minY);
  const now = [...placed];
  const done: number[] = [];
  for (const { k } of order) {
    for (let turns = 0; turns < 2; turns++) {
      const moved = nearer(now, k, done, parts, gapMm);
      if (!moved) break;
      const { minX, minY, maxX, maxY } = boxOf(moved);
      const { widthMm, heightMm } = sheets[moved.sheet] ?? { widthMm: 0, heightMm: 0 };
      const isOn =
        minX >= marginMm - 1e-6 && minY >= marginMm - 1e-6 && maxX <= widthMm - marginMm + 1e-6 && maxY <= heightMm - marginMm + 1e-6;
      const others = now.filter((one, n) => n !== k && one.sheet === moved.sheet);
      if (!isOn || others.some((other) => layoutFaults([moved, other], parts, gapMm).length > 0)) break;
      now[k] = moved;
    }
    done.push(k);
  }
  return now;
}

/** A part moved to the nearest edge of those that lie already; null where none faces it within reach, or it lies right. */
function nearer(
  now: readonly NestedPart[],
  k: number,
  done: readonly number[],
  parts: readonly NestingPart[],
  gapMm: number,
): NestedPart | null {
  const own = now[k] as NestedPart;
  const edges = edgesOf(transformedPath((parts[own.part] as NestingPart).outer, own.place));
  let best: { by: number; n: Point } | null = null;
  for (const other of done) {
    const one = now[other] as NestedPart;
    if (one.sheet !== own.sheet) continue;
    for (const there of edgesOf(transformedPath((parts[one.part] as NestingPart).outer, one.place)))
      for (const here of edges) {
        const by = wayTo(here, there, gapMm);
        if (by !== null && Math.abs(by) > 1e-6 && Math.abs(by) < Math.abs(best?.by ?? farthestMm))
          best = { by, n: { x: here.u.y, y: -here.u.x } };
      }
  }
  return best && { ...own, place: chain(shift(best.by * best.n.x, best.by * best.n.y), own.place) };
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
