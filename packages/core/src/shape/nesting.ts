/**
 * In: closed paths. Out: which of them are outer ones, and which are the holes of which: one inside another is its hole, one inside
 * that an outer one again. Every tracing, combining and reading of files nests by this.
 * Rests on: the winding number about a place just inside each path; boxes in an index, so that only paths round it are asked.
 */
import { type Path, pathArea, pathBox, stepsOf } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { directionOn, pointOn } from '../plane/segment.ts';
import { boxIndex } from './box-index.ts';
import { windingNumber } from './winding-number.ts';

/** Positions in the list that was nested. */
export interface Region {
  readonly outer: number;
  readonly holes: readonly number[];
}

/** The regions, the largest first; yields the share done. */
export function* nestedRegions(paths: readonly Path[]): Generator<number, Region[]> {
  const areas = paths.map((path) => Math.abs(pathArea(path)));
  const bySize = paths.map((_, k) => k).sort((a, b) => (areas[b] as number) - (areas[a] as number));
  const index = boxIndex(bySize.map((k) => pathBox(paths[k] as Path)));
  const regions: { outer: number; holes: number[] }[] = [];
  /** Of each path, by its place from the largest: how deep it lies, and the region that it is the outer one or a hole of. */
  const depth = new Int32Array(paths.length);
  const regionOf: (typeof regions)[0][] = [];
  for (const [place, k] of bySize.entries()) {
    const inside = insidePoint(paths[k] as Path);
    // Of all larger ones round the place the smallest, which stands last, is just around.
    const larger = index?.search(inside.x, inside.y, inside.x, inside.y, (j) => j < place).sort((a, b) => b - a) ?? [];
    const around = larger.find((j) => windingNumber([paths[bySize[j] as number] as Path], inside) !== 0);
    depth[place] = around === undefined ? 0 : (depth[around] as number) + 1;
    if ((depth[place] as number) % 2 === 0) {
      const region = { outer: k, holes: [] };
      regions.push(region);
      regionOf[place] = region;
    } else {
      const region = regionOf[around as number] as (typeof regions)[0];
      region.holes.push(k);
      regionOf[place] = region;
    }
    if (place % 200 === 199) yield place / paths.length;
  }
  return regions;
}

/** A place just inside a closed path, beside the middle of its longest segment. */
export function insidePoint(path: Path): Point {
  const side = Math.sign(pathArea(path)) || 1;
  const { from, segment } = stepsOf(path).reduce((best, step) =>
    distance(step.from, step.segment.to) > distance(best.from, best.segment.to) ? step : best,
  );
  const [p, d] = [pointOn(from, segment, 0.5), directionOn(from, segment, 0.5)];
  const by = 1e-4 * side;
  return { x: p.x - d.y * by, y: p.y + d.x * by };
}
