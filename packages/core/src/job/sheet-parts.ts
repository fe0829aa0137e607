/**
 * In: a job's pieces, and where their copies were laid on sheets. Out: the parts that are laid, each with what is drawn on it, and the pieces of
 * one sheet.
 */
import {
  chain,
  isInBox,
  isInside,
  type Path,
  type Point,
  pathBox,
  reversedPath,
  shift,
  stretch,
  type Transform,
  transformedPath,
  turn,
} from '../plane/index.ts';
import { makeOf } from './purposes.ts';
import type { Piece } from './schema.ts';
import type { LaidCopy, SheetLayout } from './sheet-layout.ts';

/** A part that is cut free, with all that lies on it: lines that are scored or engraved, areas that are filled. */
export interface SheetPart {
  readonly piece: Piece;
  readonly on: readonly Piece[];
}

/** Parts, each with what lies within its outline; what lies on none is a part by itself, as large as its box. */
export function sheetParts(pieces: readonly Piece[]): SheetPart[] {
  const isPart = (piece: Piece): boolean => makeOf(piece) === 'part' && piece.outer.closed;
  const parts = pieces.filter(isPart).map((piece) => ({ piece, box: pathBox(piece.outer), on: [] as Piece[] }));
  const alone: SheetPart[] = [];
  for (const piece of pieces) {
    if (isPart(piece)) continue;
    const at = piece.outer.start;
    const under = parts
      .filter(({ piece: part, box }) => isInBox(box, at) && isInside(part.outer, at))
      .sort((a, b) => (a.box.maxX - a.box.minX) * (a.box.maxY - a.box.minY) - (b.box.maxX - b.box.minX) * (b.box.maxY - b.box.minY))[0];
    if (under) under.on.push(piece);
    else alone.push({ piece, on: [] });
  }
  return [...parts.map(({ piece, on }) => ({ piece, on })), ...alone];
}

/** Tells outlines apart: the same text for the same outlines (FNV-1a, 32 bits, twice, over their numbers in turn). */
export function outlinesKey(pieces: readonly Piece[]): string {
  let [first, second] = [0x811c9dc5, 0x5bd1e995];
  const take = (word: string): void => {
    for (let k = 0; k < word.length; k++) {
      first = Math.imul(first ^ word.charCodeAt(k), 0x01000193);
      second = Math.imul(second ^ word.charCodeAt(k), 0x01000193);
    }
  };
  // By its numbers, not by its fields as they happen to be ordered.
  const takePath = ({ start, segments, closed }: Path): void => {
    take(`${closed} ${placeSaid(start)}`);
    for (const segment of segments) {
      take(` ${segment.kind} ${placeSaid(segment.to)}`);
      if ('sweep' in segment) take(` ${segment.sweep.toFixed(decimals)}`);
      if (segment.kind === 'cubic') take(` ${placeSaid(segment.c1)} ${placeSaid(segment.c2)}`);
      if (segment.kind === 'ellipse') take(` ${placeSaid(segment.centre)} ${placeSaid(segment.v)}`);
    }
  };
  for (const { id, purpose, outer, holes } of pieces) {
    take(`${id} ${purpose} `);
    for (const path of [outer, ...holes]) takePath(path);
  }
  return [first, second].map((hash) => (hash >>> 0).toString(16).padStart(8, '0')).join('');
}

/** Outlines that differ by less than these tell are the same: mm, or radians. */
const decimals = 7;
const placeSaid = ({ x, y }: Point): string => `${x.toFixed(decimals)} ${y.toFixed(decimals)}`;

export const copyPlace = ({ isMirrored, turn: angle, x, y }: LaidCopy): Transform => chain(chain(shift(x, y), turn(angle)), stretch(isMirrored ? -1 : 1, 1)); // biome-ignore format: one line

/** Whether pieces lie as they were laid out: nothing of them has changed since. */
export const isLaid = (pieces: readonly Piece[], layout: SheetLayout | null | undefined): layout is SheetLayout => layout?.laid != null && layout.laid.of === outlinesKey(pieces); // biome-ignore format: one line

/** The pieces of one sheet, whose lower left corner is the origin; the first copy of each keeps its id. */
export function piecesOnSheet(pieces: readonly Piece[], { laid }: SheetLayout, sheet: number): Piece[] {
  const parts = new Map(sheetParts(pieces).map((part) => [part.piece.id, part]));
  const counts = new Map<string, number>();
  return (laid?.copies ?? []).flatMap((copy): Piece[] => {
    const part = parts.get(copy.pieceId);
    if (!part || copy.sheet !== sheet) return [];
    const number = counts.get(copy.pieceId) ?? 0;
    counts.set(copy.pieceId, number + 1);
    const place = copyPlace(copy);
    const to = (path: Path): Path => {
      const moved = transformedPath(path, place);
      // Counter-clockwise also where it is turned over.
      return copy.isMirrored && path.closed ? reversedPath(moved) : moved;
    };
    return [part.piece, ...part.on].map((piece) => ({ ...piece, id: number === 0 ? piece.id : `${piece.id}#${number + 1}`, outer: to(piece.outer), holes: piece.holes.map(to) })); // biome-ignore format: one line
  });
}
