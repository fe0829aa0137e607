/**
 * The making worker: proves outlines, plans cuts, tiles pages, and writes files that it reads back before it hands them over. The
 * newest request of each kind only.
 */
import { type ProofFacts, type Underlay, writePng, writeProofSheet, writeTiles } from '@nuvet/core/formats';
import type { Piece, Printing, Setup } from '@nuvet/core/job';
import {
  type CutMeasured,
  type CutPlan,
  cutMeasured,
  cutPlan,
  type FileKind,
  type MadeFile,
  madeFile,
  outlinesToWrite,
  type Tiling,
  tiled,
} from '@nuvet/core/make';
import type { Path, Point, Transform } from '@nuvet/core/plane';
import { type Fault, isBody, narrowPlaces, type ProofLimits, Prover } from '@nuvet/core/proof';
import { expose, transfer } from 'comlink';
import { zipSync } from 'fflate';
import { fetchBytes } from './pixels';

/** How long the worker computes before it looks whether it is still wanted. */
const breathMs = 30;
const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0));

type Kind = 'proof' | 'plan';
const newest: Record<Kind, number> = { proof: 0, plan: 0 };

/** Runs steps with a breath now and then; null once a newer request has come. */
async function breathing<T>(kind: Kind, steps: Generator<number, T>, onShare?: (share: number) => void): Promise<T | null> {
  const mine = ++newest[kind];
  let since = performance.now();
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) return step.value;
    if (performance.now() - since < breathMs) continue;
    onShare?.(step.value);
    await breath();
    if (mine !== newest[kind]) return null;
    since = performance.now();
  }
}

const prover = new Prover();
/** Pieces as they were sent, so that those that did not change keep what was found of them. */
const known = new Map<string, Piece>();

/** A picture that lies under a print: which pixels, and where they lie on the sheet. */
export interface UnderlaySource {
  readonly surfaceId: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly toSheet: Transform;
}

export interface FileAsked {
  readonly kind: FileKind;
  readonly name: string;
}

/** The picture's grey, made paler so that lines stand out. */
async function underlayOf(source: UnderlaySource, paleness: number): Promise<Underlay> {
  const { surfaceId, widthPx, heightPx, toSheet } = source;
  const grey = await fetchBytes(`/api/pictures/${surfaceId}/grey`, widthPx * heightPx, () => {});
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
  async prove(changed: readonly Piece[], ids: readonly string[], limits: ProofLimits): Promise<Fault[] | null> {
    for (const piece of changed) known.set(piece.id, piece);
    const wanted = new Set(ids);
    for (const id of known.keys()) if (!wanted.has(id)) known.delete(id);
    const pieces = ids.flatMap((id) => known.get(id) ?? []);
    return breathing('proof', prover.prove(pieces, limits));
  },

  async plan(pieces: readonly Piece[], { cutting, machine }: Setup, onShare: (share: number) => void): Promise<CutPlan | null> {
    return breathing('plan', cutPlan(pieces, cutting, machine), onShare);
  },

  stopPlan(): void {
    newest.plan++;
  },

  /** A file that says what was proved. @throws FileRefused where it would not */
  async file(kind: FileKind, pieces: readonly Piece[], setup: Setup, plan: CutPlan, title: string, dpi: number): Promise<MadeFile> {
    const made = await madeFile(kind, pieces, { title, setup, plan, dpi });
    return transfer(made, [made.bytes.buffer as ArrayBuffer]);
  },

  /** How far what the cutter burnt lies from the outlines; stretches on the sheet, mm. */
  measured(pieces: readonly Piece[], setup: Setup, plan: CutPlan, stretches: readonly (readonly Point[])[]): CutMeasured {
    const burnt = stretches.flatMap(([start, ...rest]): Path[] =>
      start && rest.length > 0 ? [{ start, segments: rest.map((to) => ({ kind: 'line', to })), closed: false }] : [],
    );
    return cutMeasured(pieces, plan, burnt, setup.cutting.kerfMm);
  },

  /** All files in one. */
  zipped(files: readonly { name: string; bytes: Uint8Array }[]): Uint8Array {
    const entries = new Map<string, Uint8Array>();
    for (const { name, bytes } of files) entries.set(name, bytes);
    const bytes = zipSync(Object.fromEntries(entries), { level: 6 });
    return transfer(bytes, [bytes.buffer as ArrayBuffer]);
  },

  tiling(paths: readonly Path[], printing: Printing): Tiling {
    return tiled(paths, printing);
  },

  async print(pieces: readonly Piece[], setup: Setup, title: string, source: UnderlaySource | null): Promise<Uint8Array> {
    // Paper has no kerf: what is printed is the outline itself.
    const outlines = outlinesToWrite(pieces, { ...setup, cutting: { ...setup.cutting, kerfMm: 0 } });
    const tiling = tiled(
      outlines.flatMap((p) => [p.outer, ...p.holes]),
      setup.printing,
    );
    const bytes = await writeTiles(outlines, tiling, title, source && (await underlayOf(source, underlayPaleness)));
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
