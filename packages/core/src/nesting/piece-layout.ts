/**
 * In: a job's pieces and how they may lie on sheets. Out: where each copy of each part lies, what found no room, and whether any two overlap,
 * checked by the exact distance of their outlines. The best so far comes with every step.
 */

import type { Piece } from '../job/schema.ts';
import { type LaidCopy, mostLaid, type SheetLayout } from '../job/sheet-layout.ts';
import { outlinesKey, type SheetPart, sheetParts } from '../job/sheet-parts.ts';
import { SaidError, say } from '../messages/index.ts';
import { type Box, pathBox, rectanglePath } from '../plane/index.ts';
import type { NestedPart, NestingPart } from './bottom-left.ts';
import { layoutFaults } from './layout-faults.ts';
import { type Nested, type NestSheet, nest } from './nest.ts';
import { settled } from './settled.ts';

export interface PieceLayout {
  readonly laid: NonNullable<SheetLayout['laid']>;
  readonly utilisation: number;
  readonly usedMm: number;
  /** Names of parts larger than every sheet, and of those that found no room, with how many copies of them. */
  readonly tooLarge: readonly string[];
  readonly left: readonly { readonly name: string; readonly count: number }[];
}

export interface LayoutStep {
  readonly share: number;
  readonly better: PieceLayout | null;
}

/** By multiples of an angle; null for any. */
function turnsOf(turnsBy: number): number[] | null {
  if (turnsBy === 0) return null;
  const count = Math.max(1, Math.round(360 / turnsBy));
  return Array.from({ length: count }, (_, k) => (k * turnsBy * Math.PI) / 180).filter((turn) => turn < 2 * Math.PI - 1e-9);
}

/** Of a part that is a line, or of several outlines, a box about it. */
const outlineOf = ({ piece }: SheetPart): Pick<NestingPart, 'outer' | 'holes'> => (piece.outer.closed ? { outer: piece.outer, holes: piece.holes } : { outer: rectanglePath(grown(pathBox(piece.outer))), holes: [] }); // biome-ignore format: one line
const grown = ({ minX, minY, maxX, maxY }: Box): Box => ({ minX: minX - 0.05, minY: minY - 0.05, maxX: maxX + 0.05, maxY: maxY + 0.05 });

/** @param seed another one lays out otherwise. @throws SaidError where there is nothing to lay out, or far too much */
export function* layoutOfPieces(
  pieces: readonly Piece[],
  layout: SheetLayout,
  seed: number,
  now?: () => number,
): Generator<LayoutStep, PieceLayout> {
  const own = sheetParts(pieces);
  const parts = own.map((part): NestingPart => ({ ...outlineOf(part), count: layout.copies[part.piece.id] ?? 1 }));
  const count = parts.reduce((sum, part) => sum + part.count, 0);
  if (count === 0) throw new SaidError(say.make.nothingToLayOut());
  if (count > mostLaid) throw new SaidError(say.make.tooManyCopies(count, mostLaid));
  const sheets = layout.sheets.map(({ widthMm, heightMm, count: copies, leftover }) => ({
    widthMm,
    heightMm,
    count: copies,
    outline: leftover?.outline,
    keepOff: layout.keepOff.map(({ x, y, widthMm: wide, heightMm: high }) =>
      rectanglePath({ minX: x, minY: y, maxX: x + wide, maxY: y + high }),
    ),
  }));
  const { marginMm, gapMm, turnsBy, canMirror, inHoles, seconds } = layout;
  const told = (nested: Nested): PieceLayout => ({
    laid: { copies: nested.placed.map((one) => copyOf(one, own)), sheets: [...nested.sheets], of: outlinesKey(pieces) },
    utilisation: nested.utilisation,
    usedMm: nested.usedMm,
    tooLarge: nested.tooLarge.map((k) => own[k]?.piece.name ?? ''),
    left: nested.left.flatMap((copies, k) => (copies > 0 ? [{ name: own[k]?.piece.name ?? '', count: copies }] : [])),
  });
  const found: Nested[] = [];
  const steps = nest(parts, sheets, { marginMm, gapMm, turns: turnsOf(turnsBy), canMirror, inHoles, seconds, seed }, now);
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) break;
    const { share, better } = step.value;
    if (better) found.push(better);
    yield { share, better: better && told(better) };
  }
  // The best that holds against the outlines themselves; the first one, from the grid, does.
  const right = found.findLast(({ placed }) => layoutFaults(placed, parts, gapMm).length === 0);
  if (!right) throw new Error('parts overlap as they were laid bottom-left');
  if (!layout.commonLines) return told(right);
  const used = right.sheets.map((kind) => sheets[kind] as NestSheet);
  return told({ ...right, placed: settled(right.placed, parts, gapMm, used, marginMm) });
}

function copyOf({ part, sheet, place }: NestedPart, own: readonly SheetPart[]): LaidCopy {
  const { a, b, c, d, e, f } = place;
  const isMirrored = a * d - b * c < 0;
  const turn = isMirrored ? Math.atan2(-b, -a) : Math.atan2(b, a);
  return { pieceId: own[part]?.piece.id ?? '', sheet, isMirrored, turn, x: e, y: f };
}
