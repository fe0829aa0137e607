/**
 * Scenes of plain figures for tests and benches: every measure is a round number.
 */
import { circlePath, type Point } from '@nuvet/core/plane';
import { randomFrom } from './random.ts';
import { piece, type Scene, type ScenePiece } from './scene.ts';
import { curveThrough, degrees, ellipse, polar, rectangle, regularPolygon, roundedRectangle, star } from './shapes.ts';

/** A bolted plate of 90 x 60 mm: round corners of 8 mm, four holes of 6 mm and an oval of 30 x 16 mm. */
export const plateScene: Scene = {
  name: 'plate',
  widthMm: 120,
  heightMm: 90,
  pieces: [
    piece(roundedRectangle(15, 15, 90, 60, 8), [
      ...[
        [25, 25],
        [95, 25],
        [95, 65],
        [25, 65],
      ].map(([x, y]) => circlePath({ x, y } as Point, 3)),
      ellipse({ x: 60, y: 45 }, 15, 8),
    ]),
  ],
  marks: {
    width: [
      { x: 15, y: 45 },
      { x: 105, y: 45 },
    ],
    level: [
      { x: 20, y: 15 },
      { x: 100, y: 15 },
    ],
  },
};

/** A five-pointed star of radius 40 mm whose tips are as sharp as a pentagram's, 36 degrees. */
export const starScene: Scene = {
  name: 'star',
  widthMm: 110,
  heightMm: 110,
  pieces: [piece(star({ x: 55, y: 52 }, 5, 40, 40 * (Math.sin(degrees(18)) / Math.sin(degrees(54)))))],
};

/** Straight-sided figures: a bar of 90 x 20 mm, a triangle, a hexagon, an octagon, a square with a square window. */
export const straightScene: Scene = {
  name: 'straight figures',
  widthMm: 130,
  heightMm: 120,
  pieces: [
    piece(rectangle(20, 90, 90, 20)),
    piece(regularPolygon({ x: 30, y: 60 }, 3, 18, degrees(90))),
    piece(regularPolygon({ x: 65, y: 62 }, 6, 17)),
    piece(regularPolygon({ x: 103, y: 62 }, 8, 17, degrees(11))),
    piece(rectangle(20, 8, 34, 34), [rectangle(29, 17, 16, 16)]),
    piece(star({ x: 90, y: 24 }, 12, 18, 13)),
  ],
};

/** Smooth figures: rings, a pebble, a leaf with two tips. */
export const smoothScene: Scene = {
  name: 'smooth figures',
  widthMm: 130,
  heightMm: 110,
  pieces: [
    piece(circlePath({ x: 35, y: 75 }, 25), [circlePath({ x: 35, y: 75 }, 18)]),
    piece(circlePath({ x: 35, y: 75 }, 12), [circlePath({ x: 35, y: 75 }, 2)]),
    piece(
      curveThrough([
        [70, 78],
        [84, 96],
        [104, 98],
        [118, 84],
        [112, 66],
        [92, 58],
        [76, 62],
      ]),
    ),
    piece(
      curveThrough([
        [20, 25, 'corner'],
        [45, 38],
        [75, 38],
        [105, 22, 'corner'],
        [78, 14],
        [46, 12],
      ]),
    ),
  ],
};

/** An A4 sheet (210 x 297 mm) of 150 mixed shapes in ten columns, some with a window. */
export function fullSheetScene(seed = 7): Scene {
  const random = randomFrom(seed);
  const pieces: ScenePiece[] = [];
  for (let row = 0; row < 15; row++) {
    for (let column = 0; column < 10; column++) {
      const c = { x: 15 + column * 20, y: 16 + row * 19 };
      const r = 5 + random() * 3.2;
      const angle = random() * 6.28;
      switch ((row * 10 + column) % 6) {
        case 0: pieces.push(piece(circlePath(c, r), r > 6 ? [circlePath(c, r - 3)] : [])); break;
        case 1: pieces.push(piece(star(c, 5, r, r * 0.45, angle))); break;
        case 2: pieces.push(piece(roundedRectangle(c.x - r, c.y - r * 0.7, 2 * r, 1.4 * r, 1.5))); break;
        case 3: pieces.push(piece(ellipse(c, r, r * 0.6, angle), [regularPolygon(c, 4, r * 0.4, angle)])); break;
        case 4: pieces.push(piece(regularPolygon(c, 3 + Math.floor(random() * 5), r, angle))); break;
        default:
          pieces.push(piece(curveThrough(Array.from({ length: 7 }, (_, k) => {
            const p = polar(c, angle + (k * 2 * Math.PI) / 7, r * (0.75 + 0.25 * random()));
            return [p.x, p.y] as const;
          }))));
      } // biome-ignore format: a shape a line
    }
  }
  return { name: 'full sheet', widthMm: 210, heightMm: 297, pieces };
}
