/**
 * Die lines of cartons, drawn from their width, depth and height inside and the board's thickness: solid cuts, dashed creases.
 * Proportions of flaps and allowances are common practice.
 */
import { type Path, type Point, polygonOf, shift, transformedPath } from '@nuvet/core/plane';
import { penStroke } from './line-figures.ts';
import type { ScenePiece } from './scene.ts';

export const cartonKinds = ['tuck end', 'sleeve', 'tray', 'pillow', 'hexagonal'] as const;
export type CartonKind = (typeof cartonKinds)[number];

export interface CartonSize {
  readonly widthMm: number;
  readonly depthMm: number;
  readonly heightMm: number;
  readonly boardMm: number;
}

export interface Carton {
  readonly kind: CartonKind;
  /** The contour, closed. */
  readonly contour: Path;
  /** Cuts within it, from the contour on. */
  readonly slits: readonly Path[];
  readonly creases: readonly Path[];
  /** How many panels there are to fold. */
  readonly panels: number;
  /** From the sheet's lower left, with a margin of 12 mm about the carton. */
  readonly sheet: { readonly widthMm: number; readonly heightMm: number };
}

const marginMm = 12;
type Pair = readonly [number, number];

/** @param slitMm how far flaps stand off one another; 0 parts them by one cut */
export function cartonOf(kind: CartonKind, size: CartonSize, slitMm = 0): Carton {
  const drawn = builders[kind](size, slitMm);
  const points = polygonOf(drawn.contour, 0.01);
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  const [dx, dy] = [marginMm - Math.min(...xs), marginMm - Math.min(...ys)];
  const moved = (path: Path): Path => transformedPath(path, shift(dx, dy));
  return {
    kind,
    panels: drawn.panels,
    contour: moved(drawn.contour),
    slits: drawn.slits.map(moved),
    creases: drawn.creases.map(moved),
    sheet: {
      widthMm: Math.max(...xs) - Math.min(...xs) + 2 * marginMm,
      heightMm: Math.max(...ys) - Math.min(...ys) + 2 * marginMm,
    },
  };
}

type Drawn = Omit<Carton, 'kind' | 'sheet'>;

const builders: Record<CartonKind, (size: CartonSize, slitMm: number) => Drawn> = {
  'tuck end': tuckEnd,
  sleeve,
  tray,
  pillow,
  hexagonal,
};

const open = (...points: readonly Pair[]): Path => through(points, false);
const ring = (points: readonly Pair[]): Path => through(points, true);

function through(given: readonly Pair[], closed: boolean): Path {
  const points = given.filter(([x, y], k) => {
    const before = k > 0 ? given[k - 1] : closed ? given.at(-1) : undefined;
    return !before || Math.hypot(x - before[0], y - before[1]) > 1e-9;
  });
  const [start, ...rest] = points.map(([x, y]) => ({ x, y })) as [Point, ...Point[]];
  return { start, segments: [...rest, ...(closed ? [start] : [])].map((to) => ({ kind: 'line', to })), closed };
}

function sums(widths: readonly number[]): number[] {
  const ends = [0];
  for (const w of widths) ends.push((ends.at(-1) as number) + w);
  return ends;
}

/** Back, side, front, side with a glue flap; a lid with its tuck on the back above and below; dust flaps on the sides. */
function tuckEnd({ widthMm: w, depthMm: d, heightMm: h, boardMm: t }: CartonSize, slit: number): Drawn {
  const xs = sums([w, d, w, d - t]) as [number, number, number, number, number];
  const glue = Math.min(12, 0.6 * d);
  const tuck = Math.min(14, 0.6 * d);
  const dust = Math.min(w / 2 - 1, 0.7 * d);
  const lid = (a: number, b: number, y: number, way: number): Pair[] => {
    const e = Math.sign(b - a);
    return [
      [a + e * slit, y],
      [a + e * slit, y + way * (d - t)],
      [a + e * (slit + 0.25 * tuck), y + way * (d - t + tuck)],
      [b - e * (slit + 0.25 * tuck), y + way * (d - t + tuck)],
      [b - e * slit, y + way * (d - t)],
      [b - e * slit, y],
    ];
  };
  const flap = (a: number, b: number, y: number, way: number): Pair[] => {
    const e = Math.sign(b - a);
    return [
      [a, y],
      [a + e * 0.15 * d, y + way * dust],
      [b - e * 0.15 * d, y + way * dust],
      [b, y],
    ];
  };
  const contour = ring([
    [-glue, h - 0.4 * glue],
    [0, h],
    ...lid(xs[0], xs[1], h, 1),
    ...flap(xs[1], xs[2], h, 1),
    ...flap(xs[3], xs[4], h, 1),
    ...flap(xs[4], xs[3], 0, -1),
    ...flap(xs[2], xs[1], 0, -1),
    ...lid(xs[1], xs[0], 0, -1),
    [0, 0],
    [-glue, 0.4 * glue],
  ]);
  const creases = [
    ...xs.slice(0, 4).map((x) => open([x, 0], [x, h])),
    open([xs[0] + slit, h], [xs[1] - slit, h]),
    open([xs[1], h], [xs[2], h]),
    open([xs[3], h], [xs[4], h]),
    open([xs[0] + slit, h + d - t], [xs[1] - slit, h + d - t]),
    open([xs[0] + slit, 0], [xs[1] - slit, 0]),
    open([xs[1], 0], [xs[2], 0]),
    open([xs[3], 0], [xs[4], 0]),
    open([xs[0] + slit, t - d], [xs[1] - slit, t - d]),
  ];
  return { contour, slits: [], creases, panels: 13 };
}

/** Four walls and a glue flap, both ends open. */
function sleeve({ widthMm: w, depthMm: d, heightMm: h, boardMm: t }: CartonSize): Drawn {
  const xs = sums([w, d, w - t, d - t]) as [number, number, number, number, number];
  const glue = Math.min(14, 0.7 * d);
  const contour = ring([[0, 0], [xs[4], 0], [xs[4], h], [0, h], [-glue, h - 0.5 * glue], [-glue, 0.5 * glue]]); // biome-ignore format: points
  return { contour, slits: [], creases: xs.slice(0, 4).map((x) => open([x, 0], [x, h])), panels: 5 };
}

/** A base with four walls; tabs on the short ones are glued to the long ones, from which cuts part them. */
function tray({ widthMm: w, depthMm: d, heightMm: h, boardMm: t }: CartonSize, slit: number): Drawn {
  const tab = Math.min(h - t, 0.45 * w);
  // The side walls stand left and right, with tabs above and below that reach beside the long walls.
  const contour = ring([
    [0, -h],
    [w, -h],
    ...(slit > 0
      ? ([
          [w, 0],
          [w + slit, 0],
        ] as Pair[])
      : []),
    [w + slit, -tab],
    [w + h, -tab + 0.3 * tab],
    [w + h, 0],
    [w + h, d],
    [w + h, d + tab - 0.3 * tab],
    ...(slit > 0
      ? ([
          [w + slit, d + tab],
          [w + slit, d],
          [w, d],
        ] as Pair[])
      : ([[w, d + tab]] as Pair[])),
    [w, d + h],
    [0, d + h],
    ...(slit > 0
      ? ([
          [0, d],
          [-slit, d],
          [-slit, d + tab],
        ] as Pair[])
      : ([[0, d + tab]] as Pair[])),
    [-h, d + tab - 0.3 * tab],
    [-h, d],
    [-h, 0],
    [-h, -tab + 0.3 * tab],
    ...(slit > 0
      ? ([
          [-slit, -tab],
          [-slit, 0],
          [0, 0],
        ] as Pair[])
      : ([[0, -tab]] as Pair[])),
  ]);
  const slits = slit > 0 ? [] : [open([w, -tab], [w, 0]), open([w, d + tab], [w, d]), open([0, d + tab], [0, d]), open([0, -tab], [0, 0])];
  const creases = [
    open([0, 0], [w, 0]),
    open([0, d], [w, d]),
    open([0, 0], [0, d]),
    open([w, 0], [w, d]),
    open([w + slit, 0], [w + h, 0]),
    open([w + slit, d], [w + h, d]),
    open([-slit, 0], [-h, 0]),
    open([-slit, d], [-h, d]),
  ];
  return { contour, slits, creases, panels: 9 };
}

/** Two faces with bowed ends, each closed by a flap that folds along a bow the other way, and a glue flap. */
function pillow({ widthMm: w, depthMm: d, heightMm: h }: CartonSize): Drawn {
  const bow = Math.min(0.45 * d, 0.25 * w);
  const glue = Math.min(12, 0.2 * w);
  const arc = (a: Pair, b: Pair, by: number) =>
    ({ kind: 'cubic', c1: { x: a[0] + (b[0] - a[0]) / 4, y: a[1] + by }, c2: { x: b[0] - (b[0] - a[0]) / 4, y: b[1] + by }, to: { x: b[0], y: b[1] } }) as const; // biome-ignore format: one line
  const line = (x: number, y: number) => ({ kind: 'line', to: { x, y } }) as const;
  const contour: Path = {
    start: { x: 0, y: 0 },
    segments: [
      arc([0, 0], [w, 0], -bow),
      arc([w, 0], [2 * w, 0], -bow),
      line(2 * w, h),
      arc([2 * w, h], [w, h], bow),
      arc([w, h], [0, h], bow),
      line(-glue, h - 0.5 * glue),
      line(-glue, 0.5 * glue),
      line(0, 0),
    ],
    closed: true,
  };
  const curve = (a: Pair, b: Pair, by: number): Path => ({ start: { x: a[0], y: a[1] }, segments: [arc(a, b, by)], closed: false });
  const creases = [
    open([0, 0], [0, h]),
    open([w, 0], [w, h]),
    curve([0, 0], [w, 0], bow),
    curve([w, 0], [2 * w, 0], bow),
    curve([0, h], [w, h], -bow),
    curve([w, h], [2 * w, h], -bow),
  ];
  return { contour, slits: [], creases, panels: 7 };
}

/** Six walls and a glue flap; a lid and a floor of six sides on one wall, each with a tuck. */
function hexagonal({ widthMm: w, heightMm: h, boardMm: t }: CartonSize): Drawn {
  const side = Math.min(w, 38);
  const xs = sums([side, side, side, side, side, side - t]) as number[];
  const glue = Math.min(11, 0.5 * side);
  const tuck = Math.min(11, 0.5 * side);
  const x = xs[2] as number;
  const deep = side * Math.sqrt(3);
  const lid = (y: number, way: number): Pair[] => [
    [x, y],
    [x - side / 2, y + (way * deep) / 2],
    [x, y + way * deep],
    [x + 0.2 * tuck, y + way * (deep + tuck)],
    [x + side - 0.2 * tuck, y + way * (deep + tuck)],
    [x + side, y + way * deep],
    [x + 1.5 * side, y + (way * deep) / 2],
    [x + side, y],
  ];
  const contour = ring([
    [-glue, h - 0.5 * glue],
    [0, h],
    ...lid(h, 1),
    [xs[6] as number, h],
    [xs[6] as number, 0],
    ...lid(0, -1).toReversed(),
    [0, 0],
    [-glue, 0.5 * glue],
  ]);
  const creases = [
    ...xs.slice(0, 6).map((at) => open([at, 0], [at, h])),
    open([x, h], [x + side, h]),
    open([x, h + deep], [x + side, h + deep]),
    open([x, 0], [x + side, 0]),
    open([x, -deep], [x + side, -deep]),
  ];
  return { contour, slits: [], creases, panels: 11 };
}

export interface Dashing {
  readonly dashMm: number;
  readonly gapMm: number;
  /** Whether a crease begins and ends with a dash, which touches the cuts there, or with a gap. */
  readonly isDashFirst: boolean;
}

/** The ink of a dashed line along a path; dashes and gaps are stretched evenly so that both ends are alike. */
export function dashedAlong(path: Path, { dashMm, gapMm, isDashFirst }: Dashing, penMm: number): ScenePiece[] {
  const straight = path.segments.every((s) => s.kind === 'line');
  const points = polygonOf(path, 0.001);
  const steps = points.slice(1).map((p, k) => Math.hypot(p.x - (points[k] as Point).x, p.y - (points[k] as Point).y));
  const length = steps.reduce((a, b) => a + b, 0);
  const at = (d: number): Point => {
    let left = d;
    for (const [k, step] of steps.entries()) {
      const [p, q] = [points[k] as Point, points[k + 1] as Point];
      if (left <= step) return { x: p.x + ((q.x - p.x) * left) / step, y: p.y + ((q.y - p.y) * left) / step };
      left -= step;
    }
    return points.at(-1) as Point;
  };
  const count = Math.max(1, Math.round((length - (isDashFirst ? dashMm : gapMm)) / (dashMm + gapMm)));
  const share = length / (count * (dashMm + gapMm) + (isDashFirst ? dashMm : gapMm));
  const [dash, gap] = [dashMm * share, gapMm * share];
  return Array.from({ length: isDashFirst ? count + 1 : count }, (_, k) => {
    const from = k * (dash + gap) + (isDashFirst ? 0 : gap);
    const parts = straight ? 1 : 8;
    const [start, ...rest] = Array.from({ length: parts + 1 }, (_, i) => at(from + (i / parts) * dash)) as [Point, ...Point[]];
    return penStroke({ start, segments: rest.map((to) => ({ kind: 'line', to })), closed: false }, penMm);
  });
}

/** The ink of a carton's cuts, and that of its creases. */
export function cartonInk({ contour, slits, creases }: Carton, dashing: Dashing, penMm: number) {
  return {
    cuts: [contour, ...slits].map((path) => penStroke(path, penMm)),
    creases: creases.flatMap((path) => dashedAlong(path, dashing, penMm)),
  };
}
