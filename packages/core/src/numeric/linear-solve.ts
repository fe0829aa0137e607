/**
 * In: a small symmetric system of equations. Out: its solution.
 * Rests on: Gaussian elimination with pivots.
 */

/** Solves `matrix` x = `right` (at most a handful of unknowns); null where the matrix is singular. Both are used up. */
export function solveSymmetric(matrix: number[][], right: number[]): number[] | null {
  const n = right.length;
  const size = Math.max(...matrix.map((row, k) => Math.abs(row[k] as number)));
  for (let column = 0; column < n; column++) {
    let pivot = column;
    for (let row = column + 1; row < n; row++) {
      if (Math.abs(matrix[row]?.[column] as number) > Math.abs(matrix[pivot]?.[column] as number)) pivot = row;
    }
    [matrix[column], matrix[pivot]] = [matrix[pivot] as number[], matrix[column] as number[]];
    [right[column], right[pivot]] = [right[pivot] as number, right[column] as number];
    const head = matrix[column] as number[];
    if (!(Math.abs(head[column] as number) > 1e-12 * size)) return null;
    for (let row = column + 1; row < n; row++) {
      const line = matrix[row] as number[];
      const factor = (line[column] as number) / (head[column] as number);
      for (let k = column; k < n; k++) line[k] = (line[k] as number) - factor * (head[k] as number);
      right[row] = (right[row] as number) - factor * (right[column] as number);
    }
  }
  const solution = new Array<number>(n).fill(0);
  for (let row = n - 1; row >= 0; row--) {
    let rest = right[row] as number;
    for (let k = row + 1; k < n; k++) rest -= (matrix[row]?.[k] as number) * (solution[k] as number);
    solution[row] = rest / (matrix[row]?.[row] as number);
  }
  return solution;
}
