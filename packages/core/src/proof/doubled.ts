/**
 * In: pieces. Out: stretches of outline that run on top of one another, which would be cut twice, also where they overlap in
 * part only.
 * Both are one over a stretch where its ends lie on either and places between lie on both, within the tolerance.
 */

import { pathsOf } from '../job/piece-paths.ts';
import { isFollowed } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { length, type Printed, sayings } from '../messages/index.ts';
import {
  directionOn,
  distance,
  dot,
  nearestOnSegment,
  type Path,
  type Point,
  pointOn,
  type Segment,
  type Step,
  segmentLength,
  splitSegment,
  stepsOf,
} from '../plane/index.ts';
import { norm } from '../plane/point.ts';
import { boxIndex } from '../shape/index.ts';
import { areNeighbours, type PlacedBorder, placedBorders } from './borders.ts';
import type { Check, Fault, MadeOutlines, ProofLimits } from './fault.ts';

/** What it says of what it finds. */
const words = {
  runsTwice: (name: Printed, along: Printed) => `${name} runs twice along ${along} of its own outline.`,
  liesOnTop: (name: Printed, other: Printed, over: Printed) => `${name} lies on top of ${other} over ${over}: it would be cut twice.`,
  sharesOutline: (name: Printed, other: Printed, along: Printed) =>
    `${name} and ${other} share ${along} of outline, which would be cut twice.`,
};
const said = sayings('findings', words);

/** Lines nearer than this are one burn, mm. */
const oneBurnMm = 0.02;
/** Shorter stretches are corners that touch, mm. */
const minMm = 0.2;

export interface Doubled {
  /** Where on the second piece: which path and segment, and from where to where on it, 0 to 1. */
  readonly path: number;
  readonly segment: number;
  readonly from: number;
  readonly to: number;
  readonly lengthMm: number;
  readonly at: Point;
}

/** The stretches of `b` that run along `a`; of one piece with itself each pair once. */
export function doubledStretches(a: readonly Path[], b: readonly Path[]): Doubled[] {
  const isSelf = a === b;
  const [as, bs] = [placedBorders(a), placedBorders(b)];
  const index = boxIndex(as.map((s) => s.box), oneBurnMm); // biome-ignore format: one line
  const found: Doubled[] = [];
  bs.forEach((t, l) => {
    const { minX, minY, maxX, maxY } = t.box;
    for (const k of index?.search(minX, minY, maxX, maxY) ?? []) {
      if (isSelf && (k >= l || goesOn(a, as[k] as PlacedBorder, t))) continue;
      found.push(...overlaps(as[k] as PlacedBorder, t));
    }
  });
  return found;
}

/** Whether one segment of a path follows the other and does not turn back on it. */
function goesOn(paths: readonly Path[], a: PlacedBorder, b: PlacedBorder): boolean {
  const { segments, closed } = paths[a.path] as Path;
  if (segments.length === 2 || !areNeighbours(a, b, closed, segments.length - 1)) return false;
  const [first, second] = b.index === a.index + 1 ? [a, b] : [b, a];
  return dot(directionOn(first.from, first.segment, 1), directionOn(second.from, second.segment, 0)) > -0.99;
}

/** Both ends of a stretch are ends of either segment. */
function overlaps(a: PlacedBorder, b: PlacedBorder): Doubled[] {
  if (!runAlong(a, b)) return [];
  const ts = [0, 1];
  for (const end of [a.from, a.segment.to]) {
    const near = nearestOnSegment(b.from, b.segment, end);
    if (near.distance <= oneBurnMm) ts.push(near.t);
  }
  ts.sort((p, q) => p - q);
  const { length } = b;
  return ts.slice(1).flatMap((to, k): Doubled[] => {
    const from = ts[k] as number;
    if ((to - from) * length < minMm) return [];
    const isOn = [0.07, 0.29, 0.5, 0.71, 0.93].every(
      (u) => nearestOnSegment(a.from, a.segment, pointOn(b.from, b.segment, from + u * (to - from))).distance <= oneBurnMm,
    );
    const at = pointOn(b.from, b.segment, (from + to) / 2);
    return isOn ? [{ path: b.path, segment: b.index, from, to, lengthMm: (to - from) * length, at }] : [];
  });
}

/** Two straight lines at an angle meet in a place only, and so do gentle curves: told at once, since most are such. */
function runAlong(a: PlacedBorder, b: PlacedBorder): boolean {
  if (a.isGentle && b.isGentle && Math.abs(a.chord.x * b.chord.x + a.chord.y * b.chord.y) < 0.8) return false;
  if (a.segment.kind !== 'line' || b.segment.kind !== 'line') return true;
  const [px, py, qx, qy] = [a.segment.to.x - a.from.x, a.segment.to.y - a.from.y, b.segment.to.x - b.from.x, b.segment.to.y - b.from.y];
  const shorter = Math.min(norm(px, py), norm(qx, qy));
  const sine = Math.abs(px * qy - py * qx) / (norm(px, py) * norm(qx, qy) || 1);
  return sine * Math.min(shorter, minMm) <= 2 * oneBurnMm;
}

export function selfDoubledFaults(piece: Piece): Fault[] {
  if (!isFollowed(piece)) return [];
  const paths = pathsOf(piece);
  const found = doubledStretches(paths, paths);
  if (found.length === 0) return [];
  return [
    {
      code: 'doubled',
      weight: 'look',
      ...said.runsTwice(piece.name, length(total(found))),
      pieceIds: [piece.id],
      places: found.map(({ at }) => at),
      fixes: [cutOnce(piece, found)],
    },
  ];
}

const total = (found: readonly Doubled[]): number => found.reduce((sum, { lengthMm }) => sum + lengthMm, 0);

/** @param b the later piece, which gives way */
export function mutualDoubledFaults(a: Piece, b: Piece): Fault[] {
  if (!isFollowed(a) || !isFollowed(b)) return [];
  const found = doubledStretches(pathsOf(a), pathsOf(b));
  if (found.length === 0) return [];
  const whole = pathsOf(b)
    .flatMap(stepsOf)
    .reduce((sum, { from, segment }) => sum + segmentLength(from, segment), 0);
  const isAll = total(found) > whole - minMm;
  return [
    {
      code: 'doubled',
      weight: 'look',
      ...(isAll ? said.liesOnTop(b.name, a.name, length(total(found))) : said.sharesOutline(a.name, b.name, length(total(found)))),
      pieceIds: [a.id, b.id],
      places: [...found].sort((p, q) => q.lengthMm - p.lengthMm).map(({ at }) => at),
      fixes: [isAll ? { do: 'leave-out', word: 'excludeOne', ids: [b.id] } : cutOnce(b, found), { do: 'accept', word: 'ignore' }],
    },
  ];
}

/** A piece without the stretches that another has already: what is left, as lines. */
function cutOnce(piece: Piece, found: readonly Doubled[]) {
  const by = pathsOf(piece).flatMap((path, p): MadeOutlines[] => {
    const own = found.filter((d) => d.path === p);
    const made = own.length === 0 ? [path] : withoutStretches(path, own);
    return made.map((outer) => ({ name: piece.name, purpose: piece.purpose, outer, holes: [] }));
  });
  return { do: 'replace', word: 'cutOnce', ids: [piece.id], by } as const;
}

export function withoutStretches(path: Path, gone: readonly Doubled[]): Path[] {
  const runs: { start: Point; segments: Segment[] }[] = [];
  let run: { start: Point; segments: Segment[] } | null = null;
  stepsOf(path).forEach(({ from, segment }, k) => {
    const cuts = gone.filter((d) => d.segment === k).sort((a, b) => a.from - b.from);
    let at = 0;
    const keep = (to: number): void => {
      if ((to - at) * segmentLength(from, segment) < 1e-6) return;
      const part = partOf(from, segment, at, to);
      if (!run) {
        run = { start: part.from, segments: [] };
        runs.push(run);
      }
      run.segments.push(part.segment);
    };
    for (const cut of cuts) {
      keep(cut.from);
      at = Math.max(at, cut.to);
      run = null;
    }
    keep(1);
  });
  const [first, last] = [runs[0], runs.at(-1)];
  if (path.closed && first && last && first !== last && distance(last.segments.at(-1)?.to ?? last.start, first.start) < 1e-9) {
    runs.pop();
    runs[0] = { start: last.start, segments: [...last.segments, ...first.segments] };
  }
  return runs.map((r) => ({ ...r, closed: false }));
}

function partOf(from: Point, segment: Segment, t: number, u: number): Step {
  const [, after] = t > 0 ? splitSegment(from, segment, t) : [null, segment];
  const start = t > 0 ? pointOn(from, segment, t) : from;
  const share = (u - t) / (1 - t);
  return { from: start, segment: share < 1 ? splitSegment(start, after, share)[0] : after };
}

export const doubledCheck = {
  words,
  kinds: {
    doubled: { heading: 'Cut twice' },
  },
  // A stub's two legs lie on one another.
  own: (piece: Piece, _: ProofLimits, before: readonly Fault[]) =>
    before.some(({ code }) => code === 'stub') ? [] : selfDoubledFaults(piece),
  pair: mutualDoubledFaults,
} as const satisfies Check;
