/**
 * In and out: points of the plane. On the sheet they are in mm, x right, y up; behind a picture's fit in pixels.
 */
export interface Point {
  readonly x: number;
  readonly y: number;
}

export const point = (x: number, y: number): Point => ({ x, y });
export const add = (a: Point, b: Point): Point => ({ x: a.x + b.x, y: a.y + b.y });
export const subtract = (a: Point, b: Point): Point => ({ x: a.x - b.x, y: a.y - b.y });
export const dot = (a: Point, b: Point): number => a.x * b.x + a.y * b.y;
/** The z part of the cross product: positive when b lies counter-clockwise of a (y up). */
export const cross = (a: Point, b: Point): number => a.x * b.y - a.y * b.x;
/** How far one direction is turned from another, radians, positive to the left. */
export const turnBetween = (a: Point, b: Point): number => Math.atan2(cross(a, b), dot(a, b));
/** The length of a vector by its parts; `Math.hypot`, which guards against figures too large to square, takes twenty times as long. */
export const norm = (x: number, y: number): number => Math.sqrt(x * x + y * y);
export const distance = (a: Point, b: Point): number => norm(b.x - a.x, b.y - a.y);
export const between = (a: Point, b: Point, t: number): Point => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });

/** The mean of points; not a number for none. */
export function middleOf(points: readonly Point[]): Point {
  const sum = points.reduce(add, { x: 0, y: 0 });
  return { x: sum.x / points.length, y: sum.y / points.length };
}

/** The vector at length 1; a vector of no length stays as it is. */
export function unitVector(a: Point): Point {
  const size = norm(a.x, a.y);
  return size > 0 ? { x: a.x / size, y: a.y / size } : a;
}

/** Where the line through `a` along `da` meets the line through `b` along `db`; null where they are parallel. */
export function crossing(a: Point, da: Point, b: Point, db: Point): Point | null {
  const turn = cross(da, db);
  if (Math.abs(turn) < 1e-12 * norm(da.x, da.y) * norm(db.x, db.y)) return null;
  const t = cross(subtract(b, a), db) / turn;
  return { x: a.x + t * da.x, y: a.y + t * da.y };
}

/** A point moved by a length to the left of a direction of length 1. */
export const toLeft = (p: Point, direction: Point, by: number): Point => ({ x: p.x - by * direction.y, y: p.y + by * direction.x });
