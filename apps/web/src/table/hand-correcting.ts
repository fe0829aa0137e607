/**
 * What the correcting tools do on the table: what lies under the pointer, and what dragging it makes of the path.
 */
import type { Command, Job, Piece } from '@nuvet/core/job';
import {
  distance,
  isInside,
  nearestOnPath,
  type Path,
  type Point,
  type Segment,
  shift,
  transformedPath,
  withPoint,
} from '@nuvet/core/plane';
import {
  extended,
  pointCount,
  pointOf,
  snapToOutlines,
  trimmed,
  withHandleMoved,
  withoutPoints,
  withPointsMoved,
  withSegmentPulled,
} from '@nuvet/core/shape';
import { words } from '@/words';
import { outlinesOf } from './hand-aim';
import { setHand, useHand } from './hand-store';
import { newDrawn, shapeCommand, sourceOf, type Target, targetOf } from './hand-target';

export type Held =
  | { readonly kind: 'points'; readonly path: number; readonly index: number }
  | { readonly kind: 'handle'; readonly path: number; readonly segment: number; readonly handle: 'c1' | 'c2' }
  | { readonly kind: 'segment'; readonly path: number; readonly index: number; readonly t: number }
  /** The thing as a whole, held at a place of its own. */
  | { readonly kind: 'whole'; readonly path: 0; readonly at: Point };

/** The point, handle or segment of a target within reach of a place; points before handles before segments. */
export function heldAt(target: Target, p: Point, reachMm: number): Held | null {
  const { points, segment } = useHand.getState();
  let best: { held: Held; off: number } | null = null;
  const take = (held: Held, off: number): void => {
    if (off <= reachMm && (!best || off < best.off)) best = { held, off };
  };
  target.paths.forEach((path, k) => {
    for (let index = 0; index < pointCount(path); index++) take({ kind: 'points', path: k, index }, distance(pointOf(path, index), p));
  });
  if (best) return (best as { held: Held }).held;
  target.paths.forEach((path, k) => {
    for (const [index, s] of path.segments.entries()) {
      if (s.kind !== 'cubic' || !showsHandles(path, k, index, points, segment)) continue;
      take({ kind: 'handle', path: k, segment: index, handle: 'c1' }, distance(s.c1, p));
      take({ kind: 'handle', path: k, segment: index, handle: 'c2' }, distance(s.c2, p));
    }
  });
  if (best) return (best as { held: Held }).held;
  target.paths.forEach((path, k) => {
    const near = nearestOnPath(path, p);
    take({ kind: 'segment', path: k, index: near.index, t: near.t }, near.distance);
  });
  return best ? (best as { held: Held }).held : null;
}

type Chosen = ReturnType<typeof useHand.getState>;

/** The points of a target that lie in a box, on the path that has most of them there; null where there are none. */
export function pointsWithin(target: Target, a: Point, b: Point): { path: number; indices: number[] } | null {
  const isIn = (p: Point): boolean => (p.x - a.x) * (p.x - b.x) <= 0 && (p.y - a.y) * (p.y - b.y) <= 0;
  const found = target.paths.map((path, k) => ({
    path: k,
    indices: Array.from({ length: pointCount(path) }, (_, index) => index).filter((index) => isIn(pointOf(path, index))),
  }));
  return found.sort((p, q) => q.indices.length - p.indices.length).find(({ indices }) => indices.length > 0) ?? null;
}

/** Handles are shown, and taken, beside chosen points and on the chosen segment. */
export function showsHandles(path: Path, k: number, index: number, points: Chosen['points'], segment: Chosen['segment']): boolean {
  if (segment?.path === k && segment.index === index) return true;
  if (points?.path !== k) return false;
  const next = path.closed ? (index + 1) % path.segments.length : index + 1;
  return points.indices.includes(index) || points.indices.includes(next);
}

/** The paths of a target while something of it is dragged from where it was to another place. */
export function pathsDragged(target: Target, held: Held, from: Point, to: Point): readonly Path[] {
  const { points } = useHand.getState();
  if (held.kind === 'whole') return target.paths.map((path) => transformedPath(path, shift(to.x - from.x, to.y - from.y)));
  const changed = (path: Path): Path => {
    if (held.kind === 'handle') return withHandleMoved(path, held.segment, held.handle, to);
    if (held.kind === 'segment') return withSegmentPulled(path, held.index, held.t, to);
    const indices = points?.path === held.path && points.indices.includes(held.index) ? points.indices : [held.index];
    return withPointsMoved(path, indices, { x: to.x - from.x, y: to.y - from.y });
  };
  return target.paths.map((path, k) => (k === held.path ? changed(path) : path));
}

/** Where what is held lies now. */
export function placeOfHeld(target: Target, held: Held, fallback: Point): Point {
  if (held.kind === 'whole') return held.at;
  const path = target.paths[held.path] as Path;
  if (held.kind === 'points') return pointOf(path, held.index);
  const s: Segment | undefined = held.kind === 'handle' ? path.segments[held.segment] : undefined;
  return held.kind === 'handle' && s?.kind === 'cubic' ? s[held.handle] : fallback;
}

/** One point more where a segment was clicked twice. */
export function insertAt(target: Target, held: Held): readonly Path[] | null {
  if (held.kind !== 'segment' || !(held.t > 1e-6 && held.t < 1 - 1e-6)) return null;
  return target.paths.map((path, k) => (k === held.path ? withPoint(path, held.index, held.t) : path));
}

/** Chosen points taken out; a message where nothing would be left. */
export function deleteChosen(run: (command: Command) => void, target: Target): string | null {
  const { points } = useHand.getState();
  if (!points || points.indices.length === 0) {
    if (target.drawn) run({ do: 'replace-drawn', word: words.table.takingAway(target.name), ids: [target.drawn.id], by: [] });
    else run({ do: 'leave-out', pieceIds: [target.pieceId], leftOut: true });
    setHand({ chosen: [], points: null, segment: null });
    return null;
  }
  const path = target.paths[points.path] as Path;
  const left = withoutPoints(path, points.indices);
  if (!left) return words.table.twoPointsNeeded;
  // While an outline is still a list of points only these are removed, and it can be continued from either end.
  const source = target.drawn?.source;
  if (target.drawn && source?.kind === 'points') {
    const gone = new Set(points.indices);
    const kept = source.points.filter((_, k) => !gone.has(k));
    if (kept.length < 2) return words.table.twoPointsNeeded;
    run({ do: 'redraw', drawnId: target.drawn.id, source: { ...source, points: kept } });
  } else
    run(
      shapeCommand(
        target,
        target.paths.map((p, k) => (k === points.path ? left : p)),
      ),
    );
  setHand({ points: null });
  return null;
}

/** The stretch under a place taken out, up to the next crossings; a message where there is none. */
export function trimAt(run: (command: Command) => void, job: Job, pieces: readonly Piece[], p: Point, reachMm: number): string | null {
  const under = pieceNear(pieces, p, reachMm);
  if (!under) return words.table.trimPrompt;
  const target = targetOf(job, under.id);
  if (!target) return null;
  if (target.drawn && target.drawn.live.length > 0) return words.table.hasLiveSteps(target.name);
  const places = target.paths.map((path) => nearestOnPath(path, p));
  const k = places.reduce((best, near, i) => (near.distance < (places[best] as typeof near).distance ? i : best), 0);
  const { index, t } = places[k] as (typeof places)[0];
  const others = outlinesOf(pieces).filter((path) => !target.paths.includes(path) && path !== under.outer && !under.holes.includes(path));
  const path = target.paths[k] as Path;
  const rest = trimmed(path, { segment: index, t }, [...others, ...target.paths.filter((_, i) => i !== k)]);
  const kept = target.paths.filter((_, i) => i !== k);
  const purpose = under.purpose;
  const by = [
    ...(kept.length > 0 ? [newDrawn(job, words.table.outline, sourceOf(kept), { purpose })] : []),
    ...rest.map((one, n) => {
      const made = newDrawn(job, words.table.outline, { kind: 'path', path: one }, { purpose });
      return n === 0 && target.drawn && kept.length === 0 ? { ...made, id: target.drawn.id, name: target.drawn.name } : made;
    }),
  ];
  run({ do: 'replace-drawn', word: words.table.trimming, ids: [target.drawn?.id ?? target.pieceId], by });
  setHand({ chosen: by[0] ? [by[0].id] : [] });
  return null;
}

/** The end of an open line near a place led on to the next thing; a message where there is nothing to meet. */
export function extendAt(run: (command: Command) => void, job: Job, pieces: readonly Piece[], p: Point, reachMm: number): string | null {
  const under = pieceNear(pieces, p, reachMm);
  const target = under && targetOf(job, under.id);
  const k = target?.paths.findIndex((path) => !path.closed) ?? -1;
  if (!under || !target || k < 0) return words.table.extendPrompt;
  const path = target.paths[k] as Path;
  const isStart = distance(path.start, p) < distance(path.segments.at(-1)?.to ?? path.start, p);
  const others = outlinesOf(pieces).filter((other) => other !== under.outer);
  const longer = extended(path, isStart ? 'start' : 'end', others);
  if (!longer) return words.table.nothingLiesAheadOfThatEnd;
  run(
    shapeCommand(
      target,
      target.paths.map((one, i) => (i === k ? longer : one)),
    ),
  );
  return null;
}

/** A whole thing picked up where it was pressed: at its own end or middle near by, so that this can be set down exactly. */
export function wholeAt(target: Target, p: Point, reachMm: number): Held {
  return { kind: 'whole', path: 0, at: snapToOutlines(target.paths, p, { reachMm })?.at ?? p };
}

/** The piece whose outline comes nearest to a place, within reach. */
export function pieceNear(pieces: readonly Piece[], p: Point, reachMm: number): Piece | null {
  let best: { piece: Piece; off: number } | null = null;
  for (const piece of pieces) {
    if (piece.leftOut) continue;
    for (const path of [piece.outer, ...piece.holes]) {
      const off = nearestOnPath(path, p).distance;
      if (off <= reachMm && (!best || off < best.off)) best = { piece, off };
    }
  }
  return best?.piece ?? null;
}

/** The piece that a click chooses: the one whose line is near, else the smallest that it lies in. */
export const pieceToChoose = (pieces: readonly Piece[], p: Point, reachMm: number): Piece | null =>
  pieceNear(pieces, p, reachMm) ?? pieces.findLast(({ outer, leftOut }) => !leftOut && outer.closed && isInside(outer, p, 0.05)) ?? null;
