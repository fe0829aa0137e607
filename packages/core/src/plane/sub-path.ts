/** In: a path and two lengths along it. Out: the part of the path between them. */
import { type Path, pathLength, splitPath, stepsOf } from './path.ts';
import type { Point } from './point.ts';
import { type Segment, segmentLength } from './segment.ts';

/** The part of a path from one length along it to another; beyond a closed path's end it goes on from the start. */
export function subPath(path: Path, from: number, to: number): Path {
  const segments: Segment[] = [];
  let start: Point | null = null;
  let at = 0;
  const steps = stepsOf(path);
  const rounds = path.closed ? Math.max(1, Math.ceil(to / Math.max(pathLength(path), 1e-9))) : 1;
  for (let round = 0; round < rounds; round++) {
    for (const { from: p, segment } of steps) {
      const length = segmentLength(p, segment);
      const [a, b] = [Math.max(0, from - at), Math.min(length, to - at)];
      at += length;
      if (b - a <= 1e-9 || length === 0) continue;
      const open: Path = { start: p, segments: [segment], closed: false };
      const tail = a > 1e-9 ? (splitPath(open, 0, shareAt(p, segment, a, length))[1] as Path) : open;
      const left = length - a;
      const part =
        b - a < left - 1e-9 ? (splitPath(tail, 0, shareAt(tail.start, tail.segments[0] as Segment, b - a, left))[0] as Path) : tail;
      start ??= part.start;
      segments.push(...part.segments);
    }
  }
  return { start: start ?? path.start, segments, closed: false };
}

/** Which `t` lies so far along a segment: of lines and arcs the share of the length, of others by halving. */
function shareAt(from: Point, segment: Segment, length: number, whole: number): number {
  if (segment.kind === 'line' || segment.kind === 'arc') return length / whole;
  let [low, high] = [0, 1];
  for (let k = 0; k < 40; k++) {
    const middle = (low + high) / 2;
    const [first] = splitPath({ start: from, segments: [segment], closed: false }, 0, middle);
    if (pathLength(first as Path) < length) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
