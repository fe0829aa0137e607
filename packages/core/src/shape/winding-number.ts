/**
 * In: closed paths and a place. Out: how often they wind about it, worked out on the segments themselves, not on chords.
 * Rests on: the winding number as signed crossings of a ray; the ray's direction is changed where it meets a joint.
 */

import { boxAroundBoxes } from '../plane/box.ts';
import { type CachedSegment, cachedSegments } from '../plane/cached-segment.ts';
import { opsOf } from '../plane/curves.ts';
import type { Path } from '../plane/path.ts';
import { cross, distance, norm, type Point } from '../plane/point.ts';
import { directionOn, nearestOnSegment } from '../plane/segment.ts';
import { boxIndex, flatBoxes } from './box-index.ts';
import { segmentCrossings } from './crossings.ts';

/** How often counter-clockwise the paths go round a place that lies on none of them. */
export function windingNumber(paths: readonly Path[], p: Point): number {
  const steps = paths.flatMap(cachedSegments);
  const box = boxAroundBoxes(steps.map((s) => s.box));
  if (!box || p.x < box.minX || p.x > box.maxX || p.y < box.minY || p.y > box.maxY) return 0;
  const reach = 2 * (box.maxX - box.minX + box.maxY - box.minY) + 1;
  // Directions without simple proportions; the next is taken where a ray passes too near to a joint to tell.
  for (let k = 0; k < 24; k++) {
    const angle = 0.3721 + 2.3999632 * k;
    const to = { x: p.x + reach * Math.cos(angle), y: p.y + reach * Math.sin(angle) };
    const found = alongRay(steps, { from: p, segment: { kind: 'line', to } });
    if (found !== null) return found;
  }
  return 0;
}

function alongRay(steps: readonly CachedSegment[], ray: { from: Point; segment: { kind: 'line'; to: Point } }): number | null {
  const [a, b] = [ray.from, ray.segment.to];
  const d = { x: b.x - a.x, y: b.y - a.y };
  const size = norm(d.x, d.y);
  const off = (x: number, y: number) => (d.x * (y - a.y) - d.y * (x - a.x)) / size;
  let winding = 0;
  for (const step of steps) {
    const { minX, minY, maxX, maxY } = step.box;
    const corners = [off(minX, minY), off(maxX, minY), off(minX, maxY), off(maxX, maxY)];
    if (Math.min(...corners) > 0 || Math.max(...corners) < 0) continue;
    for (const { u, at } of segmentCrossings(ray, step)) {
      const turn = cross(d, directionOn(step.from, step.segment, u)) / size;
      const isJoint = distance(at, step.from) < 1e-7 || distance(at, step.segment.to) < 1e-7;
      if (isJoint || Math.abs(turn) < 1e-5) return null;
      winding += Math.sign(turn);
    }
  }
  return winding;
}

/** Tells quickly whether a place is nearer to some paths than a limit. */
export function nearnessTo(paths: readonly Path[]): (p: Point, limit: number) => boolean {
  return nearnessToSteps(paths.flatMap(cachedSegments));
}

/** So many places are looked at one box after another, before an index of the boxes is worth its making. */
const fewPlaces = 64;

export function nearnessToSteps(steps: readonly CachedSegment[]): (p: Point, limit: number) => boolean {
  const boxes = flatBoxes(steps);
  let index: ReturnType<typeof boxIndex> = null;
  let asked = 0;
  const isNearTo = (k: number, p: Point, limit: number): boolean => {
    const step = steps[k] as CachedSegment;
    const { from, segment } = step;
    return chordDistance(from, segment.to, p) - bowOf(step) < limit && nearestOnSegment(from, segment, p).distance < limit;
  };
  return (p, limit) => {
    const [left, right, low, high] = [p.x - limit, p.x + limit, p.y - limit, p.y + limit];
    if (++asked <= fewPlaces) {
      for (let k = 0, b = 0; k < steps.length; k++, b += 4) {
        if ((boxes[b] as number) > right || (boxes[b + 2] as number) < left) continue;
        if ((boxes[b + 1] as number) > high || (boxes[b + 3] as number) < low) continue;
        if (isNearTo(k, p, limit)) return true;
      }
      return false;
    }
    index ??= boxIndex(steps.map(({ box }) => box));
    let isNear = false;
    index?.search(left, low, right, high, (k) => {
      isNear ||= isNearTo(k, p, limit);
      return false;
    });
    return isNear;
  };
}

const bows = new WeakMap<CachedSegment, number>();

function bowOf(step: CachedSegment): number {
  let bow = bows.get(step);
  if (bow === undefined) {
    bow = opsOf(step.segment).bow(step.from, step.segment);
    bows.set(step, bow);
  }
  return bow;
}

function chordDistance(a: Point, b: Point, p: Point): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const square = dx * dx + dy * dy;
  const t = square > 0 ? Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / square)) : 0;
  return norm(a.x + t * dx - p.x, a.y + t * dy - p.y);
}
