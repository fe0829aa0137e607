/**
 * In: the rows of a sparse Jacobian J, and a right side. Out: the multipliers m with J J' m = right.
 * Rests on: conjugate gradients (Hestenes & Stiefel 1952).
 */

/** A row: at which unknowns it is not zero, and what it is there. */
export interface JacobianRow {
  readonly at: readonly number[];
  readonly slopes: readonly number[];
}

/** Solves J Jt m = r; where constraints say one thing twice, the least of all solutions. */
export function conjugateGradients(rows: readonly JacobianRow[], right: readonly number[], unknowns: number): Float64Array {
  const along = (m: Float64Array): Float64Array => {
    const x = new Float64Array(unknowns);
    rows.forEach(({ at, slopes }, k) => {
      at.forEach((i, n) => {
        x[i] = (x[i] as number) + (slopes[n] as number) * (m[k] as number);
      });
    });
    return Float64Array.from(rows, ({ at, slopes }) => at.reduce((sum, i, n) => sum + (slopes[n] as number) * (x[i] as number), 0));
  };
  const solution = new Float64Array(rows.length);
  const rest = Float64Array.from(right);
  let direction = rest.slice();
  let size = squared(rest);
  const enough = 1e-26 * Math.max(1e-6, size);
  let [best, min] = [solution.slice(), size];
  for (let k = 0; k < 4 * rows.length + 20 && size > enough; k++) {
    const image = along(direction);
    const bend = direction.reduce((sum, v, i) => sum + v * (image[i] as number), 0);
    if (bend <= 0) break;
    const step = size / bend;
    for (let i = 0; i < rest.length; i++) {
      solution[i] = (solution[i] as number) + step * (direction[i] as number);
      rest[i] = (rest[i] as number) - step * (image[i] as number);
    }
    const next = squared(rest);
    // Where constraints say one thing twice, rounding drives later steps away again.
    if (next < min) [best, min] = [solution.slice(), next];
    else if (next > 1e6 * min) break;
    const last = direction;
    direction = rest.map((r, i) => r + (next / size) * (last[i] as number));
    size = next;
  }
  return best;
}

const squared = (v: Float64Array): number => v.reduce((sum, a) => sum + a * a, 0);
