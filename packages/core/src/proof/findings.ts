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
import { piecesToProve } from '../job/pieces-to-make.ts';
import { makeOf } from '../job/purposes.ts';
import { english, length, type Message, type Printed, sayings } from '../messages/index.ts';
import { are } from '../messages/phrases.ts';
import { centreOf, heightOf, type Point, pathBox, widthOf } from '../plane/index.ts';
import type { TrueUpFit } from '../trueup/index.ts';
import { checks, checkWords, type FaultCode } from './checks.ts';
import type { Fault, FindingKind, Fix, MadeOutlines } from './fault.ts';
import { fitOnStock, provedSizes } from './sizes.ts';

const ofPicture = (picture: Printed): string => (picture === '' ? '' : `“${picture}”: `);

/** What it says of what it finds. */
const jobFindingWords = {
  noPicture: 'There is no picture yet. Bring one in first.',
  sizeUnknown: (picture: Printed) => `${ofPicture(picture)}The true size is not known. Mark a length that you know, under True up.`,
  sizeFromFile: (picture: Printed) =>
    `${ofPicture(picture)}The size rests on the resolution in the file alone. Mark one known length to be sure.`,
  marksDisagree: (picture: Printed, by: Printed) =>
    `${ofPicture(picture)}The marks disagree by up to ${by}. Check what was typed, under True up.`,
  unitUnknown: (drawing: Printed) => `“${drawing}” does not state its unit. Check its size under Bring in.`,
  noPieces: 'Nothing is traced yet. The Trace stage finds the outlines.',
  allExcluded: 'Every piece is excluded. Include at least one, under Trace.',
  cutOffByEdge: (names: Printed, count: number) =>
    `${are(names, count)} cut off by the picture’s edge. Exclude what is only the rim of the scan.`,
  largerThanStock: (names: Printed, count: number, width: Printed, height: Printed) =>
    `${are(names, count)} larger than the stock of ${width} x ${height}.`,
  largerThanBed: (machine: string, width: Printed, height: Printed, bedWidth: Printed, bedHeight: Printed) =>
    `Together the pieces measure ${width} x ${height}; ${machine} takes ${bedWidth} x ${bedHeight}.`,
  turnForStock: (width: Printed, height: Printed, stockWidth: Printed, stockHeight: Printed) =>
    `The work is ${width} x ${height} as it lies: turn it, or the stock of ${stockWidth} x ${stockHeight}, by a quarter.`,
  togetherLargerThanStock: (width: Printed, height: Printed, stockWidth: Printed, stockHeight: Printed) =>
    `All pieces together take ${width} x ${height}, more than the stock of ${stockWidth} x ${stockHeight}. Move them closer, or cut them in turns.`,
  sizeGone: (name: Printed, wanted: Printed, tolerance: Printed) =>
    `“${name}” must be ${wanted} ± ${tolerance}, but what it was measured on is gone.`,
  sizeOff: (name: Printed, is: Printed, wanted: Printed, tolerance: Printed, off: Printed, isTooLarge: boolean) =>
    `“${name}” is ${is} and must be ${wanted} ± ${tolerance}: ${off} too ${isTooLarge ? 'large' : 'small'}.`,
};
const said = sayings('findings', jobFindingWords);
/** What the proof says of all that it finds. */
export const findingWords = { ...jobFindingWords, ...checkWords };

/** What is found of a job apart from its outlines. */
const jobKinds = {
  'no-picture': { heading: 'The job', stage: 'bring-in' },
  'size-unknown': { heading: 'The job', stage: 'true-up' },
  'size-from-file': { heading: 'The job', stage: 'true-up' },
  'marks-disagree': { heading: 'The job', stage: 'true-up' },
  'unit-unknown': { heading: 'The job', stage: 'bring-in' },
  'no-pieces': { heading: 'The job', stage: 'trace' },
  'all-left-out': { heading: 'The job', stage: 'trace' },
  'runs-off': { heading: 'The job' },
  'too-large': { heading: 'Larger than the stock', stage: 'make-ready' },
  'larger-than-bed': { heading: 'Larger than the machine', stage: 'make-ready' },
  'size-is-off': { heading: 'Sizes that are off' },
} as const satisfies Record<string, FindingKind>;

export type FindingCode = FaultCode | keyof typeof jobKinds;
export const findingKinds: Readonly<Record<FindingCode, FindingKind>> = Object.assign({ ...jobKinds }, ...checks.map(({ kinds }) => kinds));

export interface Finding extends Message {
  /** The same as long as it is about the same place of the same pieces. */
  readonly key: string;
  readonly code: FindingCode;
  /** `stops`: no file should be made; `look`: a person should look once. */
  readonly weight: 'stops' | 'look';
  readonly pieceIds: readonly string[];
  readonly places: readonly Point[];
  readonly fixes: readonly Fix[];
  /** The processes of the job that it holds for, where it does not for all. */
  readonly processIds?: readonly string[];
}

/** Marks that disagree by more than this are worth a look: a share of the length, common practice for hand marking. */
const disagreeShare = 0.005;

/** All findings of a job except the ignored ones, the gravest first. */
export function findingsOf(job: Job, faults: readonly Fault[]): Finding[] {
  const accepted = new Set(job.proof.accepted);
  return allFindings(job, faults)
    .filter(({ key, fixes }) => !(accepted.has(key) && fixes.some((m) => m.do === 'accept')))
    .sort((a, b) => Number(b.weight === 'stops') - Number(a.weight === 'stops'));
}

function allFindings(job: Job, faults: readonly Fault[]): Finding[] {
  if (job.pictures.length === 0 && job.drawings.length === 0 && job.drawn.length === 0)
    return [found('no-picture', 'stops', said.noPicture())];
  return [
    ...sizedPictures(job).flatMap((picture, _, all) => sizeFindings(fitOf(picture), all.length > 1 ? picture : null)),
    ...drawingFindings(job),
    ...pieceFindings(job),
    ...faults.map(
      (fault): Finding => ({ ...fault, code: fault.code as FaultCode, key: keyOf(fault.code, fault.pieceIds, fault.places[0]) }),
    ),
    ...stockFindings(job),
    ...bedFindings(job),
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
  fixes: readonly Fix[] = [],
): Finding => ({
  key: keyOf(code, pieces.map((p) => p.id)), // biome-ignore format: one line
  code,
  weight,
  ...message,
  pieceIds: pieces.map((p) => p.id),
  places: pieces.slice(0, 50).map((p) => centreOf(pathBox(p.outer))),
  fixes,
});

/** @param whose picture it is, where there are several */
function sizeFindings(fit: TrueUpFit, one: Picture | null): Finding[] {
  const whose = one?.name ?? '';
  const named = (finding: Finding): Finding => (one ? { ...finding, key: `${finding.key} ${one.id}` } : finding);
  if (fit.model === 'unsized') return [named(found('size-unknown', 'stops', said.sizeUnknown(whose)))];
  const findings: Finding[] = [];
  if (fit.model === 'resolution') {
    findings.push(found('size-from-file', 'look', said.sizeFromFile(whose)));
  }
  const disagreeing = fit.residuals.some((l) => l.isSetAside || l.parts.some((p) => Math.abs(p.offMm) > disagreeShare * p.statedMm));
  if (disagreeing || fit.outliers.length > 0) {
    const worst = Math.max(...fit.residuals.map((l) => Math.abs(l.offMm)));
    findings.push(found('marks-disagree', 'look', said.marksDisagree(whose, length(worst))));
  }
  return findings.map(named);
}

function drawingFindings(job: Job): Finding[] {
  return job.drawings
    .filter((d) => !d.hidden && !d.unitIsStated)
    .map((d) => found('unit-unknown', 'look', said.unitUnknown(d.name), d.pieces));
}

function pieceFindings(job: Job): Finding[] {
  const kept = keptPieces(job);
  if (piecesOf(job).length === 0) return [found('no-pieces', 'stops', said.noPieces())];
  if (kept.length === 0) return [found('all-left-out', 'stops', said.allExcluded())];
  const offEdge = kept.filter((p) => p.runsOff);
  if (offEdge.length === 0) return [];
  const fix: Fix = { do: 'leave-out', word: 'exclude', ids: offEdge.map((p) => p.id) };
  return [found('runs-off', 'look', said.cutOffByEdge(named(offEdge), offEdge.length), offEdge, [fix])];
}

/** Each piece by itself, then all as they lie. */
function stockFindings(job: Job): Finding[] {
  const { widthMm: width, heightMm: height } = job.making.stock;
  if (width === null || height === null) return [];
  const made = piecesToProve(job).filter((p) => makeOf(p) !== 'nothing');
  const stock = [length(width), length(height)] as const;
  const tooLarge = made.filter((p) => fitOnStock(p, width, height) === 'too-large');
  if (tooLarge.length > 0)
    return [
      found('too-large', 'stops', said.largerThanStock(named(tooLarge), tooLarge.length, ...stock), tooLarge, [
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
      (isTurned ? said.turnForStock : said.togetherLargerThanStock)(...work, ...stock),
      [],
      [{ do: 'accept', word: 'ignore' }],
    ),
  ];
}

/** Of each machine whose bed is known: all pieces as they lie, also turned by a quarter. */
function bedFindings(job: Job): Finding[] {
  const { processes } = job.making;
  if (processes.every(({ machine }) => machine.bedWidthMm === null || machine.bedHeightMm === null)) return [];
  const box = overallBox(piecesToProve(job).filter((p) => makeOf(p) !== 'nothing'));
  if (!box) return [];
  const [wide, high] = [widthOf(box), heightOf(box)];
  return processes.flatMap(({ id, machine: { name, bedWidthMm, bedHeightMm } }) => {
    if (bedWidthMm === null || bedHeightMm === null) return [];
    const fits = (w: number, h: number): boolean => wide <= w + 1e-9 && high <= h + 1e-9;
    if (fits(bedWidthMm, bedHeightMm) || fits(bedHeightMm, bedWidthMm)) return [];
    const message = said.largerThanBed(name, length(wide), length(high), length(bedWidthMm), length(bedHeightMm));
    const finding = found('larger-than-bed', 'look', message, [], [{ do: 'accept', word: 'ignore' }]);
    return [{ ...finding, key: `${finding.key} ${id}`, ...(processes.length > 1 ? { processIds: [id] } : {}) }];
  });
}

function pinnedFindings(job: Job): Finding[] {
  return provedSizes(piecesToProve(job), job.proof.pinned)
    .filter(({ holds }) => !holds)
    .map(({ pinned, isMm, ends }): Finding => {
      const wanted = [length(pinned.mm), length(pinned.toleranceMm)] as const;
      const message =
        isMm === null
          ? said.sizeGone(pinned.name, ...wanted)
          : said.sizeOff(pinned.name, length(isMm), ...wanted, length(Math.abs(isMm - pinned.mm)), isMm > pinned.mm);
      return { key: `size-is-off ${pinned.id}`, code: 'size-is-off', weight: 'stops', ...message, pieceIds: [], places: ends, fixes: [] };
    });
}

/** Their names, three at most. */
const named = (pieces: readonly Piece[]): string =>
  pieces
    .slice(0, 3)
    .map((p) => p.name)
    .join(', ') + (pieces.length > 3 ? ', …' : '');

/** How wide bridges are made that nobody typed a width for, mm. */
const plainBridgeMm = 1;

/**
 * The edit that mends a finding.
 * @param newId makes ids that nothing else has
 */
export function fixCommand(job: Job, finding: Pick<Finding, 'key'>, fix: Fix, newId: () => string): Command {
  switch (fix.do) {
    case 'accept':
      return { do: 'prove-by', change: { accepted: [...job.proof.accepted, finding.key] } };
    case 'purpose':
      return { do: 'set-purpose', pieceIds: [...fix.ids], purpose: fix.purpose };
    case 'leave-out':
      return { do: 'leave-out', pieceIds: [...fix.ids], leftOut: true };
    case 'hold': {
      const made = fix.spans.map((span) => ({
        id: newId(),
        ...span,
        widthMm: job.proof.bridges[0]?.widthMm ?? Math.max(plainBridgeMm, job.proof.thinnestMm),
      }));
      return { do: 'prove-by', change: { bridges: [...job.proof.bridges, ...made] } };
    }
    case 'replace':
      return replacing(job, fix, newId);
  }
}

function replacing(job: Job, { ids, by, word }: Fix & { do: 'replace' }, newId: () => string): Command {
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
    word: english.fixes[word].toLowerCase().slice(0, 140),
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
