/**
 * In: the closed outlines round an area. Out: its medial axis: the places that are as far from two places of the border, with that
 * distance; from edge to edge, within a tolerance.
 * Rests on: Blum 1967, "A transformation for extracting new descriptors of shape"; the ball that shrinks until it is empty, Ma, Bae &
 * Choi 2012, "3D medial axis point approximation using nearest neighbors and the normal field", here against the segments
 * themselves: each place touches its own segment exactly and has another at the same distance within a millionth of a millimetre.
 * Going round the border its place on the axis moves without a jump; each branch is met from both of its sides and kept from one.
 */
import type Flatbush from 'flatbush';
import { boxAroundBoxes, heightOf, widthOf } from '../plane/box.ts';
import { type CachedSegment, cachedSegments } from '../plane/cached-segment.ts';
import type { Path } from '../plane/path.ts';
import { cross, distance, dot, type Point, turnBetween } from '../plane/point.ts';
import { derivativeOn, directionOn, nearestOnSegment, pointOn } from '../plane/segment.ts';
import { boxIndex } from './box-index.ts';
import { nested } from './combine.ts';
import { type Chords, chordsAlong, NearestOnCurve } from './curve-chords.ts';

/** A place on the axis, and how far the border is, mm. */
export interface AxisPlace extends Point {
  readonly clearanceMm: number;
}

/** A run of places on the axis between two of its ends, forks, or changes of what lies beside it. */
export interface AxisBranch {
  readonly places: readonly AxisPlace[];
}

export interface AxisSettings {
  /** How far chords may leave the axis, in place and in clearance, mm. */
  readonly toleranceMm: number;
  /** Spurs that reach into corners which a disc would miss by less than this are left out, mm. */
  readonly spurMm: number;
}

export const plainAxis: AxisSettings = { toleranceMm: 0.001, spurMm: 0.002 };

/** A place of the border: on a segment, or about a corner that points into the area. */
interface Foot {
  readonly at: Point;
  /** Into the area, length 1. */
  readonly normal: Point;
  /** Bent into the area, its radius there; else infinite, mm. */
  readonly bendMm: number;
}

/** A stretch of the border: a segment, or the fan of normals about a corner that points in; `u` from 0 to 1. */
interface Stretch {
  readonly id: number;
  readonly foot: (u: number) => Foot;
  /** How many parts it is looked at in, at least. */
  readonly parts: number;
}

/** A ball that touches a place of the border, what it was made smaller by, and where that touches. */
interface Ball {
  readonly radius: number;
  readonly stretch: number;
  readonly touch: Point;
}

interface Sample extends AxisPlace {
  readonly u: number;
  readonly foot: Foot;
  /** The stretch that holds the ball on its other side, and where it touches; its own number where the border's bend does. */
  readonly other: number;
  readonly touch: Point;
}

/**
 * The branches of an area's medial axis.
 * @param paths closed; outer ones and holes in any direction
 * @returns branches in no order; those that meet share their ends within `toleranceMm`
 */
export function* medialAxis(paths: readonly Path[], settings: AxisSettings = plainAxis): Generator<number, AxisBranch[]> {
  // The area lies on the left of every border.
  const axis = new Axis(
    nested(paths).flatMap(({ outer, holes }) => [outer, ...holes]),
    settings,
  );
  const branches: AxisBranch[] = [];
  for (const [k, stretch] of axis.stretches.entries()) {
    branches.push(...axis.branchesBeside(stretch));
    if (k % 50 === 49) yield k / axis.stretches.length;
  }
  return branches;
}

/** Joints that turn less are smooth, radians. */
const smoothTurn = 1e-6;
/** How exactly a ball is empty, mm. */
const emptyMm = 1e-7;
const mostHalvings = 24;
/** What faces a stretch is looked for at least so finely, of the whole. */
const coarsestParts = 100;

class Axis {
  readonly stretches: Stretch[] = [];
  private readonly steps: CachedSegment[] = [];
  /** Of each step the number of its stretch; of its start's corner, if that points in, the fan's, else -1. */
  private readonly stretchOf: number[] = [];
  private readonly fanAt: number[] = [];
  /** Of each step the one that follows it round its border. */
  private readonly nextOf: number[] = [];
  private readonly index: Flatbush | null;
  /** Of each step that is bent its chords. */
  private readonly curves: (Chords | null)[];
  private readonly near = new NearestOnCurve();
  private readonly span: number;
  private lastMm: number;

  constructor(
    borders: readonly Path[],
    private readonly settings: AxisSettings,
  ) {
    const all = borders.map((border) => cachedSegments(border).filter(({ length }) => length > 1e-9));
    const boxes = boxAroundBoxes(all.flat().map(({ box }) => box));
    this.span = boxes ? Math.hypot(widthOf(boxes), heightOf(boxes)) : 1;
    for (const steps of all) {
      const first = this.steps.length;
      steps.forEach((step, k) => {
        this.nextOf.push(first + ((k + 1) % steps.length));
        const before = steps[(k - 1 + steps.length) % steps.length] as CachedSegment;
        const turn = turnBetween(before.endTangent, step.startTangent);
        this.fanAt.push(turn < -smoothTurn ? this.addFan(step.from, before.endTangent, turn) : -1);
        this.stretchOf.push(this.addSegment(step));
        this.steps.push(step);
      });
    }
    this.index = boxIndex(this.steps.map(({ box }) => box));
    this.curves = this.steps.map(({ from, segment }) => (segment.kind === 'line' ? null : chordsAlong(from, segment)));
    this.lastMm = this.span / 16;
  }

  private addSegment({ from, segment, length }: CachedSegment): number {
    const id = this.stretches.length;
    const foot = (u: number): Foot => {
      const d = directionOn(from, segment, u);
      return { at: pointOn(from, segment, u), normal: { x: -d.y, y: d.x }, bendMm: bendOn(from, segment, u) };
    };
    const parts = Math.ceil(length / (this.span / coarsestParts));
    this.stretches.push({ id, foot, parts: Math.max(segment.kind === 'line' ? 4 : 8, parts) });
    return id;
  }

  private addFan(at: Point, into: Point, turn: number): number {
    const id = this.stretches.length;
    const start = Math.atan2(into.x, -into.y);
    const foot = (u: number): Foot => {
      const angle = start + turn * u;
      return { at, normal: { x: Math.cos(angle), y: Math.sin(angle) }, bendMm: Infinity };
    };
    this.stretches.push({ id, foot, parts: 4 });
    return id;
  }

  /** Of the axis along a stretch the branches that are its own: those that it meets with a stretch of a higher number. */
  branchesBeside(stretch: Stretch): AxisBranch[] {
    const samples: Sample[] = [this.sampleAt(stretch, 0)];
    for (let k = 0; k < stretch.parts; k++) this.refine(stretch, samples, this.sampleAt(stretch, (k + 1) / stretch.parts), mostHalvings);
    const branches: AxisBranch[] = [];
    let run: Sample[] = [];
    const close = (): void => {
      if (run.length > 1 && run.some((s) => distance(s, run[0] as Sample) > 1e-9))
        branches.push({ places: straightened(run, this.settings.toleranceMm) });
      run = [];
    };
    for (let k = 1; k < samples.length; k++) {
      const [a, b] = [samples[k - 1] as Sample, samples[k] as Sample];
      // Between two that have the same other side it is theirs; a step over a fork belongs to neither.
      if (this.isOwn(stretch.id, a, b)) {
        if (run.length === 0) run.push(a);
        run.push(b);
      } else close();
    }
    close();
    return branches;
  }

  private isOwn(id: number, a: Sample, b: Sample): boolean {
    const other = a.other === b.other ? a.other : distance(a, b) <= this.settings.toleranceMm ? Math.max(a.other, b.other) : -1;
    if (other < id) return false;
    // Bent about itself it is met twice along the same stretch: kept on the way in, where the touching place lies ahead.
    if (other === id && !isAhead(a) && !isAhead(b)) return false;
    return !this.isSpur(a) || !this.isSpur(b);
  }

  /** Whether a disc rolled along the border misses so little here that the branch is not worth its way. */
  private isSpur({ foot, touch, clearanceMm, x, y }: Sample): boolean {
    if (clearanceMm === 0) return true;
    const [p, q] = [
      { x: (foot.at.x - x) / clearanceMm, y: (foot.at.y - y) / clearanceMm },
      { x: (touch.x - x) / clearanceMm, y: (touch.y - y) / clearanceMm },
    ];
    const half = Math.abs(turnBetween(p, q)) / 2;
    // Sharp corners are followed to their very end.
    if (half > 0.25) return false;
    return clearanceMm * (1 / Math.cos(half) - 1) < this.settings.spurMm;
  }

  /** Adds samples up to one, halving until the chords between them are straight. */
  private refine(stretch: Stretch, samples: Sample[], end: Sample, halvings: number): void {
    const start = samples.at(-1) as Sample;
    const middle = halvings > 0 ? this.sampleAt(stretch, (start.u + end.u) / 2) : null;
    if (!middle || this.isStraight(start, middle, end)) {
      samples.push(end);
      return;
    }
    this.refine(stretch, samples, middle, halvings - 1);
    this.refine(stretch, samples, end, halvings - 1);
  }

  private isStraight(a: Sample, m: Sample, b: Sample): boolean {
    const tolerance = this.settings.toleranceMm;
    if (a.other !== m.other || m.other !== b.other)
      return distance(a, b) <= tolerance && Math.abs(a.clearanceMm - b.clearanceMm) <= tolerance;
    return offChord(a, m, b) <= tolerance / 2;
  }

  /** The largest empty ball that touches the border at a place. */
  private sampleAt({ id, foot: footAt }: Stretch, u: number): Sample {
    const foot = footAt(u);
    const { at, normal, bendMm } = foot;
    const widest = Math.min(bendMm, this.span);
    let ball: Ball = { radius: Math.min(widest, this.lastMm * 1.3), stretch: id, touch: at };
    for (let round = 0; round < 80; round++) {
      const shrunk = this.shrunk(at, normal, ball, id);
      if (shrunk) ball = shrunk;
      // Empty: it is the largest, unless it began too small.
      else if (ball.touch !== at || ball.radius >= widest) break;
      else ball = { ...ball, radius: Math.min(widest, 1.6 * ball.radius) };
      if (ball.radius <= emptyMm) {
        ball = { ...ball, radius: 0 };
        break;
      }
    }
    const { radius, stretch, touch } = ball;
    this.lastMm = Math.max(radius, this.span / 1e4);
    return { x: at.x + normal.x * radius, y: at.y + normal.y * radius, clearanceMm: radius, u, foot, other: stretch, touch };
  }

  /** A ball made smaller by all that it is found to hold, each as soon as it is found; null where it is empty. */
  private shrunk(at: Point, normal: Point, ball: Ball, own: number): Ball | null {
    const { near } = this;
    let { radius } = ball;
    let [cx, cy] = [at.x + normal.x * radius, at.y + normal.y * radius];
    let [held, heldT, touch] = [-1, 0, ball.touch];
    this.index?.search(cx - radius, cy - radius, cx + radius, cy + radius, (k) => {
      const { from, segment, box } = this.steps[k] as CachedSegment;
      const limit = radius - emptyMm;
      const [dx, dy] = [Math.max(box.minX - cx, 0, cx - box.maxX), Math.max(box.minY - cy, 0, cy - box.maxY)];
      if (limit <= 0 || dx * dx + dy * dy >= limit * limit) return false;
      const { x: toX, y: toY } = segment.to;
      let [t, px, py] = [0, 0, 0];
      if (segment.kind === 'line') {
        const [ex, ey] = [toX - from.x, toY - from.y];
        t = Math.min(1, Math.max(0, ((cx - from.x) * ex + (cy - from.y) * ey) / (ex * ex + ey * ey)));
        [px, py] = [from.x + t * ex, from.y + t * ey];
      } else {
        // Chords first: only a curve that comes near enough is looked at itself.
        const curve = this.curves[k] as Chords;
        if (near.toChords(curve, cx, cy) - curve.bowMm >= limit) return false;
        if (segment.kind === 'cubic') {
          near.onCubic(from, segment, curve, cx, cy);
          [t, px, py] = [near.t, near.x, near.y];
        } else {
          const place = nearestOnSegment(from, segment, { x: cx, y: cy });
          [t, px, py] = [place.t, place.point.x, place.point.y];
        }
      }
      if ((px - cx) ** 2 + (py - cy) ** 2 >= limit * limit) return false;
      const [vx, vy] = [px - at.x, py - at.y];
      const height = vx * normal.x + vy * normal.y;
      const square = vx * vx + vy * vy;
      // Nearer than this it is the place itself, or what begins there.
      if (square < 1e-14 || height <= 0) return false;
      const made = square / (2 * height);
      if (made >= radius - emptyMm / 4) return false;
      radius = made;
      [cx, cy] = [at.x + normal.x * radius, at.y + normal.y * radius];
      [held, heldT, touch] = [k, t, { x: px, y: py }];
      return false;
    });
    return held < 0 ? null : { radius, stretch: this.stretchAt(held, heldT, own), touch };
  }

  /** The stretch of a place on a step: at a corner that points in, its fan. */
  private stretchAt(k: number, t: number, own: number): number {
    const edge = 1e-9;
    if (t < edge && (this.fanAt[k] as number) >= 0) return this.fanAt[k] as number;
    const fan = t > 1 - edge ? (this.fanAt[this.nextOf[k] as number] as number) : -1;
    if (fan >= 0 && fan !== own) return fan;
    return this.stretchOf[k] as number;
  }
}

/** Places without those that lie on the way between their neighbours, in clearance, too. */
function straightened(run: readonly Sample[], toleranceMm: number): AxisPlace[] {
  const kept: AxisPlace[] = [];
  let from = 0;
  const put = ({ x, y, clearanceMm }: Sample): void => void kept.push({ x, y, clearanceMm });
  put(run[0] as Sample);
  for (let k = 1; k < run.length; k++) {
    const next = run[k + 1];
    const isOn = next && run.slice(from + 1, k + 1).every((m) => offChord(run[from] as Sample, m, next) <= toleranceMm / 4);
    if (isOn && k - from < 200) continue;
    put(run[k] as Sample);
    from = k;
  }
  return kept;
}

/** How far a place lies off a chord, or its clearance off what the chord gives there, mm. */
function offChord(a: AxisPlace, m: AxisPlace, b: AxisPlace): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const square = dx * dx + dy * dy;
  const t = square > 0 ? Math.min(1, Math.max(0, ((m.x - a.x) * dx + (m.y - a.y) * dy) / square)) : 0;
  const away = Math.hypot(m.x - a.x - t * dx, m.y - a.y - t * dy);
  return Math.max(away, Math.abs(m.clearanceMm - a.clearanceMm - t * (b.clearanceMm - a.clearanceMm)));
}

const isAhead = ({ foot, touch }: Sample): boolean =>
  dot({ x: touch.x - foot.at.x, y: touch.y - foot.at.y }, { x: foot.normal.y, y: -foot.normal.x }) > -1e-12;

/** The radius of a border's bend where it is bent into the area on its left, mm. */
function bendOn(from: Point, segment: CachedSegment['segment'], u: number): number {
  if (segment.kind === 'line') return Infinity;
  const h = 1e-5;
  const [a, b] = [Math.max(0, u - h), Math.min(1, u + h)];
  const [d, e] = [directionOn(from, segment, a), directionOn(from, segment, b)];
  const speed = Math.hypot(derivativeOn(from, segment, u).x, derivativeOn(from, segment, u).y);
  const turn = cross(d, e);
  return turn > 1e-12 ? (speed * (b - a)) / turn : Infinity;
}
