/**
 * In: where a printed paper rule lies on the sheet. Out: its print as thin closed paths: millimetres on the upper
 * side, inches on the lower, with figures, and a line to level by.
 */
import { chain, type Path, type Point, shift, stretch, transformedPath } from '@nuvet/core/plane';
import { rectangle } from './shapes.ts';

const hair = 0.18;
const tick = (x: number, y: number, height: number): Path => rectangle(x - hair / 2, y, hair, height);

// Strokes of each figure on a grid of 2 x 4: x, y, width, height in stroke units.
const bars = {
  top: [0, 4, 2, 0], middle: [0, 2, 2, 0], bottom: [0, 0, 2, 0],
  upperLeft: [0, 2, 0, 2], upperRight: [2, 2, 0, 2], lowerLeft: [0, 0, 0, 2], lowerRight: [2, 0, 0, 2],
} as const; // biome-ignore format: a table
type Bar = keyof typeof bars;
const figures: Record<string, readonly Bar[]> = {
  0: ['top', 'bottom', 'upperLeft', 'upperRight', 'lowerLeft', 'lowerRight'],
  1: ['upperRight', 'lowerRight'],
  2: ['top', 'upperRight', 'middle', 'lowerLeft', 'bottom'],
  3: ['top', 'upperRight', 'middle', 'lowerRight', 'bottom'],
  4: ['upperLeft', 'upperRight', 'middle', 'lowerRight'],
  5: ['top', 'upperLeft', 'middle', 'lowerRight', 'bottom'],
  6: ['top', 'upperLeft', 'middle', 'lowerLeft', 'lowerRight', 'bottom'],
  7: ['top', 'upperRight', 'lowerRight'],
  8: ['top', 'upperLeft', 'upperRight', 'middle', 'lowerLeft', 'lowerRight', 'bottom'],
  9: ['top', 'upperLeft', 'upperRight', 'middle', 'lowerRight', 'bottom'],
};

/** A number in thin strokes, `height` mm tall, its lower middle at `p`. */
function numberAt(text: string, p: Point, height: number): Path[] {
  const unit = height / 4;
  const advance = 3 * unit;
  const left = p.x - (text.length * advance - unit) / 2;
  return [...text].flatMap((figure, k) =>
    (figures[figure] ?? []).map((bar) => {
      const [x, y, w, h] = bars[bar];
      // Gaps where strokes meet, so that no area is covered twice.
      const gap = 0.14;
      const stroke =
        w > 0
          ? rectangle(x * unit + gap, y * unit - gap / 2, w * unit - 2 * gap, gap)
          : rectangle(x * unit - gap / 2, y * unit + gap, gap, h * unit - 2 * gap);
      return transformedPath(stroke, chain(shift(left + k * advance, p.y), stretch(1)));
    }),
  );
}

/** The print of a rule whose zero is at `zero`, `lengthMm` long, towards +x. */
export function paperRule(zero: Point, lengthMm: number): Path[] {
  const print: Path[] = [rectangle(zero.x - 2, zero.y - hair / 2, lengthMm + 4, hair)];
  const above = zero.y + hair / 2;
  for (let mm = 0; mm <= lengthMm; mm++) {
    const height = mm % 10 === 0 ? 5 : mm % 5 === 0 ? 3.6 : 2.2;
    print.push(tick(zero.x + mm, above, height));
    if (mm % 10 === 0) print.push(...numberAt(String(mm / 10), { x: zero.x + mm, y: above + 5.8 }, 2));
  }
  for (let eighth = 0; (eighth * 25.4) / 8 <= lengthMm; eighth++) {
    const height = eighth % 8 === 0 ? 5 : eighth % 4 === 0 ? 3.6 : 2.2;
    const x = zero.x + (eighth * 25.4) / 8;
    print.push(tick(x, zero.y - hair / 2 - height, height));
    if (eighth % 8 === 0) print.push(...numberAt(String(eighth / 8), { x, y: zero.y - hair / 2 - 8 }, 2));
  }
  return print;
}
