/**
 * In: an area, and a pattern's repeat. Out: rows of it from edge to edge as one line: whole repeats meet the edges, each row is joined to
 * the next at its end, every second one is sewn back.
 */
import {
  type Box,
  chain,
  endOf,
  type Path,
  type Point,
  reversedPath,
  type Segment,
  shift,
  stretch,
  transformedPath,
} from '../plane/index.ts';
import { type RowPatternName, repeatOf } from './row-patterns.ts';

export interface RowSettings {
  readonly pattern: RowPatternName;
  /** As wide as a repeat and as high as a row shall be; both are fitted so that whole ones fill the area. */
  readonly repeatMm: number;
  readonly rowMm: number;
  /** How far rows reach into one another. */
  readonly overlapMm: number;
  /** Every second row starts half a repeat farther on, and runs out over the edges by as much. */
  readonly isStaggered: boolean;
  /** Every second row stands on its head. */
  readonly isMirrored: boolean;
}

export interface Rows {
  readonly path: Path;
  /** How much wider and higher than asked for, as a share: 0.02 is two per cent. */
  readonly stretchX: number;
  readonly stretchY: number;
  readonly repeats: number;
  readonly rows: number;
}

/** Rows overlap by no more than this share of their height. */
const mostOverlap = 0.9;

export function edgeToEdge(
  { minX, minY, maxX, maxY }: Box,
  { pattern, repeatMm, rowMm, overlapMm, isStaggered, isMirrored }: RowSettings,
): Rows {
  const repeats = Math.max(1, Math.round((maxX - minX) / repeatMm));
  // Rows that overlap by as much as they are high would never fill anything.
  const lapped = Math.min(overlapMm, mostOverlap * rowMm);
  const rows = Math.max(1, Math.round((maxY - minY - lapped) / (rowMm - lapped)));
  const [width, height] = [(maxX - minX) / repeats, (maxY - minY) / (rows - (rows - 1) * (lapped / rowMm))];
  const pitch = height * (1 - lapped / rowMm);
  const upright = repeatOf(pattern, width, height);
  const onItsHead = transformedPath(upright, chain(shift(0, height), stretch(1, -1)));
  const segments: Segment[] = [];
  let start: Point | null = null;
  for (let row = 0; row < rows; row++) {
    const isOdd = row % 2 === 1;
    const repeat = isOdd && isMirrored ? onItsHead : upright;
    const isShifted = isOdd && isStaggered;
    // The first row lies at the top.
    const y = maxY - height - row * pitch;
    const own = Array.from({ length: repeats + (isShifted ? 1 : 0) }, (_, k) => transformedPath(repeat, shift(minX + (k - (isShifted ? 0.5 : 0)) * width, y))); // biome-ignore format: one line
    const inTurn = isOdd ? own.reverse().map(reversedPath) : own;
    const first = (inTurn[0] as Path).start;
    if (start === null) start = first;
    else segments.push({ kind: 'line', to: first });
    for (const one of inTurn) segments.push(...one.segments);
    const end = endOf(inTurn.at(-1) as Path);
    segments[segments.length - 1] = { ...(segments.at(-1) as Segment), to: end };
  }
  return {
    path: { start: start as Point, segments, closed: false },
    stretchX: width / repeatMm - 1,
    stretchY: height / rowMm - 1,
    repeats,
    rows,
  };
}
