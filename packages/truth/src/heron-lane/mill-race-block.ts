/**
 * A twelve-inch patchwork block of our own drafting, "Mill Race": the dark patches of a star in a
 * square, all straight-sided. It is drawn at half size, six inches across, with a gap where the seams run.
 */
import { crossing, type Point, polygonPath, subtract, unitVector } from '@nuvet/core/plane';
import { paperRule } from '../paper-rule.ts';
import { piece, type Scene } from '../scene.ts';

const unit = 25.4;
const corner = { x: 22, y: 40 };
const gap = 0.9;

/** One quarter on a grid of three units, the block's middle at 3, 3. */
const quarter: readonly (readonly (readonly [number, number])[])[] = [
  [
    [3, 3],
    [2, 3],
    [3, 2],
  ],
  [
    [3, 0],
    [3, 2],
    [1.5, 1.5],
  ],
  [
    [0, 3],
    [1.5, 1.5],
    [2, 3],
  ],
  [
    [0, 0],
    [1, 0],
    [1.5, 1.5],
  ],
  [
    [0, 0],
    [1.5, 1.5],
    [0, 1],
  ],
];

/** A convex patch drawn in by half a gap on every side; corners counter-clockwise. */
function drawnIn(corners: readonly Point[], by: number): Point[] {
  const sides = corners.map((a, k) => {
    const b = corners[(k + 1) % corners.length] as Point;
    const d = unitVector(subtract(b, a));
    return { at: { x: a.x - d.y * by, y: a.y + d.x * by }, d };
  });
  return sides.map((side, k) => {
    const before = sides.at(k - 1) as (typeof sides)[0];
    return crossing(before.at, before.d, side.at, side.d) as Point;
  });
}

function turnedQuarter(k: number) {
  const [c, s] = [
    [1, 0],
    [0, 1],
    [-1, 0],
    [0, -1],
  ][k] as [number, number];
  return quarter.map((patch) => {
    const corners = patch.map(([x, y]): Point => {
      const [dx, dy] = [x - 3, y - 3];
      return { x: corner.x + (3 + c * dx - s * dy) * unit, y: corner.y + (3 + s * dx + c * dy) * unit };
    });
    const area = corners.reduce((sum, a, i) => {
      const b = corners[(i + 1) % corners.length] as Point;
      return sum + a.x * b.y - b.x * a.y;
    }, 0);
    return piece(polygonPath(drawnIn(area < 0 ? corners.reverse() : corners, gap / 2)));
  });
}

export const millRaceBlock: Scene = {
  name: 'mill-race-block',
  widthMm: 196,
  heightMm: 206,
  pieces: [0, 1, 2, 3].flatMap(turnedQuarter),
  print: paperRule({ x: 20, y: 18 }, 156),
  marks: {
    edge: [corner, { x: corner.x + 6 * unit, y: corner.y }],
    level: [
      { x: 20, y: 18 },
      { x: 176, y: 18 },
    ],
    side: [corner, { x: corner.x, y: corner.y + 6 * unit }],
  },
};
