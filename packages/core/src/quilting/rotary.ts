/**
 * In: a patch's outline and the seam allowance. Out: how it is cut with a ruler and a rotary cutter: the figure, the size to cut it at,
 * and how many come of one cut.
 * Rests on elementary geometry: a figure whose sides all move out by the allowance a. A half-square triangle's square grows by
 * a (2 + sqrt 2), 7/8 in at 1/4 in; a quarter-square triangle's by a (2 + 2 sqrt 2), 1 1/4 in (both common practice, rounded up to eighths).
 */
import { printToType } from '../length/index.ts';
import { cross, distance, dot, type Path, type Point, stepsOf, subtract, turnBetween, unitVector } from '../plane/index.ts';

export const figureWords = {
  square: 'square',
  rectangle: 'rectangle',
  'half-square triangle': 'half-square triangle',
  'quarter-square triangle': 'quarter-square triangle',
  'half-rectangle triangle': 'half-rectangle triangle',
  'equilateral triangle': 'equilateral triangle',
  diamond: 'diamond',
  parallelogram: 'parallelogram',
  trapezoid: 'trapezoid',
  'bias strip': 'bias strip',
  template: 'template',
} as const;
export type RotaryFigure = keyof typeof figureWords;

export interface RotaryCut {
  readonly figure: RotaryFigure;
  /** Width of the strip that it is cut from, and how far along it each cut goes, mm, allowances included; null of a template. */
  readonly stripMm: number | null;
  readonly lengthMm: number | null;
  /** The angle of the cuts across the strip, degrees; 90 is straight across. */
  readonly angle: number;
  /** Patches that one such cut makes: two triangles of a square cut once. */
  readonly perCut: number;
}

/** Sides and angles are what they seem within this. */
const within = { share: 0.004, degrees: 0.6 };

const degrees = (radians: number): number => (radians * 180) / Math.PI;
const isNear = (a: number, b: number): boolean => Math.abs(a - b) <= within.share * Math.max(a, b);
const isAngle = (a: number, b: number): boolean => Math.abs(a - b) <= within.degrees;

export function rotaryCut(outline: Path, allowanceMm: number): RotaryCut {
  const steps = stepsOf(outline);
  if (steps.some(({ segment }) => segment.kind !== 'line')) return byTemplate;
  const corners = steps.map(({ from }) => from);
  return (corners.length === 3 ? triangleCut(corners, allowanceMm) : corners.length === 4 ? fourSidedCut(corners, allowanceMm) : null) ?? byTemplate; // biome-ignore format: one line
}

/** Of what no ruler cuts. */
export const byTemplate: RotaryCut = { figure: 'template', stripMm: null, lengthMm: null, angle: 90, perCut: 1 };

/** Sides from each corner to the next, and the inner angle at each corner, degrees. */
function measuresOf(corners: readonly Point[]): { lengths: number[]; directions: Point[]; angles: number[] } {
  const next = (k: number): Point => corners[(k + 1) % corners.length] as Point;
  const directions = corners.map((p, k) => unitVector(subtract(next(k), p)));
  return {
    lengths: corners.map((p, k) => distance(p, next(k))),
    directions,
    angles: directions.map((d, k) => 180 - degrees(turnBetween(directions.at(k - 1) as Point, d))),
  };
}

/** Whether a side runs along or across the cloth, as the block lies on it. */
const isOnGrain = ({ x, y }: Point): boolean => Math.min(Math.abs(x), Math.abs(y)) < Math.sin((within.degrees * Math.PI) / 180);

function triangleCut(corners: readonly Point[], a: number): RotaryCut | null {
  const { lengths, directions, angles } = measuresOf(corners);
  const right = angles.findIndex((angle) => isAngle(angle, 90));
  if (right >= 0) {
    const [p, q, hypotenuse] = [lengths[right] as number, lengths.at(right - 1) as number, lengths[(right + 1) % 3] as number];
    // Whatever the triangle, all its sides out by a make a similar one: its inscribed circle grows by a.
    const inscribed = (p + q - hypotenuse) / 2;
    const grown = (inscribed + a) / inscribed;
    if (!isNear(p, q))
      return { figure: 'half-rectangle triangle', stripMm: Math.min(p, q) * grown, lengthMm: Math.max(p, q) * grown, angle: 90, perCut: 2 };
    const onGrain = isOnGrain(directions[(right + 1) % 3] as Point);
    return onGrain
      ? { figure: 'quarter-square triangle', stripMm: hypotenuse * grown, lengthMm: hypotenuse * grown, angle: 90, perCut: 4 }
      : { figure: 'half-square triangle', stripMm: p * grown, lengthMm: p * grown, angle: 90, perCut: 2 };
  }
  if (!angles.every((angle) => isAngle(angle, 60))) return null;
  const height = ((lengths[0] as number) * Math.sqrt(3)) / 2 + 3 * a;
  return { figure: 'equilateral triangle', stripMm: height, lengthMm: (2 * height) / Math.sqrt(3), angle: 60, perCut: 1 };
}

function fourSidedCut(corners: readonly Point[], a: number): RotaryCut | null {
  const { lengths, directions, angles } = measuresOf(corners);
  const [w, h] = lengths as [number, number];
  const parallel = [0, 1].map(
    (k) => Math.abs(degrees(Math.asin(cross(directions[k] as Point, directions[k + 2] as Point)))) <= within.degrees,
  );
  const acute = Math.min(...angles);
  if (parallel[0] && parallel[1]) {
    if (isAngle(acute, 90)) {
      const sides = [w + 2 * a, h + 2 * a];
      return isNear(w, h)
        ? { figure: 'square', stripMm: sides[0] as number, lengthMm: sides[0] as number, angle: 90, perCut: 1 }
        : { figure: 'rectangle', stripMm: Math.min(...sides), lengthMm: Math.max(...sides), angle: 90, perCut: 1 };
    }
    const lean = Math.sin((acute * Math.PI) / 180);
    // Cuts lie as far apart as the other two sides do, measured square to them.
    const [strip, step] = [Math.min(w, h) * lean, Math.max(w, h) * lean].map((v) => v + 2 * a) as [number, number];
    return isNear(w, h)
      ? { figure: 'diamond', stripMm: strip, lengthMm: strip, angle: acute, perCut: 1 }
      : { figure: 'parallelogram', stripMm: strip, lengthMm: step, angle: acute, perCut: 1 };
  }
  const base = parallel.indexOf(true);
  if (base < 0) return null;
  const [p, q] = [corners[base] as Point, corners[base + 2] as Point];
  const height = Math.abs(cross(directions[base] as Point, subtract(q, p)));
  return {
    figure: 'trapezoid',
    stripMm: height + 2 * a,
    lengthMm: longSpan(corners, directions[base] as Point, angles, a),
    angle: acute,
    perCut: 1,
  };
}

/** How long a trapezoid is along its parallel sides with its allowance. */
function longSpan(corners: readonly Point[], along: Point, angles: readonly number[], a: number): number {
  const spans = corners.map((p, k) => {
    // A corner's mitre lies a / sin(angle / 2) out along its bisector.
    const [before, after] = [corners.at(k - 1) as Point, corners[(k + 1) % corners.length] as Point];
    const [d, e] = [unitVector(subtract(before, p)), unitVector(subtract(after, p))];
    const half = ((angles[k] as number) * Math.PI) / 360;
    const bisector = unitVector({ x: -(d.x + e.x), y: -(d.y + e.y) });
    const tip = { x: p.x + (bisector.x * a) / Math.sin(half), y: p.y + (bisector.y * a) / Math.sin(half) };
    return dot(along, tip);
  });
  return Math.max(...spans) - Math.min(...spans);
}

const eighthMm = 25.4 / 8;
/** A size that lies this little over an eighth is that eighth: a thread. */
const threadMm = 0.05;

/** Up to the next eighth of an inch. */
export const upToEighths = (mm: number): number => Math.ceil((mm - threadMm) / eighthMm) * eighthMm;

/** `3 7/8`, or `1 1/2 x 2 1/2` where it is longer than wide; slanted cuts with their angle; `template` where a ruler does not do. */
export function cutText({ stripMm, lengthMm, angle, figure }: RotaryCut, unit: 'mm' | 'in' = 'in'): string {
  if (stripMm === null || lengthMm === null) return figureWords.template;
  const [strip, long] = [printToType(stripMm, unit), printToType(lengthMm, unit)];
  const sizes = strip === long || figure === 'equilateral triangle' ? strip : `${strip} x ${long}`;
  return angle === 90 || figure === 'trapezoid' ? sizes : `${sizes} at ${Math.round(angle * 10) / 10}°`;
}
