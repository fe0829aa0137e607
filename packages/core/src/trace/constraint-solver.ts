/**
 * In: outlines and the relations that shall hold. Out: the outlines nearest to them for which all hold together.
 * Rests on: the projection onto what the relations leave (least squares under constraints, by Lagrange's multipliers,
 * linearised anew in each round), multipliers by conjugate gradients (Hestenes & Stiefel 1952). Unknown are joints,
 * arcs' rises and curves' handles, all as lengths; joints that were tangent stay so. What contradicts the rest or would
 * move a point too far is left out.
 */
import { conjugateGradients, type JacobianRow } from '../numeric/conjugate-gradients.ts';
import { type Path, stepsOf } from '../plane/path.ts';
import { distance, norm, type Point } from '../plane/point.ts';
import type { Segment } from '../plane/segment.ts';
import type { Relation, SegmentRef } from './relations.ts';

export interface Related {
  readonly paths: Path[];
  /** Those of the relations that hold now. */
  readonly held: readonly Relation[];
  /** The farthest that a joint has moved. */
  readonly moved: number;
}

/** Neighbours that turn less than this were tangent, radians. */
const tangentTurn = 0.01;
const rounds = 30;
/** Relations hold to within this, in the outlines' unit. */
const heldWithin = 1e-9;

/** A number that is to be 0, of a few unknowns. */
interface Constraint {
  readonly unknowns: readonly number[];
  readonly value: (x: Float64Array) => number;
}

/** @param reach how far a joint may move, in the outlines' unit */
export function regularize(paths: readonly Path[], relations: readonly Relation[], reach: number): Related {
  const layout = new Layout(paths);
  const inner = layout.innerConstraints();
  let wanted = relations.filter(({ of }) => of.every((ref) => layout.isFree(ref)));
  for (;;) {
    const constraints = [...inner, ...wanted.flatMap((relation) => layout.constraintsOf(relation))];
    const { x, left } = projected(layout.start, constraints);
    const moved = layout.farthestMove(x);
    if (wanted.length === 0) return { paths: [...paths], held: [], moved: 0 };
    if (left <= heldWithin && moved <= reach) return { paths: layout.read(x), held: wanted, moved };
    // Those furthest from holding by themselves give way.
    const ordered = wanted.toSorted((a, b) => a.off - b.off);
    wanted = ordered.slice(0, ordered.length - Math.ceil(ordered.length / 50));
  }
}

/** The point nearest to the start where all constraints are 0, and how far from 0 the worst of them is left. */
function projected(start: Float64Array, constraints: readonly Constraint[]): { x: Float64Array; left: number } {
  let x = start.slice();
  let left = Infinity;
  for (let round = 0; round < rounds; round++) {
    const values = constraints.map(({ value }) => value(x));
    left = values.reduce((max, v) => Math.max(max, Math.abs(v)), 0);
    if (left <= heldWithin / 10) break;
    const rows = constraints.map((constraint, k) => slopesOf(constraint, x, values[k] as number));
    // c(x) - J (x - start), which the step from the start has to cancel.
    const wanted = rows.map(({ at, slopes }, k) =>
      at.reduce((sum, i, n) => sum - (slopes[n] as number) * ((x[i] as number) - (start[i] as number)), values[k] as number),
    );
    const multipliers = conjugateGradients(rows, wanted, x.length);
    const next = start.slice();
    rows.forEach(({ at, slopes }, k) => {
      at.forEach((i, n) => {
        next[i] = (next[i] as number) - (slopes[n] as number) * (multipliers[k] as number);
      });
    });
    x = next;
  }
  return { x, left };
}

function slopesOf({ unknowns, value }: Constraint, x: Float64Array, here: number): JacobianRow {
  const step = 1e-6;
  const slopes = unknowns.map((i) => {
    const kept = x[i] as number;
    x[i] = kept + step;
    const there = value(x);
    x[i] = kept - step;
    const back = value(x);
    x[i] = kept;
    return Number.isFinite(back) ? (there - back) / (2 * step) : (there - here) / step;
  });
  return { at: unknowns, slopes };
}

/** Where a segment's numbers stand among the unknowns. */
interface Slot {
  readonly from: number;
  readonly to: number;
  /** Of an arc its rise, of a curve its first handle; -1 for a line. */
  readonly more: number;
  readonly kind: Segment['kind'];
  /** Of an arc: half its chord at the start, by which its rise is told as a length. */
  readonly half: number;
}

/** All unknowns in a row, and how outlines are read from them. */
class Layout {
  readonly start: Float64Array;
  private readonly paths: readonly Path[];
  private readonly slots: Slot[][];
  private readonly joints: number[] = [];

  constructor(paths: readonly Path[]) {
    this.paths = paths;
    const values: number[] = [];
    const joint = ({ x, y }: Point): number => {
      this.joints.push(values.length);
      return values.push(x, y) - 2;
    };
    this.slots = paths.map((path) => {
      const first = joint(path.start);
      let from = first;
      return stepsOf(path).map(({ from: at, segment }, n, all): Slot => {
        const isBack = path.closed && n === all.length - 1 && distance(segment.to, path.start) < 1e-9;
        const to = isBack ? first : joint(segment.to);
        const half = distance(at, segment.to) / 2;
        const more = values.length;
        if (segment.kind === 'arc') values.push(Math.tan(segment.sweep / 4) * half);
        if (segment.kind === 'cubic') values.push(segment.c1.x, segment.c1.y, segment.c2.x, segment.c2.y);
        const slot = { from, to, more, kind: segment.kind, half };
        from = to;
        return slot;
      });
    });
    this.start = Float64Array.from(values);
  }

  private slot({ path, segment }: SegmentRef): Slot {
    return (this.slots[path] as Slot[])[segment] as Slot;
  }

  /** Outlines with ellipses stay as they are. */
  isFree({ path }: SegmentRef): boolean {
    return (this.slots[path] as Slot[]).every(({ kind }) => kind !== 'ellipse');
  }

  farthestMove(x: Float64Array): number {
    return this.joints.reduce(
      (max, i) => Math.max(max, norm((x[i] as number) - (this.start[i] as number), (x[i + 1] as number) - (this.start[i + 1] as number))),
      0,
    );
  }

  read(x: Float64Array): Path[] {
    const at = (i: number): Point => ({ x: x[i] as number, y: x[i + 1] as number });
    return this.paths.map((path, k) => {
      const slots = this.slots[k] as Slot[];
      if (slots.some(({ kind }) => kind === 'ellipse') || slots.length === 0) return path;
      return {
        ...path,
        start: at((slots[0] as Slot).from),
        segments: path.segments.map((segment, n): Segment => {
          const { to, more, half } = slots[n] as Slot;
          if (segment.kind === 'arc') return { kind: 'arc', to: at(to), sweep: 4 * Math.atan((x[more] as number) / half) };
          if (segment.kind === 'cubic') return { kind: 'cubic', c1: at(more), c2: at(more + 2), to: at(to) };
          return { ...segment, to: at(to) };
        }),
      };
    });
  }

  private unknownsOf(slot: Slot): number[] {
    const own = [slot.from, slot.from + 1, slot.to, slot.to + 1];
    if (slot.kind === 'arc') own.push(slot.more);
    if (slot.kind === 'cubic') own.push(slot.more, slot.more + 1, slot.more + 2, slot.more + 3);
    return own;
  }

  private constraint(slots: readonly Slot[], value: (x: Float64Array) => number): Constraint {
    return { unknowns: [...new Set(slots.flatMap((slot) => this.unknownsOf(slot)))], value };
  }

  /** What outlines keep of themselves: tangent joints, and arcs in a row on one circle. */
  innerConstraints(): Constraint[] {
    return this.slots.flatMap((slots, k) => {
      if (slots.some(({ kind }) => kind === 'ellipse')) return [];
      const isClosed = (this.paths[k] as Path).closed;
      return slots.flatMap((slot, n): Constraint[] => {
        const next = slots[n + 1] ?? (isClosed && slots.length > 1 ? slots[0] : undefined);
        if (!next || next === slot) return [];
        if (slot.kind === 'line' && next.kind === 'line') return [];
        const turn = (x: Float64Array) => bendBetween(headingOf(slot, x, 1), headingOf(next, x, 0));
        if (Math.abs(turn(this.start)) > tangentTurn) return [];
        const size = Math.min(2 * slot.half, 2 * next.half);
        const tangent = this.constraint([slot, next], (x) => size * turn(x));
        if (slot.kind !== 'arc' || next.kind !== 'arc') return [tangent];
        const apart = (x: Float64Array) => distance(circleOf(slot, x).centre, circleOf(next, x).centre);
        if (apart(this.start) > 1e-6 * circleOf(slot, this.start).radius) return [tangent];
        return [tangent, this.constraint([slot, next], (x) => circleOf(slot, x).radius - circleOf(next, x).radius)];
      });
    });
  }

  constraintsOf(relation: Relation): Constraint[] {
    const slots = relation.of.map((ref) => this.slot(ref));
    const [a, b] = slots as [Slot, Slot];
    const make = (value: (x: Float64Array) => number) => this.constraint(slots, value);
    switch (relation.kind) {
      case 'level':
        return [make((x) => (x[a.to + 1] as number) - (x[a.from + 1] as number))];
      case 'plumb':
        return [make((x) => (x[a.to] as number) - (x[a.from] as number))];
      case 'parallel':
        return [make((x) => 2 * a.half * bendBetween(headingOf(b, x, 0), headingOf(a, x, 0), true))];
      case 'square':
        return [make((x) => 2 * a.half * bendBetween(headingOf(b, x, 0) + Math.PI / 2, headingOf(a, x, 0), true))];
      case 'in-line':
        return [make((x) => offLineOf(b, x, a.from)), make((x) => offLineOf(b, x, a.to))];
      case 'equal-length':
        return [make((x) => lengthOf(a, x) - lengthOf(b, x))];
      case 'equal-radius':
        return [make((x) => circleOf(a, x).radius - circleOf(b, x).radius)];
      case 'concentric':
        return [
          make((x) => circleOf(a, x).centre.x - circleOf(b, x).centre.x),
          make((x) => circleOf(a, x).centre.y - circleOf(b, x).centre.y),
        ];
    }
  }
}

/** The turn from one heading to another; of lines that may run either way, the smaller one. */
function bendBetween(a: number, b: number, eitherWay = false): number {
  const round = eitherWay ? Math.PI : 2 * Math.PI;
  const d = (((b - a) % round) + round) % round;
  return d > round / 2 ? d - round : d;
}

/** The direction of travel at a segment's start (0) or end (1). */
function headingOf(slot: Slot, x: Float64Array, end: 0 | 1): number {
  const { from, to, more, kind, half } = slot;
  const between = (i: number, j: number) => Math.atan2((x[j + 1] as number) - (x[i + 1] as number), (x[j] as number) - (x[i] as number));
  if (kind === 'cubic') return end === 0 ? between(from, more) : between(more + 2, to);
  const chord = between(from, to);
  if (kind !== 'arc') return chord;
  const sweep = 4 * Math.atan((x[more] as number) / half);
  return chord + (end === 0 ? -sweep / 2 : sweep / 2);
}

const lengthOf = ({ from, to }: Slot, x: Float64Array): number =>
  norm((x[to] as number) - (x[from] as number), (x[to + 1] as number) - (x[from + 1] as number));

function offLineOf(line: Slot, x: Float64Array, point: number): number {
  const [px, py] = [x[line.from] as number, x[line.from + 1] as number];
  const [dx, dy] = [(x[line.to] as number) - px, (x[line.to + 1] as number) - py];
  return (dx * ((x[point + 1] as number) - py) - dy * ((x[point] as number) - px)) / norm(dx, dy);
}

/** The circle of an arc from its ends and its rise: with b = tan(sweep / 4), the centre lies (1 - b b) / 2b half chords aside. */
function circleOf({ from, to, more, half }: Slot, x: Float64Array): { centre: Point; radius: number } {
  const [ax, ay, bx, by] = [x[from], x[from + 1], x[to], x[to + 1]] as [number, number, number, number];
  const b = (x[more] as number) / half;
  const aside = (1 - b * b) / (4 * b);
  const chord = norm(bx - ax, by - ay);
  return {
    centre: { x: (ax + bx) / 2 - aside * (by - ay), y: (ay + by) / 2 + aside * (bx - ax) },
    radius: (chord * (1 + b * b)) / (4 * Math.abs(b)),
  };
}
