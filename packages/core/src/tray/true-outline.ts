/**
 * In: the outline that an object shows on the sheet, where the camera was, and how high the object is. Out: its true outline, as seen straight
 * down from infinitely far.
 * What lies at height h over the sheet is seen on the sheet larger about the place under the camera, z / (z - h) times. Of upright sides the one
 * that faces away is seen by its top and the one that faces the camera by its foot: the object is what stays within the outline at every size
 * from the one down to the other. Of a round edge, a bar's or one rounded by half the thickness, the ray touches a circle of radius r = h / 2
 * whose middle lies at that height: the edge is what is seen there, moved in by r (1 / cos a - 1), a being how slanted the ray is across the edge.
 */
import {
  asCubics,
  directionOn,
  nearestOnPath,
  type Path,
  type Point,
  pathArea,
  pathBox,
  pointOn,
  type Segment,
  type Step,
  splitSegment,
  stepsOf,
  type Transform,
  transformedPath,
} from '../plane/index.ts';
import { combined, counterClockwise, nested, validLoops } from '../shape/index.ts';

/** A closed outline, counter-clockwise, with its holes, clockwise. */
export interface Area {
  readonly outer: Path;
  readonly holes: readonly Path[];
}

/** Over a place of the sheet, mm. */
export interface Eye extends Point {
  readonly z: number;
}

/** `upright`: sides square to the sheet; `round`: bars, and edges rounded by half the thickness. */
export const edgeShapes = ['upright', 'round'] as const;
export type EdgeShape = (typeof edgeShapes)[number];

/** Between two sizes that are looked at the outline moves by no more, mm; nor are there more of them. */
const stepMm = 1.5;
const mostSizes = 8;
/** What is left over at edges that point to the camera's foot is smaller, square mm. */
const leastMm2 = 1;

/** The parts of the true outline: one, but where an object is no wider than what is taken off it. @param heightMm less than the eye's */
export function trueOutline(seen: Area, eye: Eye, heightMm: number, edge: EdgeShape): Area[] {
  if (heightMm <= 0) return [seen];
  const parts = edge === 'round' ? roundEdge(seen, eye, heightMm / 2) : uprightEdge(seen, eye, heightMm);
  return parts.filter(({ outer }) => Math.abs(pathArea(outer)) > leastMm2);
}

/** Larger or smaller about the camera's foot. */
const about = ({ x, y }: Point, size: number): Transform => ({ a: size, b: 0, c: 0, d: size, e: x * (1 - size), f: y * (1 - size) });

function uprightEdge({ outer, holes }: Area, eye: Eye, heightMm: number): Area[] {
  const least = (eye.z - heightMm) / eye.z;
  const { minX, minY, maxX, maxY } = pathBox(outer);
  const farthest = Math.hypot(Math.max(Math.abs(minX - eye.x), Math.abs(maxX - eye.x)), Math.max(Math.abs(minY - eye.y), Math.abs(maxY - eye.y))); // biome-ignore format: one line
  const count = Math.min(mostSizes, Math.max(1, Math.ceil((farthest * (1 - least)) / stepMm)));
  const seen = [outer, ...holes];
  let area = seen;
  // The smallest first: it takes off the most, and leaves the others little to cross.
  for (let k = count; k >= 1; k--) {
    const smaller = seen.map((path) => transformedPath(path, about(eye, 1 - ((1 - least) * k) / count)));
    area = combined(area, smaller, 'keep-common');
  }
  return nested(area);
}

function roundEdge({ outer, holes }: Area, eye: Eye, radiusMm: number): Area[] {
  const outers = movedBySlant(outer, eye, radiusMm).filter((path) => pathArea(path) > 0);
  const grown = holes.flatMap((hole) => movedBySlant(hole, eye, radiusMm)).map(counterClockwise);
  return nested(grown.length === 0 ? outers : combined(outers, grown, 'take-away'));
}

/** Curves are moved span by span: none is longer, mm, or turns by more, radians. */
const longestSpanMm = 8;
const widestTurn = 0.4;
/** By how much a moved outline may be off, mm. */
const slackMm = 0.002;
/** What is nearer than this share of its way to where it was seen, less this much, mm, belongs to a corner's loop. */
const leastShare = 0.8;
const lookMm = 0.04;

/**
 * An outline that is seen of a round edge, as the edge is. With p how far off the camera's foot it is seen across itself, the tangent there
 * lies at g(p) = p (z - r) / z - r (sqrt(1 + p² / z²) - 1); the outline is what those tangents envelop, so that its place along the tangent is
 * g'(p) times the one seen.
 */
function movedBySlant(path: Path, eye: Eye, radiusMm: number): Path[] {
  const size = (eye.z - radiusMm) / eye.z;
  const inset = (p: number): number => radiusMm * (Math.hypot(1, p / eye.z) - 1);
  const to = (at: Point, along: Point): Point => {
    const [dx, dy] = [at.x - eye.x, at.y - eye.y];
    const [p, t] = [dx * along.y - dy * along.x, dx * along.x + dy * along.y];
    const [away, on] = [size * p - inset(p), (size - (radiusMm * p) / (eye.z * Math.hypot(eye.z, p))) * t];
    return { x: eye.x + away * along.y + on * along.x, y: eye.y - away * along.x + on * along.y };
  };
  const moved = (step: Step, t: number): Point => to(pointOn(step.from, step.segment, t), directionOn(step.from, step.segment, t));
  const spans = stepsOf(path).flatMap(spansOf);
  // Where one leads on into the next but for a little, both meet on the line that halves the turn.
  const meeting = spans.map((span, k) => {
    const before = spans.at(k - 1) as Step;
    const [a, b] = [directionOn(before.from, before.segment, 1), directionOn(span.from, span.segment, 0)];
    const length = Math.hypot(a.x + b.x, a.y + b.y);
    return length > 2 * Math.cos(widestTurn / 2) ? to(span.from, { x: (a.x + b.x) / length, y: (a.y + b.y) / length }) : null;
  });
  const segments: Segment[] = [];
  let at = meeting[0] ?? moved(spans.at(-1) as Step, 1);
  const start = at;
  for (const [k, span] of spans.entries()) {
    const [from, next] = [meeting[k] ?? moved(span, 0), meeting[(k + 1) % spans.length] ?? moved(span, 1)];
    if (far(at, from)) segments.push({ kind: 'line', to: from });
    segments.push(span.segment.kind === 'line' ? { kind: 'line', to: next } : movedCurve(span, moved, from, next));
    at = next;
  }
  const half = transformedPath(path, about(eye, size));
  const isIn = (p: Point): boolean => {
    const { point, distance } = nearestOnPath(half, p);
    if (distance < lookMm) return true;
    const across = ((point.x - eye.x) * (point.x - p.x) + (point.y - eye.y) * (point.y - p.y)) / distance / size;
    return distance >= leastShare * inset(across) - lookMm;
  };
  const isTrue = (run: Path): boolean => stepsOf(run).every(({ from, segment }) => [0.3, 0.6].every((t) => isIn(pointOn(from, segment, t)))); // biome-ignore format: one line
  return validLoops({ start, segments, closed: true }, isTrue, slackMm);
}

const far = (a: Point, b: Point): boolean => Math.hypot(a.x - b.x, a.y - b.y) > 1e-7;

/** A step in parts that are short and hardly turn; a line as it is. */
function spansOf({ from, segment }: Step): Step[] {
  if (segment.kind === 'line') return far(from, segment.to) ? [{ from, segment }] : [];
  let at = from;
  return asCubics(from, segment, slackMm / 10).flatMap((cubic) => {
    const whole: Step = { from: at, segment: cubic };
    at = cubic.to;
    return halved(whole);
  });
}

function halved(step: Step, depth = 0): Step[] {
  const [a, b] = [directionOn(step.from, step.segment, 0), directionOn(step.from, step.segment, 1)];
  const turn = Math.acos(Math.max(-1, Math.min(1, a.x * b.x + a.y * b.y)));
  const { from, segment } = step;
  if (depth > 6 || (turn < widestTurn && Math.hypot(segment.to.x - from.x, segment.to.y - from.y) < longestSpanMm)) return [step];
  const [first, second] = splitSegment(from, segment, 0.5);
  return [...halved({ from, segment: first }, depth + 1), ...halved({ from: first.to, segment: second }, depth + 1)];
}

/** The cubic with the moved curve's own slopes at its ends. */
function movedCurve(span: Step, moved: (step: Step, t: number) => Point, from: Point, to: Point): Segment {
  const h = 1e-4;
  const slope = (t: number, side: 1 | -1): Point => {
    const [a, b, c] = [moved(span, t), moved(span, t + side * h), moved(span, t + 2 * side * h)];
    return { x: (side * (-3 * a.x + 4 * b.x - c.x)) / (2 * h), y: (side * (-3 * a.y + 4 * b.y - c.y)) / (2 * h) };
  };
  const [d, e] = [slope(0, 1), slope(1, -1)];
  return { kind: 'cubic', c1: { x: from.x + d.x / 3, y: from.y + d.y / 3 }, c2: { x: to.x - e.x / 3, y: to.y - e.y / 3 }, to };
}
