import type { Job } from '@nuvet/core/job';
import type { useHand } from './hand-store';

/** The job as it looks while something is dragged. */
export function jobWithShaped(job: Job, shaped: ReturnType<typeof useHand.getState>['shaped']): Pick<Job, 'traces' | 'drawn'> {
  if (!shaped) return job;
  const [outer, ...holes] = shaped.paths;
  const isDrawn = job.drawn.some(({ id }) => id === shaped.pieceId);
  if (isDrawn) return { traces: job.traces, drawn: job.drawn.map((d) => (d.id === shaped.pieceId ? { ...d, source: shaped.source } : d)) };
  if (!outer) return job;
  return {
    drawn: job.drawn,
    traces: job.traces.map((trace) =>
      trace.pieces.some((p) => p.id === shaped.pieceId)
        ? { ...trace, pieces: trace.pieces.map((p) => (p.id === shaped.pieceId ? { ...p, outer, holes: [...holes] } : p)) }
        : trace,
    ),
  };
}
