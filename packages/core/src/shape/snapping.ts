/**
 * In: outlines on the sheet and a place near them. Out: what of theirs the place is meant to lie on: an end, a middle, a
 * centre, a crossing, the foot of a perpendicular, a touch, else the nearest place on a line.
 */
import type Flatbush from 'flatbush';
import { circleOf } from '../plane/arc.ts';
import { opsOf } from '../plane/curves.ts';
import { type Path, type Step, stepsOf } from '../plane/path.ts';
import { distance, dot, norm, type Point, subtract } from '../plane/point.ts';
import { nearestOnSegment, pointOn, segmentBox } from '../plane/segment.ts';
import { boxIndex } from './box-index.ts';
import { segmentCrossings } from './crossings.ts';

export type SnapWord = 'end' | 'middle' | 'centre' | 'crossing' | 'perpendicular' | 'tangent' | 'on line' | 'grid';

export interface SheetSnap {
  readonly at: Point;
  readonly word: SnapWord;
}

/** What counts first where several are within reach. */
const rank: Record<SnapWord, number> = { end: 0, crossing: 1, centre: 2, middle: 2, perpendicular: 3, tangent: 3, grid: 4, 'on line': 5 };

interface Indexed {
  readonly steps: readonly Step[];
  readonly index: Flatbush | null;
  readonly centres: readonly Point[];
}

const known = new WeakMap<readonly Path[], Indexed>();

function indexed(paths: readonly Path[]): Indexed {
  let kept = known.get(paths);
  if (!kept) {
    const steps = paths.flatMap(stepsOf);
    const centres = steps.flatMap(({ from, segment }) => opsOf(segment).centre?.(from, segment) ?? []);
    kept = { steps, index: boxIndex(steps.map(({ from, segment }) => segmentBox(from, segment))), centres };
    known.set(paths, kept);
  }
  return kept;
}

export interface SnapOptions {
  readonly reachMm: number;
  /** Where the line that is being drawn comes from: then feet of perpendiculars and touches are looked for, too. */
  readonly from?: Point | null;
  /** Step of the sheet's grid; null where that is not wanted. */
  readonly gridMm?: number | null;
}

/** The best snap within reach of a place; null where there is none. */
export function snapToOutlines(paths: readonly Path[], p: Point, { reachMm, from = null, gridMm = null }: SnapOptions): SheetSnap | null {
  const { steps, index, centres } = indexed(paths);
  const near = (index?.search(p.x - reachMm, p.y - reachMm, p.x + reachMm, p.y + reachMm) ?? []).map((k) => steps[k] as Step);
  const found: SheetSnap[] = [];
  const take = (at: Point, word: SnapWord): void => {
    if (distance(at, p) <= reachMm) found.push({ at, word });
  };
  for (const { from: start, segment } of near) {
    take(start, 'end');
    take(segment.to, 'end');
    take(pointOn(start, segment, 0.5), 'middle');
    take(nearestOnSegment(start, segment, p).point, 'on line');
  }
  // So many lines in one place say nothing any more.
  if (near.length <= 24) {
    near.forEach((a, k) => {
      for (const b of near.slice(k + 1)) for (const { at } of segmentCrossings(a, b)) take(at, 'crossing');
    });
  }
  if (from) for (const step of near) for (const snap of fromPlace(step, from)) take(snap.at, snap.word);
  for (const centre of centres) take(centre, 'centre');
  if (gridMm) take({ x: Math.round(p.x / gridMm) * gridMm, y: Math.round(p.y / gridMm) * gridMm }, 'grid');
  return found.sort((a, b) => rank[a.word] - rank[b.word] || distance(a.at, p) - distance(b.at, p))[0] ?? null;
}

/** Where a line from a place meets a segment squarely, or touches it. */
function fromPlace({ from: start, segment }: Step, from: Point): SheetSnap[] {
  const snaps: SheetSnap[] = [];
  const foot = nearestOnSegment(start, segment, from);
  if (foot.t > 1e-6 && foot.t < 1 - 1e-6) snaps.push({ at: foot.point, word: 'perpendicular' });
  if (segment.kind !== 'arc') return snaps;
  const { centre, radius } = circleOf(start, segment);
  const away = subtract(from, centre);
  const far = norm(away.x, away.y);
  if (far <= radius * (1 + 1e-9)) return snaps;
  // The touching points see centre and place under a right angle (Thales).
  const [along, across] = [(radius * radius) / far, (radius * Math.sqrt(far * far - radius * radius)) / far];
  for (const side of [1, -1]) {
    const at = {
      x: centre.x + (away.x * along - away.y * side * across) / far,
      y: centre.y + (away.y * along + away.x * side * across) / far,
    };
    if (nearestOnSegment(start, segment, at).distance < 1e-6) snaps.push({ at, word: 'tangent' });
  }
  return snaps;
}

/** A place brought onto the nearest of the directions in steps of `stepDegrees` from another. */
export function squareLocked(from: Point, p: Point, stepDegrees: number): Point {
  const away = subtract(p, from);
  const step = (stepDegrees * Math.PI) / 180;
  const angle = Math.round(Math.atan2(away.y, away.x) / step) * step;
  const d = { x: Math.cos(angle), y: Math.sin(angle) };
  const reach = dot(away, d);
  return { x: from.x + d.x * reach, y: from.y + d.y * reach };
}
