/**
 * In: what a person drew (the master), and what follows from it: rounding, thickness, cut-outs, a mirror, turned copies.
 * Out: the outlines that come of it. Nothing derived is stored: it is worked out anew when the master changes, and kept by
 * identity while it does not.
 */
import { type Path, pathArea, reversedPath } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { combined, nested, overlapsUnited } from './combine.ts';
import { type Copies, joinedImages, mirrorImages, turnedImages } from './copies.ts';
import { type CornerCut, cornersOf, withCornersCut } from './corner-cuts.ts';
import { type HalfSide, halfAtAxis } from './half-at-axis.ts';
import { noOffsetMemory, type OffsetMemory, offsetPiece } from './offset.ts';
import { type CornerKind, plainOffset } from './raw-offset.ts';
import { type EndKind, strokeOutline } from './stroke-outline.ts';

export type LiveStep =
  | { readonly kind: 'round'; readonly size: number; readonly which: 'all' | 'inner' | 'outer'; readonly how: CornerCut }
  /** Closed outlines grow by `by`, shrink where it is negative; again and again, `count` times. `keeps` shows the outline itself, too. */
  | {
      readonly kind: 'offset';
      readonly by: number;
      readonly count: number;
      readonly corners: CornerKind;
      readonly keeps: boolean;
      /** The one outline that is set off, by its number; all without it. */
      readonly only?: number | undefined;
    }
  /** Lines become bands of a width. */
  | { readonly kind: 'band'; readonly width: number; readonly ends: EndKind; readonly corners: CornerKind }
  /**
   * About the line from `a` to `b`. `keeps` is the half that stands for both, seen from `a` to `b`; without it all that is
   * drawn. Ends within `reach` mm of the axis are led on to it or cut off at it.
   */
  | {
      readonly kind: 'mirror';
      readonly a: Point;
      readonly b: Point;
      readonly keeps?: HalfSide | undefined;
      readonly reach?: number | undefined;
    }
  | { readonly kind: 'turn'; readonly centre: Point; readonly count: number; readonly mirrored: boolean; readonly axis: number }
  /** The outlines of other drawn things are taken out of it. */
  | { readonly kind: 'cut-out'; readonly ids: readonly string[] };

export interface LiveResult {
  readonly paths: readonly Path[];
  /** Where images should meet and do not. */
  readonly gaps: Copies['gaps'];
  /** How many corners are too tight for their round. */
  readonly unrounded: number;
}

const plain = (paths: readonly Path[]): LiveResult => ({ paths, gaps: [], unrounded: 0 });

const known = new WeakMap<object, WeakMap<object, LiveResult>>();

/** What follows from masters by one step after another; `outlinesOf` gives those of other drawn things. */
export function followed(masters: readonly Path[], steps: readonly LiveStep[], outlinesOf: (id: string) => readonly Path[]): LiveResult {
  return steps.reduce<LiveResult>((before, step) => {
    // What others are cut out may change while this stays the same: only the rest is kept.
    const kept = step.kind === 'cut-out' ? undefined : known.get(before.paths)?.get(step);
    if (kept) return withNotes(before, kept);
    const made = after(before.paths, step, outlinesOf);
    if (step.kind !== 'cut-out') {
      const of = known.get(before.paths) ?? new WeakMap<object, LiveResult>();
      of.set(step, made);
      known.set(before.paths, of);
    }
    return withNotes(before, made);
  }, plain(masters));
}

const withNotes = (before: LiveResult, made: LiveResult): LiveResult => ({
  paths: made.paths,
  gaps: made.gaps,
  unrounded: before.unrounded + made.unrounded,
});

function after(paths: readonly Path[], step: LiveStep, outlinesOf: (id: string) => readonly Path[]): LiveResult {
  switch (step.kind) {
    case 'round':
      return rounded(paths, step);
    case 'offset':
      return plain(setOff(paths, step));
    case 'band':
      return plain(paths.flatMap((path) => flat(strokeOutline(path, step.width, step.ends, { ...plainOffset, corners: step.corners }))));
    case 'mirror':
      return {
        ...joinedImages(halfAtAxis(paths, step.a, step.b, step.keeps ?? null, step.reach ?? 0), mirrorImages(step.a, step.b)),
        unrounded: 0,
      };
    case 'turn':
      return { ...joinedImages(paths, turnedImages(step.centre, step.count, step.mirrored, step.axis)), unrounded: 0 };
    case 'cut-out':
      return plain(step.ids.reduce<readonly Path[]>((now, id) => withoutOutlines(now, outlinesOf(id)), paths));
  }
}

const flat = (pieces: readonly { outer: Path; holes: Path[] }[]): Path[] => pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
const isLeft = (path: Path): boolean => pathArea(path) > 0;

function rounded(paths: readonly Path[], { size, which, how }: Extract<LiveStep, { kind: 'round' }>): LiveResult {
  let unrounded = 0;
  const made = paths.map((path) => {
    // Told from the area inside: on a path that runs clockwise inner and outer change places.
    const isTurned = path.closed && !isLeft(path);
    const meant = cornersOf(path).filter(({ isOuter }) => which === 'all' || (which === 'outer') === (isOuter !== isTurned));
    const cut = withCornersCut(path, meant.map(({ index }) => index), size, how); // biome-ignore format: one line
    unrounded += cut.left.length;
    return cut.path;
  });
  return { paths: made, gaps: [], unrounded };
}

/** What each live offset found last, piece by piece and ring by ring: while a point is dragged most of it stays. */
const offsetMemories = new WeakMap<LiveStep, Map<string, OffsetMemory>>();

function setOff(paths: readonly Path[], step: Extract<LiveStep, { kind: 'offset' }>): Path[] {
  const { by, count, corners, keeps, only } = step;
  const [closed, others] = [[] as Path[], [] as Path[]];
  for (const [k, path] of paths.entries()) (path.closed && (only === undefined || only === k) ? closed : others).push(path);
  const memories = offsetMemories.get(step) ?? new Map<string, OffsetMemory>();
  offsetMemories.set(step, memories);
  const memoryOf = (key: string): OffsetMemory => {
    const memory = memories.get(key) ?? noOffsetMemory();
    memories.set(key, memory);
    return memory;
  };
  // One outline alone is set off as it is seen: outward makes it larger, also where it is a hole.
  const pieces =
    only === undefined ? nested(closed) : closed.map((path) => ({ outer: isLeft(path) ? path : reversedPath(path), holes: [] as Path[] }));
  const made = Array.from({ length: count }, (_, ring) => {
    const areas = pieces.map((piece, k) => offsetPiece(piece, by * (ring + 1), { ...plainOffset, corners }, memoryOf(`${k}/${ring}`)));
    // Grown, pieces may come to overlap.
    return overlapsUnited(areas.flat().map(({ outer, holes }) => [outer, ...holes]));
  }).flat();
  return keeps ? [...paths, ...made] : [...made, ...others];
}

function withoutOutlines(paths: readonly Path[], others: readonly Path[]): Path[] {
  const areas = paths.filter((path) => path.closed);
  const cutters = nested(others.filter((path) => path.closed)).flatMap(({ outer, holes }) => [outer, ...holes]);
  if (cutters.length === 0) return [...paths];
  const left = nested(areas).flatMap(({ outer, holes }) => combined([outer, ...holes], cutters, 'take-away'));
  return [...left, ...paths.filter((path) => !path.closed)];
}
