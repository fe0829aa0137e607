/** Contours against flood fill, which counts dark areas and the light areas shut in by them in another way. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contoursAt, greyPicture } from './index.ts';

const side = 14;
const picture = (dark: boolean[]) =>
  greyPicture(
    Uint8Array.from(dark, (d) => (d ? 0 : 200)),
    side,
    side,
  );

const isInPicture = (x: number, y: number) => x >= 0 && y >= 0 && x < side && y < side;
/** A pixel more on every side, so that what lies around the picture is one area. */
const isInFrame = (x: number, y: number) => x >= -1 && y >= -1 && x <= side && y <= side;

/** Labels of areas of equal pixels, neighbours taken straight or also across; outside the picture counts as light. */
function areas(
  dark: boolean[],
  wanted: boolean,
  across: boolean,
): { count: number; label: (x: number, y: number) => number; sizes: number[] } {
  const size = side + 2;
  const isWanted = (x: number, y: number) => (!isInPicture(x, y) ? !wanted : dark[y * side + x] === wanted);
  const labels = new Int32Array(size * size).fill(-1);
  const at = (x: number, y: number) => (y + 1) * size + x + 1;
  const sizes: number[] = [];
  const steps = [
    [1, 0],
    [-1, 0],
    [0, 1],
    [0, -1],
    ...(across
      ? [
          [1, 1],
          [1, -1],
          [-1, 1],
          [-1, -1],
        ]
      : []),
  ] as [number, number][];
  for (let y = -1; y <= side; y++) {
    for (let x = -1; x <= side; x++) {
      if (!isWanted(x, y) || labels[at(x, y)] !== -1) continue;
      const open: [number, number][] = [[x, y]];
      labels[at(x, y)] = sizes.length;
      let count = 0;
      for (let next = open.pop(); next; next = open.pop()) {
        const [px, py] = next;
        if (isInPicture(px, py)) count++;
        for (const [dx, dy] of steps) {
          const [nx, ny] = [px + dx, py + dy];
          if (!isInFrame(nx, ny) || !isWanted(nx, ny) || labels[at(nx, ny)] !== -1) continue;
          labels[at(nx, ny)] = sizes.length;
          open.push([nx, ny]);
        }
      }
      sizes.push(count);
    }
  }
  return { count: sizes.length, label: (x, y) => labels[at(x, y)] as number, sizes };
}

const anyPicture = fc.array(fc.boolean(), { minLength: side * side, maxLength: side * side });

describe('contours of any black and white picture', () => {
  // Of two dark and two light pixels across, the mean is 100, above the level: the light ones hold together.
  it('are as many outer ones as there are dark areas, and as many holes as light areas shut in', () => {
    fc.assert(
      fc.property(anyPicture, (dark) => {
        const { contours } = contoursAt(picture(dark), 99.5);
        expect(contours.filter((c) => !c.isHole)).toHaveLength(areas(dark, true, false).count);
        // One light area reaches round the outside.
        expect(contours.filter((c) => c.isHole)).toHaveLength(areas(dark, false, true).count - 1);
      }),
    );
  });
  it('are nested by turns: an outer one lies in a hole or in nothing, a hole in an outer one', () => {
    fc.assert(
      fc.property(anyPicture, (dark) => {
        const { contours } = contoursAt(picture(dark), 99.5);
        for (const { isHole, parent, area } of contours) {
          const around = contours[parent];
          if (isHole) expect(around?.isHole).toBe(false);
          else expect(around === undefined || around.isHole).toBe(true);
          if (around) expect(around.area).toBeGreaterThan(area);
        }
      }),
    );
  });
  it('hold each hole in the outer contour of the very dark area that it is a hole in', () => {
    fc.assert(
      fc.property(anyPicture, (dark) => {
        const { contours } = contoursAt(picture(dark), 99.5);
        const inked = areas(dark, true, false);
        // The level lies just short of half way from 0 to 200, so that a contour's point falls into its dark pixel.
        const areaAlong = ({ points }: { points: Float64Array }) =>
          inked.label(Math.floor(points[0] as number), Math.floor(points[1] as number));
        for (const contour of contours) {
          expect(areaAlong(contour)).toBeGreaterThanOrEqual(0);
          if (contour.isHole) expect(areaAlong(contour)).toBe(areaAlong(contours[contour.parent] as typeof contour));
        }
      }),
    );
  });
});
