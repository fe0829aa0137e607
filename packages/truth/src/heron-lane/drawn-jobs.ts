/**
 * Jobs on Heron Lane's bench that were drawn by hand in them: a maze for the ferry's waiting room, a lantern star of two halves, an otter for the
 * smallest guests, and heron panels for the whole festival.
 */
import type { Job, SheetLayout } from '@nuvet/core/job';
import { circlePath, type Path, type Point, polygonPath } from '@nuvet/core/plane';
import type { BodyRule, EdgeSetting, SolidSettings } from '@nuvet/core/solid';
import { randomFrom } from '../random.ts';
import { type CurvePoint, curveThrough, ellipse } from '../shapes.ts';
import { heronPanel } from './heron-panel.ts';

export interface DrawnOutlines {
  readonly id: string;
  readonly name: string;
  readonly purpose: 'cut' | 'score';
  readonly paths: readonly Path[];
}

export interface DemoDrawn {
  readonly name: string;
  readonly outlines: readonly DrawnOutlines[];
  readonly stock: Pick<Job['making']['stock'], 'name' | 'thicknessMm'>;
  readonly processes: readonly string[];
  readonly solid?: Partial<SolidSettings>;
  /** How its copies are to lie on sheets. */
  readonly layout?: Partial<SheetLayout>;
}

const sharp: EdgeSetting = { kind: 'sharp', sizeMm: 1 };
const round = (sizeMm: number): EdgeSetting => ({ kind: 'round', sizeMm });
const body = (own: Partial<BodyRule>): BodyRule => ({ fromMm: 0, toMm: 3, draftDegrees: 0, top: sharp, bottom: sharp, how: 'join', pieceId: null, purpose: null, ...own }); // biome-ignore format: one line

const mazeCells = 7;
const cellMm = 12;

/** Walls of a maze with one way between any two places: a tree grown over its cells leaves the walls between its branches. */
function mazeWalls(seed: number): Path[] {
  const random = randomFrom(seed);
  const at = (x: number, y: number): number => y * mazeCells + x;
  const opened = new Set<string>();
  const seen = new Set([0]);
  const stack: [number, number][] = [[0, 0]];
  while (stack.length > 0) {
    const [x, y] = stack.at(-1) as [number, number];
    const next = [[1, 0], [-1, 0], [0, 1], [0, -1]].map(([dx, dy]) => [x + (dx as number), y + (dy as number)] as const).filter(([a, b]) => a >= 0 && b >= 0 && a < mazeCells && b < mazeCells && !seen.has(at(a, b))); // biome-ignore format: one line
    const chosen = next[Math.floor(next.length * random())];
    if (!chosen) {
      stack.pop();
      continue;
    }
    seen.add(at(...chosen));
    opened.add([at(x, y), at(...chosen)].sort((a, b) => a - b).join(' '));
    stack.push([chosen[0], chosen[1]]);
  }
  const isWall = (a: readonly [number, number], b: readonly [number, number]): boolean => {
    const inside = ([x, y]: readonly [number, number]): boolean => x >= 0 && y >= 0 && x < mazeCells && y < mazeCells;
    if (!inside(a) || !inside(b)) return inside(a) !== inside(b);
    return !opened.has([at(...a), at(...b)].sort((p, q) => p - q).join(' '));
  };
  const walls: Path[] = [];
  /** A run of walls along one line as one. */
  const run = (place: (k: number) => Point, isThere: (k: number) => boolean): void => {
    for (let from = 0; from < mazeCells; from++) {
      if (!isThere(from)) continue;
      let to = from;
      while (to < mazeCells && isThere(to)) to++;
      walls.push({ start: place(from), segments: [{ kind: 'line', to: place(to) }], closed: false });
      from = to;
    }
  };
  for (let line = 0; line <= mazeCells; line++) {
    run((k) => ({ x: cellMm * k, y: cellMm * line }), (k) => isWall([k, line - 1], [k, line])); // biome-ignore format: one line
    run((k) => ({ x: cellMm * line, y: cellMm * k }), (k) => isWall([line - 1, k], [line, k])); // biome-ignore format: one line
  }
  return walls;
}

const starArms = 6;
const lanternStar = polygonPath(
  Array.from({ length: 2 * starArms }, (_, k) => {
    const [reach, angle] = [k % 2 ? 17 : 46, (Math.PI * k) / starArms + Math.PI / 2];
    return { x: 50 + reach * Math.cos(angle), y: 50 + reach * Math.sin(angle) };
  }),
);

const otterBody: CurvePoint[] = [
  [8, 46], [22, 40], [40, 42], [62, 46], [84, 45], [98, 50], [106, 60], [104, 71], [94, 77], [82, 74], [74, 68], [56, 66],
  [36, 62], [20, 55],
]; // biome-ignore format: tail, belly, chin, nose, head, back
const mouth: CurvePoint[] = [[90, 55, 'corner'], [98, 56], [106, 60, 'corner'], [98, 58.5]]; // biome-ignore format: from its corner to the nose and back

const panel = heronPanel.pieces[0] as (typeof heronPanel.pieces)[0];

export const demoDrawn: readonly DemoDrawn[] = [
  {
    name: 'Ferry maze',
    outlines: mazeWalls(23).map((wall, k) => ({ id: `wall-${k + 1}`, name: `Wall ${k + 1}`, purpose: 'cut', paths: [wall] })),
    stock: { name: null, thicknessMm: null },
    processes: ['solid'],
    solid: {
      lines: { widthMm: 1.6, fromMm: 0, toMm: 8, how: 'join' },
      base: { marginMm: 3, thicknessMm: 2, cornerMm: 4, holeMm: null },
      ballMm: 9.5,
    },
  },
  {
    name: 'Lantern star, push-together pair',
    outlines: [{ id: 'star', name: 'Star', purpose: 'cut', paths: [lanternStar] }],
    stock: { name: 'Birch plywood', thicknessMm: 4 },
    processes: ['solid'],
    solid: {
      body: { fromMm: 0, toMm: 4, draftDegrees: 0, top: round(0.8), bottom: round(0.8), how: 'join' },
      pairs: [{ pieceId: 'star', otherId: null, degrees: 90, playMm: 0.5, asideMm: [0, 0] }],
    },
  },
  {
    name: 'Otter toy',
    outlines: [
      { id: 'body', name: 'Body', purpose: 'cut', paths: [curveThrough(otterBody)] },
      { id: 'fore-paw', name: 'Fore paw', purpose: 'cut', paths: [ellipse({ x: 76, y: 42 }, 6, 11, 0.35)] },
      { id: 'hind-paw', name: 'Hind paw', purpose: 'cut', paths: [ellipse({ x: 40, y: 38 }, 7, 12, -0.3)] },
      { id: 'mouth', name: 'Mouth', purpose: 'cut', paths: [curveThrough(mouth)] },
      { id: 'eye', name: 'Eye', purpose: 'cut', paths: [circlePath({ x: 93, y: 67 }, 3)] },
      { id: 'pupil', name: 'Pupil', purpose: 'cut', paths: [circlePath({ x: 94, y: 67.5 }, 1.2)] },
    ],
    stock: { name: null, thicknessMm: null },
    processes: ['solid'],
    solid: {
      body: { fromMm: -15, toMm: 15, draftDegrees: 0, top: round(2), bottom: round(2), how: 'join' },
      rules: [
        ...['fore-paw', 'hind-paw'].map((pieceId) => body({ pieceId, fromMm: -10, toMm: 10, top: round(2), bottom: round(2) })),
        body({ pieceId: 'mouth', fromMm: 10, toMm: 16, how: 'cut' }),
        body({ pieceId: 'eye', fromMm: 13, toMm: 14.5 }),
        body({ pieceId: 'pupil', fromMm: 16.2, toMm: 20, how: 'cut' }),
      ],
      spheres: [{ pieceId: 'eye', diameterMm: 12, faceMm: 15, depthMm: 2.5, how: 'boss' }],
    },
  },
  {
    name: 'Heron panels, eight to a sheet',
    outlines: [{ id: 'panel', name: 'Heron panel', purpose: 'cut', paths: [panel.outer, ...panel.holes] }],
    stock: { name: 'Birch plywood', thicknessMm: 3 },
    processes: ['laser'],
    layout: { sheets: [{ widthMm: 600, heightMm: 400, count: 4 }], copies: { panel: 8 }, marginMm: 5, gapMm: 3, turnsBy: 180, seconds: 20 },
  },
];
