/**
 * In: a section as it was drawn, or the rule of one. Out: its half as a profile, from the middle of its foot to the middle of its top, and
 * profiles between two of them: places matched by the length of the way to them, so that a corner runs on to a corner.
 */
import { SaidError, say } from '../messages/index.ts';
import { type Path, type Point, pathArea, pathBox, polygonOf, reversedPath } from '../plane/index.ts';
import { type DrawnPoint, pathThrough, selfCrossings } from '../shape/index.ts';
import { ruleOutline, type SectionProfile, type SectionRule } from './body-section.ts';
import { spanOf } from './slots.ts';

export class SectionError extends SaidError {
  readonly code = 'no-section';
}

/** Chords of a drawn section leave it by at most this share of its size. */
const chordShare = 2e-5;

/** The right half of a closed outline. @throws SectionError where it crosses itself, or has no right half in one piece */
export function profileOf(outline: Path): SectionProfile {
  if (!outline.closed) throw new SectionError(say.foam.openSection());
  if (selfCrossings([outline]).length > 0) throw new SectionError(say.foam.sectionCrossesItself());
  const round = pathArea(outline) > 0 ? outline : reversedPath(outline);
  const { minX, minY, maxX, maxY } = pathBox(round);
  const middle = (minX + maxX) / 2;
  const points = polygonOf(round, chordShare * Math.max(maxX - minX, maxY - minY)).map(({ x, y }) => ({ x: x - middle, y: y - minY }));
  // Where it crosses the upright middle: upwards of the lowest crossing the way goes along the right.
  const cuts = points.flatMap((p, k) => {
    const q = points[(k + 1) % points.length] as Point;
    return p.x < 0 !== q.x < 0 ? [{ k, y: p.y + ((q.y - p.y) * -p.x) / (q.x - p.x) }] : [];
  });
  if (cuts.length !== 2) throw new SectionError(say.foam.sectionInParts());
  const [foot, top] = cuts.sort((a, b) => a.y - b.y) as [(typeof cuts)[0], (typeof cuts)[0]];
  const half: Point[] = [{ x: 0, y: foot.y }];
  for (let k = (foot.k + 1) % points.length; half.length <= points.length; k = (k + 1) % points.length) {
    half.push(points[k] as Point);
    if (k === top.k) break;
  }
  half.push({ x: 0, y: top.y });
  return byLength(half.map(({ x, y }) => ({ x: (2 * x) / (maxX - minX), y: y / (maxY - minY) })));
}

/** Levels at which the halves of an outline are compared. */
const levels = 40;

/** How far the left half of an outline is from being the right one's mirror image, at most, on level lines, mm. */
export function unevenness(outline: Path): number {
  const { minX, minY, maxX, maxY } = pathBox(outline);
  const spans = Array.from({ length: levels }, (_, k) => spanOf(outline, minY + ((k + 0.5) / levels) * (maxY - minY), 'level'));
  return spans.reduce((most, span) => (span ? Math.max(most, Math.abs(span[0] + span[1] - minX - maxX)) : most), 0);
}

const profiles = new WeakMap<object, SectionProfile>();
function kept<T extends object>(of: T, make: (of: T) => SectionProfile): SectionProfile {
  let profile = profiles.get(of);
  if (!profile) {
    profile = make(of);
    profiles.set(of, profile);
  }
  return profile;
}

/** The profile of a rule, as wide as it is high. */
export const profileOfRule = (rule: SectionRule): SectionProfile => kept(rule, (one) => profileOf(ruleOutline({ halfWidth: 1, bottom: 0, top: 2, rule: one }))); // biome-ignore format: one line
export const profileOfOutline = (outline: Path): SectionProfile => kept(outline, profileOf);

/**
 * The half that is drawn through points: its foot and its top run on smoothly into the other half, unless they are corners. Null where there
 * are too few points.
 */
export function halfThrough(points: readonly DrawnPoint[]): Path | null {
  if (points.length < 2) return null;
  const mirrored = points.slice(1, -1).map(({ at, corner }): DrawnPoint => ({ at: { x: -at.x, y: at.y }, corner })).reverse(); // biome-ignore format: one line
  const whole = pathThrough([...points, ...mirrored], true);
  return whole && { start: whole.start, segments: whole.segments.slice(0, points.length - 1), closed: false };
}

/** A half drawn through points, from the middle of its foot to that of its top. @throws SectionError where that crosses itself */
export const profileThrough = (points: readonly DrawnPoint[]): SectionProfile =>
  kept(points, () => {
    const path = halfThrough(points);
    if (!path || points.some(({ at }) => at.x < -1e-9)) throw new SectionError(say.foam.sectionInParts());
    if (selfCrossings([path]).length > 0) throw new SectionError(say.foam.sectionCrossesItself());
    const half = polygonOf(path, chordShare);
    const [wide, low, high] = [
      Math.max(...half.map(({ x }) => x)),
      Math.min(...half.map(({ y }) => y)),
      Math.max(...half.map(({ y }) => y)),
    ];
    if (!(wide > 1e-6) || !(high - low > 1e-6)) throw new SectionError(say.foam.sectionInParts());
    return byLength(half.map(({ x, y }) => ({ x: x / wide, y: (y - low) / (high - low) })));
  });

/** A way with how far along it each place lies. */
function byLength(way: readonly Point[]): SectionProfile {
  const along = new Float64Array(way.length);
  for (let k = 1; k < way.length; k++) along[k] = (along[k - 1] as number) + Math.hypot((way[k] as Point).x - (way[k - 1] as Point).x, (way[k] as Point).y - (way[k - 1] as Point).y); // biome-ignore format: one line
  const whole = along.at(-1) as number;
  return { along: along.map((length) => length / whole), across: Float64Array.from(way, ({ x }) => Math.max(0, x)), up: Float64Array.from(way, ({ y }) => y) }; // biome-ignore format: one line
}

/** Shares of the length that are one. */
const sameShare = 1e-9;

/** Between two profiles, as wide and as high as either, with the places of both. @param share of the second */
export function blended(a: SectionProfile, b: SectionProfile, share: number): SectionProfile {
  const along = Float64Array.from([...a.along, ...b.along]).sort().filter((u, k, all) => k === 0 || u - (all[k - 1] as number) > sameShare); // biome-ignore format: one line
  const mix = (key: 'across' | 'up'): Float64Array => {
    const [p, q] = [sampled(a, key, along), sampled(b, key, along)];
    return p.map((v, k) => v + ((q[k] as number) - v) * share);
  };
  const [across, up] = [mix('across'), mix('up')];
  const wide = across.reduce((most, v) => Math.max(most, v), 0);
  const [low, high] = [up.reduce((least, v) => Math.min(least, v), 1), up.reduce((most, v) => Math.max(most, v), 0)];
  return { along, across: across.map((v) => v / wide), up: up.map((v) => (v - low) / (high - low)) };
}

/** A profile at shares of its length, which rise. */
function sampled(profile: SectionProfile, key: 'across' | 'up', at: Float64Array): Float64Array {
  const { along, [key]: values } = profile;
  let k = 0;
  return at.map((u) => {
    while (k < along.length - 2 && (along[k + 1] as number) < u) k++;
    const [from, to] = [along[k] as number, along[k + 1] as number];
    const t = to > from ? Math.max(0, Math.min(1, (u - from) / (to - from))) : 0;
    return (values[k] as number) + ((values[k + 1] as number) - (values[k] as number)) * t;
  });
}
