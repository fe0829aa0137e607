'use client';
/**
 * The faults of the job's outlines, looked for in the worker whenever they change; only what changed is sent.
 */
import type { Piece } from '@nuvet/core/job';
import { piecesToProve } from '@nuvet/core/job';
import { limitsOf } from '@nuvet/core/processes';
import { type Finding, findingsOf } from '@nuvet/core/proof';
import { useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import { setMaking, useMaking } from '@/table/making-store';
import { maker, makerLost } from '@/workers/maker.client';
import { useJob } from '../../job/job-store';

/** Edits that follow each other more quickly are proved together. */
const pauseMs = 120;
/** A worker that could not be loaded is tried again after so long. */
const againMs = 2000;

/** Keeps the faults up to date; stands once in the page. */
export function useProving(): void {
  const job = useJob((s) => s.job);
  const sent = useRef(new Map<string, Piece>());
  const { traces, drawings, drawn, making, proof } = job;
  const { stock } = making;
  // Of how it is made only the stock bears on the outlines.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  const pieces = useMemo(() => piecesToProve({ traces, drawings, drawn, making, proof }), [traces, drawings, drawn, stock, proof]);
  const found = useMemo(() => limitsOf({ making, proof }), [making, proof]);
  const key = JSON.stringify(found);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the same limits are not looked at twice
  const limits = useMemo(() => found, [key]);
  // Until the outlines as they are now have been checked, nothing is proved: also not for one frame.
  // biome-ignore lint/correctness/useExhaustiveDependencies: whatever is proved anew
  useLayoutEffect(() => setMaking({ isProving: true }), [pieces, limits]);
  useEffect(() => {
    let isWanted = true;
    let timer: ReturnType<typeof setTimeout>;
    const prove = async () => {
      const changed = pieces.filter((p) => sent.current.get(p.id) !== p);
      sent.current = new Map(pieces.map((p) => [p.id, p]));
      const ids = pieces.map((p) => p.id);
      const faults = await Promise.race([maker().prove(changed, ids, limits), makerLost()]);
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
  }, [pieces, limits]);
  // Loaded ahead: what is proved first may be done without a connection.
  useEffect(() => void maker(), []);
  // Another job's faults are not this one's.
  useEffect(() => () => setMaking({ faults: null, isProving: true, planned: null, burnt: null }), []);
}

/** All findings as they stand; faults that are not looked for yet are none. */
export function useFindings(): Finding[] {
  const job = useJob((s) => s.job);
  const faults = useMaking((s) => s.faults);
  return useMemo(() => findingsOf(job, faults ?? []), [job, faults]);
}
