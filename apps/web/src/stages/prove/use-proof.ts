'use client';
/**
 * The faults of the job's outlines, looked for in the worker whenever they change; only what changed is sent.
 */
import type { Piece } from '@nuvet/core/job';
import { piecesToProve } from '@nuvet/core/make';
import { type Finding, findingsOf, limitsOf } from '@nuvet/core/proof';
import { useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import { setMaking, useMaking } from '@/table/making-store';
import { maker, makerLost } from '@/workers/making';
import { useJob } from '../job-store';

/** Edits that follow each other more quickly are proved together. */
const pauseMs = 120;
/** A worker that could not be loaded is tried again after so long. */
const againMs = 2000;

/** Keeps the faults up to date; stands once in the page. */
export function useProving(): void {
  const job = useJob((s) => s.job);
  const sent = useRef(new Map<string, Piece>());
  const { traces, drawings, drawn, making, proof } = job;
  const pieces = useMemo(() => piecesToProve({ traces, drawings, drawn, making, proof }), [traces, drawings, drawn, making, proof]);
  const { kerfMm, thinnestMm, clearanceMm } = limitsOf(job);
  // Until the outlines as they are now have been checked, nothing is proved: also not for one frame.
  // biome-ignore lint/correctness/useExhaustiveDependencies: whatever is proved anew
  useLayoutEffect(() => setMaking({ isProving: true }), [pieces, kerfMm, thinnestMm, clearanceMm]);
  useEffect(() => {
    let isWanted = true;
    let timer: ReturnType<typeof setTimeout>;
    const prove = async () => {
      const changed = pieces.filter((p) => sent.current.get(p.id) !== p);
      sent.current = new Map(pieces.map((p) => [p.id, p]));
      const ids = pieces.map((p) => p.id);
      const faults = await Promise.race([maker().prove(changed, ids, { kerfMm, thinnestMm, clearanceMm }), makerLost()]);
      if (faults === 'lost') {
        // The next one knows none of the pieces.
        sent.current = new Map();
        if (isWanted) timer = setTimeout(prove, againMs);
      } else if (faults && isWanted) setMaking({ faults, isProving: false });
    };
    timer = setTimeout(prove, pauseMs);
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [pieces, kerfMm, thinnestMm, clearanceMm]);
  // Loaded ahead: what is proved first may be done without a connection.
  useEffect(() => void maker(), []);
  // Another job's faults are not this one's.
  useEffect(() => () => setMaking({ faults: null, isProving: true, plan: null, tiling: null, burnt: null }), []);
}

/** All findings as they stand; faults that are not looked for yet are none. */
export function useFindings(): Finding[] {
  const job = useJob((s) => s.job);
  const faults = useMaking((s) => s.faults);
  return useMemo(() => findingsOf(job, faults ?? []), [job, faults]);
}
