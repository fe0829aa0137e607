/**
 * In: a piece and a round tool. Out: inner corners and hollows that the tool cannot reach into.
 */
import type { Piece } from '../job/schema.ts';
import { length, type Printed, sayings } from '../messages/index.ts';
import { several } from '../messages/phrases.ts';
import {
  circleOf,
  directionOn,
  distance,
  type LineSegment,
  type Path,
  type Point,
  pathArea,
  pointOn,
  reversedPath,
  type Segment,
  stepsOf,
  turnBetween,
} from '../plane/index.ts';
import { cornersOf, withCornersCut } from '../shape/index.ts';
import { type Check, type Fault, isBody, isSpoilt, type ProofLimits, replaced } from './fault.ts';

/** What it says of what it finds. */
const words = {
  sharpCorners: (name: Printed, count: number, tool: Printed) =>
    `${name} has ${several(count, 'an inner corner', 'inner corners')} sharper than a tool of ${tool} can cut.`,
};
const said = sayings('findings', words);

/** Thinner tools round corners by less than anybody sees, mm. */
const minToolMm = 0.5;
/** Corners that turn by less come out well enough, radians. */
const minTurn = 0.3;

export function toolCornerFaults(piece: Piece, { kerfMm }: ProofLimits): Fault[] {
  if (!isBody(piece) || kerfMm < minToolMm) return [];
  const spans = [piece.outer, ...piece.holes].map((path, k) => ({ path, corners: hollowCorners(path, k > 0) }));
  const places = spans.flatMap(({ path, corners }) => [
    ...corners.map((c) => c.at),
    ...tightHollows(path, path !== piece.outer, kerfMm / 2),
  ]);
  if (places.length === 0) return [];
  const relieved = spans.map(({ path, corners }) =>
    withCornersCut(
      path,
      corners.map((c) => c.index),
      kerfMm / 2,
      'dog-bone',
    ),
  );
  const canRelieve = relieved.some(({ left }, k) => left.length < (spans[k] as (typeof spans)[0]).corners.length);
  const [outer, ...holes] = relieved.map(({ path }) => path);
  return [
    {
      code: 'sharp-corner',
      weight: 'look',
      ...said.sharpCorners(piece.name, places.length, length(kerfMm)),
      pieceIds: [piece.id],
      places,
      fixes: [
        ...(canRelieve ? [replaced(piece, 'dogBones', [{ outer: outer as Path, holes }])] : []),
        { do: 'accept', word: 'roundIsFine' },
      ],
    },
  ];
}

/** Corners that the tool would have to reach into: those that point into the material. */
function hollowCorners(path: Path, isHole: boolean): { index: number; at: Point }[] {
  // Outer outlines are taken counter-clockwise, holes clockwise: then the tool runs on the right and hollows turn right.
  const sign = pathArea(path) > 0 === isHole ? -1 : 1;
  return cornersOf(path).filter(({ turn }) => turn * sign < -minTurn);
}

/** Arcs that hollow the material out more tightly than the tool is round. */
function tightHollows(path: Path, isHole: boolean, radius: number): Point[] {
  const turned = pathArea(path) > 0 === isHole ? reversedPath(path) : path;
  return stepsOf(turned).flatMap(({ from, segment }) => {
    if (segment.kind === 'arc') return segment.sweep < -minTurn && circleOf(from, segment).radius < radius - 1e-6 ? [segment.to] : [];
    if (segment.kind === 'line') return [];
    return tightestOn(from, segment) < radius - 1e-6 && turnBetween(directionOn(from, segment, 0), directionOn(from, segment, 1)) < -minTurn
      ? [segment.to]
      : [];
  });
}

/** The smallest radius along a curve, where it hollows, from how fast its direction turns between near places. */
function tightestOn(from: Point, segment: Exclude<Segment, LineSegment>): number {
  const n = 24;
  let min = Infinity;
  for (let k = 0; k < n; k++) {
    const turn = turnBetween(directionOn(from, segment, k / n), directionOn(from, segment, (k + 1) / n));
    if (turn < 0) min = Math.min(min, distance(pointOn(from, segment, k / n), pointOn(from, segment, (k + 1) / n)) / -turn);
  }
  return min;
}

export const toolCornerCheck = {
  words,
  kinds: {
    'sharp-corner': { heading: 'Too sharp for the tool' },
  },
  own: (piece: Piece, limits: ProofLimits, before: readonly Fault[]) => (isSpoilt(piece, before) ? [] : toolCornerFaults(piece, limits)),
} as const satisfies Check;
