/**
 * A trace of chords alone as it goes from a worker to the page: its outlines as numbers in a row, which takes a tenth of the
 * time that as many objects take.
 */
import type { JobTrace, Piece } from '@nuvet/core/job';
import { type Path, polygonPath } from '@nuvet/core/plane';

export interface ChordTrace extends Omit<JobTrace, 'pieces'> {
  readonly pieces: readonly (Omit<Piece, 'outer' | 'holes'> & { readonly outlines: readonly Float64Array[] })[];
}

/** x and y in turn; every outline is closed. */
function cornersOf({ start, segments }: Path): Float64Array {
  const corners = new Float64Array(2 * segments.length);
  corners.set([start.x, start.y]);
  for (let k = 0; k + 1 < segments.length; k++) {
    const { to } = segments[k] as Path['segments'][0];
    corners[2 * k + 2] = to.x;
    corners[2 * k + 3] = to.y;
  }
  return corners;
}

function pathOf(corners: Float64Array): Path {
  return polygonPath(
    Array.from({ length: corners.length / 2 }, (_, k) => ({ x: corners[2 * k] as number, y: corners[2 * k + 1] as number })),
  );
}

export const asNumbers = (trace: JobTrace): ChordTrace => ({
  ...trace,
  pieces: trace.pieces.map(({ outer, holes, ...rest }) => ({ ...rest, outlines: [outer, ...holes].map(cornersOf) })),
});

export const asOutlines = (trace: ChordTrace): JobTrace => ({
  ...trace,
  pieces: trace.pieces.map(({ outlines, ...rest }) => {
    const [outer, ...holes] = outlines.map(pathOf);
    return { ...rest, outer: outer as Path, holes };
  }),
});
