/**
 * What the makers of the tasks bring: a plan, a wing, a maze, an emblem and more, drawn with known truth.
 */
import { chain, circlePath, type Path, type Point, polygonPath, shift, transformedPath, turn } from '@nuvet/core/plane';
import { ellipse, penStroke, piece, rectangle, type Scene, type ScenePiece, star } from '@nuvet/truth';

export const p = (x: number, y: number): Point => ({ x, y });
const scene = (name: string, widthMm: number, heightMm: number, pieces: readonly ScenePiece[], marks: Record<string, Point[]> = {}): Scene => ({ name, widthMm, heightMm, pieces, marks }); // biome-ignore format: one line
const openLine = (...points: Point[]): Path => ({
  start: points[0] as Point,
  segments: points.slice(1).map((to) => ({ kind: 'line' as const, to })),
  closed: false,
});

/** A room drawn with a pen of 0.6 mm: 158.496 x 114.3 mm on paper stand for 26 ft by 18 ft 9 in. */
export const planOnPaper = { widthMm: (26 * 304.8) / 50, heightMm: (18.75 * 304.8) / 50 };
export const plan = scene(
  'plan',
  200,
  160,
  [penStroke(rectangle(20.3, 20.3, planOnPaper.widthMm - 0.6, planOnPaper.heightMm - 0.6), 0.6)],
  {
    long: [p(20, 20), p(20 + planOnPaper.widthMm, 20)],
    high: [p(20, 20), p(20, 20 + planOnPaper.heightMm)],
  },
);

/** A cupboard at an inch to the foot: 4 ft 5 in by 3 ft 11 1/2 in. */
export const cupboardOnPaper = { widthMm: (53 / 12) * 25.4, heightMm: (47.5 / 12) * 25.4 };
export const cupboard = scene('cupboard', 180, 150, [piece(rectangle(30, 20, cupboardOnPaper.widthMm, cupboardOnPaper.heightMm))], {
  wide: [p(30, 20), p(30 + cupboardOnPaper.widthMm, 20)],
});

/** Half a wing whose root lies on a centre line that runs on past it. */
const wing = polygonPath([p(40, 40), p(190, 70), p(190, 110), p(40, 160)]);
export const halfWing = scene('half wing', 220, 200, [penStroke(wing, 0.8), penStroke(openLine(p(40, 20), p(40, 182)), 0.8)], {
  span: [p(40, 40), p(190, 40)],
  centre: [p(40, 25), p(40, 178)],
});

export const photographed = scene('on a sheet', 210, 297, [
  piece(polygonPath([p(105, 30), p(165, 170), p(105, 260), p(45, 170)])),
  piece(circlePath(p(40, 50), 20), [circlePath(p(40, 50), 12)]),
]);

/** Walls of 1.5 mm about passages of 7.5 mm. */
export const maze = scene('maze', 120, 120, [
  piece(rectangle(10, 10, 91.5, 91.5), [rectangle(11.5, 11.5, 88.5, 88.5)]),
  piece(polygonPath([p(19, 19), p(92.5, 19), p(92.5, 92.5), p(19, 92.5), p(19, 91), p(91, 91), p(91, 20.5), p(19, 20.5)])),
]);

export const sixFold = scene('star', 120, 120, [piece(star(p(60, 60), 6, 48, 27, Math.PI / 2))], { size: [p(60, 12), p(60, 108)] });

/** Half of a vase, drawn with a pen beside a plumb axis. */
export const halfVase = scene('half vase', 120, 150, [
  penStroke(openLine(p(60, 20), p(95, 20), p(83.25, 70), p(90, 110), p(60, 134.3)), 0.6),
  penStroke(openLine(p(60, 10), p(60, 145)), 0.3),
], { axis: [p(60, 12), p(60, 143)], high: [p(60, 20), p(60, 134.3)] }); // biome-ignore format: one line

export const emblem = scene('emblem', 200, 200, [piece(ellipse(p(100, 100), 62, 50), [circlePath(p(100, 128), 5)])]);

/** A tray of a die line: an outline to cut, two dashed creases across it. */
export const ellipseStrip = scene('ellipse', 100, 90, [penStroke(ellipse(p(50, 45), 30, 22), 0.6)], { wide: [p(20, 45), p(80, 45)] });

/** Half a leaf, six of them, each a little larger. */
export const halfLeaf = (k: number): Scene => {
  const grow = 1 + 0.05 * k;
  return scene(`half leaf ${k + 1}`, 90, 120, [
    penStroke(openLine(p(45, 15), p(45 + 25 * grow, 45), p(45 + 18 * grow, 85), p(45, 105)), 0.6),
  ], { size: [p(45, 15), p(45, 105)], axis: [p(45, 15), p(45, 105)] }); // biome-ignore format: one line
};

/** Turned about its middle, as paper lies on the glass by chance. */
export const turnedScene = (of: Scene, angle: number): Scene => {
  const about = chain(shift(of.widthMm / 2, of.heightMm / 2), chain(turn(angle), shift(-of.widthMm / 2, -of.heightMm / 2)));
  return {
    ...of,
    pieces: of.pieces.map(({ outer, holes }) => piece(transformedPath(outer, about), holes.map((h) => transformedPath(h, about)))), // biome-ignore format: one line
  };
};
