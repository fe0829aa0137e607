/**
 * In: runs of a drawing's middles between its junctions and ends. Out: strokes: runs made one where they run on into each other.
 * Rests on: good continuation: at a junction the two that run on straightest are one stroke, dashes only with dashes; what ends
 * there ends on it, or where all meet.
 */
import { crossing, distance, type Point } from '../plane/point.ts';
import { withoutStems } from './acute-forks.ts';
import { dashesAmong, keyOfTip, type Tip } from './dashes.ts';
import { meetingPlace, type RunEnd } from './junction-point.ts';
import { type BowedEnd, clearOfNode, cornerAtNode, ledTo, type Run, straightThrough, tipsByNode } from './run-ends.ts';
import { type Stroke, type StrokeEnd, walkedFrom } from './stroke.ts';

/** Lines that turn less than this at a junction may run on, radians. */
const straightOn = 0.45;

/**
 * @param smallestPx runs that hang on nothing, are no dashes and are shorter are left out as specks
 * @param meetsInk whether there is ink ahead of a run's end, beyond a gap no longer than so much
 */
export function joinedStrokes(
  given: readonly Run[],
  smallestPx: number,
  meetsInk: (end: Pick<RunEnd, 'at' | 'out'>, reach: number) => boolean,
): Stroke[] {
  const runs = withoutStems(given);
  const tipsAt = tipsByNode(runs);
  const isFree = ({ node }: RunEnd): boolean => (tipsAt.get(node)?.length ?? 0) < 2;
  const possible = runs.map(({ ends, closed, length }) => ({
    length,
    ends: ends.map((end) => ({ ...end, isFree: !closed && isFree(end) })) as unknown as Parameters<typeof dashesAmong>[0][0]['ends'],
  }));
  const { isDash, links } = dashesAmong(possible, meetsInk);
  const partner = new Map<number, Tip>();
  const pair = (a: Tip, b: Tip): void => {
    partner.set(keyOfTip(a), b);
    partner.set(keyOfTip(b), a);
  };
  for (const [a, b] of links) pair(a, b);
  const endOfTip = ({ run, side }: Tip): RunEnd => (runs[run] as Run).ends[side];
  const target = new Map<number, Target>();
  const widthOf = ({ run }: Tip): number => (runs[run] as Run).width;
  for (const tips of tipsAt.values()) {
    if (tips.length < 2) continue;
    const solids = grouped(tips.filter(({ run }) => !isDash[run]), ({ run }) => (runs[run] as Run).kind); // biome-ignore format: one line
    const dashes = grouped(tips.filter(({ run }) => isDash[run]), ({ run }) => (runs[run] as Run).kind); // biome-ignore format: one line
    // Where nothing but dashes, or lines of other inks, end on a line it runs on, about a corner, too.
    const lines = solids.filter((group): group is [Tip, Tip] => group.length === 2);
    const corners = lines.map((line) => ledToCorner(runs, line));
    const corner = corners[0] ?? null;
    const pairs = [
      ...lines,
      ...solids.flatMap((group) => (group.length === 2 ? [] : pairedTips(group, endOfTip, widthOf))),
      ...dashes.flatMap((group) => pairedTips(group, endOfTip, widthOf)),
    ];
    for (const [a, b] of pairs) pair(a, b);
    const through = pairs.map(([a, b]) => [endOfTip(a), endOfTip(b)] as const);
    for (const tip of tips) {
      if (partner.has(keyOfTip(tip))) continue;
      const at =
        (corner && through[0] && placeOnCorner(endOfTip(tip), through[0], corner, widthOf(tip))) ??
        meetingPlace(endOfTip(tip), tips.map(endOfTip), through, widthOf(tip));
      target.set(keyOfTip(tip), { at, isOnThrough: pairs.length > 0 });
    }
  }
  return walkedStrokes(runs, partner, target, isDash).filter(
    ({ ends, closed, isDashed, points }) => isDashed || closed || ends.some((end) => end.target) || reachOf(points, ends) >= smallestPx,
  );
}

/** The two runs of one line led on to the corner that it makes at a junction, if it makes one. */
function ledToCorner(runs: Run[], two: readonly [Tip, Tip]): Point | null {
  const [p, q] = two.map(({ run, side }) => {
    const clear = clearOfNode(runs[run] as Run, side);
    runs[run] = clear.run;
    return clear.end;
  }) as [BowedEnd, BowedEnd];
  const corner = cornerAtNode(p, q, (runs[two[0].run] as Run).width);
  if (corner) for (const { run, side } of two) runs[run] = ledTo(runs[run] as Run, side, corner);
  return corner;
}

/** A line that passes a corner by no more of its width ends on the corner. */
const throughCorner = 0.15;

/** Where an end meets a line with a corner: on the corner, or beside it where its own line passes. */
function placeOnCorner(end: RunEnd, [p, q]: readonly [RunEnd, RunEnd], corner: Point, width: number): Point {
  const aside = Math.abs(end.out.x * (corner.y - end.at.y) - end.out.y * (corner.x - end.at.x));
  if (aside <= throughCorner * width) return corner;
  const places = [p, q].flatMap(({ at }) => {
    const [dx, dy] = [corner.x - at.x, corner.y - at.y];
    const met = crossing(end.at, end.out, at, { x: dx, y: dy });
    const t = met ? ((met.x - at.x) * dx + (met.y - at.y) * dy) / (dx * dx + dy * dy) : -1;
    // What runs on along one of the sides meets that far off, if at all.
    return met && t >= 0 && t <= 1 && distance(met, corner) < width ? [met] : [];
  });
  return places.sort((a, b) => distance(a, end.at) - distance(b, end.at))[0] ?? corner;
}

/** Lists of those that have the same key. */
function grouped<T>(list: readonly T[], keyOf: (item: T) => number): T[][] {
  const groups = new Map<number, T[]>();
  for (const item of list) groups.set(keyOf(item), [...(groups.get(keyOf(item)) ?? []), item]);
  return [...groups.values()];
}

interface Target {
  readonly at: Point;
  readonly isOnThrough: boolean;
}

/** From the ends, which reach farther than the points that could be read. */
function reachOf(points: Float64Array, ends: readonly [StrokeEnd, StrokeEnd]): number {
  const n = points.length;
  const step = (ax: number, ay: number, bx: number, by: number): number => Math.sqrt((bx - ax) ** 2 + (by - ay) ** 2);
  let sum =
    step(ends[0].at.x, ends[0].at.y, points[0] as number, points[1] as number) +
    step(ends[1].at.x, ends[1].at.y, points[n - 2] as number, points[n - 1] as number);
  for (let k = 2; k < n; k += 2)
    sum += step(points[k - 2] as number, points[k - 1] as number, points[k] as number, points[k + 1] as number);
  return sum;
}

/** Runs followed from partner to partner. */
function walkedStrokes(
  runs: readonly Run[],
  partner: ReadonlyMap<number, Tip>,
  target: ReadonlyMap<number, Target>,
  isDash: readonly boolean[],
): Stroke[] {
  const used = new Set<number>();
  const strokes: Stroke[] = [];
  runs.forEach((run, k) => {
    if (used.has(k)) return;
    used.add(k);
    if (run.closed) {
      const ends = run.ends.map(freeEnd) as unknown as [StrokeEnd, StrokeEnd];
      strokes.push({ points: run.points, width: run.width, closed: true, isDashed: false, kind: run.kind, ends });
      return;
    }
    const { list, closed } = rowThrough(k, partner, used);
    const isDashed = list.every(({ run: r }) => isDash[r]);
    const stroke = { ...strokeOf(runs, list, closed, (tip) => target.get(keyOfTip(tip)) ?? null), isDashed };
    strokes.push(isDashed && !closed ? onOwnLine(stroke) : stroke);
  });
  return strokes;
}

/** The runs that hang together through one, each as the tip that it is entered by; they are used up. */
function rowThrough(first: number, partner: ReadonlyMap<number, Tip>, used: Set<number>): { list: Tip[]; closed: boolean } {
  const list: Tip[] = [{ run: first, side: 0 }];
  const other = (side: 0 | 1) => (side === 0 ? 1 : 0);
  for (let exit: Tip = { run: first, side: 1 }; ; ) {
    const next = partner.get(keyOfTip(exit));
    if (!next) break;
    if (used.has(next.run)) return { list, closed: true };
    used.add(next.run);
    list.push(next);
    exit = { run: next.run, side: other(next.side) };
  }
  for (let entry: Tip = { run: first, side: 0 }; ; ) {
    const before = partner.get(keyOfTip(entry));
    if (!before || used.has(before.run)) return { list, closed: false };
    used.add(before.run);
    entry = { run: before.run, side: other(before.side) };
    list.unshift(entry);
  }
}

/** A straight row of dashes tells where its line is better than the corners do that it ends at: its ends lie on it. */
function onOwnLine(stroke: Stroke): Stroke {
  const { points } = stroke;
  const line = straightThrough(points);
  if (!line) return stroke;
  const { at, out } = line;
  const foot = (p: Point): Point => {
    const along = (p.x - at.x) * out.x + (p.y - at.y) * out.y;
    return { x: at.x + along * out.x, y: at.y + along * out.y };
  };
  const ends = stroke.ends.map((end) => ({ ...end, at: foot(end.at), target: end.target && foot(end.target) }));
  return { ...stroke, ends: ends as unknown as Stroke['ends'] };
}

const freeEnd = ({ at, out }: RunEnd): StrokeEnd => ({ at, out, target: null, isOnThrough: false });

function strokeOf(
  runs: readonly Run[],
  list: readonly Tip[],
  closed: boolean,
  targetOf: (tip: Tip) => Target | null,
): Omit<Stroke, 'isDashed'> {
  const points = list.flatMap(({ run, side }) => walkedFrom((runs[run] as Run).points, side));
  const first = list[0] as Tip;
  const last = list.at(-1) as Tip;
  const end = (tip: Tip): StrokeEnd => {
    const target = targetOf(tip);
    return { ...freeEnd((runs[tip.run] as Run).ends[tip.side]), target: target?.at ?? null, isOnThrough: target?.isOnThrough ?? false };
  };
  const lengths = list.map(({ run }) => (runs[run] as Run).points.length);
  const width =
    list.reduce((sum, { run }, k) => sum + (runs[run] as Run).width * (lengths[k] as number), 0) / lengths.reduce((a, b) => a + b, 0);
  return {
    points: Float64Array.from(points),
    width,
    closed,
    kind: (runs[first.run] as Run).kind,
    ends: [end(first), end({ run: last.run, side: last.side === 0 ? 1 : 0 })],
  };
}

/** The tips of a junction that run on into each other, straightest first. */
function pairedTips(tips: readonly Tip[], endOfTip: (tip: Tip) => RunEnd, widthOf: (tip: Tip) => number): [Tip, Tip][] {
  const offers = tips.flatMap((a, k) =>
    tips.slice(k + 1).map((b) => {
      const [p, q] = [endOfTip(a), endOfTip(b)];
      const turn = Math.acos(Math.max(-1, Math.min(1, -(p.out.x * q.out.x + p.out.y * q.out.y))));
      const aside = Math.abs(p.out.x * (q.at.y - p.at.y) - p.out.y * (q.at.x - p.at.x));
      return { a, b, turn, aside: aside / Math.max(widthOf(a), widthOf(b)) };
    }),
  );
  const pairs: [Tip, Tip][] = [];
  const taken = new Set<Tip>();
  for (const { a, b, turn, aside } of offers.sort((m, n) => m.turn - n.turn)) {
    if (turn > straightOn || aside > 1 || taken.has(a) || taken.has(b)) continue;
    taken.add(a);
    taken.add(b);
    pairs.push([a, b]);
  }
  return pairs;
}
