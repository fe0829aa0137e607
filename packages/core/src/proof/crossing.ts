/**
 * In: pieces. Out: outlines that cross themselves or one another; a touch is no crossing.
 */

import { pathsOf } from '../job/piece-paths.ts';
import { mustClose } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { type Printed, sayings } from '../messages/index.ts';
import { places } from '../messages/phrases.ts';
import {
  cross,
  directionOn,
  distance,
  nearestOnPath,
  type Path,
  type Point,
  pathArea,
  pointOn,
  reversedPath,
  type Step,
  segmentLength,
  stepsOf,
} from '../plane/index.ts';
import {
  type CutPlace,
  combined,
  nested,
  pathCrossings,
  selfCrossings,
  simpleParts,
  unitedOutlines,
  windingNumber,
} from '../shape/index.ts';
import { type Check, type Fault, isBody, replaced } from './fault.ts';

/** What it says of what it finds. */
const words = {
  crossesItself: (name: Printed, count: number) => `${name} crosses itself ${places(count)}.`,
  crossesItsHoles: (name: Printed, count: number) => `${name} and its holes cross ${places(count)}.`,
  crossesAnother: (name: Printed, other: Printed, count: number) => `${name} and ${other} cross ${places(count)}.`,
};
const said = sayings('findings', words);

/** Beside a crossing the sides are looked at from this far, mm. */
const besideMm = 0.01;
/** Directions that differ by less run along each other, sine. */
const alongSine = 1e-3;
/** Of an outline that crosses itself, loops smaller than this share of the largest are slips of the pen. */
const slipShare = 0.05;

export function selfCrossingFaults(piece: Piece): Fault[] {
  const paths = pathsOf(piece);
  const found = selfCrossings(paths);
  const places: Point[] = [];
  for (let k = 0; k + 1 < found.length; k += 2) {
    const [a, b] = [found[k] as CutPlace, found[k + 1] as CutPlace];
    if (isCrossing(paths, a, paths, b) && !places.some((p) => distance(p, a.at) < besideMm)) places.push(a.at);
  }
  if (places.length === 0) return [];
  const isAmongPaths = piece.holes.length > 0 && paths.every((path) => selfCrossings([path]).length === 0);
  const fixed = paths.every((path) => path.closed) ? plain(piece) : null;
  return [
    {
      code: 'crosses-itself',
      weight: 'stops',
      ...(isAmongPaths ? said.crossesItsHoles : said.crossesItself)(piece.name, places.length),
      pieceIds: [piece.id],
      places,
      fixes: fixed && fixed.length > 0 ? [replaced(piece, 'removeLoops', fixed)] : [],
    },
  ];
}

/** A piece without its small loops: what the others go round at least once stays, holes are taken out anew. */
function plain({ outer, holes }: Piece): { outer: Path; holes: Path[] }[] {
  const largest = (path: Path): Path[] => {
    const loops = simpleParts(path);
    const max = Math.max(...loops.map(pathArea));
    return loops.filter((loop) => pathArea(loop) >= slipShare * max);
  };
  const body = unitedOutlines(largest(outer));
  const cut = unitedOutlines(holes.flatMap(largest));
  return nested(cut.length === 0 ? body : combined(body, cut, 'take-away'));
}

/** Crossings of the outlines of two pieces that are both cut through, or both cleared. */
export function mutualCrossingFaults(a: Piece, b: Piece): Fault[] {
  if (a.purpose !== b.purpose || !mustClose(a)) return [];
  const [ours, theirs] = [pathsOf(a), pathsOf(b)];
  const { onA, onB } = pathCrossings(ours, theirs);
  const places: Point[] = [];
  onA.forEach((place, k) => {
    if (!places.some((p) => distance(p, place.at) < besideMm) && isCrossing(ours, place, theirs, onB[k] as CutPlace)) places.push(place.at);
  });
  if (places.length === 0) return [];
  const bodies = isBody(a) && isBody(b);
  return [
    {
      code: 'crosses-another',
      weight: 'stops',
      ...said.crossesAnother(a.name, b.name, places.length),
      pieceIds: [a.id, b.id],
      places,
      fixes: bodies
        ? [
            {
              do: 'replace',
              word: 'unite',
              ids: [a.id, b.id],
              by: nested(combined(turned(ours), turned(theirs), 'unite')).map(({ outer, holes }) => ({
                name: a.name,
                purpose: a.purpose,
                outer,
                holes,
              })),
            },
            { do: 'accept', word: 'ignore' },
          ]
        : [{ do: 'accept', word: 'ignore' }],
    },
  ];
}

/** Outer outlines counter-clockwise, holes clockwise. */
const turned = ([outer, ...holes]: Path[]): Path[] => [
  ...(outer ? [pathArea(outer) < 0 ? reversedPath(outer) : outer] : []),
  ...holes.map((hole) => (pathArea(hole) > 0 ? reversedPath(hole) : hole)),
];

/** Whether one path passes through the other at a place where both meet. */
function isCrossing(ours: readonly Path[], a: CutPlace, theirs: readonly Path[], b: CutPlace): boolean {
  const [p, q] = [ours[a.path] as Path, theirs[b.path] as Path];
  const [s, t] = [stepOf(p, a), stepOf(q, b)];
  const [d, e] = [directionOn(s.from, s.segment, a.t), directionOn(t.from, t.segment, b.t)];
  const isWithin = [a, b].every(({ t: u }) => u > 1e-6 && u < 1 - 1e-6);
  const sine = Math.abs(cross(d, e));
  if (isWithin && sine > alongSine) return true;
  if (!p.closed || !q.closed) return isWithin && sine > alongSine ? true : sine > alongSine && passesThrough(p, q, b);
  if (p === q) return isWithin && sine > alongSine;
  return passesThrough(p, q, b);
}

const stepOf = (path: Path, place: CutPlace): Step => stepsOf(path)[place.segment] as Step;

/** Whether a path is on different sides of a closed one before and after a place on it. */
function passesThrough(other: Path, path: Path, place: CutPlace): boolean {
  if (!other.closed) return false;
  const [before, after] = [walked(path, place, -besideMm), walked(path, place, besideMm)];
  if (!before || !after) return false;
  // Where both run along each other neither side is left or taken: that is a doubled line.
  if ([before, after].some((p) => nearestOnPath(other, p).distance < besideMm / 10)) return false;
  return (windingNumber([other], before) !== 0) !== (windingNumber([other], after) !== 0);
}

/** The place so far along a path from another; null beyond an open end. */
function walked(path: Path, { segment, t }: CutPlace, by: number): Point | null {
  const steps = stepsOf(path);
  const n = steps.length;
  const { from, segment: s } = steps[segment] as Step;
  const length = segmentLength(from, s);
  const u = t + by / Math.max(length, 1e-9);
  if (u >= 0 && u <= 1) return pointOn(from, s, u);
  const next = segment + Math.sign(by);
  if (!path.closed && (next < 0 || next >= n)) return null;
  const step = steps[(next + n) % n] as Step;
  const left = u > 1 ? (u - 1) * length : -u * length;
  const share = Math.min(1, left / Math.max(segmentLength(step.from, step.segment), 1e-9));
  return pointOn(step.from, step.segment, u > 1 ? share : 1 - share);
}

export const crossingCheck = {
  words,
  kinds: {
    'crosses-itself': { heading: 'Crossing themselves' },
    'crosses-another': { heading: 'Crossing one another' },
  },
  own: selfCrossingFaults,
  pair: mutualCrossingFaults,
} as const satisfies Check;
