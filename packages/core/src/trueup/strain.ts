/**
 * In: a mark and a map from its pixels to mm. Out: how far the mark is from what is stated, each residual divided by
 * what one pixel of noise on the mark's points gives it, so that residuals of every kind are in pixels and independent.
 * Rests on: Sampson 1982 (first-order geometric distance), Hartley & Zisserman 2004, 4.2.
 */
import { norm, type Point } from '../plane/point.ts';
import { affineAt, type Projection, project } from '../plane/projection.ts';
import type { Transform } from '../plane/transform.ts';
import { touching } from './claims.ts';
import type { TrueUpMark } from './marks.ts';
import { checkLineMm } from './scale-card.ts';
import { type Normal, pixelProjection, type ShapeValues } from './shape.ts';

/** Unknowns that belong to one mark alone: a circle's centre, where a frame lies and how it is turned. */
export const ownUnknowns = (mark: TrueUpMark, turnsFreely: boolean): number =>
  mark.kind === 'circle' ? 2 : isPlate(mark) ? (turnsFreely ? 3 : 2) : 0;

/** Marks whose points have known places among themselves. */
export const isPlate = (mark: TrueUpMark): boolean => mark.kind === 'frame' || mark.kind === 'scale-card';
export const isDirection = (mark: TrueUpMark): boolean => mark.kind === 'level' || mark.kind === 'plumb';
/** Whether the mark says how large something is. */
export const isSizing = (mark: TrueUpMark): boolean => !isDirection(mark) && mark.kind !== 'right-angle';

/** Where a plate's points lie on it, mm, counter-clockwise as the marks run on the sheet. */
export function platePlaces(mark: TrueUpMark): readonly Point[] {
  if (mark.places) {
    const grow = (mark.stated[0] ?? checkLineMm) / checkLineMm;
    return mark.places.map(({ x, y }) => ({ x: x * grow, y: y * grow }));
  }
  const [w, h] = mark.stated as [number, number];
  // Marks given clockwise on the screen run clockwise on the sheet as well.
  const up = signedArea(mark.points) < 0 ? h : -h;
  return [
    { x: 0, y: 0 },
    { x: w, y: 0 },
    { x: w, y: up },
    { x: 0, y: up },
  ];
}

function signedArea(points: readonly Point[]): number {
  return points.reduce((sum, p, k) => {
    const q = points[(k + 1) % points.length] as Point;
    return sum + p.x * q.y - q.x * p.y;
  }, 0);
}

/** A residual with its gradient by the mark's points, as far as it has one. */
interface Raw {
  readonly value: number;
  readonly by: readonly (readonly [index: number, gx: number, gy: number])[];
}

/** The extent of points along x or y, less what is stated. */
function extentOff(points: readonly Point[], axis: 'x' | 'y', stated: number): Raw {
  let [low, high] = [0, 0];
  points.forEach((p, k) => {
    if (p[axis] < (points[low] as Point)[axis]) low = k;
    if (p[axis] > (points[high] as Point)[axis]) high = k;
  });
  const [gx, gy] = axis === 'x' ? [1, 0] : [0, 1];
  const value = (points[high] as Point)[axis] - (points[low] as Point)[axis] - stated;
  return { value, by: [[low, -gx, -gy], [high, gx, gy]] }; // biome-ignore format: one line
}

function cornerOff([a, corner, c]: readonly [Point, Point, Point]): Raw {
  const [u, v] = [
    { x: a.x - corner.x, y: a.y - corner.y },
    { x: c.x - corner.x, y: c.y - corner.y },
  ];
  const [m, n] = [norm(u.x, u.y), norm(v.x, v.y)];
  const cosine = (u.x * v.x + u.y * v.y) / (m * n);
  const gu = { x: (v.x / n - (cosine * u.x) / m) / m, y: (v.y / n - (cosine * u.y) / m) / m };
  const gv = { x: (u.x / m - (cosine * v.x) / n) / n, y: (u.y / m - (cosine * v.y) / n) / n };
  return {
    value: cosine,
    by: [
      [0, gu.x, gu.y],
      [2, gv.x, gv.y],
      [1, -gu.x - gv.x, -gu.y - gv.y],
    ],
  };
}

function rawOf(mark: TrueUpMark, p: readonly Point[], own: readonly number[]): Raw[] {
  const [first, second] = mark.stated as [number, number];
  switch (mark.kind) {
    case 'right-angle':
      return [cornerOff(p as [Point, Point, Point])];
    case 'circle':
      return p.map((q, k): Raw => {
        const [x, y] = [q.x - (own[0] as number), q.y - (own[1] as number)];
        const r = norm(x, y);
        return { value: r - first / 2, by: [[k, r > 0 ? x / r : 1, r > 0 ? y / r : 0]] };
      });
    case 'box': {
      const [x, y] = [extentOff(p, 'x', first), extentOff(p, 'y', second)];
      if (mark.way === 'each-side') return [x, y];
      const sides = [
        { raw: x, stated: first, measured: x.value + first },
        { raw: y, stated: second, measured: y.value + second },
      ] as const;
      return [touching(sides, mark.way === 'covering').raw];
    }
    default:
      return [];
  }
}

/** What one pixel of noise on each of a mark's points makes of a residual. */
function grain(by: Raw['by'], slopes: readonly Transform[]): number {
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
export function strainOf(mark: TrueUpMark, toMm: Projection, own: readonly number[]): number[] {
  if (mark.points.length === 2) {
    const { value, grain: noise } = pairStrain(mark, toMm);
    return [value / noise];
  }
  const placed = mark.points.map((p) => project(toMm, p));
  const slopes = mark.points.map((p) => affineAt(toMm, p));
  if (isPlate(mark)) {
    return onPlate(mark, own).flatMap((q, k) => {
      const p = placed[k] as Point;
      return intoPixels(slopes[k] as Transform, q.x - p.x, q.y - p.y);
    });
  }
  return rawOf(mark, placed, own).map(({ value, by }) => value / grain(by, slopes));
}

/**
 * The residual of a mark of two points in mm, its gradient by the second point (by the first it is the opposite), and
 * what a pixel of noise makes of it. Most marks are of this kind, and a fit asks for them thousands of times.
 */
function pairStrain({ kind, points, stated }: TrueUpMark, m: Projection): { value: number; gx: number; gy: number; grain: number } {
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
  if (kind === 'plumb') {
    gx = 1;
    gy = 0;
    value = dx;
  } else if (kind !== 'level') {
    const d = norm(dx, dy);
    gx = d > 0 ? dx / d : 1;
    gy = d > 0 ? dy / d : 0;
    value = d - (stated[0] as number) - (kind === 'clearance' ? (stated[1] as number) : 0);
  }
  const up = (gx * (m.a - m.g * px) + gy * (m.b - m.g * py)) / wp;
  const vp = (gx * (m.c - m.h * px) + gy * (m.d - m.h * py)) / wp;
  const uq = (gx * (m.a - m.g * qx) + gy * (m.b - m.g * qy)) / wq;
  const vq = (gx * (m.c - m.h * qx) + gy * (m.d - m.h * qy)) / wq;
  return { value, gx, gy, grain: Math.sqrt(up * up + vp * vp + uq * uq + vq * vq) };
}

/** A plate's points where its shift and turn put them. */
function onPlate(mark: TrueUpMark, own: readonly number[]): Point[] {
  const [x, y, angle] = own as [number, number, number];
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return platePlaces(mark).map((q) => ({ x: c * q.x - s * q.y + x, y: s * q.x + c * q.y + y }));
}

function intoPixels({ a, b, c, d }: Transform, dx: number, dy: number): [number, number] {
  const det = a * d - b * c;
  return [(d * dx - c * dy) / det, (a * dy - b * dx) / det];
}

/**
 * How the residuals change: by the free shape parameters, then by the mark's own unknowns; a row a parameter, a number
 * a residual. What noise makes of a residual is taken as it stands, as iteratively reweighted least squares do.
 */
export function slopesOf(
  mark: TrueUpMark,
  { toMm, movesOf }: ShapeSlopes,
  free: readonly number[],
  own: readonly number[],
  ownCount: number,
): { readonly shared: number[][]; readonly own: number[][] } {
  if (mark.points.length === 2) {
    const { gx, gy, grain: noise } = pairStrain(mark, toMm);
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
  if (isPlate(mark)) {
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
  const grains = raws.map(({ by }) => grain(by, slopes));
  const shared = free.map((index) =>
    raws.map(({ by }, r) => {
      let sum = 0;
      for (const [k, gx, gy] of by) {
        const move = moves[k] as number[];
        sum += gx * (move[2 * index] as number) + gy * (move[2 * index + 1] as number);
      }
      return sum / (grains[r] as number);
    }),
  );
  // The rim's residuals fall as the centre moves the way that they rise by their own point.
  const centre = [1, 2]
    .slice(0, ownCount)
    .map((axis) => raws.map(({ by }, r) => -((by[0] as readonly number[])[axis] as number) / (grains[r] as number)));
  return { shared, own: centre };
}

export interface ShapeSlopes {
  readonly toMm: Projection;
  /** How a point of the picture moves on the sheet with each of the six parameters: x and y in turn. */
  readonly movesOf: (p: Point) => number[];
}

export function shapeSlopes(values: ShapeValues, normal: Normal): ShapeSlopes {
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
