/** In: pieces to be cut out. Out: the runs round their borders, with room in the corners that a mate must fill. */
import type { Piece } from '../job/schema.ts';
import { type IsWaste, wasteBeside } from '../make/leads.ts';
import { length, say } from '../messages/index.ts';
import { distance, type Path, type Point, pathArea, reversedPath } from '../plane/index.ts';
import { combined, cornersOf, nested, withCornersCut } from '../shape/index.ts';
import { followMoves } from './follow.ts';
import { leastGap, lostInside, lostOutside } from './from-purposes.ts';
import { makesHole, roundHole } from './holes.ts';
import { radiusOf } from './mill-tool.ts';
import { isPart, type Made, type OperationWork, radiansOf, sayLost } from './operation-made.ts';
import type { OperationOf } from './operations.ts';
import { type ProfileMade, type ProfileSettings, type ProfileSide, profileMoves } from './profile.ts';

/** A corner is the one that was meant if it lies no farther from where it was, mm: outlines are fitted anew now and then. */
const sameCornerMm = 0.1;

/** Pieces may lie nearer than the tool's width by what arcs and curves are off, mm. */
const gapSlackMm = 0.008;

export function* profiles(operation: OperationOf<'profile'>, work: OperationWork, made: Made): Generator<number, void> {
  const parts = work.pieces.filter((piece) => isPart(piece) && piece.outer.closed);
  const borders = parts.flatMap(({ outer, holes }) => [outer, ...holes]);
  const isWaste = wasteBeside(borders, radiusOf(made.tool));
  const mine = made.pieces(isPart);
  const gap = operation.side === 'on' ? Infinity : leastGap(parts);
  if (made.tool.diameterMm > gap + gapSlackMm) {
    made.say(say.milling.gapTooNarrow(made.tool.name, length(made.tool.diameterMm), length(gap)), true, null);
    return;
  }
  for (const [k, piece] of mine.entries()) {
    yield k / mine.length;
    profileOfPiece(piece, operation, work, made, isWaste);
  }
}

/** One piece: its holes first, so that it lies still while they are cut. */
function profileOfPiece(piece: Piece, operation: OperationOf<'profile'>, work: OperationWork, made: Made, isWaste: IsWaste): void {
  const { tool } = made;
  const { side, skinMm } = operation;
  const { topZ, heights } = work;
  const bottomZ = profileBottom(operation, work);
  if (!piece.outer.closed) {
    made.add(tool, piece, followMoves(piece.outer, tool, { topZ, bottomZ, entryAngle: radiansOf(operation.entryAngle) }, heights));
    return;
  }
  const settings = (own: ProfileSide): ProfileSettings => profileSettingsOf(operation, own, work);
  const lost: ((radius: number) => number)[] = [];
  const cut = (path: Path, own: ProfileSide, isLeft: boolean): ProfileMade | null => {
    const border = withReliefs(path, isLeft, operation, piece, bottomZ, made);
    const one = profileMoves(border, tool, settings(own), heights, isWaste);
    if (one) made.add(tool, piece, one.moves, { border: path, tabsAt: one.tabsAt });
    if (one && own !== 'on') lost.push((r) => (own === 'inside' ? lostInside({ outer: border, holes: [] }, r) : lostOutside(border, r)));
    return one;
  };
  if (side === 'both' || side === 'inside') {
    const missed = piece.holes.filter((path) => !isHoled(path, work, made) && !cut(path, 'inside', false)).length;
    if (missed > 0) made.say(say.milling.narrowerThanTool(missed, piece.name, tool.name), false, piece);
  }
  const one = side === 'inside' ? null : cut(piece.outer, side === 'on' ? 'on' : 'outside', true);
  sayLost((r) => lost.reduce((sum, of) => sum + of(r), 0), piece, made, work);
  const isHeld = side === 'inside' || operation.depthMm !== null || skinMm > 0 || (one?.tabsAt.length ?? 0) > 0;
  if (!isHeld) made.say(say.milling.comesLoose(piece.name), false, piece);
  if (side === 'on') made.allowAlong(piece.outer, tool, bottomZ);
}

/** Right through into the spoil board, or to its depth; over the skin where one is left. */
function profileBottom({ depthMm, skinMm }: OperationOf<'profile'>, { topZ, bottomZ, spoilMm }: OperationWork): number {
  if (depthMm !== null) return topZ - depthMm + skinMm;
  return skinMm > 0 ? bottomZ + skinMm : bottomZ - spoilMm;
}

function profileSettingsOf(operation: OperationOf<'profile'>, side: ProfileSide, work: OperationWork): ProfileSettings {
  const { direction, finishMm, entryAngle, leadMm, tabs, depthMm, skinMm } = operation;
  const isHeld = tabs !== null && skinMm === 0 && depthMm === null && side === 'outside';
  return {
    side,
    topZ: work.topZ,
    bottomZ: profileBottom(operation, work),
    direction,
    finishMm,
    entryAngle: radiansOf(entryAngle),
    leadMm,
    tabs: isHeld && tabs ? { ...tabs, bottomZ: work.bottomZ } : null,
  };
}

/** Whether another operation makes a hole. */
function isHoled(hole: Path, { operations }: OperationWork, made: Made): boolean {
  const round = roundHole(hole);
  return round !== null && operations.some((o) => o.kind === 'holes' && makesHole(o, round, made.toolOf(o.tool)));
}

/** The corners of a piece that another part may have to fill, as an inside or a hole has them. */
export const innerCornersOf = ({ outer, holes }: Pick<Piece, 'outer' | 'holes'>): Point[] =>
  [{ path: outer, isLeft: true }, ...holes.map((path) => ({ path, isLeft: false }))].flatMap(
    ({ path, isLeft }) =>
    cornersOf(pathArea(path) > 0 === isLeft ? path : reversedPath(path)).filter(({ isOuter }) => !isOuter).map(({ at }) => at), // biome-ignore format: one line
  );

/**
 * A border with room for the tool in the corners that a mate must fill; a little more than its radius, so that it gets there.
 * @param isLeft whether the piece lies on the left of it: of holes on the right
 */
function withReliefs(
  path: Path,
  isLeft: boolean,
  { corners, cornersAt }: OperationOf<'profile'>,
  piece: Piece,
  bottomZ: number,
  made: Made,
): Path {
  const border = pathArea(path) > 0 === isLeft ? path : reversedPath(path);
  if (corners === 'as drawn') return border;
  const inner = cornersOf(border)
    .filter(({ isOuter, at }) => !isOuter && (cornersAt === null || cornersAt.some((place) => distance(place, at) < sameCornerMm)))
    .map(({ index }) => index);
  const relieved = withCornersCut(border, inner, 1.03 * radiusOf(made.tool), corners).path;
  const taken = isLeft
    ? combined([border], [relieved], 'take-away')
    : combined([reversedPath(relieved)], [reversedPath(border)], 'take-away');
  for (const area of nested(taken)) made.allow(area, bottomZ, piece, { isWanted: false });
  return relieved;
}
