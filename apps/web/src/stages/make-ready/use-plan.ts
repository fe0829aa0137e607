'use client';
/**
 * The cut as it is planned, worked out in the worker whenever what it rests on changes.
 */
import type { Piece } from '@nuvet/core/job';
import { piecesToMake } from '@nuvet/core/make';
import { proxy } from 'comlink';
import { useEffect, useMemo } from 'react';
import { setMaking, useMaking } from '@/table/making-store';
import { maker } from '@/workers/making';
import { useJob } from '../job-store';

const pauseMs = 150;

/** The pieces as large as they are made, with their bridges. */
export function usePiecesToMake(): Piece[] {
  const job = useJob((s) => s.job);
  const { traces, drawings, drawn, making, proof, planScale } = job;
  return useMemo(
    () => piecesToMake({ traces, drawings, drawn, making, proof, planScale }),
    [traces, drawings, drawn, making, proof, planScale],
  );
}

export function usePlan(pieces: readonly Piece[]): void {
  const { cutting, machine } = useJob((s) => s.job.setup);
  const setup = useJob((s) => s.job.setup);
  // biome-ignore lint/correctness/useExhaustiveDependencies: of the set-up only these two bear on the plan
  useEffect(() => {
    let isWanted = true;
    const timer = setTimeout(async () => {
      setMaking({ planning: 0 });
      const plan = await maker().plan(
        pieces,
        setup,
        proxy((share: number) => isWanted && setMaking({ planning: share })),
      );
      if (isWanted) setMaking(plan ? { plan, planning: null } : { planning: null });
    }, pauseMs);
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [pieces, cutting, machine]);
}

/** Ends the planning that is under way. */
export function stopPlanning(): void {
  void maker().stopPlan();
  setMaking({ planning: null });
}

export const usePlanned = () => ({ plan: useMaking((s) => s.plan), planning: useMaking((s) => s.planning) });
