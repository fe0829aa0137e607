'use client';
/**
 * Keeps the trace in step with the picture and the settings: computed in the worker while sliders move, kept in the
 * job once they rest.
 */
import {
  amongOtherTraces,
  fitOf,
  isPartlyByHand,
  type JobTrace,
  type JobTraceSettings,
  mergeUserEdits,
  type Picture,
  piecesOf,
  type RasterSource,
  traceLabel,
  traceOf,
  withTraceOf,
} from '@nuvet/core/job';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useFirstLook } from '@/table/preview';
import { setTable } from '@/table/table-store';
import { words } from '@/words';
import { asOutlines } from '@/workers/chord-trace';
import { heard, tracer } from '@/workers/tracer.client';
import { useJob } from '../../job/job-store';

/** Sliders that have not moved for this long have come to rest. */
const restMs = 350;

const waitingForCopy = { word: 'reading', share: 0 } as const;

interface Progress {
  readonly word: 'reading' | 'tracing';
  readonly share: number;
}

/** @param onKept hears when the job has taken the settings in */
export function useAutomaticTrace(
  picture: Picture,
  raster: RasterSource,
  settings: JobTraceSettings,
  isMoving: boolean,
  onKept: () => void,
) {
  const run = useJob((s) => s.run);
  const job = useJob((s) => s.job);
  const trace = traceOf(job, picture.id);
  const [progress, setProgress] = useState<Progress | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  const fit = fitOf(picture);
  const projection = fit.model === 'perspective' ? fit.projection : null;
  const isCurrent =
    round === 0 &&
    trace !== null &&
    JSON.stringify(trace.settings) === JSON.stringify(settings) &&
    JSON.stringify(trace.toSheet) === JSON.stringify(fit.toSheet) &&
    JSON.stringify(trace.projection) === JSON.stringify(projection) &&
    Math.abs(trace.mmPerPx - raster.mmPerPx) < 1e-9 * raster.mmPerPx;
  // Under perspective the flattened copy is what is traced: it must be there first.
  const isReady = projection === null || raster.toOriginal !== null;
  // After an undo the outlines of that time are shown as they were: finding them anew would take redo away.
  const couldRedo = useJob(
    (s) => s.redoable.length > 0 && (traceOf(s.job, picture.id) !== null || s.redoable.some((e) => e.label === traceLabel)),
  );
  const isHeldBack = couldRedo && !isMoving && round === 0;
  const rest = useRef<ReturnType<typeof setTimeout>>(undefined);
  const pending = useRef<JobTrace | null>(null);
  const looks = useRef(0);
  const endLooks = useCallback(() => {
    looks.current++;
    useFirstLook.setState({ pieces: null });
  }, []);
  /** Shows the job's own outlines again: what was being tried out is not wanted any more. */
  const release = () => {
    endLooks();
    pending.current = null;
    setProgress(null);
    setTable({ preview: null });
  };
  /** Puts what is being tried out into the job. */
  const keep = () => {
    if (pending.current) run({ do: 'set-trace', trace: pending.current });
    pending.current = null;
    setTable({ preview: null });
  };
  const key = JSON.stringify([raster.id, raster.toSheet, picture.crop, settings, round, isReady]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for picture, fit and settings
  useEffect(() => {
    clearTimeout(rest.current);
    if (isCurrent || isHeldBack || !isReady) {
      // A slider may have come back to where it was: nothing is being tried out any more.
      release();
      if (isCurrent && isMoving) onKept();
      return;
    }
    let isWanted = true;
    setMessage(null);
    // A word on progress only for what takes long enough to be wondered at.
    const since = performance.now();
    const onShare = heard((word: Progress['word'], share: number) => {
      if (isWanted && performance.now() - since > 300) setProgress({ word, share });
    });
    // What a person chose and changed is kept; of what was changed by hand in part, the rest is fitted anew.
    const find = async (): Promise<JobTrace | null> => {
      const found = await tracer().trace(picture, raster, settings, onShare);
      const kept = found && mergeUserEdits(amongOtherTraces(found, job), trace);
      const partly = kept?.pieces.filter(isPartlyByHand) ?? [];
      if (!kept || partly.length === 0) return kept;
      const refitted = await tracer().refitted(picture, raster, settings, partly);
      return { ...kept, pieces: kept.pieces.map((piece) => refitted.find(({ id }) => id === piece.id) ?? piece) };
    };
    find().then(
      (found) => {
        if (!isWanted || !found) return;
        setProgress(null);
        endLooks();
        setTable({ preview: found });
        // What was led by hand the job keeps of itself.
        pending.current = { ...found, pieces: found.pieces.filter(({ byHand }) => !byHand) };
        rest.current = setTimeout(
          () => {
            keep();
            setRound(0);
            onKept();
          },
          isMoving ? restMs : 0,
        );
      },
      (error: Error) => {
        if (isWanted) {
          release();
          setMessage(words.trace.tryRetrace(error.message));
        }
      },
    );
    return () => {
      isWanted = false;
    };
  }, [key]);
  // What has not come to rest when the stage is left is kept then.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only when the stage is left
  useEffect(
    () => () => {
      clearTimeout(rest.current);
      endLooks();
      keep();
    },
    [],
  );

  /** Asks for a first look before anything else follows the settings. */
  const look = (next: JobTraceSettings) => {
    const mine = ++looks.current;
    void tracer()
      .look(picture, raster, next)
      .then((first) => {
        if (!first || mine !== looks.current) return;
        useFirstLook.setState({ pieces: piecesOf(withTraceOf(job, mergeUserEdits(amongOtherTraces(asOutlines(first), job), trace))) });
      })
      // What fails here fails again, with a word, in the trace itself.
      .catch(() => {});
  };

  const stop = useCallback(() => {
    void tracer().stop();
    endLooks();
    setProgress(null);
    setMessage(words.trace.stoppedRetraceGoesOn);
  }, [endLooks]);
  const again = useCallback(() => setRound((n) => n + 1), []);
  return {
    progress: progress ?? (isReady ? null : waitingForCopy),
    message: isHeldBack && !isCurrent ? words.trace.outlinesOutOfDate : message,
    look,
    stop,
    again,
  };
}
