/**
 * In: pieces. Out: outlines that must close and do not, ends that nearly meet, lines without a purpose.
 */
import { pathsOf } from '../job/piece-paths.ts';
import { makeOf, mustClose } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { type FixWord, length, type Printed, sayings } from '../messages/index.ts';
import {
  distance,
  endOf,
  nearestOnPath,
  nearestOnSegment,
  type Path,
  type Point,
  pathBox,
  pathLength,
  reversedPath,
  segmentLength,
  splitSegment,
  stepsOf,
} from '../plane/index.ts';
import { closedExactly, counterClockwise, endPairs, withEndsJoined } from '../shape/index.ts';
import { type Check, type Fault, replaced } from './fault.ts';

/** What it says of what it finds. */
const words = {
  open: (name: Printed, gap: Printed) => `${name} is not closed: its ends are ${gap} apart.`,
  purposeUnset: (name: Printed) => `${name} is an open line with no purpose set.`,
  nearMiss: (name: Printed, other: Printed, gap: Printed) => `${name} and ${other} have a ${gap} gap between their ends.`,
};
const said = sayings('findings', words);

/** Ends nearer than this were meant to meet: a twentieth of the line, and no more than this, mm. */
const nearMissMm = 3;
const nearMissShare = 0.05;
/** Gaps this small are closed by moving the ends together; wider ones by a straight line, mm. */
const meetMm = 0.5;

/** A path that says it is closed and does not come back to its start. */
const gapOf = (path: Path): number => distance(endOf(path), path.start);
const isClosed = (path: Path): boolean => path.closed && gapOf(path) < 1e-6;

/** @param others the outlines that an open line may end on, which closes it with them */
export function endFaults(piece: Piece, others: (at: Point) => boolean): Fault[] {
  if (!mustClose(piece)) return [];
  const open = [piece.outer, ...piece.holes].filter((path) => !isClosed(path));
  if (open.length === 0) return [];
  const worst = open.reduce((max, path) => (gapOf(path) > gapOf(max) ? path : max));
  const gap = gapOf(worst);
  const wasMeant = worst.closed || gap <= Math.min(nearMissMm, nearMissShare * pathLength(worst)) || gap < 1e-6;
  const [outer, ...holes] = [piece.outer, ...piece.holes].map((path) => (isClosed(path) ? path : madeClosed(path)));
  const close = replaced(piece, 'close', [{ outer: counterClockwise(outer as Path), holes }]);
  // What is cut once where two pieces share a border ends on the other.
  if (!worst.closed && open.length === 1 && others(worst.start) && others(endOf(worst))) return [];
  const places = open.flatMap((path): Point[] => [path.start, endOf(path)]);
  if (wasMeant)
    return [
      {
        code: 'open',
        weight: 'stops',
        ...said.open(piece.name, length(gap)),
        pieceIds: [piece.id],
        places,
        fixes: [close],
      },
    ];
  const as = (purpose: Piece['purpose'], word: FixWord) => ({ do: 'purpose', word, ids: [piece.id], purpose }) as const;
  return [
    {
      code: 'purpose-unset',
      weight: 'stops',
      ...said.purposeUnset(piece.name),
      pieceIds: [piece.id],
      places,
      fixes: [as('score', 'crease'), as('perforate', 'perforation'), as('engrave', 'engrave'), { do: 'accept', word: 'cutAlong' }, close],
    },
  ];
}

/** An end that lies on the path itself is a stub: the outline closes where it meets itself, and what sticks out goes. */
const withoutStub = (path: Path): Path | null => stubOf(path) ?? stubOf(reversedPath(path));

/** The loop that a path makes where its end comes to lie on its own first part; null where it does not. */
function stubOf(path: Path): Path | null {
  const end = endOf(path);
  const steps = stepsOf(path);
  const whole = pathLength(path);
  let before = 0;
  for (const [k, { from, segment }] of steps.entries()) {
    // At least three quarters of it must be the outline itself.
    if (before > whole / 4 || k > steps.length - 3) return null;
    const near = nearestOnSegment(from, segment, end);
    const rest = splitSegment(from, segment, near.t)[1];
    if (near.distance <= meetMm && near.t < 1 - 1e-9 && before + segmentLength(from, segment) * near.t > 1e-3) {
      const loop = [rest, ...path.segments.slice(k + 1)];
      return closedExactly({ start: near.point, segments: loop, closed: true });
    }
    before += segmentLength(from, segment);
  }
  return null;
}

/** The same path, closed: small gaps by moving the last point, others by a straight line; without stubs that stick out. */
function madeClosed(path: Path): Path {
  const bare = path.closed ? null : withoutStub(path);
  if (bare) return bare;
  if (gapOf(path) <= meetMm && path.segments.length > 1) return closedExactly({ ...path, closed: true });
  return { ...path, segments: [...path.segments, { kind: 'line', to: path.start }], closed: true };
}

/** Ends of different open lines of one purpose that nearly meet. */
export function nearMisses(pieces: readonly Piece[]): Fault[] {
  const open = pieces.filter((p) => !p.outer.closed && p.holes.length === 0 && gapOf(p.outer) > 1e-6);
  const purposes = [...new Set(open.map((p) => p.purpose))].filter((purpose) => makeOf({ purpose }) !== 'nothing');
  return purposes.flatMap((purpose) => {
    const own = open.filter((p) => p.purpose === purpose);
    return endPairs(
      own.map((p) => p.outer),
      nearMissMm,
    ).flatMap(({ a, b, gapMm }): Fault[] => {
      const [p, q] = [own[a.path] as Piece, own[b.path] as Piece];
      const shorter = Math.min(pathLength(p.outer), pathLength(q.outer));
      // Creases and stitches may touch; ends that lie upon one another are joined by the file's writer.
      if (p === q || gapMm < 1e-6 || gapMm > nearMissShare * shorter * 4) return [];
      const joined = withEndsJoined([p.outer, q.outer], gapMm + 1e-9, gapMm <= meetMm ? 'meet' : 'straight');
      return [
        {
          code: 'near-miss',
          weight: 'look',
          ...said.nearMiss(p.name, q.name, length(gapMm)),
          pieceIds: [p.id, q.id],
          places: [a.at, b.at],
          fixes: [
            {
              do: 'replace',
              word: 'join',
              ids: [p.id, q.id],
              by: joined.map((outer) => ({ name: p.name, purpose, outer: outer.closed ? counterClockwise(outer) : outer, holes: [] })),
            },
            { do: 'accept', word: 'ignore' },
          ],
        },
      ];
    });
  });
}

/** Whether a place lies on the outline of another piece that is cut. */
function endsOn(pieces: readonly Piece[], own: Piece, at: Point): boolean {
  return pieces.some((p) => {
    if (p === own || p.purpose !== own.purpose) return false;
    const { minX, minY, maxX, maxY } = pathBox(p.outer);
    if (at.x < minX - touchMm || at.x > maxX + touchMm || at.y < minY - touchMm || at.y > maxY + touchMm) return false;
    return pathsOf(p).some((path) => nearestOnPath(path, at).distance <= touchMm);
  });
}

/** An end this near to an outline lies on it, mm. */
const touchMm = 0.03;

export const endCheck = {
  words,
  kinds: {
    open: { heading: 'Not closed' },
    'purpose-unset': { heading: 'Without a purpose' },
    'near-miss': { heading: 'Nearly meeting' },
  },
  all: (pieces: readonly Piece[]) => [
    ...pieces.flatMap((piece) => endFaults(piece, (at) => endsOn(pieces, piece, at))),
    ...nearMisses(pieces),
  ],
} as const satisfies Check;
