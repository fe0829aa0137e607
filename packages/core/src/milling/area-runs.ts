/** In: areas. Out: the runs that clear them: pockets with what a second tool takes of their corners, carvings, inlays. */
import type { Piece } from '../job/schema.ts';
import { say } from '../messages/index.ts';
import {
  type Box,
  type Path,
  type Point,
  pathArea,
  pathBox,
  polygonOf,
  polygonPath,
  rectanglePath,
  reversedPath,
  transformedPath,
} from '../plane/index.ts';
import { convexHull } from '../raster/index.ts';
import { combined, mirrorAbout, nested } from '../shape/index.ts';
import { finished } from '../steps.ts';
import { carveDepth, carveMoves, floorMoves } from './carve.ts';
import { areaOfPiece, lostInside } from './from-purposes.ts';
import { HeightField, sweepMoves } from './height-field.ts';
import { halfAngleOf, type MillTool, radiusOf } from './mill-tool.ts';
import type { Moves } from './moves.ts';
import { isFilled, type Made, type OperationWork, type RunMade, radiansOf, sayLost, worthSayingMm2 } from './operation-made.ts';
import { type OperationOf, plainEngagement, startDepth } from './operations.ts';
import { type PocketSettings, pocketMoves } from './pocket.ts';
import { type Area, inset } from './tool-rings.ts';

function pocketSettingsOf(operation: OperationOf<'pocket'>, { topZ }: OperationWork, bottomZ: number): PocketSettings {
  const { pattern, lineAngle, direction, finishMm, entryAngle, engagement } = operation;
  return { topZ, bottomZ, pattern, lineAngle, direction, finishMm, entryAngle: radiansOf(entryAngle), engagement };
}

export function* pockets(operation: OperationOf<'pocket'>, work: OperationWork, made: Made): Generator<number, void> {
  const { tool } = made;
  const rest = made.toolOf(operation.restTool);
  const bottomZ = work.topZ - (operation.depthMm ?? -work.bottomZ / 2);
  const settings = pocketSettingsOf(operation, work, bottomZ);
  for (const piece of made.pieces(isFilled)) {
    if (!made.isArea(piece)) continue;
    const area = areaOfPiece(piece);
    made.allow(area, bottomZ, piece);
    const one = yield* pocketMoves(area, tool, settings, work.heights);
    if (one) made.addCleared(tool, piece, one, operation.engagement);
    if (rest) yield* restOfPocket(area, tool, rest, settings, piece, work, made, one);
    else if (!one) made.say(say.milling.noFits(tool.name, piece.name), true, piece);
    else sayLost((r) => lostInside(area, r), piece, made, work);
  }
}

/** What the first tool leaves, with a smaller one. */
function* restOfPocket(
  area: Area,
  { diameterMm }: MillTool,
  rest: MillTool,
  settings: PocketSettings,
  piece: Piece,
  work: OperationWork,
  made: Made,
  first: Moves | null,
): Generator<number, void> {
  if (inset(area, radiusOf(rest)).length === 0) {
    made.say(say.milling.noFits(rest.name, piece.name), true, piece);
    return;
  }
  if (lostInside(area, diameterMm / 2) <= worthSayingMm2) return;
  const before = first && { start: first.start, moves: first.list, radiusMm: diameterMm / 2 };
  for (const left of restAreas(area, diameterMm / 2, radiusOf(rest))) {
    const again = yield* pocketMoves(left, rest, { ...settings, finishMm: 0 }, work.heights);
    if (again) made.addCleared(rest, piece, again, settings.engagement, before);
  }
  const still = lostInside(area, radiusOf(rest));
  if (still > worthSayingMm2) made.say(say.milling.leaves(rest.name, still.toFixed(2), piece.name), false, piece);
}

/** What a first tool leaves of an area, with as much round it as a smaller one needs to get at it. */
function restAreas(area: Area, radiusMm: number, smallerMm: number): Area[] {
  const opened = inset(area, radiusMm).flatMap((one) => inset(one, -radiusMm)).flatMap(({ outer, holes }) => [outer, ...holes]); // biome-ignore format: one line
  const whole = nested([area.outer, ...area.holes]).flatMap(({ outer, holes }) => [outer, ...holes]);
  const rest = opened.length === 0 ? whole : combined(whole, opened, 'take-away');
  const left = nested(rest).reduce(
    (sum, { outer, holes }) => sum + pathArea(outer) + holes.reduce((inner, hole) => inner + pathArea(hole), 0),
    0,
  );
  // Where the parting of borders that run together went amiss, all is gone over: slower, and as right.
  if (left < 0.97 * lostInside(area, radiusMm) - 1e-3) return [area];
  const grown = nested(rest)
    .filter(({ outer }) => Math.abs(pathArea(outer)) > 1e-4)
    // About what is left, whose tips are too thin to be set off themselves, its hull is grown.
    .flatMap(({ outer }) => inset({ outer: polygonPath(convexHull(polygonOf(outer, 0.02))), holes: [] }, -(2 * smallerMm + 0.05)))
    .reduce<Path[]>((all, { outer, holes }) => (all.length === 0 ? [outer, ...holes] : combined(all, [outer, ...holes], 'unite')), []);
  return grown.length === 0 ? [] : nested(combined(whole, grown, 'keep-common'));
}

export function* carvings(operation: OperationOf<'carve'>, work: OperationWork, made: Made): Generator<number, void> {
  for (const piece of made.pieces(isFilled)) {
    if (!made.isArea(piece)) continue;
    yield* carved(areaOfPiece(piece), operation.depthMm, made.toolOf(operation.floorTool), piece, work, made);
  }
}

/** One area carved to a depth, its floor cleared by an upright tool first where there is one. */
function* carved(
  area: Area,
  depthMm: number,
  upright: MillTool | null,
  piece: Piece,
  work: OperationWork,
  made: Made,
): Generator<number, void> {
  const { tool } = made;
  if (!['V-bit', 'tapered', 'ball'].includes(tool.kind)) {
    made.say(say.milling.needsPointed('Carve'), true, piece);
    return;
  }
  const depthAt = carveDepth(tool, depthMm);
  const bottomZ = work.topZ - depthAt(Infinity);
  made.allow(area, bottomZ, piece, { wall: tool });
  let isCleared: ((p: Point) => boolean) | null = null;
  if (upright) {
    const before = made.runs.length;
    const settings: Omit<PocketSettings, 'bottomZ'> = {
      topZ: work.topZ,
      pattern: 'rings',
      lineAngle: 0,
      direction: 'climb',
      finishMm: 0,
      entryAngle: null,
      engagement: plainEngagement,
    };
    for (const one of yield* floorMoves(area, tool, upright, depthAt(Infinity), settings, work.heights))
      made.addCleared(upright, piece, one, plainEngagement);
    isCleared = clearedBy(made.runs.slice(before), pathBox(area.outer), bottomZ);
  }
  const one = yield* carveMoves(area, tool, { topZ: work.topZ, depthMm }, work.heights, isCleared);
  if (one) made.add(tool, piece, one);
  else made.say(say.milling.noFits(tool.name, piece.name), true, piece);
}

/** What runs cleared down to a height, as places are asked for: they are milled on trial. */
function clearedBy(runs: readonly RunMade[], box: Box, bottomZ: number): (p: Point) => boolean {
  if (runs.length === 0) return () => false;
  const field = new HeightField(box, bottomZ + 1, Math.max(clearedCellMm, Math.hypot(box.maxX - box.minX, box.maxY - box.minY) / 2000));
  for (const { start, moves, tool } of runs) finished(sweepMoves(field, start, moves, tool));
  return ({ x, y }) => {
    const cell = field.cellAt(x, y);
    return cell >= 0 && (field.heights[cell] as number) <= bottomZ + 1e-6;
  };
}

const clearedCellMm = 0.04;

/** Round a plug so much waste is taken away that it goes into its recess, mm. */
const plugRoundMm = 8;

export function* inlays(operation: OperationOf<'inlay'>, work: OperationWork, made: Made): Generator<number, void> {
  const upright = made.toolOf(operation.floorTool);
  for (const piece of made.pieces(isFilled)) {
    if (!made.isArea(piece)) continue;
    const area = areaOfPiece(piece);
    if (operation.part === 'recess') yield* carved(area, operation.depthMm, upright, piece, work, made);
    else {
      const startMm = startDepth(operation);
      for (const ground of plugGround(area, startMm, made.tool))
        yield* carved(ground, startMm + operation.sawMm, upright, piece, work, made);
    }
  }
}

/**
 * What is carved away round a plug, mirrored, since it is laid in face down: at the start depth its flanks have the size of the
 * recess at its top.
 */
function plugGround(area: Area, startMm: number, tool: MillTool): Area[] {
  const { minX, minY, maxX, maxY } = pathBox(area.outer);
  const middle = (minX + maxX) / 2;
  const mirror = mirrorAbout({ x: middle, y: minY }, { x: middle, y: maxY });
  const mirrored: Area = {
    outer: reversedPath(transformedPath(area.outer, mirror)),
    holes: area.holes.map((hole) => reversedPath(transformedPath(hole, mirror))),
  };
  // In outer corners its face is as round as a flat tip leaves the recess there.
  const tipMm = tool.tipMm / 2;
  const inner = inset(mirrored, startMm * Math.tan(halfAngleOf(tool)) + tipMm);
  const face = tipMm > 0 ? inner.flatMap((one) => inset(one, -tipMm)) : inner;
  const round = rectanglePath({ minX: minX - plugRoundMm, minY: minY - plugRoundMm, maxX: maxX + plugRoundMm, maxY: maxY + plugRoundMm });
  const taken = face.flatMap(({ outer, holes }) => [outer, ...holes]);
  return taken.length === 0 ? [] : nested(combined([round], taken, 'take-away'));
}
