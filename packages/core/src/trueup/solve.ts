/**
 * In: marks, a model and where to start. Out: the parameters that leave least over, with what they rest on.
 * Rests on: Levenberg 1944, Marquardt 1963 (damping scaled by the diagonal);
 * a mark's own unknowns taken out of the information by its Schur complement.
 */
import { CholeskyDecomposition, inverse, Matrix } from 'ml-matrix';
import { cross, dot, middleOf, type Point, subtract } from '../plane/point.ts';
import { project } from '../plane/projection.ts';
import { centreOfRim } from './circle.ts';
import type { ShapeModel, TrueUpMark } from './marks.ts';
import { type Normal, pixelProjection, type ShapeValues, sizeOf } from './shape.ts';
import { isPlate, ownUnknowns, platePlaces, shapeSlopes, slopesOf, strainOf } from './strain.ts';

export interface Problem {
  readonly marks: readonly TrueUpMark[];
  readonly normal: Normal;
  readonly model: ShapeModel;
  /** Whether the marks decide the scale, and the turn; what they do not decide stays as it starts. */
  readonly scaleIsFree: boolean;
  readonly turnIsFree: boolean;
  /** The plates that may turn apart from the sheet, by id. */
  readonly turning: ReadonlySet<string>;
}

export interface Solution {
  readonly values: ShapeValues;
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

const mostSteps = 60;
/** Steps that win less than this share are the last. */
const settledShare = 1e-5;
/** A step that loses no more than this share shows that nothing is left to win: slopes are true to first order only. */
const nearlyShare = 1e-4;

function freeIndicesOf({ model, scaleIsFree, turnIsFree }: Problem): number[] {
  return Array.from({ length: sizeOf[model] }, (_, k) => k).filter((k) => (k === 0 ? scaleIsFree : k === 1 ? turnIsFree : true));
}

/** Null where the marks do not carry the model: the information is singular, or the search ends nowhere. */
export function solveShape(problem: Problem, start: ShapeValues): Solution | null {
  const free = freeIndicesOf(problem);
  const ownCounts = problem.marks.map((m) => ownUnknowns(m, problem.turning.has(m.id)));
  let values = [...start] as [number, number, number, number, number, number];
  let own = problem.marks.map((m) => ownStart(m, values, problem.normal));
  const all = (v: ShapeValues, o: readonly number[][]) => {
    const toMm = pixelProjection(v, problem.normal);
    return problem.marks.map((m, k) => strainOf(m, toMm, o[k] as number[]));
  };
  let residuals = all(values, own);
  let squares = squaresOf(residuals);
  if (!Number.isFinite(squares)) return null;
  const rowCount = residuals.reduce((n, r) => n + r.length, 0);
  const unknowns = free.length + ownCounts.reduce((a, b) => a + b, 0);
  if (free.length === 0) return settled(problem, values, squares, residuals, [], rowCount - unknowns, []);
  if (rowCount < unknowns) return null;
  let damping = 1e-4;
  let slopes = slopesAt(problem, free, ownCounts, values, own);
  for (let step = 0, settledNow = false; step < mostSteps && !settledNow; step++) {
    const { information, gradient } = normalEquations(slopes, residuals, free.length, unknowns);
    settledNow = true;
    for (let attempt = 0; attempt < 12; attempt++) {
      const move = dampedStep(information, gradient, damping);
      damping *= 10;
      if (!move) continue;
      const [nextValues, nextOwn] = moved(values, own, move, free, ownCounts);
      const nextResiduals = all(nextValues, nextOwn);
      const nextSquares = squaresOf(nextResiduals);
      const won = squares - nextSquares;
      const little = settledShare * squares + 1e-18;
      if (won >= 0) {
        [values, own, residuals, squares] = [nextValues, nextOwn, nextResiduals, nextSquares];
        damping = Math.max(1e-12, damping / 100);
        slopes = slopesAt(problem, free, ownCounts, values, own);
        settledNow = won <= little;
      }
      if (won >= -nearlyShare * squares - 1e-18) break;
    }
  }
  return settled(problem, values, squares, residuals, slopes, rowCount - unknowns, ownCounts);
}

function squaresOf(residuals: readonly number[][]): number {
  let sum = 0;
  for (const list of residuals) for (const r of list) sum += r * r;
  return sum;
}

/** A mark's own unknowns where the shape as it stands puts them. */
function ownStart(mark: TrueUpMark, values: ShapeValues, normal: Normal): number[] {
  const toMm = pixelProjection(values, normal);
  const placed = mark.points.map((p) => project(toMm, p));
  if (mark.kind === 'circle') {
    const { x, y } = centreOfRim(placed);
    return [x, y];
  }
  if (!isPlate(mark)) return [];
  const places = platePlaces(mark);
  const [from, to] = [middleOf(places), middleOf(placed)];
  const angle = Math.round(plateAngle(places, placed) / (Math.PI / 2)) * (Math.PI / 2);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [to.x - c * from.x + s * from.y, to.y - s * from.x - c * from.y, angle];
}

/** The turn from a plate's places to where they lie (Procrustes). */
export function plateAngle(places: readonly Point[], placed: readonly Point[]): number {
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
  { marks, normal }: Problem,
  free: readonly number[],
  ownCounts: readonly number[],
  values: ShapeValues,
  own: readonly number[][],
): Slopes => {
  const shape = shapeSlopes(values, normal);
  return marks.map((mark, m) => slopesOf(mark, shape, free, own[m] as number[], ownCounts[m] as number));
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

/** The step that the damped equations give; null where they give none. Scaled to a unit diagonal: unknowns differ in unit. */
function dampedStep(information: Float64Array, gradient: Float64Array, damping: number): number[] | null {
  const n = gradient.length;
  const scale = Float64Array.from({ length: n }, (_, k) => 1 / Math.sqrt(information[k * n + k] as number));
  if (!scale.every(Number.isFinite)) return null;
  const rows = Array.from({ length: n }, (_, i) =>
    Array.from(
      { length: n },
      (_, j) => (information[i * n + j] as number) * ((scale[i] as number) * (scale[j] as number)) + (i === j ? damping : 0),
    ),
  );
  const factored = new CholeskyDecomposition(new Matrix(rows));
  if (!factored.isPositiveDefinite()) return null;
  const right = Matrix.columnVector(Array.from(gradient, (g, k) => g * (scale[k] as number)));
  const found = factored
    .solve(right)
    .to1DArray()
    .map((v, k) => v * (scale[k] as number));
  return found.every(Number.isFinite) ? found : null;
}

function moved(
  values: ShapeValues,
  own: readonly number[][],
  move: readonly number[],
  free: readonly number[],
  ownCounts: readonly number[],
): [[number, number, number, number, number, number], number[][]] {
  const next = [...values] as [number, number, number, number, number, number];
  free.forEach((index, k) => {
    // No step changes the size more than threefold: a wild step would leave the region where slopes mean anything.
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
  problem: Problem,
  values: ShapeValues,
  squares: number,
  residuals: readonly number[][],
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

/** The products of every slope of one list with every slope of another. */
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
