/**
 * Drawn lines: scenes whose truth is the middle of every line, and the ink that a pen of a given width leaves of them.
 */
import { circlePath, type Path, type Point, pathArea, polygonOf, polygonPath } from '@nuvet/core/plane';
import { piece, type Scene, type ScenePiece } from './scene.ts';
import { curveThrough, rectangle } from './shapes.ts';

export interface LineScene extends Scene {
  /** The middles of all lines; of a dashed one the whole line. */
  readonly middles: readonly Path[];
  readonly penMm: number;
  /** Where lines meet or cross. */
  readonly junctions: readonly Point[];
  readonly dashed: number;
}

/** A mitre longer than so many of the pen's widths is cut off, as graphics standards have it. */
const mitreLimit = 4;

/** The ink of a pen along a path: mitred corners, square ends that stop where the path does. */
export function penStroke(path: Path, width: number): ScenePiece {
  const points = polygonOf(path, 0.0005);
  const left = beside(points, path.closed, width / 2);
  const right = beside(points, path.closed, -width / 2);
  if (!path.closed) return piece(polygonPath([...left, ...right.toReversed()]));
  const rings = [polygonPath(left), polygonPath(right)].sort((a, b) => Math.abs(pathArea(b)) - Math.abs(pathArea(a)));
  return piece(rings[0] as Path, rings.slice(1));
}

function beside(points: readonly Point[], closed: boolean, reach: number): Point[] {
  const n = points.length;
  return points.flatMap((p, k) => {
    const before = closed || k > 0 ? (points[(k + n - 1) % n] as Point) : null;
    const after = closed || k < n - 1 ? (points[(k + 1) % n] as Point) : null;
    const normal = (a: Point, b: Point) => {
      const size = Math.hypot(b.x - a.x, b.y - a.y);
      return { x: -(b.y - a.y) / size, y: (b.x - a.x) / size };
    };
    const [m, q] = [before ? normal(before, p) : normal(p, after as Point), after ? normal(p, after) : normal(before as Point, p)];
    const cosine = m.x * q.x + m.y * q.y;
    if (2 / (1 + cosine) > mitreLimit ** 2) return [m, q].map((n) => ({ x: p.x + n.x * reach, y: p.y + n.y * reach }));
    // The mitre: both sides keep their distance.
    const share = reach / (1 + cosine);
    return { x: p.x + (m.x + q.x) * share, y: p.y + (m.y + q.y) * share };
  });
}

const line = (...points: readonly (readonly [number, number])[]): Path => ({
  start: { x: (points[0] as readonly [number, number])[0], y: (points[0] as readonly [number, number])[1] },
  segments: points.slice(1).map(([x, y]) => ({ kind: 'line', to: { x, y } })),
  closed: false,
});

/** A straight line in dashes, as the ink of each. */
export function dashedStroke(from: Point, to: Point, dash: number, gap: number, pen: number): ScenePiece[] {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  const count = Math.floor((length + gap) / (dash + gap));
  const at = (d: number): readonly [number, number] => [from.x + ((to.x - from.x) * d) / length, from.y + ((to.y - from.y) * d) / length];
  return Array.from({ length: count }, (_, k) => penStroke(line(at(k * (dash + gap)), at(k * (dash + gap) + dash)), pen));
}

/**
 * A die line in small, drawn with a pen of 0.9 mm: a frame with a wall to either side of a crossing, a slanted wall that
 * ends on another, a ring, a free curve, and a dashed crease.
 */
export const linesScene: LineScene = (() => {
  const penMm = 0.9;
  const frame = rectangle(15, 15, 90, 60);
  const across = line([15, 45], [75, 45]);
  const down = line([45, 15], [45, 75]);
  const slanted = line([75, 15], [90, 75]);
  const ring = circlePath({ x: 60, y: 60 }, 7);
  const curve = curveThrough([[20, 85], [40, 95], [62, 84], [84, 96], [100, 86]], 'open'); // biome-ignore format: points
  const crease = line([18, 105], [102, 105]);
  const solid = [frame, across, down, slanted, ring, curve];
  const meets = { x: 75, y: 15 };
  return {
    name: 'lines',
    widthMm: 120,
    heightMm: 120,
    penMm,
    middles: [...solid, crease],
    pieces: [...solid.map((path) => penStroke(path, penMm)), ...dashedStroke({ x: 18, y: 105 }, { x: 102, y: 105 }, 4, 2, penMm)],
    junctions: [{ x: 15, y: 45 }, { x: 45, y: 45 }, { x: 45, y: 15 }, { x: 45, y: 75 }, meets, { x: 90, y: 75 }], // biome-ignore format: points
    dashed: 1,
  };
})();
