/**
 * In: edges in a photograph. Out: how the lens has bent them, where they tell it: the one bend by which they all come straight.
 * Rests on: straight edges must be straight (plumb-line method, Brown 1971); an F-test says whether one bend explains more of how far edges are
 * bowed than chance would (Snedecor & Cochran 1989).
 */
import { chanceOfF } from '../numeric/f-distribution.ts';
import { type Lens, unbent } from '../plane/lens.ts';
import type { Point } from '../plane/point.ts';

export interface FoundLens extends Lens {
  readonly standardError: number;
  /** How many edges tell it, and how far the most bowed of them leaves its chord as it is, px. */
  readonly edges: number;
  readonly bowedPx: number;
}

/** No camera bends more. */
const mostBend = 0.25;
const fewestEdges = 4;
/** An edge that stays bowed by so many times the middling one is a curve, not an edge. */
const curveTimes = 4;
/** Less than this nobody sees, px. */
const leastBowPx = 0.4;
const leastChance = 1e-3;
/** Edges that stay bowed by this are as straight as contours tell, px. */
const noisePx = 0.08;

/** Null where edges are too few, or do not agree on a bend. */
export function lensOfEdges(edges: readonly (readonly Point[])[], { width, height }: { width: number; height: number }): FoundLens | null {
  const lens = (k: number): Lens => ({ k, centre: { x: width / 2, y: height / 2 }, radiusPx: Math.hypot(width, height) / 2 });
  let kept = edges;
  let found = 0;
  for (let round = 0; round < 4; round++) {
    if (kept.length < fewestEdges) return null;
    const own = kept;
    // Curves weigh less: what a few edges leave does not decide.
    found = leastAt((k) => own.reduce((sum, edge) => sum + soft(bowOf(edge, lens(k))), 0));
    const bows = own.map((edge) => Math.abs(bowOf(edge, lens(found))));
    const middling = Math.max(noisePx, [...bows].sort((a, b) => a - b)[bows.length >> 1] as number);
    const straight = own.filter((_, k) => (bows[k] as number) <= curveTimes * middling);
    if (straight.length === own.length) break;
    kept = straight;
  }
  const before = kept.map((edge) => bowOf(edge, lens(0)));
  const after = kept.map((edge) => bowOf(edge, lens(found)));
  const squares = (list: readonly number[]): number => list.reduce((sum, v) => sum + v * v, 0);
  const freedom = kept.length - 1;
  const variance = Math.max(noisePx ** 2, squares(after) / freedom);
  const bowedPx = Math.max(...before.map(Math.abs));
  const f = (squares(before) - squares(after)) / variance;
  if (bowedPx < leastBowPx || !(f > 0) || chanceOfF(f, 1, freedom) > leastChance) return null;
  const step = 1e-4;
  const slopes = kept.map((edge) => (bowOf(edge, lens(found + step)) - bowOf(edge, lens(found - step))) / (2 * step));
  const standardError = Math.sqrt(variance / squares(slopes));
  return Math.abs(found) > 3 * standardError ? { ...lens(found), standardError, edges: kept.length, bowedPx } : null;
}

/** As a square while it is small, and no more than so much beyond (Geman & McClure 1987), px². */
const soft = (bow: number): number => (bow * bow) / (1 + bow * bow);

/** How far an edge leaves its chord in its middle, by the parabola through its places as they come through the lens, px. */
export function bowOf(edge: readonly Point[], lens: Lens): number {
  const places = edge.map((p) => unbent(lens, p));
  const [first, last] = [places[0] as Point, places.at(-1) as Point];
  const length = Math.hypot(last.x - first.x, last.y - first.y);
  const [ux, uy] = [(last.x - first.x) / length, (last.y - first.y) / length];
  // Least squares of v = a + b t + c (t² - 1/3) with t from -1 to 1 along the chord.
  const sums = new Float64Array(9);
  for (const { x, y } of places) {
    const t = (2 * ((x - first.x) * ux + (y - first.y) * uy)) / length - 1;
    const v = -(x - first.x) * uy + (y - first.y) * ux;
    const q = t * t - 1 / 3;
    const row = [1, t, q, t * t, t * q, q * q, v, t * v, q * v];
    for (let k = 0; k < 9; k++) sums[k] = (sums[k] as number) + (row[k] as number);
  }
  const [n, st, sq, stt, stq, sqq, sv, stv, sqv] = sums as unknown as [number, number, number, number, number, number, number, number, number]; // biome-ignore format: one line
  const determinant = n * (stt * sqq - stq * stq) - st * (st * sqq - stq * sq) + sq * (st * stq - stt * sq);
  const c = (n * (stt * sqv - stv * stq) - st * (st * sqv - stv * sq) + sv * (st * stq - stt * sq)) / determinant;
  return -c;
}

/** Where a function of a bend is least: looked for in steps, then between (golden section). */
function leastAt(of: (k: number) => number): number {
  const steps = 100;
  let best = { k: 0, cost: of(0) };
  for (let step = -steps; step <= steps; step++) {
    const k = (step * mostBend) / steps;
    const cost = of(k);
    if (cost < best.cost) best = { k, cost };
  }
  let [low, high] = [best.k - mostBend / steps, best.k + mostBend / steps];
  const golden = (Math.sqrt(5) - 1) / 2;
  for (let k = 0; k < 40; k++) {
    const [p, q] = [high - golden * (high - low), low + golden * (high - low)];
    if (of(p) < of(q)) high = q;
    else low = p;
  }
  return (low + high) / 2;
}
