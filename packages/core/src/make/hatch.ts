/**
 * In: an area, an angle and a spacing. Out: parallel lines that fill it, every second one turned, so that the tool goes to and
 * fro. Crossings with arcs are exact; those with curves are taken on chords.
 */
import { type Path, type Point, polygonOf } from '../plane/index.ts';

/** Chords leave the area's border by at most this, mm. */
const chordMm = 0.002;

/** @param angle radians; @param spacing mm, more than 0. The first line lies half a spacing within the area. */
export function hatchLines(paths: readonly Path[], angle: number, spacing: number): Path[] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const along = ({ x, y }: Point): number => x * c + y * s;
  const across = ({ x, y }: Point): number => -x * s + y * c;
  const edges = paths.flatMap((path) => {
    const points = polygonOf(path, chordMm);
    return points.map((p, k) => [p, points[(k + 1) % points.length] as Point] as const);
  });
  const heights = edges.map(([p]) => across(p));
  const [low, high] = [heights.reduce((a, b) => Math.min(a, b), Infinity), heights.reduce((a, b) => Math.max(a, b), -Infinity)];
  const count = Math.max(0, Math.floor((high - low) / spacing - 0.5) + 1);
  const crossings: number[][] = Array.from({ length: count }, () => []);
  for (const [p, q] of edges) {
    const [u, v] = [across(p), across(q)];
    if (u === v) continue;
    const [from, to] = [Math.min(u, v), Math.max(u, v)];
    const first = Math.max(0, Math.ceil((from - low) / spacing - 0.5));
    // A line through a corner is counted on one of its edges only.
    for (let k = first; k < count && low + (k + 0.5) * spacing < to; k++) {
      const t = (low + (k + 0.5) * spacing - u) / (v - u);
      crossings[k]?.push(along(p) + t * (along(q) - along(p)));
    }
  }
  return crossings.flatMap((list, k): Path[] => {
    const height = low + (k + 0.5) * spacing;
    const at = (x: number): Point => ({ x: x * c - height * s, y: x * s + height * c });
    const sorted = list.sort((a, b) => a - b);
    const lines: Path[] = [];
    for (let j = 0; j + 1 < sorted.length; j += 2) {
      const [from, to] = [sorted[j] as number, sorted[j + 1] as number];
      if (to - from < 1e-6) continue;
      const [a, b] = k % 2 === 0 ? [from, to] : [to, from];
      lines.push({ start: at(a), segments: [{ kind: 'line', to: at(b) }], closed: false });
    }
    return k % 2 === 0 ? lines : lines.reverse();
  });
}
