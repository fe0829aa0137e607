/** In: the three diagonals of a square system, and its right side. Out: its solution. Rests on: Gaussian elimination (Thomas 1949). */

/**
 * @param lower below the diagonal; its first does not count
 * @param upper above the diagonal; its last does not count
 */
export function solveTridiagonal(
  lower: readonly number[],
  diagonal: readonly number[],
  upper: readonly number[],
  right: readonly number[],
): number[] {
  const n = diagonal.length;
  const [c, d] = [new Float64Array(n), new Float64Array(n)];
  for (let k = 0; k < n; k++) {
    const below = k === 0 ? 0 : (lower[k] as number);
    const pivot = (diagonal[k] as number) - below * (k === 0 ? 0 : (c[k - 1] as number));
    c[k] = (upper[k] as number) / pivot;
    d[k] = ((right[k] as number) - below * (k === 0 ? 0 : (d[k - 1] as number))) / pivot;
  }
  const x = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k--) x[k] = (d[k] as number) - (k === n - 1 ? 0 : (c[k] as number) * (x[k + 1] as number));
  return x;
}

/** The same where the last and the first are neighbours, too: corners of the matrix (Sherman & Morrison 1950). */
export function solveCyclic(
  lower: readonly number[],
  diagonal: readonly number[],
  upper: readonly number[],
  right: readonly number[],
): number[] {
  const n = diagonal.length;
  const [alpha, beta] = [upper[n - 1] as number, lower[0] as number];
  const gamma = -(diagonal[0] as number);
  const changed = diagonal.map((v, k) => (k === 0 ? v - gamma : k === n - 1 ? v - (alpha * beta) / gamma : v));
  const x = solveTridiagonal(lower, changed, upper, right);
  const z = solveTridiagonal(lower, changed, upper, right.map((_, k) => (k === 0 ? gamma : k === n - 1 ? alpha : 0))); // biome-ignore format: one line
  const share = ((x[0] as number) + (beta * (x[n - 1] as number)) / gamma) / (1 + (z[0] as number) + (beta * (z[n - 1] as number)) / gamma);
  return x.map((v, k) => v - share * (z[k] as number));
}
