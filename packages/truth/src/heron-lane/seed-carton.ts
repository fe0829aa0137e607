/**
 * The die line of a carton for packets of water-meadow seed, 60 x 24 x 84 mm, drawn by pen on a sheet of A4: cuts solid, creases
 * dashed, a leaf in pale print on its front. It was photographed, not scanned.
 */
import type { Path, Point } from '@nuvet/core/plane';
import { dashedStroke, penStroke } from '../line-figures.ts';
import type { Scene } from '../scene.ts';
import { curveThrough } from '../shapes.ts';

const penMm = 0.8;
export const cartonBox = { widthMm: 60, depthMm: 24, heightMm: 84 } as const;
const { widthMm: w, depthMm: d, heightMm: h } = cartonBox;
/** Flaps stand off the corners of the panels, so that the pen leaves a gap between them. */
const [glueMm, dustMm, tuckMm, marginMm] = [12, 16, 12, 1.6];
const [left, bottom] = [58, 63];
/** Back, side, front, side. */
const xs = [0, w, w + d, 2 * w + d, 2 * (w + d)].map((x) => left + x) as [number, number, number, number, number];
const top = bottom + h;

/** A flap that closes the box, with its tuck, from one end of its crease to the other; `way` 1 is up. */
const closure = (from: number, to: number, y: number, way: 1 | -1): Point[] => {
  const inward = Math.sign(to - from) * marginMm;
  return [
    { x: from + inward, y },
    { x: from + inward, y: y + way * d },
    { x: from + 3 * inward, y: y + way * (d + tuckMm) },
    { x: to - 3 * inward, y: y + way * (d + tuckMm) },
    { x: to - inward, y: y + way * d },
    { x: to - inward, y },
  ];
};

/** A flap that keeps the dust out, its shoulders cut away. */
const dust = (from: number, to: number, y: number, way: 1 | -1): Point[] => {
  const inward = Math.sign(to - from) * 4;
  const foot = Math.sign(to - from) * marginMm;
  return [
    { x: from + foot, y },
    { x: from + inward, y: y + way * 4 },
    { x: from + inward, y: y + way * dustMm },
    { x: to - inward, y: y + way * dustMm },
    { x: to - inward, y: y + way * 4 },
    { x: to - foot, y },
  ];
};

const outline: Path = (() => {
  const [start, ...rest] = [
    { x: xs[0] - glueMm, y: top - 6 },
    { x: xs[0], y: top },
    ...closure(xs[0], xs[1], top, 1),
    ...dust(xs[1], xs[2], top, 1),
    ...dust(xs[3], xs[4], top, 1),
    { x: xs[4], y: top },
    { x: xs[4], y: bottom },
    ...dust(xs[4], xs[3], bottom, -1),
    ...closure(xs[3], xs[2], bottom, -1),
    ...dust(xs[2], xs[1], bottom, -1),
    { x: xs[0], y: bottom },
    { x: xs[0] - glueMm, y: bottom + 6 },
  ] as [Point, ...Point[]];
  return { start, segments: [...rest, start].map((to) => ({ kind: 'line', to })), closed: true };
})();

const short = 2.6;
const across = (from: number, to: number, y: number) =>
  [
    { x: from + short, y },
    { x: to - short, y },
  ] as const;
const creases = [
  ...xs.slice(0, 4).map((x) => [{ x, y: bottom + short }, { x, y: top - short }] as const), // biome-ignore format: uprights
  across(xs[0], xs[1], top),
  across(xs[1], xs[2], top),
  across(xs[3], xs[4], top),
  across(xs[0] + marginMm, xs[1] - marginMm, top + d),
  across(xs[1], xs[2], bottom),
  across(xs[2], xs[3], bottom),
  across(xs[3], xs[4], bottom),
  across(xs[2] + marginMm, xs[3] - marginMm, bottom - d),
];

const middle = (xs[2] + xs[3]) / 2;
const leaf = curveThrough([[middle - 2, bottom + 20, 'corner'], [middle + 16, bottom + 38], [middle + 4, bottom + 66, 'corner'], [middle - 15, bottom + 42]]); // biome-ignore format: a leaf
const stalk: Path = {
  start: { x: middle - 6, y: bottom + 10 },
  segments: [{ kind: 'line', to: { x: middle + 3, y: bottom + 60 } }],
  closed: false,
};

export const seedCarton: Scene = {
  name: 'seed-carton',
  widthMm: 297,
  heightMm: 210,
  pieces: [penStroke(outline, penMm), ...creases.flatMap(([from, to]) => dashedStroke(from, to, 2.6, 1.6, penMm))],
  print: [penStroke(leaf, 0.5), penStroke(stalk, 0.5)].flatMap(({ outer, holes }) => [outer, ...holes]),
  marks: {
    sheet: [
      { x: 0, y: 210 },
      { x: 297, y: 210 },
      { x: 297, y: 0 },
      { x: 0, y: 0 },
    ],
    front: [
      { x: xs[2], y: top },
      { x: xs[3], y: top },
    ],
  },
};
