/**
 * In: the straight runs of a picture. Out: the direction that most of them agree on, for straightening (deskew). Angles are those of
 * the picture, y down.
 */
import type { StraightRun } from './straight-runs.ts';

export interface MainDirection {
  /** What the picture must be turned by to lie straight, radians counter-clockwise, within an eighth turn. */
  readonly turn: number;
  /** The share of all straight length that agrees, 0 to 1. */
  readonly share: number;
  /** The longest run of those that agree. */
  readonly longest: StraightRun;
}

/** Lines this near to the main direction count as it, radians. */
const agreeing = 0.012;
const minShare = 0.3;
/** A direction with this share of the strongest one's length is strong as well. */
const strongShare = 0.35;

/**
 * The direction that most straight length has, quarter turns taken as one. Null where no direction stands out.
 * A line's angle is the surer the longer it is: its weight goes with the third power of its length.
 */
export function mainDirection(runs: readonly StraightRun[]): MainDirection | null {
  const quarter = Math.PI / 2;
  const folded = runs.map((run) => ({ run, angle: run.angle - quarter * Math.round(run.angle / quarter), weight: run.lengthPx ** 3 }));
  const total = runs.reduce((sum, r) => sum + r.lengthPx, 0);
  const apart = (a: number, b: number) => {
    const d = Math.abs(a - b);
    return Math.min(d, quarter - d);
  };
  const candidates = folded.map(({ angle }) => ({
    centre: angle,
    length: folded.reduce((sum, f) => sum + (apart(f.angle, angle) < agreeing ? f.run.lengthPx : 0), 0),
  }));
  const max = candidates.reduce((a, c) => Math.max(a, c.length), 0);
  if (candidates.length === 0 || max < minShare * total) return null;
  // A pattern may have more length on its diagonals than along its sides: of strong directions the nearest to straight counts.
  const best = candidates.filter((c) => c.length > strongShare * max).reduce((a, c) => (Math.abs(c.centre) < Math.abs(a.centre) ? c : a));
  let { centre } = best;
  for (let round = 0; round < 4; round++) {
    let [sum, weights] = [0, 0];
    for (const { angle, weight } of folded) {
      const off = angle - centre - quarter * Math.round((angle - centre) / quarter);
      if (Math.abs(off) > agreeing) continue;
      sum += weight * off;
      weights += weight;
    }
    centre += sum / weights;
  }
  const agree = folded.filter((f) => apart(f.angle, centre) < agreeing).map((f) => f.run);
  const longest = agree.reduce((a, b) => (b.lengthPx > a.lengthPx ? b : a));
  // Seen with y down a line that falls to the right has a positive angle and needs a counter-clockwise turn.
  return { turn: centre - quarter * Math.round(centre / quarter), share: best.length / total, longest };
}
