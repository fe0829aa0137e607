/**
 * In: pieces, and how thin material and how narrow an opening may be. Out: what is told of webs that break, of holes and slots
 * that close up, and of pieces that the tool's way would join.
 */

import { pathsOf } from '../job/piece-paths.ts';
import { makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { length, type Printed, sayings } from '../messages/index.ts';
import { several } from '../messages/phrases.ts';
import { centreOf, heightOf, type Path, pathArea, pathBox, widthOf } from '../plane/index.ts';
import { nearnessTo } from '../shape/index.ts';
import { lengthOf } from './borders.ts';
import { type Check, type Fault, isBody, isSpoilt, type ProofLimits, replaced } from './fault.ts';
import { middleOfPair, type Narrow, narrowPlaces } from './narrow.ts';
import { madeThicker } from './thicken.ts';

/** What it says of what it finds. */
const words = {
  thinWeb: (name: Printed, width: Printed, min: Printed, count: number) =>
    `${name} is ${width} at its thinnest${count > 1 ? `, and thin ${count === 2 ? 'at one more place' : `at ${count - 1} more places`}` : ''}; the minimum is ${min}.`,
  narrowHoles: (name: Printed, count: number, width: Printed, kerf: Printed) =>
    `${name} has ${several(count, 'a hole', 'holes')} of ${width}, narrower than the ${kerf} kerf.`,
  narrowSlot: (name: Printed, width: Printed, kerf: Printed) => `${name} has a slot of ${width}, narrower than the ${kerf} kerf.`,
  narrowPassage: (name: Printed, width: Printed, min: Printed, count: number) =>
    `${name}: a passage of ${width}; at least ${min} must pass${count > 1 ? `, ${count} such places` : ''}.`,
  narrowPassageBetween: (name: Printed, other: Printed, width: Printed, min: Printed, count: number) =>
    `${name} and ${other}: a passage of ${width}; at least ${min} must pass${count > 1 ? `, ${count} such places` : ''}.`,
  tooNear: (name: Printed, other: Printed, apart: Printed, kerf: Printed) =>
    `${name} and ${other} are ${apart} apart, less than the ${kerf} kerf.`,
};
const said = sayings('findings', words);

/** What is as wide as it must be passes, whatever its last digit, mm. */
const exactMm = 1e-6;

const meant = { do: 'accept', word: 'ignore' } as const;

/** Webs, and holes and slots narrower than the kerf, of one piece. */
export function narrowFaults(piece: Piece, { kerfMm, thinnestMm, clearanceMm }: ProofLimits): Fault[] {
  if (!isBody(piece)) return [];
  const paths = pathsOf(piece);
  const found = narrowPlaces(paths, Math.max(kerfMm, thinnestMm, clearanceMm));
  const webs = found.filter((n) => n.isWeb && n.widthMm < thinnestMm - exactMm);
  const slots = found.filter((n) => !n.isWeb && n.widthMm < kerfMm - exactMm);
  const passages = found.filter((n) => !n.isWeb && n.widthMm >= kerfMm - exactMm && n.widthMm < clearanceMm - exactMm);
  const closing = piece.holes.filter((hole) => closesUp(hole, kerfMm));
  const faults: Fault[] = [];
  if (webs.length > 0) {
    const [thinnest] = webs as [Narrow];
    const thickened = madeThicker(piece, thinnestMm);
    faults.push({
      code: 'thin-web',
      weight: 'look',
      ...said.thinWeb(piece.name, length(thinnest.widthMm), length(thinnestMm), webs.length),
      pieceIds: [piece.id],
      places: webs.map(middleOfPair),
      fixes: [...(thickened ? [replaced(piece, 'thicken', [thickened])] : []), meant],
    });
  }
  if (passages.length > 0) faults.push(narrowPassage([piece], passages, clearanceMm));
  if (closing.length > 0 || slots.length > 0) {
    const narrowest = Math.min(
      ...slots.map((n) => n.widthMm),
      ...closing.map((hole) => Math.min(widthOf(pathBox(hole)), heightOf(pathBox(hole)))),
    );
    faults.push({
      code: 'narrow-hole',
      weight: 'look',
      ...(closing.length > 0
        ? said.narrowHoles(piece.name, closing.length, length(narrowest), length(kerfMm))
        : said.narrowSlot(piece.name, length(narrowest), length(kerfMm))),
      pieceIds: [piece.id],
      places: [...closing.map((hole) => centreOf(pathBox(hole))), ...slots.map(middleOfPair)],
      fixes:
        closing.length > 0
          ? [replaced(piece, 'fill', [{ outer: piece.outer, holes: piece.holes.filter((h) => !closing.includes(h)) }]), meant]
          : [meant],
    });
  }
  return faults;
}

function narrowPassage(pieces: readonly Piece[], passages: readonly Narrow[], clearanceMm: number): Fault {
  const [narrowest] = passages as [Narrow];
  const [one, other] = pieces as [Piece, Piece?];
  const told = [length(narrowest.widthMm), length(clearanceMm), passages.length] as const;
  return {
    code: 'narrow-passage',
    weight: 'look',
    ...(other ? said.narrowPassageBetween(one.name, other.name, ...told) : said.narrowPassage(one.name, ...told)),
    pieceIds: pieces.map(({ id }) => id),
    places: passages.map(middleOfPair),
    fixes: [meant],
  };
}

/** Whether a hole is so small that the tool's way into it vanishes. */
export function closesUp(hole: Path, kerfMm: number): boolean {
  const box = pathBox(hole);
  return Math.min(widthOf(box), heightOf(box)) < kerfMm || (2 * Math.abs(pathArea(hole))) / lengthOf(hole) < kerfMm / 2 - 1e-9;
}

/** Two pieces, neither within the other's material, that the tool's way would join. */
export function tooNearFaults(a: Piece, b: Piece, { kerfMm, clearanceMm }: ProofLimits): Fault[] {
  if (!isBody(a) || !isBody(b) || makeOf(a) !== 'part' || makeOf(b) !== 'part') return [];
  const [ours, theirs] = [pathsOf(a), pathsOf(b)];
  const between = narrowPlaces([...ours, ...theirs], Math.max(kerfMm, clearanceMm)).filter((n) => !n.isWeb && isBetween(ours, n));
  const found = between.filter((n) => n.widthMm < kerfMm - exactMm);
  const [nearest] = found;
  if (!nearest) {
    const passages = between.filter((n) => n.widthMm < clearanceMm - exactMm);
    return passages.length > 0 ? [narrowPassage([a, b], passages, clearanceMm)] : [];
  }
  return [
    {
      code: 'too-near',
      weight: 'look',
      ...said.tooNear(a.name, b.name, length(nearest.widthMm), length(kerfMm)),
      pieceIds: [a.id, b.id],
      places: found.map(middleOfPair),
      fixes: [meant],
    },
  ];
}

/** Whether one of two facing places lies on the paths given and the other does not. */
function isBetween(paths: readonly Path[], { a, b }: Narrow): boolean {
  const lies = nearnessTo(paths);
  return lies(a, 1e-6) !== lies(b, 1e-6);
}

/** What two pieces are to one another that leaves nothing to say of the gap between them. */
const pairsApart: ReadonlySet<string> = new Set(['crosses-itself', 'crosses-another', 'doubled']);

export const narrowCheck = {
  words,
  kinds: {
    'narrow-hole': { heading: 'Narrower than the tool' },
    'thin-web': { heading: 'Thin webs' },
    'narrow-passage': { heading: 'Narrow passages' },
    'too-near': { heading: 'Too near together' },
  },
  own: (piece: Piece, limits: ProofLimits, before: readonly Fault[]) => (isSpoilt(piece, before) ? [] : narrowFaults(piece, limits)),
  pair: (a: Piece, b: Piece, limits: ProofLimits, before: readonly Fault[]) =>
    before.some(({ code }) => pairsApart.has(code)) ? [] : tooNearFaults(a, b, limits),
} as const satisfies Check;
