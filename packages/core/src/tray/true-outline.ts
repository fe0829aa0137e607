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
  distance,
  type Path,
  type Point,
  pathArea,
  pathBox,
  pointOn,
  polygonPath,
  type Segment,
  type Step,
  segmentLength,
  splitSegment,
  stepsOf,
  type Transform,
  transformedPath,
} from '../plane/index.ts';
import { combined, counterClockwise, nested, validLoops, windingNumber } from '../shape/index.ts';

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
/** Slivers under this area are dropped: they are left along edges in line with the camera, mm². */
const leastMm2 = 1;

/** The parts of the true outline: one, but where an object is no wider than what is taken off it. @param heightMm less than the eye's */
export function trueOutline(seen: Area, eye: Eye, heightMm: number, edge: EdgeShape): Area[] {
  if (heightMm <= 0) return [seen];
  const sharp = { outer: sharpened(seen.outer), holes: seen.holes.map(sharpened) };
  const parts = edge === 'round' ? roundEdge(sharp, eye, heightMm / 2) : uprightEdge(sharp, eye, heightMm);
  return parts.filter(({ outer }) => Math.abs(pathArea(outer)) > leastMm2);
}

/** What is no longer than this between two sides is their corner, mm. */
const roundedMm = 4;

/** An outline whose inner corners, which a trace may round a little, lie where the sides about them meet. */
function sharpened(path: Path): Path {
  const steps = stepsOf(path);
  const isSide = ({ from, segment }: Step): boolean => segmentLength(from, segment) > roundedMm;
  const first = steps.findIndex(isSide);
  if (first < 0) return path;
  const round = [...steps.slice(first), ...steps.slice(0, first)];
  const segments: Segment[] = [];
  let between: Step[] = [];
  let before = round[0] as Step;
  for (const step of [...round.slice(1), round[0] as Step]) {
    if (!isSide(step)) {
      between.push(step);
      continue;
    }
    segments.push(before.segment);
    const corner = between.length > 0 ? innerCorner(before, step) : null;
    if (corner) segments.push({ kind: 'line', to: corner }, { kind: 'line', to: step.from });
    else segments.push(...between.map(({ segment }) => segment));
    [before, between] = [step, []];
  }
  return { start: (round[0] as Step).from, segments, closed: true };
}

/** Where two sides meet that an inner corner lies between; null where there is none near by. */
function innerCorner({ from, segment }: Step, next: Step): Point | null {
  const [a, b] = [directionOn(from, segment, 1), directionOn(next.from, next.segment, 0)];
  const [p, q] = [segment.to, next.from];
  const turn = a.x * b.y - a.y * b.x;
  if (turn > -Math.sin(leastTurn) || distance(p, q) > roundedMm) return null;
  const along = ((q.x - p.x) * b.y - (q.y - p.y) * b.x) / turn;
  const corner = { x: p.x + along * a.x, y: p.y + along * a.y };
  return along > 0 && distance(corner, q) < roundedMm && along < roundedMm ? corner : null;
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
  const corners = seen.flatMap((path) => innerCorners(path, eye, least));
  return nested(corners.reduce((rest, corner) => combined(rest, [corner], 'take-away'), area));
}

/** From this turn on a corner is one, radians. */
const leastTurn = 0.3;

/**
 * Where an inner corner has one side that is seen by its top and one that is seen by its foot, what stays at every size fills the corner by a
 * triangle: both sides are taken to go on straight until they meet. What lies beyond them there.
 */
function innerCorners(path: Path, eye: Eye, size: number): Path[] {
  const steps = stepsOf(path);
  return steps.flatMap((next, k): Path[] => {
    const before = steps.at(k - 1) as Step;
    const at = next.from;
    const [a, b] = [directionOn(before.from, before.segment, 1), directionOn(at, next.segment, 0)];
    const turn = a.x * b.y - a.y * b.x;
    if (turn > -Math.sin(leastTurn)) return [];
    const [dx, dy] = [at.x - eye.x, at.y - eye.y];
    const isTop = (along: Point): boolean => dx * along.y - dy * along.x > 0;
    if (isTop(a) === isTop(b)) return [];
    const top = { x: eye.x + dx * size, y: eye.y + dy * size };
    const [p, q] = isTop(a) ? [top, at] : [at, top];
    const t = ((q.x - p.x) * b.y - (q.y - p.y) * b.x) / turn;
    const meet = { x: p.x + t * a.x, y: p.y + t * a.y };
    const long = 2 * Math.hypot(top.x - at.x, top.y - at.y) + 2 * Math.max(distance(meet, p), distance(meet, q));
    return [counterClockwise(polygonPath([meet, { x: meet.x - long * a.x, y: meet.y - long * a.y }, { x: meet.x + long * b.x, y: meet.y + long * b.y }]))]; // biome-ignore format: one line
  });
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
/** So far to either side of a run it is asked where it lies, mm. */
const besideMm = 1e-4;

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
    if (far(at, from)) segments.push(...cornerBetween(spans.at(k - 1) as Step, span, at, from), { kind: 'line', to: from });
    segments.push(span.segment.kind === 'line' ? { kind: 'line', to: next } : movedCurve(span, moved, from, next));
    at = next;
  }
  const raw: Path = { start, segments, closed: true };
  // Corner loops run the other way round: what counts has the inside to its left, and nothing to its right.
  const inside = pathArea(path) > 0 ? 1 : 0;
  const isTrue = (run: Path): boolean => {
    const { from, segment } = stepsOf(run)[run.segments.length >> 1] as Step;
    const [at, along] = [pointOn(from, segment, 0.5), directionOn(from, segment, 0.5)];
    const beside = (by: number): number => windingNumber([raw], { x: at.x - by * along.y, y: at.y + by * along.x });
    return beside(besideMm) >= inside && beside(-besideMm) < inside;
  };
  return validLoops(raw, isTrue, slackMm);
}

/** At an inner corner both sides go on straight until they meet. */
function cornerBetween(before: Step, next: Step, p: Point, q: Point): Segment[] {
  const [a, b] = [directionOn(before.from, before.segment, 1), directionOn(next.from, next.segment, 0)];
  const turn = a.x * b.y - a.y * b.x;
  if (turn > -Math.sin(leastTurn)) return [];
  const t = ((q.x - p.x) * b.y - (q.y - p.y) * b.x) / turn;
  return [{ kind: 'line', to: { x: p.x + t * a.x, y: p.y + t * a.y } }];
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

/**
 * The cubic with the moved curve's own slopes at its ends; a line where it would run backwards: a bend that is tighter than any edge of that
 * radius shows.
 */
function movedCurve(span: Step, moved: (step: Step, t: number) => Point, from: Point, to: Point): Segment {
  const h = 1e-4;
  const slope = (t: number, side: 1 | -1): Point => {
    const [a, b, c] = [moved(span, t), moved(span, t + side * h), moved(span, t + 2 * side * h)];
    return { x: (side * (-3 * a.x + 4 * b.x - c.x)) / (2 * h), y: (side * (-3 * a.y + 4 * b.y - c.y)) / (2 * h) };
  };
  const [d, e] = [slope(0, 1), slope(1, -1)];
  const isOn = (way: Point, t: number): boolean => {
    const along = directionOn(span.from, span.segment, t);
    return way.x * along.x + way.y * along.y > 0;
  };
  const chord = { x: to.x - from.x, y: to.y - from.y };
  if (!isOn(d, 0) || !isOn(e, 1) || !isOn(chord, 0)) return { kind: 'line', to };
  return { kind: 'cubic', c1: { x: from.x + d.x / 3, y: from.y + d.y / 3 }, c2: { x: to.x - e.x / 3, y: to.y - e.y / 3 }, to };
}
