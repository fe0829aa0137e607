'use client';
/**
 * Lettering and dimension lines that were traced with the rest, excluded in one go and included again as easily.
 */
import type { Piece } from '@nuvet/core/job';
import { annotationsOf } from '@nuvet/core/trace';
import { useMemo } from 'react';
import { words } from '@/words';
import { Told } from './Told';

interface Props {
  readonly pieces: readonly Piece[];
  readonly onLeaveOut: (pieceIds: string[], leftOut: boolean) => void;
}

export function Annotations({ pieces, onLeaveOut }: Props) {
  const found = useMemo(() => new Set(annotationsOf(pieces)), [pieces]);
  const seen = pieces.filter(({ id }) => found.has(id));
  if (seen.length === 0) return null;
  const isOut = seen.every(({ leftOut }) => leftOut);
  const ids = seen.map(({ id }) => id);
  const count = `${seen.length} ${seen.length === 1 ? 'piece' : 'pieces'}`;
  return (
    <Told
      text={isOut ? words.trace.excludedAsLetteringAndDimensionLines(count) : words.trace.letteringAndDimensionLines(count)}
      action={isOut ? words.trace.include : words.trace.exclude}
      onClick={() => onLeaveOut(ids, !isOut)}
    />
  );
}
