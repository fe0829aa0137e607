/**
 * In: the outlines of a body from the side and from above, and the rule of its sections. Out: the body: how long it is, and its section at any
 * station, read from the outlines where an upright line crosses them. Stations run from the nose at 0 aft.
 */
import { SaidError, say } from '../messages/index.ts';
import { heightOf, type Path, pathArea, pathBox, widthOf } from '../plane/index.ts';
import { type BodySection, type SectionProfile, type SectionRule, sectionOutline } from './body-section.ts';
import { blended, profileOfRule } from './section-profile.ts';
import { spanOf } from './slots.ts';

export interface BodyViews {
  readonly side: Path;
  /** Null where the body is as wide as it is high. */
  readonly above: Path | null;
  /** Which end of the drawing the nose is at. */
  readonly nose: 'left' | 'right';
}

export interface Body {
  readonly lengthMm: number;
  readonly heightMm: number;
  readonly widthMm: number;
  /** How much longer the view from above is drawn than the one from the side, mm; it is brought to the side view's length. */
  readonly longerMm: number;
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
function shapesAlong(rule: SectionRule, known: readonly KnownSection[]): (station: number) => Pick<BodySection, 'rule' | 'profile'> {
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
export function bodyOf({ side, above, nose }: BodyViews, rule: SectionRule, known: readonly KnownSection[] = []): Body {
  const shapeAt = shapesAlong(rule, known);
  for (const view of [side, ...(above ? [above] : [])]) if (!view.closed || widthOf(pathBox(view)) < 4 * endMm) throw new BodyError(say.foam.openView()); // biome-ignore format: one line
  const box = pathBox(side);
  const lengthMm = widthOf(box);
  const aboveBox = above && pathBox(above);
  const scale = aboveBox ? lengthMm / widthOf(aboveBox) : 1;
  const section = (station: number): BodySection | null => {
    const inside = Math.min(lengthMm - endMm, Math.max(endMm, station));
    if (station < -endMm || station > lengthMm + endMm) return null;
    const heights = spanOf(side, nose === 'left' ? box.minX + inside : box.maxX - inside, 'upright');
    const widths = above && aboveBox ? spanOf(above, nose === 'left' ? aboveBox.minX + inside / scale : aboveBox.maxX - inside / scale, 'upright') : heights; // biome-ignore format: one line
    if (!heights || !widths) return null;
    const halfWidth = ((widths[1] - widths[0]) / 2) * (above ? scale : 1);
    return halfWidth > 0 && heights[1] > heights[0] ? { halfWidth, bottom: heights[0] - box.minY, top: heights[1] - box.minY, ...shapeAt(station) } : null; // biome-ignore format: one line
  };
  return {
    lengthMm,
    heightMm: heightOf(box),
    widthMm: aboveBox ? heightOf(aboveBox) * scale : heightOf(box),
    longerMm: aboveBox ? widthOf(aboveBox) - lengthMm : 0,
    section,
  };
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
