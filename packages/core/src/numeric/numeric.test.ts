import { inverse as inverseMatrix, Matrix, solve } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { conjugateGradients, type JacobianRow } from './conjugate-gradients.ts';
import { type Limits, levenbergMarquardt } from './levenberg-marquardt.ts';
import { solveSymmetric } from './linear-solve.ts';
import { gaussLegendre } from './quadrature.ts';

/** Numbers from -1 to 1 by a linear congruence (Numerical Recipes' constants). */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 31 - 1;
  };
}

describe('a small symmetric system', () => {
  it('of a Hilbert matrix gives the whole numbers of its inverse', () => {
    const hilbert = (n: number) => Array.from({ length: n }, (_, i) => Array.from({ length: n }, (_, j) => 1 / (i + j + 1)));
    // The inverse of the Hilbert matrix of order 4 has whole numbers (closed form; Choi 1983).
    const first = solveSymmetric(hilbert(4), [1, 0, 0, 0]) as number[];
    [16, -120, 240, -140].forEach((v, k) => {
      expect(first[k]).toBeCloseTo(v, 8);
    });
  });
  it('is solved as ml-matrix solves it, also where rows must be exchanged', () => {
    const next = numbers(7);
    for (let n = 1; n <= 8; n++) {
      const rows = Array.from({ length: n }, () => new Array<number>(n).fill(0));
      for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) (rows[i] as number[])[j] = (rows[j] as number[])[i] = next();
      if (n % 2 === 1) for (let i = 0; i < n; i++) (rows[i] as number[])[i] = 3 + next();
      const right = Array.from({ length: n }, next);
      const wanted = solve(new Matrix(rows), Matrix.columnVector(right)).to1DArray();
      const found = solveSymmetric(
        rows.map((row) => [...row]),
        [...right],
      ) as number[];
      wanted.forEach((v, k) => {
        expect(found[k]).toBeCloseTo(v, 8);
      });
    }
  });
  it('that says one thing twice has no solution', () => {
    expect(solveSymmetric([[1, 2], [2, 4]], [1, 2])).toBeNull(); // biome-ignore format: a matrix
    expect(solveSymmetric([[0, 0], [0, 0]], [0, 0])).toBeNull(); // biome-ignore format: a matrix
  });
});

describe('Gauss-Legendre quadrature', () => {
  it('is exact for polynomials of degree 2n - 1, and no further', () => {
    for (const n of [3, 8] as const)
      for (let degree = 0; degree <= 2 * n; degree++) {
        const wanted = (3 ** (degree + 1) - (-1) ** (degree + 1)) / (degree + 1);
        const off = Math.abs(gaussLegendre(n, -1, 3, (x) => x ** degree) - wanted) / Math.abs(wanted);
        if (degree < 2 * n) expect(off).toBeLessThan(1e-12);
        else expect(off).toBeGreaterThan(1e-9);
      }
  });
  it('gives known integrals, and takes them backwards with the other sign', () => {
    expect(gaussLegendre(8, 0, Math.PI, Math.sin)).toBeCloseTo(2, 9);
    expect(gaussLegendre(8, 1, 0, (x) => 4 / (1 + x * x))).toBeCloseTo(-Math.PI, 7);
  });
});

describe('conjugate gradients', () => {
  const dense = (rows: readonly JacobianRow[], unknowns: number) => {
    const j = Matrix.zeros(rows.length, unknowns);
    rows.forEach(({ at, slopes }, k) => {
      at.forEach((i, n) => {
        j.set(k, i, j.get(k, i) + (slopes[n] as number));
      });
    });
    return j;
  };
  it('give the multipliers that the dense inverse of J Jt gives', () => {
    const next = numbers(3);
    for (const unknowns of [6, 15]) {
      const rows = Array.from(
        { length: unknowns - 2 },
        (_, k): JacobianRow => ({ at: [k, k + 1, k + 2], slopes: [next(), 2 + next(), next()] }),
      );
      const right = rows.map(next);
      const j = dense(rows, unknowns);
      const wanted = inverseMatrix(j.mmul(j.transpose())).mmul(Matrix.columnVector(right)).to1DArray();
      const found = conjugateGradients(rows, right, unknowns);
      wanted.forEach((v, k) => {
        expect(found[k]).toBeCloseTo(v, 8);
      });
    }
  });
  it('keep constraints that are told twice, each taking its half', () => {
    const row: JacobianRow = { at: [0, 1], slopes: [3, 4] };
    // J Jt is 25 everywhere: of all solutions of 25 (m1 + m2) = 50 the least is m1 = m2 = 1.
    const found = conjugateGradients([row, row], [50, 50], 2);
    expect(found[0]).toBeCloseTo(1, 10);
    expect(found[1]).toBeCloseTo(1, 10);
  });
});

const limits: Limits = { maxSteps: 200, maxAttempts: 20, settledShare: 1e-14, settled: 0, nearlyShare: 0, minDamping: 1e-14 };

/** Levenberg-Marquardt on a curve, its derivatives by central differences. */
function fitted(model: (b: readonly number[], x: number) => number, data: readonly (readonly [y: number, x: number])[], start: number[]) {
  const residualsAt = (b: readonly number[]) => data.map(([y, x]) => model(b, x) - y);
  const at = (b: number[]) => ({ b, squares: residualsAt(b).reduce((sum, r) => sum + r * r, 0) });
  return levenbergMarquardt(
    at(start),
    {
      normalEquations: ({ b }) => {
        const n = b.length;
        const slopes = b.map((v, k) => {
          const h = 1e-6 * Math.abs(v);
          const [up, down] = [h, -h].map((by) => residualsAt(b.map((w, i) => (i === k ? w + by : w)))) as [number[], number[]];
          return up.map((r, i) => (r - (down[i] as number)) / (2 * h));
        });
        const dot = (u: readonly number[], v: readonly number[]) => u.reduce((sum, a, i) => sum + a * (v[i] as number), 0);
        const residuals = residualsAt(b);
        return {
          information: Float64Array.from({ length: n * n }, (_, k) =>
            dot(slopes[Math.floor(k / n)] as number[], slopes[k % n] as number[]),
          ),
          gradient: Float64Array.from(slopes, (s) => -dot(s, residuals)),
        };
      },
      moved: ({ b }, step) => at(b.map((v, k) => v + (step[k] as number))),
    },
    limits,
  );
}

/**
 * NIST Statistical Reference Datasets, nonlinear regression (StRD): data and certified values, written down from memory; that the data
 * give the certified sum of squares to eight digits shows that they are right.
 */
describe('Levenberg-Marquardt', () => {
  it('finds the certified values of Misra1a from both of its starts', () => {
    const data = [
      [10.07, 77.6], [14.73, 114.9], [17.94, 141.1], [23.93, 190.8], [29.61, 239.9], [35.18, 289], [40.02, 332.8],
      [44.82, 378.4], [50.76, 434.8], [55.05, 477.3], [61.01, 536.8], [66.4, 593.1], [75.47, 689.1], [81.78, 760],
    ] as const; // biome-ignore format: a table
    const model = (b: readonly number[], x: number) => (b[0] as number) * (1 - Math.exp(-(b[1] as number) * x));
    for (const start of [[500, 0.0001], [250, 0.0005]]) {
      const { b, squares } = fitted(model, data, start);
      expect((b[0] as number) / 2.3894212918e2).toBeCloseTo(1, 6);
      expect((b[1] as number) / 5.5015643181e-4).toBeCloseTo(1, 6);
      expect(squares / 1.2455138894e-1).toBeCloseTo(1, 8);
    } // biome-ignore format: starts
  });
  it('finds the certified values of DanWood', () => {
    const data = [[2.138, 1.309], [3.421, 1.471], [3.597, 1.49], [4.34, 1.565], [4.882, 1.611], [5.66, 1.68]] as const; // biome-ignore format: a table
    const { b, squares } = fitted((c, x) => (c[0] as number) * x ** (c[1] as number), data, [1, 5]);
    expect((b[0] as number) / 7.6886226176e-1).toBeCloseTo(1, 6);
    expect((b[1] as number) / 3.8604055871).toBeCloseTo(1, 6);
    expect(squares / 4.3173084083e-3).toBeCloseTo(1, 7);
  });
  it('stays where it is where nothing can be won, or no step exists', () => {
    const still = { squares: 0 };
    const nowhere = { normalEquations: () => ({ information: new Float64Array(1), gradient: new Float64Array(1) }), moved: () => still };
    expect(levenbergMarquardt(still, nowhere, limits)).toBe(still);
  });
});
