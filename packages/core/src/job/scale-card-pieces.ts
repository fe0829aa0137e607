/**
 * In: a picture with a scale card marked in it, and its fit. Out: which traced pieces are no work: the card's markers, and the ground that shows
 * around the paper that they are printed on.
 */
import { type Box, boxAround, centreOf } from '../plane/box.ts';
import { isInside, pathBox } from '../plane/path.ts';
import { type Projection, project } from '../plane/projection.ts';
import type { Picture, Piece } from './schema.ts';

/** How far a traced marker may lie off its mark, mm. */
const sameMarkerMm = 4;
const cornersOfMarker = 4;

/** Never where there is no card. */
export function isOfScaleCard({ marks }: Pick<Picture, 'marks'>, toSheet: Projection): (piece: Pick<Piece, 'outer' | 'holes'>) => boolean {
  const markers = marks.flatMap(({ kind, points }): Box[] => {
    if (kind !== 'scale-card') return [];
    const corners = points.map((p) => project(toSheet, p));
    return Array.from({ length: Math.floor(corners.length / cornersOfMarker) }, (_, k) => boxAround(corners.slice(cornersOfMarker * k, cornersOfMarker * (k + 1))) as Box); // biome-ignore format: one line
  });
  return ({ outer, holes }) => {
    if (markers.length === 0 || !outer.closed) return false;
    const own = pathBox(outer);
    const isMarker = markers.some((box) => (['minX', 'minY', 'maxX', 'maxY'] as const).every((edge) => Math.abs(box[edge] - own[edge]) < sameMarkerMm)); // biome-ignore format: one line
    return isMarker || holes.some((hole) => isInside(hole, centreOf(markers[0] as Box)));
  };
}
