/**
 * In: a map from the picture to mm, up to a shift, and how the picture is to lie. Out: the map to the sheet, with the
 * picture's box there.
 */
import { type Box, boxAround } from '../plane/box.ts';
import { middleOf, norm, type Point } from '../plane/point.ts';
import { affineAt, asProjection, chainProjections, depthAt, type Projection, project } from '../plane/projection.ts';
import { chain, shift, stretch, type Transform, turn as turnBy } from '../plane/transform.ts';
import type { PictureSize, Placing } from './marks.ts';
import { parameters } from './parameters.ts';

export function sheetPose(size: PictureSize, flat: Projection, { quarterTurns, flipped, datum, place }: Placing) {
  const turned = chain(stretch(flipped ? -1 : 1, 1), turnBy((quarterTurns * Math.PI) / 2));
  // Exact quarter turns, free of the rounding of cos(pi/2).
  const exact: Transform = {
    ...turned,
    a: Math.round(turned.a),
    b: Math.round(turned.b),
    c: Math.round(turned.c),
    d: Math.round(turned.d),
  };
  const upright = chainProjections(asProjection(exact), flat);
  const seen = seenPart(size, upright);
  const box = boxAround(seen.map((p) => project(upright, p))) as Box;
  const home = datum ? project(upright, datum) : { x: box.minX, y: box.minY };
  const [dx, dy] = [place.x - home.x, place.y - home.y];
  const projection = chainProjections(asProjection(shift(dx, dy)), upright);
  const middle = { x: size.widthPx / 2, y: size.heightPx / 2 };
  const isAffine = projection.g === 0 && projection.h === 0;
  const toSheet = isAffine
    ? affineOf(projection)
    : affineAt(projection, depthAt(projection, middle) > parameters.minDepth ? middle : middleOf(seen));
  return {
    projection,
    toSheet,
    mmPerPx: Math.sqrt(Math.abs(toSheet.a * toSheet.d - toSheet.b * toSheet.c)),
    mmPerPxAlong: { x: norm(toSheet.a, toSheet.b), y: norm(toSheet.c, toSheet.d) },
    sheetBox: { minX: box.minX + dx, minY: box.minY + dy, maxX: box.maxX + dx, maxY: box.maxY + dy },
    sheetWidthMm: box.maxX - box.minX,
    sheetHeightMm: box.maxY - box.minY,
  };
}

function affineOf({ a, b, c, d, e, f, i }: Projection): Transform {
  return { a: a / i, b: b / i, c: c / i, d: d / i, e: e / i, f: f / i };
}

/** The picture's rectangle, cut off where it is too far away to be of use. */
function seenPart({ widthPx, heightPx }: PictureSize, p: Projection): Point[] {
  const corners = [
    { x: 0, y: 0 },
    { x: widthPx, y: 0 },
    { x: widthPx, y: heightPx },
    { x: 0, y: heightPx },
  ];
  return corners.flatMap((from, k) => {
    const to = corners[(k + 1) % 4] as Point;
    const [near, far] = [depthAt(p, from) - parameters.minDepth, depthAt(p, to) - parameters.minDepth];
    const cut = near / (near - far);
    const crossing = near > 0 !== far > 0 ? [{ x: from.x + (to.x - from.x) * cut, y: from.y + (to.y - from.y) * cut }] : [];
    return near > 0 ? [from, ...crossing] : crossing;
  });
}
