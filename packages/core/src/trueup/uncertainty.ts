/**
 * In: a solution of the marks. Out: how far it can be relied on: each mark's leverage, marks that do not agree, what to
 * expect of a length.
 * Rests on: shares of the information matrix; deleted residuals by their leverage (Cook & Weisberg 1982); first-order
 * propagation of the parameters' covariance.
 */

import { chanceOfF } from '../numeric/f-distribution.ts';
import type { Box } from '../plane/box.ts';
import { distance } from '../plane/point.ts';
import { inverseProjection, type Projection, project } from '../plane/projection.ts';
import type { TrueUpMark } from './mark-kinds.ts';
import type { PictureSize } from './marks.ts';
import { type ModelParameters, type Normalization, pixelProjection } from './model.ts';
import type { Candidate } from './model-selection.ts';
import { parameters } from './parameters.ts';
import type { Solution } from './solve.ts';

export interface Outlier {
  readonly id: string;
  /** How unlikely so large a residual is by chance. */
  readonly chance: number;
}

/** Each mark's share of what all tell of scale, turn and shape. */
export function leverageOf(marks: readonly TrueUpMark[], solution: Solution | undefined): Map<string, number> {
  if (!solution) return new Map();
  const { freeIndices: free, covariance } = solution;
  const perMark = solution.informationPerMark();
  return new Map(
    marks.map((m, k) => {
      const information = perMark[k] ?? [];
      let trace = 0;
      free.forEach((i, a) => {
        free.forEach((j, b) => {
          trace += covariance.get(i, j) * (information[b]?.[a] ?? 0);
        });
      });
      return [m.id, free.length > 0 ? trace / free.length : 0];
    }),
  );
}

/** Marks whose residual is larger than chance allows, judged by the fit without them. */
export function outliersOf(
  marks: readonly TrueUpMark[],
  { solution, variance }: Candidate,
  leverages: ReadonlyMap<string, number>,
): Outlier[] {
  const { freedom, freeIndices } = solution;
  const { priorWeight, handNoise } = parameters;
  const scores = marks.map((m, k) => {
    const residuals = solution.residuals[k] as readonly number[];
    const own = residuals.reduce((s, r) => s + r * r, 0);
    const lever = Math.min(parameters.maxLeverage, ((leverages.get(m.id) ?? 0) * freeIndices.length) / residuals.length);
    return { id: m.id, rows: residuals.length, gain: own / (1 - lever) };
  });
  const worst = scores.toSorted((a, b) => b.gain - a.gain)[0];
  if (!worst || freedom < worst.rows) return [];
  const total = variance * (priorWeight + freedom);
  const others = Math.max(priorWeight * handNoise ** 2, total - worst.gain) / (priorWeight + freedom - worst.rows);
  const chance = Math.min(1, marks.length * chanceOfF(worst.gain / worst.rows / others, worst.rows, priorWeight + freedom - worst.rows));
  if (chance > parameters.outlierSignificance) return [];
  // Two that only contradict each other are both named.
  return scores.filter((s) => s.gain > parameters.alsoOutlier * worst.gain).map((s) => ({ id: s.id, chance }));
}

/** Two standard errors of a length through the picture's middle, the worse of level and plumb. */
export function expectation(candidate: Candidate, normal: Normalization, box: Box, size: PictureSize) {
  const extent = Math.max(box.maxX - box.minX, box.maxY - box.minY);
  const decade = 10 ** Math.floor(Math.log10(extent));
  const overMm = decade * ([5, 2, 1].find((k) => k * decade <= extent) ?? 1);
  const flat = pixelProjection(candidate.solution.values, normal);
  const back = inverseProjection(flat);
  const middle = project(flat, { x: size.widthPx / 2, y: size.heightPx / 2 });
  const errors = [
    { x: overMm / 2, y: 0 },
    { x: 0, y: overMm / 2 },
  ].map(({ x, y }) => {
    const ends = [project(back, { x: middle.x - x, y: middle.y - y }), project(back, { x: middle.x + x, y: middle.y + y })] as const;
    return propagated(candidate, normal, (moved) => distance(project(moved, ends[0]), project(moved, ends[1])));
  });
  return { overMm, plusMinusMm: 2 * Math.max(...errors) };
}

/** One standard error of what is measured on a map from pixels to mm. */
export function propagated(
  { solution, variance }: Pick<Candidate, 'solution' | 'variance'>,
  normal: Normalization,
  measure: (toSheet: Projection) => number,
): number {
  const at = (k: number, by: number): number =>
    measure(pixelProjection(solution.values.map((v, j) => (j === k ? v + by : v)) as unknown as ModelParameters, normal));
  const slopes = solution.values.map((_, k) => (at(k, 1e-6) - at(k, -1e-6)) / 2e-6);
  let sum = 0;
  for (const [i, s] of slopes.entries()) for (const [j, t] of slopes.entries()) sum += s * t * solution.covariance.get(i, j);
  return Math.sqrt(Math.max(0, sum) * variance);
}
