/**
 * In: a motif's outlines and where they shall go. Out: them there, in their own proportions: between two places, or in a box.
 */
import { boxAroundBoxes, centreOf } from '../plane/box.ts';
import { type Path, pathBox, transformedPath } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { chain, shift, stretch, type Transform, turn } from '../plane/transform.ts';

export type MotifFit =
  /** Its left edge at `a`, its right edge at `b`: fitted to a measured length. */
  | { readonly kind: 'between'; readonly a: Point; readonly b: Point }
  /** As large as goes into the box, in its middle. */
  | { readonly kind: 'box'; readonly a: Point; readonly b: Point };

/** @throws RangeError where both places are one, or the motif has no extent */
export function fittedMotif(paths: readonly Path[], fit: MotifFit): Path[] {
  const box = boxAroundBoxes(paths.map(pathBox));
  const length = distance(fit.a, fit.b);
  if (!box || !(box.maxX > box.minX) || !(length > 0)) throw new RangeError('a motif needs an extent, and room to be fitted to');
  const middle = centreOf(box);
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const home = shift(-middle.x, -middle.y);
  const target = { x: (fit.a.x + fit.b.x) / 2, y: (fit.a.y + fit.b.y) / 2 };
  const grown: Transform =
    fit.kind === 'between'
      ? chain(turn(Math.atan2(fit.b.y - fit.a.y, fit.b.x - fit.a.x)), stretch(length / width))
      : stretch(Math.min(Math.abs(fit.b.x - fit.a.x) / width, height > 0 ? Math.abs(fit.b.y - fit.a.y) / height : Infinity));
  if (!(Math.abs(grown.a) + Math.abs(grown.b) > 0)) throw new RangeError('a box without width or height holds no motif');
  const map = chain(shift(target.x, target.y), chain(grown, home));
  return paths.map((path) => transformedPath(path, map));
}
