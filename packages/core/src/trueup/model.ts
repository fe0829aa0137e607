/**
 * In: a model and its parameters. Out: the map from normalised picture coordinates to mm, up to a shift.
 * Rests on: similarity by scale and turn; stretch and shear as the upper triangle of a QR decomposition; perspective
 * by two terms of depth; coordinates normalised as Hartley 1997, "In Defense of the Eight-Point Algorithm".
 */
import { norm, type Point } from '../plane/point.ts';
import { chainProjections, type Projection } from '../plane/projection.ts';
import type { ShapeModel } from './marks.ts';

/** Parameters in order: log of mm per unit, turn (radians), log of half the stretch, shear, and the two depths. */
export type ModelParameters = readonly [scale: number, turn: number, stretch: number, shear: number, g: number, h: number];

/** How many of the parameters a model has, from the first on. */
export const modelSize: Record<ShapeModel, number> = { uniform: 2, stretch: 3, affine: 4, perspective: 6 };

/** Pixels to coordinates about the marks' middle, y up, at a mean distance of the square root of 2. */
export interface Normalization {
  readonly x: number;
  readonly y: number;
  readonly unitPx: number;
}

export function normalizationOf(points: readonly Point[], fallback: { widthPx: number; heightPx: number }): Normalization {
  if (points.length === 0) return { x: fallback.widthPx / 2, y: fallback.heightPx / 2, unitPx: Math.max(fallback.widthPx, 1) / 2 };
  const x = points.reduce((sum, p) => sum + p.x, 0) / points.length;
  const y = points.reduce((sum, p) => sum + p.y, 0) / points.length;
  const mean = points.reduce((sum, p) => sum + norm(p.x - x, p.y - y), 0) / points.length;
  return { x, y, unitPx: Math.max(1e-9, mean / Math.SQRT2) };
}

function shapeProjection([scale, turn, stretch, shear, g, h]: ModelParameters): Projection {
  const k = Math.exp(scale);
  const [c, s] = [k * Math.cos(turn), k * Math.sin(turn)];
  const [sx, sy] = [Math.exp(stretch), Math.exp(-stretch)];
  return { a: c * sx, b: s * sx, c: c * shear - s * sy, d: s * shear + c * sy, e: 0, f: 0, g, h, i: 1 };
}

/** The parameters of a map from normalised coordinates to mm; its shift is left out. Null where it mirrors. */
export function modelOf(p: Projection): ModelParameters | null {
  const [g, h] = [p.g / p.i, p.h / p.i];
  const [x, y] = [p.e / p.i, p.f / p.i];
  const [a, b, c, d] = [p.a / p.i - x * g, p.b / p.i - y * g, p.c / p.i - x * h, p.d / p.i - y * h];
  const det = a * d - b * c;
  if (!(det > 0)) return null;
  const k = Math.sqrt(det);
  const first = norm(a, b);
  const turn = Math.atan2(b, a);
  return [Math.log(k), turn, Math.log(first / k), (c * Math.cos(turn) + d * Math.sin(turn)) / k, g, h];
}

/** From pixels to normalised coordinates. */
export const normalProjection = ({ x, y, unitPx }: Normalization): Projection => ({
  a: 1 / unitPx, c: 0, e: -x / unitPx,
  b: 0, d: -1 / unitPx, f: y / unitPx,
  g: 0, h: 0, i: 1,
}); // biome-ignore format: a row of the matrix a line

/** From pixels to mm, up to a shift. */
export const pixelProjection = (values: ModelParameters, normal: Normalization): Projection =>
  chainProjections(shapeProjection(values), normalProjection(normal));
