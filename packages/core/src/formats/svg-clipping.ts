/**
 * In: outlines and regions that they are clipped to. Out: what of them is seen: areas by what they have in common with the region, lines by their
 * parts within it.
 */
import { boxAroundBoxes } from '../plane/box.ts';
import { type Path, pathArea, pathBox, rectanglePath, stepsOf } from '../plane/path.ts';
import { distance } from '../plane/point.ts';
import { pointOn } from '../plane/segment.ts';
import { splitAtPlaces } from '../shape/chains.ts';
import { combined, nested, unitedOutlines } from '../shape/combine.ts';
import { insidePoint } from '../shape/nesting.ts';
import { pathCrossings, selfCrossings } from '../shape/path-crossings.ts';
import { windingNumber } from '../shape/winding-number.ts';

/** An area: outer paths counter-clockwise, holes clockwise. */
export type Region = readonly Path[];

/** Closed outlines as an area: what an odd number of them lies around. */
export const regionOf = (paths: readonly Path[]): Region => nested(paths.filter(({ closed }) => closed)).flatMap(({ outer, holes }) => [outer, ...holes]); // biome-ignore format: one line

export const boxRegion = (x: number, y: number, width: number, height: number): Path => rectanglePath({ minX: x, minY: y, maxX: x + width, maxY: y + height }); // biome-ignore format: one line

/** What has less is a line, mm². */
const leastAreaMm2 = 1e-9;

/** @param isArea whether what is enclosed is seen, too, not only the line */
export function clippedTo(region: Region, paths: readonly Path[], isArea: boolean): Path[] {
  const isWide = (path: Path): boolean => isArea && path.closed && Math.abs(pathArea(path)) > leastAreaMm2;
  const drawn = paths.filter(isWide);
  const areas = selfCrossings(drawn).length > 0 ? unitedOutlines(drawn) : drawn;
  const lines = paths.filter((path) => !isWide(path));
  const inside = lines.flatMap((path) => partsInside(path, region));
  if (areas.length === 0) return inside;
  const { onA } = pathCrossings(areas, region);
  // What the region's border does not meet lies within it whole, or without; unless the region lies within.
  const isAround = region.some((path) => windingNumber(areas, path.start) !== 0);
  if (onA.length === 0 && !isAround) return [...inside, ...areas.filter((path) => windingNumber(region, insidePoint(path)) > 0)];
  return [...inside, ...combined(regionOf(areas), region, 'keep-common')];
}

function partsInside(path: Path, region: Region): Path[] {
  const { onA } = pathCrossings([path], region);
  const isInside = (part: Path): boolean => {
    const { from, segment } = stepsOf(part).reduce((best, step) => (distance(step.from, step.segment.to) > distance(best.from, best.segment.to) ? step : best)); // biome-ignore format: one line
    return windingNumber(region, pointOn(from, segment, 0.4871)) > 0;
  };
  if (onA.length === 0) return isInside(path) ? [path] : [];
  return splitAtPlaces(path, onA).filter((part) => part.segments.length > 0 && isInside(part)).map((part) => ({ ...part, closed: false })); // biome-ignore format: one line
}

export const boxOf = (paths: readonly Path[]) => boxAroundBoxes(paths.map(pathBox));

/** More subpaths than this are all taken as they are drawn. */
const mostSubpaths = 300;

/** Of a filled path without a line, by the rule that what is wound about at all is inside: the outlines that part inside from outside. */
export function seenByWinding(paths: readonly Path[]): readonly Path[] {
  if (paths.length < 2 || paths.length > mostSubpaths || paths.some(({ closed }) => !closed)) return paths;
  if (selfCrossings(paths).length > 0) return paths;
  return paths.filter((path) => {
    const within = windingNumber(paths, insidePoint(path));
    return within === 0 || within - Math.sign(pathArea(path)) === 0;
  });
}
