/**
 * In: pieces, the tools at hand and the stock. Out: the operations that the purposes of the pieces ask for: a cut is an outside profile
 * right through, with its holes; a pocket is cleared; an engraved line is followed; holes of a drill's size are drilled.
 */
import { makeOf, type Purpose, type PurposeKind } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { type Box, type Path, pathArea, pathBox, polygonOf } from '../plane/index.ts';
import { distanceTo } from '../shape/index.ts';
import { floorOf } from './carve.ts';
import { isDrilledBy, makesHole, roundHole } from './holes.ts';
import { halfAngleOf, type MillTool, radiusOf } from './mill-tool.ts';
import { type Operation, type OperationKind, type OperationOf, operationSchema } from './operations.ts';
import type { MillingSettings } from './settings.ts';
import { type Area, inset } from './tool-rings.ts';

/** Holes up to so many times as wide as the tool are bored on a helix; wider ones are cut round. */
const boreRatio = 3;
/** A wider tool is taken where it leaves no more in corners than the finest would, but for this share of the area. */
const lossShare = 0.003;

export const widestFirst = (tools: readonly MillTool[]): MillTool[] => [...tools].sort((a, b) => b.diameterMm - a.diameterMm);

const areaOf = (areas: readonly Area[]): number =>
  areas.reduce((sum, { outer, holes }) => sum + Math.abs(pathArea(outer)) - holes.reduce((s, h) => s + Math.abs(pathArea(h)), 0), 0);

/** What a round tool leaves standing of an area that it clears: what opening by its radius loses, square mm. */
export const lostInside = (area: Area, radiusMm: number): number =>
  Math.max(0, areaOf([area]) - areaOf(inset(area, radiusMm).flatMap((one) => inset(one, -radiusMm))));

/** What it leaves in the inner corners of a border that it goes round, square mm. */
export const lostOutside = (border: Path, radiusMm: number): number => {
  const area: Area = { outer: border, holes: [] };
  return Math.max(0, areaOf(inset(area, -radiusMm).flatMap((one) => inset(one, radiusMm))) - areaOf([area]));
};

export const areaOfPiece = ({ outer, holes }: Pick<Piece, 'outer' | 'holes'>): Area => ({ outer, holes });

/** The widest that loses hardly more than the finest; @param tools the widest first */
function widestFor(tools: readonly MillTool[], lost: (radiusMm: number) => number, whole: number): MillTool | null {
  const finest = tools.at(-1);
  if (!finest) return null;
  const least = lost(radiusOf(finest));
  return tools.find((tool) => lost(radiusOf(tool)) <= least + lossShare * whole) ?? finest;
}

/** Of some tools those whose edges are long enough; all where none is, so that it is said of one. */
function reaching(tools: readonly MillTool[], depthMm: number): readonly MillTool[] {
  const long = tools.filter(({ cutLengthMm }) => cutLengthMm === null || cutLengthMm >= depthMm);
  return long.length > 0 ? long : tools;
}

const wholeOf = (pieces: readonly Piece[]): number => areaOf(pieces.map(areaOfPiece));
const closedOnly = (pieces: readonly Piece[]): Piece[] => pieces.filter(({ outer }) => outer.closed);

/** The finest point: a V-bit before others, the narrowest first. */
const finestPointed = (tools: readonly MillTool[]): MillTool | null =>
  [...tools]
    .filter(({ kind }) => kind === 'V-bit' || kind === 'tapered' || kind === 'ball')
    .sort((a, b) => Number(b.kind === 'V-bit') - Number(a.kind === 'V-bit') || a.tipMm - b.tipMm || halfAngleOf(a) - halfAngleOf(b))[0] ??
  null;

/** How near the borders of two pieces come to each other, mm: a profile between them must be no wider. */
export function leastGap(parts: readonly Piece[]): number {
  const boxes = parts.map(({ outer }) => pathBox(outer));
  let least = Infinity;
  for (const [k, piece] of parts.entries()) {
    const others = parts.filter((_, j) => j !== k && boxDistanceOf(boxes[j] as Box, boxes[k] as Box) < least);
    if (others.length === 0) continue;
    const away = distanceTo(others.flatMap(({ outer, holes }) => [outer, ...holes]));
    for (const p of polygonOf(piece.outer, 0.02)) least = Math.min(least, away(p));
  }
  return least;
}

const boxDistanceOf = (a: Box, b: Box): number =>
  Math.hypot(Math.max(0, b.minX - a.maxX, a.minX - b.maxX), Math.max(0, b.minY - a.maxY, a.minY - b.maxY));

/** With what the round holes of some pieces are made: a drill for all that it fits, else a mill for each diameter that it can bore. */
function holeTools(
  holes: readonly Path[],
  tools: readonly MillTool[],
  mills: readonly MillTool[],
): { readonly tool: MillTool; readonly diameterMm: number | null; readonly peckMm: number | null }[] {
  const sizes = new Set(holes.flatMap((hole) => roundHole(hole)?.diameterMm ?? []).map((diameter) => Math.round(diameter * 100) / 100));
  const drillFor = (size: number): MillTool | undefined => tools.find((tool) => tool.kind === 'drill' && isDrilledBy(tool, size));
  const drills = new Set([...sizes].flatMap((size) => drillFor(size) ?? []));
  const bored = [...sizes].filter((size) => !drillFor(size)).sort((a, b) => a - b);
  return [
    ...[...drills].map((tool) => ({ tool, diameterMm: null, peckMm: Math.max(1, tool.diameterMm) })),
    ...bored.flatMap((size) => {
      const tool = mills.find(({ diameterMm: d }) => d <= size - 0.1 && size <= boreRatio * d);
      return tool ? [{ tool, diameterMm: size, peckMm: null }] : [];
    }),
  ];
}

/** @param thicknessMm of the stock; null where it is not known */
export function operationsFor(pieces: readonly Piece[], settings: MillingSettings, thicknessMm: number | null): Operation[] {
  const { tools } = settings;
  const ends = widestFirst(tools.filter(({ kind }) => kind === 'end mill'));
  const upright = ends.length > 0 ? ends : widestFirst(tools.filter(({ kind }) => kind === 'ball'));
  const pointed = finestPointed(tools);
  const operations: Operation[] = [];
  const add = <K extends OperationKind>(kind: K, tool: MillTool | null, more: Partial<OperationOf<K>>): void => {
    const fields = { kind, id: `${kind}-${operations.length + 1}`, tool: tool?.id ?? 'none', ...more };
    operations.push(operationSchema.parse(fields));
  };
  const ofMake = (make: PurposeKind['make']): Piece[] => pieces.filter((piece) => makeOf(piece) === make);
  const purposesOf = (list: readonly Piece[]): Purpose[] => [...new Set(list.map(({ purpose }) => purpose))];

  for (const of of purposesOf(ofMake('line'))) {
    const finest = pointed ?? upright.at(-1) ?? null;
    add('follow', finest, { of, depthMm: settings.engraveDepthMm });
  }
  for (const of of purposesOf(ofMake('fill'))) {
    const own = closedOnly(pieces.filter(({ purpose }) => purpose === of));
    const depthMm = settings.pocketDepthMm ?? (thicknessMm === null ? 2 : thicknessMm / 2);
    const lost = (radius: number): number => own.reduce((sum, piece) => sum + lostInside(areaOfPiece(piece), radius), 0);
    const deep = reaching(upright, depthMm);
    const finest = widestFor(deep, lost, wholeOf(own));
    if (settings.slopedPockets && pointed) {
      // The pointed tool takes what the upright one leaves of the floor.
      const floors = own.flatMap((piece) => floorOf(areaOfPiece(piece), pointed, depthMm));
      const fits = deep.find((tool) => floors.some((floor) => inset(floor, radiusOf(tool)).length > 0));
      add('carve', pointed, { of, depthMm, floorTool: fits?.id ?? null });
    } else {
      // The widest that goes into each, and a finer one for what that leaves.
      const fits = deep.find((tool) => own.every((piece) => inset(areaOfPiece(piece), radiusOf(tool)).length > 0));
      const first = fits ?? finest;
      add('pocket', first, {
        of,
        depthMm: settings.pocketDepthMm,
        restTool: finest && first && finest.diameterMm < first.diameterMm ? finest.id : null,
      });
    }
  }
  const parts = closedOnly(ofMake('part'));
  const holes = parts.flatMap((piece) => piece.holes);
  for (const { tool, diameterMm, peckMm } of holeTools(holes, tools, upright))
    add('holes', tool, { diameterMm, ...(peckMm !== null && { peckMm }) });
  const drilled = (hole: Path): boolean => {
    const round = roundHole(hole);
    return (
      round !== null && operations.some((o) => o.kind === 'holes' && makesHole(o, round, tools.find(({ id }) => id === o.tool) ?? null))
    );
  };
  const left = holes.filter((hole) => !drilled(hole));
  const gap = leastGap(parts);
  for (const of of purposesOf(parts)) {
    const own = parts.filter(({ purpose }) => purpose === of);
    const borders = own.map(({ outer }) => outer);
    const inner = own.flatMap((piece) => piece.holes.filter((hole) => left.includes(hole)));
    const lost = (radius: number): number =>
      borders.reduce((sum, border) => sum + lostOutside(border, radius), 0) +
      inner.reduce((sum, hole) => sum + lostInside({ outer: hole, holes: [] }, radius), 0);
    const deep = reaching(upright, (thicknessMm ?? 0) + settings.spoilMm);
    const fits = deep.filter(({ diameterMm }) => diameterMm <= gap);
    add('profile', widestFor(fits.length > 0 ? fits : deep, lost, wholeOf(own)), { of });
  }
  return inFewestChanges(operations, tools);
}

/** What comes first: what marks and clears before what parts; of those that may stand in any order the ones of one tool together. */
function inFewestChanges(operations: readonly Operation[], tools: readonly MillTool[]): Operation[] {
  const last = operations.findLast(({ kind }) => kind === 'profile')?.tool;
  const turn = ({ tool }: Operation): number => (tool === last ? tools.length : tools.findIndex(({ id }) => id === tool));
  const stage = ({ kind }: Operation): number => (kind === 'face' ? 0 : kind === 'profile' ? 2 : 1);
  // Floors come before the point that finishes them, and that goes on along the lines.
  const isCarved = ({ kind }: Operation): number => (kind === 'carve' || kind === 'inlay' ? 0 : 1);
  return [...operations].sort((a, b) => stage(a) - stage(b) || turn(a) - turn(b) || isCarved(a) - isCarved(b));
}
