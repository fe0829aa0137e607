/**
 * In: a closed path round a piece. Out: where holding tabs stand on it, and how high the tool goes over them. Tabs stand on straight or
 * gently bent stretches, never on a corner.
 */
import { tabPlaces } from '../make/tabs.ts';
import { nearestOnPath, type Path, type Point, segmentLength, stepsOf, subPath } from '../plane/index.ts';
import { heightAt, type Knot } from './moves.ts';

export interface HoldingTabs {
  readonly count: number;
  /** From tab to tab, mm; 0 where the count says it. */
  readonly spacingMm: number;
  readonly widthMm: number;
  /** What is left, from the bottom of the cut up, mm. */
  readonly heightMm: number;
  readonly flanks: 'straight' | 'sloped';
  /** Where a person put them, on the sheet; null where they are placed by count or spacing. */
  readonly places: readonly Point[] | null;
  /** The height of the bottom of the cut, mm. */
  readonly bottomZ: number;
}

export interface HoldingTab {
  /** Its middle along the path, mm, and on the sheet. */
  readonly along: number;
  readonly at: Point;
  /** How long the tool stays up, mm: the width that is left and the tool's own. */
  readonly topMm: number;
}

/** The tool goes up and down over sloped flanks at this angle, radians: common practice. */
const flankAngle = Math.PI / 4;
/** A border longer than this from a place that a person put has no tab there, mm. */
const reachMm = 40;

export function tabsOn(path: Path, tabs: HoldingTabs, radiusMm: number): HoldingTab[] {
  const topMm = tabs.widthMm + 2 * radiusMm;
  const at = (along: number): Point => subPath(path, along, along + 1e-3).start;
  if (tabs.places === null) {
    const wide = Math.max(tabs.widthMm, radiusMm);
    const places = (widthMm: number): number[] => tabPlaces(path, { count: tabs.count, spacingMm: tabs.spacingMm, widthMm });
    const gentle = places(wide);
    // Where all is bent they stand on what is bent least tightly.
    return (gentle.length > 0 ? gentle : places(wide / 3)).map((along) => ({ along, at: at(along), topMm }));
  }
  return tabs.places
    .map((place) => ({ place, near: nearestOnPath(path, place) }))
    .filter(({ near }) => near.distance < Math.min(reachMm, 3 * radiusMm + 2))
    .map(({ near }) => ({ along: alongOf(path, near.index, near.t), at: near.point, topMm }))
    .sort((a, b) => a.along - b.along);
}

function alongOf(path: Path, index: number, t: number): number {
  const steps = stepsOf(path);
  const before = steps.slice(0, index).reduce((sum, { from, segment }) => sum + segmentLength(from, segment), 0);
  const step = steps[index];
  return before + (step ? t * segmentLength(step.from, step.segment) : 0);
}

/** Heights along a path, raised wherever a tab is left. */
export function tabKnots(
  knots: readonly Knot[],
  tabs: readonly HoldingTab[],
  round: number,
  { bottomZ, heightMm, flanks }: HoldingTabs,
): Knot[] {
  const topZ = bottomZ + heightMm;
  const end = (knots.at(-1) as Knot).along || round;
  const slope = flanks === 'sloped' ? heightMm / Math.tan(flankAngle) : 0;
  const spans: { from: number; to: number }[] = [];
  for (let lap = -1; lap <= Math.ceil(end / round); lap++)
    for (const { along, topMm } of tabs) {
      const middle = along + lap * round;
      if (middle + topMm / 2 + slope > 0 && middle - topMm / 2 - slope < end)
        spans.push({ from: middle - topMm / 2, to: middle + topMm / 2 });
    }
  /** How high the tabs ask the tool to be at a place. */
  const asked = (s: number): number => {
    let z = -Infinity;
    for (const { from, to } of spans) {
      const beyond = Math.max(from - s, s - to);
      if (beyond <= 1e-9) z = Math.max(z, topZ);
      else if (beyond < slope) z = Math.max(z, topZ - (beyond / slope) * heightMm);
    }
    return z;
  };
  const base: readonly Knot[] = knots.length === 1 ? [...knots, { along: end, z: (knots[0] as Knot).z }] : knots;
  const own = (s: number): number => heightAt(base, s);
  const places = new Set<number>(base.map(({ along }) => along));
  const edge = 1e-6;
  for (const { from, to } of spans)
    for (const s of [from - slope, from - edge, from, to, to + edge, to + slope]) if (s > 0 && s < end) places.add(s);
  const sorted = [...places].sort((a, b) => a - b);
  // Where the way down meets a tab's flank or top between two of these.
  const crossings = sorted.slice(1).flatMap((b, k) => {
    const a = sorted[k] as number;
    const [u, v] = [own(a) - asked(a), own(b) - asked(b)];
    return Number.isFinite(u) && Number.isFinite(v) && u * v < 0 ? [a + ((b - a) * u) / (u - v)] : [];
  });
  return [...sorted, ...crossings].sort((a, b) => a - b).map((along) => ({ along, z: Math.max(own(along), asked(along)) }));
}
