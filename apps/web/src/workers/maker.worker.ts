/**
 * The making worker: proves outlines, plans by the registry of processes, and writes files that it reads back before it hands them over. The
 * newest request of each kind only.
 */

import { type CutMeasured, cutMeasured } from '@nuvet/core/files';
import { type ProofFacts, type Underlay, writePng, writeProofSheet } from '@nuvet/core/formats';
import type { Piece } from '@nuvet/core/job';
import type { CutPlan } from '@nuvet/core/make';
import { SaidError } from '@nuvet/core/messages';
import { type InlayFit, inlayFit, type Milled, type MillPlan, provedPlan, type RunInto, Trial, type TrialShown } from '@nuvet/core/milling';
import { chain, inverse, type Path, type Point, type Transform } from '@nuvet/core/plane';
import {
  type AnyProcess,
  type Estimate,
  type FileChoices,
  faultsTogether,
  type LaidOut,
  type ProcessFileMade,
  processKinds,
  type SharedLimits,
  type StandInJob,
  type Work,
} from '@nuvet/core/processes';
import { type Fault, isBody, narrowPlaces, Prover } from '@nuvet/core/proof';
import { fabricsFromPicture, type QuiltPlan } from '@nuvet/core/quilting';
import { type Contour, type PrintChecks, printChecks, Slicer, type SolidPlan, type SolidSettings, sectionArea } from '@nuvet/core/solid';
import { expose, transfer } from 'comlink';
import { zipSync } from 'fflate';
import { fetchBytes } from './pixels';
import { type OnShare, runInSlices } from './slices';

/** In Prove each process has a trial of its own. */
type Kind = 'proof' | 'plan' | 'checking a print' | 'laying out' | 'trial' | 'measuring' | `trial of ${string}`;
const newest = new Map<Kind, number>();

/** What was asked for of the kind before is no longer wanted. */
function nextOf(kind: Kind): number {
  const next = (newest.get(kind) ?? 0) + 1;
  newest.set(kind, next);
  return next;
}

/** Null once a newer request of the kind has come. */
function newestOf<T>(kind: Kind, steps: Generator<number, T>, onShare: OnShare = () => {}): Promise<T | null> {
  const mine = nextOf(kind);
  return runInSlices(steps, onShare, () => mine === newest.get(kind));
}

/** One for each of the limits that are in use, so that each keeps what it found. */
const provers = new Map<string, Prover>();

function* provedUnderAll(pieces: readonly Piece[], shared: readonly SharedLimits[]): Generator<number, Fault[]> {
  const keys = shared.map(({ limits }) => `${limits.kerfMm} ${limits.thinnestMm} ${limits.clearanceMm}`);
  for (const key of provers.keys()) if (!keys.includes(key)) provers.delete(key);
  const found: (Omit<SharedLimits, 'limits'> & { faults: Fault[] })[] = [];
  for (const [k, { limits, ...own }] of shared.entries()) {
    const prover = provers.get(keys[k] as string) ?? new Prover();
    provers.set(keys[k] as string, prover);
    found.push({ ...own, faults: yield* prover.prove(pieces, limits) });
  }
  return faultsTogether(found);
}

const kindOf = (process: string): AnyProcess => {
  const kind = processKinds[process];
  if (!kind) throw new RangeError(`no process ${process}`);
  return kind;
};

const fileOf = (process: string, name: string): AnyProcess['files'][string] => {
  const file = kindOf(process).files[name];
  if (!file) throw new RangeError(`${process} has no file ${name}`);
  return file;
};
/** Pieces as they were sent, so that those that did not change keep what was found of them. */
const known = new Map<string, Piece>();

/** A picture that lies under a print: which pixels, and where they lie on the sheet. */
export interface UnderlaySource {
  readonly rasterId: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly toSheet: Transform;
}

export interface FileAsked {
  readonly dpi: number;
  /** The picture that is to lie under what is printed. */
  readonly source: UnderlaySource | null;
}

/** A plan with what it says of itself. */
export interface Planned {
  readonly plan: unknown;
  readonly notes: ReturnType<AnyProcess['notes']>;
  readonly estimate: Estimate;
}

/** A picture whose grey a process asks for. */
export interface GreySource extends UnderlaySource {
  readonly pictureId: string;
}

/** What is made, with the pictures whose grey it takes; their pixels are fetched here. */
export type WorkAsked = Work<object> & { readonly greySources?: readonly GreySource[] };

/** Of the pictures that were last asked for. */
const keptGreys = new Map<string, Uint8Array>();

async function withGreys({ greySources = [], ...work }: WorkAsked): Promise<Work<object>> {
  if (greySources.length === 0) return work;
  const wanted = new Set(greySources.map(({ rasterId }) => rasterId));
  for (const id of keptGreys.keys()) if (!wanted.has(id)) keptGreys.delete(id);
  const greys = [];
  for (const { rasterId, ...source } of greySources) {
    const grey =
      keptGreys.get(rasterId) ?? (await fetchBytes(`/api/pictures/${rasterId}/grey`, source.widthPx * source.heightPx, () => {}));
    keptGreys.set(rasterId, grey);
    greys.push({ ...source, grey });
  }
  return { ...work, greys };
}

/** The picture's grey, made paler so that lines stand out. */
async function underlayOf(source: UnderlaySource, paleness: number): Promise<Underlay> {
  const { rasterId, widthPx, heightPx, toSheet } = source;
  const grey = await fetchBytes(`/api/pictures/${rasterId}/grey`, widthPx * heightPx, () => {});
  // No print shows more than this; larger pictures are taken every so many pixels.
  const factor = Math.max(1, Math.ceil(Math.max(widthPx, heightPx) / 3000));
  const [width, height] = [Math.floor(widthPx / factor), Math.floor(heightPx / factor)];
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) data[y * width + x] = 255 - (255 - (grey[y * factor * widthPx + x * factor] as number)) * paleness;
  const t = { ...toSheet, a: toSheet.a * factor, b: toSheet.b * factor, c: toSheet.c * factor, d: toSheet.d * factor };
  return { png: writePng({ width, height, data }, 10), widthPx: width, heightPx: height, toSheet: t };
}

const underlayPaleness = 0.35;

const choicesOf = async ({ dpi, source }: FileAsked): Promise<FileChoices> => ({
  dpi,
  underlay: source && (await underlayOf(source, underlayPaleness)),
});

/** Of the solid whose print was last checked. */
let slicers: readonly Slicer[] = [];

export interface PrintLayer {
  readonly height: number;
  readonly contours: readonly Contour[];
  readonly areaMm2: number;
}

/** The plan that is milled on trial. */
let trial: Trial | null = null;

/** What milling on trial found, and how inlays fit; null once a newer one is asked for. */
async function measuredOf(plan: MillPlan, found: ReturnOf<typeof provedPlan>, kind: Kind): Promise<TrialMeasured | null> {
  const inlays: InlayFit[] = [];
  for (const cut of plan.inlays) {
    const fit = await newestOf(kind, inlayFit(cut));
    if (!fit) return null;
    inlays.push(fit);
  }
  return { milled: found.milled, runsInto: found.simulated.runsInto, inlays };
}

type ReturnOf<F extends (...words: never[]) => Generator<number, unknown>> = ReturnType<F> extends Generator<number, infer T> ? T : never;

/** A plan as Prove sees it: what could not be done, and what its trial found; null where there is nothing to try. */
export interface TrialOfPlan {
  readonly failures: MillPlan['notes'];
  readonly measured: TrialMeasured | null;
}

export interface TrialMeasured {
  readonly inlays: readonly InlayFit[];
  readonly milled: Milled;
  readonly runsInto: readonly RunInto[];
}

/** Where webs and passages are narrowest, as pairs of places that face each other; null where nothing faces within sight. */
export interface NarrowestPlaces {
  readonly web: readonly [Point, Point] | null;
  readonly passage: readonly [Point, Point] | null;
}

/** Looked for within so much first, then wider, mm; past this many segments only the first. */
const sightsMm = [1, 4, 16];
const maxSegmentsFar = 8000;

function narrowestOf(paths: readonly Path[]): NarrowestPlaces {
  const segments = paths.reduce((sum, path) => sum + path.segments.length, 0);
  let found: NarrowestPlaces = { web: null, passage: null };
  for (const sight of segments > maxSegmentsFar ? sightsMm.slice(0, 1) : sightsMm) {
    const places = narrowPlaces(paths, sight);
    const pairOf = (isWeb: boolean): NarrowestPlaces['web'] => {
      const first = places.find((n) => n.isWeb === isWeb);
      return first ? [first.a, first.b] : null;
    };
    found = { web: found.web ?? pairOf(true), passage: found.passage ?? pairOf(false) };
    if (found.web && found.passage) break;
  }
  return found;
}

const maker = {
  narrowest: (pieces: readonly Piece[]): NarrowestPlaces =>
    narrowestOf(pieces.filter(isBody).flatMap(({ outer, holes }) => [outer, ...holes])),

  /** @param changed the pieces that are new or other than when they were last sent; @param ids all pieces, in their order */
  async prove(changed: readonly Piece[], ids: readonly string[], shared: readonly SharedLimits[]): Promise<Fault[] | null> {
    for (const piece of changed) known.set(piece.id, piece);
    const wanted = new Set(ids);
    for (const id of known.keys()) if (!wanted.has(id)) known.delete(id);
    const pieces = ids.flatMap((id) => known.get(id) ?? []);
    return newestOf('proof', provedUnderAll(pieces, shared));
  },

  /** A process's plan; null once a newer one is asked for. @throws SaidError where there can be none */
  async plan(process: string, asked: WorkAsked, onShare: (share: number) => void): Promise<Planned | null> {
    const kind = kindOf(process);
    await kind.ready?.();
    const plan = await newestOf('plan', kind.plan(await withGreys(asked)), onShare);
    return plan === null ? null : { plan, notes: kind.notes(plan), estimate: kind.estimate(plan) };
  },

  stopPlan(): void {
    nextOf('plan');
  },

  /** The sheets that a process is cut from; null once a newer layout is asked for. @throws RangeError where it is laid out on none */
  async laidOut(process: string, work: Work<object>, plan: unknown, onShare: (share: number) => void): Promise<LaidOut | null> {
    const steps = kindOf(process).laidOut?.(work, plan);
    if (!steps) throw new RangeError(`${process} is not laid out on sheets`);
    return newestOf('laying out', steps, onShare);
  },

  /** What would go wrong in printing; its layers can be looked at from then on. Null once a newer one is asked for. */
  async printChecks(plan: SolidPlan, settings: SolidSettings, onShare: (share: number) => void): Promise<PrintChecks | null> {
    await kindOf('solid').ready?.();
    slicers = plan.parts.map(({ mesh }) => new Slicer(mesh));
    return newestOf('checking a print', printChecks(plan, settings), onShare);
  },

  /** The contours of the checked solid at a height, and their area. */
  layerAt(height: number): PrintLayer {
    const contours = slicers.flatMap((slicer) => slicer.at(height));
    return { height, contours, areaMm2: sectionArea(contours) };
  },

  /** A file that says what was proved. @throws FileRefused where it would not */
  async file(process: string, name: string, work: Work<object>, plan: unknown, choices: FileAsked): Promise<ProcessFileMade> {
    const made = await fileOf(process, name).make(work, plan, await choicesOf(choices));
    return transfer(made, [made.bytes.buffer as ArrayBuffer]);
  },

  /** What the machine is sent that stands in for a real one. @throws FileRefused where it would not do what was proved */
  async standIn(process: string, work: Work<object>, plan: unknown): Promise<StandInJob> {
    const job = await kindOf(process).standIn?.(work, plan);
    if (!job) throw new RangeError(`${process} has no stand-in`);
    return job;
  },

  /** Several files of a process, planned for them alone. @throws FileRefused where one would not say what was proved */
  async files(
    process: string,
    names: readonly string[],
    asked: WorkAsked,
    choices: FileAsked,
  ): Promise<(ProcessFileMade | { readonly refused: string })[]> {
    await kindOf(process).ready?.();
    const work = await withGreys(asked);
    const plan = await runInSlices(kindOf(process).plan(work), () => {});
    const made: (ProcessFileMade | { readonly refused: string })[] = [];
    for (const name of names) {
      try {
        made.push(await fileOf(process, name).make(work, plan, await choicesOf(choices)));
      } catch (error) {
        // One that cannot be made does not keep the others back.
        if (!(error instanceof SaidError)) throw error;
        made.push({ refused: error.message });
      }
    }
    return transfer(
      made,
      made.flatMap((file) => ('bytes' in file ? [file.bytes.buffer as ArrayBuffer] : [])),
    );
  },

  /** Fabrics in the colours of the picture that a block was traced from. */
  async fabricsFrom(source: UnderlaySource, plan: QuiltPlan, names: readonly string[]): Promise<ReturnType<typeof fabricsFromPicture>> {
    const { rasterId, widthPx, heightPx, toSheet } = source;
    const data = await fetchBytes(`/api/pictures/${rasterId}/colours`, 3 * widthPx * heightPx, () => {});
    const toPicture = chain(inverse(toSheet), plan.block.toSheet);
    return fabricsFromPicture(plan, { width: widthPx, height: heightPx, data }, toPicture, (n) => names[n - 1] ?? String(n));
  },

  /** Begins a plan's trial; how long it takes, s. */
  beginTrial(plan: MillPlan, rapidMmPerMin: number, accelerationMmPerS2: number): number {
    trial = new Trial(plan, rapidMmPerMin, accelerationMmPerS2);
    return trial.seconds;
  },

  /** The stock after so many seconds of the trial; null once a newer time is asked for. */
  async trialAt(seconds: number): Promise<TrialShown | null> {
    const shown = trial && (await newestOf('trial', trial.at(seconds)));
    return shown && transfer(shown, [shown.heights.buffer as ArrayBuffer, shown.operations.buffer as ArrayBuffer]);
  },

  /** The plan milled finely and measured; null once another is. */
  async trialMeasured(plan: MillPlan, onShare: (share: number) => void): Promise<TrialMeasured | null> {
    const found = await newestOf('measuring', provedPlan(plan), onShare);
    return found && (await measuredOf(plan, found, 'measuring'));
  },

  /** A process of the job, by its id, planned, tried and measured; null once a newer one is asked for. @throws SaidError where there can be no plan */
  async trialOf(id: string, process: string, work: Work<object>, onShare: (share: number) => void): Promise<TrialOfPlan | null> {
    const kind: Kind = `trial of ${id}`;
    const plan = (await newestOf(kind, kindOf(process).plan(work), (share) => onShare(share / 3))) as MillPlan | null;
    if (!plan) return null;
    const failures = plan.notes.filter(({ isFailure }) => isFailure);
    if (plan.runs.length === 0) return { failures, measured: null };
    const found = await newestOf(kind, provedPlan(plan), (share) => onShare((1 + 2 * share) / 3));
    const measured = found && (await measuredOf(plan, found, kind));
    return measured && { failures, measured };
  },

  stopTrialOf(id: string): void {
    nextOf(`trial of ${id}`);
  },

  stopTrial(): void {
    nextOf('trial');
    nextOf('measuring');
  },

  /** How far what the cutter burnt lies from the outlines; stretches on the sheet, mm. */
  measured(pieces: readonly Piece[], plan: CutPlan, stretches: readonly (readonly Point[])[], kerfMm: number): CutMeasured {
    const burnt = stretches.flatMap(([start, ...rest]): Path[] =>
      start && rest.length > 0 ? [{ start, segments: rest.map((to) => ({ kind: 'line', to })), closed: false }] : [],
    );
    return cutMeasured(pieces, plan, burnt, kerfMm);
  },

  /** All files in one. */
  zipped(files: readonly { name: string; bytes: Uint8Array }[]): Uint8Array {
    const entries = new Map<string, Uint8Array>();
    for (const { name, bytes } of files) entries.set(name, bytes);
    const bytes = zipSync(Object.fromEntries(entries), { level: 6 });
    return transfer(bytes, [bytes.buffer as ArrayBuffer]);
  },

  async proofSheet(pieces: readonly Piece[], facts: Omit<ProofFacts, 'picture'>, source: UnderlaySource | null): Promise<Uint8Array> {
    const picture = source && { png: (await underlayOf(source, 1)).png };
    const bytes = await writeProofSheet(pieces, { ...facts, picture });
    return transfer(bytes, [bytes.buffer as ArrayBuffer]);
  },
};

export type Maker = typeof maker;

expose(maker);
