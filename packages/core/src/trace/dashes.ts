/**
 * In: the runs of a drawing. Out: which of them are dashes, and which dash follows on which.
 * Rests on: good continuation: the next dash begins ahead of where one ends, at most a few dashes farther on. A dash that touches
 * another line, as the first and the last of a crease often do, hangs on it by one end.
 */
import { median } from '../numeric/median.ts';
import { distance, type Point } from '../plane/point.ts';

/** So many dashes in a row make a dashed line. */
const minDashes = 3;
/** Of a row that touches other lines so many dashes touch none: a wall with two doors in it is no row. */
const minLoose = 2;
/** A gap is no longer than so many dashes. */
const longestGap = 2.5;
/** And turns no more, radians. */
const maxTurn = 0.35;
/** One dash is no longer than so many of its neighbour. */
const maxUnlike = 6;
/** A dash that touches another line may be cut short by it, but is no longer than so many of its neighbour. */
const maxTouching = 1.7;
/** Beside rows that are sure, one or two dashes are a short one where their length is the rows' own within this factor, or their gap. */
const likeLength = 1.7;
const likeGap = 2;

export interface DashEnd {
  readonly at: Point;
  readonly out: Point;
  /** Whether no other line meets it there. */
  readonly isFree: boolean;
}

export interface PossibleDash {
  readonly length: number;
  readonly ends: readonly [DashEnd, DashEnd];
}

/** A run and which of its ends. */
export interface Tip {
  readonly run: number;
  readonly side: 0 | 1;
}

export interface Dashes {
  readonly isDash: readonly boolean[];
  /** Ends of dashes that look at each other over a gap. */
  readonly links: readonly (readonly [Tip, Tip])[];
}

export const keyOfTip = ({ run, side }: Tip): number => 2 * run + side;

interface Link {
  readonly a: Tip;
  readonly b: Tip;
  readonly gap: number;
}

/** @param meetsInk whether there is ink ahead of an end, beyond a gap no longer than so much */
export function dashesAmong(runs: readonly PossibleDash[], meetsInk: (end: DashEnd, reach: number) => boolean): Dashes {
  const possible = runs.map((_, k) => k).filter((k) => runs[k]?.ends.some(({ isFree }) => isFree));
  const links = new Map<number, Link>();
  for (const link of offersAmong(runs, possible)) {
    if (links.has(keyOfTip(link.a)) || links.has(keyOfTip(link.b))) continue;
    links.set(keyOfTip(link.a), link);
    links.set(keyOfTip(link.b), link);
  }
  const rows = rowsOf(possible, links);
  const isTouching = (k: number): boolean => !runs[k]?.ends.every(({ isFree }) => isFree);
  const sure = rows.filter(
    (row) => row.runs.length >= minDashes && (!row.runs.some(isTouching) || row.runs.filter((k) => !isTouching(k)).length >= minLoose),
  );
  const short = sure.length === 0 ? [] : rows.filter((row) => !sure.includes(row) && isShortRow(runs, row, sure, meetsInk));
  const isDash = runs.map(() => false);
  for (const row of [...sure, ...short]) for (const k of row.runs) isDash[k] = true;
  const made = new Set([...sure, ...short].flatMap((row) => row.links));
  return { isDash, links: [...made].map(({ a, b }) => [a, b] as const) };
}

interface Row {
  readonly runs: readonly number[];
  readonly links: readonly Link[];
}

/** The runs that links hold together, one after another. */
function rowsOf(possible: readonly number[], links: ReadonlyMap<number, Link>): Row[] {
  const seen = new Set<number>();
  return possible.flatMap((first) => {
    if (seen.has(first)) return [];
    seen.add(first);
    const [runs, held] = [[first], new Set<Link>()];
    for (const run of runs)
      for (const side of [0, 1] as const) {
        const link = links.get(keyOfTip({ run, side }));
        if (!link) continue;
        held.add(link);
        const next = link.a.run === run ? link.b.run : link.a.run;
        if (!seen.has(next)) runs.push(next);
        seen.add(next);
      }
    return [{ runs, links: [...held] }];
  });
}

/** Whether a row too short to be sure is dashed as the drawing's sure rows are, from one line to another. */
function isShortRow(
  runs: readonly PossibleDash[],
  row: Row,
  sure: readonly Row[],
  meetsInk: (end: DashEnd, reach: number) => boolean,
): boolean {
  const isWhole = (k: number): boolean => (runs[k] as PossibleDash).ends.every(({ isFree }) => isFree);
  const dash = median(sure.flatMap((r) => r.runs.filter(isWhole).map((k) => (runs[k] as PossibleDash).length)));
  const gap = median(sure.flatMap((r) => r.links.map((link) => link.gap)));
  if (row.runs.length === 1 && !isWhole(row.runs[0] as number)) return false;
  if (row.links.some((link) => link.gap > likeGap * gap)) return false;
  return row.runs.every((k) => {
    const { length, ends } = runs[k] as PossibleDash;
    if (length > likeLength * dash || (isWhole(k) && length < dash / likeLength)) return false;
    const linked = new Set(row.links.flatMap(({ a, b }) => [keyOfTip(a), keyOfTip(b)]));
    return ends.every((end, side) => !end.isFree || linked.has(2 * k + side) || meetsInk(end, likeGap * gap));
  });
}

/** Free ends that look at each other, nearest first. */
function offersAmong(runs: readonly PossibleDash[], possible: readonly number[]): Link[] {
  const cell = Math.max(1, ...possible.map((k) => Math.min(400, longestGap * (runs[k] as PossibleDash).length)));
  const grid = new Map<string, Tip[]>();
  const endAt = ({ run, side }: Tip): DashEnd => (runs[run] as PossibleDash).ends[side];
  const cellOf = ({ x, y }: Point, i = 0, j = 0) => `${Math.floor(x / cell) + i}:${Math.floor(y / cell) + j}`;
  const tips = possible.flatMap((run) => ([0, 1] as const).map((side): Tip => ({ run, side }))).filter((tip) => endAt(tip).isFree);
  for (const tip of tips) {
    const key = cellOf(endAt(tip).at);
    const known = grid.get(key);
    if (known) known.push(tip);
    else grid.set(key, [tip]);
  }
  const found: Link[] = [];
  for (const a of tips) {
    const near = [-1, 0, 1].flatMap((i) => [-1, 0, 1].flatMap((j) => grid.get(cellOf(endAt(a).at, i, j)) ?? []));
    for (const b of near) {
      if (b.run <= a.run) continue;
      const gap = gapBetween(runs[a.run] as PossibleDash, a.side, runs[b.run] as PossibleDash, b.side);
      if (gap !== null) found.push({ a, b, gap });
    }
  }
  return found.sort((m, n) => m.gap - n.gap);
}

/** The gap from one end to another that continues it; null where it does not. */
function gapBetween(a: PossibleDash, sideA: 0 | 1, b: PossibleDash, sideB: 0 | 1): number | null {
  const [p, q] = [a.ends[sideA], b.ends[sideB]];
  const gap = distance(p.at, q.at);
  const [long, short] = [Math.max(a.length, b.length), Math.min(a.length, b.length)];
  if (gap > longestGap * long || long > maxUnlike * short || gap < 1) return null;
  if (isTooLong(a, b) || isTooLong(b, a)) return null;
  const along = { x: (q.at.x - p.at.x) / gap, y: (q.at.y - p.at.y) / gap };
  const min = Math.cos(maxTurn);
  const isAhead = p.out.x * along.x + p.out.y * along.y > min && -(q.out.x * along.x + q.out.y * along.y) > min;
  return isAhead ? gap : null;
}

/** A line that hangs on another is a dash of its neighbour's row only where it is no longer than that one. */
const isTooLong = ({ ends, length }: PossibleDash, beside: PossibleDash): boolean =>
  !ends.every(({ isFree }) => isFree) && length > maxTouching * beside.length;
