/**
 * In: a trace in pixels. Out: the job's trace on the sheet, pieces named by size.
 */
import { transformedPath } from '../plane/path.ts';
import type { Trace } from '../trace/trace.ts';
import type { TrueUpFit } from '../trueup/index.ts';
import { drawnPieces } from './drawn.ts';
import { isOfScaleCard } from './scale-card-pieces.ts';
import type { Job, JobTrace, JobTraceSettings, Picture, Piece } from './schema.ts';
import { fitOf, type RasterSource, rasterSourceOf } from './sizing.ts';

/** Places a picture's trace, in the pixels of its surface, on the sheet. */
export function traceOnSheet(
  picture: Picture,
  settings: JobTraceSettings,
  trace: Trace,
  { toSheet, mmPerPx }: Pick<RasterSource, 'toSheet' | 'mmPerPx'> = rasterSourceOf(picture, null),
  fit: TrueUpFit = fitOf(picture),
  insideFrame = false,
): JobTrace {
  const isOfCard = isOfScaleCard(picture, fit.projection);
  return {
    pictureId: picture.id,
    settings,
    threshold: trace.threshold,
    ...(trace.isUneven ? { isUneven: true } : {}),
    ...(trace.isGrainy ? { isGrainy: true } : {}),
    ...(trace.dotPitch ? { dotPitchMm: trace.dotPitch * mmPerPx } : {}),
    dropped: trace.dropped,
    insideFrame,
    mmPerPx,
    toSheet: fit.toSheet,
    projection: fit.model === 'perspective' ? fit.projection : null,
    pieces: trace.pieces.map(({ outer, holes, runsOff, isDashed, isBleed, isScanBorder, strokePx, colour }, k): Piece => {
      const meant = colour === null ? undefined : settings.colours[colour];
      const outlines = { outer: transformedPath(outer, toSheet), holes: holes.map((hole) => transformedPath(hole, toSheet)) };
      return {
        id: `piece-${k + 1}`,
        name: `Piece ${k + 1}`,
        // A dashed line is a crease, by the custom of die lines, unless its colour says otherwise.
        purpose: isBleed ? 'guide' : isDashed && (meant?.purpose ?? 'cut') === 'cut' ? 'score' : (meant?.purpose ?? 'cut'),
        leftOut: isScanBorder === true || isOfCard(outlines),
        runsOff,
        ...outlines,
        ...(isScanBorder ? { isScanBorder } : {}),
        ...(strokePx === null ? {} : { strokeMm: strokePx * mmPerPx }),
        ...(meant ? { colour: meant.hex } : {}),
      };
    }),
  };
}

/**
 * A trace whose pieces have ids and names of their own beside those of the job's other traces. Those of the first picture traced are
 * numbered plainly; those of a further one are told apart by the picture.
 */
export function amongOtherTraces(trace: JobTrace, { traces, pictures }: Pick<Job, 'traces' | 'pictures'>): JobTrace {
  const taken = new Set(traces.flatMap((t) => (t.pictureId === trace.pictureId ? [] : t.pieces.map((p) => p.id))));
  if (!trace.pieces.some((p) => taken.has(p.id))) return trace;
  const own = trace.pictureId.slice(0, 8);
  const number = pictures.findIndex((p) => p.id === trace.pictureId) + 1;
  return {
    ...trace,
    pieces: trace.pieces.map((piece) => ({
      ...piece,
      id: piece.id.replace(/^piece-/, `${own}-`),
      name: piece.name.replace(/^Piece (\d+)$/, `Piece ${number}.$1`),
    })),
  };
}

/** What outlines come from. */
export type WithPieces = Pick<Job, 'traces' | 'drawings' | 'drawn' | 'making'>;

/** The trace of a picture; null where it is not traced yet. */
export const traceOf = ({ traces }: Pick<Job, 'traces'>, pictureId: string): JobTrace | null =>
  traces.find((trace) => trace.pictureId === pictureId) ?? null;

/** The job with a trace in the place of the one before of the same picture, or as a further one. */
export const withTraceOf = <J extends Pick<Job, 'traces'>>(job: J, trace: JobTrace): J => ({
  ...job,
  traces: traceOf(job, trace.pictureId) ? job.traces.map((t) => (t.pictureId === trace.pictureId ? trace : t)) : [...job.traces, trace],
});

/** The trace that a piece belongs to; null where it was not traced. */
export const traceWith = ({ traces }: Pick<Job, 'traces'>, pieceId: string): JobTrace | null =>
  traces.find(({ pieces }) => pieces.some(({ id }) => id === pieceId)) ?? null;

/** All outlines of a job: those traced, those of its drawings that are shown, then those drawn by hand. */
export const piecesOf = (job: WithPieces): Piece[] => [
  ...job.traces.flatMap(({ pieces }) => pieces),
  ...job.drawings.flatMap((d) => (d.hidden ? [] : d.pieces)),
  ...drawnPieces(job),
];

/** The pieces that go into files. */
export const keptPieces = (job: WithPieces): Piece[] => piecesOf(job).filter((p) => !p.leftOut);
