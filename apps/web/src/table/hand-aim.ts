/**
 * Where a click of a drawing tool lands: on an end, middle, crossing or line of what is there, on the picture's own edge, on a
 * set direction, or where the pointer is.
 */
import type { Piece } from '@nuvet/core/job';
import { distance, type Path, type Point } from '@nuvet/core/plane';
import { type SheetSnap, snapToOutlines, squareLocked } from '@nuvet/core/shape';
import { useHand } from './hand-store';

/** A feature is taken from this near, screen pixels. */
const searchRadiusPx = 10;

const pathsKnown = new WeakMap<readonly Piece[], readonly Path[]>();

/** All outlines of some pieces as one list, the same list for the same pieces. */
export function outlinesOf(pieces: readonly Piece[]): readonly Path[] {
  let paths = pathsKnown.get(pieces);
  if (!paths) {
    paths = pieces.filter((p) => !p.leftOut).flatMap(({ outer, holes }) => [outer, ...holes]);
    pathsKnown.set(pieces, paths);
  }
  return paths;
}

export interface Aim {
  readonly at: Point;
  readonly snap: SheetSnap | null;
}

/**
 * @param from where the line being drawn comes from
 * @param pictureSnap a feature of the picture near by, mm on the sheet
 */
export function aimAt(
  pieces: readonly Piece[],
  p: Point,
  scale: number,
  from: Point | null,
  pictureSnap: SheetSnap | null,
  isHeldOff: boolean,
): Aim {
  const { lockDegrees, gridMm, typedLength, typedAngle } = useHand.getState();
  const free = { at: p, snap: null };
  const snap = isHeldOff
    ? null
    : (snapToOutlines(outlinesOf(pieces), p, { reachMm: searchRadiusPx / scale, from, gridMm }) ?? nearEnough(pictureSnap, p, scale));
  if (!from) return snap ? { at: snap.at, snap } : free;
  if (typedAngle !== null || typedLength !== null) return { at: byTyped(from, p, typedLength, typedAngle), snap: null };
  if (snap && snap.word !== 'grid' && snap.word !== 'on line') return { at: snap.at, snap };
  if (lockDegrees !== null && !isHeldOff) return { at: squareLocked(from, p, lockDegrees), snap: null };
  return snap ? { at: snap.at, snap } : free;
}

const nearEnough = (snap: SheetSnap | null, p: Point, scale: number): SheetSnap | null =>
  snap && distance(snap.at, p) * scale <= searchRadiusPx + 2 ? snap : null;

function byTyped(from: Point, p: Point, length: number | null, degrees: number | null): Point {
  const angle = degrees === null ? Math.atan2(p.y - from.y, p.x - from.x) : (degrees * Math.PI) / 180;
  const d = { x: Math.cos(angle), y: Math.sin(angle) };
  const reach = length ?? (p.x - from.x) * d.x + (p.y - from.y) * d.y;
  return { x: from.x + d.x * reach, y: from.y + d.y * reach };
}
