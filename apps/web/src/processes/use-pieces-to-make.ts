'use client';
import { type Piece, piecesToMake } from '@nuvet/core/job';
import { useMemo } from 'react';
import { useJob } from '@/job/job-store';

/** The pieces as large as they are made, with their bridges; none where nobody asks for them. */
export function usePiecesToMake(isWanted = true): Piece[] {
  const { traces, drawings, drawn, making, proof, planScale } = useJob((s) => s.job);
  const { stock } = making;
  // Of how it is made only the stock bears on the pieces.
  // biome-ignore lint/correctness/useExhaustiveDependencies: see above
  return useMemo(
    () => (isWanted ? piecesToMake({ traces, drawings, drawn, making, proof, planScale }) : []),
    [isWanted, traces, drawings, drawn, stock, proof, planScale],
  );
}
