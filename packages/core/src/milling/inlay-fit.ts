/**
 * In: an inlay as it is to be cut. Out: how its halves fit: each is milled on trial from stock of its own, the plug is turned over, laid in,
 * and what stands between them or in one another's way is measured in every cell.
 */
import type { Piece } from '../job/schema.ts';
import { type Box, heightOf, pathBox, widthOf } from '../plane/index.ts';
import { HeightField, sweepMoves } from './height-field.ts';
import { halfAngleOf, type MillTool } from './mill-tool.ts';
import type { OperationWork } from './operation-made.ts';
import { operationRuns } from './operation-runs.ts';
import { type OperationOf, startDepth } from './operations.ts';

/** What an inlay is cut from, with which tools; plain data. */
export interface InlayCut {
  readonly operation: OperationOf<'inlay'>;
  readonly piece: Piece;
  readonly tools: readonly MillTool[];
}

export interface InlayFit {
  readonly name: string;
  readonly pieceId: string;
  /** Between the flanks, across them, at most, mm: in outer corners the plug is round where the recess is sharp. */
  readonly gapMm: number;
  /** How far one half reaches into the other, across the flanks, at most, mm. */
  readonly overlapMm: number;
  /** What is left for the glue under the face of the plug, at least, mm; null where the recess has no floor. */
  readonly glueMm: number | null;
}

/** Round the piece so much is looked at, mm: more than is taken away round a plug. */
const marginMm = 9;
const finestCellMm = 0.05;
const mostCells = 600_000;
/** Heights that differ by less are one, mm. */
const sameMm = 1e-4;

/** Yields now and then. */
export function* inlayFit({ operation, piece, tools }: InlayCut): Generator<number, InlayFit> {
  const { minX, minY, maxX, maxY } = pathBox(piece.outer);
  const box = { minX: minX - marginMm, minY: minY - marginMm, maxX: maxX + marginMm, maxY: maxY + marginMm };
  const depthMm = operation.depthMm + operation.sawMm + 1;
  const work: OperationWork = { pieces: [piece], operations: [operation], tools, stock: box, topZ: 0, bottomZ: -depthMm, spoilMm: 0, heights: { safeZ: 5, hopZ: 1 } }; // biome-ignore format: one line
  const recess = yield* half({ ...operation, part: 'recess', pieces: [piece.id] }, work, box);
  yield 0.5;
  const plug = yield* half({ ...operation, part: 'plug', pieces: [piece.id] }, work, box);
  const startMm = startDepth(operation);
  const tool = tools.find(({ id }) => id === operation.tool) as MillTool;
  const across = Math.sin(halfAngleOf(tool));
  const floorZ = -operation.depthMm;
  let [gapMm, overlapMm, glueMm] = [0, 0, Infinity];
  for (let k = 0; k < recess.heights.length; k++) {
    const below = recess.heights[k] as number;
    if (below > -sameMm) continue;
    const { x, y } = recess.middleOf(k);
    const other = plug.cellAt(box.minX + box.maxX - x, y);
    if (other < 0) continue;
    // Turned over, the plug hangs from its face upwards.
    const apart = -startMm - (plug.heights[other] as number) - below;
    if (below <= floorZ + sameMm) glueMm = Math.min(glueMm, apart);
    // Below the face is room for glue.
    else if (below > -startMm) gapMm = Math.max(gapMm, apart * across);
    overlapMm = Math.max(overlapMm, -apart * across);
  }
  return { name: piece.name, pieceId: piece.id, gapMm, overlapMm, glueMm: glueMm === Infinity ? null : glueMm };
}

function* half(operation: OperationOf<'inlay'>, work: OperationWork, box: Box): Generator<number, HeightField> {
  const { runs } = yield* operationRuns(operation, work);
  // As many whole cells as there are, so that mirrored they lie on one another.
  const cellMm = Math.max(finestCellMm, Math.sqrt((widthOf(box) * heightOf(box)) / mostCells));
  const field = new HeightField(box, 0, widthOf(box) / Math.ceil(widthOf(box) / cellMm));
  for (const { start, moves, tool } of runs) yield* sweepMoves(field, start, moves, tool);
  return field;
}
