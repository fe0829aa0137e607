/** In: parts laid on sheets. Out: pairs that overlap or lie nearer than the gap, measured on the exact outlines. */
import { type Box, type Path, pathArea, pathBox, polygonOf, reversedPath, type Transform, transformedPath } from '../plane/index.ts';
import { combined, distanceTo } from '../shape/index.ts';
import type { NestedPart, NestingPart } from './bottom-left.ts';

/** Two parts that lie nearer than they may, on which sheet; less than 0 where they overlap. */
export interface LayoutFault {
  readonly sheet: number;
  readonly distanceMm: number;
}

/** Chords on which distances are looked for leave curves by no more than this; distances count as right within it and a rounding, mm. */
const lookMm = 0.002;

/** Pairs of parts that overlap, or that lie nearer to each other than the gap; none in a layout that is right. */
export function layoutFaults(placed: readonly NestedPart[], parts: readonly NestingPart[], gapMm: number): LayoutFault[] {
  const faults: LayoutFault[] = [];
  const lying = placed.map(({ part, sheet, place }) => lyingOf(parts[part] as NestingPart, sheet, place));
  for (const [i, a] of lying.entries())
    for (const b of lying.slice(i + 1)) {
      if (a.sheet !== b.sheet || areApart(a.box, b.box, gapMm)) continue;
      const overlap = combined([...a.paths], [...b.paths], 'keep-common').reduce((sum, path) => sum + Math.abs(pathArea(path)), 0);
      const distanceMm = overlap > lookMm ? -overlap : Math.min(nearest(a, b), nearest(b, a));
      if (distanceMm < gapMm - 2 * lookMm) faults.push({ sheet: a.sheet, distanceMm });
    }
  return faults;
}

const areApart = (a: Box, b: Box, gapMm: number): boolean => a.minX > b.maxX + gapMm || b.minX > a.maxX + gapMm || a.minY > b.maxY + gapMm || b.minY > a.maxY + gapMm; // biome-ignore format: one line

interface Lying {
  readonly sheet: number;
  readonly box: Box;
  readonly paths: readonly Path[];
}

function lyingOf({ outer, holes }: NestingPart, sheet: number, place: Transform): Lying {
  const paths = [outer, ...holes].map((path) => transformedPath(path, place));
  const isTurnedOver = place.a * place.d - place.b * place.c < 0;
  return { sheet, box: pathBox(paths[0] as Path), paths: isTurnedOver ? paths.map(reversedPath) : paths };
}

/** How near the corners of one's chords come to the other: what is apart is nearest at a corner. */
function nearest(a: Lying, b: Lying): number {
  const distance = distanceTo(b.paths);
  return a.paths.reduce((least, path) => polygonOf(path, lookMm).reduce((best, at) => Math.min(best, distance(at)), least), Infinity);
}
