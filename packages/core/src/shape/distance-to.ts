/** In: outlines. Out: how far any place lies from them, worked out on the segments themselves. */
import { type Path, stepsOf } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { nearestOnSegment, segmentBox } from '../plane/segment.ts';
import { boxIndex } from './box-index.ts';

/** Tells how far a place lies from outlines; infinitely where there are none. */
export function distanceTo(paths: readonly Path[]): (p: Point) => number {
  const steps = paths.flatMap(stepsOf);
  const index = boxIndex(steps.map((s) => segmentBox(s.from, s.segment)), 0); // biome-ignore format: one line
  return (p) => {
    let best = Infinity;
    if (!index) return best;
    for (let reach = 0.02; reach < 1e7; reach *= 8) {
      for (const k of index.search(p.x - reach, p.y - reach, p.x + reach, p.y + reach)) {
        const { from: a, segment } = steps[k] as (typeof steps)[0];
        best = Math.min(best, nearestOnSegment(a, segment, p).distance);
      }
      // Only what lies within what was searched is nearest for certain.
      if (best <= reach) break;
    }
    return best;
  };
}
