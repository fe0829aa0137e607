/**
 * In: a function and an interval. Out: its integral by Gauss-Legendre quadrature.
 * Rests on: Abramowitz & Stegun 1964, table 25.4. `n` nodes are exact for polynomials of degree 2n - 1.
 */

/** Nodes and weights on -1 to 1. */
const nodes = {
  3: [[-0.7745966692414834, 5 / 9], [0, 8 / 9], [0.7745966692414834, 5 / 9]],
  8: [
    [-0.9602898564975363, 0.1012285362903763], [-0.7966664774136267, 0.2223810344533745],
    [-0.525532409916329, 0.3137066458778873], [-0.1834346424956498, 0.362683783378362],
    [0.1834346424956498, 0.362683783378362], [0.525532409916329, 0.3137066458778873],
    [0.7966664774136267, 0.2223810344533745], [0.9602898564975363, 0.1012285362903763],
  ],
} as const; // biome-ignore format: a table

export function gaussLegendre(count: keyof typeof nodes, from: number, to: number, f: (x: number) => number): number {
  const [middle, half] = [(from + to) / 2, (to - from) / 2];
  let sum = 0;
  for (const [node, weight] of nodes[count]) sum += weight * f(middle + half * node);
  return sum * half;
}
