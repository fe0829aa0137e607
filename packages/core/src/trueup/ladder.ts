/**
 * In: marks and where to start. Out: the models that the marks carry, plainest first, and the one to take.
 * Rests on: a richer model is recommended where an F-test says that it explains more than chance would (Snedecor &
 * Cochran 1989), the noise being that of marks placed by hand and that of the residuals, together.
 */

import { english } from '../messages/index.ts';
import type { Point } from '../plane/point.ts';
import { depthAt, type FourPoints, project, projectionOfFour } from '../plane/projection.ts';
import { chanceOfF } from './f-test.ts';
import { handNoisePx, type ShapeModel, shapeModels, type TrueUpMark } from './marks.ts';
import { type Normal, normalProjection, pixelProjection, type ShapeValues, shapeOf, sizeOf } from './shape.ts';
import { type Problem, type Solution, solveShape } from './solve.ts';
import { isDirection, isPlate, platePlaces } from './strain.ts';

/** The noise known beforehand counts as so many residuals. */
export const priorWeight = 4;
/** A richer model must explain what chance would in fewer cases than this. */
const significance = 0.01;
/** What a model's extra parameters must be known to, for hand-placed marks, before it is offered. */
const carriedTo = 0.03;
/** Beyond this a stretch or shear is a wrong mark rather than a wrong scanner. */
const mostStretch = 0.15;

export interface Rung {
  readonly model: ShapeModel;
  readonly solution: Solution;
  /** Square of one deviation of the marks' noise, square pixels. */
  readonly variance: number;
}

/** The models that the marks carry, plainest first. The plainest is always among them where anything is free. */
export function climbed(marks: readonly TrueUpMark[], normal: Normal, start: ShapeValues, scaleIsFree: boolean): Rung[] {
  const hasDirections = marks.some(isDirection);
  const plates = marks.filter(isPlate);
  const turnIsFree = hasDirections || plates.length > 0;
  if (!turnIsFree && !scaleIsFree) return [];
  // Without a level or plumb line the first plate lies square on the sheet; the others may lie as they do.
  const turning = new Set((hasDirections ? plates : plates.slice(1)).map((m) => m.id));
  const problem = { marks, normal, scaleIsFree, turnIsFree, turning };
  const rungs: Rung[] = [];
  let from = startTurned(marks, normal, start, hasDirections);
  for (const model of scaleIsFree ? shapeModels : (['uniform'] as const)) {
    const plate = model === 'perspective' ? plates[0] : undefined;
    const best = (plate && fromPlate(plate, problem, normal)) ?? solveShape({ ...problem, model }, from);
    if (!best || (model !== 'uniform' && !isCarried(model, best, marks, normal))) continue;
    rungs.push({ model, solution: best, variance: varianceOf(best) });
    from = best.values;
  }
  return rungs;
}

/** A plate that squares the sheet turns it by less than an eighth, to where its sides lie. */
function startTurned(marks: readonly TrueUpMark[], normal: Normal, start: ShapeValues, hasDirections: boolean): ShapeValues {
  const plate = marks.find(isPlate);
  if (!plate || hasDirections) return start;
  const places = platePlaces(plate);
  const placed = plate.points.map((p) => project(pixelProjection(start, normal), p));
  const [f0, f1, t0, t1] = [places[0], places[1], placed[0], placed[1]] as [Point, Point, Point, Point];
  const raw = Math.atan2(t1.y - t0.y, t1.x - t0.x) - Math.atan2(f1.y - f0.y, f1.x - f0.x);
  const quarter = Math.PI / 2;
  return [start[0], -(raw - quarter * Math.round(raw / quarter)), start[2], start[3], start[4], start[5]];
}

/** Perspective started from the closed form of a plate's first four points. */
function fromPlate(plate: TrueUpMark, problem: Omit<Problem, 'model'>, normal: Normal): Solution | null {
  const toNormal = normalProjection(normal);
  const four = (plate.points.length === 4 ? [0, 1, 2, 3] : [0, 5, 10, 15]).map((k) => k % plate.points.length);
  const places = platePlaces(plate);
  const from = four.map((k) => project(toNormal, plate.points[k] as Point)) as unknown as FourPoints;
  const square = Math.round(turnOfPlate(plate) / (Math.PI / 2)) * (Math.PI / 2);
  const [c, s] = [Math.cos(square), Math.sin(square)];
  const to = four.map((k) => {
    const { x, y } = places[k] as Point;
    return { x: c * x - s * y, y: s * x + c * y };
  }) as unknown as FourPoints;
  const closed = projectionOfFour(from, to);
  const values = closed && shapeOf(closed);
  return values ? solveShape({ ...problem, model: 'perspective' }, values) : null;
}

/** How a plate's first side lies in the picture, radians, y up, less how it lies on the plate. */
function turnOfPlate(plate: TrueUpMark): number {
  const places = platePlaces(plate);
  const [p, q, f, t] = [plate.points[0], plate.points[1], places[0], places[1]] as [Point, Point, Point, Point];
  return Math.atan2(p.y - q.y, q.x - p.x) - Math.atan2(t.y - f.y, t.x - f.x);
}

function isCarried(model: ShapeModel, { values, covariance }: Solution, marks: readonly TrueUpMark[], normal: Normal): boolean {
  for (let k = 2; k < sizeOf[model]; k++) if (Math.sqrt(covariance.get(k, k)) * handNoisePx > carriedTo) return false;
  if (Math.abs(values[2]) > (model === 'perspective' ? 1.2 : mostStretch)) return false;
  if (model !== 'perspective') return Math.abs(values[3]) < 2 * mostStretch;
  const flat = pixelProjection(values, normal);
  return marks.every((m) => m.points.every((p) => depthAt(flat, p) > 0.1));
}

const varianceOf = ({ squares, freedom }: Solution): number => (priorWeight * handNoisePx ** 2 + squares) / (priorWeight + freedom);

const modelWords: Record<ShapeModel, string> = {
  uniform: english.trueUp.oneScaleAndATurn,
  stretch: english.trueUp.twoScales,
  affine: english.trueUp.twoScalesAndASlant,
  perspective: english.trueUp.perspective,
};

export function chosen(rungs: readonly Rung[], pinned: ShapeModel | null, noisePx: number | undefined) {
  if (rungs.length === 0) return { rung: null, recommended: null, reason: '' };
  let at = 0;
  let reason = english.trueUp.explainsTheMarks(modelWords[(rungs[0] as Rung).model]);
  if (rungs.length === 1) reason = english.trueUp.oneScaleOnly;
  for (let k = 1; k < rungs.length; k++) {
    const [plain, rich] = [rungs[at] as Rung, rungs[k] as Rung];
    const extra = sizeOf[rich.model] - sizeOf[plain.model];
    const variance = noisePx ? noisePx ** 2 : rich.variance;
    const f = Math.max(0, plain.solution.squares - rich.solution.squares) / extra / variance;
    const chance = chanceOfF(f, extra, noisePx ? 1e6 : priorWeight + rich.solution.freedom);
    if (chance >= significance) continue;
    const off = (r: Rung) => Math.sqrt(r.solution.squares / Math.max(1, r.solution.residuals.flat().length));
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
  const recommended = (rungs[at] as Rung).model;
  const rung = rungs.find((r) => r.model === pinned) ?? (rungs[at] as Rung);
  return { rung: noisePx ? { ...rung, variance: noisePx ** 2 } : rung, recommended, reason };
}
