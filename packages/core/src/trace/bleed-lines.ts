/**
 * In: the closed outlines of a die line, and its creases. Out: which of them are bleed lines: each goes about a cut at one distance, to show how far
 * print reaches beyond it, and is not cut itself. How far bleed lies off is common practice.
 */
import { endOf, isInside, nearestOnPath, type Path, pathArea, pathBox, polygonOf } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';

/** Bleed lies off the cut by so much, mm. */
const bleedMm = { min: 0.8, max: 8 };
/** Its distance varies by no more than this share of it, or as an even line is read, mm. */
const evenShare = 0.1;
const evenMm = 0.2;
/** At so many places the two are held together; beside the cut's inner corners the distance may differ. */
const places = 200;
const mayDiffer = 0.1;

/** A crease ends this near to the cut that it runs between, mm: a gap of its dashes. */
const creaseEndMm = 5;

/** The numbers of the bleed lines. @param mmPerPx of the outlines' unit */
export function bleedLinesAmong(outlines: readonly Path[], creases: readonly Path[], mmPerPx: number): Set<number> {
  const order = outlines.map((_, k) => k).sort((a, b) => Math.abs(pathArea(outlines[b] as Path)) - Math.abs(pathArea(outlines[a] as Path)));
  const bleeds = new Set<number>();
  for (const [i, outer] of order.entries())
    if (order.slice(i + 1).some((inner) => isBleed(outlines[outer] as Path, outlines[inner] as Path, creases, mmPerPx))) bleeds.add(outer);
  return bleeds;
}

/** Rings within rings may be meant: it is creases from side to side, and none that go on outside, that make a carton of one. */
function isBleed(outer: Path, inner: Path, creases: readonly Path[], mmPerPx: number): boolean {
  if (!goesAbout(outer, inner, mmPerPx)) return false;
  const isAt = (line: Path, end: Point): boolean => nearestOnPath(line, end).distance * mmPerPx <= creaseEndMm;
  const ends = creases.map((crease) => [crease.start, endOf(crease)]);
  const isAxis = ends.some((two) => two.some((end) => isAt(outer, end)) && two.some((end) => !isInside(outer, end) && !isAt(outer, end)));
  return !isAxis && ends.some((two) => two.every((end) => isAt(inner, end)));
}

function goesAbout(outer: Path, inner: Path, mmPerPx: number): boolean {
  const [a, b] = [pathBox(outer), pathBox(inner)];
  const margins = [b.minX - a.minX, b.minY - a.minY, a.maxX - b.maxX, a.maxY - b.maxY].map((m) => m * mmPerPx);
  if (margins.some((m) => m < bleedMm.min || m > bleedMm.max)) return false;
  const corners = polygonOf(inner, 0.3 / mmPerPx);
  const steps = Math.max(1, Math.ceil(places / corners.length));
  const distances = corners
    .flatMap((p, k) => {
      const q = corners[(k + 1) % corners.length] as typeof p;
      // Between corners: about an inner one the outer line lies farther off.
      return Array.from({ length: steps }, (_, i) => (i + 0.5) / steps).map((t) => ({
        x: p.x + t * (q.x - p.x),
        y: p.y + t * (q.y - p.y),
      }));
    })
    .map((p) => nearestOnPath(outer, p).distance * mmPerPx)
    .sort((p, q) => p - q);
  const usual = distances[distances.length >> 1] as number;
  const even = distances.filter((d) => Math.abs(d - usual) <= Math.max(evenMm, evenShare * usual));
  return usual >= bleedMm.min && usual <= bleedMm.max && even.length >= (1 - mayDiffer) * distances.length;
}
