/**
 * In: outlines as they should be, and as a file has them. Out: the largest distance between them, looked at from both sides.
 */
import { boxAroundBoxes } from '../plane/box.ts';
import { type Path, pathBox, stepsOf } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { chordPoints, pointOn } from '../plane/segment.ts';
import { distanceTo } from '../shape/index.ts';

export interface FileDeviation {
  readonly largestMm: number;
  readonly at: Point | null;
  /** Of what was found. */
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Chords between the places that are looked at leave the outline by at most this, mm. */
const sampleMm = 0.02;

export function fileDeviation(wanted: readonly Path[], found: readonly Path[]): FileDeviation {
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

/** Places along outlines, close enough together that nothing between them is missed. */
export function* placesAlong(paths: readonly Path[]): Generator<Point> {
  for (const path of paths) {
    yield path.start;
    for (const { from: a, segment } of stepsOf(path)) {
      for (const t of segment.kind === 'line' ? [0.5] : [0.13, 0.37, 0.5, 0.81]) yield pointOn(a, segment, t);
      yield* chordPoints(a, segment, sampleMm);
    }
  }
}

/** How far from the second outlines the first come at most; infinitely where there are none. */
export function farthest(from: readonly Path[], to: readonly Path[]): { mm: number; at: Point | null } {
  const off = distanceTo(to);
  let worst: { mm: number; at: Point | null } = { mm: 0, at: null };
  for (const p of placesAlong(from)) {
    const mm = off(p);
    if (mm > worst.mm) worst = { mm, at: p };
  }
  return worst;
}
