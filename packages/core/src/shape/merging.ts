/**
 * In: a path that was cut and joined again. Out: the same curve with neighbouring segments that are parts of one line, one
 * circle, one ellipse or one cubic made one.
 */
import { circleOf } from '../plane/arc.ts';
import { type CachedSegment, cachedSegment, cachedSegments } from '../plane/cached-segment.ts';
import type { Path, Step } from '../plane/path.ts';
import { cross, distance, dot, norm, type Point, subtract } from '../plane/point.ts';
import { type CubicSegment, type Segment, splitSegment } from '../plane/segment.ts';

/** Parts that lie off one curve by less than this are parts of it, mm. */
const sameWithin = 1e-7;

export function merged(path: Path): Path {
  const kept: CachedSegment[] = [];
  const steps = cachedSegments(path);
  for (const step of steps) {
    if (step.segment.kind === 'line' && distance(step.from, step.segment.to) < sameWithin) continue;
    const last = kept.at(-1);
    const one = last && oneOf(last, step);
    if (one) kept[kept.length - 1] = cachedSegment(last.from, one);
    else kept.push(step);
  }
  const [first, last] = [kept[0], kept.at(-1)];
  if (!first || !last) return path;
  if (path.closed && kept.length > 2) {
    const one = oneOf(last, first);
    if (one) {
      kept.pop();
      kept[0] = cachedSegment(last.from, one);
    }
  }
  if (kept.length === steps.length) return path;
  const start = (kept[0] as CachedSegment).from;
  return { start, segments: kept.map((s) => s.segment), closed: path.closed };
}

const asked = new WeakMap<CachedSegment, { readonly next: CachedSegment; readonly one: Segment | null }>();

/** As `asOne` says, kept for the same two. */
function oneOf(a: CachedSegment, b: CachedSegment): Segment | null {
  const before = asked.get(a);
  if (before?.next === b) return before.one;
  const one = asOne(a, b);
  asked.set(a, { next: b, one });
  return one;
}

/** Two segments that follow each other as one; null where they are not parts of one curve. */
function asOne(a: Step, b: Step): Segment | null {
  const [s, t] = [a.segment, b.segment];
  if (s.kind === 'line' && t.kind === 'line') {
    const [p, q] = [subtract(s.to, a.from), subtract(t.to, b.from)];
    const size = norm(p.x, p.y) + norm(q.x, q.y);
    const off = Math.abs(cross(p, q)) / size;
    return dot(p, q) > 0 && off < sameWithin ? { kind: 'line', to: t.to } : null;
  }
  if (s.kind === 'arc' && t.kind === 'arc' && s.sweep * t.sweep > 0 && Math.abs(s.sweep + t.sweep) < 2 * Math.PI - 1e-6) {
    const [c, d] = [circleOf(a.from, s), circleOf(b.from, t)];
    const isOne = distance(c.centre, d.centre) < 10 * sameWithin && Math.abs(c.radius - d.radius) < 10 * sameWithin;
    return isOne ? { kind: 'arc', to: t.to, sweep: s.sweep + t.sweep } : null;
  }
  if (s.kind === 'ellipse' && t.kind === 'ellipse' && s.sweep * t.sweep > 0 && Math.abs(s.sweep + t.sweep) < 2 * Math.PI - 1e-6) {
    const [sine, cosine] = [Math.sin(s.sweep), Math.cos(s.sweep)];
    const carried = {
      x: s.v.x * cosine - (a.from.x - s.centre.x) * sine,
      y: s.v.y * cosine - (a.from.y - s.centre.y) * sine,
    };
    const isOne = distance(s.centre, t.centre) < sameWithin && distance(carried, t.v) < 10 * sameWithin;
    return isOne ? { ...s, to: t.to, sweep: s.sweep + t.sweep } : null;
  }
  return s.kind === 'cubic' && t.kind === 'cubic' ? oneCubic(a.from, s, t) : null;
}

/** De Casteljau's division undone: the whole's handles follow from where the joint parts those beside it. */
function oneCubic(from: Point, s: CubicSegment, t: CubicSegment): CubicSegment | null {
  const [before, after] = [distance(s.c2, s.to), distance(s.to, t.c1)];
  const share = before / (before + after);
  if (!(share > 1e-3 && share < 1 - 1e-3)) return null;
  const grow = (origin: Point, p: Point, by: number): Point => ({
    x: origin.x + (p.x - origin.x) / by,
    y: origin.y + (p.y - origin.y) / by,
  });
  const whole: CubicSegment = { kind: 'cubic', c1: grow(from, s.c1, share), c2: grow(t.to, t.c2, 1 - share), to: t.to };
  const [p, q] = splitSegment(from, whole, share) as [CubicSegment, CubicSegment];
  const off = Math.max(distance(p.c1, s.c1), distance(p.c2, s.c2), distance(p.to, s.to), distance(q.c1, t.c1), distance(q.c2, t.c2));
  return off < sameWithin ? whole : null;
}
