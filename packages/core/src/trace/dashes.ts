/**
 * In: strokes of a drawing. Out: the same with rows of dashes made one dashed stroke each.
 * Rests on: good continuation: the next dash begins ahead of where one ends, at most a few dashes farther on.
 */
import { distance, norm, type Point } from '../plane/point.ts';
import { type Stroke, type StrokeEnd, walkedFrom } from './stroke.ts';

/** So many dashes in a row make a dashed line. */
const minDashes = 3;
/** A gap is no longer than so many dashes. */
const longestGap = 2.5;
/** And turns no more, radians. */
const maxTurn = 0.35;

interface Tip {
  readonly stroke: number;
  readonly side: 0 | 1;
}

/** @param smallestPx strokes that hang on nothing, are no dashes and are shorter are left out as specks */
export function dashedRuns(strokes: readonly Stroke[], smallestPx: number): Stroke[] {
  const lengths = strokes.map(lengthOf);
  const isLoose = (k: number) => {
    const { ends, closed } = strokes[k] as Stroke;
    return !closed && !ends[0].target && !ends[1].target;
  };
  const loose = strokes.map((_, k) => k).filter(isLoose);
  const links = new Map<string, Tip>();
  const keyOf = ({ stroke, side }: Tip) => `${stroke}:${side}`;
  const offers = offersAmong(strokes, loose, lengths);
  for (const { a, b } of offers) {
    if (links.has(keyOf(a)) || links.has(keyOf(b))) continue;
    links.set(keyOf(a), b);
    links.set(keyOf(b), a);
  }
  const used = new Set<number>();
  const dashed: Stroke[] = [];
  for (const k of loose) {
    if (used.has(k)) continue;
    const row = rowThrough(k, links, keyOf);
    for (const { stroke } of row) used.add(stroke);
    if (row.length >= minDashes) dashed.push(joinedDashes(strokes, row));
    else for (const { stroke } of row) if ((lengths[stroke] as number) >= smallestPx) dashed.push(strokes[stroke] as Stroke);
  }
  return [...strokes.filter((_, k) => !isLoose(k)), ...dashed];
}

const lengthOf = ({ points, ends }: Stroke): number => {
  // From the ends, which reach farther than the points that could be read.
  const n = points.length;
  let sum =
    distance(ends[0].at, { x: points[0] as number, y: points[1] as number }) +
    distance(ends[1].at, { x: points[n - 2] as number, y: points[n - 1] as number });
  for (let k = 2; k < points.length; k += 2)
    sum += norm((points[k] as number) - (points[k - 2] as number), (points[k + 1] as number) - (points[k - 1] as number));
  return sum;
};

/** Tips that look at each other, nearest first. */
function offersAmong(strokes: readonly Stroke[], loose: readonly number[], lengths: readonly number[]): { a: Tip; b: Tip; gap: number }[] {
  const cell = Math.max(1, ...loose.map((k) => Math.min(400, longestGap * (lengths[k] as number))));
  const grid = new Map<string, Tip[]>();
  const endAt = ({ stroke, side }: Tip): StrokeEnd => (strokes[stroke] as Stroke).ends[side];
  const cellOf = ({ x, y }: Point, i = 0, j = 0) => `${Math.floor(x / cell) + i}:${Math.floor(y / cell) + j}`;
  const tips = loose.flatMap((stroke): Tip[] => [{ stroke, side: 0 }, { stroke, side: 1 }]); // biome-ignore format: both ends
  for (const tip of tips) {
    const key = cellOf(endAt(tip).at);
    grid.set(key, [...(grid.get(key) ?? []), tip]);
  }
  const found: { a: Tip; b: Tip; gap: number }[] = [];
  for (const a of tips) {
    const near = [-1, 0, 1].flatMap((i) => [-1, 0, 1].flatMap((j) => grid.get(cellOf(endAt(a).at, i, j)) ?? []));
    for (const b of near) {
      if (b.stroke <= a.stroke) continue;
      const gap = gapBetween(endAt(a), endAt(b), lengths[a.stroke] as number, lengths[b.stroke] as number);
      if (gap !== null) found.push({ a, b, gap });
    }
  }
  return found.sort((m, n) => m.gap - n.gap);
}

/** The gap from one tip to another that continues it; null where it does not. */
function gapBetween(a: StrokeEnd, b: StrokeEnd, lengthA: number, lengthB: number): number | null {
  const gap = distance(a.at, b.at);
  if (gap > longestGap * Math.max(lengthA, lengthB) || Math.max(lengthA, lengthB) > 6 * Math.min(lengthA, lengthB) || gap < 1) return null;
  const along = { x: (b.at.x - a.at.x) / gap, y: (b.at.y - a.at.y) / gap };
  const min = Math.cos(maxTurn);
  const isAhead = a.out.x * along.x + a.out.y * along.y > min && -(b.out.x * along.x + b.out.y * along.y) > min;
  return isAhead ? gap : null;
}

/** The strokes linked in a row, each by the side that it is entered from. */
function rowThrough(stroke: number, links: ReadonlyMap<string, Tip>, keyOf: (tip: Tip) => string): Tip[] {
  const row: Tip[] = [{ stroke, side: 0 }];
  const seen = new Set([stroke]);
  const other = (side: 0 | 1) => (side === 0 ? 1 : 0);
  for (let exit: Tip = { stroke, side: 1 }; ; ) {
    const next = links.get(keyOf(exit));
    if (!next || seen.has(next.stroke)) break;
    seen.add(next.stroke);
    row.push(next);
    exit = { stroke: next.stroke, side: other(next.side) };
  }
  for (let entry: Tip = { stroke, side: 0 }; ; ) {
    const before = links.get(keyOf(entry));
    if (!before || seen.has(before.stroke)) break;
    seen.add(before.stroke);
    entry = { stroke: before.stroke, side: other(before.side) };
    row.unshift(entry);
  }
  return row;
}

function joinedDashes(strokes: readonly Stroke[], row: readonly Tip[]): Stroke {
  const points = row.flatMap(({ stroke, side }) => walkedFrom((strokes[stroke] as Stroke).points, side));
  const [first, last] = [row[0] as Tip, row.at(-1) as Tip];
  const width = row.reduce((sum, { stroke }) => sum + (strokes[stroke] as Stroke).width, 0) / row.length;
  return {
    points: Float64Array.from(points),
    width,
    closed: false,
    isDashed: true,
    ends: [(strokes[first.stroke] as Stroke).ends[first.side], (strokes[last.stroke] as Stroke).ends[last.side === 0 ? 1 : 0]],
  };
}
