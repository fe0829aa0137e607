/**
 * In: a trace in pixels. Out: the job's trace on the sheet, pieces named by size.
 */
import { transformedPath } from '../plane/path.ts';
import type { Trace } from '../trace/trace.ts';
import type { TrueUpFit } from '../trueup/index.ts';
import { drawnPieces } from './drawn.ts';
import type { Job, JobTrace, JobTraceSettings, Picture, Piece } from './schema.ts';
import { fitOf, type Surface, surfaceOf } from './sizing.ts';

/** Places a picture's trace, in the pixels of its surface, on the sheet. */
export function traceOnSheet(
  picture: Picture,
  settings: JobTraceSettings,
  trace: Trace,
  { toSheet, mmPerPx }: Pick<Surface, 'toSheet' | 'mmPerPx'> = surfaceOf(picture, null),
  fit: TrueUpFit = fitOf(picture),
): JobTrace {
  return {
    pictureId: picture.id,
    settings,
    threshold: trace.threshold,
    dropped: trace.dropped,
    mmPerPx,
    toSheet: fit.toSheet,
    projection: fit.model === 'perspective' ? fit.projection : null,
    pieces: trace.pieces.map(({ outer, holes, runsOff, isDashed, strokePx, colour }, k): Piece => {
      const meant = colour === null ? undefined : settings.colours[colour];
      return {
        id: `piece-${k + 1}`,
        name: `Piece ${k + 1}`,
        // A dashed line is a crease, by the custom of die lines.
        purpose: meant?.purpose ?? (isDashed ? 'score' : 'cut'),
        leftOut: false,
        runsOff,
        outer: transformedPath(outer, toSheet),
        holes: holes.map((hole) => transformedPath(hole, toSheet)),
        ...(strokePx === null ? {} : { strokeMm: strokePx * mmPerPx }),
        ...(meant ? { colour: meant.hex } : {}),
      };
    }),
  };
}

/** What outlines come from. */
export type WithPieces = Pick<Job, 'trace' | 'drawings' | 'drawn' | 'making'>;

/** All outlines of a job: those traced, those of its drawings that are shown, then those drawn by hand. */
export const piecesOf = (job: WithPieces): Piece[] => [
  ...(job.trace?.pieces ?? []),
  ...job.drawings.flatMap((d) => (d.hidden ? [] : d.pieces)),
  ...drawnPieces(job),
];

/** The pieces that go into files. */
export const keptPieces = (job: WithPieces): Piece[] => piecesOf(job).filter((p) => !p.leftOut);
