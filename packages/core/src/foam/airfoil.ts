/**
 * In: a NACA four-digit section by its name, or the coordinates of one. Out: the section on a chord of 1: its upper and its lower side, each
 * from the leading edge at 0, 0 to the trailing edge at 1.
 * Rests on: Abbott & von Doenhoff 1959, Theory of Wing Sections, chapter 6: thickness is laid off square to the mean line.
 */
import { SaidError, say } from '../messages/index.ts';
import { chain, distance, type Path, type Point, reversedPath, type Segment, shift, stretch, transformedPath, turn } from '../plane/index.ts'; // biome-ignore format: one line
import { pathThrough, selfCrossings } from '../shape/index.ts';

/** A wing's section; x runs aft, y up. */
export interface Airfoil {
  readonly name: string;
  readonly upper: Path;
  readonly lower: Path;
}

export class AirfoilError extends SaidError {
  readonly code = 'no-airfoil';
}

/** Curves along each side, dense towards the leading edge: equal steps of the angle of x = 1 - cos angle. */
const spans = 64;
const thicknessTerms = [0.2969, -0.126, -0.3516, 0.2843, -0.1015] as const;

/** Half the thickness at a place along the chord, as a share of it; it ends blunt, as published. */
export const nacaThickness = (t: number, x: number): number =>
  5 * t * (thicknessTerms[0] * Math.sqrt(x) + x * (thicknessTerms[1] + x * (thicknessTerms[2] + x * (thicknessTerms[3] + x * thicknessTerms[4])))); // biome-ignore format: one line

/** The mean line and its slope. */
export function nacaMeanLine(m: number, p: number, x: number): { y: number; slope: number } {
  if (m === 0) return { y: 0, slope: 0 };
  const scale = x < p ? m / (p * p) : m / ((1 - p) * (1 - p));
  const y = x < p ? scale * (2 * p * x - x * x) : scale * (1 - 2 * p + 2 * p * x - x * x);
  return { y, slope: 2 * scale * (p - x) };
}

/** @param digits as `2412` @throws AirfoilError where they name no section */
export function nacaAirfoil(digits: string): Airfoil {
  if (!/^\d{4}$/.test(digits)) throw new AirfoilError(say.foam.noNaca(digits));
  const [m, p, t] = [Number(digits[0]) / 100, Number(digits[1]) / 10, Number(digits.slice(2)) / 100];
  if (t === 0 || m > 0 !== p > 0) throw new AirfoilError(say.foam.noNaca(digits));
  const at = (angle: number, side: 1 | -1): Point => {
    const x = 1 - Math.cos(angle);
    const { y, slope } = nacaMeanLine(m, p, x);
    const [half, lean] = [nacaThickness(t, x), Math.atan(slope)];
    return { x: x - side * half * Math.sin(lean), y: y + side * half * Math.cos(lean) };
  };
  // The mean line's bend changes at its highest place: a curve ends there.
  const knot = p > 0 ? Math.acos(1 - p) : Math.PI / 4;
  const parts = Math.max(8, Math.round((spans * knot) / (Math.PI / 2)));
  const angles = [
    ...Array.from({ length: parts }, (_, k) => (knot * k) / parts),
    ...Array.from({ length: spans - parts + 1 }, (_, k) => knot + ((Math.PI / 2 - knot) * k) / (spans - parts)),
  ];
  const side = (sign: 1 | -1): Path => hermite(angles, (angle) => at(angle, sign));
  return { name: `NACA ${digits}`, upper: side(1), lower: side(-1) };
}

/** A step by which slopes are taken, radians. */
const slopeStep = 1e-5;

/** Cubics through a curve with its own slopes. */
function hermite(angles: readonly number[], at: (angle: number) => Point): Path {
  const places = angles.map(at);
  const segments = angles.slice(1).map((to, k): Segment => {
    const from = angles[k] as number;
    const [p, q] = [places[k] as Point, places[k + 1] as Point];
    const [a, b] = [slopeAt(at, from, 1), slopeAt(at, to, -1)];
    const h = (to - from) / 3;
    return { kind: 'cubic', c1: { x: p.x + h * a.x, y: p.y + h * a.y }, c2: { x: q.x - h * b.x, y: q.y - h * b.y }, to: q };
  });
  return { start: places[0] as Point, segments, closed: false };
}

/** The curve's derivative, taken within the span: three places, second order. */
function slopeAt(at: (angle: number) => Point, angle: number, side: 1 | -1): Point {
  const h = slopeStep * side;
  const [p, q, r] = [at(angle), at(angle + h), at(angle + 2 * h)];
  const of = (a: number, b: number, c: number): number => (-3 * a + 4 * b - c) / (2 * h);
  return { x: of(p.x, q.x, r.x), y: of(p.y, q.y, r.y) };
}

/**
 * A section through points, once round from the trailing edge over the upper side; its leading edge is the place that is farthest from the
 * trailing edge. It is turned and scaled so that its chord runs from 0, 0 to 1, 0.
 * @throws AirfoilError where there are too few points, or the section crosses itself
 */
export function airfoilThrough(name: string, round: readonly Point[]): Airfoil {
  const points = round.filter((p, k) => k === 0 || distance(p, round[k - 1] as Point) > 1e-9);
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last || points.length < 9) throw new AirfoilError(say.foam.fewPoints(points.length));
  const trailing = { x: (first.x + last.x) / 2, y: (first.y + last.y) / 2 };
  const nose = points.reduce((best, p, k) => (distance(p, trailing) > distance(points[best] as Point, trailing) ? k : best), 0);
  const leading = points[nose] as Point;
  if (nose < 2 || nose > points.length - 3) throw new AirfoilError(say.foam.noNose());
  const chord = distance(leading, trailing);
  const toUnit = chain(
    stretch(1 / chord),
    chain(turn(-Math.atan2(trailing.y - leading.y, trailing.x - leading.x)), shift(-leading.x, -leading.y)),
  );
  const loop = pathThrough(points.map((at, k) => ({ at, corner: k === 0 || k === points.length - 1 })), false) as Path; // biome-ignore format: one line
  const section = transformedPath(loop, toUnit);
  if (selfCrossings([section]).length > 0) throw new AirfoilError(say.foam.crossesItself());
  const [over, under] = [section.segments.slice(0, nose), section.segments.slice(nose)];
  const start = section.start;
  const [upper, lower] = [reversedPath({ start, segments: over, closed: false }), { start: over.at(-1)?.to ?? start, segments: under, closed: false }]; // biome-ignore format: one line
  // Drawn the other way round the first half is the lower side.
  const isUpright = middleHeight(upper) >= middleHeight(lower);
  return isUpright ? { name, upper, lower } : { name, upper: lower, lower: upper };
}

const middleHeight = ({ segments }: Path): number => segments.reduce((sum, { to }) => sum + to.y, 0) / segments.length;
