/**
 * In: an outline or line as it was traced. Out: the same as it was meant: from corner to corner a line where it is nearly straight, an arc
 * where it lies on a circle; tips that are blunt are sharp.
 */
import {
  chordPoints,
  crossing,
  directionOn,
  distance,
  type Path,
  type Point,
  pointOn,
  type Segment,
  type Step,
  stepsOf,
  subtract,
  turnBetween,
} from '../plane/index.ts';
import { nearestOnSegment } from '../plane/segment.ts';
import { circleThrough } from '../shape/index.ts';

/** Where an outline turns by more than this it has a corner, degrees. */
const cornerDegrees = 14;

/** A path whose chains of segments from corner to corner are lines where they are nearly straight. */
export function straightened(path: Path, within: number): Path {
  const steps = stepsOf(path);
  const isCorner = (a: Step, b: Step): boolean =>
    Math.abs(turnBetween(directionOn(a.from, a.segment, 1), directionOn(b.from, b.segment, 0))) > (cornerDegrees * Math.PI) / 180;
  const chains: Step[][] = [];
  for (const step of steps) {
    const last = chains.at(-1)?.at(-1);
    if (last && !isCorner(last, step)) chains.at(-1)?.push(step);
    else chains.push([step]);
  }
  const [first, last] = [chains[0], chains.at(-1)];
  // Round its start a closed path may go straight on.
  if (path.closed && first && last && first !== last && !isCorner(last.at(-1) as Step, first[0] as Step)) {
    chains[0] = [...last, ...first];
    chains.pop();
  }
  const start = chains[0]?.[0]?.from ?? path.start;
  return sharpened({ ...path, start, segments: chains.flatMap((steps) => straightOrSame(steps, within)) }, bluntShares * within);
}
/** A tip may be blunter than a seam may be bent. */
const bluntShares = 3;

/** A closed path whose blunt tips, short sides or bends between two long ones that meet not far beyond, are sharp. */
function sharpened(path: Path, within: number): Path {
  const steps = stepsOf(path);
  if (!path.closed || steps.length < 4) return path;
  const isBlunt = steps.map(({ from, segment }, k) => {
    const [before, after] = [steps.at(k - 1) as Step, steps[(k + 1) % steps.length] as Step];
    if (before.segment.kind !== 'line' || after.segment.kind !== 'line') return null;
    const size = distance(from, segment.to);
    const isShort = size < within && size < distance(before.from, from) / 3 && size < distance(segment.to, after.segment.to) / 3;
    const tip = isShort ? crossing(before.from, subtract(from, before.from), segment.to, subtract(after.segment.to, segment.to)) : null;
    return tip && distance(tip, from) < tipReach * size && distance(tip, segment.to) < tipReach * size ? tip : null;
  });
  if (isBlunt.every((tip) => tip === null)) return path;
  const corners = steps.flatMap(({ from }, k) => {
    const before = isBlunt.at(k - 1);
    return before ? [] : [{ from: isBlunt[k] ?? from, k }];
  });
  const segments = corners.map(({ k }, n): Segment => {
    const next = corners[(n + 1) % corners.length] as (typeof corners)[0];
    const own = (isBlunt[k] ? steps[(k + 1) % steps.length] : steps[k]) as Step;
    return { ...own.segment, to: next.from };
  });
  return { start: corners[0]?.from as Point, segments, closed: true };
}
/** The sides beside a blunt tip meet no farther beyond it than so many times its width. */
const tipReach = 6;

function straightOrSame(steps: readonly Step[], within: number): Segment[] {
  const [from, to] = [steps[0]?.from as Point, steps.at(-1)?.segment.to as Point];
  const whole: Segment = { kind: 'line', to };
  const isStraight =
    distance(from, to) > within &&
    steps.every((step) =>
      chordPoints(step.from, step.segment, within / 4).every((p) => nearestOnSegment(from, whole, p).distance <= within),
    );
  if (isStraight) return [whole];
  const arc = arcAlong(steps, within);
  return arc ? [arc] : steps.map(({ segment }) => segment);
}

/** Where on each segment a chain is looked at, to tell whether it lies on a circle. */
const circleShares = [0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 1];

/** The arc from end to end of a chain that lies on one circle; null where it does not. */
function arcAlong(steps: readonly Step[], within: number): Segment | null {
  const [from, to] = [steps[0]?.from as Point, steps.at(-1)?.segment.to as Point];
  if (distance(from, to) <= within) return null;
  // Also along lines: their ends alone may lie on any circle.
  const places = steps.flatMap(({ from: start, segment }) => circleShares.map((t) => pointOn(start, segment, t)));
  const middle = places.reduce((a, b) =>
    Math.abs(distance(b, from) - distance(b, to)) < Math.abs(distance(a, from) - distance(a, to)) ? b : a,
  );
  const circle = circleThrough(from, middle, to);
  if (!circle || places.some((p) => Math.abs(distance(p, circle.centre) - circle.radius) > within)) return null;
  const half = turnBetween(subtract(from, circle.centre), subtract(middle, circle.centre));
  const sweep = half + turnBetween(subtract(middle, circle.centre), subtract(to, circle.centre));
  return Math.abs(sweep) < 6 ? { kind: 'arc', to, sweep } : null;
}
