/**
 * In: the outlines of a body from the side, from above and from the front, and the rule of its sections. Out: the body: how long it is, and its
 * section at any station, read from the outlines where an upright line crosses them. Stations run from the nose at 0 aft. The view from the
 * front is the shape of the largest section; without one, all are by the rule.
 */
import { SaidError, say } from '../messages/index.ts';
import { heightOf, type Path, pathArea, pathBox, widthOf } from '../plane/index.ts';
import { type BodySection, type SectionProfile, type SectionRule, sectionOutline } from './body-section.ts';
import { blended, profileOfOutline, profileOfRule } from './section-profile.ts';
import { spanOf } from './slots.ts';

export interface BodyViews {
  readonly side: Path;
  /** Null where the body is as wide, from its height, as the view from the front is; without that, as wide as it is high. */
  readonly above: Path | null;
  readonly front?: Path | null;
  /** Which end of the drawing the nose is at. */
  readonly nose: 'left' | 'right';
}

export interface Body {
  readonly lengthMm: number;
  readonly heightMm: number;
  readonly widthMm: number;
  /** How much longer the view from above is drawn than the one from the side, mm; it is brought to the side view's length. */
  readonly longerMm: number;
  /** How much wider and higher the view from the front is drawn than the others, mm; null where there is none. */
  readonly frontLarger: { readonly wideMm: number; readonly highMm: number } | null;
  /** Null where the body has no extent there. */
  section(station: number): BodySection | null;
}

export class BodyError extends SaidError {
  readonly code = 'no-body';
}

/** So near to an end a body has no section to speak of, mm. */
const endMm = 0.005;

/** A section that is known where it stands, by a rule of its own or as it was drawn. */
export interface KnownSection {
  /** From the nose aft, mm. */
  readonly atMm: number;
  readonly shape: SectionRule | SectionProfile;
}

const isProfile = (shape: SectionRule | SectionProfile): shape is SectionProfile => 'up' in shape;

/** The shape of a section at any station: between two that are known it runs from the one to the other. */
type ShapeAt = (station: number) => Pick<BodySection, 'rule' | 'profile'>;

function shapesAlong(rule: SectionRule, known: readonly KnownSection[]): ShapeAt {
  const [first, ...rest] = [...known].sort((a, b) => a.atMm - b.atMm);
  if (!first) return () => ({ rule });
  const all = [first, ...rest];
  const isDrawn = all.some(({ shape }) => isProfile(shape));
  const profile = (shape: SectionRule | SectionProfile): SectionProfile => (isProfile(shape) ? shape : profileOfRule(shape));
  const made = (shape: SectionRule | SectionProfile): Pick<BodySection, 'rule' | 'profile'> =>
    isDrawn || isProfile(shape) ? { rule, profile: profile(shape) } : { rule: shape };
  return (station) => {
    const next = all.findIndex(({ atMm }) => atMm >= station);
    if (next <= 0) return made((next === 0 ? first : (all.at(-1) as KnownSection)).shape);
    const [a, b] = [all[next - 1], all[next]] as [KnownSection, KnownSection];
    const share = (station - a.atMm) / (b.atMm - a.atMm);
    if (isDrawn) return { rule, profile: blended(profile(a.shape), profile(b.shape), share) };
    const [p, q] = [a.shape, b.shape] as [SectionRule, SectionRule];
    const between = (key: keyof SectionRule): number => p[key] + (q[key] - p[key]) * share;
    return { rule: { topExponent: between('topExponent'), bottomExponent: between('bottomExponent'), widestAt: between('widestAt') } };
  };
}

/**
 * @param known sections at stations; where there are none all are by the rule
 * @throws BodyError where a view is open or has no extent
 */
export function bodyOf({ side, above, front = null, nose }: BodyViews, rule: SectionRule, known: readonly KnownSection[] = []): Body {
  for (const view of [side, ...(above ? [above] : []), ...(front ? [front] : [])]) if (!view.closed || widthOf(pathBox(view)) < 4 * endMm) throw new BodyError(say.foam.openView()); // biome-ignore format: one line
  const box = pathBox(side);
  const lengthMm = widthOf(box);
  const aboveBox = above && pathBox(above);
  const frontBox = front && pathBox(front);
  const scale = aboveBox ? lengthMm / widthOf(aboveBox) : 1;
  /** How wide it is for its height, where no view from above says so. */
  const wideness = frontBox ? widthOf(frontBox) / heightOf(frontBox) : 1;
  const size = (station: number): Pick<BodySection, 'halfWidth' | 'bottom' | 'top'> | null => {
    const inside = Math.min(lengthMm - endMm, Math.max(endMm, station));
    if (station < -endMm || station > lengthMm + endMm) return null;
    const heights = spanOf(side, nose === 'left' ? box.minX + inside : box.maxX - inside, 'upright');
    const widths = above && aboveBox ? spanOf(above, nose === 'left' ? aboveBox.minX + inside / scale : aboveBox.maxX - inside / scale, 'upright') : heights; // biome-ignore format: one line
    if (!heights || !widths) return null;
    const halfWidth = ((widths[1] - widths[0]) / 2) * (above ? scale : wideness);
    return halfWidth > 0 && heights[1] > heights[0] ? { halfWidth, bottom: heights[0] - box.minY, top: heights[1] - box.minY } : null; // biome-ignore format: one line
  };
  const shapeAt = shapesAlong(rule, front ? withFront(known, front, largestStation(size, lengthMm)) : known);
  const heightMm = heightOf(box);
  const widthMm = aboveBox ? heightOf(aboveBox) * scale : heightMm * wideness;
  return {
    lengthMm,
    heightMm,
    widthMm,
    longerMm: aboveBox ? widthOf(aboveBox) - lengthMm : 0,
    frontLarger: frontBox && { wideMm: widthOf(frontBox) - widthMm, highMm: heightOf(frontBox) - heightMm },
    section(station) {
      const own = size(station);
      return own && { ...own, ...shapeAt(station) };
    },
  };
}

/** Known sections with the view from the front where the body is largest, unless one is known there. */
function withFront(known: readonly KnownSection[], front: Path, atMm: number): readonly KnownSection[] {
  const isKnown = known.some((one) => Math.abs(one.atMm - atMm) < endMm);
  return isKnown ? known : [...known, { atMm, shape: profileOfOutline(front) }];
}

/** Stations among which the largest section is looked for. */
const lookedAt = 200;

/** Where width times height is largest, mm. */
function largestStation(size: (station: number) => Pick<BodySection, 'halfWidth' | 'bottom' | 'top'> | null, lengthMm: number): number {
  const areas = Array.from({ length: lookedAt + 1 }, (_, k) => {
    const own = size((lengthMm * k) / lookedAt);
    return own ? own.halfWidth * (own.top - own.bottom) : 0;
  });
  return (lengthMm * areas.indexOf(Math.max(...areas))) / lookedAt;
}

/** Strips by Simpson's rule. */
const volumeStrips = 240;

/** What the body holds, mm³, and how far aft of the nose its middle lies, mm. */
export function volumeOf(body: Body): { volumeMm3: number; middleMm: number } {
  let [sum, moment] = [0, 0];
  const step = body.lengthMm / volumeStrips;
  for (let k = 0; k <= volumeStrips; k++) {
    const section = body.section(k * step);
    const weight = k === 0 || k === volumeStrips ? 1 : k % 2 === 1 ? 4 : 2;
    const area = section ? pathArea(sectionOutline(section)) : 0;
    sum += weight * area;
    moment += weight * area * k * step;
  }
  return { volumeMm3: (sum * step) / 3, middleMm: sum > 0 ? moment / sum : 0 };
}
