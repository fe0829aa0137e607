/**
 * In: a fitted path. Out: the same path with one curvature, too, where its curves join: what a knife or a bandsaw's blade
 * follows without a jerk.
 * Rests on: the curvature at a cubic's end, 2 h / 3 a a with a the handle's length and h the other handle's distance from
 * the tangent (Farin 2002): handles keep their directions and the product of their lengths at a joint, and are shared out
 * anew until both curvatures agree. Where a curve runs into an arc its handle gives the arc's. Corners, straight sides and
 * joints at which the curve bends the other way stay as they are.
 */
import { circleOf } from '../plane/arc.ts';
import { nearestOnPath, type Path, type Step, stepsOf } from '../plane/path.ts';
import { cross, norm, type Point, subtract, turnBetween } from '../plane/point.ts';
import { directionOn, pointOn, type Segment } from '../plane/segment.ts';

/** Neighbours that turn less than this are tangent, radians. */
const tangentTurn = 0.01;
const rounds = 400;
/** Handles may grow or shrink by so much. */
const maxGrowth = 2.5;
/** A changed segment is compared with the path as it was at this many places. */
const checks = 12;

/** A joint of two tangent segments of which one at least is a curve. */
interface Joint {
  readonly before: number;
  readonly after: number;
}

interface Handles {
  readonly start: Point;
  readonly end: Point;
  /** Unit directions of travel at either end. */
  readonly out: Point;
  readonly into: Point;
  /** The handles' lengths. */
  a: number;
  b: number;
}

/** @param maxMoved how far a segment may leave its former contour, in the path's unit */
export function smoothedForBlade(path: Path, maxMoved: number): Path {
  const steps = stepsOf(path);
  let joints = tangentJoints(steps, path.closed);
  for (;;) {
    if (joints.length === 0) return path;
    const made = withOneCurvature(path, steps, joints);
    const strayed = new Set(made.strayed);
    stepsOf(made.path).forEach(({ from, segment }, k) => {
      if (segment.kind !== 'cubic' || segment === path.segments[k]) return;
      for (let n = 1; n < checks; n++) if (nearestOnPath(path, pointOn(from, segment, n / checks)).distance > maxMoved) strayed.add(k);
    });
    if (strayed.size === 0) return made.path;
    joints = joints.filter(({ before, after }) => !strayed.has(before) && !strayed.has(after));
  }
}

function tangentJoints(steps: readonly Step[], closed: boolean): Joint[] {
  return steps.flatMap(({ from, segment }, k): Joint[] => {
    const after = k + 1 < steps.length ? k + 1 : 0;
    const next = steps[after] as Step;
    if ((after === 0 && !closed) || after === k) return [];
    const kinds = [segment.kind, next.segment.kind];
    if (!kinds.includes('cubic') || !kinds.every((kind) => kind === 'cubic' || kind === 'arc')) return [];
    const [u, v] = [directionOn(from, segment, 1), directionOn(next.from, next.segment, 0)];
    const turn = turnBetween(u, v);
    return Math.abs(turn) < tangentTurn ? [{ before: k, after }] : [];
  });
}

/** Segments whose handles would have to grow beyond all measure, or at which the curve bends the other way, are named. */
function withOneCurvature(path: Path, steps: readonly Step[], joints: readonly Joint[]): { path: Path; strayed: number[] } {
  const handles = steps.map(handlesOf);
  const first = handles.map((h) => h && { ...h });
  const strayed = new Set<number>();
  for (let round = 0; round < rounds; round++) {
    let change = 0;
    for (const joint of joints) {
      const moved = evened(steps, handles, joint);
      if (moved === null) strayed.add(handles[joint.before] ? joint.before : joint.after);
      else change = Math.max(change, moved);
    }
    if (change < 1e-10 || strayed.size > 0) break;
  }
  handles.forEach((h, k) => {
    const was = first[k];
    if (h && was && [h.a / was.a, h.b / was.b].some((grown) => grown > maxGrowth || grown < 1 / maxGrowth)) strayed.add(k);
  });
  const segments = path.segments.map((segment, k): Segment => {
    const h = handles[k];
    const was = first[k];
    if (!h || !was || segment.kind !== 'cubic' || (h.a === was.a && h.b === was.b)) return segment;
    return {
      kind: 'cubic',
      c1: { x: h.start.x + h.a * h.out.x, y: h.start.y + h.a * h.out.y },
      c2: { x: h.end.x - h.b * h.into.x, y: h.end.y - h.b * h.into.y },
      to: segment.to,
    };
  });
  return { path: { ...path, segments }, strayed: [...strayed] };
}

function handlesOf({ from, segment }: Step): Handles | null {
  if (segment.kind !== 'cubic') return null;
  return {
    start: from,
    end: segment.to,
    out: directionOn(from, segment, 0),
    into: directionOn(from, segment, 1),
    a: norm(segment.c1.x - from.x, segment.c1.y - from.y),
    b: norm(segment.to.x - segment.c2.x, segment.to.y - segment.c2.y),
  };
}

/** How far the first handle's end lies aside of the tangent at the end, to the left positive; and the other way round. */
const asideAtEnd = (h: Handles): number => cross(subtract(h.end, { x: h.start.x + h.a * h.out.x, y: h.start.y + h.a * h.out.y }), h.into);
const asideAtStart = (h: Handles): number => cross(h.out, subtract({ x: h.end.x - h.b * h.into.x, y: h.end.y - h.b * h.into.y }, h.start));

/** Shares the handles at a joint out anew; gives by what part they changed, null where no lengths make the curvatures one. */
function evened(steps: readonly Step[], handles: readonly (Handles | null)[], { before, after }: Joint): number | null {
  const [left, right] = [handles[before], handles[after]];
  const wanted = (aside: number, curvature: number): number | null =>
    aside * curvature > 0 ? Math.sqrt((2 * aside) / (3 * curvature)) : null;
  if (left && right) {
    const ratio = asideAtEnd(left) / asideAtStart(right);
    if (!(ratio > 0) || !Number.isFinite(ratio)) return null;
    const product = left.b * right.a;
    const [b, a] = [Math.sqrt(product * Math.sqrt(ratio)), Math.sqrt(product / Math.sqrt(ratio))];
    const change = Math.max(Math.abs(b / left.b - 1), Math.abs(a / right.a - 1));
    left.b = b;
    right.a = a;
    return change;
  }
  const b = left ? wanted(asideAtEnd(left), curvatureOf(steps[after] as Step)) : null;
  const a = right ? wanted(asideAtStart(right), curvatureOf(steps[before] as Step)) : null;
  if (left && b !== null) {
    const change = Math.abs(b / left.b - 1);
    left.b = b;
    return change;
  }
  if (!right || a === null) return null;
  const change = Math.abs(a / right.a - 1);
  right.a = a;
  return change;
}

/** Of an arc, to the left positive. */
function curvatureOf({ from, segment }: Step): number {
  return segment.kind === 'arc' ? Math.sign(segment.sweep) / circleOf(from, segment).radius : 0;
}
