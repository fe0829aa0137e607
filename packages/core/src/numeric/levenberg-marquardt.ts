/**
 * In: a sum of squares as normal equations at any place, and where to start. Out: the place where it is least.
 * Rests on: Levenberg 1944, Marquardt 1963: Gauss-Newton steps, damped by the diagonal of the information matrix; the damping falls
 * a hundredfold where a step wins and rises tenfold where it does not.
 */
import { solveSymmetric } from './linear-solve.ts';

/** J'J by rows, and -J'r, for Jacobian J and residuals r. */
export interface NormalEquations {
  readonly information: Float64Array;
  readonly gradient: Float64Array;
}

export interface LeastSquares<X extends { readonly squares: number }> {
  normalEquations(x: X): NormalEquations;
  /** The place after a step, its sum of squares with it. */
  moved(x: X, step: readonly number[]): X;
}

export interface Limits {
  readonly maxSteps: number;
  /** How often a step is damped more before it is given up. */
  readonly maxAttempts: number;
  /** A step that wins no more than this share of the squares, or than `settled` in all, is the last. */
  readonly settledShare: number;
  readonly settled: number;
  /** One that loses no more than this share shows that nothing is left to win: derivatives are true to first order only. */
  readonly nearlyShare: number;
  readonly minDamping: number;
}

export function levenbergMarquardt<X extends { readonly squares: number }>(start: X, problem: LeastSquares<X>, limits: Limits): X {
  const { maxSteps, maxAttempts, settledShare, settled, nearlyShare, minDamping } = limits;
  let x = start;
  let damping = 1e-4;
  for (let round = 0, isSettled = false; round < maxSteps && !isSettled; round++) {
    const equations = problem.normalEquations(x);
    const before = x.squares;
    isSettled = true;
    for (let attempt = 0; attempt < maxAttempts; attempt++) {
      const step = dampedStep(equations, damping);
      damping *= 10;
      if (!step) continue;
      const next = problem.moved(x, step);
      const won = before - next.squares;
      if (won >= 0) {
        x = next;
        damping = Math.max(minDamping, damping / 100);
        isSettled = won <= settledShare * before + settled;
      }
      if (won >= -nearlyShare * before - (nearlyShare > 0 ? settled : 0)) break;
    }
  }
  return x;
}

/** The step of the damped equations; null where they give none. Scaled to a unit diagonal first: unknowns differ in unit. */
function dampedStep({ information, gradient }: NormalEquations, damping: number): number[] | null {
  const n = gradient.length;
  const scale = Float64Array.from({ length: n }, (_, k) => 1 / Math.sqrt(information[k * n + k] as number));
  if (!scale.every(Number.isFinite)) return null;
  const rows: number[][] = [];
  const right: number[] = [];
  for (let i = 0; i < n; i++) {
    const s = scale[i] as number;
    const row = new Array<number>(n);
    for (let j = 0; j < n; j++) row[j] = (information[i * n + j] as number) * s * (scale[j] as number) + (i === j ? damping : 0);
    rows.push(row);
    right.push((gradient[i] as number) * s);
  }
  const found = solveSymmetric(rows, right)?.map((v, k) => v * (scale[k] as number));
  return found?.every(Number.isFinite) ? found : null;
}
