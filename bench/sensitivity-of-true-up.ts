/** What true-up makes of marks whose truth is known, in figures that `sensitivity.ts` sets beside each other. */

import { type Point, project } from '@nuvet/core/plane';
import { fitTrueUp, type ShapeModel, type TrueUpMark } from '@nuvet/core/trueup';
import { randomFrom } from '@nuvet/truth';

const size = { widthPx: 4000, heightPx: 3000 };

/** How pictures of each kind lead from the sheet's mm to pixels; slants from slight to strong. */
const pictures: Readonly<Record<ShapeModel, (random: () => number) => Parameters<typeof project>[0]>> = {
  uniform: () => ({ a: 10, b: 0.3, c: -0.3, d: 10, e: 0, f: 0, g: 0, h: 0, i: 1 }),
  stretch: (random) => ({ a: 10, b: 0, c: 0, d: 10 + 0.3 * random(), e: 0, f: 0, g: 0, h: 0, i: 1 }),
  affine: (random) => ({ a: 10, b: 0, c: 0.3 * random(), d: 10.1, e: 0, f: 0, g: 0, h: 0, i: 1 }),
  perspective: (random) => ({ a: 10, b: 0, c: 0, d: 10, e: 0, f: 0, g: 0.001 * random(), h: 0.001 * random(), i: 1 }),
};

/** A frame and four lengths, each point as far off as a hand's; the second length may be stated wrongly. */
function marksOf(toPixels: Parameters<typeof project>[0], random: () => number, statedWrongBy: number): TrueUpMark[] {
  const normal = () => 0.7 * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const seen = (x: number, y: number): Point => {
    const at = project(toPixels, { x, y });
    return { x: at.x + normal(), y: at.y + normal() };
  };
  const frame: TrueUpMark = {
    kind: 'frame',
    id: 'f',
    points: [seen(40, 40), seen(340, 40), seen(340, 240), seen(40, 240)],
    stated: [300, 200],
  };
  const lengths = [0, 1, 2, 3].map((k): TrueUpMark => {
    const [a, b] = [
      { x: 30 + 90 * random(), y: 30 + 200 * random() },
      { x: 250 + 90 * random(), y: 30 + 200 * random() },
    ];
    const mm = Math.hypot(a.x - b.x, a.y - b.y) * (k === 1 ? statedWrongBy : 1);
    return { kind: 'known-length', id: `${k}`, points: [seen(a.x, a.y), seen(b.x, b.y)], stated: [mm] };
  });
  return [frame, ...lengths];
}

/** Figures by name: 40 sets of marks of each kind of picture, every fourth with a slip of 2 %, every fourth with one of units. */
export function trueUpFigures(): Record<string, number> {
  let [squares, count, poorer, richer, unnamed, blamed, units] = [0, 0, 0, 0, 0, 0, 0];
  const order = Object.keys(pictures);
  for (const [kind, pictureOf] of Object.entries(pictures))
    for (let k = 0; k < 40; k++) {
      const random = randomFrom(1000 * order.indexOf(kind) + k);
      const slip = k % 4 === 1 ? 1.02 : k % 4 === 3 ? 1 / 25.4 : 1;
      const toPixels = pictureOf(random);
      const fit = fitTrueUp(size, marksOf(toPixels, random, slip), null);
      const [a, b] = [
        project(fit.projection, project(toPixels, { x: 60, y: 60 })),
        project(fit.projection, project(toPixels, { x: 300, y: 200 })),
      ];
      squares += (Math.hypot(a.x - b.x, a.y - b.y) - Math.hypot(240, 140)) ** 2;
      count++;
      const rank = order.indexOf(fit.model) - order.indexOf(kind);
      if (rank < 0) poorer++;
      if (rank > 0) richer++;
      const named = fit.outliers.some(({ id }) => id === '1');
      if (slip === 1.02 && !named) unnamed++;
      blamed += fit.outliers.filter(({ id }) => id !== '1' || slip !== 1.02).length;
      if (fit.unitMistakes.some(({ id }) => id === '1') !== (slip === 1 / 25.4)) units++;
    }
  return {
    'RMS mm': Math.sqrt(squares / count),
    'too plain': poorer,
    'too rich': richer,
    'slips unnamed': unnamed,
    'wrongly named': blamed,
    'units wrong': units,
  };
}
