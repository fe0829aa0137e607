/**
 * In: contours. Out: their straight runs, each with the line through it. Angles are those of the picture, y down.
 * Rests on: total least squares; the direction over a window of points tells where a run ends.
 */
import { norm, type Point } from '../plane/point.ts';
import type { Contour } from './contours.ts';

export interface StraightRun {
  readonly from: Point;
  readonly to: Point;
  /** Radians, half a turn is the same line. */
  readonly angle: number;
  readonly lengthPx: number;
  /** Mean distance of the contour from the line, pixels (root mean square). */
  readonly roughPx: number;
}

const rimPx = 4;
const windowPoints = 16;
const bend = 0.12;
const maxRough = 0.9;

/**
 * Runs of at least `minPx`; one that turns by more than some degrees ends there. Runs along the picture's own rim,
 * where ink is cut off, tell nothing and are left out.
 */
export function straightRuns(contours: readonly Contour[], minPx: number, size: { width: number; height: number }): StraightRun[] {
  return allRuns(contours, minPx).filter((run) => !isOnRim(run, size));
}

function isOnRim({ from, to }: StraightRun, { width, height }: { width: number; height: number }): boolean {
  const near = (a: number, b: number, rim: number) => Math.abs(a - rim) < rimPx && Math.abs(b - rim) < rimPx;
  return near(from.x, to.x, 0) || near(from.x, to.x, width) || near(from.y, to.y, 0) || near(from.y, to.y, height);
}

function allRuns(contours: readonly Contour[], minPx: number): StraightRun[] {
  const runs: StraightRun[] = [];
  for (const { points } of contours) {
    const count = points.length / 2;
    if (count < minPx) continue;
    const directionAt = (k: number): number => {
      const [p, q] = [k % count, (k + windowPoints) % count];
      return Math.atan2(
        (points[2 * q + 1] as number) - (points[2 * p + 1] as number),
        (points[2 * q] as number) - (points[2 * p] as number),
      );
    };
    for (let start = 0; start + windowPoints < count; ) {
      // The direction of a run is that of its beginning until it is long enough to tell better.
      let [sum, end] = [directionAt(start), start + 1];
      while (end < count - 1) {
        const mean = sum / (end - start);
        let turn = directionAt(end) - mean;
        turn -= 2 * Math.PI * Math.round(turn / (2 * Math.PI));
        if (Math.abs(turn) > bend) break;
        sum += mean + turn;
        end++;
      }
      const last = Math.min(count - 1, end + windowPoints - 1);
      if (end - start > windowPoints) {
        const run = lineThrough(points, start + 3, last - 3);
        if (run.lengthPx >= minPx && run.roughPx < maxRough) runs.push(run);
      }
      start = Math.max(start + 1, end);
    }
  }
  return runs;
}

function lineThrough(points: Float64Array, first: number, last: number): StraightRun {
  const n = last - first + 1;
  const [ox, oy] = [points[2 * first] as number, points[2 * first + 1] as number];
  let [sx, sy, xx, xy, yy] = [0, 0, 0, 0, 0];
  for (let k = first; k <= last; k++) {
    const [x, y] = [(points[2 * k] as number) - ox, (points[2 * k + 1] as number) - oy];
    sx += x;
    sy += y;
    xx += x * x;
    xy += x * y;
    yy += y * y;
  }
  const [mx, my] = [sx / n, sy / n];
  const [cxx, cxy, cyy] = [xx / n - mx * mx, xy / n - mx * my, yy / n - my * my];
  const angle = Math.atan2(2 * cxy, cxx - cyy) / 2;
  const across = Math.max(0, (cxx + cyy) / 2 - norm((cxx - cyy) / 2, cxy));
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const place = (k: number) => ((points[2 * k] as number) - ox - mx) * c + ((points[2 * k + 1] as number) - oy - my) * s;
  const [t0, t1] = [place(first), place(last)];
  const at = (t: number): Point => ({ x: ox + mx + t * c, y: oy + my + t * s });
  return { from: at(t0), to: at(t1), angle, lengthPx: Math.abs(t1 - t0), roughPx: Math.sqrt(across) };
}
