/**
 * The kinds of marks: what each is made of, what it implies, its residuals and what it measures. One entry is all that the fit needs
 * to know of a new kind.
 * Rests on: Sampson 1982 (first-order geometric distance), Hartley & Zisserman 2004, 4.2; what noise makes of a residual is worked out
 * in `residuals.ts`.
 */
import { type Message, say } from '../messages/index.ts';
import { boxAround, heightOf, widthOf } from '../plane/box.ts';
import { distance, norm, type Point, subtract } from '../plane/point.ts';
import { type FourPoints, isSpread } from '../plane/projection.ts';
import { centreOfRim } from './circle.ts';
import type { MarkFacts } from './marks.ts';
import { checkLineMm } from './scale-card.ts';

export interface ImpliedLength {
  /** Which of the mark's statements. */
  readonly index: number;
  /** mm; a clearance claims its diameter and play together. */
  readonly stated: number;
  /** In the plane's unit. */
  readonly measured: number;
}

/** A residual with its gradient by the mark's points, as far as it has one. */
export interface Raw {
  readonly value: number;
  readonly by: readonly (readonly [index: number, gx: number, gy: number])[];
}

export interface Measured {
  readonly what: 'length' | 'angle' | 'radius';
  /** In mm, or in degrees for an angle. */
  readonly value: number;
}

export interface MarkShape {
  /** What undo calls it. */
  readonly label: string;
  /** How many points at least and at most. */
  readonly min: number;
  readonly max: number;
  /** What is stated of it. */
  readonly stated: readonly string[];
  /** What it tells the fit; `nothing` only measures. */
  readonly tells: 'size' | 'direction' | 'right-angle' | 'nothing';
  /** Of two points: what is compared with what is stated, their distance, their rise, or their run. */
  readonly pair?: 'distance' | 'rise' | 'run';
  /** Its points may lie on one another: they come from the picture, not from clicks. */
  readonly mayCoincide?: boolean;
  /** One of its sizes is enough; the others then bound nothing. */
  readonly oneIsEnough?: boolean;
  /** Whether the places of its points come with it. */
  readonly hasPlaces?: boolean;
  /** What its residuals are called, length by length. */
  readonly parts?: readonly ('passage' | 'width' | 'height' | 'diameter')[];
  /** What it is before an odd quarter turn. */
  readonly quartered?: 'level' | 'plumb';
  /** Why no fit can use its points, whatever is stated. */
  flaw?(points: readonly Point[]): Message | null;
  /** The lengths that it implies, in whatever plane its points are given. */
  impliedLengths?(mark: MarkFacts, points: readonly Point[]): ImpliedLength[];
  /** Where its points lie among themselves, mm, counter-clockwise as the marks run on the sheet: what is fitted is where that lies. */
  template?(mark: MarkFacts): readonly Point[];
  /** A first guess of the unknowns that are its own. */
  own?(placed: readonly Point[]): number[];
  /** Of more than two points: how far they are from what is stated, with the gradients. */
  residuals?(mark: MarkFacts, placed: readonly Point[], own: readonly number[]): Raw[];
  /** How far it leaves its direction, radians, and that over its length, mm. */
  offDirection?(placed: readonly Point[]): { readonly angle: number; readonly mm: number };
  /** What it measures by itself on the sheet. */
  measured?(placed: readonly Point[]): Measured;
}

const side = (points: readonly Point[], i: number, j: number): number => distance(points[i] as Point, points[j] as Point);
const implied = (index: number, stated: number, measured: number): ImpliedLength => ({ index, stated, measured });

const length = (p: readonly Point[]): Measured => ({
  what: 'length',
  value: p.slice(1).reduce((sum, q, k) => sum + distance(p[k] as Point, q), 0),
});
const angle = (p: readonly Point[]): Measured => ({
  what: 'angle',
  value: (cornerAngle(p as unknown as [Point, Point, Point]) * 180) / Math.PI,
});
const radius = (p: readonly Point[]): Measured => ({ what: 'radius', value: centreOfRim(p).radius });

const rimFlaw = (points: readonly Point[]): Message | null => (hasBend(points) ? null : say.trueUp.rimInOneLine());

/** Back to within a quarter turn: which end was marked first does not matter. */
function offLine(from: number): NonNullable<MarkShape['offDirection']> {
  return (placed) => {
    const [a, b] = placed as [Point, Point];
    const raw = Math.atan2(b.y - a.y, b.x - a.x) - from;
    const off = raw - Math.PI * Math.round(raw / Math.PI);
    return { angle: off, mm: distance(a, b) * Math.sin(off) };
  };
}

const kinds = {
  'known-length': {
    label: 'a known length',
    min: 2,
    max: 2,
    stated: ['length'],
    tells: 'size',
    pair: 'distance',
    impliedLengths: ({ stated }, p) => [implied(0, stated[0] as number, side(p, 0, 1))],
    measured: length,
  },
  level: {
    label: 'a level line',
    min: 2,
    max: 2,
    stated: [],
    tells: 'direction',
    pair: 'rise',
    quartered: 'plumb',
    offDirection: offLine(0),
  },
  plumb: {
    label: 'a plumb line',
    min: 2,
    max: 2,
    stated: [],
    tells: 'direction',
    pair: 'run',
    quartered: 'level',
    offDirection: offLine(Math.PI / 2),
  },
  /** One leg's end, the corner, the other leg's end. */
  'right-angle': {
    label: 'a right angle',
    min: 3,
    max: 3,
    stated: [],
    tells: 'right-angle',
    residuals: (_, p) => [cornerOff(p as unknown as [Point, Point, Point])],
    offDirection: (p) => {
      const off = cornerAngle(p as unknown as [Point, Point, Point]) - Math.PI / 2;
      return { angle: off, mm: Math.min(side(p, 0, 1), side(p, 2, 1)) * Math.sin(off) };
    },
    measured: angle,
  },
  /** The corners of a rectangle in turn; the first side is its width. */
  frame: {
    label: 'a frame',
    min: 4,
    max: 4,
    stated: ['width', 'height'],
    tells: 'size',
    parts: ['width', 'height'],
    flaw: (points) => (isSpread(points as unknown as FourPoints) ? null : say.trueUp.frameInOneLine()),
    impliedLengths: ({ stated }, p) => [
      implied(0, stated[0] as number, (side(p, 0, 1) + side(p, 2, 3)) / 2),
      implied(1, stated[1] as number, (side(p, 1, 2) + side(p, 3, 0)) / 2),
    ],
    template: ({ points, stated }) => {
      const [w, h] = stated as [number, number];
      // Marks given clockwise on the screen run clockwise on the sheet as well.
      const up = signedArea(points) < 0 ? h : -h;
      return [
        { x: 0, y: 0 },
        { x: w, y: 0 },
        { x: w, y: up },
        { x: 0, y: up },
      ];
    },
  },
  /** Points on a circle's rim; its centre is its own. */
  circle: {
    label: 'a circle',
    min: 3,
    max: 24,
    stated: ['diameter'],
    tells: 'size',
    parts: ['diameter'],
    flaw: rimFlaw,
    impliedLengths: ({ stated }, p) => [implied(0, stated[0] as number, 2 * centreOfRim(p).radius)],
    own: (p) => {
      const { x, y } = centreOfRim(p);
      return [x, y];
    },
    residuals: ({ stated }, p, own) =>
      p.map((q, k): Raw => {
        const [x, y] = [q.x - (own[0] as number), q.y - (own[1] as number)];
        const r = norm(x, y);
        return { value: r - (stated[0] as number) / 2, by: [[k, r > 0 ? x / r : 1, r > 0 ? y / r : 0]] };
      }),
    measured: radius,
  },
  /** The drawn part: corners of its convex hull. Unless each side is stretched only the side that touches is implied. */
  box: {
    label: 'a box',
    min: 3,
    max: 200,
    stated: ['width', 'height'],
    tells: 'size',
    parts: ['width', 'height'],
    mayCoincide: true,
    oneIsEnough: true,
    impliedLengths: ({ stated, boxFit }, p) => {
      const box = boxAround(p) as NonNullable<ReturnType<typeof boxAround>>;
      const both = [implied(0, stated[0] as number, widthOf(box)), implied(1, stated[1] as number, heightOf(box))] as const;
      return boxFit === 'each-side' ? [...both] : [touching(both, boxFit === 'covering')];
    },
    residuals: ({ stated, boxFit }, p) => {
      const [width, height] = stated as [number, number];
      const [x, y] = [extentOff(p, 'x', width), extentOff(p, 'y', height)];
      if (boxFit === 'each-side') return [x, y];
      const sides = [
        { raw: x, stated: width, measured: x.value + width },
        { raw: y, stated: height, measured: y.value + height },
      ] as const;
      return [touching(sides, boxFit === 'covering').raw];
    },
  },
  /** The two sides of a passage, where it is narrowest: what must pass, and the play beside it. */
  clearance: {
    label: 'a clearance',
    min: 2,
    max: 2,
    stated: ['diameter', 'play'],
    tells: 'size',
    pair: 'distance',
    parts: ['passage'],
    impliedLengths: ({ stated }, p) => [implied(0, (stated[0] as number) + (stated[1] as number), side(p, 0, 1))],
    measured: length,
  },
  /** The corners of the scale card's markers, four a marker; the check line is 100 mm where the card was printed true. */
  'scale-card': {
    label: 'the scale card',
    min: 4,
    max: 16,
    stated: ['check line'],
    tells: 'size',
    hasPlaces: true,
    template: ({ places = [], stated }) => {
      const grow = (stated[0] ?? checkLineMm) / checkLineMm;
      return places.map(({ x, y }) => ({ x: x * grow, y: y * grow }));
    },
  },
  check: { label: 'a check measurement', min: 2, max: 2, stated: ['length'], tells: 'nothing', measured: length },
  /** One leg's end, the corner, the other leg's end; degrees are stated. */
  'check-angle': { label: 'a check measurement', min: 3, max: 3, stated: ['angle'], tells: 'nothing', measured: angle },
  'check-radius': { label: 'a check measurement', min: 3, max: 3, stated: ['radius'], tells: 'nothing', flaw: rimFlaw, measured: radius },
  'check-along': { label: 'a check measurement', min: 2, max: 100, stated: ['length'], tells: 'nothing', measured: length },
} as const satisfies Record<string, MarkShape>;

export type MarkKind = keyof typeof kinds;
export const markKinds: Readonly<Record<MarkKind, MarkShape>> = kinds;
export const markKindNames = Object.keys(kinds) as [MarkKind, ...MarkKind[]];

/** Kinds that tell the fit something. */
export type PullingKind = { [K in MarkKind]: (typeof kinds)[K]['tells'] extends 'nothing' ? never : K }[MarkKind];

/** A mark that counts, with all that is stated of it. */
export interface TrueUpMark extends MarkFacts {
  readonly kind: PullingKind;
  readonly id: string;
}

/** Marks whose points have known places among themselves. */
export const isTemplate = ({ kind }: TrueUpMark): boolean => markKinds[kind].template !== undefined;
export const isDirection = ({ kind }: TrueUpMark): boolean => markKinds[kind].tells === 'direction';
/** Whether the mark says how large something is. */
export const isSizing = ({ kind }: TrueUpMark): boolean => markKinds[kind].tells === 'size';
/** Whether it only measures. */
export const isCheck = ({ kind }: { readonly kind: MarkKind }): boolean => markKinds[kind].tells === 'nothing';
export const isPulling = (kind: MarkKind): kind is PullingKind => markKinds[kind].tells !== 'nothing';

/** The lengths that a mark implies, its points given in some plane; lines, corners and the scale card imply none. */
export const impliedLengthsOf = (mark: TrueUpMark, points: readonly Point[]): ImpliedLength[] =>
  markKinds[mark.kind].impliedLengths?.(mark, points) ?? [];

/** Where a template's points lie on it, mm. */
export const templatePoints = (mark: TrueUpMark): readonly Point[] => markKinds[mark.kind].template?.(mark) ?? [];

/** The side that a drawn part touches its box with: the relatively longer one inside it, the shorter one over it. */
export function touching<T extends { readonly stated: number; readonly measured: number }>(
  [wide, high]: readonly [T, T],
  isCovering: boolean,
): T {
  const isWideLonger = wide.measured / wide.stated > high.measured / high.stated;
  return isWideLonger === isCovering ? high : wide;
}

/** The angle at the middle one of three points, 0 to pi. */
export function cornerAngle([a, corner, c]: readonly [Point, Point, Point]): number {
  const [u, v] = [subtract(a, corner), subtract(c, corner)];
  return Math.atan2(Math.abs(u.x * v.y - u.y * v.x), u.x * v.x + u.y * v.y);
}

function signedArea(points: readonly Point[]): number {
  return points.reduce((sum, p, k) => {
    const q = points[(k + 1) % points.length] as Point;
    return sum + p.x * q.y - q.x * p.y;
  }, 0);
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

/** Whether points leave their longest chord by more than a thousandth of it. */
function hasBend(points: readonly Point[]): boolean {
  let chord: readonly [Point, Point, number] = [points[0] as Point, points[0] as Point, 0];
  for (const p of points) for (const q of points) if (distance(p, q) > chord[2]) chord = [p, q, distance(p, q)];
  const [a, b, length] = chord;
  return points.some((p) => Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) > 1e-3 * length * length);
}
