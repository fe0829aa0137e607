/**
 * In: outlines as they should be, and as a file has them. Out: the largest distance between them, looked at from both sides.
 */
import { boxAroundBoxes } from '../plane/box.ts';
import { type Path, pathBox, stepsOf } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { chordPoints, nearestOnSegment, pointOn, segmentBox } from '../plane/segment.ts';
import { boxIndex } from '../shape/index.ts';

export interface Deviation {
  readonly largestMm: number;
  readonly at: Point | null;
  /** Of what was found. */
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Chords between the places that are looked at leave the outline by at most this, mm. */
const sampleMm = 0.02;

export function deviationOf(wanted: readonly Path[], found: readonly Path[]): Deviation {
  const [out, back] = [farthest(wanted, found), farthest(found, wanted)];
  const worst = out.mm >= back.mm ? out : back;
  const box = boxAroundBoxes(found.map(pathBox));
  return {
    largestMm: worst.mm,
    at: worst.at,
    widthMm: box ? box.maxX - box.minX : 0,
    heightMm: box ? box.maxY - box.minY : 0,
  };
}

/** How far from the second outlines the first come at most; infinitely where there are none. */
export function farthest(from: readonly Path[], to: readonly Path[]): { mm: number; at: Point | null } {
  if (from.length === 0) return { mm: 0, at: null };
  const steps = to.flatMap(stepsOf);
  const index = boxIndex(steps.map((s) => segmentBox(s.from, s.segment)), 0); // biome-ignore format: one line
  if (!index) return { mm: Infinity, at: from[0]?.start ?? null };
  let worst: { mm: number; at: Point | null } = { mm: 0, at: null };
  const look = (p: Point): void => {
    let best = Infinity;
    for (let reach = 0.02; best > reach; reach *= 8) {
      for (const k of index.search(p.x - reach, p.y - reach, p.x + reach, p.y + reach)) {
        const { from: a, segment } = steps[k] as (typeof steps)[0];
        best = Math.min(best, nearestOnSegment(a, segment, p).distance);
      }
      if (reach > 1e6) break;
    }
    if (best > worst.mm) worst = { mm: best, at: p };
  };
  for (const path of from) {
    look(path.start);
    for (const { from: a, segment } of stepsOf(path)) {
      if (segment.kind === 'line') look(pointOn(a, segment, 0.5));
      for (const p of chordPoints(a, segment, sampleMm)) look(p);
      if (segment.kind !== 'line') for (const t of [0.13, 0.37, 0.5, 0.81]) look(pointOn(a, segment, t));
    }
  }
  return worst;
}
