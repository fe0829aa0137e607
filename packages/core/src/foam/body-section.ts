/**
 * In: how wide and how high a body is at a station, and the rule of its sections. Out: the section: its outline, and how far it reaches in any
 * direction.
 * A section is two halves of superellipses, |y / w|^n + |z / h|^n = 1 (Lame 1818), with an exponent of its own above and below the widest
 * place: 2 is an ellipse, more is fuller. How far one reaches along a direction is the dual norm with 1 / n + 1 / m = 1 (Hoelder), so that
 * sections can be moved in, moved out and cut with one another without drawing them.
 */
import { type Path, type Point, polygonPath, type Segment } from '../plane/index.ts';

export interface SectionRule {
  readonly topExponent: number;
  readonly bottomExponent: number;
  /** Where it is widest, as a share of its height: 0 has a flat bottom. */
  readonly widestAt: number;
}

/** Half a section: places along it, across as a share of half the width, up as a share of the height. */
export interface SectionProfile {
  /** How far along the half each place lies, as a share of its length. */
  readonly along: Float64Array;
  readonly across: Float64Array;
  readonly up: Float64Array;
}

/** Across y, up z, mm. */
export interface BodySection {
  readonly halfWidth: number;
  readonly bottom: number;
  readonly top: number;
  readonly rule: SectionRule;
  /** Half of it as it was drawn, in place of the rule. */
  readonly profile?: SectionProfile | undefined;
}

/** The height at which it is widest. */
const widestHeight = ({ bottom, top, rule }: BodySection): number => bottom + rule.widestAt * (top - bottom);

/**
 * How far a section reaches in directions all round, the most that y cos + z sin comes to within it, mm.
 * @param directions how many, evenly from the right counter-clockwise; a multiple of four
 */
export function reaches(section: BodySection, directions: number): Float64Array {
  if (section.profile) return drawnReaches(section, directions);
  const { halfWidth, bottom, top, rule } = section;
  const middle = widestHeight(section);
  const made = new Float64Array(directions);
  const quarter = directions / 4;
  for (const [side, half, n] of [[1, top - middle, rule.topExponent], [-1, middle - bottom, rule.bottomExponent]] as const) {
    // Of straight sides, with a chine where it is widest, the farther of two corners.
    const m = n > 1 ? n / (n - 1) : Infinity;
    for (let k = 0; k <= quarter; k++) {
      const angle = (Math.PI / 2) * (k / quarter);
      const [across, up] = [halfWidth * Math.cos(angle), half * Math.sin(angle)];
      const own = side * middle * Math.sin(angle) + (n === 2 ? Math.hypot(across, up) : m === Infinity ? Math.max(across, up) : (across ** m + up ** m) ** (1 / m));
      // The same to the left and to the right.
      made[side > 0 ? k : (directions - k) % directions] = own;
      made[side > 0 ? 2 * quarter - k : 2 * quarter + k] = own;
    }
  } // biome-ignore format: above and below
  return made;
}

/** Of a drawn section: as far as any of its places, which hide what bends inwards. */
function drawnReaches(section: BodySection, directions: number): Float64Array {
  const half = halfPlaces(section);
  return Float64Array.from({ length: directions }, (_, k) => {
    const [c, s] = [Math.abs(Math.cos((2 * Math.PI * k) / directions)), Math.sin((2 * Math.PI * k) / directions)];
    return half.reduce((most, { x, y }) => Math.max(most, x * c + y * s), -Infinity);
  });
}

/** Curves in each quarter of an outline. */
const quarterSpans = 20;
const slopeStep = 1e-6;
/** A half this low is flat, mm. */
const flatMm = 1e-6;

/** Half of a drawn section, from the middle of its foot to that of its top. @throws Error where it is by rule: then none was drawn */
export function halfPlaces({ profile, halfWidth, bottom, top }: BodySection): Point[] {
  if (!profile) throw new Error('a section by rule has no places');
  return Array.from(profile.across, (x, k) => ({ x: x * halfWidth, y: bottom + (profile.up[k] as number) * (top - bottom) }));
}

/** Its outline, counter-clockwise: what was drawn as chords, a rule's as curves. */
export const sectionOutline = (section: BodySection): Path => (section.profile ? drawnOutline(section) : ruleOutline(section));

function drawnOutline(section: BodySection): Path {
  const half = halfPlaces(section);
  return polygonPath([...half, ...half.filter(({ x }) => x > flatMm).map(({ x, y }) => ({ x: -x, y })).reverse()]); // biome-ignore format: one line
}

/** The outline of a rule, counter-clockwise from the right: cubics with the curve's own slopes, by the angle about its widest place's middle, as if it
 * were as wide as high. */
export function ruleOutline(section: BodySection): Path {
  const { halfWidth, bottom, top, rule } = section;
  const middle = widestHeight(section);
  const at = (angle: number, isUpper: boolean): Point => {
    const [half, n] = isUpper ? [top - middle, rule.topExponent] : [middle - bottom, rule.bottomExponent];
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    if (half <= flatMm) return { x: halfWidth * c, y: middle };
    const r = (Math.abs(c) ** n + Math.abs(s) ** n) ** (-1 / n);
    return { x: halfWidth * r * c, y: middle + half * r * s };
  };
  const segments: Segment[] = [];
  const spans = 4 * quarterSpans;
  for (let k = 0; k < spans; k++) {
    const isUpper = k < spans / 2;
    const [from, to] = [(2 * Math.PI * k) / spans, (2 * Math.PI * (k + 1)) / spans];
    const half = isUpper ? top - middle : middle - bottom;
    const [p, q] = [at(from, isUpper), at(to, isUpper)];
    if (half <= flatMm) {
      // A flat foot is one line.
      if (k === spans / 2) segments.push({ kind: 'line', to: { x: halfWidth, y: middle } });
      continue;
    }
    if ((isUpper ? rule.topExponent : rule.bottomExponent) === 1) {
      // Straight from the chine to the middle.
      if ((k + 1) % quarterSpans === 0) segments.push({ kind: 'line', to: k === spans - 1 ? at(0, true) : q });
      continue;
    }
    const slope = (angle: number, side: 1 | -1): Point => {
      const h = side * slopeStep;
      const [a, b, c] = [at(angle, isUpper), at(angle + h, isUpper), at(angle + 2 * h, isUpper)];
      return { x: (-3 * a.x + 4 * b.x - c.x) / (2 * h), y: (-3 * a.y + 4 * b.y - c.y) / (2 * h) };
    };
    const [d, e, h] = [slope(from, 1), slope(to, -1), (to - from) / 3];
    segments.push({ kind: 'cubic', c1: { x: p.x + h * d.x, y: p.y + h * d.y }, c2: { x: q.x - h * e.x, y: q.y - h * e.y }, to: k === spans - 1 ? at(0, true) : q }); // biome-ignore format: one line
  }
  return { start: at(0, true), segments, closed: true };
}
