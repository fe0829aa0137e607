/**
 * In: pieces, and how thin material and how narrow an opening may be. Out: what is told of webs that break, of holes and slots
 * that close up, and of pieces that the tool's way would join.
 */
import { pathsOf } from '../job/piece-paths.ts';
import type { Piece } from '../job/schema.ts';
import { length, say } from '../messages/index.ts';
import { centreOf, heightOf, type Path, pathArea, pathBox, widthOf } from '../plane/index.ts';
import { nearnessTo } from '../shape/index.ts';
import { lengthOf } from './borders.ts';
import { type Fault, isBody, type ProofLimits, replaced } from './fault.ts';
import { middleOfPair, type Narrow, narrowPlaces } from './narrow.ts';
import { madeThicker } from './thicken.ts';

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
      ...say.findings.thinWeb(piece.name, length(thinnest.widthMm), length(thinnestMm), webs.length),
      pieceIds: [piece.id],
      places: webs.map(middleOfPair),
      mends: [...(thickened ? [replaced(piece, 'thicken', [thickened])] : []), meant],
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
        ? say.findings.narrowHoles(piece.name, closing.length, length(narrowest), length(kerfMm))
        : say.findings.narrowSlot(piece.name, length(narrowest), length(kerfMm))),
      pieceIds: [piece.id],
      places: [...closing.map((hole) => centreOf(pathBox(hole))), ...slots.map(middleOfPair)],
      mends:
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
    ...(other ? say.findings.narrowPassageBetween(one.name, other.name, ...told) : say.findings.narrowPassage(one.name, ...told)),
    pieceIds: pieces.map(({ id }) => id),
    places: passages.map(middleOfPair),
    mends: [meant],
  };
}

/** Whether a hole is so small that the tool's way into it vanishes. */
export function closesUp(hole: Path, kerfMm: number): boolean {
  const box = pathBox(hole);
  return Math.min(widthOf(box), heightOf(box)) < kerfMm || (2 * Math.abs(pathArea(hole))) / lengthOf(hole) < kerfMm / 2 - 1e-9;
}

/** Two pieces, neither within the other's material, that the tool's way would join. */
export function tooNearFaults(a: Piece, b: Piece, { kerfMm, clearanceMm }: ProofLimits): Fault[] {
  if (!isBody(a) || !isBody(b) || a.purpose !== 'cut' || b.purpose !== 'cut') return [];
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
      ...say.findings.tooNear(a.name, b.name, length(nearest.widthMm), length(kerfMm)),
      pieceIds: [a.id, b.id],
      places: found.map(middleOfPair),
      mends: [meant],
    },
  ];
}

/** Whether one of two facing places lies on the paths given and the other does not. */
function isBetween(paths: readonly Path[], { a, b }: Narrow): boolean {
  const lies = nearnessTo(paths);
  return lies(a, 1e-6) !== lies(b, 1e-6);
}
