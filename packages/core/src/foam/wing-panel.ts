/**
 * In: a wing panel: the sections at its root and its tip, how large they are and how they lie to one another, what is left off for sheeting and
 * edges, and slots for spars. Out: the core's two faces, each once round in runs that answer to one another.
 * x runs aft from the root's leading edge, y up. The wire goes round counter-clockwise from the trailing edge, so the core lies to its left.
 */
import { SaidError, say } from '../messages/index.ts';
import {
  about,
  apply,
  chain,
  distance,
  endOf,
  largestPath,
  type Path,
  type Point,
  pathArea,
  pathBox,
  polygonOf,
  reversedPath,
  type Segment,
  shift,
  stretch,
  subtract,
  transformedPath,
  turn,
  turnBetween,
} from '../plane/index.ts';
import { offsetClosed } from '../shape/index.ts';
import type { Airfoil } from './airfoil.ts';

export interface SparSlot {
  /** Its middle, as a share of the chord. */
  readonly at: number;
  readonly side: 'upper' | 'lower';
  readonly widthMm: number;
  readonly depthMm: number;
}

export interface WingPanel {
  readonly root: Airfoil;
  readonly tip: Airfoil;
  readonly rootChordMm: number;
  readonly tipChordMm: number;
  /** From face to face. */
  readonly spanMm: number;
  /** How far the tip's leading edge lies aft of the root's, and above it. */
  readonly sweepMm: number;
  readonly riseMm: number;
  /** How far the tip is turned nose down, degrees, about a quarter of its chord. */
  readonly washout: number;
  /** Sheeting that is glued on all round, and what is glued on at the edges. */
  readonly skinMm: number;
  readonly leadingMm: number;
  readonly trailingMm: number;
  readonly spars: readonly SparSlot[];
}

/** A run of a face between features, as places close enough together to be the curve. */
export interface FaceRun {
  readonly kind: 'upper' | 'lower' | 'edge' | 'slot';
  readonly points: readonly Point[];
}

export interface CoreFace {
  readonly runs: readonly FaceRun[];
  /** The section without allowances, closed, mm. */
  readonly section: Path;
}

export class CoreError extends SaidError {
  readonly code = 'no-core';
}

/** Chords leave a section by at most this, mm. */
const chordMm = 0.0005;

/** The core as it is to come out. */
export const coreOf = ({ runs }: CoreFace): Point[] => runs.flatMap(({ points }) => points.slice(1));

/** @throws CoreError where there is no core left, or no place for a spar */
export function coreFaces(panel: WingPanel): { root: CoreFace; tip: CoreFace } {
  if (!(panel.spanMm > 0)) throw new CoreError(say.foam.facesTooClose());
  const { tipChordMm, sweepMm, riseMm, washout } = panel;
  const lies = chain(shift(sweepMm, riseMm), about({ x: tipChordMm / 4, y: 0 }, turn((-washout * Math.PI) / 180)));
  const root = faceOf(panel.root, panel.rootChordMm, panel, 'root');
  const tip = faceOf(panel.tip, tipChordMm, panel, 'tip');
  return {
    root,
    tip: {
      runs: tip.runs.map(({ kind, points }) => ({ kind, points: points.map((p) => apply(lies, p)) })),
      section: transformedPath(tip.section, lies),
    },
  };
}

/** Once round from the trailing edge over the upper side. */
function sectionOf({ upper, lower }: Airfoil, lengthMm: number): Path {
  const [over, under] = [reversedPath(upper), lower].map((path) => transformedPath(path, stretch(lengthMm))) as [Path, Path];
  const isBlunt = distance(endOf(under), over.start) > 1e-9;
  const close: Segment[] = isBlunt ? [{ kind: 'line', to: over.start }] : [];
  return { start: over.start, segments: [...over.segments, ...under.segments, ...close], closed: true };
}

type Face = 'root' | 'tip';

function faceOf(airfoil: Airfoil, lengthMm: number, { skinMm, leadingMm, trailingMm, spars }: WingPanel, face: Face): CoreFace {
  const section = sectionOf(airfoil, lengthMm);
  const inner = skinMm > 0 ? offsetClosed(section, skinMm) : [section];
  const body = largestPath(inner);
  if (!body || pathArea(body) <= 0) throw new CoreError(say.foam.skinTooThick(face, { mm: skinMm }));
  const round = new Round(polygonOf(body, chordMm));
  // Where the sheeting leaves nothing up to an edge the core ends before it.
  const { minX, maxX } = pathBox(body);
  const front = leadingMm > Math.max(0, minX) ? round.cutAt(leadingMm) : round.nose();
  const back = trailingMm > 0 && lengthMm - trailingMm < maxX ? round.cutAt(lengthMm - trailingMm) : round.trailing(lengthMm);
  if (!front || !back || front.top.x >= back.top.x) throw new CoreError(say.foam.nothingLeft(face));
  const [upper, lower] = [round.from(back.top, front.top), round.from(front.foot, back.foot)];
  const sides = (['upper', 'lower'] as const).map((side) => {
    const [own, other] = side === 'upper' ? [upper, lower] : [lower, upper];
    return withSlots(own, other, side, spars.filter((spar) => spar.side === side), lengthMm, face); // biome-ignore format: one line
  }) as [FaceRun[], FaceRun[]];
  const edge = (a: Point, b: Point): FaceRun => ({ kind: 'edge', points: [a, b] });
  return { runs: [...sides[0], edge(front.top, front.foot), ...sides[1], edge(back.foot, back.top)], section };
}

/** Where a section is cut, or ends: the place on its upper side and that on its lower one. */
interface Ends {
  readonly top: Point;
  readonly foot: Point;
}

/** A corner turns by more than this, radians; the trailing edge lies in the last part of the chord. */
const corner = 0.6;
const trailingShare = 0.8;

/** Places nearer than this are one: where a section has been made thinner its nose may end in a stub, mm. */
const nearestMm = 0.004;

/** A turn inwards sharper than this, radians, within so little is no shape of a section, mm. */
const dent = 0.03;
const dentMm = 0.2;

function withoutDents(polygon: readonly Point[]): Point[] {
  const n = polygon.length;
  const kept = polygon.filter((p, k) => {
    const [before, after] = [polygon[(k + n - 1) % n] as Point, polygon[(k + 1) % n] as Point];
    return distance(before, after) > dentMm || turnBetween(subtract(p, before), subtract(after, p)) > -dent;
  });
  return kept.length < n ? withoutDents(kept) : kept;
}

/** A polygon that is walked counter-clockwise; places on it become its own. */
class Round {
  private points: Point[];

  constructor(polygon: readonly Point[]) {
    this.points = withoutDents(polygon.filter((p, k) => k === 0 || distance(p, polygon[k - 1] as Point) > nearestMm));
  }

  /** The foremost place. */
  nose(): Ends {
    const at = this.points.reduce((best, p) => (p.x < best.x ? p : best));
    return { top: at, foot: at };
  }

  /** The corners of the trailing edge: two where it is blunt. */
  trailing(lengthMm: number): Ends {
    const n = this.points.length;
    const corners = this.points.filter((p, k) => {
      const [before, after] = [this.points[(k + n - 1) % n] as Point, this.points[(k + 1) % n] as Point];
      return p.x > trailingShare * lengthMm && Math.abs(turnBetween(subtract(p, before), subtract(after, p))) > corner;
    });
    const hindmost = this.points.reduce((best, p) => (p.x > best.x ? p : best));
    const all = corners.length > 0 ? corners : [hindmost];
    return { top: all.reduce((best, p) => (p.y > best.y ? p : best)), foot: all.reduce((best, p) => (p.y < best.y ? p : best)) };
  }

  /** Cut at an upright line; null where it does not reach it. */
  cutAt(x: number): Ends | null {
    const n = this.points.length;
    const cut: Point[] = [];
    this.points = this.points.flatMap((p, k) => {
      const q = this.points[(k + 1) % n] as Point;
      if (p.x > x === q.x > x) return [p];
      const at = { x, y: p.y + ((x - p.x) / (q.x - p.x)) * (q.y - p.y) };
      cut.push(at);
      return [p, at];
    });
    const sorted = cut.sort((a, b) => b.y - a.y);
    const [top, foot] = [sorted[0], sorted.at(-1)];
    return top && foot && top !== foot ? { top, foot } : null;
  }

  /** The way from one place to another. */
  from(a: Point, b: Point): Point[] {
    const [i, j] = [this.points.indexOf(a), this.points.indexOf(b)];
    return i <= j ? this.points.slice(i, j + 1) : [...this.points.slice(i), ...this.points.slice(0, j + 1)];
  }
}

/** A side with notches for spars, in runs. */
function withSlots(
  own: readonly Point[],
  other: readonly Point[],
  side: 'upper' | 'lower',
  spars: readonly SparSlot[],
  lengthMm: number,
  face: Face,
): FaceRun[] {
  const runs: FaceRun[] = [];
  const ahead = (own.at(-1) as Point).x > (own[0] as Point).x ? 1 : -1;
  let rest = [...own];
  for (const { at, widthMm, depthMm } of [...spars].sort((a, b) => ahead * (a.at - b.at))) {
    const [near, far] = [at * lengthMm - (ahead * widthMm) / 2, at * lengthMm + (ahead * widthMm) / 2];
    const first = splitAtX(rest, near);
    const last = first && splitAtX(first.after, far);
    if (!first || !last) throw new CoreError(say.foam.sparOutside(face));
    const [a, b] = [first.at, last.at];
    const inward = side === 'upper' ? -1 : 1;
    const floor = inward < 0 ? Math.min(a.y, b.y) - depthMm : Math.max(a.y, b.y) + depthMm;
    for (const x of [near, far]) {
      const across = splitAtX(other, x);
      if (!across || inward * (across.at.y - floor) <= 0) throw new CoreError(say.foam.sparTooDeep(face));
    }
    const [p, q] = [{ x: a.x, y: floor }, { x: b.x, y: floor }]; // biome-ignore format: two corners
    runs.push({ kind: side, points: first.before }, ...[[a, p], [p, q], [q, b]].map((points) => ({ kind: 'slot' as const, points }))); // biome-ignore format: one line
    rest = last.after;
  }
  return [...runs, { kind: side, points: rest }];
}

/** A line in two at the first place where it comes to an x. */
function splitAtX(line: readonly Point[], x: number): { before: Point[]; at: Point; after: Point[] } | null {
  for (let k = 0; k + 1 < line.length; k++) {
    const [p, q] = [line[k] as Point, line[k + 1] as Point];
    if (p.x > x === q.x > x) continue;
    const at = { x, y: p.y + ((x - p.x) / (q.x - p.x)) * (q.y - p.y) };
    return { before: [...line.slice(0, k + 1), at], at, after: [at, ...line.slice(k + 1)] };
  }
  return null;
}
