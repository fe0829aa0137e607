/** In: a number and where it stands. Out: its figures as single lines, to be scored or engraved. */
import type { Path, Point } from '../plane/index.ts';

/** On a field 4 wide and 6 high, the pen going through the places in turn; a gap starts another line. */
const figures: Readonly<Record<string, readonly (readonly (readonly [number, number])[])[]>> = {
  0: [[[1, 0], [3, 0], [4, 1.2], [4, 4.8], [3, 6], [1, 6], [0, 4.8], [0, 1.2], [1, 0]]],
  1: [[[0.8, 4.8], [2.2, 6], [2.2, 0]], [[0.8, 0], [3.6, 0]]],
  2: [[[0, 4.8], [1, 6], [3, 6], [4, 4.8], [4, 3.6], [0, 0], [4, 0]]],
  3: [[[0, 6], [4, 6], [1.8, 3.6], [3, 3.6], [4, 2.6], [4, 1.1], [3, 0], [1, 0], [0, 1]]],
  4: [[[3, 0], [3, 6], [0, 2], [4, 2]]],
  5: [[[4, 6], [0.4, 6], [0, 3.2], [1, 3.7], [3, 3.7], [4, 2.6], [4, 1.1], [3, 0], [1, 0], [0, 1]]],
  6: [[[3.6, 6], [1.6, 5.2], [0, 3], [0, 1.1], [1, 0], [3, 0], [4, 1.1], [4, 2.5], [3, 3.6], [1, 3.6], [0, 2.6]]],
  7: [[[0, 6], [4, 6], [1.4, 0]]],
  8: [[[1, 3.2], [0.2, 4.2], [0.2, 5.1], [1.1, 6], [2.9, 6], [3.8, 5.1], [3.8, 4.2], [3, 3.2], [1, 3.2], [0, 2.2], [0, 1.1], [1.1, 0], [2.9, 0], [4, 1.1], [4, 2.2], [3, 3.2]]],
  9: [[[0.4, 0], [2.4, 0.8], [4, 3], [4, 4.9], [3, 6], [1, 6], [0, 4.9], [0, 3.5], [1, 2.4], [3, 2.4], [4, 3.4]]],
}; // biome-ignore format: a figure a line
const [wide, high, apart] = [4, 6, 1.6];

/** How wide and high a number is at a height of its figures. */
export const numeralSize = (number: number, heightMm: number): { readonly width: number; readonly height: number } => {
  const count = String(number).length;
  return { width: ((count * wide + (count - 1) * apart) * heightMm) / high, height: heightMm };
};

/** @param at the lower left corner */
export function numeral(number: number, at: Point, heightMm: number): Path[] {
  const size = heightMm / high;
  return [...String(number)].flatMap((figure, k) =>
    (figures[figure] ?? []).map((line): Path => {
      const places = line.map(([x, y]) => ({ x: at.x + (x + k * (wide + apart)) * size, y: at.y + y * size }));
      return { start: places[0] as Point, segments: places.slice(1).map((to) => ({ kind: 'line', to })), closed: false };
    }),
  );
}
