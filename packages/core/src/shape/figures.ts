/**
 * In: a figure's measures. Out: its outline: rectangle, circle, ellipse, regular polygon, slot, arc, line.
 * A figure keeps its measures, so that they can be typed anew at any time.
 */

import { type Message, SaidError, say } from '../messages/index.ts';
import type { Box } from '../plane/box.ts';
import { circlePath, ellipsePath, type Path, polygonPath, transformedPath } from '../plane/path.ts';
import { cross, crossing, distance, type Point, subtract, turnBetween, unitVector } from '../plane/point.ts';
import { chain, shift, turn } from '../plane/transform.ts';
import { withCornersCut } from './corner-cuts.ts';

export type Figure =
  | { readonly kind: 'line'; readonly from: Point; readonly to: Point }
  /** `radius` rounds the corners; `angle` turns the whole about its centre, radians. */
  | { readonly kind: 'rectangle'; readonly centre: Point; readonly width: number; readonly height: number; readonly radius: number; readonly angle: number } // biome-ignore format: a table
  | { readonly kind: 'circle'; readonly centre: Point; readonly radius: number }
  /** `rx` and `ry` are half axes. */
  | { readonly kind: 'ellipse'; readonly centre: Point; readonly rx: number; readonly ry: number; readonly angle: number }
  /** `radius` reaches the corners; the first lies at `angle`. */
  | { readonly kind: 'polygon'; readonly centre: Point; readonly sides: number; readonly radius: number; readonly angle: number }
  /** Between the middles of its round ends; a square slot's ends are flat and lie on them. `width` null follows the stock. */
  | { readonly kind: 'slot'; readonly from: Point; readonly to: Point; readonly width: number | null; readonly play: number; readonly ends: 'round' | 'flat' } // biome-ignore format: a table
  | { readonly kind: 'arc'; readonly from: Point; readonly to: Point; readonly sweep: number };

export class FigureError extends SaidError {
  constructor(
    readonly code: 'no-size' | 'no-stock',
    message: Message,
  ) {
    super(message);
  }
}

/**
 * The outline of a figure; closed but for lines and arcs.
 * @param thicknessMm the stock's, which slots may follow
 * @throws FigureError where a measure is missing or nothing
 */
export function figurePath(figure: Figure, thicknessMm: number | null = null): Path {
  switch (figure.kind) {
    case 'line':
      return { start: figure.from, segments: [{ kind: 'line', to: figure.to }], closed: false };
    case 'arc':
      return { start: figure.from, segments: [{ kind: 'arc', to: figure.to, sweep: figure.sweep }], closed: false };
    case 'circle':
      return circlePath(figure.centre, sized(figure.radius, 'radius'));
    case 'ellipse':
      return ellipsePath(figure.centre, sized(figure.rx, 'width'), sized(figure.ry, 'height'), figure.angle);
    case 'polygon': {
      const { centre, sides, radius, angle } = figure;
      sized(radius, 'radius');
      const corners = Array.from({ length: Math.max(3, Math.round(sides)) }, (_, k, n = Math.max(3, Math.round(sides))) => ({
        x: centre.x + radius * Math.cos(angle + (2 * Math.PI * k) / n),
        y: centre.y + radius * Math.sin(angle + (2 * Math.PI * k) / n),
      }));
      return polygonPath(corners);
    }
    case 'rectangle':
      return rectanglePath(figure);
    case 'slot':
      return slotPath(figure, thicknessMm);
  }
}

function sized(value: number, name: string): number {
  if (!(value > 0)) throw new FigureError('no-size', say.figures.mustBePositive(name));
  return value;
}

function rectanglePath({ centre, width, height, radius, angle }: Extract<Figure, { kind: 'rectangle' }>): Path {
  const [x, y] = [sized(width, 'width') / 2, sized(height, 'height') / 2];
  const plain = polygonPath([{ x: -x, y: -y }, { x, y: -y }, { x, y }, { x: -x, y }]); // biome-ignore format: one line
  const max = Math.min(x, y);
  const rounded = radius > 0 ? withCornersCut(plain, [0, 1, 2, 3], Math.min(radius, max * (1 - 1e-9))).path : plain;
  return transformedPath(rounded, chain(shift(centre.x, centre.y), turn(angle)));
}

function slotPath({ from, to, width, play, ends }: Extract<Figure, { kind: 'slot' }>, thicknessMm: number | null): Path {
  if (width === null && thicknessMm === null) throw new FigureError('no-stock', say.figures.stockUnknown());
  const half = sized((width ?? (thicknessMm as number)) + play, 'width') / 2;
  const length = distance(from, to);
  if (length < 1e-9) return circlePath(from, half);
  const d = unitVector(subtract(to, from));
  const at = (p: Point, side: number): Point => ({ x: p.x - d.y * half * side, y: p.y + d.x * half * side });
  const corners = [at(from, -1), at(to, -1), at(to, 1), at(from, 1)] as const;
  if (ends === 'flat') return polygonPath(corners);
  return {
    start: corners[0],
    segments: [
      { kind: 'line', to: corners[1] },
      { kind: 'arc', to: corners[2], sweep: Math.PI },
      { kind: 'line', to: corners[3] },
      { kind: 'arc', to: corners[0], sweep: Math.PI },
    ],
    closed: true,
  };
}

/** The circle through three places; null where they lie in one line. */
export function circleThrough(a: Point, b: Point, c: Point): { centre: Point; radius: number } | null {
  const middle = (p: Point, q: Point): Point => ({ x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 });
  const across = (p: Point, q: Point): Point => ({ x: p.y - q.y, y: q.x - p.x });
  const centre = crossing(middle(a, b), across(a, b), middle(b, c), across(b, c));
  return centre && { centre, radius: distance(centre, a) };
}

/** The circle of a radius that touches two lines, on the side of both where `near` lies; null for parallel ones. */
export function circleTouching(
  [a, b]: readonly [Point, Point],
  [c, d]: readonly [Point, Point],
  radius: number,
  near: Point,
): { centre: Point; radius: number } | null {
  const offset = (p: Point, q: Point): { at: Point; along: Point } => {
    const along = unitVector(subtract(q, p));
    const side = Math.sign(cross(along, subtract(near, p))) || 1;
    return { at: { x: p.x - along.y * radius * side, y: p.y + along.x * radius * side }, along };
  };
  const [p, q] = [offset(a, b), offset(c, d)];
  const centre = crossing(p.at, p.along, q.at, q.along);
  return centre && { centre, radius };
}

/** The line midway between two: halving the angle in which both places lie, or along the middle of parallel ones. */
export function lineMidway(
  [a, b]: readonly [Point, Point],
  [c, d]: readonly [Point, Point],
  nearFirst: Point,
  nearSecond: Point,
): { at: Point; along: Point } {
  const [first, second] = [unitVector(subtract(b, a)), unitVector(subtract(d, c))];
  const met = Math.abs(cross(first, second)) < 1e-9 ? null : crossing(a, first, c, second);
  if (!met) {
    const off = cross(first, subtract(c, a)) / 2;
    return { at: { x: a.x - first.y * off, y: a.y + first.x * off }, along: first };
  }
  const toward = (d0: Point, near: Point): Point => {
    const sign = Math.sign(d0.x * (near.x - met.x) + d0.y * (near.y - met.y)) || 1;
    return { x: d0.x * sign, y: d0.y * sign };
  };
  const [p, q] = [toward(first, nearFirst), toward(second, nearSecond)];
  return { at: met, along: unitVector({ x: p.x + q.x, y: p.y + q.y }) };
}

/** A line through a place, right across a box and a little beyond; by its least reach, mm, where the box is small. */
export function lineAcross(at: Point, along: Point, box: Box | null, minMm = 150): Figure {
  const d = unitVector(along);
  const corners = box ? [{ x: box.minX, y: box.minY }, { x: box.maxX, y: box.minY }, { x: box.maxX, y: box.maxY }, { x: box.minX, y: box.maxY }] : []; // biome-ignore format: one line
  const stations = [0, ...corners.map((p) => (p.x - at.x) * d.x + (p.y - at.y) * d.y)];
  const [first, last] = [Math.min(...stations), Math.max(...stations)];
  const [middle, half] = [(first + last) / 2, Math.max(minMm, (last - first) / 2) + 5];
  const [low, high] = [middle - half, middle + half];
  return { kind: 'line', from: { x: at.x + d.x * low, y: at.y + d.y * low }, to: { x: at.x + d.x * high, y: at.y + d.y * high } };
}

/** An arc that leaves a place in a direction and ends at another; a line where that lies straight ahead. */
export function arcLeaving(from: Point, direction: Point, to: Point): Figure {
  const chord = subtract(to, from);
  const sweep = 2 * turnBetween(direction, chord);
  return Math.abs(sweep) < 1e-9 ? { kind: 'line', from, to } : { kind: 'arc', from, to, sweep };
}
