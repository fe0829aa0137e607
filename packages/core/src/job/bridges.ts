/**
 * In: pieces and the bridges that hold what would drop out. Out: the pieces with the bridges as part of their outlines. Only the
 * bridges are kept in a job; this follows from them.
 */

import { distance, nearestOnPath, type Path, type Point, pathBox, polygonPath } from '../plane/index.ts';
import { combined, nested } from '../shape/index.ts';
import type { Bridge } from './proof-settings.ts';
import { makeOf } from './purposes.ts';
import type { Piece } from './schema.ts';

/** How far a bridge reaches into what it holds, so that both become one, mm: at least, and as a share of its width. */
const reachMm = 0.05;
const reachShare = 0.5;

/** A bridge as a straight band. */
export function bridgeOutline({ from, to, widthMm }: Pick<Bridge, 'from' | 'to' | 'widthMm'>): Path {
  const size = distance(from, to) || 1;
  const [x, y] = [(to.x - from.x) / size, (to.y - from.y) / size];
  const over = reachMm + reachShare * widthMm;
  const corner = (at: Point, along: number, across: number): Point => ({
    x: at.x + x * along - y * across,
    y: at.y + y * along + x * across,
  });
  const half = widthMm / 2;
  return polygonPath([corner(from, -over, -half), corner(to, over, -half), corner(to, over, half), corner(from, -over, half)]);
}

const known = new WeakMap<readonly Piece[], { bridges: readonly Bridge[]; pieces: Piece[] }>();

/** Pieces that a bridge reaches become one piece, named and placed as the first of them. */
export function withBridges(pieces: readonly Piece[], bridges: readonly Bridge[]): readonly Piece[] {
  if (bridges.length === 0) return pieces;
  const kept = known.get(pieces);
  if (kept && kept.bridges === bridges) return kept.pieces;
  let now = [...pieces];
  for (const bridge of bridges) now = withHold(now, bridge);
  known.set(pieces, { bridges, pieces: now });
  return now;
}

function withHold(pieces: readonly Piece[], bridge: Bridge): Piece[] {
  const band = bridgeOutline(bridge);
  const box = pathBox(band);
  const reached = pieces.filter((p) => {
    if (!p.outer.closed || makeOf(p) !== 'part') return false;
    const { minX, minY, maxX, maxY } = pathBox(p.outer);
    if (minX > box.maxX || maxX < box.minX || minY > box.maxY || maxY < box.minY) return false;
    return combined([p.outer, ...p.holes], [band], 'keep-common').length > 0;
  });
  // Where an outline has gone from under an end the bridge would lead nowhere.
  const paths = reached.flatMap((p) => [p.outer, ...p.holes]);
  const isHeld = (end: Point): boolean => paths.some((path) => nearestOnPath(path, end).distance <= bridge.widthMm);
  if (!isHeld(bridge.from) || !isHeld(bridge.to)) return [...pieces];
  const united = reached.reduce<Path[]>((area, p) => combined(area, [p.outer, ...p.holes], 'unite'), [band]);
  const made = nested(united);
  const [first] = reached as [Piece];
  return pieces.flatMap((p) => {
    if (p === first)
      return made.map(({ outer, holes }, k): Piece => ({ ...first, id: k === 0 ? first.id : `${first.id}+${k}`, outer, holes }));
    return reached.includes(p) ? [] : [p];
  });
}
