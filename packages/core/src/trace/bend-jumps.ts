/**
 * In: a stretch of a course. Out: where along it the bend changes at once, as where an arc joins a line or another arc.
 * Rests on: directions of short lines before and after every place: on either side two of them tell how much it turns.
 */
import type { Course, StretchLine } from './course.ts';
import type { Grain } from './grain.ts';

/** How many points a line is read from; roughness wants longer ones. */
export const jumpArm = ({ roughness }: Grain): number => Math.round(10 + 40 * Math.max(0, roughness - 0.05));
/** A change this small, radians over the length of an arm, may as well come from the curves beside it. */
const smallest = 0.03;
/** And one so many deviations above what roughness makes is no accident. */
const sure = 6;
/** Every so many points are looked at. */
const stride = 2;

/** Indices of the course between `first` and `last`, in order. */
export function bendJumps(course: Course, grain: Grain, first: number, last: number): number[] {
  const arm = jumpArm(grain);
  const count = Math.floor((last - first - arm) / stride) + 1;
  const reach = Math.ceil(arm / stride);
  if (count < 4 * reach + 1) return [];
  const line: StretchLine = { x: 0, y: 0, dx: 1, dy: 0, rms: 0 };
  const angles = new Float64Array(count);
  for (let k = 0; k < count; k++) {
    course.line(first + k * stride, first + k * stride + arm, line);
    angles[k] = Math.atan2(line.dy, line.dx);
  }
  const turn = (from: number, to: number): number => {
    const angle = (angles[to] as number) - (angles[from] as number);
    return angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));
  };
  // Place k is where the line that begins at k begins, and the one that begins an arm earlier ends.
  const jumps = new Float64Array(count);
  for (let k = 2 * reach; k + reach < count; k++) jumps[k] = Math.abs(turn(k, k + reach) - turn(k - 2 * reach, k - reach));
  const limit = Math.max(smallest, (sure * Math.sqrt(4 * 12) * grain.roughness) / arm ** 1.5);
  const found: number[] = [];
  for (let k = 2 * reach; k + reach < count; k++) {
    const here = jumps[k] as number;
    if (here < limit) continue;
    let isPeak = true;
    for (let d = 1; d <= reach && isPeak; d++) isPeak = here > (jumps[k - d] ?? 0) && here >= (jumps[k + d] ?? 0);
    if (isPeak) found.push(first + k * stride);
  }
  return found;
}
