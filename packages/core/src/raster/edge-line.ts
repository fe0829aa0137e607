/**
 * In: a grey picture and two points with a straight edge between them, roughly. Out: the line through that edge,
 * sub-pixel.
 * Rests on: the parabola through three gradients at each of many places; least squares with a limit at two and a half
 * median deviations.
 */
import { distance, type Point } from '../plane/point.ts';
import type { GreyPicture } from './grey.ts';

export interface EdgeLine {
  readonly at: Point;
  readonly along: Point;
}

/**
 * The line through the strongest change of grey across the way from one point to another, outliers left out; null
 * where there is no edge.
 * @param reach how far to either side to look, pixels
 */
export function edgeLine(picture: GreyPicture, from: Point, to: Point, reach: number): EdgeLine | null {
  const { width, height, data } = picture;
  const length = distance(from, to);
  const u = { x: (to.x - from.x) / length, y: (to.y - from.y) / length };
  const n = { x: -u.y, y: u.x };
  const greyAt = (x: number, y: number): number => {
    const [px, py] = [Math.min(width - 2, Math.max(0, Math.floor(x - 0.5))), Math.min(height - 2, Math.max(0, Math.floor(y - 0.5)))];
    const [fx, fy] = [Math.min(1, Math.max(0, x - 0.5 - px)), Math.min(1, Math.max(0, y - 0.5 - py))];
    const p = py * width + px;
    const top = (data[p] as number) * (1 - fx) + (data[p + 1] as number) * fx;
    return top * (1 - fy) + ((data[p + width] as number) * (1 - fx) + (data[p + width + 1] as number) * fx) * fy;
  };
  const found: { s: number; t: number }[] = [];
  const samples = 120;
  for (let k = 0; k < samples; k++) {
    const s = length * (0.06 + (0.88 * k) / (samples - 1));
    const count = Math.ceil(2 * reach);
    // Five rows side by side, so that one speck does not decide.
    const profile = Array.from({ length: count }, (_, j) => {
      const t = -reach + j;
      return [-2, -1, 0, 1, 2].reduce((sum, d) => sum + greyAt(from.x + u.x * (s + d) + n.x * t, from.y + u.y * (s + d) + n.y * t), 0) / 5;
    });
    const slope = (j: number) => Math.abs((profile[j + 1] as number) - (profile[j - 1] as number));
    let best = 1;
    for (let j = 1; j < count - 1; j++) if (slope(j) > slope(best)) best = j;
    if (best < 2 || best > count - 3 || slope(best) < 12) continue;
    const [a, b, c] = [slope(best - 1), slope(best), slope(best + 1)];
    const bend = a - 2 * b + c;
    found.push({ s, t: -reach + best + (bend < 0 ? (a - c) / (2 * bend) : 0) });
  }
  if (found.length < samples / 3) return null;
  let kept = found;
  let line = { offset: 0, slope: 0 };
  for (let round = 0; round < 6; round++) {
    line = leastSquares(kept);
    const off = (p: { s: number; t: number }) => Math.abs(p.t - line.offset - line.slope * p.s);
    const limit = Math.max(0.75, 2.5 * (kept.map(off).sort((a, b) => a - b)[kept.length >> 1] as number));
    kept = found.filter((p) => off(p) <= limit);
    if (kept.length < samples / 4) return null;
  }
  return {
    at: { x: from.x + n.x * line.offset, y: from.y + n.y * line.offset },
    along: { x: u.x + n.x * line.slope, y: u.y + n.y * line.slope },
  };
}

function leastSquares(points: readonly { s: number; t: number }[]): { offset: number; slope: number } {
  const n = points.length;
  const [ms, mt] = [points.reduce((a, p) => a + p.s, 0) / n, points.reduce((a, p) => a + p.t, 0) / n];
  const st = points.reduce((a, p) => a + (p.s - ms) * (p.t - mt), 0);
  const slope = st / points.reduce((a, p) => a + (p.s - ms) ** 2, 0);
  return { offset: mt - slope * ms, slope };
}
