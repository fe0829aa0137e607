/**
 * In: one operation and what it is done to. Out: its runs, what it may take off, and what its tool cannot make. Each kind of operation
 * is a function.
 */
import { makeOf } from '../job/purposes.ts';
import { length, say } from '../messages/index.ts';
import { circlePath, rectanglePath } from '../plane/index.ts';
import { carvings, inlays, pockets } from './area-runs.ts';
import { faceMoves } from './face.ts';
import { chamferMoves, followMoves } from './follow.ts';
import { boreMoves, drillMoves, makesHole, roundHole } from './holes.ts';
import { halfAngleOf, radiusOf, type ToolShape } from './mill-tool.ts';
import { isPart, Made, type OperationMade, type OperationWork, radiansOf } from './operation-made.ts';
import type { Operation, OperationOf } from './operations.ts';
import { profiles } from './profile-runs.ts';

export function* operationRuns(operation: Operation, work: OperationWork): Generator<number, OperationMade> {
  const made = new Made(operation, work);
  switch (operation.kind) {
    case 'profile':
      yield* profiles(operation, work, made);
      break;
    case 'pocket':
      yield* pockets(operation, work, made);
      break;
    case 'carve':
      yield* carvings(operation, work, made);
      break;
    case 'inlay':
      yield* inlays(operation, work, made);
      break;
    case 'follow':
      follows(operation, work, made);
      break;
    case 'chamfer':
      chamfers(operation, work, made);
      break;
    case 'holes':
      holes(operation, work, made);
      break;
    case 'face':
      made.add(made.tool, null, faceMoves(work.stock, made.tool, { topZ: work.topZ, bottomZ: work.topZ - operation.depthMm, pattern: operation.pattern }, work.heights)); // biome-ignore format: one line
      made.allow({ outer: rectanglePath(work.stock), holes: [] }, work.topZ - operation.depthMm, null);
  }
  return made;
}

function follows(operation: OperationOf<'follow'>, work: OperationWork, made: Made): void {
  const bottomZ = work.topZ - operation.depthMm;
  for (const piece of made.pieces((one) => makeOf(one) === 'line'))
    for (const path of [piece.outer, ...piece.holes]) {
      made.add(
        made.tool,
        piece,
        followMoves(path, made.tool, { topZ: work.topZ, bottomZ, entryAngle: radiansOf(operation.entryAngle) }, work.heights),
      );
      made.allowAlong(path, made.tool, bottomZ);
    }
}

function chamfers(operation: OperationOf<'chamfer'>, work: OperationWork, made: Made): void {
  const { tool } = made;
  if (tool.kind !== 'V-bit') {
    made.say(say.milling.needsPointed('Chamfer'), true, null);
    return;
  }
  const cot = 1 / Math.tan(halfAngleOf(tool));
  for (const piece of made.pieces(isPart)) {
    if (!made.isArea(piece)) continue;
    const borders = [
      ...(operation.side === 'inside' ? [] : [{ path: piece.outer, side: 'outside' as const }]),
      ...(operation.side === 'outside' ? [] : piece.holes.map((path) => ({ path, side: 'inside' as const }))),
    ];
    for (const { path, side } of borders) {
      const one = chamferMoves(path, side, tool, operation.widthMm, work.topZ, work.heights);
      if (one) made.add(tool, piece, one);
      else made.say(say.milling.chamferTooWide(length(operation.widthMm), tool.name), true, piece);
      // As a point would that went along the edge itself.
      const point: ToolShape = { kind: 'V-bit', diameterMm: 2 * operation.widthMm, tipMm: 0, angle: tool.angle };
      made.allowAlong(path, point, work.topZ - operation.widthMm * cot);
    }
  }
}

function holes(operation: OperationOf<'holes'>, work: OperationWork, made: Made): void {
  const { tool } = made;
  const bottomZ = operation.depthMm === null ? work.bottomZ - work.spoilMm : work.topZ - operation.depthMm;
  const settings = {
    topZ: work.topZ,
    bottomZ,
    peckMm: operation.peckMm,
    spotMm: operation.spotMm,
    entryAngle: radiansOf(operation.entryAngle),
  };
  for (const piece of made.pieces(isPart))
    for (const hole of piece.holes) {
      const round = roundHole(hole);
      if (!round || !makesHole(operation, round, tool)) continue;
      const one = tool.kind === 'drill' ? drillMoves(round, tool, settings, work.heights) : boreMoves(round, tool, settings, work.heights);
      if (one) made.add(tool, piece, one);
      else made.say(say.milling.narrowerThanTool(1, piece.name, tool.name), false, piece);
      // A drill makes the hole as wide as itself.
      if (tool.kind === 'drill')
        made.allow({ outer: circlePath(round.centre, radiusOf(tool)), holes: [] }, bottomZ, piece, { isWanted: false });
    }
}
