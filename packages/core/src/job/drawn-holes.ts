/**
 * In: a job's pieces and what is drawn. Out: the pieces as they are made: a slot or circle that is drawn to be cut inside another
 * piece's material is a hole of it, and no piece of its own. The same pieces give the same objects.
 */

import { type Path, pathArea, pathBox, reversedPath } from '../plane/index.ts';
import { insidePoint, pathCrossings, windingNumber } from '../shape/index.ts';
import type { Drawn } from './drawn.ts';
import { makeOf } from './purposes.ts';
import type { Piece } from './schema.ts';

const opens: ReadonlySet<string> = new Set(['slot', 'circle']);

/** Ids of drawn figures that open what they lie in. */
const openingIds = (drawn: readonly Drawn[]): ReadonlySet<string> =>
  new Set(
    drawn.flatMap(({ id, source, live, purpose }) =>
      source.kind === 'figure' && opens.has(source.figure.kind) && live.length === 0 && makeOf({ purpose }) === 'part' ? [id] : [],
    ),
  );

const kept = new WeakMap<Piece, { readonly by: readonly Piece[]; readonly piece: Piece }>();

export function withDrawnHoles(pieces: readonly Piece[], drawn: readonly Drawn[]): readonly Piece[] {
  const ids = openingIds(drawn);
  const figures = pieces.filter((p) => ids.has(p.id) && p.outer.closed && p.holes.length === 0);
  if (figures.length === 0) return pieces;
  const hosts = pieces
    .filter((p) => p.outer.closed && makeOf(p) === 'part' && !figures.includes(p))
    .map((piece) => ({ piece, area: Math.abs(pathArea(piece.outer)), box: pathBox(piece.outer) }))
    .sort((a, b) => a.area - b.area);
  const opened = new Map<Piece, Piece[]>();
  const gone = new Set<Piece>();
  for (const figure of figures) {
    const host = hosts.find(({ piece, box }) => isWithin(figure.outer, piece, box))?.piece;
    if (!host) continue;
    opened.set(host, [...(opened.get(host) ?? []), figure]);
    gone.add(figure);
  }
  if (gone.size === 0) return pieces;
  return pieces.flatMap((piece) => {
    if (gone.has(piece)) return [];
    const by = opened.get(piece);
    return by ? [withHoles(piece, by)] : [piece];
  });
}

/** Whether a figure lies all in the material of a piece. */
function isWithin(figure: Path, { outer, holes }: Piece, box: ReturnType<typeof pathBox>): boolean {
  const own = pathBox(figure);
  if (own.minX < box.minX || own.maxX > box.maxX || own.minY < box.minY || own.maxY > box.maxY) return false;
  const place = insidePoint(figure);
  if (windingNumber([outer], place) === 0 || holes.some((hole) => windingNumber([hole], place) !== 0)) return false;
  return (
    pathCrossings([outer, ...holes], [figure]).onA.length === 0 && !holes.some((hole) => windingNumber([figure], insidePoint(hole)) !== 0)
  );
}

function withHoles(piece: Piece, by: readonly Piece[]): Piece {
  const known = kept.get(piece);
  if (known && known.by.length === by.length && known.by.every((p, k) => p === by[k])) return known.piece;
  const clockwise = by.map(({ outer }) => (pathArea(outer) > 0 ? reversedPath(outer) : outer));
  const made = { ...piece, holes: [...piece.holes, ...clockwise] };
  kept.set(piece, { by, piece: made });
  return made;
}
