/**
 * What is drawn by hand: its schema, and the pieces that follow from it. Only the master and the steps are kept in the job;
 * all that follows from them is worked out here, and kept by identity while nothing changes.
 */

import { z } from 'zod';
import { english } from '../messages/index.ts';
import type { Path } from '../plane/path.ts';
import {
  cornerCuts,
  cornerKinds,
  counterClockwise,
  dimensionsCarried,
  endKinds,
  type Figure,
  FigureError,
  figurePath,
  followed,
  type LiveResult,
  type LiveStep,
  nested,
  pathThrough,
  solveDimensions,
  stripOf,
} from '../shape/index.ts';
import { type Purpose, purposes } from './purposes.ts';
import { coordinate as finite, type Piece, pathSchema, pointSchema, text } from './schema-parts.ts';

const size = finite.positive().max(100_000);
/** Shorter than a piece's, which may carry a number more. */
const id = text(48);

const drawnPointSchema = z.strictObject({
  at: pointSchema,
  corner: z.boolean(),
  through: pointSchema.optional(),
  before: pointSchema.optional(),
  after: pointSchema.optional(),
});

const figureSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('line'), from: pointSchema, to: pointSchema }),
  z.strictObject({ kind: z.literal('arc'), from: pointSchema, to: pointSchema, sweep: finite }),
  z.strictObject({
    kind: z.literal('rectangle'),
    centre: pointSchema,
    width: size,
    height: size,
    radius: finite.nonnegative(),
    angle: finite,
  }),
  z.strictObject({ kind: z.literal('circle'), centre: pointSchema, radius: size }),
  z.strictObject({ kind: z.literal('ellipse'), centre: pointSchema, rx: size, ry: size, angle: finite }),
  z.strictObject({ kind: z.literal('polygon'), centre: pointSchema, sides: z.int().min(3).max(360), radius: size, angle: finite }),
  z.strictObject({
    kind: z.literal('slot'),
    from: pointSchema,
    to: pointSchema,
    /** Null follows the stock's thickness. */
    width: size.nullable(),
    /** What is added to the width, mm. */
    play: finite,
    ends: z.enum(['round', 'flat']),
  }),
]);

const liveStepSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('round'), size, which: z.enum(['all', 'inner', 'outer']), how: z.enum(cornerCuts) }),
  z.strictObject({
    kind: z.literal('offset'),
    by: finite,
    count: z.int().min(1).max(100),
    corners: z.enum(cornerKinds),
    keeps: z.boolean(),
    /** The one outline that is set off, in their order before this step; without it all are, as areas. */
    only: z.int().min(0).max(20_000).optional(),
  }),
  z.strictObject({ kind: z.literal('band'), width: size, ends: z.enum(endKinds), corners: z.enum(cornerKinds) }),
  z.strictObject({
    kind: z.literal('mirror'),
    a: pointSchema,
    b: pointSchema,
    /** The half that stands for both, seen from `a` to `b`; without it all that is drawn. */
    keeps: z.enum(['left', 'right']).optional(),
    /** Ends within this of the axis are led on to it or cut off at it, mm. */
    reach: finite.min(0).max(1000).optional(),
  }),
  z.strictObject({ kind: z.literal('turn'), centre: pointSchema, count: z.int().min(2).max(60), mirrored: z.boolean(), axis: finite }),
  z.strictObject({ kind: z.literal('cut-out'), ids: z.array(id).min(1).max(500) }),
]);

const followingStock = { mm: size.nullable(), play: finite };
const position = z.int().min(0).max(20_000);
const heldSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('length'), segment: position, ...followingStock }),
  z.strictObject({ kind: z.literal('radius'), segment: position, ...followingStock }),
  z.strictObject({ kind: z.literal('turn'), point: position, turn: finite }),
  z.strictObject({ kind: z.literal('gap'), a: position, b: position, ...followingStock }),
]);

/** Its fields, each checked by itself. */
export const drawnFields = z.strictObject({
  id,
  name: text(80),
  purpose: z.enum(purposes),
  /** Purposes of single outlines, by their number; the others have that of the whole. */
  purposes: z.record(z.string().regex(/^\d{1,5}$/), z.enum(purposes)).optional(),
  leftOut: z.boolean().default(false),
  source: z.discriminatedUnion('kind', [
    /** As it is being drawn, point by point; one point alone is kept, too. */
    z.strictObject({ kind: z.literal('points'), points: z.array(drawnPointSchema).min(1).max(20_000), closed: z.boolean() }),
    z.strictObject({ kind: z.literal('path'), path: pathSchema }),
    /** A piece with holes, as several operations leave it. */
    z.strictObject({ kind: z.literal('paths'), paths: z.array(pathSchema).min(1).max(20_000) }),
    z.strictObject({ kind: z.literal('figure'), figure: figureSchema }),
    /** The straight strip that bends into another drawn line, with what is drawn on that; its lower left corner lies `at`. */
    z.strictObject({
      kind: z.literal('strip'),
      of: id,
      k: finite.min(0).max(1),
      side: z.enum(['left', 'right']),
      widthMm: size,
      at: pointSchema,
    }),
  ]),
  /** The motif that it was placed from, and where that was fitted, so that another can take its place. */
  motif: z.strictObject({ id, fit: z.strictObject({ kind: z.enum(['between', 'box']), a: pointSchema, b: pointSchema }) }).optional(),
  /** Measures that its one outline keeps, whatever of it is moved. */
  held: z.array(heldSchema).max(200).optional(),
  /** What follows from it, one step after another. */
  live: z.array(liveStepSchema).max(12).default([]),
});

/** More outlines than this cannot be shown, proved or cut in one job. */
export const maxOutlines = 20_000;

/** How many outlines follow at most from a drawn thing, before copies that meet are joined. */
function followingCount({ source, live }: Pick<z.infer<typeof drawnFields>, 'source' | 'live'>): number {
  const masters = source.kind === 'paths' ? source.paths.length : 1;
  return live.reduce((count, step) => {
    if (step.kind === 'turn') return count * step.count * (step.mirrored ? 2 : 1);
    if (step.kind === 'mirror') return count * 2;
    return step.kind === 'offset' ? count * (step.count + (step.keeps ? 1 : 0)) : count;
  }, masters);
}

export const isFollowable = (drawn: readonly Pick<z.infer<typeof drawnFields>, 'source' | 'live'>[]): boolean =>
  drawn.reduce((sum, one) => sum + followingCount(one), 0) <= maxOutlines;
export const tooManyFollow = english.job.tooManyFollow;

export const drawnSchema = drawnFields.refine((one) => isFollowable([one]), tooManyFollow);
export type Drawn = z.infer<typeof drawnSchema>;
export type DrawnSource = Drawn['source'];

/** What a master looks like; none while it is a single point, or a figure that cannot be. */
export interface Master {
  readonly paths: readonly Path[];
  /** Why there is none, in words. */
  readonly fault: string | null;
  /** What each held measure is still off, mm or radians; not a number where its place is gone. */
  readonly off: readonly number[];
}

const masters = new WeakMap<DrawnSource, { thickness: number | null; held: Drawn['held']; master: Master }>();

export function masterOf({ source, held }: Pick<Drawn, 'source' | 'held'>, thicknessMm: number | null): Master {
  const kept = masters.get(source);
  if (kept && kept.thickness === thicknessMm && kept.held === held) return kept.master;
  const plain = masterFrom(source, thicknessMm);
  const [only, ...others] = plain.paths;
  const keeps = only && others.length === 0 && held && held.length > 0 && canHold(source);
  const fitted = keeps ? solveDimensions(only, held, thicknessMm) : null;
  const master = fitted ? { paths: [fitted.path], fault: null, off: fitted.off } : plain;
  masters.set(source, { thickness: thicknessMm, held, master });
  return master;
}

/** Whether lengths and angles can be locked: only on one outline by itself. A slot or a circle has its own measures instead. */
export const canHold = ({ kind }: DrawnSource): boolean => kind === 'points' || kind === 'path';

function masterFrom(source: DrawnSource, thicknessMm: number | null): Master {
  const made = (paths: readonly Path[], fault: string | null = null): Master => ({ paths, fault, off: [] });
  try {
    if (source.kind === 'path') return made([source.path]);
    if (source.kind === 'paths') return made(source.paths);
    // What follows from another drawn thing has no master of its own.
    if (source.kind === 'strip') return made([]);
    if (source.kind === 'figure') return made([figurePath(source.figure as Figure, thicknessMm)]);
    const path = pathThrough(source.points as Parameters<typeof pathThrough>[0], source.closed);
    return made(path ? [path] : []);
  } catch (error) {
    if (error instanceof FigureError) return made([], error.message);
    throw error;
  }
}

/** A drawn thing drawn anew: measures it keeps go along with the points and segments that are still there. */
export function redrawn(drawn: Drawn, source: DrawnSource, thicknessMm: number | null): Drawn {
  if (!drawn.held || drawn.held.length === 0) return { ...drawn, source };
  const [before, after] = [masterOf(drawn, thicknessMm).paths[0], masterOf({ source }, thicknessMm).paths[0]];
  return { ...drawn, source, held: before && after && canHold(source) ? dimensionsCarried(before, after, drawn.held) : [] };
}

interface Drawing {
  readonly drawn: readonly Drawn[];
  readonly making: { readonly stock: { readonly thicknessMm: number | null } };
}

/** Past so many things cut out of one another in a row the chain is taken for a circle. */
const deepest = 8;

/** All that follows from one drawn thing. */
export function outlinesFrom(one: Drawn, { drawn, making }: Drawing, depth = 0): LiveResult {
  const { paths } = one.source.kind === 'strip' ? { paths: stripPaths(one.source, one, { drawn, making }, depth) } : masterOf(one, making.stock.thicknessMm); // biome-ignore format: one line
  return followed(paths, one.live as readonly LiveStep[], (other) => {
    const cutter = drawn.find((d) => d.id === other);
    return cutter && cutter !== one && depth < deepest ? outlinesFrom(cutter, { drawn, making }, depth + 1).paths : [];
  });
}

type StripSource = Extract<DrawnSource, { kind: 'strip' }>;
const strips = new WeakMap<StripSource, { readonly from: readonly unknown[]; readonly paths: readonly Path[] }>();

/** The strip of a drawn line and what is drawn on it, as they are now; kept while none of them changes. */
function stripPaths(source: StripSource, own: Drawn, { drawn, making }: Drawing, depth: number): readonly Path[] {
  const line = drawn.find(({ id: other }) => other === source.of);
  if (!line || depth >= deepest) return none;
  const outlinesOf = (d: Drawn): readonly Path[] => outlinesFrom(d, { drawn, making }, depth + 1).paths;
  const [curve] = outlinesOf(line);
  if (!curve) return none;
  const others = drawn.filter((d) => d !== line && d !== own && d.source.kind !== 'strip' && !d.leftOut).map(outlinesOf);
  const from = [curve, making.stock.thicknessMm, ...others];
  const kept = strips.get(source);
  if (kept && kept.from.length === from.length && kept.from.every((value, k) => value === from[k])) return kept.paths;
  const { k, side, widthMm, at } = source;
  const paths = stripOf(curve, { thicknessMm: making.stock.thicknessMm ?? 0, k, side, widthMm }, others.flat(), at);
  strips.set(source, { from, paths });
  return paths;
}

const none: readonly Path[] = [];

/** Ids of drawn things that others are cut out by: they are no pieces of their own. */
const cuttersIn = (drawn: readonly Drawn[]): ReadonlySet<string> =>
  new Set(drawn.flatMap(({ live }) => live.flatMap((step) => (step.kind === 'cut-out' ? step.ids : []))));

const known = new WeakMap<readonly Path[], { drawn: Drawn; pieces: Piece[] }>();

/** Drawn things as pieces: closed outlines nested, open lines each by itself. */
export function drawnPieces(job: Drawing): Piece[] {
  const cutters = cuttersIn(job.drawn);
  return job.drawn.flatMap((drawn) => {
    if (cutters.has(drawn.id)) return [];
    const { paths } = outlinesFrom(drawn, job);
    const kept = known.get(paths);
    if (kept && looksAlike(kept.drawn, drawn)) return kept.pieces;
    const pieces = asPieces(drawn, paths);
    known.set(paths, { drawn, pieces });
    return pieces;
  });
}

const looksAlike = (a: Drawn, b: Drawn): boolean =>
  a.id === b.id && a.name === b.name && a.purpose === b.purpose && a.purposes === b.purposes && a.leftOut === b.leftOut;

const ringPart = 'ring-';

/** Whether two pieces are rings of one drawn thing. */
export function areRings(a: Pick<Piece, 'id'>, b: Pick<Piece, 'id'>): boolean {
  const [[rootA, partA = ''], [rootB, partB = '']] = [a.id.split('/'), b.id.split('/')] as [[string, string?], [string, string?]];
  return rootA === rootB && `${partA} ${partB}`.includes(ringPart);
}

/** Closed outlines of one purpose lie in one another as holes and islands; those of another purpose do not count among them. */
function asPieces({ id: drawnId, name, purpose: whole, purposes: own, leftOut, live }: Drawn, paths: readonly Path[]): Piece[] {
  const purposeOf = (k: number): Purpose => own?.[k] ?? whole;
  const groups = [...new Set(paths.map((_, k) => purposeOf(k)))];
  const all = groups.flatMap((purpose) => {
    const mine = paths.filter((_, k) => purposeOf(k) === purpose);
    const [closed, open] = [mine.filter((path) => path.closed), mine.filter((path) => !path.closed)];
    const areas = closed.length === 1 ? [{ outer: counterClockwise(closed[0] as Path), holes: [] }] : nested(closed);
    return [...areas, ...open.map((outer) => ({ outer, holes: [] as Path[] }))].map((area) => ({ ...area, purpose }));
  });
  // Rings lie in one another on purpose, and so do outlines of several purposes: their ids say so.
  const part = live.some((step) => step.kind === 'offset') || groups.length > 1 ? ringPart : '';
  return all.map(
    ({ outer, holes, purpose }, k): Piece => ({
      id: k === 0 ? drawnId : `${drawnId}/${part}${k + 1}`,
      name: all.length === 1 ? name : `${name} ${k + 1}`,
      purpose,
      leftOut,
      runsOff: false,
      outer,
      holes: [...holes],
    }),
  );
}

/** The drawn thing that a piece comes from. */
export const drawnOf = (drawn: readonly Drawn[], pieceId: string): Drawn | undefined => {
  const own = pieceId.split('/')[0];
  return drawn.find((d) => d.id === own);
};
