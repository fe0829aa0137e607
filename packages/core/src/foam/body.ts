/**
 * In: the outlines of a body from the side and from above, and the rule of its sections. Out: the body: how long it is, and its section at any
 * station, read from the outlines where an upright line crosses them. Stations run from the nose at 0 aft.
 */
import { SaidError, say } from '../messages/index.ts';
import { heightOf, type Path, pathArea, pathBox, widthOf } from '../plane/index.ts';
import { pathCrossings } from '../shape/index.ts';
import { type BodySection, type SectionRule, sectionOutline } from './body-section.ts';

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

/** @throws BodyError where a view is open or has no extent */
export function bodyOf({ side, above, nose }: BodyViews, rule: SectionRule): Body {
  for (const view of [side, ...(above ? [above] : [])]) if (!view.closed || widthOf(pathBox(view)) < 4 * endMm) throw new BodyError(say.foam.openView()); // biome-ignore format: one line
  const box = pathBox(side);
  const lengthMm = widthOf(box);
  const aboveBox = above && pathBox(above);
  const scale = aboveBox ? lengthMm / widthOf(aboveBox) : 1;
  const section = (station: number): BodySection | null => {
    const inside = Math.min(lengthMm - endMm, Math.max(endMm, station));
    if (station < -endMm || station > lengthMm + endMm) return null;
    const heights = spanAt(side, nose === 'left' ? box.minX + inside : box.maxX - inside);
    const widths = above && aboveBox ? spanAt(above, nose === 'left' ? aboveBox.minX + inside / scale : aboveBox.maxX - inside / scale) : heights; // biome-ignore format: one line
    if (!heights || !widths) return null;
    const halfWidth = ((widths.high - widths.low) / 2) * (above ? scale : 1);
    return halfWidth > 0 && heights.high > heights.low ? { halfWidth, bottom: heights.low - box.minY, top: heights.high - box.minY, rule } : null; // biome-ignore format: one line
  };
  return {
    lengthMm,
    heightMm: heightOf(box),
    widthMm: aboveBox ? heightOf(aboveBox) * scale : heightOf(box),
    longerMm: aboveBox ? widthOf(aboveBox) - lengthMm : 0,
    section,
  };
}

/** From the lowest to the highest place of an outline on an upright line. */
function spanAt(path: Path, x: number): { low: number; high: number } | null {
  const { minY, maxY } = pathBox(path);
  const line: Path = { start: { x, y: minY - 1 }, segments: [{ kind: 'line', to: { x, y: maxY + 1 } }], closed: false };
  const ys = pathCrossings([path], [line]).onA.map(({ at }) => at.y);
  return ys.length < 2 ? null : { low: Math.min(...ys), high: Math.max(...ys) };
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
