/**
 * A bracket for the ferry bell: a plate with screw holes and a curled arm, drawn on a sheet of A4 for a photograph.
 */
import { circlePath } from '@nuvet/core/plane';
import { piece, type Scene } from '../scene.ts';
import { type CurvePoint, curveThrough, roundedRectangle } from '../shapes.ts';

const arm: CurvePoint[] = [
  [92, 128, 'corner'], [128, 138], [166, 156], [200, 160], [228, 146], [238, 120], [226, 98], [204, 92], [186, 102], [184, 118],
  [194, 126, 'corner'], [200, 120], [198, 111], [206, 107], [216, 112], [221, 122], [214, 136], [198, 144], [172, 140], [134, 124],
  [92, 106, 'corner'],
]; // biome-ignore format: out along the upper side, round the curl, back along the lower side

export const bellBracket: Scene = {
  name: 'bell-bracket',
  widthMm: 297,
  heightMm: 210,
  pieces: [
    piece(
      roundedRectangle(58, 52, 34, 110, 9),
      [75, 107, 139].flatMap((y) => [circlePath({ x: 75, y }, 4)]),
    ),
    piece(curveThrough(arm)),
    piece(roundedRectangle(150, 40, 96, 26, 13), [circlePath({ x: 163, y: 53 }, 3), circlePath({ x: 233, y: 53 }, 3)]),
  ],
  marks: {
    sheet: [
      { x: 0, y: 210 },
      { x: 297, y: 210 },
      { x: 297, y: 0 },
      { x: 0, y: 0 },
    ],
    level: [
      { x: 160, y: 66 },
      { x: 236, y: 66 },
    ],
    plate: [
      { x: 75, y: 52 },
      { x: 75, y: 162 },
    ],
  },
};
