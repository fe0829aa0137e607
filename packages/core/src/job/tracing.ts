/**
 * In: a trace in pixels. Out: the job's trace on the sheet, pieces named by size.
 */
import { transformedPath } from '../plane/path.ts';
import type { Trace } from '../trace/trace.ts';
import type { TrueUpFit } from '../trueup/index.ts';
import type { JobTrace, JobTraceSettings, Picture, Piece } from './schema.ts';
import { fitOf } from './sizing.ts';

/** Places a picture's trace on the sheet, by its own fit where no other is given. */
export function traceOnSheet(
  picture: Picture,
  settings: JobTraceSettings,
  trace: Trace,
  fit: Pick<TrueUpFit, 'toSheet' | 'mmPerPx'> = fitOf(picture),
): JobTrace {
  const { toSheet, mmPerPx } = fit;
  return {
    pictureId: picture.id,
    settings,
    threshold: trace.threshold,
    dropped: trace.dropped,
    mmPerPx,
    toSheet,
    pieces: trace.pieces.map(
      ({ outer, holes, runsOff }, k): Piece => ({
        id: `piece-${k + 1}`,
        name: `Piece ${k + 1}`,
        purpose: 'cut',
        leftOut: false,
        runsOff,
        outer: transformedPath(outer, toSheet),
        holes: holes.map((hole) => transformedPath(hole, toSheet)),
      }),
    ),
  };
}

/** The pieces that go into files. */
export const keptPieces = (trace: JobTrace | null): Piece[] => trace?.pieces.filter((p) => !p.leftOut) ?? [];
