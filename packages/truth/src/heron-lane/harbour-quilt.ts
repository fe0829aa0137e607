/**
 * A quilt top of our own drafting, "Harbour": nine blocks of 12 in, sewn and waiting to be quilted, laid out for a photograph. Dark patches
 * alone are drawn: light ones are the cloth.
 */
import { type Point, polygonPath } from '@nuvet/core/plane';
import { piece, type Scene } from '../scene.ts';

const blockMm = 304.8;
const sideMm = 3 * blockMm;

/** Dark patches of a block on a grid of four: sails round a square, and corners. */
const patches: readonly (readonly (readonly [number, number])[])[] = [
  [[1.5, 1.5], [2.5, 1.5], [2.5, 2.5], [1.5, 2.5]],
  [[1, 0], [3, 0], [2, 1]],
  [[4, 1], [4, 3], [3, 2]],
  [[3, 4], [1, 4], [2, 3]],
  [[0, 3], [0, 1], [1, 2]],
  [[0, 0], [1, 0], [0, 1]],
  [[4, 0], [4, 1], [3, 0]],
  [[4, 4], [3, 4], [4, 3]],
  [[0, 4], [0, 3], [1, 4]],
]; // biome-ignore format: a patch a line

const placed = (column: number, row: number) =>
  patches.map((corners) => piece(polygonPath(corners.map(([x, y]): Point => ({ x: column * blockMm + (x / 4) * blockMm, y: row * blockMm + (y / 4) * blockMm }))))); // biome-ignore format: one line

const corner = (x: number, y: number): Point => ({ x: x * blockMm, y: y * blockMm });

export const harbourQuilt: Scene = {
  name: 'harbour-quilt',
  widthMm: sideMm,
  heightMm: sideMm,
  pieces: [0, 1, 2].flatMap((column) => [0, 1, 2].flatMap((row) => placed(column, row))),
  marks: {
    sheet: [corner(0, 3), corner(3, 3), corner(3, 0), corner(0, 0)],
    level: [corner(0, 1), corner(3, 1)],
    block: [corner(1, 1), corner(2, 1)],
    middle: [corner(1, 1), corner(2, 1), corner(2, 2), corner(1, 2)],
  },
};
