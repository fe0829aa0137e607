/** In: a closed cut and the tabs asked for. Out: where the tabs lie, and what is cut between them. */

import {
  circleOf,
  directionOn,
  distance,
  type Path,
  type Point,
  pathLength,
  pointOn,
  type Segment,
  segmentLength,
  stepsOf,
  subPath,
} from '../plane/index.ts';
import type { Cutting } from './cutting.ts';

/** Where a cut may be interrupted: straight, or bent no more tightly than this many tab widths. */
const widestBend = 3;

/** Lengths along a closed cut of the tabs' middles: evenly spaced, moved off corners and tight bends. */
export function tabPlaces(path: Path, { count, spacingMm, widthMm }: Cutting['tabs']): number[] {
  const length = pathLength(path);
  const wanted = spacingMm > 0 ? Math.floor(length / spacingMm) : count;
  const max = Math.floor(length / (4 * widthMm));
  const n = Math.min(wanted, max);
  if (n < 1) return [];
  const spots = gentleLengths(path, widthMm);
  const taken: number[] = [];
  for (let k = 0; k < n; k++) {
    const ideal = ((k + 0.5) * length) / n;
    const free = spots.filter((s) => taken.every((t) => Math.min(Math.abs(t - s), length - Math.abs(t - s)) >= 2 * widthMm));
    if (free.length === 0) break;
    taken.push(free.reduce((best, s) => (Math.abs(s - ideal) < Math.abs(best - ideal) ? s : best)));
  }
  return taken.sort((a, b) => a - b);
}

/** Lengths along a path that lie on straight or gently bent stretches, more than a tab's width from either end. */
function gentleLengths(path: Path, widthMm: number): number[] {
  const gentle: number[] = [];
  let at = 0;
  for (const { from, segment } of stepsOf(path)) {
    const length = segmentLength(from, segment);
    if (length > 2 * widthMm) {
      const steps = Math.min(40, Math.max(1, Math.floor(length / widthMm)));
      for (let k = 0; k < steps; k++) {
        const t = (k + 0.5) / steps;
        const s = t * length;
        if (s > widthMm && length - s > widthMm && radiusAt(from, segment, t) > widestBend * widthMm) gentle.push(at + s);
      }
    }
    at += length;
  }
  return gentle;
}

function radiusAt(from: Point, segment: Segment, t: number): number {
  if (segment.kind === 'line') return Infinity;
  if (segment.kind === 'arc') return circleOf(from, segment).radius;
  const step = 0.02;
  const [a, b] = [Math.max(0, t - step), Math.min(1, t + step)];
  const [d, e] = [directionOn(from, segment, a), directionOn(from, segment, b)];
  const turn = Math.abs(Math.atan2(d.x * e.y - d.y * e.x, d.x * e.x + d.y * e.y));
  return distance(pointOn(from, segment, a), pointOn(from, segment, b)) / Math.max(turn, 1e-9);
}

/** A closed cut without its tabs: the runs between them, in order of travel. */
export function withoutTabs(path: Path, places: readonly number[], gapMm: number): Path[] {
  if (places.length === 0) return [path];
  const length = pathLength(path);
  const gaps = places.map((s) => [s - gapMm / 2, s + gapMm / 2] as const);
  return gaps.map(([, end], k) => {
    const next = gaps[k + 1] ?? [(gaps[0] as readonly [number, number])[0] + length, 0];
    return subPath(path, end, next[0]);
  });
}
