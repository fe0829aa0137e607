/**
 * In: where an object is dragged to in its drawer. Out: where it snaps to: against the margin, a wall's width off a neighbour, in line with one, or
 * in the drawer's middle.
 */
import { type Box, type Point, pathBox } from '../plane/index.ts';
import type { TraySettings } from './settings.ts';
import type { TrayPlan } from './tray-plan.ts';

export interface TraySnap {
  readonly at: Point;
  /** What it snapped to, across and up; null where it lies free. */
  readonly across: SnapWord | null;
  readonly up: SnapWord | null;
}
type SnapWord = 'margin' | 'wall' | 'in line' | 'middle';

interface Candidate {
  readonly at: number;
  readonly word: SnapWord;
}

/** @param size of its pocket, as it is turned; @param reachMm how near it has to come */
export function snappedInTray(
  { pockets, widthMm, lengthMm }: TrayPlan,
  { marginMm, wallMm }: Pick<TraySettings, 'marginMm' | 'wallMm'>,
  pieceId: string,
  at: Point,
  size: { readonly width: number; readonly height: number },
  reachMm: number,
): TraySnap {
  const others = pockets.filter((one) => one.pieceId !== pieceId).map(({ pocket }) => pathBox(pocket.outer));
  const own = { minX: at.x - size.width / 2, maxX: at.x + size.width / 2, minY: at.y - size.height / 2, maxY: at.y + size.height / 2 };
  /** A wall stands only between what lies side by side. */
  const isBeside = (box: Box, from: 'minX' | 'minY', to: 'maxX' | 'maxY'): boolean => box[from] < own[to] + wallMm && own[from] < box[to] + wallMm; // biome-ignore format: one line
  const along = (
    place: number,
    half: number,
    whole: number,
    low: (box: Box) => number,
    high: (box: Box) => number,
    beside: readonly Box[],
  ): Candidate | null => {
    const candidates: Candidate[] = [
      { at: marginMm + half, word: 'margin' },
      { at: whole - marginMm - half, word: 'margin' },
      ...beside.flatMap((box): Candidate[] => [
        { at: high(box) + wallMm + half, word: 'wall' },
        { at: low(box) - wallMm - half, word: 'wall' },
      ]),
      ...others.flatMap((box): Candidate[] => [
        { at: (low(box) + high(box)) / 2, word: 'in line' },
        { at: low(box) + half, word: 'in line' },
        { at: high(box) - half, word: 'in line' },
      ]),
      { at: whole / 2, word: 'middle' },
    ];
    const nearest = candidates.reduce((best, one) => (Math.abs(one.at - place) < Math.abs(best.at - place) ? one : best));
    return Math.abs(nearest.at - place) <= reachMm ? nearest : null;
  };
  const x = along(at.x, size.width / 2, widthMm, (box) => box.minX, (box) => box.maxX, others.filter((box) => isBeside(box, 'minY', 'maxY'))); // biome-ignore format: one line
  const y = along(at.y, size.height / 2, lengthMm, (box) => box.minY, (box) => box.maxY, others.filter((box) => isBeside(box, 'minX', 'maxX'))); // biome-ignore format: one line
  return { at: { x: x?.at ?? at.x, y: y?.at ?? at.y }, across: x?.word ?? null, up: y?.word ?? null };
}
