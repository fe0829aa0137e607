/**
 * In: edges in a photograph, and the frames that are known in it. Out: the bend of the lens, where the edges tell it and nothing speaks against it:
 * the sides of a frame, where edges lie along them, have to come straight, too. What is drawn with gentle curves is not taken for a lens so.
 */
import type { Lens } from '../plane/lens.ts';
import { distance, type Point } from '../plane/point.ts';
import { bowOf, type FoundLens, lensOfEdges } from './lens.ts';

/** An edge lies along a side where it leaves it by no more than this share of its length, and is at least so long against it. */
const besideShare = 0.06;
const shortestShare = 0.4;
/** A side has come straight where it keeps no more than this of its bow, or so little, px. */
const keptShare = 0.2;
const straightPx = 0.3;

/** @param frames corners of each in turn, in the picture's pixels. Null where there is no bend to tell, or the sides of a frame do not agree with it */
export function lensOfPhotograph(
  edges: readonly (readonly Point[])[],
  frames: readonly (readonly Point[])[],
  size: { readonly width: number; readonly height: number },
): FoundLens | null {
  const lens = lensOfEdges(edges, size);
  if (!lens) return null;
  const plain: Lens = { ...lens, k: 0 };
  for (const frame of frames) {
    const along = frame.flatMap((from, k) => edgesAlong(edges, from, frame[(k + 1) % frame.length] as Point));
    const isBent = along.some((edge) => Math.abs(bowOf(edge, lens)) > Math.max(straightPx, keptShare * Math.abs(bowOf(edge, plain))));
    if (isBent) return null;
  }
  return lens;
}

function edgesAlong(edges: readonly (readonly Point[])[], from: Point, to: Point): (readonly Point[])[] {
  const length = distance(from, to);
  const off = (p: Point): number => Math.abs((to.x - from.x) * (p.y - from.y) - (to.y - from.y) * (p.x - from.x)) / length;
  return edges.filter((edge) => {
    const [first, last] = [edge[0] as Point, edge.at(-1) as Point];
    return distance(first, last) > shortestShare * length && edge.every((p) => off(p) < besideShare * length);
  });
}
