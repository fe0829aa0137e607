/**
 * In: an area and lines in it. Out: the largest circle with its middle in the area that no line enters: how far the widest place without a
 * line reaches. Looked for on a grid, then about the best place in ever smaller steps.
 */
import { chordsOf, isInside, type Path, type Point, pathBox } from '../plane/index.ts';
import { distanceTo } from '../shape/index.ts';
import type { QuiltedArea } from './quilted-areas.ts';

export interface EmptyCircle {
  readonly radiusMm: number;
  readonly at: Point;
}

/** Rounds in which the best place is looked about. */
const rounds = 12;
/** How far chords may lie from the line, mm. */
const chordMm = 0.05;

function inChords(path: Path): Path {
  const [start = path.start, ...rest] = chordsOf(path, chordMm);
  return { start, segments: rest.map((to) => ({ kind: 'line', to })), closed: false };
}

/** How far places are from lines, by chords: ten times as fast, and what they leave out of a curve is less than a line is wide. */
export const awayFrom = (lines: readonly Path[]): ((p: Point) => number) => distanceTo(lines.map(inChords));

/** @param away how far a place is from the lines, mm; @param places that are looked at along each side of the area first */
export function largestEmptyCircle(
  { outline, hole }: Pick<QuiltedArea, 'outline' | 'hole'>,
  away: (p: Point) => number,
  places = 40,
): EmptyCircle {
  const { minX, minY, maxX, maxY } = pathBox(outline);
  const isBox = isRectangleAsItLies(outline);
  const isIn = (p: Point): boolean => p.x >= minX && p.x <= maxX && p.y >= minY && p.y <= maxY && (isBox || isInside(outline, p)) && !(hole && isInside(hole, p)); // biome-ignore format: one line
  let best: EmptyCircle = { radiusMm: 0, at: { x: minX, y: minY } };
  const look = (p: Point): void => {
    if (!isIn(p)) return;
    const radiusMm = away(p);
    if (radiusMm > best.radiusMm) best = { radiusMm, at: p };
  };
  for (let i = 0; i <= places; i++)
    for (let j = 0; j <= places; j++) look({ x: minX + (i / places) * (maxX - minX), y: minY + (j / places) * (maxY - minY) });
  for (let round = 0, step = Math.max(maxX - minX, maxY - minY) / places; round < rounds; round++, step /= 2) {
    const { x, y } = best.at;
    for (const [dx, dy] of [[1, 0], [-1, 0], [0, 1], [0, -1], [1, 1], [-1, 1], [1, -1], [-1, -1]] as const) look({ x: x + dx * step, y: y + dy * step }); // biome-ignore format: one line
  }
  return best;
}

/** Whether the box about it is all of it: its edge counts as inside. */
function isRectangleAsItLies(outline: Path): boolean {
  const { minX, minY, maxX, maxY } = pathBox(outline);
  return outline.segments.length <= 5 && outline.segments.every(({ kind, to }) => kind === 'line' && (to.x === minX || to.x === maxX) && (to.y === minY || to.y === maxY)); // biome-ignore format: one line
}
