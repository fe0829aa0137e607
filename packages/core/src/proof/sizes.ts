/**
 * In: pieces and sizes that must come out. Out: what each size is, and which are not as they must be.
 */
import { measuresOf, overallBox, type Piece } from '../job/index.ts';
import { pathsOf } from '../job/piece-paths.ts';
import type { PinnedSize } from '../job/proof-settings.ts';
import { distance, heightOf, nearestOnPath, type Point, stepsOf, widthOf } from '../plane/index.ts';

export interface ProvedSize {
  readonly pinned: PinnedSize;
  /** Null where what it was measured on is gone. */
  readonly isMm: number | null;
  readonly holds: boolean;
  /** Where it is measured, on the sheet. */
  readonly ends: readonly Point[];
}

/** A place this near to a point of an outline means that point, mm. */
const pointReachMm = 0.6;

/** What each pinned size measures now. */
export function provedSizes(pieces: readonly Piece[], sizes: readonly PinnedSize[]): ProvedSize[] {
  return sizes.map((pinned) => {
    const ends = endsOf(pieces, pinned);
    const [a, b] = ends;
    const isMm = a && b ? distance(a, b) : null;
    return { pinned, isMm, ends, holds: isMm !== null && Math.abs(isMm - pinned.mm) <= pinned.toleranceMm + 1e-9 };
  });
}

function endsOf(pieces: readonly Piece[], { of }: PinnedSize): Point[] {
  if (of.kind === 'between') {
    const ends = [placeNear(pieces, of.a), placeNear(pieces, of.b)];
    return ends.every((p) => p !== null) ? (ends as Point[]) : [];
  }
  const own = of.pieceId === null ? pieces : pieces.filter((p) => p.id === of.pieceId);
  const box = overallBox(own);
  if (!box) return [];
  return of.kind === 'width'
    ? [{ x: box.minX, y: box.minY }, { x: box.minX + widthOf(box), y: box.minY }]
    : [{ x: box.minX, y: box.minY }, { x: box.minX, y: box.minY + heightOf(box) }]; // biome-ignore format: the ends
}

/** The place on the outlines that is meant by one on the sheet: a point of theirs near by, or the nearest place. */
export function placeNear(pieces: readonly Piece[], at: Point): Point | null {
  let [point, near, farP, farN]: [Point | null, Point | null, number, number] = [null, null, pointReachMm, Infinity];
  for (const path of pieces.flatMap(pathsOf)) {
    for (const { from } of stepsOf(path)) {
      const off = distance(from, at);
      if (off < farP) [point, farP] = [from, off];
    }
    const found = nearestOnPath(path, at);
    if (found.distance < farN) [near, farN] = [found.point, found.distance];
  }
  return point ?? near;
}

/** Whether a piece fits the stock: as it lies, turned by a quarter, or not at all. */
export function fitOnStock(piece: Pick<Piece, 'outer' | 'holes'>, width: number, height: number): 'fits' | 'turned' | 'too-large' {
  const { widthMm, heightMm } = measuresOf(piece);
  if (widthMm <= width + 1e-9 && heightMm <= height + 1e-9) return 'fits';
  return widthMm <= height + 1e-9 && heightMm <= width + 1e-9 ? 'turned' : 'too-large';
}
