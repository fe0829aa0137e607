/**
 * In: pieces and limits. Out: all that would spoil the cut. What was found of a piece, or of two that lie near each other,
 * is kept by their identity, so that after an edit only what it touches is looked at anew.
 */

import { pathsOf } from '../job/piece-paths.ts';
import type { Piece } from '../job/schema.ts';
import { nearestOnPath, type Path, type Point, pathArea, pathBox, reversedPath } from '../plane/index.ts';
import { boxIndex } from '../shape/index.ts';
import { mutualCrossingFaults, selfCrossingFaults } from './crossing.ts';
import { mutualDoubledFaults, selfDoubledFaults } from './doubled.ts';
import { endFaults, nearMisses } from './ends.ts';
import type { Fault, ProofLimits } from './fault.ts';
import { narrowFaults, tooNearFaults } from './narrow-faults.ts';
import { nestingFaults } from './nesting.ts';
import { needlessPointFaults, sliverFaults, stubFaults } from './slivers.ts';
import { toolCornerFaults } from './tool-corners.ts';

interface Kept<K extends object> {
  of(key: K, make: () => Fault[]): Fault[];
}

function keptBy<K extends object>(): Kept<K> {
  const known = new WeakMap<K, Fault[]>();
  return {
    of(key, make) {
      let found = known.get(key);
      if (!found) {
        found = make();
        known.set(key, found);
      }
      return found;
    },
  };
}

/** One who proves the same job again and again and remembers what has not changed. */
export class Prover {
  private limits = '';
  private own = keptBy<Piece>();
  private pairs = new WeakMap<Piece, Kept<Piece>>();
  private readonly turned = new WeakMap<Piece, Piece>();

  /** All faults, those of a piece together; yields the share done. */
  *prove(pieces: readonly Piece[], limits: ProofLimits): Generator<number, Fault[]> {
    const key = `${limits.kerfMm} ${limits.thinnestMm} ${limits.clearanceMm}`;
    if (key !== this.limits) {
      this.limits = key;
      this.own = keptBy();
      this.pairs = new WeakMap();
    }
    const made = pieces.filter((p) => p.purpose !== 'guide').map((p) => this.orderly(p));
    const found: Fault[] = [];
    for (const [k, piece] of made.entries()) {
      found.push(...this.own.of(piece, () => ownFaults(piece, limits)));
      if (k % 20 === 0) yield (0.5 * k) / made.length;
    }
    const boxes = made.map((p) => pathBox(p.outer));
    const index = boxIndex(boxes, Math.max(limits.kerfMm, limits.clearanceMm) + 0.05);
    for (const [k, piece] of made.entries()) {
      const { minX, minY, maxX, maxY } = boxes[k] as (typeof boxes)[0];
      for (const l of index?.search(minX, minY, maxX, maxY) ?? []) {
        if (l <= k) continue;
        const other = made[l] as Piece;
        let kept = this.pairs.get(piece);
        if (!kept) {
          kept = keptBy<Piece>();
          this.pairs.set(piece, kept);
        }
        found.push(...kept.of(other, () => pairFaults(piece, other, limits)));
      }
      if (k % 20 === 0) yield 0.5 + (0.5 * k) / made.length;
    }
    for (const piece of made) found.push(...endFaults(piece, (at) => endsOn(made, piece, at)));
    found.push(...nearMisses(made));
    return found;
  }

  /** Outer outlines counter-clockwise, holes clockwise, whatever they were drawn as; the same piece gives the same. */
  private orderly(piece: Piece): Piece {
    let turned = this.turned.get(piece);
    if (!turned) {
      const way = (path: Path, left: boolean): Path => (path.closed && pathArea(path) > 0 !== left ? reversedPath(path) : path);
      const outer = way(piece.outer, true);
      const holes = piece.holes.map((hole) => way(hole, false));
      turned = outer === piece.outer && holes.every((h, k) => h === piece.holes[k]) ? piece : { ...piece, outer, holes };
      this.turned.set(piece, turned);
    }
    return turned;
  }
}

/** All at once. */
export function faultsOf(pieces: readonly Piece[], limits: ProofLimits): Fault[] {
  const steps = new Prover().prove(pieces, limits);
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

/** Whether a place lies on the outline of another piece that is cut. */
function endsOn(pieces: readonly Piece[], own: Piece, at: Point): boolean {
  return pieces.some((p) => {
    if (p === own || p.purpose !== own.purpose) return false;
    const { minX, minY, maxX, maxY } = pathBox(p.outer);
    if (at.x < minX - touchMm || at.x > maxX + touchMm || at.y < minY - touchMm || at.y > maxY + touchMm) return false;
    return pathsOf(p).some((path) => nearestOnPath(path, at).distance <= touchMm);
  });
}

/** An end this near to an outline lies on it, mm. */
const touchMm = 0.03;

function ownFaults(piece: Piece, limits: ProofLimits): Fault[] {
  const crossing = selfCrossingFaults(piece);
  const slivers = sliverFaults(piece, limits);
  const stubs = stubFaults(piece);
  // Where an outline crosses itself, or is nothing but a sliver, what follows from that is not told again.
  const isSpoilt = crossing.length > 0 || slivers.some((s) => s.pieceIds[0] === piece.id && s.places[0] === piece.outer.start);
  return [
    ...crossing,
    ...(stubs.length > 0 ? [] : selfDoubledFaults(piece)),
    ...slivers,
    ...stubs,
    ...needlessPointFaults(piece),
    ...(isSpoilt ? [] : narrowFaults(piece, limits)),
    ...(isSpoilt ? [] : toolCornerFaults(piece, limits)),
  ];
}

function pairFaults(a: Piece, b: Piece, limits: ProofLimits): Fault[] {
  const crossing = mutualCrossingFaults(a, b);
  const doubled = mutualDoubledFaults(a, b);
  if (crossing.length > 0 || doubled.length > 0) return [...crossing, ...doubled];
  const [larger, smaller] = a.outer.closed && b.outer.closed && Math.abs(pathArea(a.outer)) < Math.abs(pathArea(b.outer)) ? [b, a] : [a, b];
  return [...nestingFaults(larger, smaller), ...tooNearFaults(a, b, limits)];
}
