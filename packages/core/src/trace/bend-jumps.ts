/**
 * In: a stretch of a contour. Out: where along it the bend changes at once, as where an arc joins a line or another arc.
 * Rests on: directions of short lines before and after every place: on either side two of them tell how much it turns.
 */

import type { EdgeModel } from './edge-model.ts';
import { parameters } from './parameters.ts';
import type { SampledContour, StretchLine } from './sampled-contour.ts';

/** How many points a line is read from; roughness wants longer ones. */
export const jumpArm = ({ noise }: EdgeModel): number => Math.round(10 + 40 * Math.max(0, noise - 0.05));
const smallest = parameters.smallestBendJump;
const sure = parameters.sureBendJump;
const stride = parameters.bendJumpStride;

/** Indices of the contour between `first` and `last`, in order. */
export function bendJumps(sampled: SampledContour, edgeModel: EdgeModel, first: number, last: number): number[] {
  const arm = jumpArm(edgeModel);
  const count = Math.floor((last - first - arm) / stride) + 1;
  const reach = Math.ceil(arm / stride);
  if (count < 4 * reach + 1) return [];
  const line: StretchLine = { x: 0, y: 0, dx: 1, dy: 0, rms: 0 };
  const angles = new Float64Array(count);
  for (let k = 0; k < count; k++) {
    sampled.line(first + k * stride, first + k * stride + arm, line);
    angles[k] = Math.atan2(line.dy, line.dx);
  }
  const turn = (from: number, to: number): number => {
    const angle = (angles[to] as number) - (angles[from] as number);
    return angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));
  };
  // Place k is where the line that begins at k begins, and the one that begins an arm earlier ends.
  const jumps = new Float64Array(count);
  for (let k = 2 * reach; k + reach < count; k++) jumps[k] = Math.abs(turn(k, k + reach) - turn(k - 2 * reach, k - reach));
  const limit = Math.max(smallest, (sure * Math.sqrt(4 * 12) * edgeModel.noise) / arm ** 1.5);
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
