/**
 * In: a job, and the faults of its outlines. Out: all that should be looked at before it is made, in plain words, each with
 * what would mend it.
 */

import type { Command } from '../job/index.ts';
import {
  type Drawn,
  drawnOf,
  fitOf,
  type Job,
  keptPieces,
  overallBox,
  type Picture,
  type Piece,
  piecesOf,
  traceWith,
} from '../job/index.ts';
import { piecesToProve } from '../make/pieces.ts';
import { english, length, type Message, say } from '../messages/index.ts';
import { centreOf, heightOf, type Point, pathBox, widthOf } from '../plane/index.ts';
import type { TrueUpFit } from '../trueup/index.ts';
import type { Fault, FaultCode, MadeOutlines, Mend, ProofLimits } from './fault.ts';
import { fitOnStock, provedSizes } from './sizes.ts';

export interface Finding extends Message {
  /** The same as long as it is about the same place of the same pieces. */
  readonly key: string;
  readonly code:
    | FaultCode
    | 'no-picture'
    | 'size-unknown'
    | 'size-from-file'
    | 'marks-disagree'
    | 'unit-unknown'
    | 'no-pieces'
    | 'all-left-out'
    | 'runs-off'
    | 'too-large'
    | 'size-is-off';
  /** `stops`: no file should be made; `look`: a person should look once. */
  readonly weight: 'stops' | 'look';
  readonly pieceIds: readonly string[];
  readonly places: readonly Point[];
  readonly mends: readonly Mend[];
}

/** Marks that disagree by more than this are worth a look: a share of the length, common practice for hand marking. */
const disagreeShare = 0.005;

/** The limits that a job's outlines are checked against. */
export const limitsOf = ({ proof, setup }: Job): ProofLimits => ({
  kerfMm: setup.cutting.kerfMm,
  thinnestMm: proof.thinnestMm,
  clearanceMm: proof.clearanceMm,
});

/** All findings of a job except the ignored ones, the gravest first. */
export function findingsOf(job: Job, faults: readonly Fault[]): Finding[] {
  const accepted = new Set(job.proof.accepted);
  return allFindings(job, faults)
    .filter(({ key, mends }) => !(accepted.has(key) && mends.some((m) => m.do === 'accept')))
    .sort((a, b) => Number(b.weight === 'stops') - Number(a.weight === 'stops'));
}

function allFindings(job: Job, faults: readonly Fault[]): Finding[] {
  if (job.pictures.length === 0 && job.drawings.length === 0 && job.drawn.length === 0)
    return [found('no-picture', 'stops', say.findings.noPicture())];
  return [
    ...sizedPictures(job).flatMap((picture, _, all) => sizeFindings(fitOf(picture), all.length > 1 ? picture : null)),
    ...drawingFindings(job),
    ...pieceFindings(job),
    ...faults.map((fault): Finding => ({ ...fault, key: keyOf(fault.code, fault.pieceIds, fault.places[0]) })),
    ...stockFindings(job),
    ...pinnedFindings(job),
  ];
}

/** The pictures whose size the pieces rest on: those traced, of which something is kept; before any is, the first. */
function sizedPictures({ pictures, traces }: Job): Picture[] {
  const traced = pictures.filter(({ id }) => traces.some((t) => t.pictureId === id && t.pieces.some((p) => !p.leftOut)));
  return traced.length > 0 ? traced : pictures.slice(0, 1);
}

const keyOf = (code: string, ids: readonly string[], place?: Point): string =>
  [code, ...ids.slice(0, 2), place ? `${place.x.toFixed(0)},${place.y.toFixed(0)}` : ''].join(' ').slice(0, 200);

const found = (
  code: Finding['code'],
  weight: Finding['weight'],
  message: Message,
  pieces: readonly Piece[] = [],
  mends: readonly Mend[] = [],
): Finding => ({
  key: keyOf(code, pieces.map((p) => p.id)), // biome-ignore format: one line
  code,
  weight,
  ...message,
  pieceIds: pieces.map((p) => p.id),
  places: pieces.slice(0, 50).map((p) => centreOf(pathBox(p.outer))),
  mends,
});

/** @param whose picture it is, where there are several */
function sizeFindings(fit: TrueUpFit, one: Picture | null): Finding[] {
  const whose = one?.name ?? '';
  const named = (finding: Finding): Finding => (one ? { ...finding, key: `${finding.key} ${one.id}` } : finding);
  if (fit.model === 'unsized') return [named(found('size-unknown', 'stops', say.findings.sizeUnknown(whose)))];
  const findings: Finding[] = [];
  if (fit.model === 'resolution') {
    findings.push(found('size-from-file', 'look', say.findings.sizeFromFile(whose)));
  }
  const disagreeing = fit.leftOvers.some((l) => l.isSetAside || l.parts.some((p) => Math.abs(p.offMm) > disagreeShare * p.statedMm));
  if (disagreeing || fit.suspects.length > 0) {
    const worst = Math.max(...fit.leftOvers.map((l) => Math.abs(l.offMm)));
    findings.push(found('marks-disagree', 'look', say.findings.marksDisagree(whose, length(worst))));
  }
  return findings.map(named);
}

function drawingFindings(job: Job): Finding[] {
  return job.drawings
    .filter((d) => !d.hidden && !d.unitIsStated)
    .map((d) => found('unit-unknown', 'look', say.findings.unitUnknown(d.name), d.pieces));
}

function pieceFindings(job: Job): Finding[] {
  const kept = keptPieces(job);
  if (piecesOf(job).length === 0) return [found('no-pieces', 'stops', say.findings.noPieces())];
  if (kept.length === 0) return [found('all-left-out', 'stops', say.findings.allExcluded())];
  const offEdge = kept.filter((p) => p.runsOff);
  if (offEdge.length === 0) return [];
  const mend: Mend = { do: 'leave-out', word: 'exclude', ids: offEdge.map((p) => p.id) };
  return [found('runs-off', 'look', say.findings.cutOffByEdge(named(offEdge), offEdge.length), offEdge, [mend])];
}

/** Each piece by itself, then all as they lie. */
function stockFindings(job: Job): Finding[] {
  const { stockWidthMm: width, stockHeightMm: height } = job.setup;
  if (width === null || height === null) return [];
  const made = piecesToProve(job).filter((p) => p.purpose !== 'guide');
  const stock = [length(width), length(height)] as const;
  const tooLarge = made.filter((p) => fitOnStock(p, width, height) === 'too-large');
  if (tooLarge.length > 0)
    return [
      found('too-large', 'stops', say.findings.largerThanStock(named(tooLarge), tooLarge.length, ...stock), tooLarge, [
        { do: 'accept', word: 'makeAnyway' },
      ]),
    ];
  const box = overallBox(made);
  if (!box || (widthOf(box) <= width + 1e-9 && heightOf(box) <= height + 1e-9)) return [];
  const isTurned = widthOf(box) <= height + 1e-9 && heightOf(box) <= width + 1e-9;
  const work = [length(widthOf(box)), length(heightOf(box))] as const;
  return [
    found(
      'too-large',
      'look',
      (isTurned ? say.findings.turnForStock : say.findings.togetherLargerThanStock)(...work, ...stock),
      [],
      [{ do: 'accept', word: 'ignore' }],
    ),
  ];
}

function pinnedFindings(job: Job): Finding[] {
  return provedSizes(piecesToProve(job), job.proof.pinned)
    .filter(({ holds }) => !holds)
    .map(({ pinned, isMm, ends }): Finding => {
      const wanted = [length(pinned.mm), length(pinned.toleranceMm)] as const;
      const message =
        isMm === null
          ? say.findings.sizeGone(pinned.name, ...wanted)
          : say.findings.sizeOff(pinned.name, length(isMm), ...wanted, length(Math.abs(isMm - pinned.mm)), isMm > pinned.mm);
      return { key: `size-is-off ${pinned.id}`, code: 'size-is-off', weight: 'stops', ...message, pieceIds: [], places: ends, mends: [] };
    });
}

/** Their names, three at most. */
const named = (pieces: readonly Piece[]): string =>
  pieces
    .slice(0, 3)
    .map((p) => p.name)
    .join(', ') + (pieces.length > 3 ? ', …' : '');

/** How wide bridges are made that nobody typed a width for, mm. */
const plainHoldMm = 1;

/**
 * The edit that mends a finding.
 * @param newId makes ids that nothing else has
 */
export function mendCommand(job: Job, finding: Pick<Finding, 'key'>, mend: Mend, newId: () => string): Command {
  switch (mend.do) {
    case 'accept':
      return { do: 'prove-by', change: { accepted: [...job.proof.accepted, finding.key] } };
    case 'purpose':
      return { do: 'set-purpose', pieceIds: [...mend.ids], purpose: mend.purpose };
    case 'leave-out':
      return { do: 'leave-out', pieceIds: [...mend.ids], leftOut: true };
    case 'hold': {
      const made = mend.ways.map((way) => ({
        id: newId(),
        ...way,
        widthMm: job.proof.holds[0]?.widthMm ?? Math.max(plainHoldMm, job.proof.thinnestMm),
      }));
      return { do: 'prove-by', change: { holds: [...job.proof.holds, ...made] } };
    }
    case 'replace':
      return replacing(job, mend, newId);
  }
}

function replacing(job: Job, { ids, by, word }: Mend & { do: 'replace' }, newId: () => string): Command {
  const [only, made] = [ids.length === 1 ? ids[0] : undefined, by.length === 1 ? by[0] : undefined];
  if (only && made && traceWith(job, only)) {
    return { do: 'reshape', pieceId: only, outer: made.outer, holes: [...made.holes] } as Command;
  }
  const gone = new Set(ids);
  // What else follows from a drawn thing whose pieces give way stays as it is now.
  const touched = job.drawn.filter((d) => ids.some((id) => id.split('/')[0] === d.id));
  const others = keptPieces(job).filter((p) => !gone.has(p.id) && touched.some((d) => d === drawnOf(job.drawn, p.id)));
  const outlines: MadeOutlines[] = [...by, ...others];
  return {
    do: 'replace-drawn',
    word: english.mends[word].toLowerCase().slice(0, 140),
    ids: [...ids.filter((id) => !id.includes('/')), ...touched.map((d) => d.id)].filter((id, k, all) => all.indexOf(id) === k),
    by: outlines.map(
      ({ name, purpose, outer, holes }): Drawn => ({
        id: newId(),
        name: name.slice(0, 80),
        purpose,
        leftOut: false,
        source: holes.length > 0 ? { kind: 'paths', paths: [outer, ...holes] } : { kind: 'path', path: outer },
        live: [],
      }),
    ),
  } as Command;
}
