/**
 * A badge of 92 mm: a mill wheel with scalloped rim, arc slots, eight spokes and three waves in the hub.
 */
import { arcAbout, type Path, type Segment } from '@nuvet/core/plane';
import { paperRule } from '../paper-rule.ts';
import { piece, type Scene } from '../scene.ts';
import { brushStroke, curveThrough, degrees, polar, ringSector } from '../shapes.ts';

const centre = { x: 75, y: 84 };

/** Half-round scallops about a circle, sharp between. */
function scallopedRim(radius: number, count: number): Path {
  const step = (2 * Math.PI) / count;
  const at = (k: number) => polar(centre, k * step, radius);
  const segments = Array.from({ length: count }, (_, k): Segment => {
    const [a, b] = [at(k), at(k + 1)];
    return { ...arcAbout({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }, a, degrees(180)), to: k === count - 1 ? at(0) : b };
  });
  return { start: at(0), segments, closed: true };
}

const slots = Array.from({ length: 16 }, (_, k) => ringSector(centre, 34, 37, degrees(k * 22.5 + 3), degrees(k * 22.5 + 19.5)));
/** Openings between spokes: each a drop whose tip points to the hub. */
const openings = Array.from({ length: 8 }, (_, k) => {
  const turned = (angle: number, reach: number) => {
    const p = polar(centre, degrees(k * 45 + angle), reach);
    return [p.x, p.y] as const;
  };
  return curveThrough([
    [...turned(22.5, 17.5), 'corner'], turned(35, 23.5), turned(38, 28.6), turned(33, 31.4),
    turned(22.5, 31.8), turned(12, 31.4), turned(7, 28.6), turned(10, 23.5),
  ]); // biome-ignore format: right side, rim, left side
});
const waves = [6.4, 0, -6.4].map((rise) =>
  brushStroke(
    [
      [-9.6, -1.6, 0.01],
      [-6, 0.9, 1.5],
      [-2, -0.7, 2.1],
      [2, 0.9, 2.1],
      [6, -0.7, 1.5],
      [9.6, 1.6, 0.01],
    ].map(([x, y, w]) => [centre.x + (x as number) * (rise === 0 ? 1 : 0.78), centre.y + (y as number) + rise, w as number] as const),
  ),
);

export const riverWheel: Scene = {
  name: 'river-wheel',
  widthMm: 150,
  heightMm: 150,
  pieces: [piece(scallopedRim(42, 28), [...slots, ...openings, ...waves])],
  print: paperRule({ x: 14, y: 18 }, 124),
  marks: {
    rule: [
      { x: 14, y: 18 },
      { x: 134, y: 18 },
    ],
    // From notch to notch of the rim.
    level: [polar(centre, Math.PI, 42), polar(centre, 0, 42)],
    across: [polar(centre, -Math.PI / 2, 42), polar(centre, Math.PI / 2, 42)],
  },
};
