/**
 * In: pieces on the sheet. Out: what their segments nearly are to one another, and the pieces with that made exact.
 * All pieces are looked at together; where there are many segments, each piece alone, as all together would take too long.
 */
import type { Path } from '../plane/path.ts';
import { regularize } from '../trace/constraint-solver.ts';
import { type Relation, relationsIn } from '../trace/relations.ts';
import { pathsOf } from './piece-paths.ts';
import type { Piece } from './schema.ts';

/** More segments than this are looked at piece by piece. */
const maxTogether = 240;

type Outlined = Pick<Piece, 'outer' | 'holes'>;

/** A relation with a key by which it can be refused. */
export interface KeyedRelation extends Relation {
  readonly key: string;
}

function groupsOf<P extends Outlined>(pieces: readonly P[]): (readonly P[])[] {
  const segments = pieces.flatMap(pathsOf).reduce((sum, path) => sum + path.segments.length, 0);
  return segments <= maxTogether ? [pieces] : pieces.map((piece) => [piece]);
}

const keyedIn = (group: readonly Outlined[], number: number, toleranceMm: number): KeyedRelation[] =>
  relationsIn(group.flatMap(pathsOf), toleranceMm).map((relation, k) => ({ ...relation, key: `${number} ${k}` }));

/** @param toleranceMm how far a point may be moved */
export const relationsOfPieces = (pieces: readonly Outlined[], toleranceMm: number): KeyedRelation[] =>
  groupsOf(pieces).flatMap((group, number) => keyedIn(group, number, toleranceMm));

export interface RelatedPiece<P> {
  /** The piece as it was. */
  readonly piece: P;
  readonly outer: Path;
  readonly holes: readonly Path[];
  /** How many relations hold in which one of its segments follows. */
  readonly held: number;
}

/** Pieces with their relations made exact, but those refused, group by group; only pieces that take part in any. */
export function* relatedPieces<P extends Outlined>(
  pieces: readonly P[],
  refused: readonly string[],
  toleranceMm: number,
): Generator<RelatedPiece<P>[]> {
  for (const [number, group] of groupsOf(pieces).entries()) {
    const wanted = keyedIn(group, number, toleranceMm).filter(({ key }) => !refused.includes(key));
    if (wanted.length === 0) continue;
    const { paths, held } = regularize(group.flatMap(pathsOf), wanted, toleranceMm);
    let first = 0;
    yield group.flatMap((piece): RelatedPiece<P>[] => {
      const [from, to] = [first, first + 1 + piece.holes.length];
      first = to;
      const [outer, ...holes] = paths.slice(from, to);
      const isOwn = (ref: Relation['of'][0] | undefined) => ref !== undefined && ref.path >= from && ref.path < to;
      if (!outer || !held.some(({ of }) => of.some(isOwn))) return [];
      return [{ piece, outer, holes, held: held.filter(({ of: [ref] }) => isOwn(ref)).length }];
    });
  }
}
