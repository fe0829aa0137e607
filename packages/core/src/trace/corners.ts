/**
 * In: a course. Out: the points where it turns sharply.
 * A corner is a place where lines through the stretches before and after, the soft tip left out, make an angle, where
 * the turning is not spread over a wider stretch as on an arc, and where the tip stays back no farther than
 * softness explains.
 */
import { crossing, norm } from '../plane/point.ts';
import type { Course, StretchLine } from './course.ts';
import { withCutTips } from './cut-tips.ts';
import { type Grain, retreat, smallestTurn } from './grain.ts';

export interface Corner {
  readonly index: number;
  /** The change of direction, radians, positive to the left as the coordinates are (y down: to the right on screen). */
  readonly turn: number;
}

const blank = (): StretchLine => ({ x: 0, y: 0, dx: 1, dy: 0, rms: 0 });
const turnBetween = (a: StretchLine, b: StretchLine): number => Math.atan2(a.dx * b.dy - a.dy * b.dx, a.dx * b.dx + a.dy * b.dy);

/** The corners in order of travel, those of tips that are cut off with them. */
export function findCorners(course: Course, grain: Grain): Corner[] {
  const { corners, doubtful } = sharpTurns(course, grain);
  return withCutTips(course, grain, corners, doubtful)
    .sort((a, b) => a.index - b.index)
    .filter((c, i, all) => i === 0 || c.index !== (all[i - 1] as Corner).index);
}

/** A pointed tip's softness spreads its turning: such places turn by more than this. */
const doubtfulTurn = Math.PI / 4;

function sharpTurns(course: Course, grain: Grain): { corners: Corner[]; doubtful: Corner[] } {
  const { count } = course;
  const gap = Math.min(grain.gap, Math.floor(count / 16));
  const arm = Math.min(grain.arm, Math.floor(count / 8));
  if (arm < 2) return { corners: [], doubtful: [] };
  const turns = turnsAlong(course, gap, arm);
  const [corners, doubtful]: [Corner[], Corner[]] = [[], []];
  const reach = gap + (arm >> 1);
  for (let k = 0; k < count; k++) {
    const turn = turns[k] as number;
    if (Math.abs(turn) < smallestTurn || !isPeak(turns, k, reach)) continue;
    const isRound = isSpread(course, k, gap, arm, turn) || isPlateau(turns, k, gap + arm, directionNoise(grain, arm));
    const index = isRound ? null : tipIndex(course, grain, k, gap, arm, turn);
    if (index !== null) corners.push({ index: course.wrap(index), turn });
    else if (Math.abs(turn) > doubtfulTurn) doubtful.push({ index: k, turn });
  }
  return { corners, doubtful };
}

/** The turn at every point from the line through the stretch before it to the line through the one after it. */
function turnsAlong(course: Course, gap: number, arm: number): Float64Array {
  const { count } = course;
  // The line after one point is the line before another: each direction is read once.
  const [dx, dy] = [new Float64Array(count), new Float64Array(count)];
  const line = blank();
  for (let k = 0; k < count; k++) {
    course.line(k - gap - arm, k - gap, line);
    dx[k] = line.dx;
    dy[k] = line.dy;
  }
  const turns = new Float64Array(count);
  for (let k = 0; k < count; k++) {
    const after = course.wrap(k + 2 * gap + arm);
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

/** A corner's turn falls off to either side by more than this; along an arc it stays as it is. */
const plateauShare = 0.93;

/** How far roughness alone makes the turn between two lines through so many points stray, radians (one deviation). */
const directionNoise = ({ roughness }: Grain, arm: number): number => (Math.sqrt(2 * 12) * roughness) / arm ** 1.5;

/** Whether the course turns as much all the way to one side, as at the end of an arc. */
function isPlateau(turns: Float64Array, k: number, reach: number, noise: number): boolean {
  const n = turns.length;
  // In figures so small the next corner would be taken for the plateau.
  if (n < 12 * reach) return false;
  const here = turns[k] as number;
  return [1, -1].some((side) => {
    // Only slight turns drown in noise.
    const least = plateauShare * Math.abs(here) - (Math.abs(here) < 2 * smallestTurn ? 2.5 * noise : 0);
    for (let d = 1; d <= reach; d++) if ((turns[(k + side * d + n) % n] as number) * Math.sign(here) < least) return false;
    return true;
  });
}

/** Whether the course keeps turning on both sides, as an arc does. */
function isSpread(course: Course, k: number, gap: number, arm: number, turn: number): boolean {
  if (course.count < 4 * (gap + 2 * arm)) return false;
  const near = (side: 1 | -1) => (side > 0 ? course.line(k + gap, k + gap + arm) : course.line(k - gap - arm, k - gap));
  const far = (side: 1 | -1) => (side > 0 ? course.line(k + gap + arm, k + gap + 2 * arm) : course.line(k - gap - 2 * arm, k - gap - arm));
  const more = Math.min(...([1, -1] as const).map((side) => side * turnBetween(near(side), far(side)) * Math.sign(turn)));
  return more > 0.35 * Math.abs(turn);
}

/** The point of the course nearest to the tip; null where the tip stays back too far for a corner. */
function tipIndex(course: Course, grain: Grain, k: number, gap: number, arm: number, turn: number): number | null {
  // Beside a sharp tip softness bends more of the course than the gap: the sides are read farther off.
  const back = Math.ceil(retreat(grain, (Math.PI - Math.abs(turn)) / 2));
  const isSharp = Math.abs(turn) > Math.PI / 2 && course.count > 6 * (gap + back + arm);
  const found = tipFrom(course, grain, k, gap, arm, gap + arm);
  return found ?? (isSharp ? tipFrom(course, grain, k, gap + back, arm, gap + arm) : null);
}

function tipFrom(course: Course, grain: Grain, k: number, gap: number, arm: number, reach: number): number | null {
  const before = course.line(k - gap - arm, k - gap);
  const after = course.line(k + gap, k + gap + arm);
  const tip = crossing(before, { x: before.dx, y: before.dy }, after, { x: after.dx, y: after.dy });
  if (!tip) return null;
  let [best, nearest] = [k, Infinity];
  for (let i = k - reach; i <= k + reach; i++) {
    const d = norm(course.x(i) - tip.x, course.y(i) - tip.y);
    if (d < nearest) [best, nearest] = [i, d];
  }
  const halfAngle = (Math.PI - Math.abs(turnBetween(before, after))) / 2;
  return nearest <= 1.3 * retreat(grain, halfAngle) + 0.35 + 2 * grain.roughness ? best : null;
}
