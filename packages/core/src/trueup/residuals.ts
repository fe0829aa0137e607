/**
 * In: a mark and a map from its pixels to mm. Out: how far the mark is from what is stated, each residual divided by
 * what one pixel of noise on the mark's points gives it, so that residuals of every kind are in pixels and independent.
 * Rests on: Sampson 1982 (first-order geometric distance), Hartley & Zisserman 2004, 4.2.
 */
import { norm, type Point } from '../plane/point.ts';
import { affineAt, type Projection, project } from '../plane/projection.ts';
import type { Transform } from '../plane/transform.ts';
import { isTemplate, markKinds, type Raw, type TrueUpMark, templatePoints } from './mark-kinds.ts';
import { type ModelParameters, type Normalization, pixelProjection } from './model.ts';

/** Unknowns that belong to one mark alone: a circle's centre, where a template lies and how it is turned. */
export function ownUnknowns(mark: TrueUpMark, turnsFreely: boolean): number {
  if (isTemplate(mark)) return turnsFreely ? 3 : 2;
  return markKinds[mark.kind].own?.(mark.points).length ?? 0;
}

const rawOf = (mark: TrueUpMark, placed: readonly Point[], own: readonly number[]): Raw[] =>
  markKinds[mark.kind].residuals?.(mark, placed, own) ?? [];

/** What one pixel of noise on each of a mark's points makes of a residual. */
function noise(by: Raw['by'], slopes: readonly Transform[]): number {
  let squares = 0;
  for (const [k, gx, gy] of by) {
    const { a, b, c, d } = slopes[k] as Transform;
    squares += (gx * a + gy * b) ** 2 + (gx * c + gy * d) ** 2;
  }
  return Math.sqrt(squares);
}

/**
 * The residuals of a mark, in pixels of mark noise.
 * @param toMm pixels to mm
 * @param own the mark's own unknowns: a centre, or a shift and a turn in mm and radians
 */
export function whitenedResiduals(mark: TrueUpMark, toMm: Projection, own: readonly number[]): number[] {
  if (mark.points.length === 2) {
    const { value, noise } = pairResiduals(mark, toMm);
    return [value / noise];
  }
  const placed = mark.points.map((p) => project(toMm, p));
  const slopes = mark.points.map((p) => affineAt(toMm, p));
  if (isTemplate(mark)) {
    return onPlate(mark, own).flatMap((q, k) => {
      const p = placed[k] as Point;
      return intoPixels(slopes[k] as Transform, q.x - p.x, q.y - p.y);
    });
  }
  return rawOf(mark, placed, own).map(({ value, by }) => value / noise(by, slopes));
}

/**
 * The residual of a mark of two points in mm, its gradient by the second point (by the first it is the opposite), and
 * what a pixel of noise makes of it. Most marks are of this kind, and a fit asks for them thousands of times.
 */
function pairResiduals({ kind, points, stated }: TrueUpMark, m: Projection): { value: number; gx: number; gy: number; noise: number } {
  const p = points[0] as Point;
  const q = points[1] as Point;
  const wp = m.g * p.x + m.h * p.y + m.i;
  const wq = m.g * q.x + m.h * q.y + m.i;
  const px = (m.a * p.x + m.c * p.y + m.e) / wp;
  const py = (m.b * p.x + m.d * p.y + m.f) / wp;
  const qx = (m.a * q.x + m.c * q.y + m.e) / wq;
  const qy = (m.b * q.x + m.d * q.y + m.f) / wq;
  const dx = qx - px;
  const dy = qy - py;
  let gx = 0;
  let gy = 1;
  let value = dy;
  const { pair } = markKinds[kind];
  if (pair === 'run') {
    gx = 1;
    gy = 0;
    value = dx;
  } else if (pair === 'distance') {
    const d = norm(dx, dy);
    gx = d > 0 ? dx / d : 1;
    gy = d > 0 ? dy / d : 0;
    value = d;
    for (const part of stated) value -= part;
  }
  const up = (gx * (m.a - m.g * px) + gy * (m.b - m.g * py)) / wp;
  const vp = (gx * (m.c - m.h * px) + gy * (m.d - m.h * py)) / wp;
  const uq = (gx * (m.a - m.g * qx) + gy * (m.b - m.g * qy)) / wq;
  const vq = (gx * (m.c - m.h * qx) + gy * (m.d - m.h * qy)) / wq;
  return { value, gx, gy, noise: Math.sqrt(up * up + vp * vp + uq * uq + vq * vq) };
}

/** A template's points where its shift and turn put them. */
function onPlate(mark: TrueUpMark, own: readonly number[]): Point[] {
  const [x, y, angle] = own as [number, number, number];
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return templatePoints(mark).map((q) => ({ x: c * q.x - s * q.y + x, y: s * q.x + c * q.y + y }));
}

function intoPixels({ a, b, c, d }: Transform, dx: number, dy: number): [number, number] {
  const det = a * d - b * c;
  return [(d * dx - c * dy) / det, (a * dy - b * dx) / det];
}

/**
 * How the residuals change: by the free shape parameters, then by the mark's own unknowns; a row a parameter, a number
 * a residual. What noise makes of a residual is taken as it stands, as iteratively reweighted least squares do.
 */
export function jacobian(
  mark: TrueUpMark,
  { toMm, movesOf }: ModelJacobian,
  free: readonly number[],
  own: readonly number[],
  ownCount: number,
): { readonly shared: number[][]; readonly own: number[][] } {
  if (mark.points.length === 2) {
    const { gx, gy, noise } = pairResiduals(mark, toMm);
    const [a, b] = [movesOf(mark.points[0] as Point), movesOf(mark.points[1] as Point)];
    const shared: number[][] = [];
    for (const index of free) {
      const along = (b[2 * index] as number) - (a[2 * index] as number);
      const across = (b[2 * index + 1] as number) - (a[2 * index + 1] as number);
      shared.push([(gx * along + gy * across) / noise]);
    }
    return { shared, own: [] };
  }
  const slopes = mark.points.map((p) => affineAt(toMm, p));
  const moves = mark.points.map(movesOf);
  if (isTemplate(mark)) {
    const shared = free.map((index) =>
      moves.flatMap((move, k) => intoPixels(slopes[k] as Transform, -(move[2 * index] as number), -(move[2 * index + 1] as number))),
    );
    const [x, y] = own as [number, number];
    const turned = onPlate(mark, own).map((q) => [y - q.y, q.x - x] as const);
    const ownMoves = [turned.map(() => [1, 0] as const), turned.map(() => [0, 1] as const), turned].slice(0, ownCount);
    return { shared, own: ownMoves.map((list) => list.flatMap(([dx, dy], k) => intoPixels(slopes[k] as Transform, dx, dy))) };
  }
  const placed = mark.points.map((p) => project(toMm, p));
  const raws = rawOf(mark, placed, own);
  const noises = raws.map(({ by }) => noise(by, slopes));
  const shared = free.map((index) =>
    raws.map(({ by }, r) => {
      let sum = 0;
      for (const [k, gx, gy] of by) {
        const move = moves[k] as number[];
        sum += gx * (move[2 * index] as number) + gy * (move[2 * index + 1] as number);
      }
      return sum / (noises[r] as number);
    }),
  );
  // The rim's residuals fall as the centre moves the way that they rise by their own point.
  const centre = [1, 2]
    .slice(0, ownCount)
    .map((axis) => raws.map(({ by }, r) => -((by[0] as readonly number[])[axis] as number) / (noises[r] as number)));
  return { shared, own: centre };
}

export interface ModelJacobian {
  readonly toMm: Projection;
  /** How a point of the picture moves on the sheet with each of the six parameters: x and y in turn. */
  readonly movesOf: (p: Point) => number[];
}

export function modelJacobian(values: ModelParameters, normal: Normalization): ModelJacobian {
  const [scale, turn, stretch, shear, g, h] = values;
  const k = Math.exp(scale);
  const [c, s] = [k * Math.cos(turn), k * Math.sin(turn)];
  const [sx, sy] = [Math.exp(stretch), Math.exp(-stretch)];
  const [csx, ssx, csy, ssy, skewX, skewY] = [c * sx, s * sx, c * sy, s * sy, c * shear - s * sy, s * shear + c * sy];
  return {
    toMm: pixelProjection(values, normal),
    movesOf: ({ x, y }) => {
      const u = (x - normal.x) / normal.unitPx;
      const v = (normal.y - y) / normal.unitPx;
      const w = 1 + g * u + h * v;
      const px = (csx * u + skewX * v) / w;
      const py = (ssx * u + skewY * v) / w;
      return [
        px, py, -py, px,
        (csx * u + ssy * v) / w, (ssx * u - csy * v) / w,
        (c * v) / w, (s * v) / w,
        (-px * u) / w, (-py * u) / w, (-px * v) / w, (-py * v) / w,
      ]; // biome-ignore format: a parameter a pair
    },
  };
}
