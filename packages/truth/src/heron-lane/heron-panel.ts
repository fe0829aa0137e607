/**
 * A lantern panel of 130 x 190 mm: a heron among reeds stands in an arched window, joined to the frame by its legs,
 * so that nothing falls out when it is cut.
 */
import { arcAbout, circlePath, type Path, shift } from '@nuvet/core/plane';
import { paperRule } from '../paper-rule.ts';
import { movedPiece, piece, type Scene } from '../scene.ts';
import { type CurvePoint, curveThrough, degrees, polar, regularPolygon } from '../shapes.ts';

const arch = { x: 65, y: 125 };

/** A rectangle with a half-round top, its lower left corner at `inset`, `foot`. */
function archedOutline(inset: number, foot: number): Path {
  const [left, right] = [inset, 130 - inset];
  return {
    start: { x: left, y: foot },
    segments: [
      { kind: 'line', to: { x: right, y: foot } },
      { kind: 'line', to: { x: right, y: arch.y } },
      arcAbout(arch, { x: right, y: arch.y }, Math.PI),
      { kind: 'line', to: { x: left, y: foot } },
    ],
    closed: true,
  };
}

/** A blade of grass from the water up to its tip. */
const blade = (x: number, tipX: number, tipY: number, width: number): CurvePoint[] => [
  [x - width / 2, 25, 'corner'],
  [(x + tipX) / 2 - width * 0.45 + (x - tipX) * 0.12, (25 + tipY) / 2],
  [tipX, tipY, 'corner'],
  [(x + tipX) / 2 + width * 0.45 + (x - tipX) * 0.12, (25 + tipY) / 2],
  [x + width / 2, 25, 'corner'],
];

/** A reed with its brown head. */
const reed = (x: number, foot: number): CurvePoint[] => [
  [x - 1.3, 25, 'corner'],
  [x - 0.9, foot - 12],
  [x - 0.9, foot, 'corner'],
  [x - 2.9, foot + 2.6],
  [x - 3, foot + 14],
  [x - 1, foot + 18.4, 'corner'],
  [x, foot + 29, 'corner'],
  [x + 1, foot + 18.4, 'corner'],
  [x + 3, foot + 14],
  [x + 2.9, foot + 2.6],
  [x + 0.9, foot, 'corner'],
  [x + 0.9, foot - 12],
  [x + 1.3, 25, 'corner'],
];

const heron: CurvePoint[] = [
  [60.4, 25, 'corner'], [61.6, 46], [63.6, 66.4, 'corner'],
  [57, 71], [51.4, 79], [48.8, 89], [49.6, 99], [53.2, 108], [53.8, 116], [50.8, 124], [46.2, 130.6], [41.8, 134.6], [36, 136],
  [20, 134.6, 'corner'],
  [37.6, 140.4], [44.6, 144], [51, 144.6], [58, 142.6], [72, 135, 'corner'],
  [59.6, 138.4], [57.4, 132], [61.4, 124], [63.4, 115], [61.4, 107.4, 'corner'],
  [68, 103.6], [78, 96], [87.4, 83], [98.6, 57, 'corner'],
  [91, 63.6], [85, 64.2], [79.4, 65.4, 'corner'],
  [80.2, 46], [78.2, 25, 'corner'],
]; // biome-ignore format: front leg, breast and throat, beak, head, neck, back, tail, hind leg

const betweenLegs: CurvePoint[] = [
  [63.6, 25, 'corner'], [64.8, 46], [66.8, 64.8, 'corner'], [71.4, 63.6], [76.2, 64.6, 'corner'], [77, 46], [75.2, 25, 'corner'],
]; // biome-ignore format: one course

function windowOutline(): Path {
  const floor: CurvePoint[] = [
    ...blade(15, 14.6, 96, 3.2),
    ...reed(22, 82),
    ...blade(28, 37.4, 74, 3.6),
    ...blade(37, 43, 50, 3),
    [44, 27.4], [52, 24.6],
    ...heron,
    [84, 27], [89, 25],
    ...blade(93, 89.6, 50, 3),
    ...reed(103, 74),
    ...blade(109, 112.6, 104, 3.4),
    ...blade(115, 117.4, 62, 3),
  ]; // biome-ignore format: from left to right
  const bottom = curveThrough([[10, 25, 'corner'], ...floor, [120, 25, 'corner']], 'open');
  const { segments } = archedOutline(10, 25);
  return { start: bottom.start, segments: [...bottom.segments, ...segments.slice(1)], closed: true };
}

const feathers = [
  curveThrough([
    [65.6, 96.4, 'corner'],
    [75, 91],
    [84, 79.6],
    [89, 69.4, 'corner'],
    [80, 78],
    [72, 85.4],
  ]),
  curveThrough([
    [61.4, 90, 'corner'],
    [70, 82.4],
    [78, 73.6],
    [81, 68.6, 'corner'],
    [72, 72.8],
    [64.4, 79],
  ]),
];
const ripples = [18, 41.5, 65, 88.5, 112].map((x, k) =>
  curveThrough([
    [x - 10, 12.4, 'corner'],
    [x - 2, 15 + (k % 2)],
    [x + 10, 12.6, 'corner'],
    [x + 2, 10.4 - (k % 2)],
  ]),
);
const lights = Array.from({ length: 9 }, (_, k) => {
  const angle = degrees(18 + k * 18);
  return regularPolygon(polar(arch, angle, 60), 4, k % 2 === 0 ? 2.6 : 1.7, angle);
});
const screws = [
  [5, 5],
  [125, 5],
  [5, 120],
  [125, 120],
].map(([x, y]) => circlePath({ x: x as number, y: y as number }, 1.6));

export const heronPanel: Scene = {
  name: 'heron-panel',
  widthMm: 180,
  heightMm: 246,
  pieces: [
    movedPiece(
      piece(archedOutline(0, 0), [
        windowOutline(),
        curveThrough(betweenLegs),
        circlePath({ x: 46, y: 140.2 }, 1),
        ...feathers,
        ...ripples,
        ...lights,
        ...screws,
      ]),
      shift(25, 42),
    ),
  ],
  print: paperRule({ x: 12, y: 18 }, 156),
  marks: {
    rule: [
      { x: 12, y: 18 },
      { x: 12 + 152.4, y: 18 },
    ],
    level: [
      { x: 25, y: 42 },
      { x: 155, y: 42 },
    ],
    side: [
      { x: 155, y: 42 },
      { x: 155, y: 167 },
    ],
  },
};
