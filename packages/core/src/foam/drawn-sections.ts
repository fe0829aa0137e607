/**
 * In: sections of a slice of which one at least was drawn, so that they may be hollow anywhere. Out: what they reach in all, what they all have,
 * and what stays within each of them by a distance of its own. Each must be seen whole from one middle.
 */
import { SaidError, say } from '../messages/index.ts';
import { type Path, type Point, polygonPath } from '../plane/index.ts';
import { type BodySection, halfPlaces } from './body-section.ts';

export class WindingSectionError extends SaidError {
  readonly code = 'winding-section';
}

/** Half a section about a middle on its axis: angles from straight down, rising, and how far it reaches there. */
interface Fan {
  readonly angles: Float64Array;
  readonly radii: Float64Array;
  readonly places: readonly Point[];
}

/** Between places an angle may fall back by so much for rounding, radians. */
const sameAngle = 1e-9;

/** A height that lies in all sections. */
const middleOf = (sections: readonly BodySection[]): number => (Math.max(...sections.map(({ bottom }) => bottom)) + Math.min(...sections.map(({ top }) => top))) / 2; // biome-ignore format: one line

/** @throws WindingSectionError where a part of it hides another from the middle */
function fanOf(section: BodySection, middle: number): Fan {
  const places = halfPlaces(section);
  const angles = Float64Array.from(places, ({ x, y }) => Math.atan2(x, middle - y));
  for (let k = 1; k < angles.length; k++) if ((angles[k] as number) < (angles[k - 1] as number) - sameAngle) throw new WindingSectionError(say.foam.windingSection()); // biome-ignore format: one line
  return { angles, radii: Float64Array.from(places, ({ x, y }) => Math.hypot(x, y - middle)), places };
}

/** How far a fan reaches at an angle: where the ray meets the chord there. */
function radiusAt({ angles, places }: Fan, angle: number, middle: number): number {
  let [low, high] = [0, angles.length - 1];
  while (high - low > 1) {
    const between = (low + high) >> 1;
    if ((angles[between] as number) <= angle) low = between;
    else high = between;
  }
  const [p, q] = [places[low] as Point, places[high] as Point];
  const [u, v] = [Math.sin(angle), -Math.cos(angle)];
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const turn = u * dy - v * dx;
  if (Math.abs(turn) < 1e-12) return Math.hypot(p.x, p.y - middle);
  return (p.x * dy - (p.y - middle) * dx) / turn;
}

/**
 * The outline of what sections reach in all, or of what they all have: every place of theirs that no other passes, or that all others do; the
 * largest step between the two, mm. Null where no height lies in all of them: a tail that rises within one slice.
 */
export function drawnFaces(sections: readonly BodySection[]): { larger: Path; smaller: Path | null; stepMm: number } | null {
  const middle = middleOf(sections);
  if (!sections.every(({ bottom, top }) => bottom < middle && top > middle)) return null;
  const fans = sections.map((section) => fanOf(section, middle));
  const [most, least]: [Point[], Point[]] = [[], []];
  let stepMm = 0;
  for (const fan of fans)
    for (const [k, place] of fan.places.entries()) {
      const [angle, own] = [fan.angles[k] as number, fan.radii[k] as number];
      let [high, low] = [own, own];
      for (const other of fans) {
        if (other === fan) continue;
        const r = radiusAt(other, angle, middle);
        if (r > high) high = r;
        if (r < low) low = r;
      }
      stepMm = Math.max(stepMm, high - low);
      if (own >= high - sameMm) most.push(place);
      if (own <= low + sameMm) least.push(place);
    }
  return { larger: mirrored(most, middle), smaller: mirrored(least, middle), stepMm };
}
const sameMm = 1e-7;

/** A whole outline of the places of its right half. */
function mirrored(half: readonly Point[], middle: number): Path {
  const angle = ({ x, y }: Point): number => Math.atan2(x, middle - y);
  const sorted = [...half].sort((a, b) => angle(a) - angle(b)).filter((p, k, all) => k === 0 || Math.hypot(p.x - (all[k - 1] as Point).x, p.y - (all[k - 1] as Point).y) > 1e-6); // biome-ignore format: one line
  const left = sorted.filter(({ x }) => x > 1e-9).map(({ x, y }) => ({ x: -x, y }));
  return polygonPath([...sorted, ...left.reverse()]);
}

/** Rays in half a section that a hollow is looked for along. */
const rays = 90;
const rounds = 14;

/**
 * What lies in every section at least so far from its outline: along rays from the middle as far out as each lets it; null for nothing.
 * @param within sections, each with how far the outline has to stay away from its own
 */
export function drawnHollow(within: readonly { readonly section: BodySection; readonly awayMm: number }[]): Path | null {
  const sections = within.map(({ section }) => section);
  const middle = middleOf(sections);
  if (!sections.every(({ bottom, top }) => bottom < middle && top > middle)) return null;
  const borders = within.map(({ section, awayMm }) => ({ fan: fanOf(section, middle), border: borderOf(section), awayMm }));
  const isFree = (x: number, y: number, angle: number, r: number): boolean =>
    borders.every(({ fan, border, awayMm }) => r < radiusAt(fan, angle, middle) && isAway(border, x, y, awayMm));
  const half: Point[] = [];
  for (let k = 0; k <= rays; k++) {
    const angle = (Math.PI * k) / rays;
    const [u, v] = [Math.sin(angle), -Math.cos(angle)];
    let [low, high] = [0, Math.min(...borders.map(({ fan }) => radiusAt(fan, angle, middle)))];
    if (!isFree(0, middle, angle, 0)) return null;
    for (let round = 0; round < rounds; round++) {
      const r = (low + high) / 2;
      if (isFree(r * u, middle + r * v, angle, r)) low = r;
      else high = r;
    }
    half.push({ x: Math.max(0, low * u), y: middle + low * v });
  }
  return mirrored(half, middle);
}

/** A section's whole outline, x and y in turn. */
function borderOf(section: BodySection): Float64Array {
  const half = halfPlaces(section);
  const whole = [...half, ...half.filter(({ x }) => x > 0).map(({ x, y }) => ({ x: -x, y })).reverse()]; // biome-ignore format: one line
  return Float64Array.from(whole.flatMap(({ x, y }) => [x, y]));
}

/** Whether a place lies no nearer to a closed polygon than a distance. */
function isAway(border: Float64Array, x: number, y: number, awayMm: number): boolean {
  if (awayMm <= 0) return true;
  const limit = awayMm * awayMm;
  let [ax, ay] = [border[border.length - 2] as number, border[border.length - 1] as number];
  for (let k = 0; k < border.length; k += 2) {
    const [bx, by] = [border[k] as number, border[k + 1] as number];
    const [dx, dy] = [bx - ax, by - ay];
    const length = dx * dx + dy * dy;
    const t = length > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / length)) : 0;
    const [ex, ey] = [ax + t * dx - x, ay + t * dy - y];
    if (ex * ex + ey * ey < limit) return false;
    [ax, ay] = [bx, by];
  }
  return true;
}
