/**
 * In: a block, its patches by shape, and their templates. Out: of each curved seam how long it is on the templates of both its patches, and the
 * ease: by how much one is longer. Patches that are alike share a template; what is drawn freely is alike within a little, and that shows here.
 */
import { nearestOnSegment, type Path, type Point, pathLength, pointOn, segmentLength, stepsOf } from '../plane/index.ts';
import type { Block } from './block.ts';
import { sidePaths } from './outline-sides.ts';
import type { Patch, PatchShape } from './patches.ts';

export interface SeamEase {
  /** The shapes on either side, in the order of the alphabet. */
  readonly shapes: readonly [string, string];
  readonly lengthMm: number;
  /** By how much the seam is longer on one of the templates. */
  readonly easeMm: number;
  /** How many seams of the block are so. */
  readonly count: number;
}

/** Lengths are told apart by this, mm. */
const sameMm = 0.005;

export function seamEases({ map }: Pick<Block, 'map'>, shapes: readonly PatchShape[]): SeamEase[] {
  const of = new Map(shapes.flatMap((shape) => shape.patches.map((patch) => [patch.face, { shape, patch }] as const)));
  const found: { shapes: [string, string]; lengthMm: number; easeMm: number; count: number }[] = [];
  for (const { from, segment, left, right } of map.edges) {
    const [a, b] = [of.get(left), of.get(right)];
    if (segment.kind === 'line' || !a || !b) continue;
    const start = map.nodes[from] as Point;
    const length = segmentLength(start, segment);
    const middle = pointOn(start, segment, 0.5);
    const [own, other] = [a, b].map(({ shape, patch }) => length * stretchAt(shape, patch, middle)) as [number, number];
    const names = [a.shape.name, b.shape.name].sort() as [string, string];
    const [lengthMm, easeMm] = [Math.max(own, other), Math.abs(own - other)];
    const same = found.find((one) => one.shapes.join() === names.join() && Math.abs(one.lengthMm - lengthMm) < sameMm && Math.abs(one.easeMm - easeMm) < sameMm); // biome-ignore format: one line
    if (same) same.count++;
    else found.push({ shapes: names, lengthMm, easeMm, count: 1 });
  }
  return found.sort((a, b) => b.easeMm - a.easeMm || a.shapes.join().localeCompare(b.shapes.join()));
}

/** How much longer the side at a place of a patch is on its shape's template, as a factor. */
function stretchAt(shape: PatchShape, { outline, isReversed, firstCorner }: Patch, at: Point): number {
  const [own, drawn] = [sidePaths(outline), sidePaths(shape.outline)];
  const away = (path: Path): number => Math.min(...stepsOf(path).map(({ from, segment }) => nearestOnSegment(from, segment, at).distance));
  const side = own.reduce((best, path, k) => (away(path) < away(own[best] as Path) ? k : best), 0);
  const count = own.length;
  // Of a patch turned over corners run on backwards, so a side lies before its corner.
  const twin = isReversed ? firstCorner - side - 1 : side - firstCorner;
  return pathLength(drawn[((twin % count) + count) % count] as Path) / pathLength(own[side] as Path);
}
