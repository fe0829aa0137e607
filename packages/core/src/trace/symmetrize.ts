/**
 * In: a piece and a symmetry that it nearly has. Out: the piece, exactly symmetric, as the mean of its images.
 * Rests on: the mean outline fitted as any outline is; one half, or one part, of the fit then stands for all.
 */
import { circleOf } from '../plane/arc.ts';
import { nearestOnPath, type Path, pathBox, pathLength, reversedPath, stepsOf, transformedPath } from '../plane/path.ts';
import { cross, distance, dot, type Point, subtract, unitVector } from '../plane/point.ts';
import { directionOn, pointOn, type Segment, segmentLength, splitSegment } from '../plane/segment.ts';
import { apply, inverse, type Transform } from '../plane/transform.ts';
import type { HalfSide } from '../shape/half-at-axis.ts';
import { outlineAlong } from './outline.ts';
import { evenPoints, imageOf, type Mirror, type Outlines, partners, type Symmetry, type Turned } from './symmetry.ts';

/** The finished outline has no more softness than fitted paths show at their corners. */
const crisp = 0.3;

/**
 * @param unitPx how long a pixel's step is in the outlines' unit: the step that outlines are walked in
 * @param tolerance in the outlines' unit
 * @param stands the half of a mirrored piece that stands for both, seen along the axis' angle; null: the mean of both
 */
export function symmetrize(
  piece: Outlines,
  symmetry: Symmetry,
  unitPx: number,
  tolerance: number,
  stands: HalfSide | null = null,
): Outlines | null {
  const paths = [piece.outer, ...piece.holes];
  if (symmetry.kind === 'mirror' && stands) return halfForBoth(paths, symmetry, tolerance, stands);
  const image = imageOf(symmetry);
  const partner = partners(paths, image, tolerance);
  const made: (Path | null)[] = paths.map(() => null);
  for (let k = 0; k < paths.length; k++) {
    if (made[k]) continue;
    const ring = ringOf(partner, k);
    if (!ring) return null;
    const first =
      ring.length === 1
        ? selfSymmetric(paths[k] as Path, symmetry, unitPx, tolerance)
        : meanOfRing(paths, ring, symmetry, unitPx, tolerance);
    if (!first) return null;
    let path = first;
    for (const member of ring) {
      made[member] = path;
      path = turnedOver(path, symmetry);
    }
  }
  return { outer: made[0] as Path, holes: made.slice(1) as Path[] };
}

/** The half on one side, kept as it is, and its image in place of the other. */
function halfForBoth(paths: readonly Path[], mirror: Mirror, tolerance: number, stands: HalfSide): Outlines | null {
  const along = { x: Math.cos(mirror.angle), y: Math.sin(mirror.angle) };
  const isKept = (p: Point): boolean => cross(along, subtract(p, mirror.at)) > 0 === (stands === 'left');
  const partner = partners(paths, imageOf(mirror), tolerance);
  const made = paths.map((path, k): Path | null => {
    // Corners drawn on the axis lie as far off it as the halves differ.
    if (partner[k] === k)
      return halfTwice(path, mirror, Math.max(tolerance, 2 * mirror.worst), stands) ?? halfTwice(path, mirror, tolerance, stands);
    const { minX, minY, maxX, maxY } = pathBox(path);
    if (isKept({ x: (minX + maxX) / 2, y: (minY + maxY) / 2 })) return path;
    const other = paths[partner[k] as number];
    return other ? turnedOver(other, mirror) : null;
  });
  if (made.some((path) => path === null)) return null;
  return { outer: made[0] as Path, holes: made.slice(1) as Path[] };
}

/** The outlines that the images of one fall on in turn, back to it; null where they do not come back. */
function ringOf(partner: readonly number[], start: number): number[] | null {
  const ring = [start];
  for (let k = partner[start] as number; k !== start; k = partner[k] as number) {
    if (k < 0 || ring.length > partner.length) return null;
    ring.push(k);
  }
  return ring;
}

/** An outline's image, run the way that the outline runs. */
function turnedOver(path: Path, symmetry: Symmetry): Path {
  const image = transformedPath(path, imageOf(symmetry));
  return symmetry.kind === 'mirror' ? reversedPath(image) : image;
}

/** The mean of outlines that are each other's images, where the first one lies. */
function meanOfRing(paths: readonly Path[], ring: readonly number[], symmetry: Symmetry, unitPx: number, tolerance: number): Path {
  const onto: Path[] = [];
  for (let k = 1; k < ring.length; k++) {
    // Turned on until it comes to lie on the first one.
    let path = paths[ring[k] as number] as Path;
    for (let turns = k; turns < ring.length; turns++) path = turnedOver(path, symmetry);
    onto.push(path);
  }
  const first = paths[ring[0] as number] as Path;
  return fitted(meanAlong(first, onto, unitPx), unitPx, tolerance);
}

/** Points along the mean of an outline and its images: corner with corner, and between corners evenly. */
function meanAlong(path: Path, images: readonly Path[], unitPx: number): Point[] {
  const sides = sidesOf(path);
  const others = images.map((image) => sidesLike(sides, sidesOf(image)));
  if (sides.length < 2 || others.some((list) => list === null)) {
    return evenPoints(path, countFor(path, unitPx)).map((p) => meanOf([p, ...images.map((image) => nearestOnPath(image, p).point)]));
  }
  return sides.flatMap((side, k) => {
    const count = Math.max(4, Math.round(pathLength(side) / unitPx));
    const lists = [side, ...others.map((list) => (list as Path[])[k] as Path)].map((one) => evenPoints(one, count));
    return Array.from({ length: count }, (_, i) => meanOf(lists.map((list) => list[i] as Point)));
  });
}

/** A joint that turns more is a corner, radians. */
const cornerTurn = 0.3;

/** A closed outline as open paths from corner to corner; empty where it has none. */
function sidesOf(path: Path): Path[] {
  const steps = stepsOf(path);
  const corners = steps.flatMap(({ from, segment }, k) => {
    const before = steps.at(k - 1) as Step;
    return dot(directionOn(before.from, before.segment, 1), directionOn(from, segment, 0)) < Math.cos(cornerTurn) ? [k] : [];
  });
  return corners.map((first, k) => {
    const last = ((corners[(k + 1) % corners.length] as number) + steps.length - 1) % steps.length;
    const indices = turnedFrom(steps, first, last);
    return { start: (steps[first] as Step).from, segments: indices.map((i) => (steps[i] as Step).segment), closed: false };
  });
}

/** Another outline's sides in the order of these, corner nearest to corner; null where they are not as many or do not follow. */
function sidesLike(sides: readonly Path[], others: readonly Path[]): Path[] | null {
  const [first] = sides;
  if (!first || others.length !== sides.length) return null;
  const offs = others.map((_, shiftBy) =>
    sides.reduce((sum, side, k) => sum + distance(side.start, (others[(k + shiftBy) % others.length] as Path).start), 0),
  );
  const best = offs.indexOf(Math.min(...offs));
  const reach = 0.25 * Math.min(...sides.map(pathLength));
  const list = sides.map((_, k) => others[(k + best) % others.length] as Path);
  return list.every((other, k) => distance(other.start, (sides[k] as Path).start) <= reach) ? list : null;
}

const countFor = (path: Path, unitPx: number): number => Math.max(24, Math.min(6000, Math.round(pathLength(path) / unitPx)));

const meanOf = (points: readonly Point[]): Point => ({
  x: points.reduce((sum, p) => sum + p.x, 0) / points.length,
  y: points.reduce((sum, p) => sum + p.y, 0) / points.length,
});

/** An outline along closed points; the fit counts in pixels. */
function fitted(points: readonly Point[], unitPx: number, tolerance: number): Path {
  const contour = new Float64Array(2 * points.length);
  points.forEach(({ x, y }, k) => {
    contour[2 * k] = x / unitPx;
    contour[2 * k + 1] = y / unitPx;
  });
  const path = outlineAlong(contour, crisp, 0.02, tolerance / unitPx);
  return transformedPath(path, { a: unitPx, b: 0, c: 0, d: unitPx, e: 0, f: 0 });
}

function selfSymmetric(path: Path, symmetry: Symmetry, unitPx: number, tolerance: number): Path | null {
  const images: Path[] = [];
  const count = symmetry.kind === 'mirror' ? 2 : symmetry.order;
  for (let k = 1; k < count; k++) images.push(turnedOver(images.at(-1) ?? path, symmetry));
  const mean = fitted(meanAlong(path, images, unitPx), unitPx, tolerance);
  return symmetry.kind === 'mirror' ? halfTwice(mean, symmetry, tolerance) : partRepeated(mean, symmetry, tolerance);
}

/** Where a path passes the axis: at the end of step `index` where `t` is 1, else inside it. */
interface Passing {
  readonly index: number;
  readonly t: number;
}

/** The half of a path on one side of the axis, and its image. */
function halfTwice(path: Path, mirror: Mirror, tolerance: number, stands: HalfSide = 'left'): Path | null {
  const along = { x: Math.cos(mirror.angle), y: Math.sin(mirror.angle) };
  const side = (p: Point): number => cross(along, subtract(p, mirror.at));
  const sign = stands === 'left' ? 1 : -1;
  const onAxis = (p: Point): Point => {
    const d = dot(along, subtract(p, mirror.at));
    return { x: mirror.at.x + d * along.x, y: mirror.at.y + d * along.y };
  };
  const steps = stepsOf(path);
  const passings: Passing[] = [];
  steps.forEach(({ from, segment }, index) => {
    const [a, b] = [side(from), side(segment.to)];
    if (Math.abs(b) <= tolerance) passings.push({ index, t: 1 });
    else if (Math.abs(a) > tolerance && a * b < 0) passings.push({ index, t: passingOf(from, segment, side) });
  });
  if (passings.length !== 2) return null;
  const [p, q] = passings as [Passing, Passing];
  const middle = (from: Passing, to: Passing) => {
    const half = between(steps, from, to);
    return half.length > 0 ? half : null;
  };
  const [first, second] = [middle(p, q), middle(q, p)];
  const half = [first, second].find(
    (list) => list && side(pointOn(list[list.length >> 1]?.from as Point, list[list.length >> 1]?.segment as Segment, 0.5)) * sign > 0,
  );
  if (!half) return null;
  const start = onAxis((half[0] as { from: Point }).from);
  const end = onAxis((half.at(-1) as { segment: Segment }).segment.to);
  const squared = half.map(({ from, segment }, k) =>
    crossesSquarely(from, segment, along, k === 0 ? start : null, k === half.length - 1 ? end : null),
  );
  const open: Path = { start, segments: squared, closed: false };
  const image = turnedOver(open, mirror);
  return joinedAtAxis([...squared, ...image.segments], squared.length, start);
}

/** The share of a segment at which it passes from one side to the other, by halving. */
function passingOf(from: Point, segment: Segment, side: (p: Point) => number): number {
  let [low, high] = [0, 1];
  const sign = Math.sign(side(from));
  for (let round = 0; round < 50; round++) {
    const t = (low + high) / 2;
    if (Math.sign(side(pointOn(from, segment, t))) === sign) low = t;
    else high = t;
  }
  return (low + high) / 2;
}

type Step = ReturnType<typeof stepsOf>[number];

/** The steps from one passing to the other, the first and last cut there. */
function between(steps: readonly Step[], from: Passing, to: Passing): Step[] {
  const list: Step[] = [];
  const count = steps.length;
  if (from.t < 1) {
    const step = steps[from.index] as Step;
    list.push(partOf(step, from.t, from.index === to.index && to.t > from.t ? to.t : 1));
    if (from.index === to.index && to.t > from.t) return list;
  }
  for (let k = (from.index + 1) % count; k !== to.index; k = (k + 1) % count) list.push(steps[k] as Step);
  list.push(partOf(steps[to.index] as Step, 0, to.t));
  return list;
}

function partOf({ from, segment }: Step, t0: number, t1: number): Step {
  if (t0 <= 0 && t1 >= 1) return { from, segment };
  const upTo = t1 < 1 ? splitSegment(from, segment, t1)[0] : segment;
  return { from: pointOn(from, segment, t0), segment: t0 > 0 ? splitSegment(from, upTo, t0 / t1)[1] : upTo };
}

/** A segment moved to start or end on the axis; a curve that passed it smoothly passes it squarely. */
function crossesSquarely(from: Point, segment: Segment, along: Point, start: Point | null, end: Point | null): Segment {
  if (segment.kind === 'cubic') {
    const squared = (at: Point, old: Point, handle: Point): Point => {
      const reach = subtract(handle, old);
      const isSmooth = Math.abs(dot(unitVector(reach), along)) < 0.1;
      const flat = isSmooth ? { x: reach.x - dot(reach, along) * along.x, y: reach.y - dot(reach, along) * along.y } : reach;
      return { x: at.x + flat.x, y: at.y + flat.y };
    };
    return {
      kind: 'cubic',
      c1: start ? squared(start, from, segment.c1) : segment.c1,
      c2: end ? squared(end, segment.to, segment.c2) : segment.c2,
      to: end ?? segment.to,
    };
  }
  return end ? { ...segment, to: end } : segment;
}

/** Two halves of one line or arc on either side of the axis made one again, at the far end and at the start. */
function joinedAtAxis(segments: readonly Segment[], half: number, start: Point): Path {
  const list = [...segments];
  const fromOf = (k: number): Point => (k === 0 ? start : (list[k - 1] as Segment).to);
  const far = merged(fromOf(half - 1), list[half - 1] as Segment, list[half] as Segment);
  if (far) list.splice(half - 1, 2, far);
  const last = list.length - 1;
  const near = last > 1 ? merged(fromOf(last), list[last] as Segment, list[0] as Segment) : null;
  if (!near) return { start, segments: list, closed: true };
  return { start: fromOf(last), segments: [near, ...list.slice(1, last)], closed: true };
}

/** One line or arc for two that go on smoothly; null where they are not of one kind and contour. */
function merged(from: Point, a: Segment, b: Segment): Segment | null {
  if (dot(directionOn(from, a, 1), directionOn(a.to, b, 0)) < Math.cos(0.03)) return null;
  if (a.kind === 'line' && b.kind === 'line') return b;
  if (a.kind !== 'arc' || b.kind !== 'arc') return null;
  const [p, q] = [circleOf(from, a), circleOf(a.to, b)];
  const isOne = distance(p.centre, q.centre) < 0.02 * p.radius && Math.abs(a.sweep + b.sweep) < 6;
  return isOne ? { kind: 'arc', to: b.to, sweep: a.sweep + b.sweep } : null;
}

/** One part of a path, between a joint and its image, turned all round. */
function partRepeated(path: Path, turned: Turned, tolerance: number): Path | null {
  const steps = stepsOf(path);
  const image = imageOf(turned);
  // Sharp joints first: a part that begins at a corner needs no matching of directions.
  const sharpness = (k: number) => {
    const before = steps[(k + steps.length - 1) % steps.length] as Step;
    const step = steps[k] as Step;
    return -dot(directionOn(before.from, before.segment, 1), directionOn(step.from, step.segment, 0));
  };
  const order = steps.map((_, k) => k).sort((a, b) => sharpness(b) - sharpness(a));
  const lengths = steps.map(({ from, segment }) => segmentLength(from, segment));
  const share = lengths.reduce((sum, length) => sum + length, 0) / turned.order;
  for (const first of order) {
    const from = (steps[first] as Step).from;
    // A clockwise outline comes to the image of the turn back first.
    for (const map of [image, inverse(image)]) {
      const end = apply(map, from);
      const last = steps.findIndex(({ segment }) => distance(segment.to, end) <= 3 * tolerance);
      if (last < 0) continue;
      const part = turnedFrom(steps, first, last);
      const length = part.reduce((sum, k) => sum + (lengths[k] as number), 0);
      if (Math.abs(length - share) > 0.05 * share) continue;
      return repeated(
        from,
        part.map((k) => (steps[k] as Step).segment),
        end,
        map,
        turned.order,
      );
    }
  }
  return null;
}

/** The steps from one to another, both in, round the end. */
function turnedFrom(steps: readonly Step[], first: number, last: number): number[] {
  const count = ((last - first + steps.length) % steps.length) + 1;
  return Array.from({ length: count }, (_, k) => (first + k) % steps.length);
}

function repeated(start: Point, part: readonly Segment[], end: Point, map: Transform, order: number): Path {
  const last = part.at(-1) as Segment;
  const moved: Segment =
    last.kind === 'cubic'
      ? { ...last, to: end, c2: { x: last.c2.x + end.x - last.to.x, y: last.c2.y + end.y - last.to.y } }
      : { ...last, to: end };
  let piece: Path = { start, segments: [...part.slice(0, -1), moved], closed: false };
  const segments: Segment[] = [];
  for (let k = 0; k < order; k++) {
    segments.push(...piece.segments);
    piece = transformedPath(piece, map);
  }
  segments[segments.length - 1] = { ...(segments.at(-1) as Segment), to: start };
  return { start, segments, closed: true };
}
