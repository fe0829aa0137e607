/**
 * In: an open line and a width. Out: the closed outline of a band about it, its ends round, flat or square.
 */
import { endOf, type Path, reversedPath, stepsOf } from '../plane/path.ts';
import { norm, type Point } from '../plane/point.ts';
import { directionOn, pointOn, type Segment } from '../plane/segment.ts';
import { closedExactly } from './chains.ts';
import { combined, counterClockwise, nested } from './combine.ts';
import { merged } from './merging.ts';
import { offsetPiece } from './offset.ts';
import { validLoops } from './offset-loops.ts';
import { selfCrossings } from './path-crossings.ts';
import { nearnessSlack, type OffsetSettings, plainOffset, rawOffset } from './raw-offset.ts';
import { nearnessTo, windingNumber } from './winding-number.ts';

export const endKinds = ['round', 'flat', 'square'] as const;
export type EndKind = (typeof endKinds)[number];

/** Band about a line, `width` wide in all, in pieces (one that crosses itself encloses holes; closed, it is taken as one that ends where it began). */
export function strokeOutline(
  line: Path,
  width: number,
  ends: EndKind,
  settings: OffsetSettings = plainOffset,
): { outer: Path; holes: Path[] }[] {
  if (!(width > 0)) throw new RangeError(`a band cannot be ${width} wide`);
  const half = width / 2;
  const isRing = line.closed && selfCrossings([line]).length === 0;
  if (isRing) return ringAbout(counterClockwise(line), half, settings);
  const [right, back] = [rawOffset(line, -half, settings), rawOffset(reversedPath(line), -half, settings)];
  const steps = stepsOf(line);
  const [first, last] = [steps[0], steps.at(-1)];
  if (!first || !last) throw new RangeError('a line without segments has no band');
  const outline = closedExactly({
    start: right.start,
    segments: [
      ...right.segments,
      ...endCap(endOf(right), back.start, directionOn(last.from, last.segment, 1), half, ends),
      ...back.segments,
      ...endCap(endOf(back), right.start, reversed(directionOn(first.from, first.segment, 0)), half, ends),
    ],
    closed: true,
  });
  return nested(cleaned(outline, line, half, ends, settings));
}

const reversed = (d: Point): Point => ({ x: -d.x, y: -d.y });

function endCap(from: Point, to: Point, out: Point, half: number, ends: EndKind): Segment[] {
  if (ends === 'round') return [{ kind: 'arc', to, sweep: Math.PI }];
  if (ends === 'flat') return [{ kind: 'line', to }];
  const far = (p: Point): Point => ({ x: p.x + out.x * half, y: p.y + out.y * half });
  return [
    { kind: 'line', to: far(from) },
    { kind: 'line', to: far(to) },
    { kind: 'line', to },
  ];
}

/** The parts of a raw band that lie on its true border: as far from the line as they should, with nothing of the band beyond. */
function cleaned(outline: Path, line: Path, half: number, ends: EndKind, settings: OffsetSettings): Path[] {
  const slack = nearnessSlack(settings);
  const caps = ends === 'round' ? [] : [line.start, endOf(line)];
  const isNearer = nearnessTo([line]);
  const isTrue = (run: Path): boolean => {
    const steps = stepsOf(run);
    const places = steps.length > 3 ? [0.5] : [0.5, 0.18, 0.82];
    return steps.every(({ from, segment }) =>
      places.every((t) => {
        const p = pointOn(from, segment, t);
        const nearCap = caps.some((cap) => norm(cap.x - p.x, cap.y - p.y) <= half * Math.SQRT2 + slack);
        return !isNearer(p, half - slack) || (nearCap && isBorder(outline, from, segment));
      }),
    );
  };
  return validLoops(outline, isTrue, slack).map(merged);
}

/** Whether the band lies on the left of a segment only. */
function isBorder(outline: Path, from: Point, segment: Segment): boolean {
  const [p, d] = [pointOn(from, segment, 0.5), directionOn(from, segment, 0.5)];
  const beside = (by: number): Point => ({ x: p.x - d.y * by, y: p.y + d.x * by });
  return windingNumber([outline], beside(-1e-4)) === 0 && windingNumber([outline], beside(1e-4)) > 0;
}

/** About a closed line: what it grows to by half the width, without what it shrinks to. */
function ringAbout(line: Path, half: number, settings: OffsetSettings): { outer: Path; holes: Path[] }[] {
  const setOff = (by: number): Path[] =>
    offsetPiece({ outer: line, holes: [] }, by, settings).flatMap(({ outer, holes }) => [outer, ...holes]);
  const [grown, shrunk] = [setOff(half), setOff(-half)];
  return nested(shrunk.length === 0 ? grown : combined(grown, shrunk, 'take-away'));
}
