/**
 * In: a contour. Out: the points where it turns sharply.
 * A corner is a place where lines through the stretches before and after, the soft tip left out, make an angle, where
 * the turning is not spread over a wider stretch as on an arc, and where the tip stays back no farther than
 * softness explains.
 */
import { crossing, norm } from '../plane/point.ts';
import type { Corner } from './corner.ts';
import { withCutTips } from './cut-tips.ts';
import { type EdgeModel, farthestTip, smallestTurn, tipShrinkage } from './edge-model.ts';
import { parameters } from './parameters.ts';
import type { SampledContour, StretchLine } from './sampled-contour.ts';

const blank = (): StretchLine => ({ x: 0, y: 0, dx: 1, dy: 0, rms: 0 });
const turnBetween = (a: StretchLine, b: StretchLine): number => Math.atan2(a.dx * b.dy - a.dy * b.dx, a.dx * b.dx + a.dy * b.dy);

/** The corners in order of travel, those of tips that are cut off with them. */
export function findCorners(sampled: SampledContour, edgeModel: EdgeModel): Corner[] {
  const { corners, doubtful } = sharpTurns(sampled, edgeModel);
  return withCutTips(sampled, edgeModel, corners, doubtful)
    .sort((a, b) => a.index - b.index)
    .filter((c, i, all) => i === 0 || c.index !== (all[i - 1] as Corner).index);
}

const doubtfulTurn = parameters.doubtfulCornerTurn;

function sharpTurns(sampled: SampledContour, edgeModel: EdgeModel): { corners: Corner[]; doubtful: Corner[] } {
  const { count } = sampled;
  const gap = Math.min(edgeModel.gap, Math.floor(count / 16));
  const arm = Math.min(edgeModel.arm, Math.floor(count / 8));
  if (arm < 2) return { corners: [], doubtful: [] };
  const turns = turnsAlong(sampled, gap, arm);
  const [corners, doubtful]: [Corner[], Corner[]] = [[], []];
  const reach = gap + (arm >> 1);
  for (let k = 0; k < count; k++) {
    const turn = turns[k] as number;
    if (Math.abs(turn) < smallestTurn || !isPeak(turns, k, reach)) continue;
    const isRound = isSpread(sampled, k, gap, arm, turn) || isPlateau(turns, k, gap + arm, directionNoise(edgeModel, arm));
    const index = isRound ? null : tipIndex(sampled, edgeModel, k, gap, arm, turn);
    if (index !== null) corners.push({ index: sampled.wrap(index), turn });
    else if (Math.abs(turn) > doubtfulTurn) doubtful.push({ index: k, turn });
  }
  return { corners, doubtful };
}

/** The turn at every point from the line through the stretch before it to the line through the one after it. */
function turnsAlong(sampled: SampledContour, gap: number, arm: number): Float64Array {
  const { count } = sampled;
  // The line after one point is the line before another: each direction is read once.
  const [dx, dy] = [new Float64Array(count), new Float64Array(count)];
  const line = blank();
  for (let k = 0; k < count; k++) {
    sampled.line(k - gap - arm, k - gap, line);
    dx[k] = line.dx;
    dy[k] = line.dy;
  }
  const turns = new Float64Array(count);
  for (let k = 0; k < count; k++) {
    const after = sampled.wrap(k + 2 * gap + arm);
    const [ax, ay, bx, by] = [dx[k], dy[k], dx[after], dy[after]] as [number, number, number, number];
    turns[k] = Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
  }
  return turns;
}

/** Whether no point within reach turns more the same way; of equals the first counts. */
function isPeak(turns: Float64Array, k: number, reach: number): boolean {
  const n = turns.length;
  const here = turns[k] as number;
  const size = Math.abs(here);
  for (let d = 1; d <= reach; d++) {
    const ahead = turns[(k + d) % n] as number;
    const behind = turns[(k - d + n) % n] as number;
    if (Math.sign(ahead) === Math.sign(here) && Math.abs(ahead) > size) return false;
    if (Math.sign(behind) === Math.sign(here) && Math.abs(behind) >= size) return false;
  }
  return true;
}

const plateauShare = parameters.cornerPlateauShare;

/** How far roughness alone makes the turn between two lines through so many points stray, radians (one deviation). */
const directionNoise = ({ noise }: EdgeModel, arm: number): number => (Math.sqrt(2 * 12) * noise) / arm ** 1.5;

/** Whether the contour turns as much all the way to one side, as at the end of an arc. */
function isPlateau(turns: Float64Array, k: number, reach: number, noise: number): boolean {
  const n = turns.length;
  // In figures so small the next corner would be taken for the plateau.
  if (n < 12 * reach) return false;
  const here = turns[k] as number;
  return [1, -1].some((side) => {
    // Only slight turns drown in noise.
    const min = plateauShare * Math.abs(here) - (Math.abs(here) < 2 * smallestTurn ? parameters.cornerPlateauNoise * noise : 0);
    for (let d = 1; d <= reach; d++) if ((turns[(k + side * d + n) % n] as number) * Math.sign(here) < min) return false;
    return true;
  });
}

/** Whether the contour keeps turning on both sides, as an arc does. */
function isSpread(sampled: SampledContour, k: number, gap: number, arm: number, turn: number): boolean {
  if (sampled.count < 4 * (gap + 2 * arm)) return false;
  const near = (side: 1 | -1) => (side > 0 ? sampled.line(k + gap, k + gap + arm) : sampled.line(k - gap - arm, k - gap));
  const far = (side: 1 | -1) =>
    side > 0 ? sampled.line(k + gap + arm, k + gap + 2 * arm) : sampled.line(k - gap - 2 * arm, k - gap - arm);
  const more = Math.min(...([1, -1] as const).map((side) => side * turnBetween(near(side), far(side)) * Math.sign(turn)));
  return more > parameters.cornerSpreadShare * Math.abs(turn);
}

/** The point of the contour nearest to the tip; null where the tip stays back too far for a corner. */
function tipIndex(sampled: SampledContour, edgeModel: EdgeModel, k: number, gap: number, arm: number, turn: number): number | null {
  // Beside a sharp tip softness bends more of the contour than the gap: the sides are read farther off.
  const back = Math.ceil(tipShrinkage(edgeModel, (Math.PI - Math.abs(turn)) / 2));
  const isSharp = Math.abs(turn) > Math.PI / 2 && sampled.count > 6 * (gap + back + arm);
  const found = tipFrom(sampled, edgeModel, k, gap, arm, gap + arm);
  return found ?? (isSharp ? tipFrom(sampled, edgeModel, k, gap + back, arm, gap + arm) : null);
}

function tipFrom(sampled: SampledContour, edgeModel: EdgeModel, k: number, gap: number, arm: number, reach: number): number | null {
  const before = sampled.line(k - gap - arm, k - gap);
  const after = sampled.line(k + gap, k + gap + arm);
  const tip = crossing(before, { x: before.dx, y: before.dy }, after, { x: after.dx, y: after.dy });
  if (!tip) return null;
  let [best, nearest] = [k, Infinity];
  for (let i = k - reach; i <= k + reach; i++) {
    const d = norm(sampled.x(i) - tip.x, sampled.y(i) - tip.y);
    if (d < nearest) [best, nearest] = [i, d];
  }
  return nearest <= farthestTip(edgeModel, turnBetween(before, after)) ? best : null;
}
