/**
 * In: a sheet, and the boxes of what is cut from it. Out: what is left of it that is worth keeping: above the skyline of the boxes, as such parts
 * are packed from below, with upright and level edges, so that one straight-edged cut sets it free.
 */
import { type Box, heightOf, type Path, pathArea, pathBox, polygonPath, widthOf } from '../plane/index.ts';
import { combined, counterClockwise } from '../shape/index.ts';

/** A stretch of the skyline, and how far up the sheet is used there, mm. */
interface Step {
  readonly from: number;
  readonly to: number;
  readonly up: number;
}

/**
 * @param sheet its box begins at the origin
 * @param leastMm narrower or lower than this nothing is kept
 */
export function leftoversOf(sheet: Path, boxes: readonly Box[], leastMm: number): Path[] {
  const { maxX, maxY } = pathBox(sheet);
  const used = usedAreas(keptSkyline(skyline(boxes, maxX, maxY), maxY, leastMm), maxX, maxY);
  const parts = used.length > 0 ? combined([counterClockwise(sheet)], used, 'take-away') : [sheet];
  return parts.filter((path) => {
    const box = pathBox(path);
    return pathArea(path) > 0 && widthOf(box) >= leastMm && heightOf(box) >= leastMm;
  });
}

/** So far beyond the sheet's edges its used part is drawn, so that no two edges lie on one another, mm. */
const beyondMm = 1;

/** What lies below the skyline, each stretch without a gap as one outline. */
function usedAreas(steps: readonly Step[], widthMm: number, heightMm: number): Path[] {
  const runs = steps.reduce<Step[][]>((all, step, k) => {
    if (step.up <= 0) return all;
    if (k > 0 && (steps[k - 1] as Step).up > 0) all.at(-1)?.push(step);
    else all.push([step]);
    return all;
  }, []);
  return runs.map((run) => {
    const left = (x: number): number => (x <= 0 ? x - beyondMm : x);
    const right = (x: number): number => (x >= widthMm ? x + beyondMm : x);
    const above = (y: number): number => (y >= heightMm ? y + beyondMm : y);
    // Up to the sheet's edge is beyond it.
    const top = run.toReversed().flatMap(({ from, to, up }) => [{ x: right(to), y: above(up) }, { x: left(from), y: above(up) }]); // biome-ignore format: two corners
    return polygonPath([{ x: left(run[0]?.from as number), y: -beyondMm }, { x: right(run.at(-1)?.to as number), y: -beyondMm }, ...top]);
  });
}

/** How far up a sheet is used, from the left to the right. */
function skyline(used: readonly Box[], widthMm: number, heightMm: number): Step[] {
  const edges = [...new Set([0, widthMm, ...used.flatMap(({ minX, maxX }) => [minX, maxX])])].filter((x) => x >= 0 && x <= widthMm).sort((a, b) => a - b); // biome-ignore format: one line
  const steps = edges.slice(1).map((to, k): Step => {
    const from = edges[k] as number;
    const over = used.filter(({ minX, maxX }) => minX < to && maxX > from);
    return {
      from,
      to,
      up: Math.min(
        heightMm,
        over.reduce((most, { maxY }) => Math.max(most, maxY), 0),
      ),
    };
  });
  return merged(steps);
}

/** Valleys in which nothing fits are filled up to the lower of their sides, and what is too low to keep up to the sheet's edge. */
function keptSkyline(steps: readonly Step[], heightMm: number, leastMm: number): Step[] {
  const now = merged(steps.map((step) => (step.up > heightMm - leastMm ? { ...step, up: heightMm } : step)));
  for (;;) {
    const at = now.findIndex(({ from, to, up }, k) => {
      const [left, right] = [now[k - 1]?.up ?? Infinity, now[k + 1]?.up ?? Infinity];
      return to - from < leastMm && up < Math.min(left, right) && Math.min(left, right) < Infinity;
    });
    if (at < 0) return now;
    const { from, to } = now[at] as Step;
    now[at] = { from, to, up: Math.min(now[at - 1]?.up ?? Infinity, now[at + 1]?.up ?? Infinity) };
    now.splice(0, now.length, ...merged(now));
  }
}

/** Neighbours as high as one another as one. */
function merged(steps: readonly Step[]): Step[] {
  return steps.reduce<Step[]>((all, step) => {
    const last = all.at(-1);
    if (last?.up === step.up) all[all.length - 1] = { ...last, to: step.to };
    else all.push(step);
    return all;
  }, []);
}
