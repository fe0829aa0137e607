/**
 * In: marks and where to start. Out: the models that the marks carry, plainest first, and the one to take.
 * Rests on: a richer model is recommended where an F-test says that it explains more than chance would (Snedecor &
 * Cochran 1989), the noise being that of marks placed by hand and that of the residuals, together.
 */

import { english } from '../messages/index.ts';
import { chanceOfF } from '../numeric/f-distribution.ts';
import type { Point } from '../plane/point.ts';
import { depthAt, type FourPoints, project, projectionOfFour } from '../plane/projection.ts';
import { isDirection, isTemplate, type TrueUpMark, templatePoints } from './mark-kinds.ts';
import { type ShapeModel, shapeModels } from './marks.ts';
import { type ModelParameters, modelOf, modelSize, type Normalization, normalProjection, pixelProjection } from './model.ts';
import { parameters } from './parameters.ts';
import { type LeastSquaresProblem, type Solution, solveShape } from './solve.ts';

export interface Candidate {
  readonly model: ShapeModel;
  readonly solution: Solution;
  /** Square of one deviation of the marks' noise, square pixels. */
  readonly variance: number;
}

/** The models that the marks carry, plainest first. The plainest is always among them where anything is free. */
export function fittedCandidates(
  marks: readonly TrueUpMark[],
  normal: Normalization,
  start: ModelParameters,
  scaleIsFree: boolean,
): Candidate[] {
  const hasDirections = marks.some(isDirection);
  const plates = marks.filter(isTemplate);
  const turnIsFree = hasDirections || plates.length > 0;
  if (!turnIsFree && !scaleIsFree) return [];
  // Without a level or plumb line the first template lies square on the sheet; the others may lie as they do.
  const turning = new Set((hasDirections ? plates : plates.slice(1)).map((m) => m.id));
  const problem = { marks, normal, scaleIsFree, turnIsFree, turning };
  const candidates: Candidate[] = [];
  let from = startTurned(marks, normal, start, hasDirections);
  for (const model of scaleIsFree ? shapeModels : (['uniform'] as const)) {
    const plate = model === 'perspective' ? plates[0] : undefined;
    const best = (plate && fromPlate(plate, problem, normal)) ?? solveShape({ ...problem, model }, from);
    if (!best || (model !== 'uniform' && !isCarried(model, best, marks, normal))) continue;
    candidates.push({ model, solution: best, variance: varianceOf(best) });
    from = best.values;
  }
  return candidates;
}

/** A template that squares the sheet turns it by less than an eighth, to where its sides lie. */
function startTurned(marks: readonly TrueUpMark[], normal: Normalization, start: ModelParameters, hasDirections: boolean): ModelParameters {
  const plate = marks.find(isTemplate);
  if (!plate || hasDirections) return start;
  const places = templatePoints(plate);
  const placed = plate.points.map((p) => project(pixelProjection(start, normal), p));
  const [f0, f1, t0, t1] = [places[0], places[1], placed[0], placed[1]] as [Point, Point, Point, Point];
  const raw = Math.atan2(t1.y - t0.y, t1.x - t0.x) - Math.atan2(f1.y - f0.y, f1.x - f0.x);
  const quarter = Math.PI / 2;
  return [start[0], -(raw - quarter * Math.round(raw / quarter)), start[2], start[3], start[4], start[5]];
}

/** Perspective started from the closed form of a template's first four points. */
function fromPlate(plate: TrueUpMark, problem: Omit<LeastSquaresProblem, 'model'>, normal: Normalization): Solution | null {
  const toNormal = normalProjection(normal);
  const four = (plate.points.length === 4 ? [0, 1, 2, 3] : [0, 5, 10, 15]).map((k) => k % plate.points.length);
  const places = templatePoints(plate);
  const from = four.map((k) => project(toNormal, plate.points[k] as Point)) as unknown as FourPoints;
  const square = Math.round(turnOfPlate(plate) / (Math.PI / 2)) * (Math.PI / 2);
  const [c, s] = [Math.cos(square), Math.sin(square)];
  const to = four.map((k) => {
    const { x, y } = places[k] as Point;
    return { x: c * x - s * y, y: s * x + c * y };
  }) as unknown as FourPoints;
  const closed = projectionOfFour(from, to);
  const values = closed && modelOf(closed);
  return values ? solveShape({ ...problem, model: 'perspective' }, values) : null;
}

/** How a template's first side lies in the picture, radians, y up, less how it lies on the template. */
function turnOfPlate(plate: TrueUpMark): number {
  const places = templatePoints(plate);
  const [p, q, f, t] = [plate.points[0], plate.points[1], places[0], places[1]] as [Point, Point, Point, Point];
  return Math.atan2(p.y - q.y, q.x - p.x) - Math.atan2(t.y - f.y, t.x - f.x);
}

function isCarried(model: ShapeModel, { values, covariance }: Solution, marks: readonly TrueUpMark[], normal: Normalization): boolean {
  for (let k = 2; k < modelSize[model]; k++)
    if (Math.sqrt(covariance.get(k, k)) * parameters.handNoise > parameters.carriedTo) return false;
  if (Math.abs(values[2]) > (model === 'perspective' ? parameters.maxPerspectiveStretch : parameters.maxStretch)) return false;
  if (model !== 'perspective') return Math.abs(values[3]) < parameters.maxShear;
  const flat = pixelProjection(values, normal);
  return marks.every((m) => m.points.every((p) => depthAt(flat, p) > parameters.minMarkDepth));
}

function varianceOf({ squares, freedom }: Solution): number {
  const { priorWeight, handNoise } = parameters;
  return (priorWeight * handNoise ** 2 + squares) / (priorWeight + freedom);
}

const modelWords: Record<ShapeModel, string> = {
  uniform: english.trueUp.oneScaleAndATurn,
  stretch: english.trueUp.twoScales,
  affine: english.trueUp.twoScalesAndASlant,
  perspective: english.trueUp.perspective,
};

export function selectModel(candidates: readonly Candidate[], pinned: ShapeModel | null, noisePx: number | undefined) {
  if (candidates.length === 0) return { candidate: null, recommended: null, reason: '' };
  let at = 0;
  let reason = english.trueUp.explainsTheMarks(modelWords[(candidates[0] as Candidate).model]);
  if (candidates.length === 1) reason = english.trueUp.oneScaleOnly;
  for (let k = 1; k < candidates.length; k++) {
    const [plain, rich] = [candidates[at] as Candidate, candidates[k] as Candidate];
    const extra = modelSize[rich.model] - modelSize[plain.model];
    const variance = noisePx ? noisePx ** 2 : rich.variance;
    const f = Math.max(0, plain.solution.squares - rich.solution.squares) / extra / variance;
    const chance = chanceOfF(f, extra, noisePx ? 1e6 : parameters.priorWeight + rich.solution.freedom);
    if (chance >= parameters.modelSignificance) continue;
    const off = (r: Candidate) => Math.sqrt(r.solution.squares / Math.max(1, r.solution.residuals.flat().length));
    reason = english.trueUp.explainsFarBetter(
      modelWords[rich.model],
      off(plain).toFixed(1),
      off(rich).toFixed(1),
      f,
      f.toFixed(1),
      chance,
      (1000 * chance).toFixed(0),
    );
    at = k;
  }
  const recommended = (candidates[at] as Candidate).model;
  const candidate = candidates.find((r) => r.model === pinned) ?? (candidates[at] as Candidate);
  return { candidate: noisePx ? { ...candidate, variance: noisePx ** 2 } : candidate, recommended, reason };
}
