/**
 * The badge of the lantern festival: four colours that share their borders.
 */
import { circlePath, type Path, polygonPath, reversedPath } from '@nuvet/core/plane';
import type { ColourSheet } from './colour-scan.ts';
import { rectangle, roundedRectangle, star } from './shapes.ts';

const disc = (x: number, y: number, radius: number): Path => circlePath({ x, y }, radius);

/**
 * A disc of night blue in a ring of brick red, a hill of green that reaches into the ring, a lantern of amber with a blue star
 * in it, its cap red; drawn later over earlier. mm.
 */
const hill: Path = {
  start: { x: 35 - Math.sqrt(24 ** 2 - 8 ** 2), y: 27 },
  segments: [
    { kind: 'arc', to: { x: 35 + Math.sqrt(24 ** 2 - 8 ** 2), y: 27 }, sweep: Math.PI - 2 * Math.asin(8 / 24) },
    { kind: 'line', to: { x: 35 - Math.sqrt(24 ** 2 - 8 ** 2), y: 27 } },
  ],
  closed: true,
};

const red = [178, 58, 46] as const;
const blue = [38, 62, 112] as const;
const green = [70, 128, 84] as const;
const amber = [236, 178, 60] as const;

export const badgeSheet: ColourSheet = {
  widthMm: 70,
  heightMm: 70,
  paper: [246, 243, 236],
  areas: [
    { rgb: red, paths: [disc(35, 35, 27)] },
    { rgb: blue, paths: [disc(35, 35, 22)] },
    { rgb: green, paths: [hill] },
    { rgb: amber, paths: [roundedRectangle(27, 22, 16, 22, 3)] },
    { rgb: blue, paths: [star({ x: 35, y: 33 }, 5, 6, 2.6)] },
    { rgb: red, paths: [polygonPath([{ x: 31, y: 43 }, { x: 39, y: 43 }, { x: 35, y: 51 }])] }, // biome-ignore format: one line
  ],
};

/** The outlines that the badge's areas have once all is drawn: of each colour what shows of it. */
export const badgeBorders: readonly Path[] = [
  disc(35, 35, 27),
  disc(35, 35, 22),
  hill,
  roundedRectangle(27, 22, 16, 22, 3),
  star({ x: 35, y: 33 }, 5, 6, 2.6),
  polygonPath([{ x: 31, y: 43 }, { x: 39, y: 43 }, { x: 35, y: 51 }]), // biome-ignore format: one line
  rectangle(0, 0, 70, 70),
  reversedPath(rectangle(0, 0, 70, 70)),
];
