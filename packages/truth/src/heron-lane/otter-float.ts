/**
 * A float for the river: an otter in side view, its paddle beside it, and the view from above over both, drawn 165 mm long for a body of four
 * feet.
 */
import { circlePath } from '@nuvet/core/plane';
import { paperRule } from '../paper-rule.ts';
import { piece, type Scene } from '../scene.ts';
import { type CurvePoint, curveThrough, roundedRectangle } from '../shapes.ts';

const otter: CurvePoint[] = [
  [180, 90.4], [180.2, 95], [176.4, 98.4], [170, 102], [163, 104.6], [161.4, 108.2], [157.8, 109.2], [154.6, 107.2], [153.4, 103.8],
  [143, 99.8], [126, 99.6], [104, 101.6], [82, 99.4], [62, 92], [45, 84.4], [30, 81.6], [15, 86, 'corner'],
  [24, 75.6], [40, 71.6], [55, 72.8, 'corner'],
  [55.4, 66], [47, 56.4], [50.4, 49.6], [60, 49.4], [70.4, 56], [75.4, 65.4, 'corner'],
  [94, 63.6], [114, 64.8], [126, 67.6, 'corner'],
  [128.6, 58.6], [135, 50.6], [144, 49.6], [149.6, 55.4], [148, 64], [143.4, 73.4, 'corner'],
  [155, 78.4], [166, 81.6], [175.4, 85.6],
]; // biome-ignore format: head and ear, back and tail, hind paddle, belly, fore paw, chin

const whiskers = [0, 1, 2].map((k) =>
  curveThrough([
    [171.4, 91.6 - k * 1.9, 'corner'],
    [166, 92 - k * 2.5],
    [160.6, 91 - k * 3.1, 'corner'],
    [166, 90.9 - k * 2.5],
  ]),
);
const paddle = curveThrough([
  [20, 134.4], [34, 127.6], [46, 129.8], [58, 132.2, 'corner'],
  [156, 132.2, 'corner'], [157, 129.8], [163, 129.8], [164.6, 134.4], [163, 139], [157, 139], [156, 136.6, 'corner'],
  [58, 136.6, 'corner'], [46, 139], [34, 141.2],
]); // biome-ignore format: blade, shaft, grip, shaft, blade

/** From above: the half towards the sheet's upper edge, from the nose aft; the other half mirrors it. */
const half: [number, number][] = [
  [176.4, 6.2],
  [167, 10.4],
  [158, 13.6],
  [149, 12.6],
  [136, 14.6],
  [112, 19.4],
  [88, 20.2],
  [64, 15.4],
  [46, 8.6],
  [30, 4.4],
];
const levelY = 186;
const fromAbove = curveThrough([
  [180.4, levelY],
  ...half.map(([x, y]): CurvePoint => [x, levelY + y]),
  [15, levelY, 'corner'],
  ...half.toReversed().map(([x, y]): CurvePoint => [x, levelY - y]),
]);

export const otterFloat: Scene = {
  name: 'otter-float',
  widthMm: 200,
  heightMm: 216,
  pieces: [
    piece(curveThrough(otter), [
      circlePath({ x: 166.6, y: 97.4 }, 1.7),
      ...whiskers,
      roundedRectangle(82, 74, 7, 16, 3),
      roundedRectangle(120, 74, 7, 16, 3),
      curveThrough([
        [58, 60, 'corner'],
        [62, 58.4],
        [66.4, 60, 'corner'],
        [62, 61.4],
      ]),
    ]),
    piece(paddle, [circlePath({ x: 37, y: 134.4 }, 2.4)]),
    piece(fromAbove),
  ],
  print: paperRule({ x: 20, y: 20 }, 160),
  marks: {
    body: [
      { x: 15, y: 86 },
      { x: 180.4, y: 93 },
    ],
    level: [
      { x: 20, y: 20 },
      { x: 180, y: 20 },
    ],
    shaft: [
      { x: 60, y: 132.2 },
      { x: 154, y: 132.2 },
    ],
  },
};
