/**
 * In: outlines on the sheet. Out: what they nearly are to one another: level, plumb, parallel, square, in line, alike in
 * length or radius, about one centre.
 * Rests on: clusters about the longest line or largest circle; two things count as nearly alike where making them so moves
 * no point by more than a given distance.
 */
import { circleOf } from '../plane/arc.ts';
import { type Path, stepsOf } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';

export const relationKinds = ['level', 'plumb', 'parallel', 'square', 'in-line', 'equal-length', 'equal-radius', 'concentric'] as const;
export type RelationKind = (typeof relationKinds)[number];

/** A segment of one of the outlines. */
export interface SegmentRef {
  readonly path: number;
  readonly segment: number;
}

export interface Relation {
  readonly kind: RelationKind;
  /** One segment for level and plumb, else the one that follows and the one that it follows. */
  readonly of: readonly SegmentRef[];
  /** Where it is told: the middle of the first segment, or a circle's centre. */
  readonly at: Point;
  /** How far it is from holding: what making it hold moves, in the outlines' unit. */
  readonly off: number;
}

interface SideLine {
  readonly ref: SegmentRef;
  readonly from: Point;
  readonly to: Point;
  readonly length: number;
  /** 0 to pi. */
  readonly angle: number;
}

interface Round {
  readonly ref: SegmentRef;
  readonly centre: Point;
  readonly radius: number;
  readonly middle: Point;
}

/** Steeper differences are drawn on purpose, however short the line, radians. */
const maxTurn = (1.5 * Math.PI) / 180;
/** Shorter lines, in distances that may be moved, say nothing of their direction. */
const minLength = 12;

/**
 * Looked for within half the tolerance, so that all of them together stay within the whole.
 * @param tolerance how far a point may be moved, in the outlines' unit
 */
export function relationsIn(paths: readonly Path[], tolerance: number): Relation[] {
  const reach = tolerance / 2;
  const lines = linesOf(paths)
    .filter(({ length }) => length >= minLength * reach)
    .sort((a, b) => b.length - a.length);
  return [...directions(lines, reach), ...inLine(lines, reach), ...equalLengths(lines, reach), ...roundRelations(roundsOf(paths), reach)];
}

function linesOf(paths: readonly Path[]): SideLine[] {
  return paths.flatMap((path, k) =>
    stepsOf(path).flatMap(({ from, segment }, n) => {
      if (segment.kind !== 'line') return [];
      const { to } = segment;
      const angle = Math.atan2(to.y - from.y, to.x - from.x);
      return [{ ref: { path: k, segment: n }, from, to, length: distance(from, to), angle: (angle + 2 * Math.PI) % Math.PI }];
    }),
  );
}

/** Arcs, neighbours on one circle as one. */
function roundsOf(paths: readonly Path[]): Round[] {
  return paths.flatMap((path, k) => {
    const found: Round[] = [];
    stepsOf(path).forEach(({ from, segment }, n) => {
      if (segment.kind !== 'arc') return;
      const { centre, radius } = circleOf(from, segment);
      const before = found.at(-1);
      if (before?.ref.segment === n - 1 && distance(before.centre, centre) < 1e-6 * radius) return;
      const angle = Math.atan2(from.y - centre.y, from.x - centre.x) + segment.sweep / 2;
      found.push({
        ref: { path: k, segment: n },
        centre,
        radius,
        middle: { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) },
      });
    });
    return found;
  });
}

const middle = ({ from, to }: SideLine): Point => ({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 });

/** The turn that brings one direction onto another, -pi/2 to pi/2. */
const turnBetween = (a: number, b: number): number => {
  const d = (((b - a) % Math.PI) + Math.PI) % Math.PI;
  return d > Math.PI / 2 ? d - Math.PI : d;
};

/** Whether turning a line by so much moves its ends by no more than `reach`. */
const isNearly = (turn: number, length: number, reach: number): boolean =>
  Math.abs(turn) < maxTurn && (Math.abs(turn) * length) / 2 <= reach;

function directions(lines: readonly SideLine[], reach: number): Relation[] {
  const found: Relation[] = [];
  const leaders: SideLine[] = [];
  for (const line of lines) {
    const straight = (kind: 'level' | 'plumb', turn: number): boolean => {
      if (!isNearly(turn, line.length, reach)) return false;
      found.push({ kind, of: [line.ref], at: middle(line), off: (Math.abs(turn) * line.length) / 2 });
      return true;
    };
    if (straight('level', turnBetween(line.angle, 0)) || straight('plumb', turnBetween(line.angle, Math.PI / 2))) continue;
    const related = leaders.some((leader) =>
      (['parallel', 'square'] as const).some((kind) => {
        const turn = turnBetween(line.angle, leader.angle + (kind === 'square' ? Math.PI / 2 : 0));
        if (!isNearly(turn, line.length, reach)) return false;
        found.push({ kind, of: [line.ref, leader.ref], at: middle(line), off: (Math.abs(turn) * line.length) / 2 });
        return true;
      }),
    );
    if (!related) leaders.push(line);
  }
  return found;
}

/** How far a point lies from the endless line through two others. */
function offLine(p: Point, { from, to, length }: SideLine): number {
  return Math.abs((to.x - from.x) * (p.y - from.y) - (to.y - from.y) * (p.x - from.x)) / length;
}

function inLine(lines: readonly SideLine[], reach: number): Relation[] {
  const leaders: SideLine[] = [];
  return lines.flatMap((line): Relation[] => {
    const leader = leaders.find((other) => {
      const touches = [other.from, other.to].some((p) => distance(p, line.from) < 1e-6 || distance(p, line.to) < 1e-6);
      return (
        !touches &&
        isNearly(turnBetween(line.angle, other.angle), line.length, reach) &&
        offLine(line.from, other) <= reach &&
        offLine(line.to, other) <= reach
      );
    });
    if (!leader) {
      leaders.push(line);
      return [];
    }
    return [
      {
        kind: 'in-line',
        of: [line.ref, leader.ref],
        at: middle(line),
        off: Math.max(offLine(line.from, leader), offLine(line.to, leader)),
      },
    ];
  });
}

function equalLengths(lines: readonly SideLine[], reach: number): Relation[] {
  const leaders: SideLine[] = [];
  return lines.flatMap((line): Relation[] => {
    const leader = leaders.find((other) => Math.abs(other.length - line.length) <= reach);
    if (!leader) {
      leaders.push(line);
      return [];
    }
    return [{ kind: 'equal-length', of: [line.ref, leader.ref], at: middle(line), off: Math.abs(leader.length - line.length) }];
  });
}

function roundRelations(rounds: readonly Round[], reach: number): Relation[] {
  const [sizes, centres]: [Round[], Round[]] = [[], []];
  return [...rounds]
    .sort((a, b) => b.radius - a.radius)
    .flatMap((round): Relation[] => {
      const found: Relation[] = [];
      const alike = sizes.find((other) => Math.abs(other.radius - round.radius) <= reach);
      if (alike)
        found.push({ kind: 'equal-radius', of: [round.ref, alike.ref], at: round.middle, off: Math.abs(alike.radius - round.radius) });
      else sizes.push(round);
      const around = centres.find((other) => distance(other.centre, round.centre) <= reach);
      if (around)
        found.push({ kind: 'concentric', of: [round.ref, around.ref], at: round.centre, off: distance(around.centre, round.centre) });
      else centres.push(round);
      return found;
    });
}
