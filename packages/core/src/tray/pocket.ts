/**
 * In: the true outline of an object, and how it is to lie. Out: the pocket for it: grown by the clearance, with a notch for a finger, its corners
 * as round as the tool that cuts them.
 */
import { chain, levelCrossings, type Path, type Point, pathArea, polygonOf, shift, transformedPath, turn } from '../plane/index.ts';
import { combined, distanceTo, figurePath, nested, offsetClosed, offsetPiece, windingNumber } from '../shape/index.ts';
import type { Area } from './true-outline.ts';

export interface PocketSettings {
  readonly clearanceMm: number;
  readonly cutterMm: number;
  readonly notchMm: number;
  /** As a share of the object's length; null for no notch. */
  readonly notchAt: number | null;
  /** Islands narrower than this do not stand. */
  readonly wallMm: number;
}

export interface Pocket {
  readonly area: Area;
  readonly notch: Path | null;
  /** By how much the object's corners stand over what the tool can cut, mm. */
  readonly tightMm: number;
}

/** The largest of the parts that something becomes; null where nothing stays. */
export const largestOf = (areas: readonly Area[]): Area | null =>
  areas.reduce<Area | null>((best, one) => (!best || Math.abs(pathArea(one.outer)) > Math.abs(pathArea(best.outer)) ? one : best), null);

/** Null where the outline is too small to be a pocket. */
export function pocketOf(object: Area, { clearanceMm, cutterMm, notchMm, notchAt, wallMm }: PocketSettings): Pocket | null {
  const grown = clearanceMm > 0 ? largestOf(offsetPiece(object, clearanceMm)) : object;
  if (!grown) return null;
  const standing = grown.holes.filter((hole) => offsetClosed(hole, wallMm / 2).length > 0);
  const axis = notchAt === null || notchMm <= 0 ? null : acrossAt(object.outer, notchAt);
  const notch = axis && figurePath({ kind: 'slot', from: axis.from, to: axis.to, width: notchMm, play: 0, ends: 'round' });
  const whole = notch ? largestOf(nested(combined([grown.outer, ...standing], [notch], 'unite'))) : { outer: grown.outer, holes: standing };
  if (!whole) return null;
  const r = cutterMm / 2;
  const area = r > 0 ? largestOf(offsetPiece(whole, -r).flatMap((part) => offsetPiece(part, r))) : whole;
  return area && { area, notch, tightMm: r > 0 ? standingOut(object.outer, area) : 0 };
}

const chordMm = 0.05;

/** How far an outline reaches beyond an area, mm. */
function standingOut(outline: Path, area: Area): number {
  const borders = [area.outer, ...area.holes];
  const away = distanceTo(borders);
  return polygonOf(outline, chordMm).reduce((most, p) => (windingNumber(borders, p) > 0 ? most : Math.max(most, away(p))), 0);
}

/** The direction in which an outline is longest: the main axis of its second moments of area, radians. */
function mainAxisOf(outline: Path): { readonly middle: Point; readonly angle: number } {
  const points = polygonOf(outline, chordMm);
  let [area, x, y, xx, xy, yy] = [0, 0, 0, 0, 0, 0];
  points.forEach((p, k) => {
    const q = points[(k + 1) % points.length] as Point;
    const c = p.x * q.y - q.x * p.y;
    area += c / 2;
    x += ((p.x + q.x) * c) / 6;
    y += ((p.y + q.y) * c) / 6;
    xx += ((p.x * p.x + p.x * q.x + q.x * q.x) * c) / 12;
    yy += ((p.y * p.y + p.y * q.y + q.y * q.y) * c) / 12;
    xy += ((p.x * q.y + 2 * p.x * p.y + 2 * q.x * q.y + q.x * p.y) * c) / 24;
  });
  const middle = { x: x / area, y: y / area };
  const [u, v, w] = [xx / area - middle.x ** 2, yy / area - middle.y ** 2, xy / area - middle.x * middle.y];
  return { middle, angle: Math.atan2(2 * w, u - v) / 2 };
}

/** How far an outline reaches along its main axis from its middle. */
export function reachAlong(outline: Path): { readonly middle: Point; readonly angle: number; readonly from: number; readonly to: number } {
  const { middle, angle } = mainAxisOf(outline);
  const along = polygonOf(outline, chordMm).map((p) => (p.x - middle.x) * Math.cos(angle) + (p.y - middle.y) * Math.sin(angle));
  return { middle, angle, from: Math.min(...along), to: Math.max(...along) };
}

/** From edge to edge of an outline, across its main axis at a share of its length. */
function acrossAt(outline: Path, share: number): { from: Point; to: Point } | null {
  const { middle, angle, from, to } = reachAlong(outline);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const along = from + (to - from) * share;
  // Turned until its main axis stands upright: what is across is level then.
  const standing = transformedPath(outline, chain(turn(Math.PI / 2 - angle), shift(-middle.x, -middle.y)));
  const ups = levelCrossings(polygonOf(standing, chordMm), along).map((x) => -x);
  if (ups.length < 2) return null;
  const back = (y: number): Point => ({ x: middle.x + along * c - y * s, y: middle.y + along * s + y * c });
  return { from: back(Math.min(...ups)), to: back(Math.max(...ups)) };
}
