/**
 * In: a piece. Out: outlines too thin or too short to be meant, spurs that go out and back, points that say nothing.
 */

import { pathsOf } from '../job/piece-paths.ts';
import type { Piece } from '../job/schema.ts';
import { length as lengthSaid, type Printed, sayings } from '../messages/index.ts';
import { several } from '../messages/phrases.ts';
import { directionOn, distance, dot, nearestOnSegment, type Path, pathArea, type Segment, type Step, stepsOf } from '../plane/index.ts';
import { withoutNeedless } from '../shape/index.ts';
import { lengthOf } from './borders.ts';
import { type Check, type Fault, isBody, type ProofLimits, replaced } from './fault.ts';
import { closesUp } from './narrow-faults.ts';

/** What it says of what it finds. */
const words = {
  stub: (name: Printed, length: Printed) => `${name} is a stub of ${length}.`,
  sliver: (name: Printed, width: Printed) => `${name} is a sliver about ${width} wide.`,
  sliverHoles: (name: Printed, count: number) => `${name} has ${several(count, 'a hole', 'holes')} no wider than a sliver.`,
  spurs: (name: Printed, count: number, longest: Printed) =>
    count === 1
      ? `${name} has a spur of ${longest} that goes out and back.`
      : `${name} has ${count} spurs of up to ${longest} that go out and back.`,
  redundantPoints: (name: Printed, count: number) => `${name} has ${several(count, 'one redundant point', 'redundant points')}.`,
};
const said = sayings('findings', words);

/** Twice the area over the perimeter is half the width of a strip; thinner ones are slivers, mm. */
const sliverMm = 0.15;
/** Lines shorter than this are stubs, mm. */
const stubMm = 1;
/** Between straight neighbours a point that lies this near to their line says nothing; so does a step this short, mm. */
const needlessMm = 0.002;

export function sliverFaults(piece: Piece, { kerfMm }: { kerfMm: number }): Fault[] {
  const thin = (path: Path): boolean => path.closed && (2 * Math.abs(pathArea(path))) / lengthOf(path) < sliverMm;
  const meant = { do: 'accept', word: 'ignore' } as const;
  const leaveOut = { do: 'leave-out', word: 'excludeIt', ids: [piece.id] } as const;
  if (!piece.outer.closed) {
    const length = lengthOf(piece.outer);
    if (length >= stubMm || piece.purpose === 'stitch') return [];
    return [
      { code: 'stub', weight: 'look', ...said.stub(piece.name, lengthSaid(length)), pieceIds: [piece.id], places: [piece.outer.start], fixes: [leaveOut, meant] },
    ]; // biome-ignore format: one line
  }
  if (!isBody(piece)) return [];
  if (thin(piece.outer)) {
    const width = (2 * Math.abs(pathArea(piece.outer))) / lengthOf(piece.outer);
    return [
      { code: 'sliver', weight: 'look', ...said.sliver(piece.name, lengthSaid(width)), pieceIds: [piece.id], places: [piece.outer.start], fixes: [leaveOut, meant] },
    ]; // biome-ignore format: one line
  }
  // Holes that the kerf closes are told as narrow holes.
  const slivers = piece.holes.filter((hole) => thin(hole) && !closesUp(hole, kerfMm));
  if (slivers.length === 0) return [];
  return [
    {
      code: 'sliver',
      weight: 'look',
      ...said.sliverHoles(piece.name, slivers.length),
      pieceIds: [piece.id],
      places: slivers.map((path) => path.start),
      fixes: [replaced(piece, 'fill', [{ outer: piece.outer, holes: piece.holes.filter((h) => !slivers.includes(h)) }]), meant],
    },
  ];
}

/** Spurs: an outline that goes out and comes back along itself. */
export function stubFaults(piece: Piece): Fault[] {
  const found = pathsOf(piece).map((path) => ({ path, joints: spursOf(path) }));
  const places = found.flatMap(({ path, joints }) => joints.map((k) => (path.segments[k] as Segment).to));
  if (places.length === 0) return [];
  const longest = Math.max(...found.flatMap(({ path, joints }) => joints.map((k) => spurLength(path, k))));
  const [outer, ...holes] = found.map(({ path, joints }) =>
    joints.length > 0 ? withoutNeedless(withoutSpurs(path), needlessMm).path : path,
  );
  return [
    {
      code: 'stub',
      weight: 'look',
      ...said.spurs(piece.name, places.length, lengthSaid(longest)),
      pieceIds: [piece.id],
      places,
      fixes: outer && outer.segments.length > 1 ? [replaced(piece, 'cutOff', [{ outer, holes }])] : [],
    },
  ];
}

const isSpur = (a: Step, b: Step): boolean => {
  if (a.segment.kind !== 'line' || b.segment.kind !== 'line') return false;
  if (dot(directionOn(a.from, a.segment, 1), directionOn(b.from, b.segment, 0)) > -1 + 1e-6) return false;
  const shorter = distance(a.from, a.segment.to) < distance(b.from, b.segment.to) ? a.from : b.segment.to;
  const [longer] = shorter === a.from ? [b] : [a];
  return nearestOnSegment(longer.from, longer.segment, shorter).distance < 0.02;
};

/** Of a spur the shorter leg. */
function spurLength(path: Path, k: number): number {
  const steps = stepsOf(path);
  return Math.min(...[steps[k], steps[(k + 1) % steps.length]].map((s) => (s ? distance(s.from, s.segment.to) : Infinity)));
}

function spursOf(path: Path): number[] {
  const steps = stepsOf(path);
  return steps.flatMap((step, k) => {
    const next = steps[k + 1] ?? (path.closed ? steps[0] : undefined);
    return next && next !== step && isSpur(step, next) ? [k] : [];
  });
}

/** The spurs taken off one after another: their tip goes, what is left of the longer leg stays. */
function withoutSpurs(path: Path): Path {
  let now = path;
  for (let round = 0; round < 50; round++) {
    const joint = spursOf(now)[0];
    if (joint === undefined || now.segments.length < 3) return now;
    const n = now.segments.length;
    // The two legs become one from where the first begins to where the second ends; a rest of nothing goes, too.
    const [a, b] = [stepsOf(now)[joint] as Step, stepsOf(now)[(joint + 1) % n] as Step];
    const rest: Segment[] = distance(a.from, b.segment.to) < 1e-6 ? [] : [{ kind: 'line', to: b.segment.to }];
    if (joint === n - 1) now = { ...now, start: b.segment.to, segments: [...now.segments.slice(1, -1), ...(rest.length > 0 ? rest : [])] };
    else now = { ...now, segments: [...now.segments.slice(0, joint), ...rest, ...now.segments.slice(joint + 2)] };
    if (now.closed) {
      const last = now.segments.at(-1);
      if (last && distance(last.to, now.start) > 1e-9) now = { ...now, segments: [...now.segments, { kind: 'line', to: now.start }] };
    }
  }
  return now;
}

export function needlessPointFaults(piece: Piece): Fault[] {
  const found = pathsOf(piece).map((path) => withoutNeedless(path, needlessMm));
  const places = found.flatMap(({ gone }) => gone);
  if (places.length === 0) return [];
  const [outer, ...holes] = found.map(({ path }) => path);
  return [
    {
      code: 'needless-points',
      weight: 'look',
      ...said.redundantPoints(piece.name, places.length),
      pieceIds: [piece.id],
      places,
      fixes: [replaced(piece, 'removePoints', [{ outer: outer as Path, holes }]), { do: 'accept', word: 'ignore' }],
    },
  ];
}

export const sliverCheck = {
  words,
  kinds: {
    sliver: { heading: 'Slivers' },
    stub: { heading: 'Stubs and spurs' },
  },
  own: (piece: Piece, limits: ProofLimits) => [...sliverFaults(piece, limits), ...stubFaults(piece)],
} as const satisfies Check;

export const needlessPointCheck = {
  words,
  kinds: { 'needless-points': { heading: 'Needless points' } },
  own: needlessPointFaults,
} as const satisfies Check;
