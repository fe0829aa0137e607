/**
 * Traditional blocks, in the public domain, by the grid that they are drafted on (common practice; drawn from memory for these tests), with
 * what a quilter cuts for them at a size that the grid divides evenly.
 */
import { type Path, rectanglePath } from '@nuvet/core/plane';
import type { BlockPiece, RotaryFigure } from '@nuvet/core/quilting';

export interface BlockDraft {
  readonly name: string;
  /** Squares along a side. */
  readonly grid: number;
  readonly finishedIn: number;
  /** Seams: x, y to x, y, in squares. */
  readonly seams: readonly (readonly [number, number, number, number])[];
  /** Quarter circles: the centre, the radius, and the quarter that it lies in, counted counter-clockwise from the right. */
  readonly arcs?: readonly (readonly [number, number, number, number])[];
  /** Of each shape how many, its figure, and the size to cut at an allowance of 1/4 in. */
  readonly cut: readonly { readonly count: number; readonly figure: RotaryFigure; readonly at: string }[];
  /** Whether seams right across sew it all. */
  readonly isSewn: boolean;
}

type Seam = readonly [number, number, number, number];

/** All lines of a grid. */
const allLines = (n: number): Seam[] =>
  Array.from({ length: n - 1 }, (_, k) => k + 1).flatMap((k): Seam[] => [
    [k, 0, k, n],
    [0, k, n, k],
  ]);
/** A square's diagonals: up to the right, or down. */
const up = (x: number, y: number): Seam => [x, y, x + 1, y + 1];
const down = (x: number, y: number): Seam => [x, y + 1, x + 1, y];
const both = (x: number, y: number): Seam[] => [up(x, y), down(x, y)];

const square = (count: number, at: string) => ({ count, figure: 'square', at }) as const;
const rectangle = (count: number, at: string) => ({ count, figure: 'rectangle', at }) as const;
const half = (count: number, at: string) => ({ count, figure: 'half-square triangle', at }) as const;
const quarter = (count: number, at: string) => ({ count, figure: 'quarter-square triangle', at }) as const;

export const blockDrafts: readonly BlockDraft[] = [
  { name: 'Four Patch', grid: 2, finishedIn: 8, seams: allLines(2), cut: [square(4, '4 1/2')], isSewn: true },
  { name: 'Nine Patch', grid: 3, finishedIn: 9, seams: allLines(3), cut: [square(9, '3 1/2')], isSewn: true },
  { name: 'Sixteen Patch', grid: 4, finishedIn: 12, seams: allLines(4), cut: [square(16, '3 1/2')], isSewn: true },
  { name: 'Pinwheel', grid: 2, finishedIn: 6, seams: [...allLines(2), up(0, 0), down(1, 0), down(0, 1), up(1, 1)], cut: [half(8, '3 7/8')], isSewn: true }, // biome-ignore format: one line
  { name: 'Broken Dishes', grid: 4, finishedIn: 8, seams: [...allLines(4), ...[0, 2].flatMap((x) => [0, 2].flatMap((y) => [up(x, y), down(x + 1, y), down(x, y + 1), up(x + 1, y + 1)]))], cut: [half(32, '2 7/8')], isSewn: true }, // biome-ignore format: one line
  { name: 'Hourglass', grid: 2, finishedIn: 4, seams: [[0, 0, 2, 2], [0, 2, 2, 0]], cut: [quarter(4, '5 1/4')], isSewn: true }, // biome-ignore format: one line
  { name: 'Ohio Star', grid: 3, finishedIn: 9, seams: [...allLines(3), ...both(1, 0), ...both(0, 1), ...both(2, 1), ...both(1, 2)], cut: [square(5, '3 1/2'), quarter(16, '4 1/4')], isSewn: true }, // biome-ignore format: one line
  { name: 'Friendship Star', grid: 3, finishedIn: 9, seams: [...allLines(3), up(1, 0), down(2, 1), up(1, 2), down(0, 1)], cut: [square(5, '3 1/2'), half(8, '3 7/8')], isSewn: true }, // biome-ignore format: one line
  { name: 'Shoofly', grid: 3, finishedIn: 12, seams: [...allLines(3), down(0, 0), up(2, 0), up(0, 2), down(2, 2)], cut: [square(5, '4 1/2'), half(8, '4 7/8')], isSewn: true }, // biome-ignore format: one line
  { name: 'Sawtooth Star', grid: 4, finishedIn: 12, seams: [[1, 0, 1, 4], [3, 0, 3, 4], [0, 1, 4, 1], [0, 3, 4, 3], [1, 1, 2, 0], [2, 0, 3, 1], [3, 1, 4, 2], [4, 2, 3, 3], [3, 3, 2, 4], [2, 4, 1, 3], [1, 3, 0, 2], [0, 2, 1, 1]], cut: [square(1, '6 1/2'), square(4, '3 1/2'), quarter(4, '7 1/4'), half(8, '3 7/8')], isSewn: true }, // biome-ignore format: one line
  { name: 'Churn Dash', grid: 6, finishedIn: 6, seams: [[2, 0, 2, 6], [4, 0, 4, 6], [0, 2, 6, 2], [0, 4, 6, 4], [0, 2, 2, 0], [4, 0, 6, 2], [0, 4, 2, 6], [4, 6, 6, 4], [2, 1, 4, 1], [2, 5, 4, 5], [1, 2, 1, 4], [5, 2, 5, 4]], cut: [square(1, '2 1/2'), rectangle(8, '1 1/2 x 2 1/2'), half(8, '2 7/8')], isSewn: true }, // biome-ignore format: one line
  { name: 'Rail Fence', grid: 6, finishedIn: 6, seams: [[3, 0, 3, 6], [0, 3, 6, 3], [1, 0, 1, 3], [2, 0, 2, 3], [3, 1, 6, 1], [3, 2, 6, 2], [0, 4, 3, 4], [0, 5, 3, 5], [4, 3, 4, 6], [5, 3, 5, 6]], cut: [rectangle(12, '1 1/2 x 3 1/2')], isSewn: true }, // biome-ignore format: one line
  { name: 'Square in a Square', grid: 4, finishedIn: 8, seams: [[2, 0, 4, 2], [4, 2, 2, 4], [2, 4, 0, 2], [0, 2, 2, 0]], cut: [square(1, '6 1/4'), half(4, '4 7/8')], isSewn: true }, // biome-ignore format: one line
  { name: 'Economy Patch', grid: 4, finishedIn: 8, seams: [[2, 0, 4, 2], [4, 2, 2, 4], [2, 4, 0, 2], [0, 2, 2, 0], [1, 1, 3, 1], [3, 1, 3, 3], [3, 3, 1, 3], [1, 3, 1, 1]], cut: [square(1, '4 1/2'), half(4, '4 7/8'), quarter(4, '5 1/4')], isSewn: true }, // biome-ignore format: one line
  { name: 'Flying Geese', grid: 4, finishedIn: 4, seams: [[0, 2, 4, 2], [0, 0, 2, 2], [2, 2, 4, 0], [0, 2, 2, 4], [2, 4, 4, 2]], cut: [quarter(2, '5 1/4'), half(4, '2 7/8')], isSewn: true }, // biome-ignore format: one line
  { name: 'Square with a partial seam', grid: 3, finishedIn: 6, seams: [[1, 0, 1, 2], [1, 1, 3, 1], [2, 1, 2, 3], [0, 2, 2, 2]], cut: [square(1, '2 1/2'), rectangle(4, '2 1/2 x 4 1/2')], isSewn: false }, // biome-ignore format: one line
  { name: 'Courthouse Steps', grid: 5, finishedIn: 5, seams: [[0, 1, 5, 1], [0, 4, 5, 4], [1, 1, 1, 4], [4, 1, 4, 4], [1, 2, 4, 2], [1, 3, 4, 3], [2, 2, 2, 3], [3, 2, 3, 3]], cut: [square(3, '1 1/2'), rectangle(4, '1 1/2 x 3 1/2'), rectangle(2, '1 1/2 x 5 1/2')], isSewn: true }, // biome-ignore format: one line
  { name: 'Attic Window', grid: 3, finishedIn: 6, seams: [[1, 1, 1, 3], [1, 1, 3, 1], [0, 0, 1, 1]], cut: [square(1, '4 1/2'), { count: 2, figure: 'trapezoid', at: '2 1/2 x 6 7/8' }], isSewn: false }, // biome-ignore format: one line
  { name: 'Jacob’s Ladder', grid: 6, finishedIn: 12, seams: [[2, 0, 2, 6], [4, 0, 4, 6], [0, 2, 6, 2], [0, 4, 6, 4], [1, 0, 1, 2], [0, 1, 2, 1], [3, 2, 3, 4], [2, 3, 4, 3], [5, 4, 5, 6], [4, 5, 6, 5], [1, 4, 1, 6], [0, 5, 2, 5], [5, 0, 5, 2], [4, 1, 6, 1], [2, 0, 4, 2], [4, 2, 6, 4], [0, 2, 2, 4], [2, 4, 4, 6]], cut: [square(20, '2 1/2'), half(8, '4 7/8')], isSewn: true }, // biome-ignore format: one line
  { name: 'Drunkard’s Path', grid: 4, finishedIn: 8, seams: allLines(2).map(([a, b, c, d]) => [2 * a, 2 * b, 2 * c, 2 * d] as const), arcs: [[0, 0, 1.5, 0], [4, 0, 1.5, 1], [4, 4, 1.5, 2], [0, 4, 1.5, 3]], cut: [{ count: 4, figure: 'template', at: 'template' }, { count: 4, figure: 'template', at: 'template' }], isSewn: true }, // biome-ignore format: one line
];

/** The seams as they are drawn on a sheet, each a line of its own. */
export function drawnSeams({ grid, seams, arcs = [] }: BlockDraft, sizeMm: number): BlockPiece[] {
  const at = (v: number): number => (v / grid) * sizeMm;
  const lines = seams.map(([a, b, c, d]): Path => ({ start: { x: at(a), y: at(b) }, segments: [{ kind: 'line', to: { x: at(c), y: at(d) } }], closed: false })); // biome-ignore format: one line
  const quarters = arcs.map(([x, y, r, from]): Path => {
    const p = (k: number) => ({ x: at(x + r * Math.cos((k * Math.PI) / 2)), y: at(y + r * Math.sin((k * Math.PI) / 2)) });
    return { start: p(from), segments: [{ kind: 'arc', to: p(from + 1), sweep: Math.PI / 2 }], closed: false };
  });
  const frame = rectanglePath({ minX: 0, minY: 0, maxX: sizeMm, maxY: sizeMm });
  return [frame, ...lines, ...quarters].map((outer, k) => ({ id: String(k), outer, holes: [] }));
}
