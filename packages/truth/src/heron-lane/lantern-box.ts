/**
 * The die line of a small lantern box, 64 x 48 x 90 mm, drawn by pen: cuts solid, creases dashed.
 */
import type { Path, Point } from '@nuvet/core/plane';
import { dashedStroke, penStroke } from '../line-figures.ts';
import { paperRule } from '../paper-rule.ts';
import type { Scene } from '../scene.ts';

const penMm = 0.8;
const [left, bottom, height] = [28, 62, 90];
const panels = [64, 48, 64, 48];
const flapMm = 22;
const glueMm = 12;

const edges = [0, 1, 2, 3, 4].map((k) => panels.slice(0, k).reduce((x, width) => x + width, left));
const right = edges.at(-1) as number;
const top = bottom + height;

/** The flaps over a row of panels, from one end to the other; every second one is tapered. */
function flaps(y: number, way: 1 | -1): Point[] {
  return panels.flatMap((width, k) => {
    const x = edges[k] as number;
    const taper = k % 2 === 0 ? 2 : 6;
    const reach = y + way * (k % 2 === 0 ? flapMm + 6 : flapMm);
    return [{ x: x + 1.6, y }, { x: x + taper, y: reach }, { x: x + width - taper, y: reach }, { x: x + width - 1.6, y }]; // biome-ignore format: a flap
  });
}

const outline: Path = (() => {
  const round = [
    { x: left, y: top },
    ...flaps(top, 1),
    { x: right, y: top },
    { x: right, y: bottom },
    ...flaps(bottom, -1).toReversed(),
    { x: left, y: bottom },
    { x: left - glueMm, y: bottom + 6 },
    { x: left - glueMm, y: top - 6 },
  ];
  const [start, ...rest] = round as [Point, ...Point[]];
  return { start, segments: [...rest, start].map((to) => ({ kind: 'line', to })), closed: true };
})();

const creases = [
  ...edges.slice(0, -1).map((x) => [{ x, y: bottom + 2 }, { x, y: top - 2 }] as const), // biome-ignore format: uprights
  ...[bottom, top].flatMap((y) =>
    panels.map((width, k) => [{ x: (edges[k] as number) + 3, y }, { x: (edges[k] as number) + width - 3, y }] as const),
  ), // biome-ignore format: along the flaps
];

export const lanternBox: Scene = {
  name: 'lantern-box',
  widthMm: 280,
  heightMm: 205,
  pieces: [penStroke(outline, penMm), ...creases.flatMap(([from, to]) => dashedStroke(from, to, 4, 2.2, penMm))],
  print: paperRule({ x: 28, y: 14 }, 150),
  marks: {
    rule: [
      { x: 28, y: 14 },
      { x: 178, y: 14 },
    ],
    level: [
      { x: left + 4, y: bottom },
      { x: right - 4, y: bottom },
    ],
    side: [
      { x: right, y: bottom },
      { x: right, y: top },
    ],
  },
};
