/** In: a wing panel's plan. Out: what the hot wire that stands in for a real one is sent: its towers, block and burn, the program, the faces. */
import { burnLine, type WingPlan, type WingSettings } from '../../foam/index.ts';
import { towerAxes } from '../../formats/index.ts';
import type { Point } from '../../plane/index.ts';
import type { Work } from '../process.ts';
import type { StandInJob } from '../stand-in.ts';
import { wireText } from './wing-files.ts';

/** Places along a run at which both faces are measured. */
const placesAlong = 24;
/** How near an edge of the core places are left out, as a share of a run: a wire rounds every edge. */
const fromEdge = 0.04;

export async function wingJob({ title, settings }: Work<WingSettings>, { cut, panel, betweenMm, toFoamMm }: WingPlan): Promise<StandInJob> {
  const { root, tip } = cut.faces;
  const matched = root.runs.flatMap((run, k) => {
    const other = tip.runs[k];
    if (!other || !['upper', 'lower'].includes(run.kind)) return [];
    return Array.from({ length: placesAlong + 1 }, (_, n) => {
      const share = fromEdge + ((1 - 2 * fromEdge) * n) / placesAlong;
      return { root: placeAlong(run.points, share), tip: placeAlong(other.points, share) };
    });
  });
  const [left, right] = settings.isTipLeft ? (['tip', 'root'] as const) : (['root', 'tip'] as const);
  const places = (face: 'root' | 'tip'): [number, number][] => matched.map((one) => [one[face].x, one[face].y]);
  return {
    programs: [{ text: wireText(cut, title, settings), tools: [] }],
    mill: null,
    wire: {
      blocks: [
        {
          name: title,
          setUp: {
            betweenMm,
            toBlockMm: toFoamMm,
            spanMm: panel.spanMm,
            axes: [...towerAxes[settings.axes]],
            ...burnLine(settings.burn),
            fastestMmPerMin: settings.fastestMmPerMin,
          },
          faces: { left: places(left), right: places(right) },
        },
      ],
    },
  };
}

/** A place at a share of a line's length. */
function placeAlong(points: readonly Point[], share: number): Point {
  const lengths = points.slice(1).map((p, k) => Math.hypot(p.x - (points[k] as Point).x, p.y - (points[k] as Point).y));
  let left = share * lengths.reduce((a, b) => a + b, 0);
  for (const [k, length] of lengths.entries()) {
    const [p, q] = [points[k] as Point, points[k + 1] as Point];
    if (left <= length)
      return { x: p.x + ((q.x - p.x) * left) / Math.max(length, 1e-12), y: p.y + ((q.y - p.y) * left) / Math.max(length, 1e-12) };
    left -= length;
  }
  return points.at(-1) as Point;
}
