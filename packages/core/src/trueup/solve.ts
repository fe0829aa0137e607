/**
 * In: marks, a model and where to start. Out: the parameters that leave least over, with what they rest on.
 * Rests on: Levenberg-Marquardt; a mark's own unknowns taken out of the information by its Schur complement.
 */

import { inverse, Matrix } from 'ml-matrix';
import { type Limits, levenbergMarquardt } from '../numeric/levenberg-marquardt.ts';
import { cross, dot, middleOf, type Point, subtract } from '../plane/point.ts';
import { project } from '../plane/projection.ts';
import { isTemplate, markKinds, type TrueUpMark, templatePoints } from './mark-kinds.ts';
import type { ShapeModel } from './marks.ts';
import { type ModelParameters, modelSize, type Normalization, pixelProjection } from './model.ts';
import { jacobian, modelJacobian, ownUnknowns, whitenedResiduals } from './residuals.ts';

export interface LeastSquaresProblem {
  readonly marks: readonly TrueUpMark[];
  readonly normal: Normalization;
  readonly model: ShapeModel;
  /** Whether the marks decide the scale, and the turn; what they do not decide stays as it starts. */
  readonly scaleIsFree: boolean;
  readonly turnIsFree: boolean;
  /** The templates that may turn apart from the sheet, by id. */
  readonly turning: ReadonlySet<string>;
}

export interface Solution {
  readonly values: ModelParameters;
  /** Sum of squared residuals, square pixels. */
  readonly squares: number;
  /** Residuals less unknowns; 0 where the marks are met exactly whatever they say. */
  readonly freedom: number;
  /** The inverse information of the six parameters for a mark noise of one pixel; zero rows for those held fixed. */
  readonly covariance: Matrix;
  /** Each mark's residuals. */
  readonly residuals: readonly (readonly number[])[];
  /** Each mark's information on the free parameters (rows of `freeIndices`), worked out when asked for. */
  informationPerMark(): number[][][];
  readonly freeIndices: readonly number[];
}

const limits: Limits = { maxSteps: 60, maxAttempts: 12, settledShare: 1e-5, settled: 1e-18, nearlyShare: 1e-4, minDamping: 1e-12 };

function freeIndicesOf({ model, scaleIsFree, turnIsFree }: LeastSquaresProblem): number[] {
  return Array.from({ length: modelSize[model] }, (_, k) => k).filter((k) => (k === 0 ? scaleIsFree : k === 1 ? turnIsFree : true));
}

/** Null where the marks do not carry the model: the information is singular, or the search ends nowhere. */
export function solveShape(problem: LeastSquaresProblem, start: ModelParameters): Solution | null {
  const free = freeIndicesOf(problem);
  const ownCounts = problem.marks.map((m) => ownUnknowns(m, problem.turning.has(m.id)));
  const at = (values: Six, own: number[][]): Place => {
    const toMm = pixelProjection(values, problem.normal);
    const residuals = problem.marks.map((m, k) => whitenedResiduals(m, toMm, own[k] as number[]));
    return { values, own, residuals, squares: squaresOf(residuals) };
  };
  const begin = [...start] as Six;
  const from = at(
    begin,
    problem.marks.map((m) => ownStart(m, begin, problem.normal)),
  );
  if (!Number.isFinite(from.squares)) return null;
  const rowCount = from.residuals.reduce((n, r) => n + r.length, 0);
  const unknowns = free.length + ownCounts.reduce((a, b) => a + b, 0);
  if (free.length === 0) return settled(problem, from, [], rowCount - unknowns, []);
  if (rowCount < unknowns) return null;
  const slopesOf = ({ values, own }: Place): Slopes => slopesAt(problem, free, ownCounts, values, own);
  const found = levenbergMarquardt(
    from,
    {
      normalEquations: (place) => normalEquations(slopesOf(place), place.residuals, free.length, unknowns),
      moved: ({ values, own }, step) => at(...moved(values, own, step, free, ownCounts)),
    },
    limits,
  );
  return settled(problem, found, slopesOf(found), rowCount - unknowns, ownCounts);
}

type Six = [number, number, number, number, number, number];

/** Where the search stands: the parameters, what is each mark's own, and what they leave over. */
interface Place {
  readonly values: Six;
  readonly own: number[][];
  readonly residuals: number[][];
  readonly squares: number;
}

function squaresOf(residuals: readonly number[][]): number {
  let sum = 0;
  for (const list of residuals) for (const r of list) sum += r * r;
  return sum;
}

/** A mark's own unknowns where the shape as it stands puts them. */
function ownStart(mark: TrueUpMark, values: ModelParameters, normal: Normalization): number[] {
  const toMm = pixelProjection(values, normal);
  const placed = mark.points.map((p) => project(toMm, p));
  if (!isTemplate(mark)) return markKinds[mark.kind].own?.(placed) ?? [];
  const places = templatePoints(mark);
  const [from, to] = [middleOf(places), middleOf(placed)];
  const angle = Math.round(templateAngle(places, placed) / (Math.PI / 2)) * (Math.PI / 2);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [to.x - c * from.x + s * from.y, to.y - s * from.x - c * from.y, angle];
}

/** The turn from a template's places to where they lie (Procrustes). */
export function templateAngle(places: readonly Point[], placed: readonly Point[]): number {
  const [from, to] = [middleOf(places), middleOf(placed)];
  let [dots, crosses] = [0, 0];
  places.forEach((place, k) => {
    const [u, v] = [subtract(place, from), subtract(placed[k] as Point, to)];
    dots += dot(u, v);
    crosses += cross(u, v);
  });
  return Math.atan2(crosses, dots);
}

type Slopes = { shared: number[][]; own: number[][] }[];

/** Each mark's derivatives: a row a parameter, by the free parameters and by its own unknowns. */
const slopesAt = (
  { marks, normal }: LeastSquaresProblem,
  free: readonly number[],
  ownCounts: readonly number[],
  values: ModelParameters,
  own: readonly number[][],
): Slopes => {
  const shape = modelJacobian(values, normal);
  return marks.map((mark, m) => jacobian(mark, shape, free, own[m] as number[], ownCounts[m] as number));
};

/** The information matrix, by rows in one array, and the way downhill. */
function normalEquations(slopes: Slopes, residuals: readonly number[][], freeCount: number, unknowns: number) {
  const information = new Float64Array(unknowns * unknowns);
  const gradient = new Float64Array(unknowns);
  let at = freeCount;
  slopes.forEach(({ shared, own }, m) => {
    const r = residuals[m] as number[];
    const columns = own.length > 0 ? [...shared, ...own] : shared;
    for (let i = 0; i < columns.length; i++) {
      const row = i < freeCount ? i : at + i - freeCount;
      const slope = columns[i] as number[];
      gradient[row] = (gradient[row] as number) - dotted(slope, r);
      for (let j = 0; j <= i; j++) {
        const column = j < freeCount ? j : at + j - freeCount;
        const sum = dotted(slope, columns[j] as number[]);
        information[row * unknowns + column] = (information[row * unknowns + column] as number) + sum;
        if (i !== j) information[column * unknowns + row] = (information[column * unknowns + row] as number) + sum;
      }
    }
    at += own.length;
  });
  return { information, gradient };
}

function dotted(a: readonly number[], b: readonly number[]): number {
  let sum = 0;
  for (let k = 0; k < a.length; k++) sum += (a[k] as number) * (b[k] as number);
  return sum;
}

function moved(
  values: ModelParameters,
  own: readonly number[][],
  move: readonly number[],
  free: readonly number[],
  ownCounts: readonly number[],
): [Six, number[][]] {
  const next = [...values] as Six;
  free.forEach((index, k) => {
    // No step changes the size more than threefold: a wild step would leave the region where derivatives mean anything.
    next[index] = (next[index] as number) + Math.max(-1.1, Math.min(1.1, move[k] as number));
  });
  let at = free.length;
  const nextOwn = own.map((mine, m) => {
    const count = ownCounts[m] as number;
    const shifted = mine.map((v, k) => (k < count ? v + (move[at + k] as number) : v));
    at += count;
    return shifted;
  });
  return [next, nextOwn];
}

function settled(
  problem: LeastSquaresProblem,
  { values, squares, residuals }: Place,
  slopes: Slopes,
  freedom: number,
  ownCounts: readonly number[],
): Solution | null {
  const free = freeIndicesOf(problem);
  const covariance = Matrix.zeros(6, 6);
  if (free.length > 0) {
    const unknowns = free.length + ownCounts.reduce((a, b) => a + b, 0);
    const { information } = normalEquations(slopes, residuals, free.length, unknowns);
    const rows = Array.from({ length: unknowns }, (_, i) => Array.from(information.subarray(i * unknowns, (i + 1) * unknowns)));
    const inverted = invertScaled(new Matrix(rows));
    if (!inverted) return null;
    for (const [a, i] of free.entries()) for (const [b, j] of free.entries()) covariance.set(i, j, inverted.get(a, b));
  }
  const informationPerMark = () => slopes.map(informationOf);
  return { values, squares, freedom, covariance, residuals, informationPerMark, freeIndices: free };
}

/** The products of every derivative of one list with every derivative of another. */
function productsOf(a: readonly number[][], b: readonly number[][]): number[][] {
  const rows: number[][] = [];
  for (const slope of a) {
    const row: number[] = [];
    for (const other of b) row.push(dotted(slope, other));
    rows.push(row);
  }
  return rows;
}

/** What one mark tells of the free parameters once its own unknowns are taken out. */
function informationOf(slopes: Slopes[number]): number[][] {
  const shared = productsOf(slopes.shared, slopes.shared);
  if (slopes.own.length === 0 || shared.length === 0) return shared;
  const mixed = new Matrix(productsOf(slopes.shared, slopes.own));
  const inner = invertScaled(new Matrix(productsOf(slopes.own, slopes.own)));
  return inner ? new Matrix(shared).sub(mixed.mmul(inner).mmul(mixed.transpose())).to2DArray() : shared;
}

function invertScaled(matrix: Matrix): Matrix | null {
  const scale = Array.from({ length: matrix.rows }, (_, k) => 1 / Math.sqrt(matrix.get(k, k)));
  if (!scale.every(Number.isFinite)) return null;
  const scaled = Matrix.zeros(matrix.rows, matrix.rows);
  for (let i = 0; i < matrix.rows; i++)
    for (let j = 0; j < matrix.rows; j++) scaled.set(i, j, matrix.get(i, j) * (scale[i] as number) * (scale[j] as number));
  try {
    const found = inverse(scaled);
    for (let i = 0; i < matrix.rows; i++) {
      if (!(found.get(i, i) > 0 && found.get(i, i) < 1e12)) return null;
      for (let j = 0; j < matrix.rows; j++) found.set(i, j, found.get(i, j) * (scale[i] as number) * (scale[j] as number));
    }
    return found;
  } catch {
    return null;
  }
}
