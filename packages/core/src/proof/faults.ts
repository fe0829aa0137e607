/**
 * In: pieces and limits. Out: all that would spoil the cut. What was found of a piece, or of two that lie near each other,
 * is kept by their identity, so that after an edit only what it touches is looked at anew.
 */

import { makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { type Path, pathArea, pathBox, reversedPath } from '../plane/index.ts';
import { boxIndex } from '../shape/index.ts';
import { checks } from './checks.ts';
import type { Check, Fault, ProofLimits } from './fault.ts';

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
    const made = pieces.filter((p) => makeOf(p) !== 'nothing').map((p) => this.orderly(p));
    const found: Fault[] = [];
    for (const [k, piece] of made.entries()) {
      found.push(...this.own.of(piece, () => inTurn((check, before) => check.own?.(piece, limits, before))));
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
    for (const check of checks as readonly Check[]) found.push(...(check.all?.(made) ?? []));
    return found;
  }

  /** Outer outlines counter-clockwise, holes clockwise, whatever they were drawn as; the same piece gives the same. */
  private orderly(piece: Piece): Piece {
    let turned = this.turned.get(piece);
    if (!turned) {
      const oriented = (path: Path, left: boolean): Path => (path.closed && pathArea(path) > 0 !== left ? reversedPath(path) : path);
      const outer = oriented(piece.outer, true);
      const holes = piece.holes.map((hole) => oriented(hole, false));
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

/** What the checks find one after another, each told what those before it found. */
function inTurn(look: (check: Check, before: readonly Fault[]) => Fault[] | undefined): Fault[] {
  const found: Fault[] = [];
  for (const check of checks) found.push(...(look(check, found) ?? []));
  return found;
}

function pairFaults(a: Piece, b: Piece, limits: ProofLimits): Fault[] {
  const [larger, smaller] = a.outer.closed && b.outer.closed && Math.abs(pathArea(a.outer)) < Math.abs(pathArea(b.outer)) ? [b, a] : [a, b];
  return inTurn((check, before) => check.pair?.(larger, smaller, limits, before));
}
